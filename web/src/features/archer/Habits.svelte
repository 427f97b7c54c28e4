<script lang="ts">
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import type { Assessment, EntryDraft, Stage } from '../../lib/api';
  import { ANCHORS, HANDS, HOLDS, PURPOSES } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { draftOn, valueOf } from '../../lib/values';

  let { assessment, stage }: { assessment: Assessment; stage: Stage } = $props();

  let onRig = $state(false);

  function draft(reading: EntryDraft['reading']): EntryDraft | null {
    if (!onRig) return draftOn(assessment, 'archer', reading);
    return assessment.rig ? { subject: { kind: 'rig', id: assessment.rig }, reading } : null;
  }

  const MEASURES = [
    ['hook', 'Hook depth, nock to string', 'hook', '', 'hook_depth'],
    ['grip', 'Pivot to back of the bow', 'grip', 'back', 'back_depth'],
    ['belly', 'Pivot to belly', 'grip', 'belly', 'belly_depth'],
  ] as const;

  /** A measured depth stands as it is; one by rule is said to be taken. */
  function said(key: string, measured: boolean): string | null {
    const value = valueOf(stage, key);
    if (!value?.figure || (value.origin !== 'rule') !== measured) return null;
    return figure(value.figure);
  }
</script>

<section aria-labelledby="habits" class="mt-6">
  <div class="flex flex-wrap items-baseline justify-between gap-x-4">
    <h2 id="habits">How you shoot</h2>
    <label class="flex min-h-7 items-center gap-2 text-sm">
      <input type="checkbox" bind:checked={onRig} /> changes here are for this rig only
    </label>
  </div>
  <div class="mt-1 grid grid-cols-2 gap-3 lg:grid-cols-3">
    <ChoiceField
      control="hold"
      label="Hold"
      choice={valueOf(stage, 'hold')?.choice ?? null}
      options={HOLDS}
      draft={(hold) => draft({ kind: 'hold_chosen', hold })}
    />
    <ChoiceField
      control="anchor"
      label="Anchor"
      choice={valueOf(stage, 'anchor')?.choice ?? null}
      options={ANCHORS}
      draft={(anchor) => draft({ kind: 'anchor_chosen', anchor })}
    />
    <ChoiceField
      control="hand"
      label="Drawing hand"
      choice={valueOf(stage, 'hand')?.choice ?? null}
      options={HANDS}
      draft={(hand) => draft({ kind: 'hand_chosen', hand })}
    />
    <ChoiceField
      control="purpose"
      label="Purpose"
      choice={valueOf(stage, 'purpose')?.choice ?? null}
      options={PURPOSES}
      draft={(purpose) => draft({ kind: 'purpose_chosen', purpose })}
    />
    {#each MEASURES as [control, label, word, to, key] (control)}
      <ReadingField
        {control}
        {label}
        {word}
        tail={control === 'hook' && onRig ? 'here' : to}
        shown={said(key, true)}
        assumed={said(key, false)}
        example={'{1/2}'}
      />
    {/each}
  </div>
</section>
