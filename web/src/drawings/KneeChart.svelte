<script lang="ts">
  import BottomAxis from './BottomAxis.svelte';
  import { line } from 'd3-shape';
  import type { components } from '../lib/api.gen';
  import { figure, preferences } from '../lib/preferences.svelte';
  import { gpp, gr } from '../lib/units';
  import { massTicks, speedTicks, speedUnit } from './axis';
  import type { Knee } from './knee.svelte';
  import { dragged } from './dragged';
  import Hatch from './Hatch.svelte';
  import DragKnob from './DragKnob.svelte';
  import { Plot } from './plot.svelte';

  type Sample = components['schemas']['KneeSample'];
  let { knee }: { knee: Knee } = $props();

  const plot = new Plot(330, { left: 48, right: 40, top: 44, bottom: 58 });
  const drawing = $derived(knee.drawing);
  const x = $derived(plot.x(knee.least, knee.most));
  const samples = $derived(knee.shown);
  const y = plot.y(0, 1);
  const fastest = $derived(
    Math.max(...samples.map((s) => Math.max(s.speed_mps, s.before_mps ?? 0))),
  );
  const slowest = $derived(Math.min(...samples.map((s) => s.speed_mps)) * 0.85);
  const speedY = $derived(plot.y(slowest, fastest * 1.02));
  const leftShare = (s: Sample) => s.left_j / drawing.stored_j;
  const path = (of: (s: Sample) => number) =>
    line<Sample>(
      (s) => x(s.mass_gr),
      (s) => of(s),
    )(samples) ?? '';
  const near = (share: number): Sample | undefined =>
    samples[Math.round(share * (samples.length - 1))];
  const clip = (place: number) => Math.min(Math.max(place, 70), plot.across - 70);
</script>

