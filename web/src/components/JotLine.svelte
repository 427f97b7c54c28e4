<script lang="ts">
  import { untrack } from 'svelte';
  import { eg } from '../lib/examples';
  import { api, type StageKey } from '../lib/api';
  import { Asked } from '../lib/asked.svelte';
  import { preferences } from '../lib/preferences.svelte';
  import { recorder } from '../lib/recorder.svelte';
  import { openRig } from '../lib/openrig.svelte';
  import { Reading } from '../lib/reading.svelte';
  import ByForm from './ByForm.svelte';
  import DayField from './DayField.svelte';
  import Preview from './Preview.svelte';
  import Unsent from './Unsent.svelte';

  const LEFT_OVER = 'left over';

  let { stage }: { stage: StageKey | null } = $props();

  const reading = new Reading({ from: 'jot' });
  let input = $state<HTMLInputElement>();

  /** Answers to what is asked, taken one by one with ↓ and ↑; -1 is the line as it was typed. */
  let answers = $state.raw<{ asked: string; lines: string[]; at: number } | null>(null);
  /** A line that was entered and could not be read. */
  let refused = $state<string | null>(null);
  /** What is left of a line of several readings while the first of them is recorded. */
  let rest = $state('');
  /** The form is open: for a line that was not understood, or for any reading. */
  let form = $state<{ line: string } | null>(null);

  const usual = $derived(eg('e.g. draw {27 3/8} or scale {36.2lb} @ {27}'));
  const examples = new Asked<string[]>();
  let examplesOf = $state('');
  /** What the examples depend on: they are asked for when the line is gone to. */
  const wanted = $derived(
    [openRig.rig, stage, preferences.units, openRig.assessment?.revision].join(' '),
  );

  function offer() {
    const { rig } = openRig;
    if (!rig || examplesOf === wanted) return;
    examplesOf = wanted;
    void examples.ask(() => api.examples(rig, stage));
  }

  $effect(() => {
    reading.stage = stage;
  });
  // what one rig refused says nothing of another
  $effect(() => {
    if (openRig.visit) untrack(() => reading.anew());
  });
  const placeholder = $derived(
    examples.data?.length && examplesOf === wanted
      ? `e.g. ${examples.data.slice(0, 2).join(' · ')}`
      : usual,
  );

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
    const line = reading.text.trim();
    const recorded = reading.record();
    if (recorded && rest) {
      const next = rest;
      type(next);
    }
    if (!recorded && line && reading.problem?.status) {
      refused = line;
      void api.keepRefused(line);
    }
    input?.focus();
  }

  function type(text: string) {
    answers = null;
    rest = '';
    refused = null;
    reading.type(text);
  }

  function take(text: string) {
    const behind = without(reading.text, text);
    type(text);
    rest = behind;
    input?.focus();
  }

  /** What stays of a line when one of its several readings is taken out of it. */
  function without(line: string, taken: string): string {
    const at = line.indexOf(taken);
    const behind = line.slice(at + taken.length);
    if (at < 0 || !/[;,]|\band\b/i.test(line.slice(0, at) + behind)) return '';
    const edges = /^(\s|[;,]|and\b)+|(\s|[;,]|\band)+$/gi;
    const left = `${line.slice(0, at)} ${behind}`.replace(/[;,]\s*(?=[;,])/g, '');
    return left.replace(edges, '').replace(/\s+/g, ' ');
  }

  /** Take the next answer to what is asked, or go back towards the line as it was typed. */
  function answer(step: 1 | -1): boolean {
    const lines = (reading.problem?.guesses ?? []).map((guess) => guess.text);
    const now = answers ?? (lines.length ? { asked: reading.text, lines, at: -1 } : null);
    if (!now || (step < 0 && now.at < 0)) return false;
    const at = Math.min(now.at + step, now.lines.length - 1);
    const line = now.lines[at];
    rest = line ? without(now.asked, line) : '';
    reading.type(line ?? now.asked);
    answers = { ...now, at };
    return true;
  }

  function keydown(event: KeyboardEvent) {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      if (answer(event.key === 'ArrowDown' ? 1 : -1)) event.preventDefault();
    } else if (event.key === 'Escape') {
      type('');
      reading.clear();
      input?.blur();
    }
  }

  function closed(recorded: boolean) {
    if (recorded && form?.line) type('');
    form = null;
    input?.focus();
  }
</script>

{#if form}
  <ByForm line={form.line} {stage} close={closed} />
{/if}
<form onsubmit={submit} class="jot" aria-label="Jot line">
  <label for="jot" class="text-soft">Jot</label>
  <div class="relative min-w-0 flex-1 md:max-w-[24rem]">
    <input
      bind:this={input}
      id="jot"
      class="field font-semibold"
      {placeholder}
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      value={reading.text}
      oninput={(event) => type(event.currentTarget.value)}
      onfocus={offer}
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
      {#if reading.problem.guesses?.some((guess) => !guess.text.startsWith('note '))}
        <span class="ml-2 whitespace-nowrap text-soft max-md:hidden">↓ answers</span>
      {/if}
      {#if refused === reading.text.trim()}
        <button
          type="button"
          class="act ml-2 min-h-8 px-2"
          onclick={() => (form = { line: reading.text.trim() })}>What did you mean?</button
        >
      {/if}
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
  <div class="flex items-center gap-3">
    <button
      type="button"
      class="quiet text-ink"
      aria-expanded={form !== null}
      title="Any reading by its form"
      onclick={() => (form = form ? null : { line: '' })}>Form</button
    >
    <DayField id="jot-day" />
  </div>
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
