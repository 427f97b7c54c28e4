<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import DidNotCome from '../../components/DidNotCome.svelte';
  import Unsent from '../../components/Unsent.svelte';
  import type { Entry, History } from '../../lib/api';
  import { AskedOfRig } from '../../lib/asked.svelte';
  import { inWords } from '../../lib/days';
  import { recorder } from '../../lib/recorder.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { tell } from '../../lib/preferences.svelte';
  import { historyOf } from './history';
  import { Note } from './note.svelte';

  const asked = new AskedOfRig<History>(historyOf).follow();
  const note = new Note();
  const history = $derived(asked.data);

  const shown = $derived(
    [...(history?.entries ?? [])]
      .filter((entry) => entry.reading.kind !== 'retraction')
      .sort((a, b) =>
        a.happened_at < b.happened_at ? 1 : a.happened_at > b.happened_at ? -1 : b.seq - a.seq,
      ),
  );
  const days = $derived.by(() => {
    const groups: { day: string; entries: Entry[] }[] = [];
    for (const entry of shown) {
      const day = inWords(entry.happened_at);
      const last = groups.at(-1);
      if (last?.day === day) last.entries.push(entry);
      else groups.push({ day, entries: [entry] });
    }
    return groups;
  });
  const file = $derived(history ? JSON.stringify(history, null, 2) : '');

  function words(entry: Entry): string {
    const says = history?.says[entry.id];
    if (!says) return entry.reading.kind;
    if (entry.reading.kind === 'part_fitted' && entry.reading.part_id) {
      const part = entry.reading.part.replace('_', ' ');
      return `Fitted ${part}: ${history?.names[entry.reading.part_id] ?? entry.reading.part_id}`;
    }
    return tell(says);
  }

  function save() {
    const url = URL.createObjectURL(new Blob([file], { type: 'application/json' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = `${openRig.rig}.json`;
    link.click();
    URL.revokeObjectURL(url);
  }

  function addNote(event: SubmitEvent) {
    event.preventDefault();
    note.record();
  }
</script>

<header class="mb-3 flex flex-wrap items-end justify-between gap-3">
  <div>
    <h1>Logbook</h1>
    <p class="text-soft">Everything recorded, newest first. Nothing is ever written over.</p>
  </div>
  <button class="act" onclick={save} disabled={!history}>Save as a file</button>
</header>

<form onsubmit={addNote} class="flex gap-2">
  <label class="sr-only" for="note">Note</label>
  <input
    id="note"
    class="field"
    placeholder="A note worth keeping"
    maxlength="2000"
    value={note.fields.text}
    oninput={(event) => note.set({ text: event.currentTarget.value })}
    aria-invalid={note.problem ? 'true' : undefined}
    aria-describedby={note.problem ? 'problem-note' : undefined}
  />
  <button class="act" disabled={!note.fields.text?.trim()}>Add note</button>
</form>
{#if note.problem}<ProblemNote problem={note.problem} id="problem-note" />{/if}
<Unsent typing={note} />
{#if asked.problem}
  <DidNotCome problem={asked.problem} again={asked.load} />
{/if}

{#if history?.aside.length}
  <p class="mt-2 text-amber" role="status">
    {history.aside.length === 1
      ? 'One entry cannot be read.'
      : `${history.aside.length} entries cannot be read.`}
    Kept as {history.aside.length === 1 ? 'it is' : 'they are'}, and left out of every sum. A newer
    Lyrandis may read {history.aside.length === 1 ? 'it' : 'them'}.
  </p>
{/if}
{#if !history && !asked.problem}
  <p class="mt-4 text-soft" aria-busy="true">Opening the logbook…</p>
{:else if history}
  {#each days as { day, entries } (day)}
    <section class="mt-5" aria-label={day}>
      <h2 class="border-b border-line pb-1">{day}</h2>
      <ul>
        {#each entries as entry (entry.id)}
          {@const takenBack = entry.id in history.taken_back}
          {@const by = history.taken_back[entry.id]}
          <li class="flex flex-wrap items-baseline gap-x-3 border-b border-faint py-1.5">
            <span
              class="min-w-0 flex-1"
              class:gone={takenBack}
              title={entry.as_typed ? `Typed: ${entry.as_typed}` : undefined}
            >
              {words(entry)}
              {#if entry.note}<span class="text-soft"> · {entry.note}</span>{/if}
            </span>
            <span class="w-32 truncate text-sm text-soft max-sm:w-auto">
              {history.names[entry.subject.id] ?? entry.subject.id}
            </span>
            <span class="w-16 text-sm text-soft">{entry.source}</span>
            {#if takenBack && by}
              <button
                class="quiet w-20 text-right text-sm"
                onclick={() => void recorder.putBack([by], words(entry))}
              >
                put back<span class="sr-only"> {words(entry)}</span>
              </button>
            {:else}
              <button
                class="quiet w-20 text-right text-sm"
                onclick={() => void recorder.takeBack(entry.id, words(entry))}
              >
                take back<span class="sr-only"> {words(entry)}</span>
              </button>
            {/if}
          </li>
        {/each}
      </ul>
    </section>
  {/each}
{/if}

<style>
  .gone {
    text-decoration: line-through;
    color: var(--soft);
  }
</style>
