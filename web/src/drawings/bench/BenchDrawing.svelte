<script lang="ts">
  import { onDestroy, type Snippet } from 'svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { lbf, mm } from '../../lib/units';
  import BenchAngles from './BenchAngles.svelte';
  import BenchAxis from './BenchAxis.svelte';
  import BenchBow from './BenchBow.svelte';
  import { up } from './pose';
  import type { Term } from '../../lib/api';
  import NameMarks from '../NameMarks.svelte';
  import TitleBlock from './TitleBlock.svelte';
  import type { BenchView } from './view.svelte';
  import { dragged } from '../dragged';
  import DragKnob from '../DragKnob.svelte';

  let {
    view,
    shaft,
    title,
    plusMinus,
    callouts,
    terms = [],
  }: {
    view: BenchView;
    /** The arrow's shaft length, when told [mm]. */
    shaft: number | null;
    title: readonly (readonly string[])[];
    /** How sure the weight is, in words. */
    plusMinus: string;
    callouts: Snippet;
    /** Parts to be named on the drawing. */
    terms?: Term[];
  } = $props();

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

  /** Where the parts stand that are named. */
  const places = $derived.by(() => {
    const limb = view.pose.limb;
    const middle = limb[Math.floor(limb.length * 0.55)] ?? [0, 0];
    const [fade, tip] = [limb[0] ?? [0, 0], limb.at(-1) ?? [0, 0]];
    const [mx, my] = view.place(1, middle);
    const [hx, hy] = [cx, view.at(view.draw)];
    const beside = (side: number, point: readonly number[], dy: number) => {
      const [x, y] = view.place(side, point);
      return [x, y + dy] as const;
    };
    return {
      limb: beside(-1, middle, 0),
      tip: beside(-1, tip, -22),
      string_groove: beside(1, tip, -22),
      fade: beside(-1, fade, 0),
      riser: [cx - 34, view.y(0) - 16],
      pivot: [cx, view.y(0) + 2],
      back: [mx, my - 24],
      belly: [mx, my + 24],
      string: [(hx + view.place(-1, tip)[0]) / 2, (hy + view.place(-1, tip)[1]) / 2],
      brace: [cx + 24, (view.y(0) + view.at(view.rest)) / 2],
      nocking_point: [cx - 24, view.at(view.draw)],
    } as const;
  });

  onDestroy(() => view.stop());
</script>

<figure bind:clientWidth={view.width} class="relative">
  <svg
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
    <DragKnob
      x={cx}
      y={view.at(view.draw)}
      label="String: drag or use the arrow keys to draw the bow"
      aria-orientation="vertical"
      low={Math.round(view.rest)}
      high={Math.round(view.furthest)}
      now={Math.round(view.draw)}
      says={said}
      {...dragged((at) => view.holdAt(at.y))}
      ondblclick={view.drawIt}
      onkeydown={view.key}
    />
    {#if terms.length}<NameMarks {terms} {places} />{/if}
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
