<script lang="ts">
  import { SvelteSet } from 'svelte/reactivity';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import { api, type FieldShots } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { sayDay, sayTime } from '../../lib/days';
  import { tell } from '../../lib/preferences.svelte';

  let text = $state('');
  let recorded = $state<number | null>(null);
  const also = new SvelteSet<string>();
  const asked = new Asked<FieldShots>();

  const lines = $derived(asked.data?.lines ?? []);
  const fresh = $derived(lines.filter((line) => line.state === 'new' || also.has(line.id)).length);
  const STATES = {
    new: 'new',
    here: 'here already',
    differs: 'differs',
    bad: 'cannot be recorded',
  };
  const shots = (count: number) => `${count} shot${count === 1 ? '' : 's'}`;

  async function look(record = false) {
    const { rig } = openRig;
    if (!rig) return;
    const body = { text, record, also: [...also] };
    const answer = await asked.ask(() => api.fieldShots(rig, body));
    if (!answer || !record) return;
    recorded = answer.recorded.length;
    also.clear();
    await openRig.open(rig);
    // what stood as new stands as here already
    await asked.ask(() => api.fieldShots(rig, { text, record: false, also: [] }));
  }
  function brought() {
    recorded = null;
    also.clear();
    if (text.trim()) void look();
    else asked.clear();
  }
  async function choose(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    text = await file.text();
    input.value = '';
    brought();
  }
</script>

<section aria-labelledby="back-title">
  <h2 id="back-title">Shots that come back</h2>
  <div class="both">
    <div>
      <label for="field-text" class="text-sm text-soft">Paste the helper's text</label>
      <textarea
        id="field-text"
        class="field"
        rows="3"
        bind:value={text}
        oninput={brought}
        aria-invalid={asked.problem ? 'true' : undefined}
        aria-describedby={asked.problem ? 'problem-field' : undefined}></textarea>
    </div>
    <label class="act file">
      or choose its file
      <input type="file" class="sr-only" accept=".txt,text/plain" onchange={choose} />
    </label>
  </div>
  {#if asked.problem}<ProblemNote problem={asked.problem} id="problem-field" />{/if}

  {#if lines.length}
    <table class="rows mt-2">
      <thead>
        <tr
          ><th class="w-1/3">Shot</th><th>When</th><th>Here</th><th
            ><span class="sr-only">Choose</span></th
          ></tr
        >
      </thead>
      <tbody>
        {#each lines as line (line.id)}
          <tr>
            <th scope="row">{line.says ? tell(line.says) : line.line}</th>
            <td class="whitespace-nowrap">
              {#if line.at}{sayDay(line.at)}, {sayTime(line.at)}{/if}
            </td>
            <td class:text-amber={line.state === 'differs' || line.state === 'bad'}>
              {STATES[line.state]}
              {#if line.why}<span class="block text-sm text-soft"
                  >{line.why} {line.instruction}</span
                >{/if}
            </td>
            <td class="text-right">
              {#if line.state === 'differs'}
                <label class="whitespace-nowrap">
                  <input
                    type="checkbox"
                    checked={also.has(line.id)}
                    onchange={() => (also.has(line.id) ? also.delete(line.id) : also.add(line.id))}
                  /> all the same
                </label>
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if asked.data?.more}
      <p class="mt-2 text-amber">
        The end of this text is missing: more shots may have been meant. Bring it again whole.
      </p>
    {/if}
    <div class="mt-2 flex items-center gap-3">
      <button class="act act-strong" disabled={!fresh || asked.busy} onclick={() => look(true)}>
        {fresh ? `Record ${shots(fresh)}` : 'Nothing new'}
      </button>
      <p role="status" class="text-soft">
        {#if recorded !== null}{shots(recorded)} recorded.{/if}
      </p>
    </div>
  {:else}
    <p class="mt-1 text-sm text-soft">
      You see what is new before anything is recorded, and each shot is recorded once.
    </p>
  {/if}
</section>

<style>
  .both {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0.75rem;
    align-items: end;
    max-width: 52rem;
  }
  textarea {
    font-size: 0.85rem;
  }
  .file {
    cursor: pointer;
  }
  .file:focus-within {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
  tbody th {
    font-weight: 600;
    color: var(--ink);
    text-align: left;
  }
  @media (max-width: 640px) {
    .both {
      grid-template-columns: minmax(0, 1fr);
      align-items: start;
    }
  }
</style>
