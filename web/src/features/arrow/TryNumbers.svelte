<script lang="ts">
  import type { Trial } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gpp, gr, mps, percent, spine, mm } from '../../lib/units';
  import SpineScale from '../../drawings/SpineScale.svelte';
  import { STIFFNESS } from './words';

  let { trial, tried }: { trial: Trial; tried: boolean } = $props();

  const CLEAR = { clear: 'clear', marginal: 'marginal', slap: 'slaps' };
  const there = $derived(trial.tried);
  const now = $derived(trial.now);
  const cells = $derived([
    {
      label: 'Your shafts',
      value: there.word ? STIFFNESS[there.word] : 'spine not told',
      was: now.word ? STIFFNESS[now.word] : '',
      bad: false,
    },
    {
      label: 'Index',
      value: there.index == null || there.word === 'very_weak' ? '–' : signed(there.index),
      was: now.index == null ? '' : signed(now.index),
      bad: false,
    },
    {
      label: 'Tail at the plate',
      value: there.clearance ? CLEAR[there.clearance] : '–',
      was: now.clearance ? CLEAR[now.clearance] : '',
      bad: there.clearance === 'slap',
    },
    {
      label: 'Finished mass',
      value: figure(gr(there.mass_gr)),
      was: figure(gr(now.mass_gr)),
      bad: false,
    },
    {
      label: 'Grains per pound',
      value: figure(gpp(there.grains_per_pound)),
      was: figure(gpp(now.grains_per_pound)),
      bad: there.floor_severity === 'stop' || there.floor_severity === 'mend',
    },
    {
      label: 'Speed',
      value: figure(mps(there.speed_mps)),
      was: figure(mps(now.speed_mps)),
      bad: false,
    },
  ]);

  const SHORT = {
    stop: ['Stop', 'Such a shaft can fall behind the rest at your draw: never draw it.'],
    mend: ['Mend', `Such a shaft reaches less than ${figure(mm(25.4))} past the rest.`],
    watch: ['Watch', 'Such a shaft may fall behind the rest: mark the draw on a long arrow first.'],
    good: ['Good', ''],
  } as const;

  function signed(value: number): string {
    return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;
  }
</script>

{#if there.too_short}
  <p class="stop" role="alert">
    <strong>{SHORT[there.too_short][0]}.</strong>
    {SHORT[there.too_short][1]}
  </p>
{/if}
{#if there.floor_severity === 'stop'}
  <p class="stop" role="alert">
    <strong>Stop.</strong> Too far under the floor, {figure(gpp(trial.floor_gpp))}: such an arrow is
    not shot from this bow.
  </p>
{/if}
<SpineScale {trial} {tried} />
<dl class="numbers" aria-live="polite">
  {#each cells as cell (cell.label)}
    <div>
      <dt class="label">{cell.label}</dt>
      <dd>
        <span class="figure block" class:text-red={cell.bad}>{cell.value}</span>
        <span class="label">{tried && cell.was !== cell.value ? `now ${cell.was}` : '\u00a0'}</span>
      </dd>
    </div>
  {/each}
</dl>
<p class="text-sm text-soft">
  Wants {figure(spine(there.low_lbf))} to {figure(spine(there.high_lbf))}; balances {figure(
    percent(there.forward),
  )} forward of the middle. Index: tenths of stiffness off the match, + is stiff.
</p>

<style>
  .numbers {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(8rem, 1fr));
    border-top: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
    margin: 0.4rem 0;
  }
  .numbers > div {
    padding: 0.5rem 0.75rem 0.3rem 0;
  }
  @media (max-width: 767px) {
    .numbers {
      position: sticky;
      top: 0;
      z-index: 10;
      background: var(--paper);
    }
  }
  .stop {
    border-left: 5px solid var(--red);
    background: color-mix(in srgb, var(--red) 9%, var(--paper));
    padding: 0.5rem 0.75rem;
    margin-bottom: 0.6rem;
  }
  .stop strong {
    color: var(--red);
  }
</style>
