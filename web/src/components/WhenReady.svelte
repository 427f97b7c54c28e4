<script lang="ts" generics="K extends StageKey">
  import type { Snippet } from 'svelte';
  import type { Assessment, PageOf, Stage, StageKey } from '../lib/api';
  import { openRig } from '../lib/openrig.svelte';

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

  const stage = $derived(openRig.stage(key));
  const page = $derived(openRig.pages[key] as PageOf<K> | undefined);
</script>

{#if openRig.assessment && stage && page}
  {@render children(openRig.assessment, stage, page)}
{:else if openRig.assessment && !stage}
  {@render none?.()}
{/if}
