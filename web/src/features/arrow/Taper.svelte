<script lang="ts">
  import { eg } from '../../lib/examples';
  import Cautions from '../../components/Cautions.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import TaperedOutline from '../../drawings/TaperedOutline.svelte';
  import type { Stage } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { gap, mm } from '../../lib/units';
  import { valueOf } from '../../lib/values';
  import { wanted } from '../../lib/wanted';
  import ArrowHead from './ArrowHead.svelte';
  import { Tapering } from './taper.svelte';
  import TaperLog from './TaperLog.svelte';
  import TaperNumbers from './TaperNumbers.svelte';
  import TaperSteps from './TaperSteps.svelte';

  const tapering = new Tapering(usual).follow();

  /** Both ends, a third of the shaft, to eight tenths, unless the set is tapered already. */
  function usual() {
    const drawing = openRig.pages.arrow?.arrow;
    const stage = openRig.stage('arrow');
    const long = valueOf(stage, 'tail_taper_mm')?.figure?.value;
    const across = valueOf(stage, 'tail_diameter_mm')?.figure?.value;
    if (long && across) return { tail_taper_mm: long, tail_diameter_mm: across };
    const length = drawing?.length_mm ?? 750;
    const third = Math.round(length / 3 / 25.4) * 25.4;
    const ends = (drawing?.diameter_mm ?? 8.7) * 0.8;
    return {
      tail_taper_mm: third,
      tail_diameter_mm: ends,
      head_taper_mm: third,
      head_diameter_mm: ends,
    };
  }

  function said(end: 'tail' | 'head'): string {
    const long = tapering.asked[`${end}_taper_mm`];
    const across = tapering.asked[`${end}_diameter_mm`];
    return long && across ? `${figure(mm(long))} to ${figure(gap(across))}` : 'parallel';
  }
  const wooden = (stage: Stage) => {
    const material = valueOf(stage, 'material')?.choice;
    return material == null || material === 'wood' || material === 'cane';
  };
</script>

<WhenReady key="arrow">
  {#snippet children(assessment, stage)}
    <ArrowHead {assessment} {stage} />
    {#if !wooden(stage)}
      <p class="grid h-40 place-items-center border border-dashed border-line p-4 text-soft">
        Only wooden and cane shafts are tapered at the bench. These are
        {valueOf(stage, 'material')?.text}.
      </p>
    {:else}
      <div {@attach wanted('taper')} tabindex="-1">
        {#if tapering.data}<TaperedOutline plan={tapering.data} />{/if}
        <div class="mt-2 grid grid-cols-2 gap-3">
          {#each ['tail', 'head'] as const as end (end)}
            {@const wrong = tapering.problemOf(end)}
            <div class="min-w-0">
              <label class="label block" for="taper-{end}">
                {end === 'tail' ? 'Tail' : 'Head'} taper: length, diameter at the end
              </label>
              <input
                id="taper-{end}"
                class="field known"
                autocomplete="off"
                placeholder={said(end)}
                bind:value={tapering.typed[end]}
                onchange={() => void tapering.type(end)}
                aria-invalid={wrong ? 'true' : undefined}
                aria-describedby={wrong ? `problem-taper-${end}` : undefined}
              />
              {#if wrong}<ProblemNote problem={wrong} id="problem-taper-{end}" />{/if}
            </div>
          {/each}
        </div>
        <p class="mt-1 text-sm text-soft">
          As in {eg('{9} {5/16}')}. Planning records nothing. Wood that is off stays off: go by {figure(
            mm(25.4),
          )} at a time.
        </p>
      </div>
      {#if tapering.data}
        {@const plan = tapering.data}
        <TaperNumbers {plan} />
        <div class="mt-5 grid gap-6 lg:grid-cols-2">
          <TaperSteps {plan} />
          <TaperLog {assessment} {plan} {tapering} />
        </div>
      {:else if !tapering.problem}
        <p class="mt-4 text-soft" aria-busy="true">Computing…</p>
      {/if}
    {/if}
    <Cautions {stage} />
  {/snippet}
</WhenReady>
