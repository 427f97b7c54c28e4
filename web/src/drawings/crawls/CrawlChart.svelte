<script lang="ts">
  import { ticks } from 'd3-array';
  import { area, line } from 'd3-shape';
  import type { PageOf } from '../../lib/api';
  import BottomAxis from '../BottomAxis.svelte';
  import type { Reach } from './reach.svelte';
  import { dragged } from '../dragged';
  import Hatch from '../Hatch.svelte';
  import DragKnob from '../DragKnob.svelte';
  import { Plot } from '../plot.svelte';

  let { reach }: { reach: Reach } = $props();

  type Point = PageOf<'crawls'>['curve'][number];
  const page = $derived(reach.page);

  const plot = new Plot(400, { left: 62, right: 8, top: 24, bottom: 66 });

  const curve = $derived(page.curve);
  const shown = $derived(page.marks.filter((mark) => mark.crawl_mm != null));
  const deepest = $derived(
    Math.max(
      ...curve.map((point) => point.crawl_mm + point.half_mm),
      ...shown.map((mark) => mark.crawl_mm ?? 0),
      3 * page.finger_mm,
    ) + 3,
  );
  const least = $derived(
    Math.max(Math.min(...curve.map((point) => point.crawl_mm - point.half_mm), -6), -16),
  );
  const last = $derived(curve.at(-1)?.distance_m ?? 50);
  const x = $derived(plot.x(0, last / reach.per));
  const y = $derived(plot.y(deepest, least));
  const across = (metres: number) => x(metres / reach.per);
  const clamp = (mm: number) => y(Math.min(Math.max(mm, least), deepest));
  const band = $derived(
    area<Point>(
      (p) => across(p.distance_m),
      (p) => y(p.crawl_mm - p.half_mm),
      (p) => y(p.crawl_mm + p.half_mm),
    )(curve),
  );
  const path = $derived(
    line<Point>(
      (p) => across(p.distance_m),
      (p) => y(p.crawl_mm),
    )(curve),
  );
  const then = $derived(
    page.next
      ? [-1, 1].map((way) =>
          line<Point>(
            (p) => across(p.distance_m),
            (p) => y(p.crawl_mm + way * (p.after_mm ?? p.half_mm)),
          )(curve),
        )
      : [],
  );
  const fingers = $derived(
    [0, 1, 2].filter((finger) => (finger + 1) * page.finger_mm < deepest + 4),
  );
  const on = $derived(page.point_on_m ?? null);
  const onHalf = $derived(page.point_on_half_m ?? 0);
  const floor = plot.floor;
  // below the band, which falls to the left
  const proposedAt = $derived(Math.min(clamp((page.next?.crawl_mm ?? 0) + 14) + 40, floor - 12));
  const proposedEnd = $derived(across(page.next?.distance_m ?? 0) > plot.across - 150);
  const here = $derived(reach.here);
  const handleLeft = $derived(x(reach.at) > plot.across - 190);
  const said = $derived(
    here
      ? `${reach.at} ${page.unit}: ${here.crawl_mm.toFixed(0)} ± ${here.half_mm.toFixed(0)} mm`
      : `${reach.at} ${page.unit}`,
  );

  /** The straight line of even steps. */
  const even = (metres: number) =>
    (page.linear?.at_0_mm ?? 0) + ((page.linear?.per_10_m ?? 0) * metres) / 10;

  const handle = dragged((at) => reach.hold(x.invert(at.x)));
</script>

