<script lang="ts">
  import { figure } from '../../lib/preferences.svelte';
  import { gap, mm } from '../../lib/units';
  import type { Term } from '../../lib/api';
  import NameMarks from '../NameMarks.svelte';
  import type { Locator } from './locator.svelte';
  import { dragged } from '../dragged';
  import Hatch from '../Hatch.svelte';

  let { locator, name, terms = [] }: { locator: Locator; name: string; terms?: Term[] } = $props();

  const side = $derived(locator.side);
  let width = $state(720);
  const W = $derived(Math.max(width, 320));
  const H = 360;
  const PX = 8;
  const SQUARE = 178;
  const narrow = $derived(W < 560);
  /** Heights are drawn as they are, five times what is along the arrow. */
  const y = (height: number) => SQUARE - PX * height;
  const riser = $derived(narrow ? 34 : 60);
  const rest = $derived(riser + 46);
  const string = $derived(narrow ? W - 70 : Math.min(W - 250, 480));

  const lift = $derived(locator.lift);
  const shaft = $derived(side.shaft_mm);
  const tail = $derived(string - 6);
  const under = (x: number) => y((lift * (x - rest)) / (tail - rest));
  const arrow = $derived(
    `M4 ${under(4)}L${tail - 26} ${under(tail - 26)}L${tail - 26} ${under(tail - 26) - PX * shaft}L4 ${
      under(4) - PX * shaft
    }`,
  );
  const nockTop = $derived(y(lift + side.nock_mm));
  const grip = $derived(side.grip_under_rest_mm ?? null);
  const onHand = $derived(side.rest === 'hand');
  const shelf = $derived(side.rest === 'shelf' ? 0 : (side.shelf_under_rest_mm ?? 9));
  /** Top of the hand on its mark, and at full draw. */
  const hand = $derived(-(grip ?? 0));
  const handAtFull = $derived(side.hand_at_full_mm == null ? null : hand + side.hand_at_full_mm);
  const fist = (top: number) =>
    `M${riser - 30} ${y(top) + 62}V${y(top) + 10}q0 -10 10 -10h72q10 0 10 10v52q0 12 -12 12h-68q-12 0 -12 -12Z`;
  /** A left hand's bow is seen from the right: everything but the words is mirrored. */
  const X = $derived((x: number) => (side.mirrored ? W - x : x));
  const toward = $derived(side.mirrored ? 'end' : 'start');
  const away = $derived(side.mirrored ? 'start' : 'end');
  const schools = $derived(
    [
      { key: 'start', words: 'to begin', low: side.start_low_mm, high: side.start_high_mm },
      side.clean && {
        key: 'clean',
        words: 'low as clean',
        low: side.clean.low_mm,
        high: side.clean.high_mm,
      },
      side.bare && {
        key: 'bare',
        words: 'bare shaft',
        low: side.bare.low_mm,
        high: side.bare.high_mm,
      },
    ].filter((one) => one != null),
  );
  const schoolAt = $derived((i: number) => string + 62 + 62 * i);
  const bottom = 328;
  const places = $derived({
    window: [X(riser + 10), 40],
    shelf: [X(riser - 14), y(-shelf) + 34],
    rest: [X(rest), SQUARE + 12],
    square: [X(rest + 110), SQUARE],
    lift: [X(tail - 60), y(lift / 2)],
    locator: [X(string - 22), nockTop - 16],
    arrow_nock: [X(tail - 14), y(lift + side.nock_mm / 2)],
    grip_mark: [X(riser + 10), y(-(grip ?? 16))],
    to_nock: [X(string + 22), y(lift + side.nock_mm / 2)],
  } as const);
</script>

