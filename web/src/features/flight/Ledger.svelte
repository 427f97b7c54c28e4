<script lang="ts">
  import TakeBack from '../../components/TakeBack.svelte';
  import type { FlightBoard } from '../../lib/api';
  import { dayOf, sayDay, sayTime } from '../../lib/days';
  import { tell } from '../../lib/preferences.svelte';

  let { board }: { board: FlightBoard } = $props();

  const MOST = 3;
  const NEWEST = 5;
  let all = $state(false);
  const rows = $derived.by(() => {
    const [model, ...rest] = board.ledger;
    const shown = all ? rest : rest.slice(-NEWEST);
    return { model, shown, more: rest.length - shown.length };
  });
  /** When it was: the time of day, with the day where another begins. */
  function when(one: FlightBoard['ledger'][number]): string {
    const at = one.at;
    if (!at) return '';
    const before = board.ledger[board.ledger.indexOf(one) - 1]?.at;
    const day = before && dayOf(before) === dayOf(at) ? '' : `${sayDay(at)}, `;
    return `${day}${sayTime(at)}`;
  }
  const names = $derived(board.causes.map((cause) => cause.name));
  const off = $derived(board.off ?? null);

  /** Said for those who do not see the bars. */
  function pulls(row: FlightBoard['ledger'][number]): string {
    return row.pulls
      .map((pull, i) => {
        if (Math.abs(pull) < 0.1) return `${names[i]}: neither`;
        return `${names[i]}: ${pull > 0 ? 'for' : 'against'}, ${Math.exp(Math.abs(pull)).toFixed(1)} times`;
      })
      .join('; ');
  }
</script>

{#snippet row(one: FlightBoard['ledger'][number], model: boolean)}
  <tr class:aside={!one.counted}>
    <th scope="row" class:text-amber={one.odd}>
      {#if one.at}<span class="text-sm text-soft">{when(one)}</span>{/if}
      <span class:font-semibold={!one.changed && one.counted}>{tell(one.says)}</span>
      {#if one.odd}<span class="text-sm">nobody expected it</span>{/if}
      {#if one.beside}<span class="text-sm text-soft">{one.beside}</span>{/if}
    </th>
    {#if one.counted}
      {#each one.pulls as pull, i (i)}
        {@const size = Math.min(Math.abs(pull) / MOST, 1) * 50}
        <td class="pull" aria-hidden="true">
          <span class="mid"></span>
          {#if Math.abs(pull) >= 0.05}
            <span
              class={pull > 0 ? 'for' : 'against'}
              style:width="{size}%"
              style:left={pull > 0 ? '50%' : undefined}
              style:right={pull > 0 ? undefined : '50%'}
            ></span>
          {/if}
        </td>
      {/each}
    {:else}
      <td colspan={names.length} class="text-sm text-soft">counts for nothing</td>
    {/if}
    <td class="text-right">
      {#if one.counted}<span class="sr-only">{pulls(one)}</span>{/if}
      {#if model}
        <span class="text-sm text-soft">both schools</span>
      {:else if one.entry_id}
        <TakeBack entry={one.entry_id} what={tell(one.says)} />
      {/if}
    </td>
  </tr>
{/snippet}

<section aria-labelledby="ledger" class="mt-3">
  <div class="flex flex-wrap items-baseline justify-between gap-x-3">
    <h2 id="ledger">The evening, row by row</h2>
    <span class="text-sm text-soft">filled speaks for, open against</span>
  </div>
  <div class="overflow-x-auto">
    <table class="rows ledger">
      <thead>
        <tr>
          <th><span class="sr-only">Reading</span></th>
          {#each names as name (name)}<th class="cause">{name}</th>{/each}
          <th><span class="sr-only">Take back</span></th>
        </tr>
      </thead>
      <tbody>
        {#if rows.model}{@render row(rows.model, true)}{/if}
        {#if rows.more}
          <tr>
            <td colspan={names.length + 2}>
              <button class="quiet text-sm" onclick={() => (all = true)}>{rows.more} more</button>
            </td>
          </tr>
        {/if}
        {#each rows.shown as one, i (i)}{@render row(one, false)}{/each}
      </tbody>
    </table>
  </div>
  {#if off !== null && board.off_says}
    <div class="agree">
      <span class="gauge" aria-hidden="true">
        <span class:much={off > 0.5} style:width="{100 * off}%"></span>
      </span>
      <span class:text-amber={off > 0.5}>{tell(board.off_says)}</span>
    </div>
  {/if}
</section>

<style>
  .ledger th:first-child {
    color: var(--ink);
    font-size: 1rem;
    min-width: 12rem;
  }
  .cause {
    text-align: center;
    width: 5.4rem;
    white-space: nowrap;
  }
  .pull {
    position: relative;
    min-width: 3.4rem;
  }
  .mid {
    position: absolute;
    left: 50%;
    top: 0.35rem;
    bottom: 0.35rem;
    border-left: 1px solid var(--line);
  }
  .for,
  .against {
    position: absolute;
    top: 50%;
    height: 0.7rem;
    margin-top: -0.35rem;
    border: 1px solid var(--ink);
  }
  .for {
    background: var(--ink);
  }
  .aside th {
    color: var(--soft) !important;
  }
  .agree {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding-top: 0.5rem;
  }
  .gauge {
    position: relative;
    flex: none;
    width: 9rem;
    height: 0.6rem;
    border: 1px solid var(--line);
  }
  .gauge > span {
    position: absolute;
    left: 0;
    top: 0;
    bottom: 0;
    background: var(--soft);
  }
  .gauge > .much {
    background: var(--amber);
  }
  .gauge::after {
    content: '';
    position: absolute;
    left: 50%;
    top: -0.25rem;
    bottom: -0.25rem;
    border-left: 2px solid var(--ink);
  }
  @media (max-width: 767px) {
    .ledger :is(th, td) {
      padding-right: 0.3rem;
    }
    .cause {
      font-size: 0.72rem !important;
      width: 2.6rem;
      white-space: normal;
    }
    .pull {
      min-width: 1.6rem;
    }
    .ledger th:first-child {
      min-width: 6rem;
    }
    .gauge {
      width: 5rem;
    }
  }
</style>
