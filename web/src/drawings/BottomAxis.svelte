<script lang="ts">
  import type { Tick } from './axis';

  let {
    ticks,
    x,
    y,
    mark = 5,
    gap = 18,
  }: {
    ticks: Tick[];
    /** Where a stored value stands across. */
    x: (at: number) => number;
    /** The line the marks hang from. */
    y: number;
    /** Length of a mark; 0 leaves them out. */
    mark?: number;
    /** From the line down to the figures. */
    gap?: number;
  } = $props();
</script>

{#each ticks as tick (tick.at)}
  {#if mark}
    <line x1={x(tick.at)} x2={x(tick.at)} y1={y} y2={y + mark} stroke="var(--soft)" />
  {/if}
  <text x={x(tick.at)} y={y + gap} text-anchor="middle" fill="var(--soft)">{tick.text}</text>
{/each}
