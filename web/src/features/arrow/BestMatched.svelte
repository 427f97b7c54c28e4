<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { MatchedSet, QuiverRow } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap, gr } from '../../lib/units';
  import { wanted } from '../../lib/wanted';
  import type { MatchedChoice } from './matched.svelte';
  import { inUse } from './quiver.svelte';

  let { rows, choice }: { rows: QuiverRow[]; choice: MatchedChoice } = $props();

  const able = $derived(rows.filter((row) => inUse(row) && row.mass_gr != null).length);
  const counts = $derived(
    [...new Set([2, 3, 6, 8, 12, able - 1, able])]
      .filter((count) => count >= 2 && count <= able)
      .sort((a, b) => a - b),
  );

  type Out = MatchedSet['out'][number];
  function why({ because, by = 0 }: Out): string {
    switch (because) {
      case 'too_heavy':
        return `${figure(gr(by))} heavier than the set`;
      case 'too_light':
        return `${figure(gr(by))} lighter than the set`;
      case 'too_stiff':
        return `${by.toFixed(1)} lb stiffer than the set`;
      case 'too_weak':
        return `${by.toFixed(1)} lb weaker than the set`;
      case 'crooked':
        return `crooked, runs out ${figure(gap(by))}`;
      case 'quill_lifts':
        return 'a quill lifts';
      case 'not_weighed':
        return 'not weighed';
      case 'no_spine':
        return 'no spine measured';
      case 'not_needed':
        return 'would fit too';
      default:
        return because;
    }
  }
</script>

<div {@attach wanted('matched')} tabindex="-1">
  {#if counts.length}
    <div class="mt-1 flex flex-wrap items-center gap-2" role="group" aria-label="How many">
      <span class="label">Choose the best</span>
      {#each counts as count (count)}
        <button
          class="act"
          class:act-strong={choice.count === count}
          aria-pressed={choice.count === count}
          onclick={() => choice.choose(count)}>{count} of {able}</button
        >
      {/each}
    </div>
  {:else}
    <p class="mt-1 text-soft">Needs two weighed arrows in use.</p>
  {/if}
  {#if choice.problem}
    <ProblemNote problem={choice.problem} id="problem-matched" />
  {:else if choice.data}
    {@const set = choice.data}
    <p class="mt-3">
      <strong>{set.chosen.join(', ')}</strong>: within {figure(
        gr(set.mass_spread_gr),
      )}{set.spine_spread_lbf == null
        ? '. Too few spines are known: mass alone decided'
        : ` and ${set.spine_spread_lbf.toFixed(1)} lb of spine`}.
    </p>
    {#if set.by_mass_alone}
      <p class="mt-1 text-soft">
        By mass alone, those without a spine too: {set.by_mass_alone.chosen.join(', ')}, within
        {figure(gr(set.by_mass_alone.mass_spread_gr))}.
      </p>
    {/if}
    {#if set.out.length}
      <table class="rows mt-1">
        <thead><tr><th>Left out</th><th>Why</th></tr></thead>
        <tbody>
          {#each set.out as out (out.number)}
            <tr><td class="font-semibold">{out.number}</td><td>{why(out)}</td></tr>
          {/each}
        </tbody>
      </table>
    {/if}
    <p class="mt-1 text-sm text-soft">
      The least spread there is: {figure(gr(5))} of mass count as much as 2 lb of spine. Crooked and cracked
      arrows are left out.
    </p>
  {/if}
</div>
