<script lang="ts">
  import { eg } from '../lib/examples';
  import { untrack } from 'svelte';
  import { wanted } from '../lib/wanted';
  import Check from '@lucide/svelte/icons/check';
  import { recorder } from '../lib/recorder.svelte';
  import { Reading } from '../lib/reading.svelte';
  import Preview from './Preview.svelte';
  import ProblemNote from './ProblemNote.svelte';
  import Unsent from './Unsent.svelte';
  import WeightUnits from './WeightUnits.svelte';

  let {
    control,
    label,
    word,
    shown = null,
    assumed = null,
    example,
    hint = null,
    tail = '',
    weight = false,
  }: {
    /** Id that findings use to point here. */
    control: string;
    label: string;
    /** Jot word that goes before what is typed. */
    word: string;
    /** The value now, as a placeholder. */
    shown?: string | null;
    /** What stands in its place while nobody has measured. */
    assumed?: string | null;
    example: string;
    hint?: string | null;
    /** What goes behind it, such as a datum. */
    tail?: string;
    /** It begins with a weight: its unit is offered as buttons. */
    weight?: boolean;
  } = $props();

  const reading = new Reading({
    from: untrack(() => control),
    line: () => [word, { field: 'text' }, tail],
  });

  function guess(text: string) {
    const [first, ...rest] = text.split(' ');
    if (first === word) reading.type(rest.join(' '));
    else recordElsewhere(text);
  }

  /** A guess that belongs to another field is recorded as the jot line it is. */
  function recordElsewhere(line: string) {
    reading.clear();
    const act = { do: 'line' as const, line, stage: null, draft: null };
    void recorder.send({ act, says: line, from: 'jot', typed: { text: line } });
  }

  function submit(event: SubmitEvent) {
    event.preventDefault();
    reading.record();
  }
</script>

<form onsubmit={submit} class="min-w-0">
  <label class="label block" for="field-{control}">{label}</label>
  <div class="flex gap-1">
    <input
      {@attach wanted(control)}
      id="field-{control}"
      class="field"
      class:known={shown !== null}
      autocomplete="off"
      inputmode="text"
      placeholder={shown ?? (assumed ? `taken as ${assumed}` : `e.g. ${eg(example)}`)}
      value={reading.text}
      oninput={(event) => reading.type(event.currentTarget.value)}
      onkeydown={(event) => event.key === 'Escape' && reading.clear()}
      aria-invalid={reading.problem ? 'true' : undefined}
      aria-describedby={reading.problem ? `problem-${control}` : undefined}
    />
    {#if reading.text.trim()}
      <button class="act px-2" title="Record">
        <Check size={18} aria-hidden="true" /><span class="sr-only">Record {label}</span>
      </button>
    {/if}
  </div>
  {#if weight}
    <WeightUnits text={reading.text} onset={(text) => reading.type(text)} />
  {/if}
  {#if reading.problem}
    <ProblemNote problem={reading.problem} id="problem-{control}" onguess={guess} />
  {:else if reading.parsed}
    <Preview parsed={reading.parsed} />
  {:else if hint && !reading.waiting.length}
    <span class="text-sm text-soft">{hint}</span>
  {/if}
  <Unsent typing={reading} />
</form>
