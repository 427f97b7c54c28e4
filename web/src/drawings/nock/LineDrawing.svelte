<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';

  let { line }: { line: PageOf<'nock'>['line'] } = $props();

  const W = 640;
  const H = 230;
  const PX = 7;
  /** Seen from behind: outward is left for a right hand's finger release. */
  const sign = $derived(line.outward_is_left ? -1 : 1);
  const at = (off: number | null) => 170 + sign * PX * (off ?? 0);
  const upper = $derived(at(line.upper_mm));
  const lower = $derived(at(line.lower_mm));
  const point = $derived(470 + sign * PX * (line.out_mm ?? 0));
  const most = $derived(PX * line.most_out_mm);
</script>

<figure>
  <svg
    viewBox="0 0 {W} {H}"
    class="mx-auto w-full max-w-3xl"
    role="img"
    aria-label="Seen from behind: the string over both limbs, and the point against the string"
  >
    <text x="170" y="14" text-anchor="middle" class="soft">from behind, sideways much widened</text>
    <path d="M140 26h60l10 54h-80Z" class="wood" />
    <path d="M130 150h80l-10 54h-60Z" class="wood" />
    <path d="M148 80h44v70h-44Z" class="riser" />
    <line x1="170" x2="170" y1="22" y2="208" class="middle" />
    <line
      x1={upper + (upper - lower) * 0.35}
      x2={lower + (lower - upper) * 0.35}
      y1="22"
      y2="208"
      stroke="var(--ink)"
      stroke-width="2.4"
      stroke-dasharray={line.upper_mm == null ? '5 4' : undefined}
    />
    {#each [[76, line.upper_mm, 'upper'], [160, line.lower_mm, 'lower']] as const as [y, off, word] (word)}
      <text x="226" y={y + 2}>{word}: {off == null ? 'not read' : figure(gap(off))}</text>
    {/each}
    <text x="470" y="14" text-anchor="middle" class="soft">point against the string</text>
    <rect
      x={line.outward_is_left ? 470 - most : 470}
      y="60"
      width={most}
      height="110"
      fill="var(--green)"
      opacity="0.3"
    />
    <line x1="470" x2="470" y1="24" y2="206" stroke="var(--ink)" stroke-width="2.4" />
    <circle cx={point} cy="115" r="20" class="point" class:unread={line.out_mm == null} />
    <text x="470" y="222" text-anchor="middle" class="soft">string</text>
    <text
      x={point + (line.outward_is_left ? -28 : 28)}
      y="119"
      text-anchor={line.outward_is_left ? 'end' : 'start'}
    >
      {line.out_mm == null
        ? 'not read'
        : `${figure(gap(line.out_mm))} ${line.out_mm < 0 ? 'inside' : 'out'}`}
    </text>
  </svg>
</figure>

<style>
  .wood {
    fill: var(--wood);
    stroke: var(--wood-line);
  }
  .riser {
    fill: var(--wood);
    opacity: 0.5;
  }
  .middle {
    stroke: var(--soft);
    stroke-dasharray: 9 4 2 4;
  }
  .point {
    fill: var(--raised);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .point.unread {
    stroke-dasharray: 4 4;
  }
</style>
