<script lang="ts">
  import { scaleLog } from 'd3-scale';
  import type { FlightBoard, LeverLine } from '../../lib/api';
  import { goTo } from '../../lib/go';
  import { tell } from '../../lib/preferences.svelte';
  import type { Board } from './board.svelte';

  let {
    board,
    correction,
    running,
  }: {
    board: Board;
    correction: NonNullable<FlightBoard['correction']>;
    running: boolean;
  } = $props();

  /** Share of what is due under which doing it is not worth its trouble. */
  const LEAST_SHARE = 0.08;
  const own = $derived(correction.own_lbf ?? null);
  const wants = $derived(correction.wants_lbf ?? null);
  const low = $derived(correction.wants_low_lbf ?? wants ?? 40);
  const high = $derived(correction.wants_high_lbf ?? wants ?? 60);
  const x = $derived(
    scaleLog([Math.min(low, own ?? low) * 0.9, Math.max(high, own ?? high) * 1.1], [0, 100]).clamp(
      true,
    ),
  );
  /** How much of what is due it gives, in tenths of stiffness. */
  function share(lever: LeverLine): string {
    const part = lever.share ?? 0;
    return part < 0 ? 'the other way' : `${Math.round(100 * part)} % of what is due`;
  }
  const lb = (pounds: number) => Math.round(pounds);
</script>

<section aria-labelledby="levers">
  <h2 id="levers">What reaches how far, easiest to undo first</h2>
  {#if own !== null && wants !== null && correction.levers.some((one) => one.axis === 'spine')}
    <div class="scale" aria-hidden="true">
      <span style:left="{x(wants)}%" class="wants">wants {lb(wants)}</span>
      <span style:left="{x(own)}%" class="reads">reads {lb(own)} lb</span>
    </div>
  {/if}
  <ul>
    {#each correction.levers as lever (lever.key)}
      <li>
        <div class="what">
          <strong>{lever.get ? 'Get ' : ''}{tell(lever.what)}</strong>
          <span class="text-sm text-soft"
            >{lever.axis === 'spine' && lever.share != null ? `${share(lever)}; ` : ''}{lever.undo}; {lever.minutes}
            min</span
          >
          {#if lever.refused}<span class="text-sm text-amber">{lever.refused}</span>{/if}
        </div>
        {#if lever.axis === 'spine' && own !== null && wants !== null && lever.reads_lbf != null}
          {@const [a, b] = [x(own), x(lever.reads_lbf)]}
          <div class="reach" aria-hidden="true">
            <span class="band" style:left="{x(low)}%" style:width="{x(high) - x(low)}%"></span>
            <span class="target" style:left="{x(wants)}%"></span>
            <span class="now" style:left="{a}%"></span>
            <span
              class="bar"
              class:wrong={(lever.share ?? 0) < 0}
              style:left="{Math.min(a, b)}%"
              style:width="{Math.max(Math.abs(b - a), 0.6)}%"
            ></span>
          </div>
          <span class="sr-only">
            it would read like {lb(lever.reads_lbf)} lb, {Math.round(100 * (lever.share ?? 0))} % of what
            is due
          </span>
        {:else}
          <div class="text-sm text-soft">
            {lever.axis === 'upright' && lever.first
              ? 'first: bounces confuse, and it costs nothing'
              : ''}
          </div>
        {/if}
        <div class="do">
          {#if lever.get}
            <button
              class={lever.first ? 'act act-strong' : 'quiet text-ink'}
              onclick={() => void goTo({ stage: 'arrow', control: 'spine' })}>They are here</button
            >
          {:else if !lever.refused && (lever.records.length || lever.trial) && (lever.share ?? 1) >= LEAST_SHARE}
            <button
              class={lever.first ? 'act act-strong' : 'quiet text-ink'}
              disabled={board.saying.busy || running}
              onclick={() => void board.pull(lever)}
              >{lever.trial ? 'Try three' : 'Do this'}<span class="sr-only">
                {tell(lever.what)}</span
              ></button
            >
          {/if}
        </div>
        {#if lever.disturbs.length && lever.first}
          <p class="col-span-full text-sm text-soft">
            It disturbs: {lever.disturbs.join('; ')}.
          </p>
        {/if}
      </li>
    {/each}
  </ul>
</section>

<style>
  .scale {
    position: relative;
    height: 1.3rem;
    margin-left: 38%;
    margin-right: 7.5rem;
    font-size: 0.87rem;
  }
  .scale span {
    position: absolute;
    transform: translateX(-50%);
    white-space: nowrap;
  }
  .wants {
    font-weight: 600;
    color: var(--green);
  }
  .reads {
    color: var(--soft);
  }
  li {
    display: grid;
    grid-template-columns: 38% minmax(0, 1fr) 7.5rem;
    align-items: center;
    border-bottom: 1px solid var(--line);
    min-height: 2.6rem;
    padding: 0.25rem 0;
  }
  li:last-child {
    border-bottom: 0;
  }
  .what {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.6rem;
    align-items: baseline;
  }
  .reach {
    position: relative;
    height: 1.7rem;
  }
  .reach span {
    position: absolute;
    top: 0;
    bottom: 0;
  }
  .band {
    background: color-mix(in srgb, var(--green) 28%, var(--paper));
  }
  .target {
    border-left: 2px solid var(--green);
  }
  .now {
    border-left: 2px solid var(--wood-line);
  }
  .reach .bar {
    top: 30%;
    bottom: 30%;
    background: var(--ink);
    border: 1px solid var(--ink);
  }
  .reach .wrong {
    background: transparent;
  }
  .do {
    text-align: right;
  }
  .col-span-full {
    grid-column: 1 / -1;
  }
  @media (max-width: 767px) {
    li {
      grid-template-columns: 1fr auto;
    }
    .reach,
    li > div.text-sm {
      grid-column: 1 / -1;
      grid-row: 2;
    }
    .scale {
      margin-left: 0;
      margin-right: 0;
    }
  }
</style>
