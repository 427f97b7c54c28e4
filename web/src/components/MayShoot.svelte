<script lang="ts">
  import type { Assessment } from '../lib/api';
  import { tell } from '../lib/preferences.svelte';

  let { may }: { may: Assessment['may_shoot'] } = $props();

  const because = $derived(may.because.map(tell));
  const unchecked = $derived(may.unchecked.map(tell).join('; '));
</script>

<div class="line" class:no={may.answer === 'no'} role={may.answer === 'no' ? 'alert' : undefined}>
  <p>
    <span class="text-soft">May I shoot this?</span>
    {#if may.answer === 'no'}
      <strong class="text-red">No.</strong> {because[0]}
    {:else if may.answer === 'not_yet'}
      <strong class="text-amber">Not yet:</strong> {because.join('; ')}.
    {:else}
      <strong class="text-green">Nothing known against it.</strong>
    {/if}
    {#if unchecked && may.answer !== 'no'}
      <span class="text-soft">Not checked: {unchecked}.</span>
    {/if}
  </p>
  {#if may.answer === 'no'}
    {#each because.slice(1) as more (more)}<p class="mt-1">{more}</p>{/each}
  {/if}
</div>

<style>
  .line {
    margin-bottom: 0.7rem;
    border-left: 5px solid var(--line);
    padding: 0.15rem 0.75rem;
    font-size: 0.95rem;
  }
  .no {
    border-left-color: var(--red);
    background: color-mix(in srgb, var(--red) 9%, var(--paper));
    padding: 0.5rem 0.75rem;
    font-size: 1rem;
  }
</style>
