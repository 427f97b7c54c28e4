<script lang="ts">
  import type { Value } from '../lib/api';
  import { figureParts } from '../lib/preferences.svelte';
  import Told from './Told.svelte';

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

<div class="strip">
  <dl>
    {#each there as value (value.key)}
      <div class="cell">
        <dt class="label"><Told text={value.label} /></dt>
        {#if value.figure}
          {@const said = figureParts(value.figure)}
          <dd>
            <span class="figure block whitespace-nowrap"
              >{said.number}{said.unit === '°' ? '' : ' '}{said.unit}</span
            >
            <span class="label whitespace-nowrap">
              {[said.plusMinus ? `± ${said.plusMinus}` : null, ORIGINS[value.origin ?? '']]
                .filter(Boolean)
                .join(', ')}
            </span>
          </dd>
        {:else}
          <dd>
            {#if value.text}
              <span class="figure block">{value.text}</span>
              <span class="label">{ORIGINS[value.origin ?? '']}</span>
            {:else}
              <span class="text-sm text-soft">{value.missing}</span>
            {/if}
          </dd>
        {/if}
      </div>
    {/each}
  </dl>
</div>

<style>
  .strip {
    border-top: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
    overflow: hidden;
  }
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(8.5rem, 1fr));
    /* the first column's rule lies outside: only rules between columns are seen */
    margin-left: calc(-0.75rem - 1px);
  }
  .cell {
    padding: 0.6rem 0.75rem;
    border-left: 1px solid var(--line);
  }
</style>
