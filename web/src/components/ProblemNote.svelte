<script lang="ts">
  import type { Problem } from '../lib/api';

  let {
    problem,
    id,
    onguess,
    insist,
  }: {
    problem: Problem;
    id: string;
    onguess?: (text: string) => void;
    /** Give the name all the same, where it is only questioned. */
    insist?: () => unknown;
  } = $props();

  const PAUSE_MS = 900;
  let spoken = $state('');

  // seen at once; spoken after a pause, not at every key
  $effect(() => {
    const words = `${problem.reason} ${problem.instruction}`;
    const timer = setTimeout(() => (spoken = words), PAUSE_MS);
    return () => clearTimeout(timer);
  });
</script>

<p {id} class="text-sm text-red">
  {problem.reason}
  {problem.instruction}
  {#if onguess}
    {#each problem.guesses ?? [] as guess (guess.text)}
      <button type="button" class="quiet ml-2" onclick={() => onguess(guess.text)}>
        {guess.says}
      </button>
    {/each}
  {/if}
  {#if insist && problem.code === 'name_taken'}
    <button type="button" class="quiet ml-2" onclick={() => void insist()}>
      Name it so all the same
    </button>
  {/if}
</p>
<span class="sr-only" role="alert">{spoken}</span>
