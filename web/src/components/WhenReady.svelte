<script lang="ts" generics="K extends StageKey">
  import type { Snippet } from 'svelte';
  import type { Assessment, PageOf, Stage, StageKey } from '../lib/api';
  import { bench } from '../lib/bench.svelte';

  let {
    key,
    children,
    none,
  }: {
    key: K;
    children: Snippet<[Assessment, Stage, PageOf<K>]>;
    /** Shown where the rig has no such stage. */
    none?: Snippet;
  } = $props();

  const stage = $derived(bench.stage(key));
  const page = $derived(bench.pages[key] as PageOf<K> | undefined);
</script>

{#if bench.assessment && stage && page}
  {@render children(bench.assessment, stage, page)}
{:else if bench.assessment && !stage}
  {@render none?.()}
{/if}
