<script lang="ts">
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { Assessment, PageOf } from '../../lib/api';
  import { BOW_MADES } from '../../lib/choices';
  import { inWords } from '../../lib/days';
  import { Recording } from '../../lib/recording.svelte';
  import { draftOn } from '../../lib/values';

  type Step = PageOf<'bow'>['assembly']['steps'][number];

  let { assessment, assembly }: { assessment: Assessment; assembly: PageOf<'bow'>['assembly'] } =
    $props();

  const recording = new Recording();

  function done(steps: Step[]) {
    const draft = draftOn(assessment, 'bow', {
      kind: 'put_together',
      done: steps.map(({ step }) => step),
    });
    const [first] = steps;
    const says = steps.length === 1 && first ? first.words : `${steps.length} steps done`;
    void recording.record([draft], 'bow', says);
  }
</script>

<div class="mt-1 max-w-xs">
  <ChoiceField
    control="made"
    label="The bow is made"
    choice={assembly.told ? assembly.made : null}
    options={BOW_MADES}
    draft={(made) => draftOn(assessment, 'bow', { kind: 'bow_made', made })}
  />
</div>
<ol class="mt-2">
  {#each assembly.steps as step, i (step.step)}
    <li>
      <span class="w-5 text-soft">{i + 1}</span>
      <span class="min-w-0 flex-1">
        <strong>{step.words[0]?.toUpperCase()}{step.words.slice(1)}</strong>
        <span class="block text-sm text-soft">
          {step.how}
          {#if step.done_at}<span class="text-green">Done, {inWords(step.done_at)}.</span>{/if}
        </span>
      </span>
      <button class="act" disabled={recording.busy} onclick={() => done([step])}>
        {step.done_at ? 'again' : 'done'}<span class="sr-only">: {step.words}</span>
      </button>
    </li>
  {/each}
</ol>
<button class="act mt-3" disabled={recording.busy} onclick={() => done(assembly.steps)}
  >All of it done</button
>
{#if recording.problem}<ProblemNote problem={recording.problem} id="problem-assembly" />{/if}

<style>
  li {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    border-bottom: 1px solid var(--line);
    padding: 0.4rem 0;
  }
</style>
