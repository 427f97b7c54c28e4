<script lang="ts">
  import MoreMenu from '@lucide/svelte/icons/archive';
  import Restore from '@lucide/svelte/icons/archive-restore';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { QuiverRow, ReadingOf } from '../../lib/api';
  import { recorder } from '../../lib/recorder.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { gap, gr, spine } from '../../lib/units';
  import { drafts, inUse } from './quiver.svelte';

  let { rows, chosen, offTheHand }: { rows: QuiverRow[]; chosen: number[]; offTheHand: boolean } =
    $props();

  /** Where the arrow lies on the hand every quill is looked at; elsewhere what was told is shown. */
  const quills = $derived(offTheHand || rows.some((row) => row.quill != null));

  const unseen = $derived(rows.filter((row) => inUse(row) && row.safety === 'not_looked'));

  function state(row: QuiverRow): string {
    if (row.safety === 'cracked') return row.retired ? 'cracked, retired' : 'cracked';
    if (row.retired) return 'retired';
    return row.safety === 'sound' ? 'sound' : 'not looked at';
  }
  const unbound = $derived(offTheHand ? rows.filter((row) => inUse(row) && row.quill == null) : []);
  const recording = new Recording();

  function allBound() {
    const readings = unbound.map(
      ({ number }) => ({ kind: 'numbered_arrow', arrow_number: number, quill: 'bound' }) as const,
    );
    void recording.record(drafts(readings), 'arrow_set', `${unbound.length} quills bound`);
  }

  function tell(
    row: QuiverRow,
    told: Omit<Partial<ReadingOf<'numbered_arrow'>>, 'kind' | 'arrow_number'>,
    says: string,
  ) {
    const reading = { ...told, kind: 'numbered_arrow' as const, arrow_number: row.number };
    void recording.record(drafts([reading]), 'arrow_set', `Arrow ${row.number}: ${says}`);
  }

  function allSound() {
    const readings = unseen.map(
      ({ number }) => ({ kind: 'numbered_arrow', arrow_number: number, state: 'sound' }) as const,
    );
    void recording.record(drafts(readings), 'arrow_set', `${unseen.length} flexed and looked at`);
  }
</script>

{#if rows.length}
  <div class="scroll">
    <table class="rows mt-1">
      <thead>
        <tr>
          <th>No.</th><th>Mass</th><th>Spine</th><th class="wide">Run-out</th><th class="wide"
            >Nock</th
          ><th>Flexed</th>{#if quills}<th>Quills</th>{/if}
          <th class="wide">Remark</th><th><span class="sr-only">Do</span></th>
        </tr>
      </thead>
      <tbody>
        {#each rows as row (row.number)}
          <tr class:out={!inUse(row)}>
            <td class="font-semibold whitespace-nowrap">
              {row.number}{#if chosen.includes(row.number)}<span class="chosen" title="chosen"
                  ><span class="sr-only">chosen</span></span
                >{/if}
            </td>
            <td class="whitespace-nowrap">{row.mass_gr == null ? '–' : figure(gr(row.mass_gr))}</td>
            <td class="whitespace-nowrap">
              {row.spine_lbf == null ? '–' : figure(spine(row.spine_lbf))}
            </td>
            <td class="wide whitespace-nowrap">
              {row.straight_mm == null ? '–' : figure(gap(row.straight_mm))}
            </td>
            <td class="wide whitespace-nowrap">
              {row.nock_turn_deg == null ? '–' : `${row.nock_turn_deg.toFixed(0)}°`}
            </td>
            <td class="whitespace-nowrap" class:text-red={row.safety === 'cracked'}>
              {#if inUse(row) && row.safety === 'not_looked'}
                <button
                  class="quiet"
                  disabled={recorder.isSending(row.number)}
                  onclick={() => tell(row, { state: 'sound' }, 'sound')}
                  >sound<span class="sr-only">, arrow {row.number}</span></button
                >
                <button
                  class="quiet"
                  disabled={recorder.isSending(row.number)}
                  onclick={() => tell(row, { state: 'cracked' }, 'cracked')}
                  >cracked<span class="sr-only">, arrow {row.number}</span></button
                >
              {:else}
                {state(row)}
                {#if inUse(row)}
                  <button
                    class="quiet"
                    disabled={recorder.isSending(row.number)}
                    onclick={() => tell(row, { state: 'cracked' }, 'cracked')}
                    >cracked?<span class="sr-only"> arrow {row.number}</span></button
                  >
                {/if}
              {/if}
            </td>
            {#if quills}
              <td class="whitespace-nowrap" class:text-red={row.quill === 'lifts'}>
                {row.quill === 'lifts' ? 'lifts' : row.quill === 'bound' ? 'bound' : ''}
                {#if inUse(row)}
                  {#if row.quill !== 'bound'}
                    <button
                      class="quiet"
                      disabled={recorder.isSending(row.number)}
                      onclick={() => tell(row, { quill: 'bound' }, 'quills bound')}
                      >bound<span class="sr-only">, arrow {row.number}</span></button
                    >
                  {/if}
                  {#if row.quill !== 'lifts'}
                    <button
                      class="quiet"
                      disabled={recorder.isSending(row.number)}
                      onclick={() => tell(row, { quill: 'lifts' }, 'a quill lifts')}
                      >{row.quill === 'bound' ? 'lifts?' : 'lifts'}<span class="sr-only"
                        >, arrow {row.number}</span
                      ></button
                    >
                  {/if}
                {/if}
              </td>
            {/if}
            <td class="wide text-soft">{row.remark ?? ''}</td>
            <td class="text-right">
              {#if row.retired && row.safety !== 'cracked'}
                <button
                  class="act px-2"
                  title="Back into the set"
                  disabled={recorder.isSending(row.number)}
                  onclick={() => tell(row, { retired: false }, 'back in the set')}
                >
                  <Restore size={17} aria-hidden="true" /><span class="sr-only"
                    >Back into the set, arrow {row.number}</span
                  >
                </button>
              {:else if !row.retired}
                <button
                  class="act px-2"
                  title="Retire"
                  disabled={recorder.isSending(row.number)}
                  onclick={() => tell(row, { retired: true }, 'retired')}
                >
                  <MoreMenu size={17} aria-hidden="true" /><span class="sr-only"
                    >Retire arrow {row.number}</span
                  >
                </button>
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if recording.problem}
    <ProblemNote problem={recording.problem} id="problem-quiver-list" />
  {/if}
  {#if unseen.length || unbound.length}
    <p class="mt-2 flex flex-wrap gap-2">
      {#if unseen.length}
        <button class="act" disabled={recording.busy} onclick={allSound}>
          All {unseen.length} flexed, looked at, sound
        </button>
      {/if}
      {#if unbound.length}
        <button class="act" disabled={recording.busy} onclick={allBound}>
          All {unbound.length} quills bound and smooth
        </button>
      {/if}
    </p>
  {/if}
{:else}
  <p class="mt-1 text-soft">No numbered arrows yet. Weigh one, or paste a table below.</p>
{/if}

<style>
  .scroll {
    overflow-x: auto;
  }
  .out td {
    color: var(--soft);
    text-decoration: line-through;
    text-decoration-color: var(--line);
  }
  .out td:last-child,
  .out td:nth-child(6) {
    text-decoration: none;
  }
  .chosen {
    display: inline-block;
    width: 0.5rem;
    height: 0.5rem;
    margin-left: 0.4rem;
    background: var(--green);
    transform: rotate(45deg);
  }
  @media (max-width: 767px) {
    .wide {
      display: none;
    }
  }
</style>
