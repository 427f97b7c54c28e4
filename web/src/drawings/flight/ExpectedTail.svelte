<script lang="ts">
  let { tail, axis }: { tail: readonly number[]; axis: 'spine' | 'upright' } = $props();

  const middle = $derived(axis === 'upright' ? 'level' : 'straight');
  const WORDS = $derived(['strong', 'clear', 'slight', middle, 'slight', 'clear', 'strong']);
  const [low, high] = $derived(axis === 'upright' ? ['high', 'low'] : ['left', 'right']);
  const most = $derived(Math.max(...tail));
  const per = (chance: number) => `${Math.round(100 * chance)}\u00a0%`;
</script>

<div class="columns">
  {#each tail as chance, i (i)}
    <div class:leads={chance === most}>
      <span class="track" aria-hidden="true"
        ><span style:height="{(100 * chance) / Math.max(most, 0.2)}%"></span></span
      >
      <span class="word"
        >{WORDS[i]}<span class="sr-only"> {i < 3 ? low : i > 3 ? high : ''}</span></span
      >
      <span class="number">{per(chance)}</span>
    </div>
  {/each}
</div>
<div class="flex justify-between text-sm text-soft" aria-hidden="true">
  <span>{low}</span><span>{high}</span>
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: repeat(7, 1fr);
    gap: 3px;
  }
  .columns > div {
    display: grid;
    justify-items: stretch;
    text-align: center;
  }
  .track {
    position: relative;
    height: 4.5rem;
    border-bottom: 1px solid var(--ink);
  }
  .track > span {
    position: absolute;
    left: 0;
    right: 0;
    bottom: 0;
    background: color-mix(in srgb, var(--green) 35%, var(--paper));
    border: 1px dashed var(--green);
    border-bottom: 0;
  }
  .leads .track > span {
    background: color-mix(in srgb, var(--green) 70%, var(--paper));
    border-style: solid;
  }
  .word {
    color: var(--soft);
    font-size: 0.8rem;
  }
  .number {
    font-size: 0.87rem;
    font-weight: 600;
  }
</style>
