<script lang="ts">
  import type { Snippet } from 'svelte';
  import DidNotCome from '../../components/DidNotCome.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { FlightBoard } from '../../lib/api';
  import type { Board } from './board.svelte';

  let { board, children }: { board: Board; children: Snippet<[FlightBoard]> } = $props();
</script>

{#if board.data}
  {@render children(board.data)}
  {#if board.saying.problem}<ProblemNote problem={board.saying.problem} id="problem-flight" />{/if}
{:else if board.problem?.code === 'nothing_to_shoot'}
  <p class="mt-4">{board.problem.reason}</p>
  <p class="text-soft">{board.problem.instruction}</p>
{:else if board.problem}
  <DidNotCome problem={board.problem} again={board.load} />
{:else}
  <div class="mt-6 grid gap-2" aria-busy="true">
    <p>Working out what every reading would look like on this rig…</p>
    <p class="text-soft">
      Its shot is bent and flown at eighteen spines, once: about half a second.
    </p>
    <div class="track"><div class="run"></div></div>
  </div>
{/if}

<style>
  .track {
    height: 4px;
    max-width: 24rem;
    background: var(--faint);
    overflow: hidden;
  }
  .run {
    height: 100%;
    width: 35%;
    background: var(--ink);
    animation: run 1s ease-in-out infinite alternate;
  }
  @keyframes run {
    from {
      margin-left: 0;
    }
    to {
      margin-left: 65%;
    }
  }
</style>
