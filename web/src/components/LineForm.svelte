<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Reading } from '../lib/reading.svelte';
  import Preview from './Preview.svelte';
  import ProblemNote from './ProblemNote.svelte';
  import Unsent from './Unsent.svelte';

  let {
    reading,
    id,
    hint,
    where = true,
    onrecorded,
    onguess,
    columns = 'grid-cols-2',
    children,
  }: {
    reading: Reading;
    /** Fields are described by `{id}-says`. */
    id: string;
    hint: string;
    /** Say on which part it would be recorded. */
    where?: boolean;
    /** Called when the line is on its way and its fields are empty. */
    onrecorded?: () => void;
    onguess?: (text: string) => void;
    columns?: string;
    /** The fields; the record button is handed to them to be placed. */
    children: Snippet<[Snippet]>;
  } = $props();

  function submit(event: SubmitEvent) {
    event.preventDefault();
    if (reading.record()) onrecorded?.();
  }
</script>

{#snippet record()}
  <button class="act" class:act-strong={reading.parsed?.draft}>Record</button>
{/snippet}

<form onsubmit={submit} class="mt-1 grid gap-3 {columns}">
  {@render children(record)}
  <div id="{id}-says" class="col-span-full min-h-5">
    {#if reading.problem}
      <ProblemNote problem={reading.problem} id="problem-{id}" {onguess} />
    {:else if reading.parsed}
      <Preview parsed={reading.parsed} {where} />
    {:else if !reading.waiting.length}
      <span class="text-sm text-soft">{hint}</span>
    {/if}
    <Unsent typing={reading} />
  </div>
</form>
