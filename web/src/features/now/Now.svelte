<script lang="ts">
  import DidNotCome from '../../components/DidNotCome.svelte';
  import { goTo } from '../../lib/go';
  import { openRig } from '../../lib/openrig.svelte';
  import { tell } from '../../lib/preferences.svelte';
  import EveningLine from './EveningLine.svelte';
  import { KnownOfRig } from './known.svelte';
  import NumberRow from './NumberRow.svelte';

  const known = new KnownOfRig().follow();
  const data = $derived(known.data);
  /** Once all is done there is no first evening any more. */
  const evening = $derived(data?.evening.some((step) => step.state !== 'done') ?? false);
</script>

<header class="mb-2">
  <h1>What we know now</h1>
  <p class="text-soft">Blue is how sure; the tick is a limit that blue must not touch.</p>
</header>
{#if known.problem}<DidNotCome problem={known.problem} again={known.load} />{/if}
{#if data}
  <div class="two">
    <ul class="numbers" aria-label="Six numbers">
      {#each data.numbers as row (row.key)}<NumberRow {row} rig={openRig.rig ?? ''} />{/each}
    </ul>
    {#if data.measurements.length}
      <section class="sharpen" aria-labelledby="sharpen">
        <h2 id="sharpen">What would sharpen it most</h2>
        <ol>
          {#each data.measurements as one, index (one.title.template)}
            <li>
              <span class="number" aria-hidden="true">{index + 1}</span>
              <div class="min-w-0">
                <button class="title" onclick={() => goTo(one.action)}>{tell(one.title)}</button>
                <p class="text-sm text-soft">{one.minutes} min</p>
                <p class="text-sm text-green">{tell(one.gains)}</p>
              </div>
            </li>
          {/each}
        </ol>
        <p class="mt-2 text-sm text-soft">Dashed green: how sure it would be then.</p>
      </section>
    {/if}
  </div>
  {#if evening}
    <div class="mt-5"><EveningLine evening={data.evening} minutes={data.minutes} /></div>
  {/if}
{:else if !known.problem}
  <p class="text-soft" aria-busy="true">Adding it up…</p>
{/if}

<style>
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 210px;
    gap: 1.2rem;
  }
  .two:not(:has(.sharpen)) {
    grid-template-columns: minmax(0, 1fr);
  }
  .sharpen {
    border-left: 1px solid var(--line);
    padding-left: 1rem;
  }
  li:not(:last-child) {
    border-bottom: 1px solid var(--line);
  }
  .sharpen li {
    display: grid;
    grid-template-columns: 1.9rem 1fr;
    padding-block: 0.6rem;
  }
  .number {
    display: grid;
    place-items: center;
    width: 1.5rem;
    height: 1.5rem;
    border: 1.5px solid var(--green);
    border-radius: 50%;
    color: var(--green);
    font-size: 0.87rem;
  }
  .title {
    font-weight: 600;
    line-height: 1.25;
    text-align: left;
  }
  .title:hover {
    text-decoration: underline;
  }
  @media (max-width: 767px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
    .sharpen {
      border-left: 0;
      padding-left: 0;
    }
    .title {
      min-height: 44px;
    }
  }
</style>
