<script lang="ts">
  import { recorder } from '../lib/recorder.svelte';
  import { clock } from '../lib/clock.svelte';
  import { inWords, today } from '../lib/days';

  let { id }: { id: string } = $props();

  let choosing = $state(false);
  let input = $state<HTMLInputElement>();

  $effect(() => {
    if (choosing) input?.focus();
  });

  function backToNow() {
    recorder.day = '';
    choosing = false;
  }
</script>

{#if choosing || recorder.day}
  <label for={id} class="text-sm font-semibold whitespace-nowrap text-amber">recording for</label>
  <input
    bind:this={input}
    {id}
    type="date"
    class="field day"
    max={today()}
    bind:value={recorder.day}
  />
  <button type="button" class="quiet text-sm whitespace-nowrap" onclick={backToNow}>
    back to now
  </button>
{:else}
  {#if clock.check?.long_ago && clock.check.newest}
    <!-- a slipped clock is seen here, before anything is recorded for a wrong day -->
    <span class="text-sm text-soft max-md:hidden">
      recording for {inWords(clock.check.now)}; the last entry is of {inWords(clock.check.newest)}
    </span>
  {/if}
  <button type="button" class="quiet text-sm whitespace-nowrap" onclick={() => (choosing = true)}>
    for another day
  </button>
{/if}

<style>
  .day {
    min-height: 1.9rem;
    width: 9.2rem;
    padding-block: 0.1rem;
  }
</style>
