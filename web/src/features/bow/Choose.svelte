<script lang="ts">
  import Fold from '../../components/Fold.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import type { PageOf } from '../../lib/api';
  import { wanted } from '../../lib/wanted';
  import BoardTable from './BoardTable.svelte';
  import BowHead from './BowHead.svelte';
  import { Choosing } from './choose.svelte';
  import Combinations from './Combinations.svelte';
  import Schools from './Schools.svelte';
  import TryFields from './TryFields.svelte';

  const choosing = new Choosing().follow();

  function ownLength(page: PageOf<'bow'>, family: string): number | null {
    const bow = page.bench;
    const told = !bow.assumed.includes('family') && !bow.assumed.includes('length');
    return told && bow.family === family ? bow.bow_length_mm : null;
  }
</script>

<WhenReady key="bow">
  {#snippet children(assessment, stage, page)}
    <BowHead {stage} />
    <div {@attach wanted('board')} tabindex="-1">
      <TryFields {choosing} rig={assessment.name ?? null} />
      {#if choosing.problem}<ProblemNote problem={choosing.problem} id="problem-board" />{/if}
    </div>
    {#if choosing.data && choosing.shown}
      {@const board = choosing.data}
      {@const shown = choosing.shown}
      <div role="group" aria-label="Kind of bow" class="kinds">
        {#each board.families as family (family.family)}
          <button aria-pressed={shown === family} onclick={() => (choosing.family = family.family)}>
            {family.words}
          </button>
        {/each}
      </div>
      <BoardTable {board} family={shown} own={ownLength(page, shown.family)} />
      <div class="mt-4">
        <Fold name="The schools, side by side" key="choose.schools"><Schools family={shown} /></Fold
        >
        {#if shown.combinations.length}
          <Fold name="Risers and limbs" key="choose.combinations"
            ><Combinations family={shown} /></Fold
          >
        {/if}
      </div>
      <p class="mt-4 text-sm text-soft">
        Figures are for typical bows of the kind, weighed to hold what you wish at your hook. The
        maker's own limit always wins.
        <a class="underline" href="/rules#choosing-schools">How each school reckons</a>
      </p>
    {:else if !choosing.problem}
      <p class="mt-4 text-soft" aria-busy="true">Computing bows…</p>
    {/if}
    <Cautions {stage} />
  {/snippet}
</WhenReady>

<style>
  .kinds {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    margin-top: 0.9rem;
  }
  .kinds button {
    min-height: 2.25rem;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 0.2rem 0.75rem;
  }
  .kinds button[aria-pressed='true'] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--on-ink);
    font-weight: 600;
  }
</style>
