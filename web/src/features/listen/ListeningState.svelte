<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { Listening, Question } from './hearing.svelte';

  let {
    listening,
    question,
    id,
  }: {
    listening: Listening;
    question: Question;
    /** Of the problem, where there is one. */
    id: string;
  } = $props();
</script>

{#if listening.share !== null}
  <p class="mt-3" role="status">
    Listening… <progress max="1" value={listening.share}></progress>
  </p>
{/if}
{#if listening.problem}
  <ProblemNote problem={listening.problem} {id} />
  {#if listening.unsent}
    <p class="mt-1">
      <button class="act" onclick={() => void listening.again(question)}>Send it again</button>
      <span class="text-soft">{listening.unsent.name} is kept in this window until then.</span>
    </p>
  {/if}
{/if}

<style>
  progress {
    width: 12rem;
    height: 0.6rem;
    accent-color: var(--ink);
  }
</style>
