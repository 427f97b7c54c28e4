<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';

  let { balance }: { balance: PageOf<'nock'>['balance'] } = $props();

  const W = 320;
  const H = 360;
  const half = $derived(balance.riser_mm / 2);
  const scale = $derived((H - 60) / balance.riser_mm);
  const x = (forward: number) => 190 - scale * forward;
  const y = (up: number) => H / 2 - scale * up;
</script>

<figure>
  <svg
    viewBox="0 0 {W} {H}"
    class="mx-auto w-full max-w-md"
    role="img"
    aria-label="The riser's side with its weights and its balance"
  >
    <path
      d="M{x(0) + 4} {y(half)}C{x(34)} {y(half * 0.5)} {x(40)} {y(60)} {x(16)} {y(36)}C{x(-6)} {y(
        10,
      )} {x(-4)} {y(-30)} {x(22)} {y(-70)}C{x(44)} {y(-half * 0.55)} {x(34)} {y(-half * 0.7)} {x(
        0,
      ) + 4} {y(-half)}h-{24 * scale + 14}C{x(80)} {y(-half * 0.5)} {x(76)} {y(half * 0.5)} {x(26) -
        10} {y(half)}Z"
      fill="var(--wood)"
      stroke="var(--wood-line)"
    />
    <line x1="40" x2={W} y1={y(0)} y2={y(0)} stroke="var(--line)" stroke-dasharray="9 4 2 4" />
    <text x={W} y={y(0) - 6} text-anchor="end" class="soft">grip's pivot</text>
    {#each balance.weights as weight (weight.place)}
      <circle
        cx={x(weight.forward_mm)}
        cy={y(weight.up_mm)}
        r={Math.min(4 + Math.sqrt(weight.mass_g), 22)}
        class="weight"
      />
      <text x={x(weight.forward_mm) - 28} y={y(weight.up_mm) + 4} text-anchor="end">
        {weight.mass_g.toFixed(0)} g
      </text>
    {/each}
    {#if balance.x_mm != null && balance.y_mm != null}
      {@const [cx, cy] = [x(balance.x_mm), y(balance.y_mm)]}
      <path d="M{cx - 9} {cy}h18M{cx} {cy - 9}v18" stroke="var(--ink)" stroke-width="2" />
      <circle {cx} {cy} r="6" fill="none" stroke="var(--ink)" stroke-width="2" />
      <text x={cx + 14} y={cy + 18}>balance, {figure(gap(balance.y_mm))} up</text>
    {/if}
    <text x="0" y={H - 4} class="soft">target to the left</text>
  </svg>
</figure>

<style>
  .weight {
    fill: var(--ink);
    opacity: 0.75;
  }
</style>
