<script lang="ts">
  import type { FamilyBoard } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';
  import VerdictMark from './VerdictMark.svelte';

  let { family }: { family: FamilyBoard } = $props();

  const LIMBS = ['short', 'medium', 'long'] as const;
  const risers = $derived([...new Set(family.combinations.map((one) => one.riser_mm))]);
  const find = (riser: number, limbs: string) =>
    family.combinations.find((one) => one.riser_mm === riser && one.limbs === limbs);
</script>

<section aria-labelledby="combinations" class="mt-5">
  <h2 id="combinations">Riser and limbs of a take-down</h2>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="wide" tabindex="0" role="region" aria-label="Table of risers and limbs">
    <table class="rows mt-1">
      <thead>
        <tr>
          <th>Riser</th>
          {#each LIMBS as limbs (limbs)}<th>{limbs} limbs</th>{/each}
        </tr>
      </thead>
      <tbody>
        {#each risers as riser (riser)}
          <tr>
            <th scope="row">{figure(mm(riser))}</th>
            {#each LIMBS as limbs (limbs)}
              {@const one = find(riser, limbs)}
              <td class:asked={one?.asked}>
                {#if one}
                  <VerdictMark verdict={one.verdict} />
                  <strong>{figure(mm(one.bow_length_mm))}</strong>
                  {#if one.margin_mm != null}
                    <span class="text-sm whitespace-nowrap text-soft">
                      {figure(mm(one.margin_mm)).replace('-', '−')} before stack
                    </span>
                  {/if}
                {/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="mt-1 text-sm text-soft">Underlined: what limb first, then riser, asks for.</p>
</section>

<style>
  .wide {
    overflow-x: auto;
  }
  tbody th {
    color: var(--ink);
    font-weight: 600;
  }
  .asked strong {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
</style>
