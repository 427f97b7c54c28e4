<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import WhenAsked from '../../components/WhenAsked.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { M_PER_YD } from '../../lib/units.gen';
  import { api, type EntryDraft, type TablesBoard } from '../../lib/api';
  import { AskedOfRig } from '../../lib/asked.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { sayDay } from '../../lib/days';
  import { tell } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import CrawlsHead from './CrawlsHead.svelte';
  import NoCrawls from './NoCrawls.svelte';

  type Line = TablesBoard['tables'][number];

  const asked: AskedOfRig<TablesBoard> = new AskedOfRig<TablesBoard>((rig) =>
    api.crawlTables(rig),
  ).follow();
  const pressed = new Recording();
  const per = $derived(asked.data?.unit === 'yd' ? M_PER_YD : 1);
  const signed = (value: number) => `${value < 0 ? '−' : ''}${Math.abs(Math.round(value))}`;
  const apart = (value: number) =>
    Math.round(value) === 0 ? 'the same' : `${value > 0 ? '+' : '−'}${Math.abs(Math.round(value))}`;

  /** Put a table's arrows on and hold as it was held: only what is otherwise now. */
  function take(line: Line, standing: Line) {
    const rig = openRig.rig ?? '';
    const fitted = openRig.assessment?.fitted.find((part) => part.part === 'archer')?.id;
    const drafts: EntryDraft[] = [];
    if (line.arrow_set && line.arrow_set !== standing.arrow_set)
      drafts.push({
        subject: { kind: 'rig', id: rig },
        reading: { kind: 'part_fitted', part: 'arrow_set', part_id: line.arrow_set },
      });
    if (fitted && line.anchor !== standing.anchor)
      drafts.push({
        subject: { kind: 'archer', id: fitted },
        reading: { kind: 'anchor_chosen', anchor: line.anchor },
      });
    if (fitted && line.hold !== standing.hold)
      drafts.push({
        subject: { kind: 'archer', id: fitted },
        reading: { kind: 'hold_chosen', hold: line.hold },
      });
    void pressed.record(drafts, null, `${line.arrows}, ${line.held}`);
  }
</script>

<WhenReady key="crawls">
  {#snippet children(_, stage, page)}
    <CrawlsHead {stage} {page} />
    <WhenAsked {asked}>
      {#snippet children(board)}
        {@const standing = board.tables[0]}
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="wide" tabindex="0" role="region" aria-label="Tables side by side">
          <table class="rows">
            <thead>
              <tr>
                <th>Arrows, anchor and hold</th>
                <th class="num">crawls</th>
                <th class="num">good to</th>
                <th class="num">point-on</th>
                {#each board.distances as at (at)}<th class="num whitespace-nowrap">{at}</th>{/each}
                <th><span class="sr-only">Take</span></th>
              </tr>
            </thead>
            <tbody>
              {#each board.tables as line (line.key)}
                <tr class:stands={line.stands}>
                  <th scope="row">
                    {line.arrows}
                    <span class="block text-sm font-normal text-soft">{line.held}</span>
                    {#if line.last}
                      <span class="block text-sm font-normal text-soft">{sayDay(line.last)}</span>
                    {/if}
                    {#if line.since}
                      <span class="block text-sm font-normal text-amber"
                        >in doubt: {tell(line.since)}</span
                      >
                    {:else if line.begun_from && line.marks < 2}
                      <span class="block text-sm font-normal text-soft"
                        >begins from {line.begun_from}: eye and speed</span
                      >
                    {/if}
                  </th>
                  <td class="num">{line.marks}</td>
                  <td class="num whitespace-nowrap">
                    {line.half_mm == null ? '–' : `± ${line.half_mm.toFixed(0)} mm`}
                  </td>
                  <td class="num whitespace-nowrap">
                    {line.point_on_m == null
                      ? '–'
                      : `${(line.point_on_m / per).toFixed(0)} ± ${((line.point_on_half_m ?? 0) / per).toFixed(0)} ${board.unit}`}
                  </td>
                  {#each line.cells as cell, at (at)}
                    <td class="num whitespace-nowrap" class:text-soft={(cell?.crawl_mm ?? 0) < 0}>
                      {#if cell}
                        {signed(cell.crawl_mm)}
                        {#if cell.deeper_mm != null}
                          <span class="block text-sm text-soft">{apart(cell.deeper_mm)}</span>
                        {/if}
                      {:else}–{/if}
                    </td>
                  {/each}
                  <td class="text-right whitespace-nowrap">
                    {#if line.stands}
                      <span class="font-semibold">stands now</span>
                    {:else if standing}
                      <button
                        class="act"
                        disabled={pressed.busy}
                        onclick={() => take(line, standing)}>Shoot this one</button
                      >
                    {/if}
                  </td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
        {#if pressed.problem}<ProblemNote problem={pressed.problem} id="problem-tables" />{/if}
        <p class="mt-2 text-sm text-soft">
          Crawls in mm; under each, what it is deeper (+) than the table that stands. Other arrows
          begin where these left the height of your eye and the bow's speed, each with its own mass:
          one crawl then tells as much as two.
          {#if board.tables.length === 1}
            Put another set on under Fitted now, or change the anchor, and its table stands beside
            this one.
          {/if}
        </p>
      {/snippet}
    </WhenAsked>
    <Cautions {stage} />
  {/snippet}
  {#snippet none()}<NoCrawls />{/snippet}
</WhenReady>

<style>
  .wide {
    overflow-x: auto;
  }
  .num {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  tbody th {
    font-weight: 600;
    color: var(--ink);
    text-align: left;
    min-width: 11rem;
  }
  .stands {
    background: color-mix(in srgb, var(--ink) 4%, var(--paper));
  }
</style>
