<script lang="ts">
  import { line } from 'd3-shape';
  import { slid } from '../keys';
  import type { Horn } from './horn.svelte';
  import { dragged } from '../dragged';
  import DragKnob from '../DragKnob.svelte';
  import { Plot } from '../plot.svelte';

  let { horn }: { horn: Horn } = $props();

  const plot = new Plot(230, { left: 112, right: 12, top: 10, bottom: 26 }, 320);

  const board = $derived(horn.board);
  const first = $derived(board.distances[0] ?? 5);
  const last = $derived(board.distances.at(-1) ?? 50);
  const x = $derived(plot.x(first, last));
  const most = $derived(
    Math.max(
      1.25 * horn.circle_cm,
      ...(horn.row?.further_mm.map((mm) => -(mm ?? 0) / 10) ?? []),
      ...(horn.row?.nearer_mm.map((mm) => (mm ?? 0) / 10) ?? []),
    ) + 3,
  );
  const y = $derived(plot.y(-most, most));

  function edge(of: readonly (number | null)[] | undefined) {
    const points = (of ?? []).map((mm, i): [number, number | null] => [
      board.distances[i] ?? 0,
      mm,
    ]);
    return line<[number, number | null]>()
      .defined(([, mm]) => mm !== null)
      .x(([distance]) => x(distance))
      .y(([, mm]) => y((mm ?? 0) / 10))(points);
  }
  const out = $derived(horn.furthest);
  const outLeft = $derived(out !== null && x(out) > plot.across - 205);

  function key(event: KeyboardEvent) {
    const to = slid(event, { now: horn.circle_cm, step: 1, page: 5, low: 5, high: 60 });
    if (to !== null) horn.hold(to);
  }
</script>

<figure bind:clientWidth={plot.width}>
  <svg
    viewBox="0 0 {plot.across} {plot.height}"
    class="w-full touch-pan-y"
    role="group"
    aria-label="Where it strikes when the guess is wrong"
  >
    <rect
      x={plot.left}
      y={y(horn.circle_cm)}
      width={plot.right - plot.left}
      height={y(-horn.circle_cm) - y(horn.circle_cm)}
      class="circle"
    />
    <line x1={plot.left} x2={plot.right} y1={y(0)} y2={y(0)} class="aim" />
    <text x={plot.left - 24} y={y(0)} dy="4" text-anchor="end" class="said">where you aim</text>
    {#each [horn.beside?.nearer_mm, horn.beside?.further_mm] as of, i (i)}
      <path d={edge(of)} class="beside" />
    {/each}
    {#each [horn.row?.nearer_mm, horn.row?.further_mm] as of, i (i)}
      <path d={edge(of)} class="edge" />
    {/each}
    {#each [1, -1] as way (way)}
      <line
        x1={plot.left}
        x2={plot.right}
        y1={y(way * horn.circle_cm)}
        y2={y(way * horn.circle_cm)}
        stroke="var(--green)"
        stroke-width="1.6"
      />
    {/each}
    <text x={plot.left - 24} y={y(-horn.circle_cm)} dy="4" text-anchor="end" class="green"
      >{horn.circle_cm} cm low</text
    >
    <text x={plot.left - 24} y={y(horn.circle_cm)} dy="4" text-anchor="end" class="green"
      >{horn.circle_cm} cm high</text
    >
    {#if out !== null && out < last}
      <line x1={x(out)} x2={x(out)} y1={y(-horn.circle_cm)} y2={plot.floor} class="drop" />
      <circle cx={x(out)} cy={y(-horn.circle_cm)} r="5" class="leaves" />
      <text
        x={x(out) + (outLeft ? -8 : 8)}
        y={plot.floor - 8}
        text-anchor={outLeft ? 'end' : 'start'}
        class="said">{horn.by} {board.unit} wrong leaves the circle here</text
      >
    {/if}
    {#each board.distances.filter((one) => one % 5 === 0) as at (at)}
      <text x={x(at)} y={plot.height - 6} text-anchor="middle" class="soft">{at}</text>
    {/each}
    <DragKnob
      x={plot.left}
      y={y(horn.circle_cm)}
      label="Circle, half across"
      low={5}
      high={60}
      now={horn.circle_cm}
      says="{horn.circle_cm} cm"
      {...dragged((at) => horn.hold(Math.abs(y.invert(at.y))))}
      onkeydown={key}
    />
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
  .circle {
    fill: color-mix(in srgb, var(--green) 16%, var(--paper));
  }
  .aim {
    stroke: var(--soft);
    stroke-dasharray: 9 4 2 4;
  }
  .edge {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .beside {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.2;
    stroke-dasharray: 5 4;
  }
  .drop {
    stroke: var(--ink);
    stroke-dasharray: 2 3;
  }
  .leaves {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 2;
  }
</style>
