<script lang="ts">
  import type { ChoosingBoard, FamilyBoard } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { mm, MM_PER_IN } from '../../lib/units';

  let { row, board }: { row: FamilyBoard['rows'][number]; board: ChoosingBoard } = $props();

  /** Seen from 4 in past stack to 6 in before it. */
  const LOW = -4 * MM_PER_IN;
  const HIGH = 6 * MM_PER_IN;
  const W = 96;
  const x = (margin: number) => ((Math.min(Math.max(margin, LOW), HIGH) - LOW) / (HIGH - LOW)) * W;
  const margin = $derived(row.margin_mm ?? 0);
</script>

<span class="bar">
  <svg width={W} height="16" viewBox="0 0 {W} 16" aria-hidden="true">
    <rect
      x={x(board.least_margin_mm)}
      width={x(board.most_margin_mm) - x(board.least_margin_mm)}
      y="3"
      height="10"
      fill="var(--green)"
      opacity="0.22"
    />
    <line x1={x(0)} x2={x(0)} y1="1" y2="15" stroke="var(--line)" />
    <rect
      x={Math.min(x(0), x(margin))}
      width={Math.abs(x(margin) - x(0))}
      y="6.5"
      height="3"
      fill={margin < 0 ? 'var(--red)' : 'var(--ink)'}
    />
    <circle cx={x(margin)} cy="8" r="3.2" fill={margin < 0 ? 'var(--red)' : 'var(--ink)'} />
  </svg>
  <span class:text-red={margin < 0}>
    {row.margin_is_least ? 'over ' : ''}{figure(mm(margin)).replace('-', '−')}
  </span>
</span>

<style>
  .bar {
    display: inline-flex;
    align-items: center;
    gap: 0.6rem;
  }
  @media (max-width: 767px) {
    svg {
      display: none;
    }
  }
</style>
