<script lang="ts">
  import { eg } from '../../lib/examples';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import Unsent from '../../components/Unsent.svelte';
  import { recorder } from '../../lib/recorder.svelte';
  import { wanted } from '../../lib/wanted';
  import { RowEntry, type Column } from './quiver.svelte';

  const FIELDS: [Column, string, string][] = [
    ['mass', 'Finished mass', '{431gr}'],
    ['spine', 'Spine', '52lb'],
    ['straight', 'Run-out', '0.2mm'],
    ['turn', 'Nock turn', '180'],
    ['remark', 'Remark', 'dark grain'],
  ];
  const entry = new RowEntry();
  let first = $state<HTMLInputElement>();

  function submit(event: SubmitEvent) {
    event.preventDefault();
    if (entry.blank || entry.record()) first?.focus();
  }
</script>

<form onsubmit={submit} class="row" {@attach wanted('quiver')} tabindex="-1">
  <div class="number">
    <label class="label block" for="quiver-number">No.</label>
    <input
      id="quiver-number"
      class="field"
      inputmode="numeric"
      autocomplete="off"
      placeholder={`${recorder.nextArrow}`}
      value={entry.fields.number}
      oninput={(event) => entry.set({ number: event.currentTarget.value })}
      aria-invalid={entry.at === 'number' ? 'true' : undefined}
      aria-describedby={entry.at === 'number' ? 'problem-quiver' : undefined}
    />
  </div>
  {#each FIELDS as [column, label, example], index (column)}
    <div class="min-w-0">
      <label class="label block" for="quiver-{column}">{label}</label>
      {#if index === 0}
        <input
          id="quiver-{column}"
          class="field"
          autocomplete="off"
          placeholder={eg(example)}
          bind:this={first}
          value={entry.fields[column]}
          oninput={(event) => entry.set({ [column]: event.currentTarget.value })}
          aria-invalid={entry.at === column ? 'true' : undefined}
          aria-describedby={entry.at === column ? 'problem-quiver' : undefined}
        />
      {:else}
        <input
          id="quiver-{column}"
          class="field"
          autocomplete="off"
          placeholder={eg(example)}
          value={entry.fields[column]}
          oninput={(event) => entry.set({ [column]: event.currentTarget.value })}
          aria-invalid={entry.at === column ? 'true' : undefined}
          aria-describedby={entry.at === column ? 'problem-quiver' : undefined}
        />
      {/if}
    </div>
  {/each}
  <button class="act" class:act-strong={!entry.blank}>Record</button>
</form>
<div class="min-h-5">
  {#if entry.problem}
    <ProblemNote problem={entry.problem} id="problem-quiver" />
  {:else if !entry.waiting.length}
    <span class="text-sm text-soft">
      Enter records the row and starts the next. Leave empty what you do not know.
    </span>
  {/if}
  <Unsent typing={entry} />
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 4rem repeat(4, minmax(0, 1fr)) minmax(0, 1.6fr) auto;
    align-items: end;
    gap: 0.5rem;
    margin-top: 0.3rem;
  }
  @media (max-width: 767px) {
    .row {
      grid-template-columns: repeat(3, minmax(0, 1fr));
    }
    .row button {
      grid-column: 1 / -1;
      justify-content: center;
    }
  }
</style>
