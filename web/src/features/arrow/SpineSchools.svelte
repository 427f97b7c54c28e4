<script lang="ts">
  import type { SpineBoard } from '../../lib/api';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { spine } from '../../lib/units';

  let { board }: { board: SpineBoard } = $props();

  const signed = (pounds: number) =>
    `${pounds < 0 ? '−' : '+'} ${Math.abs(pounds).toFixed(1)} ${board.rule_terms.length ? 'lb' : ''}`;
  const terms = $derived(
    board.rule_terms
      .filter((term, index) => index === 0 || Math.abs(term.pounds) > 0.04)
      .map((term, index) =>
        index === 0
          ? `${term.name} ${term.pounds.toFixed(1)} lb`
          : `${signed(term.pounds)} ${term.name}`,
      )
      .join(', '),
  );
</script>

<section aria-labelledby="schools" class="mt-6">
  <h2 id="schools">Two schools</h2>
  <div class="scroll overflow-x-auto">
    <table class="rows mt-1">
      <thead><tr><th>School</th><th>This rig wants</th><th>From</th></tr></thead>
      <tbody>
        <tr>
          <td class="font-semibold">Mechanics</td>
          <td class="font-semibold whitespace-nowrap">
            {#if board.matched_lbf != null}
              {figure(spine(board.low_lbf))} to {figure(spine(board.high_lbf))}
            {:else}no match{/if}
          </td>
          <td class="text-soft">the computed shot, this bow and this side plate</td>
        </tr>
        <tr>
          <td>Rule of thumb</td>
          <td class="whitespace-nowrap"
            >{board.rule_lbf == null ? 'no spine' : figure(spine(board.rule_lbf))}</td
          >
          <td class="text-soft">{terms}</td>
        </tr>
      </tbody>
    </table>
  </div>
  <p class="mt-1 text-sm text-soft">
    {tell(board.why_apart)} Lyrandis goes by the mechanics, and your own bare shafts outrank both.
    <a class="underline" href="/rules#spine-thumb-rule">The rule in full</a>
  </p>
</section>
