<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import { bench } from '../../lib/bench.svelte';
  import { TableImport } from './quiver.svelte';

  let { rig, any }: { rig: string; any: boolean } = $props();

  const EXAMPLE = 'number, mass gr, spine lb\n1, 467, 52\n2, 470, 53';
  const table = new TableImport();

  function paste() {
    setTimeout(() => void table.read());
  }
</script>

<label class="label mt-1 block" for="quiver-paste">
  One arrow a row: number, mass, spine, run-out, nock turn, state, remark. A heading may name the
  columns and their units.
</label>
<textarea
  id="quiver-paste"
  class="field font-mono text-sm"
  rows="4"
  spellcheck="false"
  placeholder={EXAMPLE}
  bind:value={table.text}
  onpaste={paste}
  aria-describedby="quiver-table-says"></textarea>
<div class="mt-2 flex flex-wrap items-center gap-2">
  <button class="act" disabled={!table.text.trim()} onclick={() => void table.read()}
    >Read it</button
  >
  <label class="act file">
    Open a CSV file
    <input
      type="file"
      accept=".csv,.tsv,.txt,text/csv,text/plain"
      onchange={(event) => void table.take(event.currentTarget.files?.[0])}
    />
  </label>
  {#if any}
    <a class="act" href="/api/rigs/{encodeURIComponent(rig)}/quiver.csv" download>Save as CSV</a>
  {/if}
</div>
<div id="quiver-table-says" class="mt-2" aria-live="polite">
  {#if table.problem}
    <ProblemNote problem={table.problem} id="problem-quiver-table" />
  {:else if table.done}
    <p class="text-green">{table.done}</p>
  {:else if table.table}
    {@const read = table.table}
    {#if read.bad.length}
      <table class="rows">
        <thead>
          <tr><th>Line</th><th>Column</th><th>What is wrong</th><th>What to do</th></tr>
        </thead>
        <tbody>
          {#each read.bad as bad (bad.row)}
            <tr>
              <td class="font-semibold">{bad.row}</td>
              <td class="whitespace-nowrap">{bad.column ?? '–'}</td>
              <td class="text-red">{bad.reason}</td>
              <td>{bad.instruction}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    <p class="mt-2 flex flex-wrap items-center gap-3">
      {#if read.arrows.length}
        <button
          class="act"
          class:act-strong={!read.bad.length}
          disabled={bench.busy}
          onclick={() => void table.record()}
        >
          {read.bad.length
            ? `Record only the ${read.arrows.length} good`
            : `Record ${read.arrows.length}`}
          {read.arrows.length === 1 ? 'arrow' : 'arrows'}
        </button>
      {/if}
      <span class="text-sm text-soft">
        {read.bad.length
          ? 'Nothing is recorded yet. Mend the lines above and read it again, or keep the good ones.'
          : 'Nothing is recorded yet.'}
      </span>
    </p>
  {/if}
</div>

<style>
  .file input {
    position: absolute;
    width: 1px;
    height: 1px;
    opacity: 0;
  }
  .file {
    position: relative;
    cursor: pointer;
  }
  .file:focus-within {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
</style>
