<script lang="ts">
  import Fold from '../../components/Fold.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import CauseBars from '../../drawings/flight/CauseBars.svelte';
  import { goTo } from '../../lib/go';
  import { tell } from '../../lib/preferences.svelte';
  import { wanted } from '../../lib/wanted';
  import { Board } from './board.svelte';
  import FlightHead from './FlightHead.svelte';
  import Ledger from './Ledger.svelte';
  import NextTest from './NextTest.svelte';
  import WithBoard from './WithBoard.svelte';

  const board = new Board().follow();
</script>

<WhenReady key="flight">
  {#snippet children(_, stage, page)}
    <FlightHead {stage} {page} said />
    <WithBoard {board}>
      {#snippet children(found)}
        {@const differ = found.suspects.length > 0 || (found.off ?? 0) > 0.5}
        <div {@attach wanted('evidence')} tabindex="-1" class="outline-none">
          <p class="text-[1.35rem] font-bold" class:text-amber={differ}>{tell(found.sentence)}</p>
          {#if found.under}<p>{tell(found.under)}</p>{/if}
          {#if found.differs}
            <p class="text-amber">In doubt since it was kept: {tell(found.differs)}.</p>
          {/if}
        </div>
        {#if found.counted}
          <div class="mt-3 grid gap-x-8 gap-y-4 lg:grid-cols-[3fr_2.4fr]">
            <CauseBars title="The shaft" causes={found.causes} saidFrom={found.said_from} dashed />
            {#if found.nock_causes}
              <CauseBars title="The nock" causes={found.nock_causes} saidFrom={found.said_from} />
            {:else}
              <section aria-labelledby="nock-open">
                <h2 id="nock-open">The nock</h2>
                <p class="mt-1 text-soft">
                  High or low was not looked at yet. Record it with the tail or the bare shafts, and
                  its height is weighed too.
                </p>
              </section>
            {/if}
          </div>
        {/if}
        {#if found.ledger.length > 1}
          <div class="mt-4">
            <Fold name="What each reading says" key="flight.ledger" says="for and against">
              <Ledger board={found} />
            </Fold>
          </div>
        {/if}
        {#if differ}
          <section class="mt-4" aria-labelledby="suspects">
            <h2 id="suspects">What was done between these readings</h2>
            {#if found.suspects.length}
              <ul class="mt-1">
                {#each found.suspects as one, i (i)}
                  <li>{tell(one.says)} <span class="text-soft">{one.why}</span></li>
                {/each}
              </ul>
            {:else}
              <p class="mt-1">
                Nothing is recorded between them. A slipped nocking point, a crept string, another
                release, or a tail that was misread: look, then take the odd reading back or shoot
                it again.
              </p>
            {/if}
          </section>
        {:else}
          <NextTest {board} {found} running={page.trial != null} />
        {/if}
        {#if !found.counted}
          <p class="mt-4">
            <button
              class="act act-strong"
              onclick={() => void goTo({ stage: 'flight', control: 'tail' })}
              >Record what you see</button
            >
          </p>
        {/if}
      {/snippet}
    </WithBoard>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
