<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import ArrowHead from './ArrowHead.svelte';
  import { Trying } from './trial.svelte';
  import TryKnob from './TryKnob.svelte';
  import TryNumbers from './TryNumbers.svelte';

  const trying = new Trying().follow();

  const drafts = $derived(trying.changed.length ? trying.drafts() : []);
  const left = $derived(
    trying.changed.filter((knob) => knob === 'draw_weight_lbf' || knob === 'string_added_gr'),
  );

  const refused = $derived(
    trying.data?.tried.too_short === 'stop' || trying.data?.tried.floor_severity === 'stop',
  );
</script>

<WhenReady key="arrow">
  {#snippet children(assessment, stage)}
    <ArrowHead {assessment} {stage} />
    {#if trying.data}
      {@const trial = trying.data}
      <TryNumbers {trial} tried={trying.changed.length > 0} />
      <div class="knobs">
        <TryKnob {trying} {trial} knob="shaft_length_mm" label="Shaft length" />
        <TryKnob {trying} {trial} knob="point_gr" label="Point" />
        <TryKnob {trying} {trial} knob="draw_weight_lbf" label="Draw weight" />
        <TryKnob {trying} {trial} knob="brace_height_mm" label="Brace height" />
        <TryKnob {trying} {trial} knob="window_mm" label="Side plate, off centre" />
        <TryKnob {trying} {trial} knob="string_added_gr" label="Added to the string" />
      </div>
      <div class="mt-3 flex flex-wrap items-center gap-3">
        {#if trying.changed.length}
          <button class="act" onclick={trying.reset}>Back to what is recorded</button>
          <button
            class="act act-strong"
            onclick={() => void trying.record()}
            disabled={drafts.length === 0 || refused}>Record as done</button
          >
          <span class="text-sm text-soft">
            Nothing is recorded until then.
            {#if left.includes('draw_weight_lbf')}Draw weight is read off the scale, not chosen.{/if}
            {#if left.includes('string_added_gr')}What hangs on the string shows in its own
              weighing.{/if}
          </span>
        {:else}
          <span class="text-sm text-soft">
            Move a slider: everything is shot anew, and nothing is recorded.
            {#if trial.assumed.length}Assumed: {trial.assumed.join(', ')}.{/if}
          </span>
        {/if}
      </div>
    {:else if !trying.problem}
      <p class="grid h-48 place-items-center text-soft" aria-busy="true">Shooting…</p>
    {/if}
    {#if trying.problem}<ProblemNote problem={trying.problem} id="problem-try" />{/if}
    {#if trying.refused}<ProblemNote problem={trying.refused} id="problem-tried" />{/if}
    <Cautions {stage} />
  {/snippet}
</WhenReady>

<style>
  .knobs {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
    gap: 0.9rem 2rem;
    margin-top: 1.1rem;
  }
</style>
