<script lang="ts">
  import BottomAxis from '../../drawings/BottomAxis.svelte';
  import { scaleLinear } from 'd3-scale';
  import { curveMonotoneX, line } from 'd3-shape';
  import { lengthTicks, lengthUnit } from '../../drawings/axis';
  import type { TaperPlan } from '../../lib/api';
  import { preferences } from '../../lib/preferences.svelte';

  let { plan }: { plan: TaperPlan } = $props();

  let width = $state(360);
  const W = $derived(Math.max(width, 260));
  const H = 200;
  const P = { left: 40, right: 14, top: 26, bottom: 34 };
  const FLEW = { clean: 'var(--green)', stiff: 'var(--blue)', weak: 'var(--amber)' };
  const long = (shaft: { tail_taper_mm: number; head_taper_mm: number }) =>
    shaft.tail_taper_mm || shaft.head_taper_mm;
  const points = $derived(
    plan.steps.flatMap((s) => (s.kick_deg == null ? [] : [{ x: long(s), y: s.kick_deg }])),
  );
  const tried = $derived(
    plan.tried.flatMap((one) =>
      one.shaft.kick_deg == null
        ? []
        : [{ x: long(one.shaft), y: one.shaft.kick_deg, flew: one.flew, entry: one.entry }],
    ),
  );
  const all = $derived([...points, ...tried]);
  const x = $derived(scaleLinear([0, Math.max(...all.map((p) => p.x), 25)], [P.left, W - P.right]));
  const y = $derived(
    scaleLinear(
      [Math.min(...all.map((p) => p.y), -2) - 1, Math.max(...all.map((p) => p.y), 2) + 2],
      [H - P.bottom, P.top],
    ).nice(4),
  );
  const path = $derived(
    line<{ x: number; y: number }>(
      (p) => x(p.x),
      (p) => y(p.y),
    ).curve(curveMonotoneX)(points) ?? '',
  );
</script>

<section aria-labelledby="taper-steps">
  <h2 id="taper-steps">On the way there</h2>
  {#if points.length > 1}
    <figure bind:clientWidth={width}>
      <svg viewBox="0 0 {W} {H}" class="w-full" role="img" aria-labelledby="steps-says">
        {#each y.ticks(4) as tick (tick)}
          <line
            x1={P.left}
            x2={W - P.right}
            y1={y(tick)}
            y2={y(tick)}
            stroke={tick === 0 ? 'var(--soft)' : 'var(--faint)'}
          />
          <text x={P.left - 6} y={y(tick) + 4} text-anchor="end" class="soft">{tick}°</text>
        {/each}
        <BottomAxis
          ticks={lengthTicks(0, x.domain()[1] ?? 300, 6, preferences.units)}
          {x}
          y={H - P.bottom}
          mark={0}
        />
        <path d={path} fill="none" stroke="var(--ink)" stroke-width="2" />
        {#each tried as one (one.entry)}
          <circle
            cx={x(one.x)}
            cy={y(one.y)}
            r="5"
            fill={FLEW[one.flew]}
            stroke="var(--paper)"
            stroke-width="1.5"
          />
          <text x={x(one.x) + 8} y={y(one.y) - 7}>flew {one.flew}</text>
        {/each}
        <text x="0" y="14" class="soft">tail leaves: + stiff</text>
      </svg>
      <figcaption id="steps-says" class="text-sm text-soft">
        Computed lean of the tail against the taper's length, {lengthUnit(preferences.units)}. Dots
        are what was shot.
      </figcaption>
    </figure>
  {:else}
    <p class="mt-1 text-soft">
      Needs your draw, the bow's weight, the shaft's spine, and a length of taper.
    </p>
  {/if}
</section>
