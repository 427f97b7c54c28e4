<script lang="ts">
  import { tick } from 'svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TextField from '../../components/TextField.svelte';
  import { FAMILIES } from '../../lib/choices';
  import { goToPath } from '../../lib/navigation';
  import { pagePath } from '../../lib/paths';
  import { ARROW_WAYS, DRAW_WAYS, FirstRun } from './first-run.svelte';

  /** True where parts may be on the bench already. */
  let { known = false }: { known?: boolean } = $props();

  const run = new FirstRun();
  let form = $state<HTMLFormElement>();

  /** Answers that are typed. */
  type Typed = 'draw' | 'archerName' | 'mark' | 'length' | 'mass' | 'rigName';

  type More = { placeholder?: string; maxlength?: number; 'data-first'?: boolean };

  const QUESTIONS = ['How long is your draw?', 'Which bow?', 'Which arrow?'] as const;

  async function act(step: () => Promise<boolean>) {
    if (!(await step())) return;
    if (run.step === 3) return make();
    await tick();
    form?.querySelector<HTMLInputElement>('[data-first]')?.focus();
  }

  async function make(alike = false) {
    const rig = await run.make(alike);
    if (rig) await goToPath(pagePath(rig, 'arrow/build'));
  }

  function submit(event: SubmitEvent) {
    event.preventDefault();
    void act([run.answerDraw, run.answerBow, run.answerArrow][run.step] ?? run.answerArrow);
  }

  function whoIs(answer: string) {
    run.whoIs(answer);
    void act(run.answers.draw.trim() ? run.answerDraw : run.skipDraw);
  }

  function skip() {
    void act([run.skipDraw, run.skipBow, run.skipArrow][run.step] ?? run.skipArrow);
  }
</script>

{#snippet note(field: string)}
  {#if run.problem?.field === field}
    <ProblemNote
      problem={run.problem.problem}
      id="problem-{field}"
      onguess={(text) => (field === 'name' ? whoIs(text) : run.meant(text))}
      insist={field === 'rig' ? () => make(true) : undefined}
    />
  {/if}
{/snippet}

{#snippet field(name: string, answer: Typed, label: string, more: More)}
  {@const wrong = run.problem?.field === name}
  <TextField
    id="first-{name}"
    {label}
    bind:value={run.answers[answer]}
    {wrong}
    aria-describedby={wrong ? `problem-${name}` : undefined}
    {...more}
  >
    {@render note(name)}
  </TextField>
{/snippet}

<p class="text-soft">
  Three questions to a first verdict{#if known}, or
    <a class="underline" href="/new/from-bow">one with a bow that is here already</a>{/if}
</p>
<form bind:this={form} onsubmit={submit} class="mt-1 max-w-xl">
  <ol class="mb-2 flex gap-4 text-sm text-soft" aria-label="Questions">
    {#each ['Draw', 'Bow', 'Arrow'] as name, index (name)}
      <li
        class={index === run.step ? 'font-semibold text-ink' : ''}
        aria-current={index === run.step ? 'step' : undefined}
      >
        {index + 1}
        {name}
      </li>
    {/each}
  </ol>
  <h1>{QUESTIONS[Math.min(run.step, 2)]}</h1>

  {#if run.step === 0}
    <p class="mt-2">
      From the string at the nock groove to the deepest part of the grip, plus 1¾ in. A guess will
      do to begin with.
    </p>
    <div class="mt-4 grid gap-4 sm:grid-cols-2">
      {@render field('draw', 'draw', 'Length', {
        'data-first': true,
        placeholder: 'e.g. 27 3/8 or 69.5cm',
      })}
      <div>
        <label class="label block" for="first-way">How you know it</label>
        <select id="first-way" class="field" bind:value={run.answers.drawWay}>
          {#each DRAW_WAYS as [value, words] (value)}<option {value}>{words}</option>{/each}
        </select>
      </div>
      {@render field('name', 'archerName', 'Your name (if you like)', { maxlength: 60 })}
    </div>
  {:else if run.step === 1}
    <p class="mt-2">What is written on it is enough; the scale can come later.</p>
    <div class="mt-4 grid gap-4 sm:grid-cols-2">
      <div>
        <label class="label block" for="first-family">Sort of bow</label>
        <select id="first-family" data-first class="field" bind:value={run.answers.family}>
          {#each FAMILIES as [value, words] (value)}<option {value}>{words}</option>{/each}
        </select>
        {@render note('family')}
      </div>
      {@render field('mark', 'mark', 'Marked weight, at 28 in unless you say', {
        placeholder: 'e.g. 45 or 45 @ 28',
      })}
      {@render field('length', 'length', 'Bow length (if you know)', { placeholder: 'e.g. 62' })}
    </div>
  {:else}
    <p class="mt-2">
      The whole arrow on a scale, point and feathers included, tells most. The number on the shaft
      helps too; neither is no harm.
    </p>
    <div class="mt-4 grid gap-4 sm:grid-cols-2">
      <div>
        <label class="label block" for="first-arrow-way">What you know of it</label>
        <select id="first-arrow-way" class="field" bind:value={run.answers.arrowWay}>
          {#each ARROW_WAYS as [value, words] (value)}<option {value}>{words}</option>{/each}
        </select>
      </div>
      {@render field(
        'mass',
        'mass',
        run.answers.arrowWay === 'spine' ? 'Number on the shaft' : 'Finished mass',
        {
          'data-first': true,
          placeholder: run.answers.arrowWay === 'spine' ? 'e.g. 700' : 'e.g. 431gr or 27.9g',
        },
      )}
      {@render field('rig', 'rigName', 'Name for this rig (if you like)', { maxlength: 60 })}
    </div>
  {/if}

  <div class="mt-6 flex flex-wrap items-center gap-4">
    <button class="act act-strong" disabled={run.busy}>
      {run.step < 2 ? 'Next' : 'See the verdict'}
    </button>
    <button type="button" class="quiet" onclick={skip} disabled={run.busy}>
      {[
        'Skip: 28 in for now',
        'Skip: a hunting recurve marked 40 lb',
        'Skip: neither, 400 gr for now',
      ][run.step]}, as an estimate
    </button>
    {#if run.step > 0}
      <button type="button" class="quiet" onclick={() => run.back()}>Back</button>
    {/if}
  </div>
  <p class="mt-8 text-sm text-soft">
    Never draw a bow past its maker's limit, and never let go of a string without an arrow on it.
  </p>
</form>
