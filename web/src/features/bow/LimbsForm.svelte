<script lang="ts">
  import ReadingField from '../../components/ReadingField.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { Assessment, PageOf } from '../../lib/api';
  import { LIMB_PAIRS } from '../../lib/choices';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { lbf, mm, percent } from '../../lib/units';
  import { draftOn } from '../../lib/values';
  import { wanted } from '../../lib/wanted';

  let {
    assessment,
    limbs,
  }: { assessment: Assessment; limbs: PageOf<'bow'>['condition']['limbs'] } = $props();

  const told = $derived(limbs?.told ?? null);
  const finding = $derived(assessment.findings.find((found) => found.id === 'limb-pair') ?? null);
  const weights = $derived(
    told?.upper_lbf != null && told.lower_lbf != null
      ? `${figure(lbf(told.upper_lbf))} and ${figure(lbf(told.lower_lbf))}`
      : null,
  );
  const lengths = $derived(
    told?.upper_length_mm != null && told.lower_length_mm != null
      ? `${figure(mm(told.upper_length_mm))} and ${figure(mm(told.lower_length_mm))}`
      : null,
  );
</script>

<div {@attach wanted('limbs')} tabindex="-1" class="mt-1 grid gap-3">
  <ChoiceField
    control="limb-pair"
    label="The limbs are"
    choice={told?.pair ?? null}
    options={LIMB_PAIRS}
    draft={(pair) => draftOn(assessment, 'bow', { kind: 'limb_pair', pair })}
  />
  <ReadingField
    control="limb-weights"
    label="Marks, upper and lower"
    word="limbs"
    example={'{38lb} {40lb}'}
    shown={weights}
  />
  <ReadingField
    control="limb-lengths"
    label="Lengths, upper and lower"
    word="limbs"
    tail="length"
    example={'{20 1/2} {21}'}
    shown={lengths}
  />
</div>
{#if limbs && finding}
  <dl class="mt-4 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
    <dt class="label">stiffness apart</dt>
    <dd class="font-semibold">{figure(percent(limbs.share))}</dd>
    <dt class="label">home apart</dt>
    <dd class="font-semibold">{limbs.apart_ms.toFixed(1)} ms</dd>
  </dl>
  <p class="mt-2">{tell(finding.sentence)}</p>
  <p class="mt-1"><TakeBack entry={limbs.entry} what="what was last told of the limbs" /></p>
{:else}
  <p class="mt-3 text-sm text-soft">
    Only needed when limbs were bought apart: two weights, two lengths, two bottoms, two makers. It
    says what to expect and how long it may be put up with.
  </p>
{/if}
