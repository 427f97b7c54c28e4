<script lang="ts">
  import { onDestroy, type Snippet } from 'svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { lbf, mm } from '../../lib/units';
  import BenchAngles from './BenchAngles.svelte';
  import BenchAxis from './BenchAxis.svelte';
  import BenchBow from './BenchBow.svelte';
  import { up } from './pose';
  import TitleBlock from './TitleBlock.svelte';
  import type { BenchView } from './view.svelte';

  let {
    view,
    shaft,
    title,
    plusMinus,
    callouts,
  }: {
    view: BenchView;
    /** The arrow's shaft length, when told [mm]. */
    shaft: number | null;
    title: readonly (readonly string[])[];
    /** How sure the weight is, in words. */
    plusMinus: string;
    callouts: Snippet;
  } = $props();

  let svg = $state<SVGSVGElement>();
  const CSS_MM_PER_PX = 25.4 / 96;
  const cx = $derived(view.W / 2);
  const ratio = $derived((1 / view.scale / CSS_MM_PER_PX).toFixed(1));
  const reach = $derived(up(view.brace.limb.at(-1)));
  const said = $derived(
    [
      `String at ${figure(mm(view.draw))}`,
      view.pose.weight_lbf !== null ? figure(lbf(view.pose.weight_lbf)) : null,
      `${view.pose.finger_angle_deg.toFixed(0)} degrees at the hook`,
    ]
      .filter(Boolean)
      .join(', '),
  );

  function grip(event: PointerEvent & { currentTarget: SVGElement }) {
    event.currentTarget.setPointerCapture(event.pointerId);
    pull(event);
  }
  function pull(event: PointerEvent & { currentTarget: SVGElement }) {
    if (!svg || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const box = svg.getBoundingClientRect();
    view.holdAt(((event.clientY - box.top) / box.height) * view.H);
  }
  onDestroy(() => view.stop());
</script>

<figure bind:clientWidth={view.width} class="relative">
  <svg
    bind:this={svg}
    viewBox="0 0 {view.W} {view.H}"
    class="w-full"
    role="group"
    aria-label="The bow on the bench, to scale"
  >
    <line
      x1={view.x(-1, reach)}
      x2={view.x(1, reach)}
      y1={16}
      y2={16}
      stroke="var(--soft)"
      marker-start="url(#dim-start)"
      marker-end="url(#dim-end)"
    />
    {#if view.narrow}
      <text x={cx} y="21" text-anchor="middle" class="length">
        {figure(mm(view.drawing.bow_length_mm))}
      </text>
    {/if}
    <line x1="6" x2={view.W - 6} y1={view.y(0)} y2={view.y(0)} class="datum" />
    <BenchBow {view} {shaft} />
    <BenchAxis {view} />
    <BenchAngles {view} />
    <g
      class="handle"
      role="slider"
      tabindex="0"
      aria-label="String: drag or use the arrow keys to draw the bow"
      aria-orientation="vertical"
      aria-valuemin={Math.round(view.rest)}
      aria-valuemax={Math.round(view.furthest)}
      aria-valuenow={Math.round(view.draw)}
      aria-valuetext={said}
      onpointerdown={grip}
      onpointermove={pull}
      ondblclick={view.drawIt}
      onkeydown={view.key}
    >
      <circle {cx} cy={view.at(view.draw)} r="22" fill="transparent" />
      <circle {cx} cy={view.at(view.draw)} r="9.5" fill="var(--red)" />
      <circle {cx} cy={view.at(view.draw)} r="3" fill="var(--paper)" />
    </g>
    <defs>
      <marker id="dim-start" markerWidth="9" markerHeight="8" refX="0" refY="4" orient="auto">
        <path d="M8 1 0 4l8 3" fill="none" stroke="var(--soft)" />
      </marker>
      <marker id="dim-end" markerWidth="9" markerHeight="8" refX="8" refY="4" orient="auto">
        <path d="M0 1l8 3-8 3" fill="none" stroke="var(--soft)" />
      </marker>
    </defs>
  </svg>
  {@render callouts()}
  <figcaption class="title" class:below={view.narrow}>
    <TitleBlock rows={[...title, [`scale 1 : ${ratio}`, plusMinus]]} />
  </figcaption>
</figure>

<style>
  .datum {
    stroke: var(--line);
    stroke-dasharray: 10 4 2 4;
  }
  .length {
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 12px;
  }
  .handle {
    cursor: grab;
    touch-action: none;
  }
  .handle:active {
    cursor: grabbing;
  }
  .handle:focus-visible {
    outline: none;
  }
  .handle:focus-visible circle:nth-child(2) {
    stroke: var(--focus);
    stroke-width: 3;
  }
  .title {
    position: absolute;
    left: 0;
    bottom: 4px;
  }
  .title.below {
    position: static;
    margin-top: 0.4rem;
  }
</style>
