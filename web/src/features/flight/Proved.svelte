<script lang="ts">
  import { onMount } from 'svelte';
  import DidNotCome from '../../components/DidNotCome.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import Reliability from '../../drawings/flight/Reliability.svelte';
  import { api, type FlightTrials } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';
  import { Board } from './board.svelte';
  import FlightHead from './FlightHead.svelte';

  const trials = new Asked<FlightTrials>();
  const board = new Board().follow();
  const ask = () => trials.ask(api.flightTrials);
  onMount(() => void ask());

  const per = (share: number) => `${Math.round(100 * share)}\u00a0%`;
  const error = (share: number, rigs: number) =>
    Math.max(1, Math.round(100 * Math.sqrt((share * (1 - share)) / rigs)));
  const shown = (share: number | null | undefined, rigs: number) =>
    share == null || rigs === 0 ? '–' : `${Math.round(100 * share)} ± ${error(share, rigs)}\u00a0%`;
  /** Share of the causes named that were so, from every word that names one. */
  function saidRight(found: FlightTrials): number {
    const named = found.words.filter((one) => one.low > 0);
    const times = named.reduce((sum, one) => sum + one.times, 0);
    return named.reduce((sum, one) => sum + one.times * one.came, 0) / times;
  }
  const LIMITS = [
    'Near a match it errs more: a border between causes is a border.',
    'A nock height to 2 mm takes twice the arrows: be content with 3 mm.',
    'Over an evening that drifts, what was shot first misleads what is shot last.',
    'A thumb bow shows half of what others do.',
    'A push far from the cliff proves nothing, whichever way it comes out.',
    'Two false readings at once are not told apart from a true one.',
    'Centre shot, vanes and walk-back are not in the mechanics.',
    'All noise is assumed until your own groups say it, and no real archer was compared.',
  ];
  const stiff = $derived(trials.data?.evenings.find((one) => one.key === 'stiff'));
  const flown = $derived(trials.data?.evenings.filter((one) => one.key !== 'habit') ?? []);
  const farWeak = $derived(flown.reduce((sum, one) => sum + one.far_weak_tuned, 0));
  const farRigs = $derived(flown.reduce((sum, one) => sum + one.rigs, 0));
  const own = $derived(board.data?.proofs ?? []);
</script>

<WhenReady key="flight">
  {#snippet children(_, stage, page)}
    <FlightHead {stage} {page} about="How far to trust a word on the Evidence page." />
    {#if trials.data}
      {@const found = trials.data}
      {@const first = found.ways[0]}
      {#if first}
        <p class="text-[1.35rem] font-bold">
          Of what is said, {shown(saidRight(found), first.rigs)} is so
        </p>
        <p>
          {first.rigs} made-up rigs of four kinds of bow, ordinary archer: it names a cause for {per(
            first.said ?? 0,
          )}. No real archer was compared.
        </p>
      {/if}
      <section class="mt-3" aria-labelledby="words-title">
        <h2 id="words-title">When it says a word, how often it is so</h2>
        <Reliability words={found.words} />
      </section>
      <section class="mt-4" aria-labelledby="evenings-title">
        <h2 id="evenings-title">Whole evenings, flown by the next step of this page</h2>
        <p class="text-soft">
          From the first tail to “keep”, doing what the card says and nothing else.
        </p>
        <div class="overflow-x-auto">
          <table class="rows">
            <thead>
              <tr>
                <th>Who flew</th>
                <th>Came to an end</th>
                <th>Tuned</th>
                <th>of it within a tenth</th>
                <th>All within a tenth</th>
                <th>Arrows</th>
              </tr>
            </thead>
            <tbody>
              {#each found.evenings as one (one.key)}
                <tr>
                  <td>
                    {one.name}, {one.rigs} rigs
                    <span class="block text-sm text-soft">{one.how}</span>
                  </td>
                  <td>{shown(one.ended, one.rigs)}</td>
                  <td>{per(one.tuned)}</td>
                  <td>{shown(one.within, Math.round(one.tuned * one.rigs))}</td>
                  <td>{shown(one.within_all, one.rigs)}</td>
                  <td>{one.arrows}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
        {#if stiff}
          <p class="mt-1">
            Of false weak shafts {shown(stiff.false_weak_tuned, stiff.false_weak)} were brought to tuned.
            Shafts a quarter and more too weak were called tuned {farWeak} times in {farRigs}.
          </p>
        {/if}
      </section>
      <section class="mt-4 overflow-x-auto" aria-labelledby="ways-title">
        <h2 id="ways-title">Beside other ways to judge</h2>
        <table class="rows">
          <thead>
            <tr>
              <th>Way to judge</th>
              <th>Right cause</th>
              <th>False weak found</th>
              <th>Called weak</th>
              <th>Tests</th>
            </tr>
          </thead>
          <tbody>
            {#each found.ways as way, i (way.key)}
              <tr class:font-semibold={i === 0}>
                <td>{way.name}</td>
                <td>{shown(way.right, way.rigs)}</td>
                <td>{shown(way.found, way.false_weak)}</td>
                <td>{shown(way.called_weak, way.false_weak)}</td>
                <td>{way.tests}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </section>
      <div class="mt-4 grid gap-x-8 gap-y-4 lg:grid-cols-2">
        <section aria-labelledby="worse-title">
          <h2 id="worse-title">Where it is worse</h2>
          <ul class="lines">
            {#each LIMITS as limit (limit)}<li>{limit}</li>{/each}
          </ul>
        </section>
        <section aria-labelledby="own-title">
          <h2 id="own-title">On this rig</h2>
          {#if own.length}
            <p class="mt-1">
              {own.filter((one) => one.as_expected).length} of {own.length}
              {own.length === 1 ? 'reading' : 'readings'} since the last change came as expected.
            </p>
          {:else}
            <p class="mt-1 text-soft">
              Nothing yet: after a correction the next reading is said beforehand, and counted here.
            </p>
          {/if}
          <h2 class="mt-4">By kind of bow</h2>
          <ul class="lines">
            {#each found.kinds as kind (kind.name)}
              <li>
                <strong>{kind.name}</strong>: right {shown(kind.right, kind.rigs)}; false weak found {kind.found ==
                null
                  ? '–'
                  : per(kind.found)}
              </li>
            {/each}
          </ul>
        </section>
      </div>
      <details class="mt-4">
        <summary>Worlds that are not as assumed</summary>
        <div class="overflow-x-auto">
          <table class="rows">
            <thead>
              <tr>
                <th>The world is otherwise than assumed</th>
                <th>Right cause</th>
                <th>False weak found</th>
                <th>Said over 90 %</th>
                <th>Came true</th>
              </tr>
            </thead>
            <tbody>
              {#each found.worlds as one (one.name)}
                <tr>
                  <td>{one.name}</td>
                  <td>{shown(one.right, one.rigs)}</td>
                  <td>{one.found == null ? '–' : per(one.found)}</td>
                  <td>{per(one.sure)}</td>
                  <td>{per(one.came)}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      </details>
    {:else if trials.problem}
      <DidNotCome problem={trials.problem} again={ask} />
    {:else}
      <p class="text-soft" aria-busy="true">Fetching what was shot…</p>
    {/if}
  {/snippet}
</WhenReady>

<style>
  .lines li {
    border-bottom: 1px solid var(--line);
    padding: 0.3rem 0;
  }
  summary {
    cursor: pointer;
    padding: 0.4rem 0;
  }
</style>
