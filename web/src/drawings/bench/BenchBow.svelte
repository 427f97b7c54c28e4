<script lang="ts">
  import { toward, up } from './pose';
  import type { BenchView } from './view.svelte';

  let { view, shaft }: { view: BenchView; shaft: number | null } = $props();

  const SIDES = [-1, 1] as const;
  const GRIP_MM = 44;
  const pose = $derived(view.pose);
  const root = $derived(pose.limb[0]);
  const half = $derived(view.thickness(0) / 2);

  /** The riser: belly through the pivot, back a grip's depth before it. */
  const riser = $derived.by(() => {
    const [left, right] = [view.x(-1, up(root)), view.x(1, up(root))];
    const y = view.y(toward(root));
    const [belly, back] = [view.y(0), view.y(-GRIP_MM)];
    const cx = view.W / 2;
    const run = (right - left) / 2;
    return `M${left} ${y - half}C${cx - run * 0.6} ${y - half} ${cx - run * 0.4} ${back} ${cx} ${back}
      S${cx + run * 0.6} ${y - half} ${right} ${y - half}L${right} ${y + half}
      C${cx + run * 0.55} ${y + half} ${cx + run * 0.4} ${belly} ${cx} ${belly}
      S${cx - run * 0.55} ${y + half} ${left} ${y + half}Z`;
  });
  const nock = $derived(view.at(pose.draw_mm));
  const tip = $derived(nock - (shaft ?? view.full) * view.scale);
</script>

{#each SIDES as side (side)}
  <path d={view.middle(side, view.drawing.unstrung)} class="ghost" stroke-dasharray="5 5" />
  <path d={view.middle(side, view.brace.limb)} class="rest" />
{/each}
<path d={view.string(view.brace)} class="rest" />
{#each SIDES as side (side)}
  <path d={view.outline(side, pose.limb)} class="wood" />
{/each}
<path d={riser} class="wood" />
<g class="arrow">
  <line x1={view.W / 2} x2={view.W / 2} y1={nock} y2={tip} />
  <path d="M{view.W / 2} {tip - 13}l4.5 13h-9Z" class="point" />
  <path d="M{view.W / 2} {nock - 58}l5 9v34l-5 6-5-6v-34Z" class="fletching" />
</g>
<path d={view.string(pose)} class="string" />

<style>
  .ghost,
  .rest {
    fill: none;
    stroke: var(--line);
    stroke-width: 1.2;
  }
  .rest {
    stroke: var(--soft);
    opacity: 0.55;
  }
  .wood {
    fill: var(--wood);
    stroke: var(--ink);
    stroke-width: 1.1;
    stroke-linejoin: round;
  }
  .arrow line {
    stroke: var(--wood-line);
    stroke-width: 2.6;
  }
  .point {
    fill: var(--ink);
  }
  .fletching {
    fill: var(--green);
    opacity: 0.85;
  }
  .string {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
    stroke-linejoin: round;
  }
</style>
