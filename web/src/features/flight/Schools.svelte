<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { Board } from './board.svelte';
  import FlightHead from './FlightHead.svelte';
  import WithBoard from './WithBoard.svelte';

  const board = new Board().follow();
  const readings = (count: number) =>
    count === 0 ? 'none yet' : count === 1 ? '1 reading' : `${count} readings`;
</script>

<WhenReady key="flight">
  {#snippet children(_, stage, page)}
    <FlightHead
      {stage}
      {page}
      about="Four ways to read flight, and one to leave out. All feed one belief."
    />
    <WithBoard {board}>
      {#snippet children(found)}
        {@const most = Math.max(0.05, ...found.schools.map((one) => one.bits ?? 0))}
        <div class="grid gap-x-8 lg:grid-cols-2">
          {#each found.schools as school (school.key)}
            <section class="school" aria-labelledby="school-{school.key}">
              <div class="flex items-baseline justify-between gap-3">
                <h2 id="school-{school.key}" class="!text-base !text-ink">{school.name}</h2>
                <span class="text-sm text-soft">{readings(school.readings)}</span>
              </div>
              <p class="text-soft">{school.holds}</p>
              <dl>
                <dt>Can</dt>
                <dd>{school.can}</dd>
                <dt>Cannot</dt>
                <dd>{school.cannot}</dd>
                <dt>Here, now</dt>
                <dd>
                  {#if school.bits == null}
                    counts for nothing
                  {:else}
                    <span class="tells" aria-hidden="true"
                      ><span style:width="{(100 * school.bits) / most}%"></span></span
                    >
                    {school.bits < 0.02
                      ? 'hardly anything'
                      : `${school.bits.toFixed(2)} bit of the cause`}
                    {#if school.ours}<strong>preferred here: it tells most</strong>{/if}
                  {/if}
                </dd>
              </dl>
            </section>
          {/each}
        </div>
      {/snippet}
    </WithBoard>
    <Cautions {stage} />
  {/snippet}
</WhenReady>

<style>
  .school {
    border-bottom: 1px solid var(--line);
    padding: 0.75rem 0;
  }
  dl {
    display: grid;
    grid-template-columns: 5.2rem 1fr;
    gap: 0.25rem 0.5rem;
    margin-top: 0.4rem;
  }
  dt {
    color: var(--soft);
    font-size: 0.87rem;
    padding-top: 0.1rem;
  }
  .tells {
    display: inline-block;
    width: 5rem;
    height: 0.6rem;
    border-left: 1px solid var(--ink);
    background: var(--faint);
  }
  .tells > span {
    display: block;
    height: 100%;
    background: var(--ink);
  }
</style>
