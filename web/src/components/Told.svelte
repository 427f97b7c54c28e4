<script lang="ts">
  import { glossary } from '../lib/glossary.svelte';

  /** A sentence in which the trade's words can be opened. */
  let { text }: { text: string } = $props();

  glossary.load();
  const pieces = $derived(glossary.pieces(text));
</script>

{#each pieces as piece, at (at)}{#if piece.term}{@const term = piece.term}<button
      type="button"
      class="term"
      tabindex="-1"
      data-term={term.key}
      aria-haspopup="dialog"
      aria-expanded={glossary.open?.term.key === term.key}
      onclick={(event) => {
        event.stopPropagation();
        event.preventDefault();
        glossary.toggle(term, event.currentTarget);
      }}>{piece.text}</button
    >{:else}{piece.text}{/if}{/each}

<style>
  .term {
    display: inline;
    text-align: inherit;
    text-decoration: underline dotted var(--soft) 1px;
    text-underline-offset: 3px;
    cursor: help;
  }
  .term:hover,
  .term[aria-expanded='true'] {
    text-decoration-color: var(--ink);
    text-decoration-thickness: 2px;
  }
</style>
