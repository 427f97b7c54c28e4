<script lang="ts">
  import BottomAxis from './BottomAxis.svelte';
  import { SPINE_THOUSANDTHS } from '../lib/units.gen';
  import { scaleLog } from 'd3-scale';
  import type { Trial } from '../lib/api';
  import { figure } from '../lib/preferences.svelte';
  import { spine } from '../lib/units';

  let { trial, tried }: { trial: Trial; tried: boolean } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 300));
  const LINE = 58;
  const x = $derived(scaleLog([24, 135], [8, W - 8]));
  const TICKS = [25, 30, 40, 50, 60, 80, 100, 130];
  const own = $derived(trial.own_lbf ?? null);
  const there = $derived(trial.tried);
  const clip = (place: number) => Math.min(Math.max(place, 60), W - 60);
</script>

<figure bind:clientWidth={width}>
  <svg viewBox="0 0 {W} 100" class="w-full" role="img" aria-labelledby="scale-says">
    <BottomAxis ticks={TICKS.map((at) => ({ at, text: `${at}` }))} {x} y={LINE} mark={6} gap={20} />
    {#if W > 560}
      {#each TICKS as tick (tick)}
        <text x={x(tick)} y={LINE + 36} text-anchor="middle" class="soft faint">
          {Math.round(SPINE_THOUSANDTHS / tick / 5) * 5}
        </text>
      {/each}
    {/if}
    <line x1="0" x2={W} y1={LINE} y2={LINE} stroke="var(--ink)" />
    {#if tried}
      <rect
        x={x(trial.now.low_lbf)}
        width={x(trial.now.high_lbf) - x(trial.now.low_lbf)}
        y={LINE - 8}
        height="8"
        fill="none"
        stroke="var(--soft)"
        stroke-dasharray="3 2"
      />
    {/if}
    <rect
      x={x(there.low_lbf)}
      width={x(there.high_lbf) - x(there.low_lbf)}
      y={LINE - 16}
      height="16"
      fill="var(--green)"
      opacity="0.35"
    />
    <text x={clip(x(there.matched_lbf))} y="14" text-anchor="middle" class="strong">
      wants {figure(spine(there.matched_lbf))}
    </text>
    <line
      x1={x(there.matched_lbf)}
      x2={x(there.matched_lbf)}
      y1="20"
      y2={LINE}
      stroke="var(--green)"
      stroke-width="2"
    />
    {#if own !== null}
      <path d="M{x(own)} {LINE - 1} l-6 -13 h12 z" fill="var(--wood-line)" />
      <text
        x={clip(x(own))}
        y={LINE - 20}
        text-anchor={own < there.matched_lbf ? 'end' : 'start'}
        class="halo">yours {figure(spine(own))}</text
      >
    {/if}
    <text x="0" y={LINE - 24} class="soft">weaker</text>
    <text x={W} y={LINE - 24} text-anchor="end" class="soft">stiffer</text>
  </svg>
  <figcaption id="scale-says" class="sr-only">
    Spine in pounds{W > 560 ? ', thousandths below' : ''}: what the rig wants as a band, your shafts
    as a mark.
  </figcaption>
</figure>

<style>
  .strong {
    font-weight: 600;
  }
  .halo {
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
  }
</style>
