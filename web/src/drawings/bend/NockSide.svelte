<script lang="ts">
  import type { ShotDrawing } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';
  import BendArrow from './BendArrow.svelte';
  import { layOut } from './view.svelte';

  let { drawing, frame }: { drawing: ShotDrawing; frame: number } = $props();

  let width = $state(300);
  const W = $derived(Math.max(width, 200));
  const H = 70;
  // seen from the side, up is up whichever hand draws
  const stage = $derived(layOut({ ...drawing, outward_is_left: true }, W, H * 0.5));
  const nock = $derived((drawing.side.aside[frame]?.[0] ?? 0) / 10);
</script>

<figure bind:clientWidth={width}>
  <svg viewBox="0 0 {W} {H}" class="w-full" role="img" aria-labelledby="side-says">
    <line x1="0" x2={W} y1={stage.y(0)} y2={stage.y(0)} stroke="var(--line)" />
    <rect
      x={stage.x(-8)}
      width={stage.x(34) - stage.x(-8)}
      y={stage.y(0)}
      height="30"
      fill="var(--wood)"
    />
    <BendArrow {drawing} aside={drawing.side.aside} {frame} {stage} small />
  </svg>
  <figcaption id="side-says" class="text-sm text-soft">
    From the side: nock {figure(gap(Math.abs(nock)))}
    {nock < 0 ? 'below' : 'above'} the rest; set {figure(gap(drawing.side.nock_height_mm))} over square{drawing
      .side.read
      ? ''
      : ', where most begin'}. Trend only.
  </figcaption>
</figure>
