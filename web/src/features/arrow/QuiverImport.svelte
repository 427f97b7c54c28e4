<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { ColumnAs, QuiverTable } from '../../lib/api';
  import { TableImport } from './quiver.svelte';

  let { rig, any }: { rig: string; any: boolean } = $props();

  const EXAMPLE = 'number, mass gr, spine lb\n1, 467, 52\n2, 470, 53';
  const table = new TableImport();

  const NAMES = [
    ['', 'left aside'],
    ['number', 'number'],
    ['mass', 'finished mass'],
    ['spine', 'spine'],
    ['straight', 'run-out'],
    ['turn', 'nock turn'],
    ['state', 'state'],
    ['remark', 'remark'],
    ['quill', 'quill ends'],
  ] as const satisfies readonly (readonly [ColumnAs['name'] | '', string])[];
  const UNITS: Record<string, string> = {
    gr: 'grains',
    g: 'grams',
    oz: 'ounces',
    lb: 'lb, wood scale',
    in: 'inches',
  };

  const aside = (read: QuiverTable) =>
    read.columns.filter((column) => !column.name && column.cells.length);

  function map(index: number, name: string) {
    const chosen = NAMES.find(([one]) => one === name)?.[0];
    table.map(index, { name: chosen || null, unit: null });
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
  value={table.text}
  oninput={(event) => table.type(event.currentTarget.value)}
  aria-describedby="quiver-table-says"></textarea>
<div class="mt-2 flex flex-wrap items-center gap-2">
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
  {#if table.read.problem}
    <ProblemNote problem={table.read.problem} id="problem-quiver-table" />
  {:else if table.done}
    <p class="text-green">{table.done}</p>
  {:else if table.table}
    {@const read = table.table}
    <table class="rows columns">
      <thead>
        <tr><th>Column</th><th>First in it</th><th>Holds</th><th>Unit</th></tr>
      </thead>
      <tbody>
        {#each read.columns as column, index (index)}
          <tr>
            <td class="font-semibold">{column.head || `${index + 1}`}</td>
            <td class="text-soft">{column.cells.join(', ') || '–'}</td>
            <td>
              <select
                class="field"
                aria-label="Column {column.head || index + 1} holds"
                value={column.name ?? ''}
                onchange={(event) => map(index, event.currentTarget.value)}
              >
                {#each NAMES as [name, words] (name)}<option value={name}>{words}</option>{/each}
              </select>
            </td>
            <td>
              {#if column.units.length}
                <select
                  class="field"
                  aria-label="Unit of {column.head || column.name}"
                  aria-invalid={column.unit_wanted ? 'true' : undefined}
                  value={column.unit ?? ''}
                  onchange={(event) =>
                    table.map(index, { unit: event.currentTarget.value || null })}
                >
                  <option value="">{column.unit_wanted ? 'which?' : 'as written'}</option>
                  {#each column.units as unit (unit)}
                    <option value={unit}>{UNITS[unit] ?? unit}</option>
                  {/each}
                  {#if column.unit && !column.units.includes(column.unit)}
                    <option value={column.unit}>{column.unit}</option>
                  {/if}
                </select>
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if aside(read).length || read.titles.length}
      <p class="mt-2 text-sm">
        Left aside, not recorded:
        {[
          ...aside(read).map((column) => column.head || column.cells[0]),
          ...read.titles.map((title) => `the line “${title}”`),
        ].join(', ')}.
      </p>
    {/if}
    {#if read.bad.length}
      <table class="rows mt-2">
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
    {#if read.unanswered}
      <p class="mt-2 font-semibold text-amber">{read.unanswered}</p>
    {:else}
      <p class="mt-2 flex flex-wrap items-center gap-3">
        {#if read.arrows.length}
          <button
            class="act"
            class:act-strong={!read.bad.length}
            disabled={table.recording.busy || table.read.busy}
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
            ? 'Nothing is recorded yet. Mend the lines above, or keep the good ones.'
            : 'Nothing is recorded yet.'}
        </span>
      </p>
    {/if}
  {/if}
  {#if table.recording.problem}
    <ProblemNote problem={table.recording.problem} id="problem-quiver-recording" />
  {/if}
</div>

<style>
  .columns td {
    vertical-align: middle;
  }
  .columns select {
    min-height: 1.9rem;
    padding-block: 0.1rem;
  }
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
