<script lang="ts">
  import type { TaperPlan } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gr, percent, spine } from '../../lib/units';

  let { plan }: { plan: TaperPlan } = $props();

  const ROWS = ['parallel', 'planned'] as const;
  const WORDS = { parallel: 'Parallel', planned: 'As planned' };
  const kick = (degrees: number | null | undefined) =>
    degrees == null
      ? '–'
      : `${Math.abs(degrees).toFixed(0)}° ${Math.abs(degrees) < 1 ? 'straight' : degrees > 0 ? 'stiff' : 'weak'}`;
</script>

<table class="rows mt-4">
  <thead>
    <tr>
      <th>Shaft</th><th>Spine gauge reads</th><th>Arrow</th><th>Forward</th><th>Tail leaves</th>
    </tr>
  </thead>
  <tbody>
    {#each ROWS as which (which)}
      {@const shaft = plan[which]}
      <tr class:font-semibold={which === 'planned'}>
        <td>{WORDS[which]}</td>
        <td class="whitespace-nowrap">
          {shaft.static_spine_lbf == null ? '–' : figure(spine(shaft.static_spine_lbf))}
        </td>
        <td class="whitespace-nowrap">{figure(gr(shaft.mass_gr))}</td>
        <td class="whitespace-nowrap">{figure(percent(shaft.forward))}</td>
        <td class="whitespace-nowrap">{kick(shaft.kick_deg)}</td>
      </tr>
    {/each}
  </tbody>
</table>
<p class="mt-1 text-sm text-soft">
  {#if plan.shaft_lbf == null}
    Enter the parallel shaft's spine under Build: spine and tail follow from it.
  {:else if plan.clean_at != null}
    By the mechanics the tail leaves straight at about {Math.round(plan.clean_at * 100)} % of these lengths.
  {:else if plan.planned.kick_deg != null && plan.planned.kick_deg > 1}
    By the mechanics still stiff at one and a half times these lengths: start from a weaker shaft.
  {:else}
    The middle keeps its stiffness; the ends lose it with the fourth power of the thickness.
  {/if}
  The first cuts take off mass where it whips most and can act stiffer; only longer tapers weaken. How
  far is good to about a quarter: shoot, and log it.
</p>