<figure bind:clientWidth={plot.width}>
  <svg
    viewBox="0 0 {plot.across} {plot.height}"
    class="w-full"
    role="group"
    aria-label="What an arrow of some mass gets from this bow"
  >
    <Hatch id="knee-hatch" />
    <rect
      x={plot.left}
      y={plot.top}
      width={Math.max(x(knee.floor) - plot.left, 0)}
      height={plot.floor - plot.top}
      fill="url(#knee-hatch)"
      opacity="0.5"
    />
    <rect
      x={x(drawing.floor_gr - drawing.floor_plus_minus_gr)}
      y={plot.top}
      width={x(2 * drawing.floor_plus_minus_gr) - x(0)}
      height={plot.floor - plot.top}
      fill="var(--amber)"
      opacity="0.12"
    />
    {#each [0, 0.25, 0.5, 0.75, 1] as share (share)}
      <line x1={plot.left} x2={plot.right} y1={y(share)} y2={y(share)} stroke="var(--faint)" />
      <text x={plot.left - 6} y={y(share) + 4} text-anchor="end" class="soft">{share * 100} %</text>
    {/each}
    <BottomAxis
      ticks={massTicks(knee.least, knee.most, plot.across > 500 ? 8 : 5, preferences.units)}
      {x}
      y={plot.floor}
    />
    <line x1={plot.left} x2={plot.right} y1={plot.floor} y2={plot.floor} stroke="var(--line)" />
    <text x={plot.across} y={plot.floor + 36} text-anchor="end" class="soft">
      {preferences.units === 'metric' ? 'g' : 'gr'}{plot.across > 500 ? ', finished arrow' : ''}
    </text>

    {#if samples[0]?.before_mps != null}
      <path d={path((s) => speedY(s.before_mps ?? s.speed_mps))} class="before" />
    {/if}
    <path d={path((s) => y(leftShare(s)))} class="left" />
    <path d={path((s) => speedY(s.speed_mps))} class="speed" />
    <path d={path((s) => y(s.share))} class="share" />
    {#each speedTicks(slowest, fastest, 5, preferences.units) as tick (tick.at)}
      <text x={plot.right + 6} y={speedY(tick.at) + 4} class="soft">{tick.text}</text>
    {/each}
    <text x={plot.across} y={plot.top - 26} text-anchor="end" class="soft">
      {speedUnit(preferences.units)}
    </text>
    <text x="0" y={plot.top - 26} class="soft">share of the energy stored</text>
    {#each [near(0.86)] as right (right)}
      {#if right}
        <text x={x(right.mass_gr)} y={y(right.share) - 8} text-anchor="middle" class="share-text">
          to the arrow
        </text>
      {/if}
    {/each}
    {#each [near(0.62)] as right (right)}
      {#if right}
        <text
          x={x(right.mass_gr)}
          y={y(leftShare(right)) + 20}
          text-anchor="middle"
          class="left-text"
        >
          left in the bow
        </text>
      {/if}
    {/each}
    {#each [near(0.1)] as left (left)}
      {#if left}
        <text
          x={x(left.mass_gr) + 8}
          y={speedY(left.before_mps ?? left.speed_mps) - 6}
          class="halo"
        >
          speed
        </text>
      {/if}
    {/each}
    {#each drawing.readings as reading (reading.entry)}
      <circle
        cx={x(reading.mass_gr)}
        cy={speedY(reading.speed_mps)}
        r="4.5"
        class="reading"
        class:out={reading.impossible}
      />
    {/each}

    <text x={clip(x(knee.floor))} y={plot.top - 8} text-anchor="middle" class="red">
      {drawing.bowyer_gr != null ? "bowyer's minimum" : 'computed floor'}
      {figure(gr(knee.floor))}
    </text>
    <line x1={x(knee.floor)} x2={x(knee.floor)} y1={plot.top} y2={plot.floor} class="floor" />
    {#if drawing.arrow_gr != null && x(drawing.arrow_gr) <= plot.right}
      <path d="M{x(drawing.arrow_gr)} {plot.floor}l-6 -9h12Z" fill="var(--ink)" />
    {/if}
    <line
      x1={x(knee.mass)}
      x2={x(knee.mass)}
      y1={plot.top}
      y2={plot.floor + 26}
      stroke="var(--ink)"
      stroke-dasharray="3 3"
    />
    <DragKnob
      x={x(knee.mass)}
      y={plot.floor + 34}
      label="Arrow mass to try: drag or use the arrow keys"
      low={Math.round(knee.least)}
      high={Math.round(knee.most)}
      now={Math.round(knee.mass)}
      says="{figure(gr(knee.mass))}, {figure(gpp(knee.mass / drawing.weight_lbf))}"
      {...dragged((at) => knee.hold(x.invert(at.x)))}
      onkeydown={knee.key}
    />
    <text
      x={x(knee.mass) + (x(knee.mass) > plot.across / 2 ? -18 : 18)}
      y={plot.floor + 39}
      text-anchor={x(knee.mass) > plot.across / 2 ? 'end' : 'start'}
      class="strong"
    >
      {figure(gr(knee.mass))}, {figure(gpp(knee.mass / drawing.weight_lbf))}
    </text>
  </svg>
</figure>

<style>
  .red {
    fill: var(--red);
  }
  .strong {
    font-weight: 600;
    font-size: 15px;
  }
  path.share,
  path.left,
  path.speed,
  path.before {
    fill: none;
    stroke-width: 2;
  }
  .share {
    stroke: var(--green);
  }
  .left {
    stroke: var(--amber);
  }
  .speed {
    stroke: var(--ink);
  }
  .before {
    stroke: var(--soft);
    stroke-width: 1.4;
    stroke-dasharray: 4 4;
  }
  .share-text {
    fill: var(--green);
  }
  .halo {
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
  }
  .left-text {
    fill: var(--amber);
  }
  .floor {
    stroke: var(--red);
    stroke-width: 1.4;
  }
  .reading {
    fill: var(--paper);
    stroke: var(--red);
    stroke-width: 2.2;
  }
  .reading.out {
    stroke-dasharray: 2 2;
  }
</style>
