<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { Assessment, TaperPlan } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap, mm } from '../../lib/units';
  import { Recording } from '../../lib/recording.svelte';
  import { draftOn } from '../../lib/values';
  import type { Tapering } from './taper.svelte';

  let {
    assessment,
    plan,
    tapering,
  }: { assessment: Assessment; plan: TaperPlan; tapering: Tapering } = $props();

  type Tried = TaperPlan['tried'][number];
  const FLEW = [
    ['stiff', 'still stiff'],
    ['clean', 'clean'],
    ['weak', 'weak'],
  ] as const;
  const recording = new Recording();

  function said(one: Tried): string {
    const ends = (['tail', 'head'] as const).flatMap((end) => {
      const across = one[`${end}_diameter_mm`];
      const long = one.shaft[`${end}_taper_mm`];
      return long && across ? [`${end} ${figure(mm(long))} to ${figure(gap(across))}`] : [];
    });
    return ends.length ? ends.join(', ') : 'parallel';
  }

  function log(flew: (typeof FLEW)[number][0]) {
    const asked = tapering.asked;
    const draft = draftOn(assessment, 'arrow_set', {
      kind: 'taper_shot',
      flew,
      tail_taper_mm: asked.tail_taper_mm ?? 0,
      head_taper_mm: asked.head_taper_mm ?? 0,
      tail_diameter_mm: asked.tail_taper_mm ? asked.tail_diameter_mm : null,
      head_diameter_mm: asked.head_taper_mm ? asked.head_diameter_mm : null,
    });
    void recording.record([draft], 'arrow_set', `Taper shot: ${flew}`);
  }

  /** Make the set what this one was. */
  function copy(one: Tried) {
    const draft = draftOn(assessment, 'arrow_set', {
      kind: 'arrow_build',
      tail_taper_mm: one.shaft.tail_taper_mm,
      head_taper_mm: one.shaft.head_taper_mm,
      tail_diameter_mm: one.tail_diameter_mm,
      head_diameter_mm: one.head_diameter_mm,
    });
    void recording.record([draft], 'arrow_set', `Set tapered: ${said(one)}`);
  }
</script>

<section aria-labelledby="taper-log">
  <h2 id="taper-log">Shot on the way</h2>
  {#if plan.tried.length}
    <table class="rows mt-1">
      <thead>
        <tr>
          <th>Taper</th><th>Flew</th><th><span class="sr-only">Do</span></th>
        </tr>
      </thead>
      <tbody>
        {#each plan.tried as one (one.entry)}
          <tr>
            <td>{said(one)}</td>
            <td class:font-semibold={one.flew === 'clean'}>{one.flew}</td>
            <td class="text-right whitespace-nowrap">
              <button class="quiet" disabled={recording.busy} onclick={() => copy(one)}
                >copy to the set</button
              >
              <TakeBack entry={one.entry} what="the taper {said(one)}" />
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="mt-1 text-soft">Nothing logged yet.</p>
  {/if}
  <div class="mt-3 flex flex-wrap items-center gap-2" role="group" aria-label="Log this taper">
    <span class="label">Shot it as planned: flew</span>
    {#each FLEW as [flew, words] (flew)}
      <button class="act" disabled={recording.busy} onclick={() => log(flew)}>{words}</button>
    {/each}
  </div>
  {#if recording.problem}
    <ProblemNote problem={recording.problem} id="problem-taper-log" />
  {/if}
</section>
