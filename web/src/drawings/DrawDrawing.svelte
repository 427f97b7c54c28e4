<script lang="ts">
  import BottomAxis from './BottomAxis.svelte';
  import type { components } from '../lib/api.gen';
  import { figure, preferences } from '../lib/preferences.svelte';
  import { MM_PER_IN, mm } from '../lib/units';
  import { lengthTicks } from './axis';

  type Drawing = components['schemas']['DrawDrawing'];
  let { drawing, leftHanded }: { drawing: Drawing; leftHanded: boolean } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 300));
  const LINE = 92;
  const narrow = $derived(W < 500);
  const reachOfString = $derived(narrow ? 40 : 88);
  const ROW = $derived(narrow ? 36 : 22);
  const METHODS: Record<string, string> = {
    draw_marked: 'marked arrow',
    draw_on_scale: 'string on a scale',
    draw_stated: 'hearsay',
    arm_tape: 'fingertip to shoulder',
    arm_span: 'arm span',
  };

  const draw = $derived(drawing.draw_mm ?? 28 * MM_PER_IN);
  const pivotToNock = $derived(draw - drawing.trade_mm);
  const reach = $derived(drawing.back_mm + 1.6 * MM_PER_IN);
  const perMm = $derived((W - 40 - (narrow ? 84 : 110)) / (pivotToNock + drawing.hook_mm + reach));
  /** x of a place `mm` behind the pivot (toward the archer). */
  const x = (mm: number) => {
    const fromBow = 40 + (reach + mm) * perMm;
    return leftHanded ? fromBow : W - fromBow;
  };
  const nock = $derived(x(pivotToNock));
  const hook = $derived(x(pivotToNock + drawing.hook_mm));
  const out = $derived(leftHanded ? 1 : -1);

  const rows = $derived(drawing.readings);
  const span = $derived.by(() => {
    const edges = rows.flatMap((r) => [r.draw_mm - r.plus_minus_mm, r.draw_mm + r.plus_minus_mm]);
    const low = Math.min(...edges);
    const high = Math.max(...edges);
    const pad = Math.max((high - low) * 0.08, 4);
    return [low - pad, high + pad] as const;
  });
  const LEFT = $derived(narrow ? 8 : 150);
  const RIGHT = $derived(W - (narrow ? 12 : 90));
  const z = $derived(
    (mm: number) => LEFT + ((mm - span[0]) / (span[1] - span[0])) * (RIGHT - LEFT),
  );
  const TOP = 196;
  const height = $derived(rows.length ? TOP + rows.length * ROW + 30 : 176);
</script>

