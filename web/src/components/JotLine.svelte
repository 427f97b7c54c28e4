<script lang="ts">
  import type { StageKey } from '../lib/api';
  import { bench } from '../lib/bench.svelte';
  import { Reading } from '../lib/reading.svelte';
  import DayField from './DayField.svelte';
  import Preview from './Preview.svelte';

  let { stage }: { stage: StageKey | null } = $props();

  const reading = new Reading();
  let input = $state<HTMLInputElement>();

  $effect(() => {
    reading.stage = stage;
  });

  const span = $derived(reading.problem?.span ?? null);
  const before = $derived(span ? reading.text.slice(0, span[0]) : '');
  const word = $derived(span ? reading.text.slice(span[0], span[1]) : '');

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    await reading.record();
  }

  function take(text: string) {
    reading.type(text);
    input?.focus();
  }

  function keydown(event: KeyboardEvent) {
    if (event.key !== 'Escape') return;
    reading.type('');
    input?.blur();
  }
</script>

<form onsubmit={submit} class="jot" aria-label="Jot line">
  <label for="jot" class="text-soft">Jot</label>
  <div class="relative min-w-0 flex-1 md:max-w-[24rem]">
    <input
      bind:this={input}
      id="jot"
      class="field font-semibold"
      placeholder="e.g. draw 27 3/8 or scale 36.2 @ 27"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      value={reading.text}
      oninput={(event) => reading.type(event.currentTarget.value)}
      onkeydown={keydown}
      aria-invalid={reading.problem ? 'true' : undefined}
      aria-describedby="jot-says"
    />
    {#if word}
      <span class="under" aria-hidden="true"><i>{before}</i><b>{word}</b></span>
    {/if}
  </div>
  <p
    id="jot-says"
    class="min-w-0 flex-1 text-sm max-md:order-last max-md:basis-full"
    aria-live="polite"
  >
    {#if reading.problem}
      <span class="text-red">{reading.problem.reason} {reading.problem.instruction}</span>
      {#each reading.problem.guesses ?? [] as guess (guess.text)}
        <button type="button" class="quiet ml-2 text-ink" onclick={() => take(guess.text)}>
          {guess.says}
        </button>
      {/each}
    {:else if reading.parsed}
      <Preview parsed={reading.parsed} where />
      <span class="text-soft max-md:hidden">· Enter records</span>
    {:else if bench.recorded}
      <span class="text-green">Recorded: {bench.recorded}.</span>
      <button type="button" class="quiet ml-2 text-ink" onclick={() => void bench.undo()}>
        take back
      </button>
    {/if}
  </p>
  {#if reading.parsed?.draft}
    <button class="act act-strong md:hidden" disabled={bench.busy}>Record</button>
  {/if}
  <div class="flex items-center gap-3 max-lg:hidden"><DayField id="jot-day" /></div>
</form>

<style>
  .jot {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 0.8rem;
    padding: 0.5rem 1.25rem;
    border-top: 1px solid var(--line);
    background: var(--raised);
  }
  .under {
    position: absolute;
    inset: 0;
    display: flex;
    align-items: center;
    padding: 0.3rem calc(0.6rem + 1px);
    pointer-events: none;
    font-weight: 600;
    white-space: pre;
    color: transparent;
    overflow: hidden;
  }
  .under i {
    font-style: normal;
  }
  .under b {
    text-decoration: underline 3px var(--red);
    text-underline-offset: 3px;
  }
</style>
