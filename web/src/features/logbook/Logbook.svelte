<script lang="ts">
  import { untrack } from 'svelte';
  import DayField from '../../components/DayField.svelte';
  import { api, type Entry, type History, type Problem } from '../../lib/api';
  import { bench } from '../../lib/bench.svelte';
  import { tell } from '../../lib/preferences.svelte';

  let history = $state.raw<History | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let note = $state('');

  // read again whenever the bench's revision moves
  $effect(() => {
    const rig = bench.assessment?.rig;
    void bench.assessment?.revision;
    if (rig) untrack(() => void load(rig));
  });

  async function load(rig: string) {
    const known = history?.rig === rig ? history : null;
    const answer = await api.history(rig, known?.revision ?? 0);
    if (bench.rig !== rig) return;
    problem = answer.problem ?? null;
    if (answer.data) history = known ? await joined(known, answer.data) : answer.data;
  }

  /** What was known with what is new; a part that came onto the rig brings its own past. */
  async function joined(known: History, fresh: History): Promise<History> {
    if (fresh.entries.some((entry) => entry.reading.kind === 'part_fitted')) {
      return (await api.history(fresh.rig, 0)).data ?? known;
    }
    return {
      ...fresh,
      entries: [...known.entries, ...fresh.entries],
      says: { ...known.says, ...fresh.says },
    };
  }

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
      const day = new Date(entry.happened_at).toLocaleDateString('en-GB', {
        day: 'numeric',
        month: 'long',
        year: 'numeric',
      });
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
    link.download = `${bench.rig}.json`;
    link.click();
    URL.revokeObjectURL(url);
  }

  async function addNote(event: SubmitEvent) {
    event.preventDefault();
    if (!note.trim() || !bench.rig) return;
    const reading = { kind: 'noted' as const, text: note.trim() };
    problem = await bench.record([{ subject: { kind: 'rig', id: bench.rig }, reading }], 'a note');
    if (!problem) note = '';
  }
</script>

<header class="mb-3 flex flex-wrap items-end justify-between gap-3">
  <div>
    <h1>Logbook</h1>
    <p class="text-soft">Everything recorded, newest first. Nothing is ever written over.</p>
  </div>
  <button class="act" onclick={save} disabled={!history}>Save as a file</button>
</header>

<div class="mb-2 flex items-center gap-3 lg:hidden"><DayField id="logbook-day" /></div>
<form onsubmit={addNote} class="flex gap-2">
  <label class="sr-only" for="note">Note</label>
  <input
    id="note"
    class="field"
    placeholder="A note worth keeping"
    maxlength="2000"
    bind:value={note}
  />
  <button class="act" disabled={!note.trim()}>Add note</button>
</form>
{#if problem}
  <p class="mt-2 text-red" role="alert">{problem.reason} {problem.instruction}</p>
{/if}

{#if !history}
  <p class="mt-4 text-soft" aria-busy="true">Opening the logbook…</p>
{:else}
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
                onclick={() => void bench.retract(by, `Put back: ${words(entry)}`)}
              >
                put back<span class="sr-only"> {words(entry)}</span>
              </button>
            {:else}
              <button
                class="quiet w-20 text-right text-sm"
                onclick={() => void bench.retract(entry.id, `Taken back: ${words(entry)}`)}
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
