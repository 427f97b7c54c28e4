<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { Tail } from './tail.svelte';
  import { placeOn } from '../dragged';

  let {
    tail,
    onrecord,
    ontap,
  }: {
    tail: Tail;
    /** The nock was let go by a mouse, or Enter pressed; a finger has a button. */
    onrecord: () => void;
    /** A column was tapped: 0 straight to 3 strong, + right. */
    ontap: (grade: number) => void;
  } = $props();

  let width = $state(520);
  let svg = $state<SVGSVGElement>();
  let touched = $state(false);
  /** What a finger can take hold of. */
  const GRIP = 22;
  const W = $derived(Math.max(width, 280));
  const narrow = $derived(W < 420);
  /** On a phone it leaves room for the button under it. */
  const H = $derived(narrow ? 270 : 330);
  const TOP = 40;
  const FOOT = $derived(H - 30);
  const MIDDLE = $derived((TOP + FOOT) / 2);
  const x = $derived(scaleLinear([-tail.reach, tail.reach], [2, W - 42]));
  const y = (up: number) => MIDDLE - (x(up) - x(0));
  const borders = $derived(tail.page.borders_mm as [number, number, number]);
  const columns = $derived.by(() => {
    const [a, b, c] = borders;
    const edges = [-tail.reach, -c, -b, -a, a, b, c, tail.reach];
    return [-3, -2, -1, 0, 1, 2, 3].map((grade, i) => ({
      grade,
      word: ['straight', 'slight', 'clear', 'strong'][Math.abs(grade)] ?? '',
      left: x(edges[i] ?? 0),
      right: x(edges[i + 1] ?? 0),
    }));
  });
  const nock = $derived({ x: x(tail.across), y: y(tail.up) });

  function place(event: PointerEvent) {
    if (!svg) return;
    const at = placeOn(svg, event);
    tail.hold(x.invert(at.x), x.invert(x(0) + MIDDLE - at.y));
  }
  function grab(event: PointerEvent) {
    if (event.button > 0) return;
    touched = event.pointerType === 'touch';
    // a swipe over the dial scrolls the page: only the nock itself is taken hold of by a finger
    if (touched && !(event.target as Element).closest('.grip')) return;
    tail.dragging = true;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    place(event);
  }
  function drag(event: PointerEvent) {
    if (tail.dragging) place(event);
  }
  function drop() {
    if (!tail.dragging) return;
    tail.dragging = false;
    if (!touched) onrecord();
  }
  function lost() {
    if (!tail.dragging) return;
    tail.dragging = false;
    tail.release();
  }
  function key(event: KeyboardEvent, plane: 'across' | 'up') {
    if (event.key === 'Enter') {
      event.preventDefault();
      onrecord();
    } else tail.key(event, plane);
  }
</script>

