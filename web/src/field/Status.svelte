<script lang="ts">
  import type { Round } from './round.svelte';

  let {
    round,
    target,
    dims,
    onchoose,
    ongive,
  }: {
    round: Round;
    target: number;
    dims: boolean;
    onchoose: () => void;
    ongive: () => void;
  } = $props();

  const shots = (count: number) => `${count} shot${count === 1 ? '' : 's'}`;
  const waits = $derived(round.unsent.length);
  const choose = $derived(round.toChoose.length + round.refused.length);
</script>

<div class="line" class:amber={choose > 0} role="status">
  {#if choose > 0}
    <span>
      <strong
        >{round.toChoose.length
          ? `${shots(choose)} differ${choose === 1 ? 's' : ''}.`
          : `${shots(choose)} refused.`}</strong
      >
      <button class="quiet" onclick={onchoose}>choose</button>
    </span>
  {:else if round.link === 'away'}
    <span><strong>No network.</strong> {shots(waits)} kept here</span>
  {:else if round.link === 'carried'}
    <span>
      <strong>Taken along.</strong>
      {#if round.standing.length}
        <button class="quiet" onclick={ongive}>{shots(round.standing.length)} to give back</button>
      {:else}your shots are kept here{/if}
    </span>
  {:else if waits}
    <span>{shots(waits)} on the way</span>
  {:else}<span></span>{/if}
  <span class="soft">
    {#if !round.keeps}this page keeps nothing once closed ·{/if}
    {#if dims}screen will dim ·{/if}
    target {target}
  </span>
</div>

<style>
  .line {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 0.75rem;
    min-height: 2.1rem;
    padding: 0 0.75rem;
    background: var(--faint);
  }
  .amber {
    border-left: 6px solid var(--amber);
  }
  .line span {
    white-space: nowrap;
  }
  .quiet {
    padding-block: 0.3rem;
  }
</style>
