<script lang="ts">
  let {
    from = -20,
    to = 200,
    every = 50,
  }: { from?: number; to?: number; every?: number } = $props();

  const ticks = $derived(
    Array.from({ length: Math.floor(to / every) + 1 }, (_, n) => n * every).filter(
      (ms) => ms <= to,
    ),
  );
</script>

<div class="axis" aria-hidden="true">
  {#each ticks as ms (ms)}
    <span style:left="{(100 * (ms - from)) / (to - from)}%"
      >{ms}{ms === ticks.at(-1) ? ' ms' : ''}</span
    >
  {/each}
  <em>amber: clicks while it rings</em>
</div>

<style>
  .axis {
    position: relative;
    height: 1.3rem;
    margin-left: 6.5rem;
    margin-right: 11.9rem;
    border-top: 1px solid var(--line);
    font-size: 0.8rem;
    color: var(--soft);
  }
  span {
    position: absolute;
    transform: translateX(-50%);
    white-space: nowrap;
  }
  em {
    position: absolute;
    left: calc(100% + 1.9rem);
    font-style: normal;
    white-space: nowrap;
  }
  @media (max-width: 640px) {
    em {
      display: none;
    }
    .axis {
      margin-left: 2rem;
      margin-right: 4rem;
    }
  }
</style>
