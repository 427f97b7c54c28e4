<script lang="ts">
  import { figure } from '../../lib/preferences.svelte';
  import { gr, lbf } from '../../lib/units';
  import type { FirstRun } from './first-run.svelte';

  /** What follows from the answers as they stand. */
  let { run, brief = false }: { run: FirstRun; brief?: boolean } = $props();

  const weight = $derived(run.number('weight')?.figure ?? null);
  const least = $derived(run.asked.data?.least_arrow_gr ?? null);
  const room = $derived(run.number('stack')?.figure ?? null);
</script>

{#if weight}
  <p class="big">
    <strong>{figure(lbf(weight.value, weight.plus_minus))}</strong> on your fingers
  </p>
  {#if least !== null}
    <p>
      {brief ? 'arrow from' : 'An arrow of at least'}
      <strong class="whitespace-nowrap">{figure(gr(least))}</strong>{brief ? '' : '.'}
    </p>
  {/if}
  {#if room && !brief}
    <p>
      {room.value >= 0
        ? `The bow has ${figure(room)} to spare before it stacks.`
        : `It may stack in the last ${figure({ ...room, value: -room.value })}: short for this draw.`}
    </p>
  {/if}
{:else}
  <p class="big"><strong>{brief ? 'The bow’s mark' : 'What is written on the bow?'}</strong></p>
  <p>
    {brief
      ? 'gives the weight on your fingers'
      : 'It gives the weight on your fingers and the lightest arrow.'}
  </p>
{/if}

<style>
  .big {
    font-size: 1.1rem;
    line-height: 1.25;
  }
  .big strong {
    font-weight: 700;
    white-space: nowrap;
  }
</style>
