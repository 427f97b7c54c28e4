<script lang="ts">
  import type { Round } from './round.svelte';

  let { round, onclose }: { round: Round; onclose: () => void } = $props();

  const text = $derived(round.text());
  let said = $state('');
  /** Shots are forgotten only once they were copied or saved. */
  let given = $state(false);
  let area = $state<HTMLTextAreaElement>();

  async function copy() {
    try {
      await navigator.clipboard.writeText(text);
      said = 'Copied. Paste it at the bench.';
      given = true;
    } catch {
      // without leave to the clipboard the text is marked for the hand
      area?.select();
      said = 'Marked: copy it by hand.';
    }
  }
  function save() {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type: 'text/plain' }));
    link.download = `${round.rig}-field-shots.txt`;
    link.click();
    URL.revokeObjectURL(link.href);
    said = 'Saved.';
    given = true;
  }
  function clear() {
    round.clear();
    said = 'Forgotten here.';
  }
</script>

<div class="panel">
  <h2>Give the shots back</h2>
  {#if round.standing.length}
    <p>
      At the bench open Crawls, Field, and paste this or choose the file. Each shot is recorded
      once, however often you bring it.
    </p>
    <label for="text" class="soft">The shots as text</label>
    <textarea id="text" readonly rows="6" bind:this={area} value={text}></textarea>
    <div class="row">
      <button class="big" onclick={copy}>Copy</button>
      <button class="big" onclick={save}>Save file</button>
    </div>
    {#if given}
      <p class="soft">
        Once they are on the bench: <button class="quiet" onclick={clear}>forget them here</button>
      </p>
    {/if}
  {:else}
    <p>No shot is kept here.</p>
  {/if}
  <p role="status">{said}</p>
  <button class="big" onclick={onclose}>Back to the target</button>
</div>

<style>
  .panel {
    display: grid;
    align-content: start;
    gap: 0.75rem;
    padding: 1rem 0.75rem;
    overflow: auto;
  }
  h2 {
    font-size: 1.25rem;
  }
  textarea {
    width: 100%;
    background: var(--raised);
    border: 1px solid var(--line);
    font-size: 0.8rem;
    user-select: text;
  }
  .row {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.75rem;
  }
  .big {
    min-height: 3.25rem;
    font-weight: 600;
  }
</style>
