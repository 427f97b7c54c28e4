<script lang="ts">
  import type { SpeedHearing } from '../../lib/api';
  import { slid } from '../keys';
  import { across, waveOf } from './trace';
  import { dragged } from '../dragged';

  type Shot = SpeedHearing['shots'][number];
  let {
    shot,
    onmove,
  }: {
    shot: Shot;
    /** Both marks as they were put [s of the recording]. */
    onmove: (release_s: number, strike_s: number) => void;
  } = $props();

  const FROM = -100;
  const TO = 1000;
  let width = $state(720);
  const W = $derived(Math.max(width, 100));
  const H = 46;
  const STEP = 0.1;
  /** Held marks, in ms after the release as it is drawn; null where it stands as heard. */
  let held = $state<{ which: 'release' | 'strike'; ms: number } | null>(null);

  const strikeAt = $derived(shot.strike_s == null ? null : 1000 * (shot.strike_s - shot.release_s));
  const at = (which: 'release' | 'strike') =>
    held?.which === which ? held.ms : which === 'release' ? 0 : (strikeAt ?? 400);
  const other = $derived(shot.other_s == null ? null : 1000 * (shot.other_s - shot.release_s));

  function letGo() {
    if (!held) return;
    const release = shot.release_s + at('release') / 1000;
    const strike = shot.release_s + at('strike') / 1000;
    held = null;
    onmove(Math.max(release, 0), Math.max(strike, 0));
  }
  function drag(x: number, which: 'release' | 'strike') {
    const ms = FROM + (x / W) * (TO - FROM);
    held = { which, ms: Math.round(Math.min(Math.max(ms, FROM), TO) * 10) / 10 };
  }
  function key(event: KeyboardEvent, which: 'release' | 'strike') {
    const to = slid(event, { now: at(which), step: STEP, page: 5, low: FROM, high: TO });
    if (to !== null) held = { which, ms: Math.round(to * 10) / 10 };
    else if (event.key === 'Enter') letGo();
    else if (event.key === 'Escape') held = null;
  }
</script>

<div bind:clientWidth={width}>
  <svg viewBox="0 0 {W} {H}">
    <path class="wave" class:off={!shot.counts} d={waveOf(shot.trace, W, H)} />
    {#if other !== null}
      <line
        class="other"
        x1={across(other, W, FROM, TO)}
        x2={across(other, W, FROM, TO)}
        y1="0"
        y2={H}
      />
    {/if}
    {#each ['release', 'strike'] as const as which (which)}
      {@const x = across(at(which), W, FROM, TO)}
      <g
        class="handle"
        class:missing={which === 'strike' && strikeAt === null && held === null}
        role="slider"
        tabindex="0"
        aria-label="{which === 'release'
          ? 'Release'
          : 'Strike'} of shot {shot.number}, milliseconds after the release as heard"
        aria-valuemin={FROM}
        aria-valuemax={TO}
        aria-valuenow={Math.round(at(which) * 10) / 10}
        {...dragged((at) => drag(at.x, which))}
        onpointerup={letGo}
        onkeydown={(event) => key(event, which)}
        onblur={letGo}
      >
        <rect x={x - 14} y="0" width="28" height={H} fill="transparent" />
        <line x1={x} x2={x} y1="0" y2={H} />
        <circle cx={x} cy={which === 'release' ? 7 : H - 7} r="5" />
      </g>
    {/each}
  </svg>
</div>

<style>
  svg {
    display: block;
    width: 100%;
    height: 46px;
    overflow: visible;
  }
  .wave {
    fill: var(--ink);
    stroke: var(--ink);
    stroke-width: 0.4;
  }
  .off {
    fill: var(--soft);
    stroke: var(--soft);
    opacity: 0.4;
  }
  .other {
    stroke: var(--amber);
    stroke-dasharray: 3 3;
  }
  .handle {
    cursor: ew-resize;
    touch-action: none;
  }
  .handle line {
    stroke: var(--red);
    stroke-width: 1.5;
  }
  .handle circle {
    fill: var(--red);
    stroke: var(--paper);
    stroke-width: 1.5;
  }
  .missing line {
    stroke-dasharray: 3 3;
  }
  .missing circle {
    fill: var(--paper);
    stroke: var(--red);
  }
</style>
