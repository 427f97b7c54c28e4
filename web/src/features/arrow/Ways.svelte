<script lang="ts">
  import type { SpineBoard } from '../../lib/api';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { gpp, gr } from '../../lib/units';
  import { wanted } from '../../lib/wanted';
  import { STIFFNESS } from './words';

  let { board }: { board: SpineBoard } = $props();

  const UNDO = { easy: 'at the bench', new: 'new shafts', never: 'never' };
  const off = $derived(board.own_lbf == null ? 0 : board.own_lbf - board.matched_lbf);
  const bare = $derived(board.bare?.side ? board.bare : null);
</script>

<section aria-labelledby="ways" class="mt-6" {@attach wanted('ways')} tabindex="-1">
  {#if board.ways.length}
    <h2 id="ways">
      Ways to close {Math.abs(off).toFixed(0)} lb too {off > 0 ? 'stiff' : 'weak'}, easiest to undo
      first
    </h2>
    <table class="rows mt-1">
      <thead>
        <tr>
          <th>Change</th><th>Shafts then</th><th class="wide">Arrow then</th><th>To undo</th>
        </tr>
      </thead>
      <tbody>
        {#each board.ways as way (way.key)}
          <tr>
            <td>{tell(way.what)}</td>
            <td class="whitespace-nowrap" class:font-semibold={way.closes}>
              {STIFFNESS[way.word]}
            </td>
            <td class="wide whitespace-nowrap text-soft">
              {#if way.key === 'shafts'}
                as the set is built
              {:else}
                {figure(gr(way.mass_gr))}, {figure(gpp(way.grains_per_pound))}
                {#if way.under_floor}<strong class="text-red">under the floor</strong>{/if}
              {/if}
            </td>
            <td class="whitespace-nowrap text-soft">{UNDO[way.undo]}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="mt-1 text-sm text-soft">
      One change at a time, and shoot after each.
      {#if bare}
        Until then a bare shaft strikes {bare.side} of the fletched ones at 18 m, by a {bare.size} distance.
      {/if}
    </p>
  {:else if board.plateau}
    <h2 id="ways">Without a point</h2>
    <p class="mt-1">
      Spines from {board.plateau[0]?.toFixed(0)} to {board.plateau[1]?.toFixed(0)} lb all leave this bow
      straight, the tail sliding along the plate. Close range, clear backstop.
    </p>
  {:else if board.own_lbf != null}
    <h2 id="ways">Nothing to close</h2>
    <p class="mt-1 text-soft">The shafts match within the band. Prove it with bare shafts.</p>
  {:else}
    <h2 id="ways">Ways to close</h2>
    <p class="mt-1 text-soft">
      Enter the shafts' spine under Build: the ways to close a gap follow from it.
    </p>
  {/if}
</section>

<style>
  @media (max-width: 767px) {
    .wide {
      display: none;
    }
  }
</style>
