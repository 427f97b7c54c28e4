<script lang="ts">
  import type { Problem } from '../lib/api';

  let { problem, id, onguess }: { problem: Problem; id: string; onguess?: (text: string) => void } =
    $props();
</script>

<p {id} class="text-sm text-red" role="alert">
  {problem.reason}
  {problem.instruction}
  {#if onguess}
    {#each problem.guesses ?? [] as guess (guess.text)}
      <button type="button" class="quiet ml-2" onclick={() => onguess(guess.text)}>
        {guess.says}
      </button>
    {/each}
  {/if}
</p>
