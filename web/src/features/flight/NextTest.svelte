<script lang="ts">
  import type { FlightBoard, FlightTest } from '../../lib/api';
  import { goTo } from '../../lib/go';
  import { tell } from '../../lib/preferences.svelte';
  import { wanted } from '../../lib/wanted';
  import type { Board } from './board.svelte';

  let { board, found, running }: { board: Board; found: FlightBoard; running: boolean } = $props();

  const per = (chance: number) => `${Math.round(100 * chance)}\u00a0%`;

  const CONTROLS = { tail: 'tail', bare: 'hits', mark: 'signs', slap: 'signs' } as const;
  async function shoot(test: FlightTest) {
    if (test.trial && !(await board.begin(test.trial, tell(test.title)))) return;
    const control = test.trial ? 'tail' : CONTROLS[test.sees];
    await goTo({ stage: 'flight', control });
  }
</script>

{#snippet instead(word: string, tests: FlightTest[])}
  {#if tests.length}
    <p class="mt-2 flex flex-wrap gap-x-3 gap-y-1 text-soft">
      <span>{word}</span>
      {#each tests as other (other.key)}
        <span>
          <button class="quiet text-ink" disabled={running} onclick={() => void shoot(other)}
            >{tell(other.title)}</button
          >, {other.minutes} min
        </span>
      {/each}
    </p>
  {/if}
{/snippet}

{#if found.near}
  <section class="mt-4" aria-labelledby="near-title">
    <h2 id="near-title">As near as this bow can be told today</h2>
    <p class="mt-1">{tell(found.near)} No test left tells enough for its trouble.</p>
  </section>
{:else if found.next && !found.enough}
  {@const next = found.next}
  <section aria-labelledby="next-test" class="mt-4">
    <div class="flex flex-wrap items-baseline justify-between gap-3">
      <h2 id="next-test">{tell(next.title)}: what it would mean</h2>
      {#if next.trial && !running}
        <button
          {@attach wanted('begin')}
          class="act act-strong"
          disabled={board.saying.busy}
          onclick={() => void shoot(next)}>Begin this trial</button
        >
      {/if}
    </div>
    <div class="overflow-x-auto">
      <table class="rows">
        <thead>
          <tr>
            <th
              >{next.sees === 'bare'
                ? 'Bare shafts strike'
                : next.sees === 'tail'
                  ? 'The tail points'
                  : 'You find'}</th
            >
            <th>Chance</th>
            <th>Then it is</th>
          </tr>
        </thead>
        <tbody>
          {#each found.outcomes as one, i (i)}
            <tr>
              <td>{tell(one.what)}</td>
              <td>{per(one.chance)}</td>
              <td>
                <span class:font-semibold={one.enough}>{one.cause}</span>, {per(
                  one.sure,
                )}{one.enough ? ': that is enough' : ''}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {@render instead('Instead:', found.others)}
  </section>
{:else if found.correction}
  <section class="mt-4" aria-labelledby="put-right">
    <h2 id="put-right">Enough is known</h2>
    <p class="mt-1">
      {tell(found.correction.sentence)}
      <button
        class="quiet text-ink"
        onclick={() => void goTo({ stage: 'flight', control: 'correct' })}
        >See the correction</button
      >
    </p>
    {@render instead('Or prove it first:', found.next ? [found.next, ...found.others] : [])}
  </section>
{/if}
