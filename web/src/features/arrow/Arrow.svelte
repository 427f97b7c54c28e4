<script lang="ts">
  import Fold from '../../components/Fold.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import Strip from '../../components/Strip.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { api, type ShotDrawing, type SpineBoard } from '../../lib/api';
  import { valueOf } from '../../lib/values';
  import ArrowHead from './ArrowHead.svelte';
  import Bend from './Bend.svelte';
  import MovesTable from './MovesTable.svelte';
  import PointCurve from './PointCurve.svelte';
  import { AskedOfRig } from '../../lib/asked.svelte';
  import SpineSchools from './SpineSchools.svelte';
  import Ways from './Ways.svelte';

  const shot = new AskedOfRig<ShotDrawing>(api.shot).follow();
  const board = new AskedOfRig<SpineBoard>(api.spineBoard).follow();

  function ways({ ways: found, own_lbf, low_lbf, high_lbf }: SpineBoard): string {
    if (own_lbf == null) return 'the shafts’ spine is not told';
    if (own_lbf >= low_lbf && own_lbf <= high_lbf) return 'nothing to close';
    return found.length ? `${found.length}, easiest to undo first` : 'none';
  }
</script>

<WhenReady key="arrow">
  {#snippet children(assessment, stage)}
    <ArrowHead {assessment} {stage} />
    {#snippet numbers()}
      <Strip
        values={['matched_spine', 'spine', 'spine_verdict', 'clearance'].map((key) =>
          valueOf(stage, key),
        )}
      />
    {/snippet}
    {#if shot.data}
      <Bend drawing={shot.data} {numbers} />
    {:else if shot.problem}
      <p class="grid h-48 place-items-center border border-dashed border-line p-4 text-soft">
        <span>
          {shot.problem.reason}
          {shot.problem.instruction}
        </span>
      </p>
    {:else}
      <p class="grid h-48 place-items-center text-soft" aria-busy="true">Shooting…</p>
    {/if}
    {#if board.data && (shot.data || shot.problem)}
      <div class="mt-5">
        <Fold name="Ways to close" key="arrow.ways" says={ways(board.data)}>
          <Ways board={board.data} />
        </Fold>
        <Fold name="The sums" key="arrow.sums" says="two schools, and what moves the match">
          <SpineSchools board={board.data} />
          <Strip values={['time_on_string', 'bends'].map((key) => valueOf(stage, key))} />
          {#if board.data.moves.length}
            <div class="mt-6 grid gap-6 lg:grid-cols-2">
              <MovesTable board={board.data} />
              <PointCurve board={board.data} />
            </div>
          {/if}
        </Fold>
      </div>
    {:else if !board.problem && !shot.busy}
      <p class="mt-4 text-soft" aria-busy="true">Shooting the neighbours of this rig…</p>
    {/if}
    <Cautions {stage} />
  {/snippet}
</WhenReady>
