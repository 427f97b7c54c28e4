<script lang="ts">
  import type { Station } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { tell } from '../../lib/preferences.svelte';
  import { wanted } from '../../lib/wanted';
  import OpenStation from './OpenStation.svelte';
  import type { OrderOfWork } from './order.svelte';
  import StationMark from './StationMark.svelte';
  import StationValue from './StationValue.svelte';

  let { order }: { order: OrderOfWork } = $props();

  const WORDS: Record<Station['mark'], string> = {
    unset: 'not set',
    settled: 'settled',
    off: 'found, not good',
    direct: 'in doubt',
    rests: 'in doubt',
    waits: 'waits',
  };
  const open = $derived(order.open);
  const lanes = $derived(new Map(open?.rests_on.map((up, lane) => [up.node, { ...up, lane }])));
  const at = $derived((node: string) => order.stations.findIndex((one) => one.node === node));
  /** How far a station lies within the fan of what the open one rests on. */
  function passes(row: number): { lane: number; doubts: boolean; from: boolean; to: boolean }[] {
    if (!open) return [];
    const end = at(open.node);
    return [...lanes.values()]
      .map((up) => ({ lane: up.lane, doubts: up.doubts, start: at(up.node) }))
      .filter(({ start }) => start >= 0 && start <= row && row <= end)
      .map(({ lane, doubts, start }) => ({ lane, doubts, from: start === row, to: row === end }));
  }
  /** The card is the one source of what is next; where it asks for something else first, what the
   * order of work comes to comes then. */
  function isCard(station: Station): boolean {
    const asks = openRig.assessment?.next_step.action;
    return asks?.stage === station.stage && asks.control === station.control;
  }
</script>

<p class="hint mb-1 text-sm text-soft">
  {#if open?.rests_on.length}
    {open.name} rests on what is joined to it at the left{open.rests_on.some((up) => up.doubts)
      ? '; amber puts it in doubt'
      : ''}.
  {:else}
    Arrow keys walk the stations; left and right go along what rests on what.
  {/if}
</p>
<ol {@attach wanted('order')} tabindex="-1">
  {#each order.stations as station, row (station.node)}
    {@const isOpen = open?.node === station.node}
    <li class:open={isOpen}>
      <div class="row">
        <svg width="74" height="30" aria-hidden="true" class="fan">
          {#each passes(row) as { lane, doubts, from, to } (lane)}
            {@const x = 8 + 9 * lane}
            <path
              d={from
                ? `M60 15H${x + 5}Q${x} 15 ${x} 20V30`
                : to
                  ? `M${x} 0V10Q${x} 15 ${x + 5} 15H60`
                  : `M${x} 0V30`}
              fill="none"
              stroke={doubts ? 'var(--amber)' : 'var(--line)'}
              stroke-width={doubts ? 2 : 1.5}
            />
          {/each}
        </svg>
        <StationMark mark={station.mark} />
        <button
          id="station-{station.node}"
          class="name"
          aria-expanded={isOpen}
          onclick={() => (order.focus = station.node)}
          onkeydown={order.key}>{station.name}</button
        >
        <span class="value"><StationValue {station} /></span>
        <span class="why" class:amber={station.mark === 'direct' || station.mark === 'rests'}>
          {WORDS[station.mark]}{station.reason && station.mark !== 'unset'
            ? `, ${tell(station.reason)}`
            : ''}
        </span>
        <span class="minutes">
          {#if order.data?.next === station.node}
            <strong class="next">{isCard(station) ? 'next' : 'then'}</strong>
          {:else if station.mark === 'unset'}
            {station.find_minutes && station.needed ? `${station.find_minutes} min to do` : ''}
          {:else if station.check_minutes}
            {station.check_minutes} min
          {/if}
        </span>
      </div>
      {#if isOpen}<OpenStation {order} {station} />{/if}
    </li>
  {/each}
</ol>

<style>
  li {
    border-bottom: 1px solid var(--faint);
  }
  li.open {
    background: var(--raised);
    border: 1px solid var(--ink);
  }
  .row {
    display: grid;
    grid-template-columns: 74px 18px 8.2rem 11rem minmax(8rem, 1fr) 6.6rem;
    align-items: center;
    min-height: 30px;
    gap: 0 0.5rem;
  }
  .name {
    text-align: left;
    font-weight: 600;
    min-height: 30px;
  }
  .value,
  .why {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .why,
  .minutes {
    color: var(--soft);
    font-size: 0.93rem;
  }
  .why.amber {
    color: var(--amber);
  }
  .minutes {
    text-align: right;
    padding-right: 0.5rem;
  }
  .next {
    background: var(--ink);
    color: var(--on-ink);
    border-radius: 3px;
    padding: 0.1rem 0.5rem;
  }
  @media (max-width: 959px) {
    .row {
      grid-template-columns: 18px 8.6rem minmax(0, 1fr) minmax(0, 1fr) 5.2rem;
    }
    .fan,
    .hint {
      display: none;
    }
  }
  @media (max-width: 767px) {
    .row {
      grid-template-columns: 18px 1fr auto;
    }
    .value,
    .why {
      white-space: normal;
      grid-column: 2 / 4;
    }
    .minutes {
      grid-row: 1;
      grid-column: 3;
    }
    .row {
      padding: 0.3rem 0;
    }
  }
</style>
