<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import CrawlsHead from './CrawlsHead.svelte';
  import NoCrawls from './NoCrawls.svelte';
  import RoundingCosts from './RoundingCosts.svelte';

  // the drawings are asked for anew once something was recorded
  const revision = $derived(openRig.assessment?.revision ?? 0);
  const path = (what: string) => `/api/rigs/${openRig.rig}/crawl-${what}.svg?at=${revision}`;
  const DRAWINGS = [
    { what: 'strip', says: 'Strip for the tab', alt: 'Every crawl down the string, at true size' },
    { what: 'card', says: 'Pocket card', alt: 'Distance, millimetres and notation' },
  ] as const;
</script>

<WhenReady key="crawls">
  {#snippet children(_, stage, page)}
    <CrawlsHead {stage} {page} />
    {#if page.rows.length}
      <p>
        At true size. Print without scaling, and <strong>measure the ruler: 50 mm</strong>. The top
        of the hook stands at the line; the grey beside it is the band.
      </p>
      {#if page.stitch_mm == null}
        <p class="text-soft">
          Measure ten stitches of the tab and they stand beside the marks: <code>stitches 33mm</code
          >.
        </p>
      {/if}
      <div class="mt-3 flex flex-wrap gap-3">
        <button class="act act-strong" onclick={() => window.print()}>Print</button>
        <a class="act" href={`/api/rigs/${openRig.rig}/crawl-strip.pdf?at=${revision}`} download
          >Save as PDF</a
        >
        {#each DRAWINGS as { what, says } (what)}
          <a class="act" href={path(what)} download={`${openRig.rig}-${what}.svg`}>{says}, SVG</a>
        {/each}
      </div>
      <div class="sheet mt-4">
        {#each DRAWINGS as { what, says, alt } (what)}
          <figure>
            <img src={path(what)} {alt} />
            <figcaption class="text-sm text-soft">{says}</figcaption>
          </figure>
        {/each}
      </div>
      <RoundingCosts {page} />
    {:else}
      <p class="mt-4 text-soft">A strip needs {page.lacks.join(', and ')}.</p>
    {/if}
    <Cautions {stage} />
  {/snippet}
  {#snippet none()}<NoCrawls />{/snippet}
</WhenReady>

<style>
  .sheet {
    display: flex;
    flex-wrap: wrap;
    gap: 1.5rem;
    align-items: start;
  }
  img {
    background: white;
    max-width: none;
    border: 1px solid var(--line);
  }
  /* paper holds the drawings alone, at their own size */
  @media print {
    :global(body *) {
      visibility: hidden;
    }
    .sheet,
    .sheet :global(*) {
      visibility: visible;
    }
    .sheet {
      position: fixed;
      inset: 0 auto auto 0;
    }
    img {
      border: 0;
    }
    figcaption {
      display: none;
    }
  }
</style>