<figure bind:clientWidth={plot.width}>
  <svg
    viewBox="0 0 {plot.across} {plot.height}"
    class="w-full touch-pan-y"
    role="group"
    aria-label="Crawl against distance"
  >
    <Hatch id="above-hatch" stroke="var(--line)" />
    <defs>
      <clipPath id="crawl-plot">
        <rect x={plot.left} y={plot.top} width={plot.right - plot.left} height={floor - plot.top} />
      </clipPath>
    </defs>
    <text x="0" y="12" class="soft">mm down the string, your fingers beside it</text>
    <rect
      x={plot.left}
      y={plot.top}
      width={plot.right - plot.left}
      height={y(0) - plot.top}
      fill="url(#above-hatch)"
      opacity="0.6"
    />
    {#each ticks(0, deepest, 4) as tick (tick)}
      {#if tick > 0}<line
          x1={plot.left}
          x2={plot.right}
          y1={y(tick)}
          y2={y(tick)}
          class="grid"
        />{/if}
      <text x="20" y={y(tick)} dy="4" text-anchor="end" class="soft">{tick}</text>
    {/each}
    {#each fingers as finger (finger)}
      <rect
        x="28"
        y={y(finger * page.finger_mm) + 1}
        width="28"
        height={y(page.finger_mm) - y(0) - 2}
        rx="9"
        class="finger"
      />
      <text x="42" y={y((finger + 0.5) * page.finger_mm)} dy="4" text-anchor="middle" class="soft"
        >{finger + 1}</text
      >
    {/each}
    <g clip-path="url(#crawl-plot)">
      <path d={band} fill="var(--blue)" opacity="0.16" />
      {#each then as edge, i (i)}<path d={edge} class="then" />{/each}
      <path d={path} fill="none" stroke="var(--ink)" stroke-width="2" />
      {#if page.linear}
        <line x1={x(0)} x2={across(last)} y1={y(even(0))} y2={y(even(last))} class="even" />
      {/if}
    </g>
    <line x1={plot.left} x2={plot.right} y1={y(0)} y2={y(0)} stroke="var(--ink)" />
    <line
      x1={plot.left}
      x2={plot.left}
      y1={plot.top}
      y2={floor}
      stroke="var(--ink)"
      stroke-width="2"
    />
    {#if on !== null && on < last}
      <line
        x1={across(Math.max(on - onHalf, 0))}
        x2={across(Math.min(on + onHalf, last))}
        y1={y(0)}
        y2={y(0)}
        stroke="var(--ink)"
        stroke-width="5"
      />
      <text x={across(Math.max(on - onHalf, 0)) - 8} y={y(0) - 8} text-anchor="end" class="said"
        >point-on {(on / reach.per).toFixed(0)} ± {(onHalf / reach.per).toFixed(0)}
        {page.unit}</text
      >
    {/if}
    {#each shown as mark (mark.entry_id)}
      {@const cx = across(mark.distance_m)}
      {@const cy = clamp(mark.crawl_mm ?? 0)}
      {#if mark.odd}
        <line
          x1={cx}
          x2={cx}
          y1={cy}
          y2={clamp((mark.crawl_mm ?? 0) - (mark.off_mm ?? 0))}
          class="off"
        />
        <circle {cx} {cy} r="5.5" class="odd mark" />
        <line x1={cx - 4} x2={cx + 4} y1={cy + 4} y2={cy - 4} class="off" />
      {:else}
        <circle {cx} {cy} r="5" class="mark" class:pale={!mark.counts} />
      {/if}
    {/each}
    {#if page.next}
      <circle
        cx={across(page.next.distance_m)}
        cy={clamp(page.next.crawl_mm)}
        r="6"
        class="proposed"
      />
      <path
        d="M{across(page.next.distance_m)} {clamp(page.next.crawl_mm) + 8}V{proposedAt - 14}"
        stroke="var(--green)"
      />
      <text
        x={proposedEnd ? plot.right : across(page.next.distance_m) - 4}
        y={proposedAt}
        text-anchor={proposedEnd ? 'end' : 'start'}
        class="green">shoot {page.next.says} next</text
      >
    {/if}
    <line x1={plot.left} x2={plot.right} y1={floor} y2={floor} stroke="var(--line)" />
    <BottomAxis
      ticks={ticks(0, last / reach.per, 6).map((at) => ({ at, text: `${at}` }))}
      {x}
      y={floor}
    />
    <text x="20" y={floor + 18} class="soft" text-anchor="middle"
      >{page.unit === 'yd' ? 'yards' : 'metres'}</text
    >
    {#if here}
      <path
        d="M{plot.left} {clamp(here.crawl_mm)}H{x(reach.at)}V{floor + 30}"
        class="asked"
        fill="none"
      />
    {/if}
    <rect
      x={plot.left - 10}
      y={floor + 20}
      width={plot.right - plot.left + 20}
      height="46"
      fill="transparent"
      class="cursor-ew-resize"
      {...handle}
    />
    <DragKnob
      x={x(reach.at)}
      y={floor + 40}
      label="Distance to ask the table"
      low={reach.first}
      high={reach.last}
      now={reach.at}
      says={said}
      onkeydown={reach.key}
      {...handle}
    />
    <text
      x={x(reach.at) + (handleLeft ? -16 : 16)}
      y={floor + 45}
      text-anchor={handleLeft ? 'end' : 'start'}
      class="said pointer-events-none">{said}</text
    >
  </svg>
</figure>

<style>
  .said {
    fill: var(--ink);
    font-weight: 600;
  }
  .green {
    fill: var(--green);
    font-weight: 600;
  }
  .grid {
    stroke: var(--faint);
  }
  .finger {
    fill: none;
    stroke: var(--line);
  }
  .then {
    fill: none;
    stroke: var(--green);
    stroke-width: 1.4;
    stroke-dasharray: 2 3;
  }
  .even {
    stroke: var(--soft);
    stroke-width: 1.4;
    stroke-dasharray: 9 5;
  }
  .mark {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .pale {
    stroke: var(--soft);
    stroke-dasharray: 2 2;
  }
  .odd {
    stroke: var(--amber);
  }
  .off {
    stroke: var(--amber);
    stroke-width: 1.6;
  }
  .proposed {
    fill: var(--paper);
    stroke: var(--green);
    stroke-width: 2;
    stroke-dasharray: 3 2;
  }
  .asked {
    stroke: var(--red);
    stroke-width: 1.4;
    stroke-dasharray: 3 3;
  }
</style>
