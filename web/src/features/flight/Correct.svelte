<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import ExpectedTail from '../../drawings/flight/ExpectedTail.svelte';
  import MatchBands from '../../drawings/flight/MatchBands.svelte';
  import type { FlightBoard } from '../../lib/api';
  import { tell } from '../../lib/preferences.svelte';
  import { wanted } from '../../lib/wanted';
  import { Board } from './board.svelte';
  import FlightHead from './FlightHead.svelte';
  import Levers from './Levers.svelte';
  import TrialBar from './TrialBar.svelte';
  import WithBoard from './WithBoard.svelte';

  const board = new Board().follow();

  function keep({ keeps }: NonNullable<FlightBoard['match']>) {
    void board.say(keeps.reading, 'Tuning kept');
  }
</script>

<WhenReady key="flight">
  {#snippet children(_, stage, page)}
    <FlightHead {stage} {page} />
    <TrialBar {page} />
    <WithBoard {board}>
      {#snippet children(found)}
        <div {@attach wanted('correct')} tabindex="-1" class="outline-none">
          <p class="text-[1.35rem] font-bold">{tell(found.sentence)}</p>
          {#if found.tuned}
            {#if found.under}<p>{tell(found.under)}</p>{/if}
          {:else if found.near && !found.correction?.levers.some((one) => one.first)}
            <p>{tell(found.near)} No test left today tells enough for its trouble.</p>
          {:else if found.correction}
            <p>{tell(found.correction.sentence)}</p>
          {:else if found.counted}
            <p>Nothing is corrected before it is known what it is: the next test says more.</p>
          {:else}
            <p>Record what you see first: a correction follows from it.</p>
          {/if}
        </div>
        {#if found.correction}
          <div class="mt-4">
            <Levers {board} correction={found.correction} running={page.trial != null} />
          </div>
          {#if found.correction.expected}
            {@const next = found.correction.expected}
            <section class="mt-5 max-w-xl" aria-labelledby="expects">
              <h2 id="expects">With the first of them, the tail at 2.3 m should stand</h2>
              <div class="mt-2"><ExpectedTail tail={next.tail} axis={next.axis} /></div>
              <p class="mt-1">
                {#if next.bare}The {tell(next.bare)}.{/if}
                {#if next.unexpected.length}<span class="text-soft"
                    >Anything {next.unexpected.join(' or ')} would mean something else.</span
                  >{/if}
              </p>
            </section>
          {/if}
        {/if}
        {#if found.expected_now}
          <section class="mt-5 max-w-xl" aria-labelledby="expects-now">
            <h2 id="expects-now">Changed, and not shot yet. The tail at 2.3 m should stand</h2>
            <div class="mt-2">
              <ExpectedTail tail={found.expected_now.tail} axis={found.expected_now.axis} />
            </div>
            {#if found.expected_now.bare}
              <p class="mt-1">The {tell(found.expected_now.bare)}.</p>
            {/if}
          </section>
        {/if}
        {#if found.proofs.length}
          <section class="mt-5" aria-labelledby="proofs">
            <h2 id="proofs">Since the change: said before, and what came</h2>
            <ul class="mt-1">
              {#each found.proofs as proof, i (i)}
                <li class="proof">
                  <span class="dot" class:odd={!proof.as_expected} aria-hidden="true"></span>
                  <span>
                    {tell(proof.says)}.
                    <span class="text-soft">Expected: {tell(proof.expected)}.</span>
                    {#if !proof.as_expected}
                      <span class="text-amber">Not as expected: shoot it once more.</span>
                    {/if}
                  </span>
                </li>
              {/each}
            </ul>
          </section>
        {/if}
        <div {@attach wanted('after')} tabindex="-1" class="outline-none">
          {#if found.match && (found.tuned || found.near || found.match.kept)}
            {@const match = found.match}
            <section class="mt-5" aria-labelledby="match-title">
              <h2 id="match-title">The spine this rig wants</h2>
              <MatchBands {match} />
              <p>{tell(match.says)}</p>
              <div class="mt-2 flex flex-wrap gap-3">
                {#if !match.kept}
                  <button
                    class="act act-strong"
                    disabled={board.saying.busy}
                    onclick={() => keep(match)}
                    >{found.tuned ? 'Keep this tuning' : 'Keep it so'}</button
                  >
                {:else}
                  <span class="text-soft">Kept: it stands for other arrows of this bow too.</span>
                {/if}
                {#if page.source === 'flight'}
                  <button
                    class="quiet"
                    disabled={board.saying.busy}
                    onclick={() =>
                      void board.say({ kind: 'match_source', source: 'model' }, 'The model alone')}
                    >use the schools alone</button
                  >
                {:else}
                  <button
                    class="act"
                    disabled={board.saying.busy}
                    onclick={() =>
                      void board.say(
                        { kind: 'match_source', source: 'flight' },
                        'What the flight says',
                      )}>Use what the flight says</button
                  >
                {/if}
              </div>
            </section>
          {/if}
        </div>
      {/snippet}
    </WithBoard>
    <Cautions {stage} />
  {/snippet}
</WhenReady>

<style>
  .proof {
    display: flex;
    gap: 0.6rem;
    align-items: baseline;
    border-bottom: 1px solid var(--line);
    padding: 0.3rem 0;
  }
  .dot {
    flex: none;
    width: 0.7rem;
    height: 0.7rem;
    border-radius: 50%;
    background: var(--ink);
  }
  .odd {
    border-radius: 0;
    transform: rotate(45deg);
    background: var(--amber);
  }
</style>
