<script lang="ts">
  import DidNotCome from '../../components/DidNotCome.svelte';
  import Plain from '../../components/Plain.svelte';
  import type { JotWord } from '../../lib/api';
  import { words } from '../../lib/words.svelte';
  import { preferences } from '../../lib/preferences.svelte';
  import { STAGES } from '../../stages';
  import OwnWords from './OwnWords.svelte';
  import TermList from './TermList.svelte';

  document.title = 'Words · Lyrandis';
  const OTHERS = [{ key: null, name: 'On any page' }] as const;
  let search = $state('');
  const found = $derived(words.find(search));

  $effect(() => {
    if (preferences.units) void words.load();
  });

  const MOST_NAMES = 14;
  /** The first way to say each word: what else it is called is said there once. */
  const firsts = $derived(
    new Set(
      found
        .filter((word, at) => found.findIndex((other) => other.word === word.word) === at)
        .map((word) => word.key),
    ),
  );
  const of = (stage: JotWord['stage']) => found.filter((word) => word.stage === stage);
</script>

<Plain>
  <h1>Words</h1>
  <p class="max-w-3xl text-soft">
    The words of the trade, what else they are called, and what the jot line hears.
  </p>
  <input
    class="field mt-4 max-w-[24rem]"
    type="search"
    placeholder="Search: fistmele, point, crawl"
    aria-label="Search the words"
    bind:value={search}
  />
  <TermList {search} />
  <OwnWords {search} />
  <h2 class="mt-8 text-[1.07rem] text-ink">What the jot line understands</h2>
  <p class="max-w-3xl text-soft">
    In any order. Where a word is not among them, say what you meant once: this bench understands it
    from then on.
  </p>
  {#if words.problem}
    <DidNotCome problem={words.problem} again={words.load} />
  {/if}
  {#each [...STAGES, ...OTHERS] as { key, name } (name)}
    {#if of(key).length}
      <section class="mt-8" aria-labelledby="words-{key ?? 'any'}">
        <h2 id="words-{key ?? 'any'}" class="border-b border-line pb-1">{name}</h2>
        <ul>
          {#each of(key) as word (word.key)}
            <li class="grid gap-x-6 border-b border-line py-2 sm:grid-cols-[16rem_1fr]">
              <span class="font-semibold">{word.example}</span>
              <span class="min-w-0">
                {word.records}
                {#if word.names.length && firsts.has(word.key)}
                  <span class="block text-sm text-soft">
                    also {word.names.slice(0, MOST_NAMES).join(', ')}{word.names.length > MOST_NAMES
                      ? ' …'
                      : ''}
                  </span>
                {/if}
              </span>
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  {:else}
    <p class="mt-6">Nothing.</p>
  {/each}
  {#if words.data && !found.length}
    <p class="mt-6">
      No word of the table is called “{search}”. Type it on a rig's jot line and say what you meant.
    </p>
  {/if}
</Plain>
