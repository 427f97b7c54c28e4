<script lang="ts">
  import Fold from '../../components/Fold.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import ValueText from '../../components/ValueText.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import CrawlChart from '../../drawings/crawls/CrawlChart.svelte';
  import { Reach } from '../../drawings/crawls/reach.svelte';
  import type { PageOf } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { valueOf } from '../../lib/values';
  import { wanted } from '../../lib/wanted';
  import CrawlForm from './CrawlForm.svelte';
  import CrawlRows from './CrawlRows.svelte';
  import CrawlsHead from './CrawlsHead.svelte';
  import NoCrawls from './NoCrawls.svelte';
  import Marks from './Marks.svelte';
  import OwnMeasures from './OwnMeasures.svelte';

  const page = $derived(openRig.pages.crawls as PageOf<'crawls'> | undefined);
  const reach = new Reach(() => page as PageOf<'crawls'>);
</script>

<WhenReady key="crawls">
  {#snippet children(assessment, stage, found)}
    {@const speed = valueOf(stage, 'crawl_speed')}
    {@const eye = valueOf(stage, 'crawl_eye')}
    <CrawlsHead {stage} page={found} />
    {#if found.rows.length}
      <div class="both">
        <CrawlChart {reach} />
        <CrawlRows page={found} />
      </div>
    {:else}
      <p class="grid h-32 place-items-center border border-dashed border-line p-4 text-soft">
        <span class="max-w-md text-center">
          A table of crawls needs {found.lacks.join(', and ')}. Crawls you record are kept until
          then.
        </span>
      </p>
    {/if}
    <div class="mt-4 grid gap-6 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
      <section aria-labelledby="marks-title" {@attach wanted('marks')} tabindex="-1">
        <h2 id="marks-title">Crawls as shot</h2>
        <CrawlForm notation={found.notation} unit={found.unit} />
        <Marks page={found} />
      </section>
      {#if found.rows.length}
        <section aria-labelledby="read-title">
          <h2 id="read-title">Read from them</h2>
          <dl class="mt-2">
            {#each [speed, eye] as value (value?.key)}
              {#if value}
                <dt class="text-sm text-soft">{value.label}</dt>
                <dd class="mb-2 text-lg font-semibold"><ValueText {value} /></dd>
              {/if}
            {/each}
            {#if found.linear}
              <dt class="text-sm text-soft">The school of even steps, in long dashes</dt>
              <dd>
                {(-found.linear.per_10_m).toFixed(0)} mm for 10 m, {(
                  -found.linear.per_10_m / found.finger_mm
                ).toFixed(2)} of a finger.
                {#if found.linear.leaves.length}
                  It leaves the band at {found.linear.leaves.join(', ')}.
                {:else}
                  It stays inside the band; it has none of its own.
                {/if}
              </dd>
            {/if}
          </dl>
          {#if found.anchor_assumed}
            <p class="text-sm text-soft">Anchor not told: the corner of the mouth is assumed.</p>
          {/if}
        </section>
      {/if}
    </div>
    <div class="mt-4">
      <Fold name="Your hand, tab and table" key="crawls.own">
        <OwnMeasures {assessment} page={found} />
      </Fold>
    </div>
    <Cautions {stage} />
  {/snippet}
  {#snippet none()}<NoCrawls />{/snippet}
</WhenReady>

<style>
  .both {
    display: grid;
    grid-template-columns: minmax(0, 1.45fr) minmax(0, 1fr);
    gap: 1.25rem;
    align-items: start;
  }
  @media (max-width: 1100px) {
    .both {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
