<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import BringBack from './BringBack.svelte';
  import CrawlsHead from './CrawlsHead.svelte';
  import NoCrawls from './NoCrawls.svelte';
</script>

<WhenReady key="crawls">
  {#snippet children(_, stage, page)}
    <CrawlsHead {stage} {page} />
    {#if page.rows.length}
      <div class="ways">
        <section aria-labelledby="open-title">
          <h2 id="open-title">On this device</h2>
          <p>
            The crawl for each target in large figures. Log where it struck with one tap; each shot
            moves the table. It works on without a network and sends the shots once there is one.
          </p>
          <a class="act act-strong" href={`/field/${openRig.rig}`} target="_self"
            >Open the field helper</a
          >
        </section>
        <section aria-labelledby="along-title">
          <h2 id="along-title">On another phone</h2>
          <p>
            One file with the table inside: send it to the phone and open it there. It needs no
            network. Its shots come back as text.
          </p>
          <a class="act" href={`/api/rigs/${openRig.rig}/field-helper.html`} download
            >Take it along</a
          >
        </section>
      </div>
      <BringBack />
    {:else}
      <p class="mt-4 text-soft">The field helper needs {page.lacks.join(', and ')}.</p>
    {/if}
    <Cautions {stage} />
  {/snippet}
  {#snippet none()}<NoCrawls />{/snippet}
</WhenReady>

<style>
  .ways {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
    gap: 1.5rem 2.5rem;
    margin-bottom: 1.75rem;
  }
  .ways p {
    margin: 0.35rem 0 0.75rem;
    max-width: 34rem;
  }
</style>
