<script lang="ts">
  import type { TaperPlan } from '../lib/api';
  import { figure } from '../lib/preferences.svelte';
  import { gap, mm } from '../lib/units';

  let { plan }: { plan: TaperPlan } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 300));
  const MIDDLE = 52;
  const ACROSS = 6;
  const scale = $derived((W - 8) / plan.length_mm);
  const x = (at: number) => 4 + at * scale;
  const half = (across: number) => (across / 2) * ACROSS;
  const knots = $derived(
    plan.profile.map(([at, across]) => ({ at: at ?? 0, across: across ?? plan.diameter_mm })),
  );
  const outline = $derived(
    [
      ...knots.map((k) => `${x(k.at)},${MIDDLE - half(k.across)}`),
      ...[...knots].reverse().map((k) => `${x(k.at)},${MIDDLE + half(k.across)}`),
    ].join(' '),
  );
  const KINDS = {
    parallel: 'parallel',
    tail: 'tapered at the tail',
    head: 'tapered at the head',
    barrelled: 'barrelled',
  };
</script>

<figure bind:clientWidth={width}>
  <svg viewBox="0 0 {W} 108" class="w-full" role="img" aria-labelledby="outline-says">
    <rect
      x={x(0)}
      y={MIDDLE - half(plan.diameter_mm)}
      width={plan.length_mm * scale}
      height={half(plan.diameter_mm) * 2}
      fill="none"
      stroke="var(--line)"
      stroke-dasharray="4 3"
    />
    <polygon points={outline} fill="var(--wood)" stroke="var(--wood-line)" />
    {#each knots as knot, index (index)}
      {@const last = index === knots.length - 1}
      <line
        x1={x(knot.at)}
        x2={x(knot.at)}
        y1={MIDDLE + half(knot.across)}
        y2="88"
        stroke="var(--soft)"
        stroke-width="0.8"
      />
      <text
        x={x(knot.at)}
        y="102"
        text-anchor={index === 0 ? 'start' : last ? 'end' : 'middle'}
        class="soft"
        >{figure(mm(knot.at > plan.length_mm / 2 ? plan.length_mm - knot.at : knot.at))}</text
      >
      <text
        x={x(knot.at)}
        y={MIDDLE - half(plan.diameter_mm) - 6}
        text-anchor={index === 0 ? 'start' : last ? 'end' : 'middle'}
        >{figure(gap(knot.across))}</text
      >
    {/each}
    <text x={x(0) + 6} y={MIDDLE + 4} class="on">nock</text>
    <text x={x(plan.length_mm) - 6} y={MIDDLE + 4} text-anchor="end" class="on">point</text>
  </svg>
  <figcaption id="outline-says" class="text-sm text-soft">
    The shaft {KINDS[plan.kind]}, length to scale, thickness drawn wider.
  </figcaption>
</figure>

<style>
  .on {
    fill: #15222b;
    font-size: 12px;
  }
</style>
