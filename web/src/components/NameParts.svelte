<script lang="ts">
  import type { Names } from '../lib/terms.svelte';
  import DidNotCome from './DidNotCome.svelte';

  let { names }: { names: Names } = $props();
</script>

<button class="quiet" aria-expanded={names.open} onclick={names.toggle}>
  {names.open ? 'hide the names' : 'name the parts'}
</button>
{#if names.asked.problem && names.open}
  <DidNotCome problem={names.asked.problem} again={() => names.toggle()} />
{/if}
{#if names.terms.length}
  <dl class="mt-2 grid w-full gap-x-6 gap-y-1 sm:grid-cols-2">
    {#each names.terms as term, i (term.key)}
      <div class="flex gap-2">
        <dt class="shrink-0 font-semibold"><span class="text-soft">{i + 1}</span> {term.word}</dt>
        <dd class="text-sm text-soft">{term.means}</dd>
      </div>
    {/each}
  </dl>
{/if}
