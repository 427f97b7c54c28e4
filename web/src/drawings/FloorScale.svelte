<script lang="ts">
  import BottomAxis from './BottomAxis.svelte';
  import { ticks } from 'd3-array';
  import { scaleLinear } from 'd3-scale';
  import type { components } from '../lib/api.gen';
  import { figure, preferences } from '../lib/preferences.svelte';
  import { gpp, gr } from '../lib/units';
  import Hatch from './Hatch.svelte';

  type Drawing = components['schemas']['FloorDrawing'];
  const FLOORS: Record<Drawing['floor_basis'], string> = {
    bowyer: "bowyer's minimum",
    computed: 'computed floor',
    school: 'floor of its kind',
  };
  let { drawing }: { drawing: Drawing } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 300));
  const H = 200;
  const LINE = 104;
  const value = $derived(drawing.grains_per_pound ?? null);
  const low = $derived(Math.floor(Math.min(drawing.stop_below, value ?? 99) - 2));
  const high = $derived(Math.ceil(Math.max(drawing.floor, value ?? 0) + 2.5));
  const x = $derived(scaleLinear([low, high], [8, W - 8]));
  const GRAIN_STEP = { inch: 1, centimetre: 1, metric: 15.432358 } as const;
  const massTicks = $derived.by(() => {
    if (drawing.weight_lbf == null) return [];
    const per = GRAIN_STEP[preferences.units];
    return ticks((low * drawing.weight_lbf) / per, (high * drawing.weight_lbf) / per, 7)
      .map((mass) => ({ at: (mass * per) / (drawing.weight_lbf ?? 1), text: `${mass}` }))
      .filter((tick) => x(tick.at) > 24 && x(tick.at) < W - 24);
  });
  const clip = (place: number) => Math.min(Math.max(place, 60), W - 60);
</script>

<figure bind:clientWidth={width}>
  <svg
    viewBox="0 0 {W} {H}"
    class="w-full"
    role="img"
    aria-label="Grains per pound of the arrows against the floor"
  >
    <Hatch id="floor-hatch" />
    <rect
      x={x(low)}
      y={LINE - 22}
      width={x(drawing.stop_below) - x(low)}
      height="44"
      fill="url(#floor-hatch)"
      opacity="0.55"
    />
    <rect
      x={x(drawing.stop_below)}
      y={LINE - 22}
      width={x(drawing.floor) - x(drawing.stop_below)}
      height="44"
      fill="var(--amber)"
      opacity="0.3"
    />
    <rect
      x={x(drawing.floor)}
      y={LINE - 22}
      width={x(high) - x(drawing.floor)}
      height="44"
      fill="var(--green)"
      opacity="0.13"
    />
    <line x1={x(low)} x2={x(high)} y1={LINE + 22} y2={LINE + 22} stroke="var(--line)" />
    <BottomAxis
      ticks={ticks(low, high, 9).map((at) => ({ at, text: `${at}` }))}
      {x}
      y={LINE + 22}
      gap={19}
    />
    <text x={W - 8} y={LINE + 58} text-anchor="end" class="soft">grains per pound</text>
    {#if massTicks.length}
      <line x1={x(low)} x2={x(high)} y1={LINE + 66} y2={LINE + 66} stroke="var(--line)" />
      <BottomAxis ticks={massTicks} {x} y={LINE + 66} gap={19} />
      <text x="8" y={LINE + 60} class="soft">
        finished arrow on this bow, {preferences.units === 'metric' ? 'g' : 'gr'}
      </text>
    {/if}
    <line
      x1={x(drawing.floor)}
      x2={x(drawing.floor)}
      y1={LINE - 34}
      y2={LINE + 22}
      stroke="var(--ink)"
      stroke-width="1.6"
    />
    <text x={clip(x(drawing.floor))} y={LINE - 40} text-anchor="middle">
      <tspan class="soft">{FLOORS[drawing.floor_basis]} </tspan>
      <tspan class="strong">{drawing.floor.toFixed(1)}</tspan>
    </text>
    <text x={x(low) + 8} y={LINE + 15} class="zone">too light</text>
    {#each drawing.arrows as arrow (arrow.entry)}
      {#if arrow.grains_per_pound != null}
        <line
          x1={x(arrow.grains_per_pound)}
          x2={x(arrow.grains_per_pound)}
          y1={LINE + 6}
          y2={LINE + 22}
          stroke="var(--ink)"
          stroke-width="1.4"
        />
      {/if}
    {/each}
    {#if value !== null}
      <line
        x1={x(value - (drawing.plus_minus ?? 0))}
        x2={x(value + (drawing.plus_minus ?? 0))}
        y1={LINE - 6}
        y2={LINE - 6}
        stroke="var(--red)"
        stroke-width="3"
      />
      <circle cx={x(value)} cy={LINE - 6} r="7" class="here" />
      <line x1={x(value)} x2={x(value)} y1="32" y2={LINE - 13} stroke="var(--ink)" />
      <text x={clip(x(value))} y="24" text-anchor="middle" class="main">
        {figure(gpp(value, drawing.plus_minus))}
      </text>
    {:else}
      <text x={W / 2} y="24" text-anchor="middle" class="soft">
        Grains per pound needs a draw, a bow's weight and an arrow's mass.
      </text>
    {/if}
    {#if drawing.weight_lbf != null}
      <text x={clip(x(drawing.floor))} y={LINE - 56} text-anchor="middle" class="soft">
        {figure(gr(drawing.floor * drawing.weight_lbf))}
      </text>
    {/if}
  </svg>
</figure>

<style>
  .strong {
    font-weight: 600;
  }
  .main {
    font-size: 18px;
    font-weight: 600;
  }
  .zone {
    fill: var(--red);
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 5px;
  }
  .here {
    fill: var(--paper);
    stroke: var(--red);
    stroke-width: 4;
  }
</style>
