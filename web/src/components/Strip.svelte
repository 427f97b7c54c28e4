<script lang="ts">
  import type { Value } from '../lib/api';
  import { figureParts } from '../lib/preferences.svelte';

  let { values }: { values: (Value | null)[] } = $props();

  const there = $derived(values.filter((value) => value !== null));
  const ORIGINS: Record<string, string> = {
    weighed: 'weighed',
    measured: 'measured',
    told: 'as told',
    rule: 'by rule',
    estimated: 'estimated',
    simulated: 'simulated',
  };
</script>

<dl class="strip">
  {#each there as value (value.key)}
    <div class="cell">
      <dt class="label">{value.label}</dt>
      {#if value.figure}
        {@const said = figureParts(value.figure)}
        <dd>
          <span class="figure block whitespace-nowrap">{said.number} {said.unit}</span>
          <span class="label whitespace-nowrap">
            {#if said.plusMinus}± {said.plusMinus},
            {/if}{ORIGINS[value.origin ?? ''] ?? ''}
          </span>
        </dd>
      {:else}
        <dd class="text-sm text-soft">{value.text ?? value.missing}</dd>
      {/if}
    </div>
  {/each}
</dl>

<style>
  .strip {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(8.5rem, 1fr));
    border-top: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
    overflow: hidden;
  }
  .cell {
    padding: 0.6rem 0.75rem;
    border-left: 1px solid var(--line);
    margin-left: -1px;
  }
  .cell:first-child {
    padding-left: 1px;
  }
</style>
