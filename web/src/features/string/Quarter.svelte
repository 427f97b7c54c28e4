<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { figure, figureParts } from '../../lib/preferences.svelte';
  import { gap, joules, lbf, mm, mps } from '../../lib/units';

  let { quarter }: { quarter: NonNullable<PageOf<'string'>['quarter']> } = $props();

  /** What rounds to nought has no sign. */
  function signed(value: number, said: { number: string; unit: string }): string {
    const number = said.number.replace(/[-−]/, '');
    const sign = Number(number) === 0 ? '' : value < 0 ? '−' : '+';
    return `${sign}${number} ${said.unit}`;
  }
  /** Under a pound it is said as what it is: nothing to aim at. */
  const spine = $derived.by((): [string, string] => {
    const moved = quarter.spine_lbf;
    if (moved == null) return ['not known', 'needs the arrow and the window'];
    if (Math.abs(moved) < 1)
      return ['hardly', signed(moved, { number: moved.toFixed(1), unit: 'lb' })];
    return [signed(moved, { number: moved.toFixed(1), unit: 'lb' }), ''];
  });
  const cells = $derived([
    ['on the scale', signed(quarter.weight_lbf, figureParts(lbf(quarter.weight_lbf))), ''],
    ['stored', signed(quarter.stored_j, figureParts(joules(quarter.stored_j))), ''],
    ['speed', signed(quarter.speed_mps, figureParts(mps(quarter.speed_mps))), ''],
    ['spine wanted', ...spine],
    [
      'string shorter by',
      signed(quarter.string_mm, figureParts(gap(quarter.string_mm))).replace('+', ''),
      quarter.turns == null ? '' : `${Math.round(2 * quarter.turns) / 2} turns`,
    ],
  ]);
</script>

<section aria-labelledby="quarter" class="mt-4">
  <h2 id="quarter">
    {figure(mm(6.35))} more changes little: brace is tuned by sound, not by numbers
  </h2>
  <dl class="mt-1">
    {#each cells as [label, said, more] (label)}
      <div>
        <dt class="label">{label}</dt>
        <dd>
          <span class="font-semibold whitespace-nowrap">{said}</span>
          {#if more}<span class="label block">{more}</span>{/if}
        </dd>
      </div>
    {/each}
  </dl>
</section>

<style>
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(7.5rem, 1fr));
    border-top: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
  }
  dl > div {
    padding: 0.5rem 0.75rem 0.5rem 0;
  }
</style>
