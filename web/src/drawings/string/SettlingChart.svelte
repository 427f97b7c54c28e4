<script lang="ts">
  import { ticks } from 'd3-array';
  import { area, line } from 'd3-shape';
  import type { PageOf } from '../../lib/api';
  import { preferences } from '../../lib/preferences.svelte';
  import { lengthTicks, lengthUnit } from '../axis';
  import BottomAxis from '../BottomAxis.svelte';
  import { Plot } from '../plot.svelte';

  let { drawing }: { drawing: PageOf<'string'>['settling'] } = $props();

  const plot = new Plot(250, { left: 50, right: 12, top: 26, bottom: 40 });

  const samples = $derived(
    (drawing.curve?.hours ?? []).map((hours, i) => ({
      hours,
      brace: drawing.curve?.brace_mm[i] ?? 0,
      sd: drawing.curve?.sd_mm[i] ?? 0,
    })),
  );
  const last = $derived(
    Math.max(samples.at(-1)?.hours ?? 6, ...drawing.points.map((point) => point.hours)),
  );
  const braces = $derived([
    ...samples.flatMap((s) => [s.brace - 2 * s.sd, s.brace + 2 * s.sd]),
    ...drawing.points.map((point) => point.brace_mm),
  ]);
  const x = $derived(plot.x(0, last));
  const y = $derived(plot.y(Math.min(...braces) - 1, Math.max(...braces) + 1));
  type Sample = (typeof samples)[number];
  const band = $derived(
    area<Sample>(
      (s) => x(s.hours),
      (s) => y(s.brace - 2 * s.sd),
      (s) => y(s.brace + 2 * s.sd),
    )(samples),
  );
  const path = $derived(
    line<Sample>(
      (s) => x(s.hours),
      (s) => y(s.brace),
    )(samples),
  );
  const domain = $derived(y.domain() as [number, number]);
  const settled = $derived(
    drawing.settled_at != null && drawing.settled_at < last ? drawing.settled_at : null,
  );
  const now = $derived(drawing.points.at(-1)?.segment ?? 0);
</script>

<figure bind:clientWidth={plot.width}>
  <svg
    viewBox="0 0 {plot.across} {plot.height}"
    class="w-full"
    role="img"
    aria-label="Brace over hours strung"
  >
    {#each lengthTicks(domain[0], domain[1], 5, preferences.units) as tick (tick.at)}
      <line x1={plot.left} x2={plot.right} y1={y(tick.at)} y2={y(tick.at)} class="grid" />
      <text x={plot.left - 8} y={y(tick.at)} dy="4" text-anchor="end" class="soft">{tick.text}</text
      >
    {/each}
    <line x1={plot.left} x2={plot.right} y1={plot.floor} y2={plot.floor} stroke="var(--line)" />
    <BottomAxis ticks={ticks(0, last, 8).map((at) => ({ at, text: `${at}` }))} {x} y={plot.floor} />
    <text x="0" y="12" class="soft">brace, {lengthUnit(preferences.units)}</text>
    <text x={plot.right} y={plot.height - 4} text-anchor="end" class="soft">hours strung</text>
    <path d={band} fill="var(--blue)" opacity="0.16" />
    <path d={path} fill="none" stroke="var(--ink)" stroke-width="2" />
    {#if settled !== null}
      <line x1={x(settled)} x2={x(settled)} y1={plot.top} y2={plot.floor} class="settled" />
      <text
        x={x(settled) + (x(settled) > plot.across - 150 ? -6 : 6)}
        y={plot.top + 10}
        text-anchor={x(settled) > plot.across - 150 ? 'end' : 'start'}
        class="green">settled about here</text
      >
    {/if}
    {#each drawing.points as point, i (i)}
      <circle
        cx={x(point.hours)}
        cy={y(point.brace_mm)}
        r="4.5"
        class="point"
        class:earlier={point.segment !== now}
      />
    {/each}
  </svg>
</figure>

<style>
  .green {
    fill: var(--green);
  }
  .grid {
    stroke: var(--faint);
  }
  .settled {
    stroke: var(--green);
    stroke-width: 1.6;
    stroke-dasharray: 5 4;
  }
  .point {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .point.earlier {
    stroke: var(--soft);
    stroke-dasharray: 2 2;
  }
</style>
