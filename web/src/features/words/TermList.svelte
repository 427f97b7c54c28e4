<script lang="ts">
  import { tick } from 'svelte';
  import DidNotCome from '../../components/DidNotCome.svelte';
  import TermSketch from '../../components/TermSketch.svelte';
  import { glossary } from '../../lib/glossary.svelte';
  import { lookAt } from '../../lib/wanted';

  let { search }: { search: string } = $props();

  glossary.load();
  const found = $derived(glossary.find(search));

  // led here by a word: it comes into view
  let led = false;
  $effect(() => {
    if (led || !glossary.data || !location.hash) return;
    led = true;
    void tick().then(() => lookAt(document.getElementById(location.hash.slice(1))));
  });
</script>

<section class="mt-8" aria-labelledby="terms-title">
  <h2 id="terms-title" class="border-b border-line pb-1">What they mean</h2>
  {#if glossary.problem}
    <DidNotCome problem={glossary.problem} again={glossary.load} />
  {/if}
  <ul class="grid gap-x-8 lg:grid-cols-2">
    {#each found as term (term.key)}
      <li class="term" id={term.key} tabindex="-1">
        <div class="min-w-0">
          <p>
            <span class="font-semibold">{term.word}</span>
            {#if term.also.length}
              <span class="text-sm text-soft">also {term.also.join(', ')}</span>
            {/if}
          </p>
          <p>{term.means}</p>
          <p class="text-soft">{term.why}</p>
        </div>
        {#if term.sketch}<TermSketch sketch={term.sketch} />{/if}
      </li>
    {/each}
  </ul>
  {#if glossary.data && !found.length}
    <p class="mt-2 text-soft">None of the trade's words here is called “{search}”.</p>
  {/if}
</section>

<style>
  .term {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 1rem;
    align-items: center;
    border-bottom: 1px solid var(--line);
    padding-block: 0.5rem;
    scroll-margin-top: 1rem;
  }
  .term:target,
  .term:focus {
    outline: none;
    background: var(--raised);
  }
</style>