<div bind:clientWidth={width}>
  <div class="heads" style:width="{((W - 42) / W) * 100}%">
    {#each columns as column (column.grade)}
      <button
        type="button"
        class:on={tail.moved && tail.column === column.grade}
        style:flex-grow={column.right - column.left}
        aria-label={column.grade
          ? `${column.word} ${column.grade > 0 ? 'right' : 'left'}`
          : 'straight'}
        onclick={() => ontap(column.grade)}>{column.word}</button
      >
    {/each}
  </div>
  <svg
    bind:this={svg}
    viewBox="0 0 {W} {H}"
    class="w-full"
    role="group"
    aria-label="The butt seen from behind: the nock points {tail.words}"
    onpointerdown={grab}
    onpointermove={drag}
    onpointerup={drop}
    onpointercancel={lost}
    style:touch-action="pan-y"
  >
    <rect x="2" y={TOP - 38} width={W - 44} height={FOOT - TOP + 38} class="butt" />
    {#each columns as column (column.grade)}
      {#if tail.moved && tail.column === column.grade}
        <rect
          x={column.left}
          y={TOP - 38}
          width={column.right - column.left}
          height={FOOT - TOP + 38}
          fill="var(--faint)"
        />
      {/if}
      {#if column.grade > -3}
        <line x1={column.left} x2={column.left} y1={TOP - 38} y2={FOOT} class="edge" />
      {/if}
    {/each}
    <line x1="2" x2={W - 42} y1={MIDDLE} y2={MIDDLE} class="level" />
    <text x={W - 32} y={Math.max(y(borders[2]), TOP - 20) + 4} class="soft">high</text>
    <text x={W - 32} y={MIDDLE + 4} class="soft">level</text>
    <text x={W - 32} y={Math.min(y(-borders[2]), FOOT - 8) + 4} class="soft">low</text>
    <text x="10" y={FOOT - 8} class="soft">left</text>
    <text x={W - 50} y={FOOT - 8} text-anchor="end" class="soft">right</text>
    {#each [-2, -1, 0, 1, 2, 3, -3] as grade (grade)}
      {@const mm = grade === 0 ? 0 : Math.sign(grade) * (borders[Math.abs(grade) - 1] ?? 0)}
      {#if !narrow || grade === 0 || Math.abs(grade) > 1}
        <text x={x(mm)} y={FOOT + 16} text-anchor="middle" class="soft">
          {Math.round(Math.abs(mm))}{grade === 3 ? ' mm' : ''}
        </text>
      {/if}
    {/each}
    {#if tail.page.before?.across_mm != null}
      {@const at = x(Math.max(-tail.reach, Math.min(tail.reach, tail.page.before.across_mm)))}
      <circle cx={at} cy={FOOT} r="5" class="before" />
      <text x={at} y={FOOT - 9} text-anchor="middle" class="soft">before</text>
    {/if}
    <path d="M{x(0)} {MIDDLE}L{nock.x} {nock.y}" class="shaft" />
    <path d="M{x(0) - 7} {MIDDLE}h14m-7-7v14" stroke="var(--ink)" />
    <circle cx={x(0)} cy={MIDDLE} r="4" fill="var(--ink)" />
    <g transform="translate({nock.x} {nock.y})" class="feathers" aria-hidden="true">
      <path d="M0 0V-22M0 0L19 11M0 0L-19 11" />
    </g>
    <g class="grip" style:touch-action="none">
      <circle cx={nock.x} cy={nock.y} r={GRIP} fill="transparent" />
      <circle
        role="slider"
        tabindex="0"
        aria-label="The nock, left and right"
        aria-valuemin={-Math.round(tail.reach)}
        aria-valuemax={Math.round(tail.reach)}
        aria-valuenow={Math.round(tail.across)}
        aria-valuetext={tail.words}
        cx={nock.x}
        cy={nock.y}
        r="13"
        class="nock"
        class:hollow={!tail.moved}
        onkeydown={(event) => key(event, 'across')}
      />
    </g>
    <rect
      role="slider"
      tabindex="0"
      aria-label="The nock, high and low"
      aria-orientation="vertical"
      aria-valuemin={-Math.round(tail.reach)}
      aria-valuemax={Math.round(tail.reach)}
      aria-valuenow={Math.round(tail.up)}
      aria-valuetext={tail.words}
      x={W - 46}
      y={nock.y - 7}
      width="8"
      height="14"
      class="nock"
      class:hollow={!tail.moved}
      onkeydown={(event) => key(event, 'up')}
    />
    {#if tail.moved}
      {@const under = nock.y < TOP + 60}
      <text
        x={Math.max(96, Math.min(W - 140, nock.x))}
        y={nock.y + (under ? 46 : -46)}
        text-anchor="middle"
        class="says">{tail.words}</text
      >
      <text
        x={Math.max(96, Math.min(W - 140, nock.x))}
        y={nock.y + (under ? 62 : -30)}
        text-anchor="middle"
        class="soft halo">{touched ? 'then record below' : 'let go to record'}</text
      >
    {/if}
  </svg>
</div>

<style>
  .heads {
    display: flex;
    padding-left: 2px;
  }
  .heads button {
    flex: 1 1 0;
    min-width: 0;
    min-height: 2.75rem;
    border: 1px solid var(--line);
    border-left-width: 0;
    background: var(--raised);
    color: var(--soft);
    font-size: 0.85rem;
    overflow: hidden;
  }
  .heads button:first-child {
    border-left-width: 1px;
  }
  .heads button:hover,
  .heads .on {
    background: var(--faint);
    color: var(--ink);
    font-weight: 600;
  }
  svg {
    cursor: crosshair;
    user-select: none;
  }
  .butt {
    fill: var(--raised);
    stroke: var(--line);
  }
  .edge {
    stroke: var(--line);
  }
  .level {
    stroke: var(--line);
    stroke-dasharray: 2 4;
  }
  .shaft {
    stroke: var(--wood-line);
    stroke-width: 6;
    stroke-linecap: round;
  }
  .feathers path {
    stroke: var(--green);
    stroke-width: 5;
    fill: none;
  }
  .nock {
    fill: var(--red);
    stroke: var(--paper);
    stroke-width: 3;
    cursor: grab;
  }
  .nock.hollow {
    fill: var(--raised);
    stroke: var(--red);
  }
  .before {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .says {
    font-size: 17px;
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--raised);
    stroke-width: 5px;
  }
  .halo {
    paint-order: stroke;
    stroke: var(--raised);
    stroke-width: 4px;
  }
</style>
