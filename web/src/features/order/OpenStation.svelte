<script lang="ts">
  import ReadingField from '../../components/ReadingField.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { Station } from '../../lib/api';
  import { goTo } from '../../lib/go';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';
  import type { OrderOfWork } from './order.svelte';

  let { order, station }: { order: OrderOfWork; station: Station } = $props();

  let said = $state('');
  const setting = $derived(station.node);
  /** Settings that are held against the archer's own circle. */
  const level = $derived(['bare_rough', 'walk_back', 'bare_final'].includes(station.node));
  const circle = $derived(
    order.data
      ? `${figure(mm(order.data.circle_mm))} at ${order.data.circle_at_m.toFixed(0)} m`
      : null,
  );

  function found(event: SubmitEvent) {
    event.preventDefault();
    const word = said.trim();
    if (!word || !station.found_by_flight) return;
    const node = station.node as 'bare_rough' | 'walk_back' | 'bare_final' | 'fine' | 'crawls';
    order.say({ kind: 'setting_found', setting: node, word }, `${station.name}: ${word}`);
    said = '';
  }
</script>

<div class="px-3 pb-3 md:pl-[7.2rem]">
  <p class:text-soft={!station.why}>{station.why ? tell(station.why) : station.how}</p>
  {#if station.check_minutes != null}
    <div class="mt-2 flex flex-wrap items-center gap-2">
      {#if station.mark !== 'unset'}
        <button
          class="act"
          disabled={order.saying.busy}
          onclick={() =>
            order.say({ kind: 'setting_checked', setting }, `Checked, still so: ${station.name}`)}
          >Measured, still so</button
        >
      {/if}
      {#if !station.found_by_flight}
        <button class="act" onclick={() => goTo({ stage: station.stage, control: station.control })}
          >{station.mark === 'unset' ? 'Set it' : 'Measure anew'}</button
        >
      {/if}
      {#if station.mark !== 'unset' && !station.touched}
        <button
          class="act"
          disabled={order.saying.busy}
          onclick={() =>
            order.say({ kind: 'setting_moved', setting }, `Moved, not measured: ${station.name}`)}
          >It was moved</button
        >
      {/if}
    </div>
    {#if station.found_by_flight}
      <form onsubmit={found} class="mt-2 flex max-w-lg gap-2">
        <label class="sr-only" for="found-{station.node}">How it came out</label>
        <input
          id="found-{station.node}"
          class="field"
          maxlength="60"
          placeholder="How it came out, e.g. level at 18 m"
          bind:value={said}
        />
        <button class="act" disabled={!said.trim() || order.saying.busy}>Record</button>
      </form>
      {#if level && circle}
        <div class="mt-3 max-w-xs">
          <ReadingField
            control="circle"
            label="Level: all in a circle of"
            word="circle"
            example="16cm @ 30m"
            shown={order.data?.circle_told ? circle : null}
            assumed={circle}
          />
        </div>
      {/if}
    {/if}
  {/if}
  {#if order.saying.problem}
    <ProblemNote problem={order.saying.problem} id="problem-order" />
  {/if}
</div>
