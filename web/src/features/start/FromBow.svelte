<script lang="ts">
  import TextField from '../../components/TextField.svelte';
  import DidNotCome from '../../components/DidNotCome.svelte';
  import Plain from '../../components/Plain.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import { goToPath } from '../../lib/navigation';
  import { placePath } from '../../lib/paths';
  import { FromBow } from './from-bow.svelte';

  const making = new FromBow(new URLSearchParams(location.search).get('bow'));
  document.title = 'New rig from a bow · Lyrandis';

  async function make(alike = false) {
    const rig = await making.make(alike);
    if (rig) await goToPath(placePath(rig, 'archer'));
  }

  function submit(event: SubmitEvent) {
    event.preventDefault();
    void make();
  }
</script>

<Plain>
  <h1>Who shoots which bow?</h1>
  <p class="mt-1 text-soft">
    A rig from a bow that is on the bench already: its readings and its string come along.
  </p>
  {#if making.problem}
    <DidNotCome problem={making.problem} again={making.load} />
  {:else if making.data && !making.bows.length}
    <p class="mt-4">No bow is on the bench yet. <a class="underline" href="/new">Begin anew</a>.</p>
  {:else if making.data}
    <form class="mt-4 max-w-xl" onsubmit={submit}>
      <div class="grid gap-4 sm:grid-cols-2">
        <div>
          <label class="label block" for="from-bow">Bow</label>
          <select id="from-bow" class="field" bind:value={making.answers.bow}>
            {#each making.bows as bow (bow.id)}<option value={bow.id}>{bow.name}</option>{/each}
          </select>
        </div>
        <TextField
          id="from-archer"
          label="Archer"
          list="archers"
          maxlength={60}
          bind:value={making.answers.archer}
          aria-describedby="from-archer-says"
        >
          <datalist id="archers">
            {#each making.archers as archer (archer.id)}<option value={archer.name}></option>{/each}
          </datalist>
          <p id="from-archer-says" class="mt-1 text-sm text-soft" aria-live="polite">
            {making.says}
          </p>
        </TextField>
      </div>
      {#if making.bow?.looked_over && making.bow.looked_over.found !== 'sound'}
        <p class="mt-3">Look the bow over before it is shot: it is the first thing asked for.</p>
      {/if}
      {#if making.made.problem}
        <ProblemNote
          problem={making.made.problem}
          id="problem-from-bow"
          insist={() => make(true)}
        />
      {/if}
      <button
        class="act act-strong mt-5"
        disabled={making.made.busy || !making.bow || !making.answers.archer.trim()}
      >
        Make the rig
      </button>
    </form>
  {:else}
    <p class="mt-4 text-soft" aria-busy="true">Looking through the parts…</p>
  {/if}
</Plain>
