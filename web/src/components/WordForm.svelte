<script lang="ts">
  import { untrack } from 'svelte';
  import { api, type JotWord, type ParsedJot, type Problem } from '../lib/api';
  import { Asked } from '../lib/asked.svelte';
  import { openRig } from '../lib/openrig.svelte';
  import { numbersIn } from '../lib/words.svelte';
  import Preview from './Preview.svelte';

  let {
    word,
    line = '',
    does,
    done,
  }: {
    word: JotWord;
    /** What was typed and not understood: its numbers go into the fields. */
    line?: string;
    /** What the button does. */
    does: string;
    done: (fields: Record<string, string>, parsed: ParsedJot) => Promise<Problem | null>;
  } = $props();

  const PAUSE_MS = 120;
  let fields = $state<Record<string, string>>(untrack(() => begun()));
  const asked = new Asked<ParsedJot>();
  let refused = $state.raw<Problem | null>(null);
  const whole = $derived(word.fields.every(({ name, needed }) => !needed || fields[name]?.trim()));
  const problem = $derived(refused ?? asked.problem);

  /** The numbers of the line, in the order the form asks for them. */
  function begun(): Record<string, string> {
    const numbers = numbersIn(line);
    return Object.fromEntries(
      word.fields.map(({ name, takes }) => [
        name,
        takes === 'number' ? (numbers.shift() ?? '') : '',
      ]),
    );
  }

  $effect(() => {
    const told = { ...fields };
    refused = null;
    if (!whole) {
      asked.clear();
      return;
    }
    const timer = setTimeout(
      () => void asked.ask(() => api.parseForm(word.key, told, openRig.rig)),
      PAUSE_MS,
    );
    return () => clearTimeout(timer);
  });

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    const told = { ...fields };
    if (!whole) return;
    // not by `asked`: what is asked while one types would drop this answer
    const { data, problem } = await api.parseForm(word.key, told, openRig.rig);
    refused = data ? await done(told, data) : (problem ?? null);
  }

  function fill(name: string, text: string) {
    fields = { ...fields, [name]: text };
  }
</script>

<form onsubmit={submit} class="mt-3" aria-label={word.records}>
  <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
    {#each word.fields as field, at (field.name)}
      <label class="block min-w-[8rem] flex-1 sm:max-w-[16rem]">
        <span class="label mb-1 block">{field.label}{field.needed ? '' : ', if known'}</span>
        {#if field.takes === 'choice'}
          <select
            class="field"
            value={fields[field.name]}
            onchange={(event) => fill(field.name, event.currentTarget.value)}
          >
            <option value="">{field.needed ? 'choose' : 'not said'}</option>
            {#each field.options as option (option)}<option>{option}</option>{/each}
          </select>
        {:else}
          <!-- svelte-ignore a11y_autofocus -->
          <input
            class="field"
            autocomplete="off"
            autofocus={at === 0}
            value={fields[field.name]}
            oninput={(event) => fill(field.name, event.currentTarget.value)}
          />
        {/if}
      </label>
    {/each}
    <button class="act act-strong" disabled={!whole}>{does}</button>
  </div>
  <p class="mt-2 min-h-6 text-sm" aria-live="polite">
    {#if problem}
      <span class="text-red">{problem.reason} {problem.instruction}</span>
    {:else if asked.data && whole}
      <Preview parsed={asked.data} where />
    {:else}
      <span class="text-soft">e.g. {word.example}</span>
    {/if}
  </p>
</form>
