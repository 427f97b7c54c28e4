<script lang="ts">
  import MoreNote from '../../components/MoreNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { Stage } from '../../lib/api';
  import type { components } from '../../lib/api.gen';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { gr, mps } from '../../lib/units';
  import { valueOf } from '../../lib/values';

  let { knee, stage }: { knee: components['schemas']['KneeDrawing'] | null; stage: Stage } =
    $props();

  const sum = $derived(valueOf(stage, 'stored')?.because ?? []);
</script>

{#if knee?.readings.length}
  <table class="rows mt-1">
    <thead>
      <tr>
        <th>Arrow</th><th>Read</th><th>Before</th><th>Now</th>
        <th><span class="sr-only">Take back</span></th>
      </tr>
    </thead>
    <tbody>
      {#each knee.readings as reading (reading.entry)}
        <tr>
          <td class="whitespace-nowrap">{figure(gr(reading.mass_gr))}</td>
          <td class="whitespace-nowrap">{figure(mps(reading.speed_mps))}</td>
          <td class="whitespace-nowrap text-soft">{figure(mps(reading.before_mps))}</td>
          <td class="whitespace-nowrap">
            {#if reading.impossible}
              <span class="text-amber">set aside</span>
            {:else}
              {figure(mps(reading.fitted_mps))}
              {#if reading.off}<span class="text-amber">off</span>{/if}
            {/if}
          </td>
          <td class="text-right">
            <TakeBack entry={reading.entry} what={figure(mps(reading.speed_mps))} />
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <MoreNote count={knee.more} />
{:else}
  <p class="mt-1 text-soft">
    None yet. Until then speed is good to about 5 % and virtual mass to about 15 %.
  </p>
{/if}
{#if knee?.crawled}
  {@const by = knee.crawled}
  <h3 class="mt-4 text-sm font-semibold text-soft">What the crawls say</h3>
  <dl class="said mt-1">
    <dt>Bow and chronograph</dt>
    <dd>{figure(mps(by.said_mps, by.said_plus_minus_mps))}</dd>
    <dt>{by.marks} crawl{by.marks === 1 ? '' : 's'} alone</dt>
    <dd>
      {by.alone_mps == null || by.alone_plus_minus_mps == null
        ? 'hardly tell yet'
        : figure(mps(by.alone_mps, by.alone_plus_minus_mps))}
    </dd>
    <dt class="font-semibold text-ink">
      Together{#if by.other_marks}, with {by.other_marks} of other arrows{/if}
    </dt>
    <dd class="font-semibold">
      {figure(mps(by.together_mps, by.together_plus_minus_mps))}
    </dd>
  </dl>
  <p class="text-sm" class:text-amber={by.apart} class:text-soft={!by.apart}>
    {by.apart
      ? 'They lie apart beyond both doubts: another arrow, another draw, or yards.'
      : `Your arrow of ${figure(gr(by.mass_gr))}: the table of crawls and what a wrong distance costs go by this speed.`}
  </p>
{/if}
{#if sum.length}
  <ul class="mt-2 text-sm text-soft">
    {#each sum as line, index (index)}<li>{tell(line)}</li>{/each}
  </ul>
{/if}

<style>
  .said {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.15rem 1rem;
    max-width: 24rem;
  }
  .said dt {
    color: var(--soft);
  }
  .said dd {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
</style>
