<script lang="ts">
  import type { FlightBoard } from '../../lib/api';

  let {
    title,
    causes,
    saidFrom,
    dashed = false,
  }: {
    title: string;
    causes: FlightBoard['causes'];
    saidFrom: number;
    /** Say what the dashed outline is. */
    dashed?: boolean;
  } = $props();

  const id = $props.id();
  const share = (chance: number) => `${(100 * chance).toFixed(1)}%`;
  const said = (chance: number) => `${Math.round(100 * chance)}\u00a0%`;
</script>

<section aria-labelledby={id}>
  <div class="flex items-baseline justify-between gap-3">
    <h2 {id}>{title}</h2>
    {#if dashed && causes.some((one) => one.before != null)}
      <span class="text-sm text-soft">dashed: before the last reading</span>
    {/if}
  </div>
  <ul class="causes">
    {#each causes as cause (cause.key)}
      <li class:leads={cause.leads}>
        <span class="name">{cause.name}</span>
        <span class="bar" aria-hidden="true">
          <span class="fill" style:width={share(cause.chance)}></span>
          {#if cause.before != null}
            <span class="was" style:width={share(cause.before)}></span>
          {/if}
          <span class="rule" style:left={share(saidFrom)}></span>
        </span>
        <span class="number">{said(cause.chance)}</span>
        <span class="word">{cause.word}</span>
      </li>
    {/each}
  </ul>
  <p class="text-sm text-soft">dotted: said from {said(saidFrom)}</p>
</section>

<style>
  .causes {
    display: grid;
    gap: 0.35rem;
    margin: 0.4rem 0 0.2rem;
  }
  li {
    display: grid;
    grid-template-columns: 6.2rem minmax(4rem, 1fr) 3.1rem 5.6rem;
    align-items: center;
    gap: 0.5rem;
  }
  .leads .name {
    font-weight: 600;
  }
  .bar {
    position: relative;
    height: 1rem;
    border-left: 1px solid var(--ink);
  }
  .fill,
  .was,
  .rule {
    position: absolute;
    left: 0;
    top: 0;
    bottom: 0;
  }
  .fill {
    background: color-mix(in srgb, var(--soft) 55%, var(--paper));
  }
  .leads .fill {
    background: var(--ink);
  }
  .was {
    border: 1px dashed var(--soft);
    border-left: 0;
  }
  .rule {
    border-left: 1px dotted var(--soft);
    top: -0.35rem;
    bottom: -0.35rem;
  }
  .number {
    text-align: right;
    font-weight: 600;
  }
  .word {
    color: var(--soft);
    font-size: 0.87rem;
    white-space: nowrap;
  }
</style>
