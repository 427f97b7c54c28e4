<script lang="ts" generics="C extends string">
  import { wanted } from '../lib/wanted';
  import type { EntryDraft, Problem } from '../lib/api';
  import { bench } from '../lib/bench.svelte';
  import ProblemNote from './ProblemNote.svelte';

  let {
    control,
    label,
    choice,
    options,
    draft,
  }: {
    control: string;
    label: string;
    choice: string | null;
    options: readonly (readonly [C, string])[];
    draft: (choice: C) => EntryDraft | null;
  } = $props();

  let problem = $state.raw<Problem | null>(null);

  async function choose(event: Event & { currentTarget: HTMLSelectElement }) {
    const option = options.find(([value]) => value === event.currentTarget.value);
    if (!option) return;
    const [chosen, words] = option;
    const made = draft(chosen);
    problem = made
      ? await bench.record([made], `${label}: ${words}`)
      : {
          type: 'about:blank',
          title: 'nothing fitted',
          status: 422,
          code: 'nothing_fitted',
          reason: 'This rig has no such part fitted.',
          instruction: 'Fit one first, under Fitted now.',
          guesses: [],
        };
  }
</script>

<div class="min-w-0">
  <label class="label block" for="field-{control}">{label}</label>
  <select
    {@attach wanted(control)}
    id="field-{control}"
    class="field"
    value={choice ?? ''}
    onchange={choose}
    aria-describedby={problem ? `problem-${control}` : undefined}
  >
    <option value="" disabled>not told</option>
    {#each options as [value, words] (value)}
      <option {value}>{words}</option>
    {/each}
  </select>
  {#if problem}<ProblemNote {problem} id="problem-{control}" />{/if}
</div>
