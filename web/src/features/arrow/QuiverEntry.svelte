<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { QuiverRow } from '../../lib/api';
  import { bench } from '../../lib/bench.svelte';
  import { wanted } from '../../lib/wanted';
  import { RowEntry, type Column } from './quiver.svelte';

  let { rows }: { rows: QuiverRow[] } = $props();

  const FIELDS: [Column, string, string][] = [
    ['mass', 'Finished mass', '431gr'],
    ['spine', 'Spine', '52lb'],
    ['straight', 'Run-out', '0.2mm'],
    ['turn', 'Nock turn', '180'],
    ['remark', 'Remark', 'dark grain'],
  ];
  const entry = new RowEntry();
  const next = $derived(Math.max(0, ...rows.map((row) => row.number)) + 1);
  let first = $state<HTMLInputElement>();

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    if (entry.empty) {
      first?.focus();
      return;
    }
    if (await entry.record(next)) first?.focus();
    else document.getElementById(`quiver-${entry.at ?? 'mass'}`)?.focus();
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
      placeholder={`${next}`}
      bind:value={entry.cells.number}
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
          placeholder={example}
          bind:this={first}
          bind:value={entry.cells[column]}
          aria-invalid={entry.at === column ? 'true' : undefined}
          aria-describedby={entry.at === column ? 'problem-quiver' : undefined}
        />
      {:else}
        <input
          id="quiver-{column}"
          class="field"
          autocomplete="off"
          placeholder={example}
          bind:value={entry.cells[column]}
          aria-invalid={entry.at === column ? 'true' : undefined}
          aria-describedby={entry.at === column ? 'problem-quiver' : undefined}
        />
      {/if}
    </div>
  {/each}
  <button class="act" class:act-strong={!entry.empty} disabled={bench.busy}>Record</button>
</form>
<div class="min-h-5">
  {#if entry.problem}
    <ProblemNote problem={entry.problem} id="problem-quiver" />
  {:else}
    <span class="text-sm text-soft">
      Enter records the row and starts the next. Leave empty what you do not know.
    </span>
  {/if}
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
