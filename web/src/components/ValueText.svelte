<script lang="ts">
  import type { Value } from '../lib/api';
  import { figure, figureParts, tell } from '../lib/preferences.svelte';

  let { value, plain = false }: { value: Value; plain?: boolean } = $props();

  const said = $derived(value.figure ? figureParts(value.figure) : null);
</script>

{#if said && plain}
  {said.number} {said.unit}
{:else if value.figure}
  {figure(value.figure)}{#if value.detail}
    {tell(value.detail)}{/if}
{:else if value.text}
  {value.text}
{:else}
  <span class="font-normal text-soft">{plain ? 'none yet' : value.missing}</span>
{/if}
