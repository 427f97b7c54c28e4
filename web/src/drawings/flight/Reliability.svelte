<script lang="ts">
  import type { FlightTrials } from '../../lib/api';

  let { words }: { words: FlightTrials['words'] } = $props();

  const FROM = 0.3;
  const place = (share: number) => `${(100 * Math.max(share - FROM, 0)) / (1 - FROM)}%`;
  const per = (share: number) => (share > 0.995 ? 'over 99 %' : `${Math.round(100 * share)} %`);
  const span = (one: FlightTrials['words'][number]) =>
    one.low === 0
      ? `under ${Math.round(100 * one.high)} %`
      : one.high >= 1
        ? `over ${Math.round(100 * one.low)} %`
        : `${Math.round(100 * one.low)} to ${Math.round(100 * one.high)} %`;
</script>

<ul>
  {#each words as one (one.word)}
    <li>
      <span class:font-semibold={one.low > 0}>{one.word}</span>
      <span class="text-sm text-soft">{span(one)}</span>
      <span class="track" aria-hidden="true">
        {#each [0.4, 0.6, 0.8, 1] as tick (tick)}<span class="tick" style:left={place(tick)}
          ></span>{/each}
        <span
          class="band"
          style:left={place(one.least)}
          style:width="calc({place(one.most)} - {place(one.least)})"
        ></span>
        <span class="came" style:left={place(one.came)}></span>
        <span class="said" style:left={place(one.said)}></span>
      </span>
      <span class="text-right"
        ><strong>{per(one.came)}</strong><span class="sr-only">
          came true, {per(one.said)} was stated</span
        >, {one.times} times</span
      >
    </li>
  {/each}
  <li aria-hidden="true" class="axis">
    <span class="track">
      {#each [0.4, 0.6, 0.8, 1] as tick (tick)}
        <span class="share" style:left={place(tick)}>{Math.round(100 * tick)} %</span>
      {/each}
    </span>
  </li>
</ul>
<p class="text-sm text-soft">ring: as stated; line: came true; band: nine times in ten</p>

<style>
  li {
    display: grid;
    grid-template-columns: 7.5rem 6.2rem minmax(6rem, 1fr) 10.5rem;
    align-items: center;
    gap: 0.5rem;
    min-height: 1.9rem;
  }
  .track {
    grid-column: 3;
    position: relative;
    height: 1.5rem;
  }
  .track > span {
    position: absolute;
  }
  .tick {
    top: 0;
    bottom: 0;
    border-left: 1px solid var(--line);
  }
  .band {
    top: 25%;
    bottom: 25%;
    background: color-mix(in srgb, var(--blue) 25%, var(--paper));
  }
  .came {
    top: 10%;
    bottom: 10%;
    border-left: 3px solid var(--ink);
    margin-left: -1.5px;
  }
  .said {
    width: 0.7rem;
    height: 0.7rem;
    margin-left: -0.35rem;
    top: calc(50% - 0.35rem);
    border: 2px solid var(--ink);
    border-radius: 50%;
    background: var(--paper);
  }
  .share {
    white-space: nowrap;
    transform: translateX(-50%);
    font-size: 0.8rem;
    color: var(--soft);
  }
  .axis .share:last-child {
    transform: translateX(-100%);
  }
  @media (max-width: 767px) {
    li {
      grid-template-columns: 6.2rem minmax(4rem, 1fr) 6.5rem;
    }
    li > :global(.text-sm) {
      display: none;
    }
    .track {
      grid-column: 2;
    }
  }
</style>
