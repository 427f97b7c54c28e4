<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { PageOf } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { NOCK_FLIGHTS } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { gap, mm } from '../../lib/units';

  let { side }: { side: PageOf<'nock'>['side'] } = $props();

  const WORDS: Record<string, string> = Object.fromEntries(NOCK_FLIGHTS);
  const recording = new Recording();

  function flew(word: (typeof NOCK_FLIGHTS)[number][0], says: string) {
    if (side.lift_mm == null || !openRig.rig) return;
    const subject = { kind: 'rig' as const, id: openRig.rig };
    const reading = { kind: 'nock_shot' as const, lift_mm: side.lift_mm, flew: word };
    void recording.record([{ subject, reading }], null, `${figure(gap(side.lift_mm))}: ${says}`);
  }
</script>

{#if side.shots.length}
  <table class="rows mt-1">
    <thead>
      <tr
        ><th>Lift</th><th>Brace</th><th>What the flight said</th><th
          ><span class="sr-only">Take back</span></th
        ></tr
      >
    </thead>
    <tbody>
      {#each side.shots as shot (shot.entry_id)}
        <tr>
          <td class="font-semibold whitespace-nowrap">{figure(gap(shot.lift_mm))}</td>
          <td class="whitespace-nowrap">
            {shot.brace_mm == null ? '–' : figure(mm(shot.brace_mm))}
          </td>
          <td>
            {WORDS[shot.flew]}
            {#if shot.in_flight}<span class="text-sm text-soft">seen in Flight</span>{/if}
          </td>
          <td class="text-right">
            <TakeBack entry={shot.entry_id} what={figure(gap(shot.lift_mm))} />
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
{:else}
  <p class="mt-1 text-soft">None yet.</p>
{/if}
{#if side.lift_mm != null}
  <p class="label mt-3">At {figure(gap(side.lift_mm))} it flew</p>
  <div class="mt-1 flex flex-wrap gap-2">
    {#each NOCK_FLIGHTS as [word, says] (word)}
      <button class="act" disabled={recording.busy} onclick={() => flew(word, says)}>{says}</button>
    {/each}
  </div>
  {#if recording.problem}<ProblemNote problem={recording.problem} id="problem-flew" />{/if}
{/if}
