<script lang="ts" generics="C extends string">
  import type { EntryDraft } from '../lib/api';
  import { Recording } from '../lib/recording.svelte';
  import Picker from './Picker.svelte';
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

  const recording = new Recording();

  async function pick(value: string) {
    const option = options.find(([one]) => one === value);
    if (option) await recording.record([draft(option[0])], null, `${label}: ${option[1]}`);
  }
</script>

<div class="min-w-0">
  <label class="label block" for="field-{control}">{label}</label>
  <Picker
    id="field-{control}"
    {control}
    {label}
    recorded={choice ?? ''}
    {options}
    {pick}
    invalid={recording.problem !== null}
    says={recording.problem ? `problem-${control}` : undefined}
  />
  {#if recording.problem}
    <ProblemNote problem={recording.problem} id="problem-{control}" />
  {/if}
</div>
