<script lang="ts">
  import { figure } from '../../lib/preferences.svelte';
  import { NEWTONS_PER_LBF, gap, lbf, millis } from '../../lib/units';
  import BendArrow from './BendArrow.svelte';
  import { arrowPath, fletchingBeside, layOut, roomAtPlate, type BendView } from './view.svelte';

  let { view }: { view: BendView } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 320));
  const H = $derived(Math.max(190, Math.round(W * 0.338)));
  const drawing = $derived(view.drawing);
  const line = $derived(drawing.outward_is_left ? H * 0.64 : H * 0.36);
  const stage = $derived(layOut(drawing, W, line));
  const arrow = $derived(view.arrow);
  const up = $derived(drawing.outward_is_left);
  const centre = $derived(stage.y((drawing.face_mm + drawing.diameter_mm / 2) * 10));
  const grip = $derived({ x: stage.x(-8), width: stage.x(34) - stage.x(-8), deep: 62 });
  const onString = $derived(view.frame < drawing.exit_frame);
  const nock = $derived(drawing.nock_mm[view.frame] ?? 0);
  const stringAt = $derived(onString ? nock : -drawing.brace_mm);
  const plate = $derived(arrow?.plate_n[view.frame] ?? 0);
  const room = $derived(arrow ? roomAtPlate(drawing, arrow, view.frame) : null);
  const ghosts = $derived([0, 0.25, 0.5, 0.75, 1].map((share) => Math.round(share * view.last)));
  const says = $derived.by(() => {
    if (room === null) return 'Clear of the bow.';
    if (plate > 0.5) return `Presses on the plate, ${figure(lbf(plate / NEWTONS_PER_LBF))}.`;
    const beside = fletchingBeside(drawing, view.frame) ? 'fletching' : 'shaft';
    return room < 0.05
      ? `The ${beside} touches the plate.`
      : `${figure(gap(room))} of room at the ${beside}.`;
  });
</script>

<figure bind:clientWidth={width}>
  <svg viewBox="0 0 {W} {H}" class="w-full" role="img" aria-labelledby="bend-says">
    <line
      x1="0"
      x2={W}
      y1={stage.y(0)}
      y2={stage.y(0)}
      stroke="var(--line)"
      stroke-dasharray="10 4 2 4"
    />
    <text x={W} y={stage.y(0) + (up ? 16 : -8)} text-anchor="end" class="soft">
      line of the string
    </text>
    {#each arrow ? ghosts : [] as ghost (ghost)}
      {#if ghost !== view.frame && arrow}
        <path
          d={arrowPath(drawing, arrow.aside, ghost, stage)}
          fill="none"
          stroke="var(--wood-line)"
          stroke-width="1.6"
          opacity="0.25"
        />
      {/if}
    {/each}
    <g>
      <path
        d={up
          ? `M${grip.x} ${centre} h${grip.width} v${grip.deep} q${-grip.width / 2} 14 ${-grip.width} 0 z`
          : `M${grip.x} ${centre} h${grip.width} v${-grip.deep} q${-grip.width / 2} -14 ${-grip.width} 0 z`}
        fill="var(--wood)"
        stroke="var(--ink)"
        stroke-width="1"
      />
      <text
        x={grip.x + grip.width + 10}
        y={centre + (up ? grip.deep - 8 : -grip.deep + 16)}
        class="soft">riser</text
      >
    </g>
    {#if stage.x(stringAt) > 0}
      <circle
        cx={stage.x(stringAt)}
        cy={onString && arrow ? stage.y(arrow.aside[view.frame]?.[0] ?? 0) : stage.y(0)}
        r="3.4"
        fill="var(--paper)"
        stroke="var(--ink)"
        stroke-width="1.4"
      />
    {/if}
    {#if arrow}
      <BendArrow {drawing} aside={arrow.aside} frame={view.frame} {stage} />
    {/if}
    {#if plate > 0.5}
      <path
        d={up
          ? `M${stage.x(0)} ${centre + 3} l-7 13 h14 z`
          : `M${stage.x(0)} ${centre - 3} l-7 -13 h14 z`}
        fill="var(--red)"
      />
    {/if}
    <text x="0" y="16" class="strong">{figure(millis(view.time))}</text>
    <text x="0" y="34" class="soft">{onString ? 'on the string' : 'free of the string'}</text>
    <text x={W} y={up ? 16 : H - 6} text-anchor="end" class="soft">
      {drawing.outward_is_left ? 'left of the bow' : 'right of the bow'}
      {up ? '↑' : ''}
    </text>
  </svg>
  <figcaption id="bend-says" class="text-sm text-soft">
    {says} From above, to scale along; bending drawn five times wider, the shaft as its centreline.
  </figcaption>
</figure>

<style>
  .strong {
    font-weight: 600;
    font-size: 17px;
  }
</style>
