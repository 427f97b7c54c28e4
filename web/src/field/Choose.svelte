<script lang="ts">
  import type { Round } from './round.svelte';

  let { round, onclose }: { round: Round; onclose: () => void } = $props();
</script>

<div class="panel">
  <h2>These differ from the bench</h2>
  {#each round.toChoose as shot (shot.id)}
    <section>
      <p><strong>{shot.line}</strong></p>
      <p class="soft">{shot.differs}</p>
      <div class="row">
        <button onclick={() => round.insist(shot.id)}>Record it all the same</button>
        <button onclick={() => round.takeBack(shot.id)}>Leave it out</button>
      </div>
    </section>
  {/each}
  {#each round.refused as shot (shot.id)}
    <section>
      <p><strong>{shot.line}</strong></p>
      <p class="soft">Not recorded: {shot.refused}</p>
      <button onclick={() => round.takeBack(shot.id)}>Leave it out</button>
    </section>
  {/each}
  {#if !round.toChoose.length && !round.refused.length}<p>All is recorded.</p>{/if}
  <button class="back" onclick={onclose}>Back to the target</button>
</div>

<style>
  .panel {
    display: grid;
    align-content: start;
    gap: 1rem;
    padding: 1rem 0.75rem;
    overflow: auto;
  }
  h2 {
    font-size: 1.25rem;
  }
  section {
    border-top: 1px solid var(--line);
    padding-top: 0.6rem;
  }
  .row {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.75rem;
    margin-top: 0.5rem;
  }
  button {
    min-height: 3.25rem;
    padding-inline: 0.75rem;
  }
</style>
