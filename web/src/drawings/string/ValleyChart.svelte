<script lang="ts">
  import { area, line } from 'd3-shape';
  import { figure, preferences } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';
  import { lengthTicks, lengthUnit } from '../axis';
  import BottomAxis from '../BottomAxis.svelte';
  import type { Handle } from './valley.svelte';
  import { dragged } from '../dragged';
  import Hatch from '../Hatch.svelte';
  import PlotFigure from '../PlotFigure.svelte';
  import { Plot } from '../plot.svelte';

  let { handle, onenter }: { handle: Handle; onenter: () => void } = $props();

  const valley = $derived(handle.valley);
  const plot = new Plot(400, { left: 28, right: 20, top: 44, bottom: 66 });

  interface Sample {
    brace: number;
    points: number;
    sd: number;
  }
  const samples = $derived(
    valley.points.map((points, i): Sample => ({
      brace: valley.braces_mm[i] ?? 0,
      points,
      sd: valley.points_sd[i] ?? 0,
    })),
  );
  const marks = $derived(
    valley.shots
      .flatMap((shot) => [shot.sound_at, shot.shock_at, shot.recorded_at])
      .filter((at) => at != null),
  );
  const top = $derived(
    Math.min(Math.max(3, ...samples.map((s) => s.points + s.sd), ...marks) + 0.3, 6.5),
  );
  const bottom = $derived(Math.min(-0.6, ...marks) - 1);
  const x = $derived(plot.x(handle.first, handle.last));
  const y = $derived(plot.y(bottom, top));
  const clamp = (points: number) => Math.min(Math.max(points, bottom), top);
  const band = $derived(
    area<Sample>(
      (s) => x(s.brace),
      (s) => y(clamp(Math.max(s.points - s.sd, 0))),
      (s) => y(clamp(s.points + s.sd)),
    )(samples),
  );
  const path = $derived(
    line<Sample>(
      (s) => x(s.brace),
      (s) => y(clamp(s.points)),
    )(samples),
  );
  const quiet = $derived(valley.quiet_mm ?? null);
  /** Between two spots that fit as well nothing is said. */
  const spread = $derived(valley.other_mm == null ? 2 * (valley.quiet_sd_mm ?? 0) : 0);
  const floor = $derived(plot.floor - 16);
  const words = $derived(
    handle.moved
      ? 'another height'
      : valley.enough
        ? 'quiet spot'
        : valley.next_mm == null
          ? 'start here'
          : 'next',
  );
  const labelLeft = $derived(x(handle.at) > plot.across - 110);

  function key(event: KeyboardEvent) {
    if (event.key === 'Enter') {
      event.preventDefault();
      onenter();
    } else handle.key(event);
  }
</script>

