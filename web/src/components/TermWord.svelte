<script lang="ts">
  import { glossary } from '../lib/glossary.svelte';

  /** One of the trade's words under another text: “where?”. Reached by Tab, for it asks something. */
  let { term: key, text }: { term: string; text: string } = $props();

  glossary.load();
  const term = $derived(glossary.data?.find((one) => one.key === key) ?? null);
</script>

{#if term}
  {@const found = term}
  <button
    type="button"
    class="quiet text-sm"
    data-term={key}
    aria-haspopup="dialog"
    aria-expanded={glossary.open?.term.key === key}
    onclick={(event) => glossary.toggle(found, event.currentTarget)}
    >{text}<span class="sr-only"> {found.word}</span></button
  >
{/if}