<figure bind:clientWidth={width} class="overflow-hidden">
  <svg
    viewBox="0 0 {W} {H}"
    class="w-full"
    role="group"
    aria-label="The riser's side: the arrow's underside stands {figure(gap(lift))} over square"
  >
    <Hatch id="begin" stroke="var(--soft)" every={6} />
    <g transform={side.mirrored ? `translate(${W}) scale(-1 1)` : undefined}>
      {#if onHand}
        <path
          d="M{riser - 4} 0C{riser - 10} 90 {riser - 10} 240 {riser - 4} {bottom}L{riser +
            48} {bottom}V0Z"
          fill="var(--wood)"
          stroke="var(--wood-line)"
        />
        <path d={fist(hand)} class="fist" />
        {#if handAtFull !== null}
          <path d={fist(handAtFull)} class="fist moved" />
        {/if}
      {:else}
        <path
          d="M{riser - 24} 0C{riser - 28} 90 {riser - 28} 150 {riser - 28} {bottom}L{riser +
            66} {bottom}C{riser + 50} 290 {riser + 48} 268 {riser + 48} {y(-shelf)}L{riser + 48} 0Z"
          fill="var(--wood)"
          opacity="0.35"
        />
        <path
          d="M{riser - 28} {y(-shelf)}L{riser - 28} {bottom}L{riser + 66} {bottom}C{riser +
            50} 296 {riser + 48} 280 {riser + 48} {y(-shelf)}Z"
          fill="var(--wood)"
          stroke="var(--wood-line)"
        />
      {/if}
      <line x1={rest} x2={string + 14} y1={SQUARE} y2={SQUARE} class="square" />
      {#if side.rest === 'rest'}
        <path d="M{rest - 8} {SQUARE + 3}h14M{rest - 6} {SQUARE + 3}v18" class="rest" />
      {/if}
      {#if grip !== null && !onHand}
        <line x1={riser - 2} x2={riser + 62} y1={y(-grip)} y2={y(-grip)} class="grip" />
      {/if}
      <path d={arrow} class="arrow" class:begun={side.lift_mm == null} />
      {#if side.plunger}
        <circle cx={rest} cy={under(rest) - (PX * shaft) / 2} r="9" class="plunger" />
        <circle cx={rest} cy={under(rest) - (PX * shaft) / 2} r="2.5" fill="var(--ink)" />
      {/if}
      <path
        d="M{tail - 26} {under(tail - 26)}L{tail - 26} {under(tail - 26) - PX * shaft}L{tail -
          8} {nockTop}h14v{0.34 * PX * side.nock_mm}h-8v{0.32 * PX * side.nock_mm}h8V{y(lift)}Z"
        class="arrow"
        class:begun={side.lift_mm == null}
      />
      <line x1={string} x2={string} y1="0" y2={bottom} class="string" />
      <rect
        x={string - 9}
        y={nockTop - 30}
        width="18"
        height="28"
        rx="3"
        fill="var(--ink)"
        opacity={side.datum === 'locator_under' ? 0.25 : 1}
      />
      {#if side.fixed}
        <rect x={string - 9} y={y(lift) + 1} width="18" height="28" rx="3" fill="var(--ink)" />
        <path d="M{string - 14} {y(lift) + 15}h28" stroke="var(--ink)" stroke-width="4" />
      {:else}
        <rect
          role="slider"
          tabindex="0"
          aria-label="Lift of the arrow at the string"
          aria-valuemin={-6}
          aria-valuemax={20}
          aria-valuenow={lift}
          aria-valuetext={figure(gap(lift))}
          x={string - 9}
          y={y(lift) + 1}
          width="18"
          height="28"
          rx="3"
          class="handle"
          {...dragged((at) => locator.hold((SQUARE - at.y + 14) / PX))}
          onkeydown={locator.key}
        />
      {/if}
      <line
        x1={string + 12}
        x2={narrow ? W - 6 : schoolAt(schools.length - 1) + 34}
        y1={y(lift)}
        y2={y(lift)}
        stroke={side.fixed ? 'var(--ink)' : 'var(--red)'}
        stroke-dasharray="3 4"
      />
      {#each [0, 4, 8, 12] as at (at)}
        <line x1={string + 12} x2={string + 22} y1={y(at)} y2={y(at)} stroke="var(--soft)" />
      {/each}
      <path d="M{tail - 65} {y(0)}h10m-5 0V{y(lift)}m-5 0h10" stroke="var(--ink)" fill="none" />
      {#if !narrow}
        {#each schools as school, i (school.key)}
          {@const high = Math.min(school.high, 17)}
          {@const height = Math.max(PX * (high - school.low), 4)}
          <rect
            x={schoolAt(i) - 18}
            y={y(high) - (height === 4 ? 2 : 0)}
            width="36"
            {height}
            fill={school.key === 'start' ? 'url(#begin)' : 'var(--green)'}
            opacity={school.key === 'start' ? 1 : 0.45}
            stroke={school.key === 'start' ? 'var(--soft)' : 'none'}
          />
        {/each}
        {#each side.shots.filter((shot) => shot.flew === 'bounced') as shot (shot.entry_id)}
          <path
            d="M{schoolAt(1) - 5} {y(shot.lift_mm) - 5}l10 10m0-10-10 10"
            stroke="var(--ink)"
            stroke-width="1.6"
          />
        {/each}
      {/if}
    </g>
    {#if onHand}
      <text x={X(riser - 20)} y={y(hand) + 40} text-anchor={toward}>hand</text>
      {#if handAtFull !== null}
        <text x={X(riser + 70)} y={y(handAtFull) + 60} text-anchor={toward} class="soft">
          dashed: at full draw
        </text>
      {/if}
    {:else}
      <text x={X(riser - 20)} y="16" text-anchor={toward} class="soft">window</text>
      <text x={X(riser - 20)} y={y(-shelf) + 16} text-anchor={toward}>shelf</text>
    {/if}
    <text x={X(rest + 44)} y={SQUARE + 15} text-anchor={toward} class="soft">square line</text>
    {#if side.rest === 'rest'}
      <text x={X(rest - 12)} y={SQUARE + 36} text-anchor="middle">{side.rest}</text>
    {/if}
    {#if grip !== null && !onHand}
      <text x={X(riser + 68)} y={y(-grip) + 4} text-anchor={toward}>
        grip mark {figure(gap(grip))} under
      </text>
    {/if}
    {#each [0, 4, 8, 12] as at (at)}
      <text x={X(string + 26)} y={y(at) + 4} text-anchor={toward} class="soft">{at}</text>
    {/each}
    <text x={X(tail - 72)} y={SQUARE + 34} text-anchor={away} class="lift">
      {side.lift_mm == null && !locator.moved ? 'begin at' : 'lift'}
      {figure(gap(lift))}
    </text>
    {#if !narrow}
      <text x={X(string + 52)} y="16" text-anchor={toward} class="soft"
        >schools, mm over square</text
      >
      {#each schools as school, i (school.key)}
        <text x={X(schoolAt(i))} y={36 + 30 * (i % 2)} text-anchor="middle">{school.words}</text>
        <text x={X(schoolAt(i))} y={50 + 30 * (i % 2)} text-anchor="middle" class="soft">
          {school.low === school.high
            ? school.low.toFixed(1)
            : `${school.low.toFixed(1)} to ${school.high.toFixed(1)}`}
        </text>
      {/each}
    {/if}
    <text x={X(W)} y={H - 32} text-anchor={away} class="main" class:hidden={narrow}>
      {name}, seen from the {side.mirrored ? 'right' : 'left'}
    </text>
    <text x={X(W)} y={H - 14} text-anchor={away} class="soft">
      heights five times what is along{narrow
        ? ''
        : `; brace ${figure(mm(side.brace_mm))}${side.brace_told ? '' : ' (taken)'}`}
    </text>
    {#if terms.length}<NameMarks {terms} {places} />{/if}
  </svg>
</figure>

<style>
  .hidden {
    display: none;
  }
  .main {
    font-weight: 600;
  }
  .lift {
    font-size: 18px;
    font-weight: 600;
  }
  .square {
    stroke: var(--soft);
    stroke-dasharray: 9 4 2 4;
  }
  .rest {
    stroke: var(--ink);
    stroke-width: 5;
    fill: none;
  }
  .grip {
    stroke: var(--ink);
    stroke-width: 2.4;
  }
  .fist {
    fill: var(--raised);
    stroke: var(--soft);
    stroke-width: 1.4;
  }
  .fist.moved {
    fill: none;
    stroke: var(--ink);
    stroke-dasharray: 5 4;
  }
  .arrow {
    fill: var(--raised);
    stroke: var(--ink);
    stroke-width: 1.5;
    stroke-linejoin: round;
  }
  .arrow.begun {
    stroke-dasharray: 5 4;
  }
  .plunger {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .string {
    stroke: var(--ink);
    stroke-width: 5;
    stroke-dasharray: 3 1.4;
  }
  .handle {
    fill: var(--red);
    stroke: var(--paper);
    stroke-width: 2;
    cursor: ns-resize;
    touch-action: none;
  }
</style>
