<script lang="ts">
  import { scaleLog } from 'd3-scale';
  import BottomAxis from '../BottomAxis.svelte';
  import type { FlightBoard } from '../../lib/api';

  let { match }: { match: NonNullable<FlightBoard['match']> } = $props();

  let width = $state(600);
  const W = $derived(Math.max(width, 300));
  const ends = $derived([
    Math.min(match.low_lbf, match.model_low_lbf, match.own_lbf) * 0.9,
    Math.max(match.high_lbf, match.model_high_lbf, match.own_lbf) * 1.1,
  ] as [number, number]);
  const x = $derived(scaleLog(ends, [8, W - 8]));
  const TICKS = [20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 100, 120, 150];
  const ticks = $derived(TICKS.filter((at) => at > ends[0] && at < ends[1]));
  const lb = (pounds: number) => Math.round(pounds);
</script>

<figure bind:clientWidth={width}>
  <svg
    viewBox="0 0 {W} 104"
    class="w-full"
    role="img"
    aria-label="The mechanics want {lb(match.model_low_lbf)} to {lb(
      match.model_high_lbf,
    )} lb, your flight {lb(match.low_lbf)} to {lb(match.high_lbf)} lb; your shafts have {lb(
      match.own_lbf,
    )} lb"
  >
    <rect
      x={x(match.model_low_lbf)}
      width={x(match.model_high_lbf) - x(match.model_low_lbf)}
      y="20"
      height="14"
      class="model"
    />
    <text x={x(match.model_lbf)} y="15" text-anchor="middle" class="soft"
      >mechanics {lb(match.model_lbf)}</text
    >
    <rect
      x={x(match.low_lbf)}
      width={x(match.high_lbf) - x(match.low_lbf)}
      y="44"
      height="16"
      fill="var(--green)"
      opacity="0.4"
    />
    <line
      x1={x(match.matched_lbf)}
      x2={x(match.matched_lbf)}
      y1="42"
      y2="74"
      stroke="var(--green)"
      stroke-width="2"
    />
    <text x={x(match.matched_lbf) + 5} y="57" class="strong"
      >your flight {lb(match.matched_lbf)}</text
    >
    <path d="M{x(match.own_lbf)} 73 l-6 -13 h12 z" fill="var(--wood-line)" />
    <BottomAxis ticks={ticks.map((at) => ({ at, text: `${at}` }))} {x} y={74} mark={6} gap={20} />
    <line x1="0" x2={W} y1="74" y2="74" stroke="var(--ink)" />
  </svg>
</figure>

<style>
  .model {
    fill: none;
    stroke: var(--soft);
    stroke-dasharray: 4 3;
  }
  .strong {
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
  }
</style>
