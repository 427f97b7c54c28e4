<script lang="ts">
  import type { SpineBoard } from '../../lib/api';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { spine } from '../../lib/units';

  let { board }: { board: SpineBoard } = $props();

  const LEAST_SAID = 0.004;
  const signed = (factor: number) =>
    `${factor < 1 ? '−' : '+'} ${Math.abs(100 * (factor - 1)).toFixed(0)} %`;
  const terms = $derived(
    board.practice_terms
      .filter((term, index) => index === 0 || Math.abs(term.factor - 1) > LEAST_SAID)
      .map((term, index) =>
        index === 0
          ? `${term.name} ${term.pounds.toFixed(1)} lb`
          : `${term.name} ${signed(term.factor)}`,
      )
      .join(', '),
  );
</script>

{#snippet span(low: number, high: number)}
  {figure(spine(low))} to {figure(spine(high))}
{/snippet}

<section aria-labelledby="schools" class="mt-6">
  <h2 id="schools">Two schools, one number</h2>
  <div class="scroll overflow-x-auto">
    <table class="rows mt-1">
      <thead><tr><th>School</th><th>This rig wants</th><th>From</th></tr></thead>
      <tbody>
        <tr>
          <td class="font-semibold">Together</td>
          <td class="font-semibold whitespace-nowrap">
            {@render span(board.low_lbf, board.high_lbf)}
          </td>
          <td class="text-soft">each weighed by its own doubt</td>
        </tr>
        <tr>
          <td>Mechanics</td>
          <td class="whitespace-nowrap">
            {#if board.mechanics}
              {@render span(board.mechanics.low_lbf, board.mechanics.high_lbf)}
            {:else}no shaft leaves straight{/if}
          </td>
          <td class="text-soft">the computed shot, this bow and this side plate</td>
        </tr>
        <tr>
          <td>Practice</td>
          <td class="whitespace-nowrap">
            {@render span(board.practice.low_lbf, board.practice.high_lbf)}
          </td>
          <td class="text-soft">{terms}</td>
        </tr>
      </tbody>
    </table>
  </div>
  <p class="mt-1 text-sm text-soft">
    {tell(board.why_apart)} Your own bare shafts outrank both.
    <a class="underline" href="/rules#spine-match">The rule in full</a>
  </p>
</section>
