<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import LineInput from '../../components/LineInput.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { Locator } from '../../drawings/nock/locator.svelte';
  import type { Assessment } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { gap } from '../../lib/units';

  let { assessment, locator }: { assessment: Assessment; locator: Locator } = $props();

  const side = $derived(locator.side);
  const fixing = new Recording();
  const reading = new Reading({
    from: 'lift',
    fields: { lift: '' },
    line: ({ lift }) => [
      'lift',
      lift?.trim() || !locator.moved ? { field: 'lift' } : `${locator.lift.toFixed(1)}mm`,
    ],
  });

  function fix(locked: boolean) {
    const subject = { kind: 'rig' as const, id: assessment.rig ?? '' };
    void fixing.record(
      [{ subject, reading: { kind: 'nock_locked', locked } }],
      null,
      locked ? 'Nock height fixed' : 'Nock height free again',
    );
  }
  function take() {
    reading.set({ lift: `${locator.lift.toFixed(1)}mm` });
    reading.record();
    locator.release();
  }
</script>

<div class="mt-2 grid items-start gap-x-6 gap-y-2 lg:grid-cols-2">
  <LineForm
    {reading}
    id="lift"
    where={false}
    columns="grid-cols-[1fr_auto] items-end"
    hint={side.fixed
      ? 'Found and fixed: no start value moves it. A new reading still counts.'
      : 'Square on the rest; read the arrow’s underside at the string.'}
  >
    {#snippet children(record)}
      <LineInput
        {reading}
        name="lift"
        form="lift"
        label="Lift, underside over square"
        placeholder={side.lift_mm == null ? 'e.g. 3.5mm' : figure(gap(side.lift_mm))}
        control="height"
      />
      {@render record()}
    {/snippet}
  </LineForm>
  <div class="flex flex-wrap items-center gap-3 pt-1 lg:pt-7">
    {#if locator.moved}
      <button class="act act-strong" onclick={take}>Record {figure(gap(locator.lift))}</button>
      <button class="quiet" onclick={locator.release}>put it back</button>
    {:else if side.fixed}
      <span><strong>Found and fixed.</strong></span>
      <button class="quiet" disabled={fixing.busy} onclick={() => fix(false)}
        >let it move again</button
      >
    {:else if side.lift_mm != null}
      <span class="text-soft">Drag the red locator, or move it with the arrow keys.</span>
      <button class="act" disabled={fixing.busy} onclick={() => fix(true)}
        >It is found: fix it</button
      >
    {:else}
      <span class="text-soft">
        Set it at {figure(gap(side.start_mm))} and shoot six; flight finds it.
      </span>
    {/if}
    {#if fixing.problem}<ProblemNote problem={fixing.problem} id="problem-fix" />{/if}
  </div>
</div>
