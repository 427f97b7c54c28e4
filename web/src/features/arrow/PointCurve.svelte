<script lang="ts">
  import BottomAxis from '../../drawings/BottomAxis.svelte';
  import { scaleLinear } from 'd3-scale';
  import { curveMonotoneX, line } from 'd3-shape';
  import { massTicks } from '../../drawings/axis';
  import type { SpineBoard } from '../../lib/api';
  import { figure, preferences } from '../../lib/preferences.svelte';
  import { gr, spine } from '../../lib/units';

  let { board }: { board: SpineBoard } = $props();

  let width = $state(360);
  const W = $derived(Math.max(width, 260));
  const H = 190;
  const P = { left: 34, right: 12, top: 22, bottom: 30 };
  const points = $derived(board.points.map((p) => ({ x: p.tip_gr, y: p.matched_lbf })));
  const own = $derived(board.own_lbf ?? null);
  const ys = $derived([...points.map((p) => p.y), ...(own === null ? [] : [own])]);
  const x = $derived(
    scaleLinear([points[0]?.x ?? 0, points.at(-1)?.x ?? 1], [P.left, W - P.right]),
  );
  const y = $derived(
    scaleLinear([Math.min(...ys) - 4, Math.max(...ys) + 4], [H - P.bottom, P.top]).nice(4),
  );
  const path = $derived(
    line<{ x: number; y: number }>(
      (p) => x(p.x),
      (p) => y(p.y),
    ).curve(curveMonotoneX)(points) ?? '',
  );
</script>

{#if points.length > 1}
  <section aria-labelledby="point-curve">
    <h2 id="point-curve">The match over the point's mass</h2>
    <figure bind:clientWidth={width}>
      <svg
        viewBox="0 0 {W} {H}"
        class="w-full"
        role="img"
        aria-label="Matched spine against the mass of point and insert"
      >
        {#each y.ticks(4) as tick (tick)}
          <line x1={P.left} x2={W - P.right} y1={y(tick)} y2={y(tick)} stroke="var(--faint)" />
          <text x={P.left - 6} y={y(tick) + 4} text-anchor="end" class="soft">{tick}</text>
        {/each}
        <BottomAxis
          ticks={massTicks(points[0]?.x ?? 0, points.at(-1)?.x ?? 1, 5, preferences.units)}
          {x}
          y={H - P.bottom}
          mark={0}
        />
        {#if own !== null}
          <line
            x1={P.left}
            x2={W - P.right}
            y1={y(own)}
            y2={y(own)}
            stroke="var(--wood-line)"
            stroke-dasharray="6 3"
          />
          <text x={W - P.right} y={y(own) - 5} text-anchor="end">yours</text>
        {/if}
        <path d={path} fill="none" stroke="var(--blue)" stroke-width="2" />
        <line
          x1={x(board.tip_gr)}
          x2={x(board.tip_gr)}
          y1={y(board.matched_lbf)}
          y2={H - P.bottom}
          stroke="var(--soft)"
          stroke-dasharray="2 3"
        />
        <circle cx={x(board.tip_gr)} cy={y(board.matched_lbf)} r="4" fill="var(--blue)" />
        <text x="0" y="12" class="soft">lb wanted</text>
      </svg>
      <figcaption class="text-sm text-soft">
        Point and insert, {preferences.units === 'metric' ? 'g' : 'gr'}. Now {figure(
          gr(board.tip_gr),
        )}, which wants {figure(spine(board.matched_lbf))}.
      </figcaption>
    </figure>
  </section>
{/if}
