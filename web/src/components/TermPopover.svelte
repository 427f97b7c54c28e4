<script lang="ts">
  import { tick } from 'svelte';
  import { glossary } from '../lib/glossary.svelte';
  import TermSketch from './TermSketch.svelte';

  const GAP = 8;
  let box = $state<HTMLElement>();
  let place = $state({ left: 0, top: 0 });
  const open = $derived(glossary.open);

  // beside the word it was opened at, inside the window
  $effect(() => {
    const at = open?.at;
    if (!at) return;
    void tick().then(() => {
      if (!box) return;
      const [word, own] = [at.getBoundingClientRect(), box.getBoundingClientRect()];
      const left = Math.min(word.left, innerWidth - own.width - GAP);
      const below = word.bottom + GAP;
      const fits = below + own.height < innerHeight;
      place = {
        left: Math.max(GAP, left),
        top: Math.max(GAP, fits ? below : word.top - own.height - GAP),
      };
      box.focus({ preventScroll: true });
    });
  });

  function leave(event: Event) {
    if (open && event.target instanceof Node && !box?.contains(event.target)) glossary.close();
  }
</script>

<svelte:window
  onkeydown={(event) => {
    if (event.key === 'Escape' && open) glossary.close();
  }}
  onpointerdown={(event) => {
    const word = event.target instanceof Element ? event.target.closest('[data-term]') : null;
    if (!word) leave(event);
  }}
  onscrollcapture={leave}
  onresize={glossary.close}
/>

{#if open}
  {@const term = open.term}
  <div
    bind:this={box}
    id="term"
    role="dialog"
    aria-label={term.word}
    tabindex="-1"
    class="box"
    style:left="{place.left}px"
    style:top="{place.top}px"
  >
    <div class="flex items-start gap-3">
      {#if term.sketch}<div class="shrink-0"><TermSketch sketch={term.sketch} /></div>{/if}
      <div class="min-w-0">
        <p class="font-semibold">{term.word}</p>
        <p>{term.means}</p>
        <p class="mt-1 text-soft">{term.why}</p>
        {#if term.also.length}
          <p class="mt-1 text-sm text-soft">also: {term.also.join(', ')}</p>
        {/if}
      </div>
    </div>
    <p class="mt-2 flex justify-between gap-4 text-sm">
      <a class="underline" href="/words#{term.key}" onclick={glossary.close}>all words</a>
      <button type="button" class="quiet" onclick={glossary.close}>close</button>
    </p>
  </div>
{/if}

<style>
  .box {
    position: fixed;
    z-index: 55;
    width: min(25rem, calc(100vw - 16px));
    border: 1px solid var(--ink);
    border-radius: 4px;
    background: var(--raised);
    padding: 0.8rem 0.9rem 0.6rem;
    font-size: 0.95rem;
  }
  .box:focus {
    outline: none;
  }
</style>
