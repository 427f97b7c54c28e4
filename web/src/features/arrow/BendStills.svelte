<script lang="ts">
  import BendArrow from '../../drawings/bend/BendArrow.svelte';
  import { layOut, type BendView } from '../../drawings/bend/view.svelte';
  import type { ShotDrawing } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { millis } from '../../lib/units';

  let { drawing, view }: { drawing: ShotDrawing; view: BendView } = $props();

  const W = 220;
  const H = 70;
  const stage = $derived(layOut(drawing, W, drawing.outward_is_left ? H * 0.62 : H * 0.38, 8));
  const centre = $derived(stage.y((drawing.face_mm + drawing.diameter_mm / 2) * 10));
  const frames = $derived(
    [0, 0.3, 0.5, 0.68, 0.84, 1].map((share) => Math.round(share * drawing.pass_frame)),
  );
</script>

<ol class="stills" aria-label="Stills of the shot">
  {#each frames as frame (frame)}
    <li>
      <button onclick={() => view.scrub(frame)} aria-pressed={view.frame === frame}>
        <svg viewBox="0 0 {W} {H}" class="block w-full" aria-hidden="true">
          <line x1="0" x2={W} y1={stage.y(0)} y2={stage.y(0)} stroke="var(--line)" />
          <rect
            x={stage.x(-8)}
            width={stage.x(34) - stage.x(-8)}
            y={drawing.outward_is_left ? centre : centre - 20}
            height="20"
            fill="var(--wood)"
          />
          {#if view.arrow}
            <BendArrow {drawing} aside={view.arrow.aside} {frame} {stage} small />
          {/if}
        </svg>
        <span class="text-sm text-soft">{figure(millis(drawing.times_ms[frame] ?? 0))}</span>
      </button>
    </li>
  {/each}
</ol>

<style>
  .stills {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(7rem, 1fr));
    gap: 0.5rem;
    margin-bottom: 0.8rem;
  }
  button {
    width: 100%;
    text-align: left;
    border-bottom: 2px solid transparent;
  }
  button[aria-pressed='true'] {
    border-color: var(--ink);
  }
</style>