<figure bind:clientWidth={width}>
  <svg
    viewBox="0 0 {W} {height}"
    class="w-full"
    role="img"
    aria-label="The arrow at full draw, from the bow's pivot to the string, to scale"
  >
    <!-- string at full draw -->
    <path
      d="M{hook - out * reachOfString} {LINE - 36} L{hook} {LINE} L{hook -
        out * reachOfString} {LINE + 36}"
      class="string"
    />
    <!-- grip, cut at the pivot -->
    <path
      d="M{x(0)} {LINE - 40} C{x(-4)} {LINE - 18} {x(-4)} {LINE + 22} {x(6)} {LINE + 62} L{x(
        -drawing.back_mm,
      )} {LINE + 62} C{x(-drawing.back_mm - 5)} {LINE + 18} {x(-drawing.back_mm - 5)} {LINE -
        26} {x(-drawing.back_mm)} {LINE - 66} L{x(8)} {LINE - 66} Z"
      class="grip"
    />
    <!-- arrow -->
    <line x1={x(-reach + 8)} y1={LINE} x2={nock} y2={LINE} class="shaft" />
    <path
      d="M{x(-reach)} {LINE} L{x(-reach + 12)} {LINE - 4} L{x(-reach + 12)} {LINE + 4} Z"
      fill="var(--ink)"
    />
    {#each [-1, 1] as side (side)}
      <path
        d="M{x(pivotToNock - 24)} {LINE + side * 2} l{-out * 10} {side * 8} L{x(
          pivotToNock - 96,
        )} {LINE + side * 9} L{x(pivotToNock - 118)} {LINE + side * 2} Z"
        fill="var(--green)"
        opacity="0.85"
      />
    {/each}
    <!-- datum lines -->
    <line x1={x(0)} x2={x(0)} y1="14" y2="150" class="datum" />
    <line x1={x(-drawing.trade_mm)} x2={x(-drawing.trade_mm)} y1="14" y2="172" class="datum" />
    <line x1={nock} x2={nock} y1={LINE - 14} y2="172" class="datum" />
    <text x={x(0) + out * 6} y="18" text-anchor={leftHanded ? 'start' : 'end'} class="soft">
      pivot
    </text>
    <text
      x={x(-drawing.trade_mm) - out * 6}
      y="18"
      text-anchor={leftHanded ? 'end' : 'start'}
      class="soft">+ {figure(mm(drawing.trade_mm))}</text
    >
    <!-- dimensions -->
    <line x1={x(0)} x2={nock} y1="136" y2="136" class="dimension" />
    <text x={(x(0) + nock) / 2} y="130" text-anchor="middle" class="soft">
      {drawing.draw_mm === null ? '' : `${figure(mm(pivotToNock))} to the pivot`}
    </text>
    <line x1={x(-drawing.trade_mm)} x2={nock} y1="162" y2="162" class="dimension" />
    <rect
      x={(x(-drawing.trade_mm) + nock) / 2 - 92}
      y="150"
      width="184"
      height="24"
      fill="var(--raised)"
      stroke="var(--line)"
    />
    <text x={(x(-drawing.trade_mm) + nock) / 2} y="167" text-anchor="middle" class="main">
      {drawing.draw_mm === null
        ? 'no draw yet'
        : `${figure(mm(drawing.draw_mm ?? 0, drawing.plus_minus_mm))} draw`}
    </text>
    <!-- hook -->
    <circle cx={hook} cy={LINE} r="6.5" class="hook" />
    <text x={hook + out * 12} y={LINE - 12} text-anchor={leftHanded ? 'start' : 'end'}>
      <tspan class="strong">{figure(mm(drawing.hook_mm))}</tspan>
    </text>
    <text x={hook + out * 12} y={LINE + 4} text-anchor={leftHanded ? 'start' : 'end'} class="soft">
      hook behind
    </text>
    <text x={hook + out * 12} y={LINE + 20} text-anchor={leftHanded ? 'start' : 'end'} class="soft">
      the nock
    </text>

    {#if rows.length}
      {#if drawing.draw_mm !== null && drawing.draw_mm !== undefined}
        <rect
          x={z(drawing.draw_mm - (drawing.plus_minus_mm ?? 0))}
          y={TOP - 8}
          width={z(drawing.draw_mm + (drawing.plus_minus_mm ?? 0)) -
            z(drawing.draw_mm - (drawing.plus_minus_mm ?? 0))}
          height={rows.length * ROW + 8}
          fill="var(--blue)"
          opacity="0.16"
        />
        <line
          x1={z(drawing.draw_mm)}
          x2={z(drawing.draw_mm)}
          y1={TOP - 8}
          y2={TOP + rows.length * ROW}
          stroke="var(--blue)"
        />
      {/if}
      {#each rows as reading, index (reading.entry)}
        {@const y = TOP + (narrow ? 22 : 6) + index * ROW}
        {@const label = narrow ? y - 14 : y}
        <text x="0" y={label} dy="4" class="soft">{METHODS[reading.method] ?? reading.method}</text>
        <line
          x1={z(reading.draw_mm - reading.plus_minus_mm)}
          x2={z(reading.draw_mm + reading.plus_minus_mm)}
          y1={y}
          y2={y}
          stroke={reading.used ? 'var(--ink)' : 'var(--soft)'}
          stroke-dasharray={reading.used ? undefined : '3 3'}
        />
        <circle
          cx={z(reading.draw_mm)}
          cy={y}
          r="4.5"
          fill={reading.used ? 'var(--red)' : 'var(--paper)'}
          stroke={reading.used ? 'var(--red)' : 'var(--soft)'}
          stroke-width="1.6"
        />
        <text x={W} y={label} dy="4" text-anchor="end">{figure(mm(reading.draw_mm))}</text>
      {/each}
      {@const base = TOP + rows.length * ROW + 2}
      <line x1={LEFT} x2={RIGHT} y1={base} y2={base} stroke="var(--line)" />
      <BottomAxis
        ticks={lengthTicks(span[0], span[1], 9, preferences.units)}
        x={z}
        y={base}
        gap={19}
      />
    {/if}
  </svg>
</figure>

<style>
  .string {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .grip {
    fill: var(--wood);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .shaft {
    stroke: var(--wood-line);
    stroke-width: 4;
  }
  .datum {
    stroke: var(--soft);
    stroke-dasharray: 7 3 2 3;
  }
  .dimension {
    stroke: var(--soft);
  }
  .hook {
    fill: var(--paper);
    stroke: var(--red);
    stroke-width: 4;
  }
  .main {
    font-size: 16px;
    font-weight: 600;
  }
  .strong {
    font-weight: 600;
    font-size: 14px;
  }
</style>
