<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Assessment, Stage, StageKey } from '../lib/api';
  import { bench } from '../lib/bench.svelte';

  let { key, children }: { key: StageKey; children: Snippet<[Assessment, Stage]> } = $props();

  const stage = $derived(bench.stage(key));
</script>

{#if bench.assessment && stage}
  {@render children(bench.assessment, stage)}
{/if}
