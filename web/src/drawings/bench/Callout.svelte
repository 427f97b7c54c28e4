<script lang="ts">
  import { untrack } from 'svelte';
  import { Reading } from '../../lib/reading.svelte';
  import Preview from '../../components/Preview.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import Unsent from '../../components/Unsent.svelte';

  let {
    label,
    word,
    shown,
    left,
    top,
    width = 108,
    tail = '',
    known = true,
  }: {
    label: string;
    /** Jot word that goes before what is typed. */
    word: string;
    shown: string;
    left: number;
    top: number;
    width?: number;
    /** What goes behind what is typed, such as where the string is held. */
    tail?: string;
    /** False when what is shown is an example or assumed. */
    known?: boolean;
  } = $props();

  const id = $props.id();
  const reading = new Reading({
    from: untrack(() => `on-the-bow ${word} ${tail}`.trim()),
    line: () => [word, { field: 'text' }, tail],
  });

  function submit(event: SubmitEvent) {
    event.preventDefault();
    reading.record();
  }
</script>

<form
  onsubmit={submit}
  class="callout"
  style:left="{left}px"
  style:top="{top}px"
  style:width="{width}px"
>
  <label for={id} class="label">{label}</label>
  <input
    {id}
    class:known
    autocomplete="off"
    placeholder={shown}
    value={reading.text}
    oninput={(event) => reading.type(event.currentTarget.value)}
    onkeydown={(event) => event.key === 'Escape' && reading.clear()}
    aria-invalid={reading.problem ? 'true' : undefined}
    aria-describedby={reading.problem ? `${id}-problem` : undefined}
  />
  {#if reading.problem}
    <div class="under"><ProblemNote problem={reading.problem} id="{id}-problem" /></div>
  {:else if reading.parsed}
    <div class="under"><Preview parsed={reading.parsed} /></div>
  {:else if reading.waiting.length || reading.refused.length}
    <div class="under">
      <Unsent typing={reading} />
    </div>
  {/if}
</form>

<style>
  .callout {
    position: absolute;
    border: 1px solid var(--line);
    background: var(--raised);
    padding: 0.15rem 0.5rem 0.2rem;
  }
  .callout:focus-within {
    border-color: var(--ink);
    z-index: 5;
  }
  label {
    display: block;
    margin: 0;
    line-height: 1.2;
  }
  input {
    width: 100%;
    background: transparent;
    font-weight: 600;
    line-height: 1.3;
    min-height: 1.5rem;
  }
  input::placeholder {
    color: var(--soft);
    font-weight: 400;
    opacity: 1;
  }
  input.known::placeholder {
    color: var(--ink);
    font-weight: 600;
  }
  .under {
    position: absolute;
    top: 100%;
    left: -1px;
    width: 15rem;
    background: var(--raised);
    border: 1px solid var(--line);
    padding: 0.3rem 0.5rem;
  }
</style>
