<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';
  import type { AskedOfRig } from '../lib/asked.svelte';
  import DidNotCome from './DidNotCome.svelte';

  /** What was asked about the rig, or why it is not there. */
  let { asked, children }: { asked: AskedOfRig<T>; children: Snippet<[T]> } = $props();
</script>

{#if asked.data !== null}
  {@render children(asked.data)}
{:else if asked.problem?.code === 'nothing_to_shoot'}
  <p class="mt-4">{asked.problem.reason}</p>
  <p class="text-soft">{asked.problem.instruction}</p>
{:else if asked.problem}
  <DidNotCome problem={asked.problem} again={asked.load} />
{:else}
  <p class="mt-4 text-soft" aria-busy="true">Working it out…</p>
{/if}
