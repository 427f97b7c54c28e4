<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { mm, perLength } from '../../lib/units';

  let { sheet, serving }: { sheet: PageOf<'string'>['sheet']; serving: number | null } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 300));
  const H = 132;
  const Y = 62;
  const LOOP = { upper: 40, lower: 30 };
  const SERVED = 34;

  const first = $derived(LOOP.upper + SERVED);
  const last = $derived(W - LOOP.lower - SERVED);
  const scale = $derived((W - 8) / sheet.length_mm);
  const middle = $derived(((serving ?? 140) * scale) / 2);
  const centre = $derived((first + last) / 2);
  /** Every turn is drawn: two strands that cross twice in each. */
  const strands = $derived.by(() => {
    const turns = sheet.turns ?? 0;
    const count = Math.max(Math.round((last - first) / 2), Math.round(16 * turns), 2);
    const path = (sign: number) =>
      Array.from({ length: count + 1 }, (_, i) => {
        const at = i / count;
        const y = Y + sign * 5 * (turns ? Math.cos(2 * Math.PI * turns * at) : 1);
        return `${i ? 'L' : 'M'}${(first + at * (last - first)).toFixed(1)} ${y.toFixed(1)}`;
      }).join('');
    return [path(1), path(-1)];
  });
  const says = $derived(
    sheet.turns == null
      ? 'turns not counted'
      : `${sheet.turns} turns, ${figure(perLength(sheet.per_inch ?? 0))}`,
  );
</script>

<figure bind:clientWidth={width}>
  <svg
    viewBox="0 0 {W} {H}"
    class="w-full"
    role="img"
    aria-label="The string laid straight: {figure(mm(sheet.length_mm))}, {says}"
  >
    <path
      d="M{first} {Y}C{first - 26} {Y - 6} {LOOP.upper} {Y - 22} 16 {Y - 20}C-4 {Y - 18} -4 {Y +
        18} 16 {Y + 20}C{LOOP.upper} {Y + 22} {first - 26} {Y + 6} {first} {Y}"
      fill="none"
      stroke="var(--ink)"
      stroke-width="4"
    />
    <path
      d="M{last} {Y}C{last + 22} {Y - 5} {W - LOOP.lower} {Y - 16} {W - 14} {Y - 14}C{W} {Y -
        13} {W} {Y + 13} {W - 14} {Y + 14}C{W - LOOP.lower} {Y + 16} {last + 22} {Y + 5} {last} {Y}"
      fill="none"
      stroke="var(--ink)"
      stroke-width="4"
    />
    <path d={strands[0]} fill="none" stroke="var(--ink)" stroke-width="2" />
    <path d={strands[1]} fill="none" stroke="var(--wood-line)" stroke-width="2" />
    {#each [[first - 4, SERVED], [last + 4 - SERVED, SERVED], [centre - middle, 2 * middle]] as [x, w], i (i)}
      <rect {x} y={Y - 9} width={w} height="18" class="served" />
      <rect {x} y={Y - 9} width={w} height="18" fill="url(#wound)" />
    {/each}
    <path d="M{centre} {Y - 11}l-6-9h12Z" fill="var(--ink)" />
    <text x={centre} y={Y - 26} text-anchor="middle" class="soft">nock place</text>
    <text x="0" y="14" class="main">
      {figure(mm(sheet.length_mm))}{sheet.length_told ? '' : ' (computed)'}
    </text>
    <text x={W} y="14" text-anchor="end" class="soft">{says}</text>
    <text x="0" y={Y + 44} class="soft">upper loop, larger</text>
    <text x={centre} y={Y + 32} text-anchor="middle" class="soft">
      {serving === null ? 'serving, length not told' : `serving ${figure(mm(serving))}`}
    </text>
    <text x={W} y={Y + 44} text-anchor="end" class="soft">lower loop</text>
    <defs>
      <pattern id="wound" width="4" height="18" patternUnits="userSpaceOnUse">
        <path d="M1 18L3 0" stroke="var(--ink)" stroke-width="0.9" />
      </pattern>
    </defs>
  </svg>
</figure>

<style>
  .main {
    font-size: 17px;
    font-weight: 600;
  }
  .served {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.2;
  }
</style>