<PlotFigure {plot} label="Ratings over brace, in points worse than the quiet spot" dragged>
  <Hatch id="outside" stroke="var(--line)" />
  <text x="0" y="12" class="soft">points worse than the quiet spot</text>
  <text x={plot.right} y="30" text-anchor="end" class="soft">
    {valley.told ? "maker's range" : 'usual range'}
    {figure(mm(valley.low_mm))} to {figure(mm(valley.high_mm))}
  </text>
  {#each [[handle.first, valley.low_mm], [valley.high_mm, handle.last]] as [from = 0, to = 0], i (i)}
    <rect
      x={x(from)}
      y={plot.top}
      width={Math.max(x(to) - x(from), 0)}
      height={plot.floor - plot.top}
      fill="url(#outside)"
    />
  {/each}
  {#each [0, 1, 2, 3, 4, 5, 6].filter((at) => at <= top) as at (at)}
    <line x1={plot.left} x2={plot.right} y1={y(at)} y2={y(at)} stroke="var(--faint)" />
    <text x={plot.left - 10} y={y(at)} dy="4" text-anchor="end" class="soft">{at}</text>
  {/each}
  {#if samples.length}
    <path d={band} fill="var(--blue)" opacity="0.18" />
    <path d={path} fill="none" stroke="var(--ink)" stroke-width="2" />
  {/if}
  {#each valley.shots as shot (shot.entry_id)}
    {#each shot.sound_shots as at, i (i)}
      <circle cx={x(shot.brace_mm) - 8 + 3 * (i - 1)} cy={y(clamp(at))} r="1.8" class="dot" />
    {/each}
    {#each shot.shock_shots as at, i (i)}
      <circle cx={x(shot.brace_mm) + 8 + 3 * (i - 1)} cy={y(clamp(at))} r="1.8" class="dot" />
    {/each}
    {#if shot.sound_at != null}
      <circle cx={x(shot.brace_mm) - 8} cy={y(clamp(shot.sound_at))} r="5.5" class="mark" />
    {/if}
    {#if shot.recorded_at != null}
      {@const top = y(clamp(shot.recorded_at)) - 6}
      <path d="M{x(shot.brace_mm)},{top}l6.5,11h-13z" class="mark" />
    {/if}
    {#if shot.shock_at != null}
      <rect
        x={x(shot.brace_mm) + 3}
        y={y(clamp(shot.shock_at)) - 5}
        width="10"
        height="10"
        class="mark"
      />
    {/if}
  {/each}
  {#if quiet !== null}
    <rect
      x={x(Math.max(quiet - spread, handle.first))}
      y={floor - 5}
      width={x(Math.min(quiet + spread, handle.last)) - x(Math.max(quiet - spread, handle.first))}
      height="10"
      fill="var(--green)"
      opacity="0.4"
    />
    {#each [quiet, ...(valley.other_mm == null ? [] : [valley.other_mm])] as spot (spot)}
      <line x1={x(spot)} x2={x(spot)} y1={floor - 7} y2={floor + 7} class="quiet-mark" />
    {/each}
  {/if}
  <line x1={plot.left} x2={plot.right} y1={plot.floor} y2={plot.floor} stroke="var(--ink)" />
  <BottomAxis
    ticks={lengthTicks(handle.first, handle.last, 7, preferences.units)}
    {x}
    y={plot.floor}
    gap={36}
  />
  {#if valley.now_mm != null && valley.now_mm > handle.first && valley.now_mm < handle.last}
    <path d="M{x(valley.now_mm)} {plot.floor + 2}l-6 11h12Z" fill="var(--wood-line)" />
  {/if}
  <line
    x1={x(handle.at)}
    x2={x(handle.at)}
    y1={plot.top + 8}
    y2={plot.floor}
    stroke="var(--red)"
    stroke-width="1.5"
    stroke-dasharray="4 4"
  />
  <text
    x={x(handle.at) + (labelLeft ? -6 : 6)}
    y={plot.top + 14}
    text-anchor={labelLeft ? 'end' : 'start'}
    class="next">{words} {figure(mm(handle.at))}</text
  >
  <circle
    role="slider"
    tabindex="0"
    aria-label="Brace to try"
    aria-valuemin={valley.low_mm}
    aria-valuemax={valley.high_mm}
    aria-valuenow={handle.at}
    aria-valuetext={figure(mm(handle.at))}
    cx={x(handle.at)}
    cy={plot.floor}
    r="9"
    class="handle"
    {...dragged((at) => handle.hold(x.invert(at.x)))}
    onkeydown={key}
  />
  <text x={plot.left} y={plot.height - 6} class="soft"
    >○ sound □ hand shock {valley.shots.some((shot) => shot.recorded) ? '△ recorded ' : ''}· one
    shot ▴ now</text
  >
  <text x={plot.right} y={plot.height - 6} text-anchor="end" class="soft">
    brace, {lengthUnit(preferences.units)}
  </text>
</PlotFigure>

<style>
  .next {
    font-weight: 600;
  }
  .dot {
    fill: var(--soft);
  }
  .mark {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .quiet-mark {
    stroke: var(--green);
    stroke-width: 2;
  }
  .handle {
    fill: var(--red);
    stroke: var(--paper);
    stroke-width: 3;
    cursor: ew-resize;
    touch-action: none;
  }
</style>
