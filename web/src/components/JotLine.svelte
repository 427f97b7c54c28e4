<script lang="ts">
  import type { StageKey } from '../lib/api';
  import { recorder } from '../lib/recorder.svelte';
  import { openRig } from '../lib/openrig.svelte';
  import { Reading } from '../lib/reading.svelte';
  import DayField from './DayField.svelte';
  import Preview from './Preview.svelte';
  import Unsent from './Unsent.svelte';

  const LEFT_OVER = 'left over';

  let { stage }: { stage: StageKey | null } = $props();

  const reading = new Reading({ from: 'jot' });
  let input = $state<HTMLInputElement>();

  $effect(() => {
    reading.stage = stage;
  });

  /** What of the line is underlined: what it was taken for, what is left over or at fault. */
  const marks = $derived.by(() => {
    const { problem, parsed, text } = reading;
    const heard = problem?.heard?.length ? problem.heard : (parsed?.heard ?? []);
    const told = heard.map(({ start, end, taken_for }) => ({
      start,
      end,
      bad: taken_for === LEFT_OVER,
    }));
    const span = problem?.span;
    if (span && !told.length) told.push({ start: span[0], end: span[1], bad: true });
    return told.map((mark, at) => ({
      ...mark,
      before: text.slice(told[at - 1]?.end ?? 0, mark.start),
      word: text.slice(mark.start, mark.end),
    }));
  });
  const taken = $derived(
    (reading.parsed?.heard ?? [])
      .filter((part) => part.taken_for !== LEFT_OVER)
      .map((part) => reading.text.slice(part.start, part.end)),
  );
  /** Refused, and their control is not on this page. */
  const lost = $derived(
    recorder.outbox.refused(openRig.rig).filter((job) => !recorder.isHere(job)),
  );
  const elsewhere = $derived(
    recorder.outbox.waiting(openRig.rig).filter((job) => !recorder.isHere(job)),
  );

  function submit(event: SubmitEvent) {
    event.preventDefault();
    reading.record();
    input?.focus();
  }

  function take(text: string) {
    reading.type(text);
    input?.focus();
  }

  function keydown(event: KeyboardEvent) {
    if (event.key !== 'Escape') return;
    reading.clear();
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
    {#if marks.length}
      <span class="under" aria-hidden="true">
        {#each marks as mark (mark.start)}<i>{mark.before}</i><b class:bad={mark.bad}>{mark.word}</b
          >{/each}
      </span>
    {/if}
  </div>
  <div
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
      {#if taken.length}
        <span class="text-soft">from “{taken.join('”, “')}”</span>
      {/if}
      <span class="text-soft max-md:hidden">· Enter records</span>
    {:else if recorder.recorded && !reading.waiting.length}
      <span class="text-green">Recorded: {recorder.recorded}.</span>
      <button type="button" class="quiet ml-2 text-ink" onclick={() => void recorder.undo()}>
        take back
      </button>
    {/if}
    <Unsent typing={reading} beside={elsewhere} {lost} />
  </div>
  {#if reading.parsed?.draft}
    <button class="act act-strong md:hidden">Record</button>
  {/if}
  <div class="flex items-center gap-3"><DayField id="jot-day" /></div>
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
    text-decoration: underline 3px var(--green);
    text-underline-offset: 3px;
  }
  .under b.bad {
    text-decoration-color: var(--red);
  }
</style>
