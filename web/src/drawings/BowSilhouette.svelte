<script lang="ts">
  import type { Silhouette } from '../lib/api';

  /** A kind of bow unstrung, to scale; beside its name, so it says nothing itself. */
  let { kind, width = 64 }: { kind: Silhouette | null; width?: number } = $props();

  const HIGH = 22;
  const BASE = 14;
  const LONGEST_MM = 1760;
  const perMm = $derived(width / LONGEST_MM);
  const line = $derived.by(() => {
    const limb = kind?.limb ?? [];
    const half = (side: 1 | -1) =>
      limb.map(([x = 0, y = 0]) => `${width / 2 + side * y * perMm} ${BASE + x * perMm}`);
    const [left, right] = [half(-1), half(1)];
    return left.length ? `M${[...left].reverse().join('L')}L${right.join('L')}` : '';
  });
  const riser = $derived(((kind?.riser_length_mm ?? 0) / 2) * perMm);
  const y = $derived(BASE + (kind?.limb[0]?.[0] ?? 0) * perMm);
</script>

<svg viewBox="0 0 {width} {HIGH}" {width} height={HIGH} aria-hidden="true" class="block">
  {#if kind}
    <path d={line} fill="none" stroke="var(--wood-line)" stroke-width="1.8" />
    <line
      x1={width / 2 - riser}
      x2={width / 2 + riser}
      y1={y}
      y2={y}
      stroke="var(--wood-line)"
      stroke-width="3.6"
      stroke-linecap="round"
    />
  {/if}
</svg>
