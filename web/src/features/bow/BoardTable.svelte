<script lang="ts">
  import type { ChoosingBoard, FamilyBoard } from '../../lib/api';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { deg, gpp, joules, lbf, mm, mps } from '../../lib/units';
  import MarginBar from './MarginBar.svelte';
  import VerdictMark from './VerdictMark.svelte';

  let {
    board,
    family,
    own,
  }: {
    board: ChoosingBoard;
    family: FamilyBoard;
    /** The length of the archer's own bow, when it is of this kind [mm]. */
    own: number | null;
  } = $props();

  const isOwn = (length_mm: number) => own !== null && Math.abs(length_mm - own) < 25;

  /** Schools that say nothing of this kind of bow take no column. */
  const schools = $derived(
    family.schools.filter((school) => school.low_mm != null || school.preferred),
  );
</script>

<section aria-labelledby="lengths" class="mt-4">
  <h2 id="lengths" class="sr-only">Lengths side by side</h2>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="wide" tabindex="0" role="region" aria-label="Table of lengths">
    <table class="rows">
      <thead>
        <tr>
          <th>Length</th>
          {#each schools as school (school.school)}<th class="school">{school.name}</th>{/each}
          <th>Before stack</th>
          <th class="num">Fingers</th>
          <th class="num">Speed</th>
          <th class="num">Stored</th>
          <th class="num">Floor</th>
          <th class="num school">Mark to ask for</th>
        </tr>
      </thead>
      <tbody>
        {#each family.rows as row (row.bow_length_mm)}
          <tr class:best={row.bow_length_mm === family.best_mm} class:dim={row.outside_family}>
            <th scope="row">
              {figure(mm(row.bow_length_mm))}
              {#if isOwn(row.bow_length_mm)}<span class="own">yours</span>{/if}
            </th>
            {#each schools as school (school.school)}
              <td><VerdictMark verdict={row.verdicts[school.school] ?? 'silent'} /></td>
            {/each}
            {#if row.missing}
              <td colspan="6" class="text-sm text-soft">{tell(row.missing)}</td>
            {:else}
              <td><MarginBar {row} {board} /></td>
              <td class="num" class:text-amber={row.pinches}>
                {row.finger_angle_deg == null
                  ? ''
                  : figure(deg(row.finger_angle_deg))}{#if row.pinches}<span class="sr-only"
                    >, pinches</span
                  >{/if}
              </td>
              <td class="num">{row.speed_mps == null ? '' : figure(mps(row.speed_mps))}</td>
              <td class="num">{row.stored_j == null ? '' : figure(joules(row.stored_j))}</td>
              <td class="num">{row.floor_gpp == null ? '' : figure(gpp(row.floor_gpp))}</td>
              <td class="num">{row.mark_lbf == null ? '' : figure(lbf(row.mark_lbf))}</td>
            {/if}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm text-soft">
    <span><VerdictMark verdict="fits" /> fits</span>
    <span><VerdictMark verdict="near" /> near</span>
    <span><VerdictMark verdict="no" /> no</span>
    <span>Speed with {figure(gpp(board.grains_per_pound))}.</span>
    {#if family.rows.some((row) => row.outside_family)}
      <span>Pale: longer or shorter than the kind is made.</span>
    {/if}
  </p>
</section>

<style>
  .wide {
    overflow-x: auto;
  }
  th,
  td {
    white-space: nowrap;
  }
  .school {
    white-space: normal;
    max-width: 4.5rem;
    line-height: 1.15;
    vertical-align: bottom;
  }
  tbody th {
    color: var(--ink);
    font-weight: 600;
    font-size: 1rem;
  }
  .own {
    margin-left: 0.3rem;
    font-size: 0.8rem;
    font-weight: 400;
    color: var(--soft);
  }
  .num {
    text-align: right;
  }
  .best {
    background: var(--raised);
    box-shadow: inset 3px 0 0 var(--ink);
  }
  .best th {
    padding-left: 0.6rem;
  }
  .dim td,
  .dim th {
    color: var(--soft);
    font-weight: 400;
  }
</style>
