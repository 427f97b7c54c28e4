<script lang="ts">
  import type { ShotDrawing, ShownArrow } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { spine } from '../../lib/units';
  import BendArrow from './BendArrow.svelte';
  import { arrowPath, layOut } from './view.svelte';

  let {
    drawing,
    arrow,
    frame,
    pressed,
    onchoose,
  }: {
    drawing: ShotDrawing;
    arrow: ShownArrow;
    frame: number;
    pressed: boolean;
    onchoose: () => void;
  } = $props();

  const WORDS = { own: 'Yours', matched: 'Matched', weak: 'Too weak', stiff: 'Too stiff' };
  const CLEAR = { clear: 'tail clear', marginal: 'tail brushes', slap: 'tail slaps' };

  let width = $state(170);
  const W = $derived(Math.max(width, 120));
  const H = 84;
  const line = $derived(drawing.outward_is_left ? H * 0.62 : H * 0.38);
  const stage = $derived(layOut(drawing, W, line, 8));
  const centre = $derived(stage.y((drawing.face_mm + drawing.diameter_mm / 2) * 10));
  const plate = $derived(arrow.plate_n[frame] ?? 0);
</script>

<button class="panel" aria-pressed={pressed} onclick={onchoose}>
  <span class="head">
    <strong>{WORDS[arrow.which]}</strong>
    <span class="text-soft">{figure(spine(arrow.spine_lbf))}</span>
  </span>
  <span class="picture" bind:clientWidth={width}>
    <svg viewBox="0 0 {W} {H}" class="block w-full" aria-hidden="true">
      <line
        x1="0"
        x2={W}
        y1={stage.y(0)}
        y2={stage.y(0)}
        stroke="var(--line)"
        stroke-dasharray="6 3 1.5 3"
      />
      <rect
        x={stage.x(-8)}
        width={stage.x(34) - stage.x(-8)}
        y={drawing.outward_is_left ? centre : centre - 22}
        height="22"
        fill="var(--wood)"
      />
      <path
        d={arrowPath(drawing, arrow.aside, drawing.pass_frame, stage)}
        fill="none"
        stroke="var(--wood-line)"
        opacity="0.3"
      />
      <BendArrow {drawing} aside={arrow.aside} {frame} {stage} small />
      {#if plate > 0.5}
        <circle cx={stage.x(0)} cy={centre} r="4" fill="var(--red)" />
      {/if}
    </svg>
  </span>
  <span class="text-sm text-soft" class:text-red={arrow.clearance === 'slap'}>
    {CLEAR[arrow.clearance]}
  </span>
</button>

<style>
  .panel {
    display: flex;
    flex-direction: column;
    gap: 0.15rem;
    min-width: 0;
    text-align: left;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 0.4rem 0.6rem;
  }
  .panel:hover {
    background: var(--raised);
  }
  .panel[aria-pressed='true'] {
    border-color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--ink);
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    column-gap: 0.5rem;
  }
  .picture {
    display: block;
  }
</style>
