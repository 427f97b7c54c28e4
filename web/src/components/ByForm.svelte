<script lang="ts">
  import { onMount } from 'svelte';
  import { api, type JotWord, type ParsedJot, type Problem, type StageKey } from '../lib/api';
  import { openRig } from '../lib/openrig.svelte';
  import { tell } from '../lib/preferences.svelte';
  import { recorder } from '../lib/recorder.svelte';
  import { toaster } from '../lib/toaster';
  import { words } from '../lib/words.svelte';
  import DidNotCome from './DidNotCome.svelte';
  import WordForm from './WordForm.svelte';

  let {
    line = '',
    stage,
    close,
  }: {
    /** A line that was not understood: what is filled in is what it meant. */
    line?: string;
    stage: StageKey | null;
    close: (recorded: boolean) => void;
  } = $props();

  const MOST = 12;
  let search = $state('');
  let picked = $state.raw<JotWord | null>(null);
  const found = $derived(
    search.trim()
      ? words.find(search).slice(0, MOST)
      : (words.data ?? []).filter((word) => word.stage === stage).slice(0, MOST),
  );

  onMount(() => void words.load());

  async function record(
    fields: Record<string, string>,
    parsed: ParsedJot,
  ): Promise<Problem | null> {
    if (!picked) return null;
    let said = parsed.line;
    if (line) {
      const { data, problem } = await api.teach(line, picked.key, fields, openRig.rig);
      if (!data) return problem ?? null;
      said = data.line;
      toaster.info(
        data.phrase
          ? {
              title: `“${data.phrase}” is understood from now on, as ${data.stands_for}.`,
              description: 'The page of words shows it and takes it away.',
            }
          : { title: 'Recorded. The wording itself says too little to be learnt.' },
      );
    }
    const act = { do: 'line' as const, line: said, stage: null, draft: parsed.draft };
    void recorder.send({ act, says: tell(parsed.says), from: 'jot', typed: { text: said } });
    close(true);
    return null;
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<section
  class="max-h-[60vh] overflow-auto border-t border-line bg-raised px-5 py-3"
  aria-labelledby="by-form"
  onkeydown={(event) => event.key === 'Escape' && close(false)}
>
  <div class="flex items-baseline justify-between gap-4">
    <h2 id="by-form" class="text-[1.05rem] font-semibold">
      {#if line}What did you mean by “{line}”?{:else}Fill in a reading{/if}
    </h2>
    <button type="button" class="quiet" onclick={() => close(false)}>Close</button>
  </div>
  {#if words.problem}
    <DidNotCome problem={words.problem} again={words.load} />
  {:else if picked}
    <p class="mt-1">
      {picked.records[0]?.toUpperCase()}{picked.records.slice(1)}
      <button type="button" class="quiet ml-2" onclick={() => (picked = null)}
        >something else</button
      >
    </p>
    {#key picked.key}
      <WordForm word={picked} {line} does={line ? 'Record and remember' : 'Record'} done={record} />
    {/key}
  {:else}
    <!-- svelte-ignore a11y_autofocus -->
    <input
      class="field mt-2 max-w-[24rem]"
      placeholder="What is it about? e.g. brace, point, tiller"
      aria-label="What is it about?"
      autocomplete="off"
      autofocus
      bind:value={search}
    />
    <ul class="mt-2 flex flex-wrap gap-2">
      {#each found as word (word.key)}
        <li>
          <button
            type="button"
            class="act max-w-full text-left whitespace-normal"
            onclick={() => (picked = word)}
          >
            <span class="font-semibold">{word.word}</span>
            <span class="text-soft">{word.records}</span>
          </button>
        </li>
      {:else}
        <li class="text-soft">No word is called so. Try what it is of: string, arrow, flight.</li>
      {/each}
    </ul>
  {/if}
</section>
