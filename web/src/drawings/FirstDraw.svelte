<script lang="ts">
  import { curveCatmullRom, line } from 'd3-shape';
  import type { HeldBow } from '../lib/api';
  import { figure, preferences } from '../lib/preferences.svelte';
  import { MM_PER_IN, mm } from '../lib/units';
  import { dragged } from './dragged';
  import { slid } from './keys';

  let {
    draw,
    supposed,
    bow,
    ondraw,
  }: {
    /** On the trade datum [mm]. */
    draw: number;
    /** True where nobody told it: then it is drawn pale. */
    supposed: boolean;
    bow: HeldBow | null;
    ondraw: (draw: number) => void;
  } = $props();

  const TRADE_MM = 1.75 * MM_PER_IN;
  const [LEAST, MOST] = [18 * MM_PER_IN, 36 * MM_PER_IN];
  const inch = $derived(preferences.units === 'inch');
  const step = $derived(inch ? MM_PER_IN / 16 : 1);

  let width = $state(720);
  const W = $derived(Math.max(width, 280));
  const narrow = $derived(W < 520);
  const H = $derived(narrow ? 176 : 236);
  /** Pixels a mm: the longest draw and what is written beside it go across. */
  const k = $derived((W - (narrow ? 64 : 150)) / (MOST + 1.2 * MM_PER_IN));
  const px = $derived(W - (narrow ? 40 : 66) - (TRADE_MM + 20) * k);
  const bottom = $derived(H - 62);
  const y0 = $derived(bottom * 0.55);
  const arrowY = $derived(y0 - 8 * k);
  const nock = $derived(px - (draw - TRADE_MM) * k);
  const back = $derived(px + TRADE_MM * k);

  /** A place of the bow, x toward the archer and y up the upper limb. */
  const at = $derived(([x = 0, y = 0]: readonly number[], side: 1 | -1): [number, number] => [
    px - x * k,
    y0 - side * y * k,
  ]);
  const smooth = line<[number, number]>().curve(curveCatmullRom.alpha(0.5));

  /** Belly and back of the riser by kind of bow [in]: toward the archer, up from the pivot. */
  const SLIM = { belly: [[0.05, 2.4]], back: [[-1.62, 2.6]] };
  const RISERS: Record<string, { belly: number[][]; back: number[][] }> = {
    reflex_deflex_longbow: {
      belly: [
        [0.12, 1.2],
        [0.42, 3.4],
      ],
      back: [[-1.6, 3.6]],
    },
    hunting_recurve: {
      belly: [
        [0.2, 1.3],
        [1.05, 3.4],
      ],
      back: [[-1.35, 4.4]],
    },
    target_recurve: {
      belly: [
        [0.25, 1.3],
        [1.25, 3.9],
      ],
      back: [[-0.9, 5.2]],
    },
  };
  const LIMB_IN = [0.75, 0.35] as const;

  const outline = $derived.by(() => {
    if (!bow) return '';
    const riser = RISERS[bow.family] ?? SLIM;
    const inches = (points: number[][]) => points.map((one) => one.map((v) => v * MM_PER_IN));
    /** Up one side and down the other, thinning to the tip. */
    const edge = (thick: 1 | -1, side: 1 | -1) =>
      bow.limb.map(([x = 0, y = 0], i) => {
        const share = i / (bow.limb.length - 1);
        const half = (LIMB_IN[0] + share * (LIMB_IN[1] - LIMB_IN[0])) * 0.5 * MM_PER_IN;
        return at([x + thick * half, y], side);
      });
    const mirrored = (points: number[][], side: 1 | -1) =>
      inches(points).map((one) => at(one, side));
    const belly = [
      ...edge(1, 1).reverse(),
      ...mirrored(riser.belly, 1).reverse(),
      at([0, 0], 1),
      ...mirrored(riser.belly, -1),
      ...edge(1, -1),
    ];
    const behind = [
      ...edge(-1, -1).reverse(),
      ...mirrored(riser.back, -1).reverse(),
      at([-TRADE_MM, 0], 1),
      ...mirrored(riser.back, 1),
      ...edge(-1, 1),
    ];
    return `${smooth(belly) ?? ''}L${(smooth(behind) ?? '').slice(1)}Z`;
  });
  const string = $derived.by(() => {
    if (!bow) return '';
    const [top, low] = [at(bow.leaves, 1), at(bow.leaves, -1)];
    return `M${top.join(' ')}L${nock} ${arrowY}L${low.join(' ')}`;
  });

  function take(x: number) {
    const wanted = TRADE_MM + (px - x) / k;
    ondraw(Math.min(MOST, Math.max(LEAST, Math.round(wanted / step) * step)));
  }
  const handle = dragged(({ x }) => take(x));

  /** Further left is longer: on the drawing the string goes that way. */
  function key(event: KeyboardEvent) {
    const page = inch ? MM_PER_IN : 10;
    const turned = { ArrowLeft: 'ArrowRight', ArrowRight: 'ArrowLeft' }[event.key] ?? event.key;
    const pressed = new KeyboardEvent('keydown', { key: turned, shiftKey: event.shiftKey });
    const wanted = slid(pressed, { now: draw, step, page, low: LEAST, high: MOST });
    if (wanted === null) return;
    event.preventDefault();
    ondraw(Math.round(wanted / step) * step);
  }

  const dimension = (from: number, to: number, y: number) =>
    `M${from} ${y}H${to}M${from + 6} ${y - 3}L${from} ${y}l6 3M${to - 6} ${y - 3}L${to} ${y}l-6 3`;
</script>

<figure bind:clientWidth={width}>
  <svg
    viewBox="0 0 {W} {H}"
    class="w-full"
    role="group"
    aria-label="Bow and arrow from the side at full draw, the bow cut short"
  >
    <clipPath id="first-cut"><rect width={W} height={bottom} /></clipPath>
    <g clip-path="url(#first-cut)" opacity={supposed ? 0.45 : 1}>
      <path d={outline} class="bow" />
      <path d={string} class="string" />
    </g>
    <g opacity={supposed ? 0.45 : 1}>
      <line x1={nock} x2={back + 34 * k} y1={arrowY} y2={arrowY} class="shaft" />
      <path d="M{back + 34 * k} {arrowY - 4}l{26 * k} 4l-{26 * k} 4z" fill="var(--ink)" />
      <path
        d="M{nock + 8} {arrowY - 1}l9-8h{84 * k}l-7 8zM{nock + 8} {arrowY + 1}l9 8h{84 * k}l-7-8z"
        fill="var(--green)"
        opacity="0.8"
      />
    </g>
    <path d="M{nock} {arrowY + 12}V{H - 10}M{back} {y0 + 20}V{H - 10}" stroke="var(--line)" />
    <path d="M{px} {y0 - 6}V{H - 40}" stroke="var(--soft)" stroke-dasharray="7 3 2 3" />
    <circle cx={px} cy={y0} r="3.5" class="pivot" />
    <path
      d={dimension(nock, px, H - 44) + dimension(px, back, H - 44)}
      fill="none"
      stroke="var(--soft)"
    />
    <path d={dimension(nock, back, H - 14)} fill="none" stroke="var(--ink)" />
    <text x={(nock + px) / 2} y={H - 49} text-anchor="middle" class="soft">
      {figure(mm(draw - TRADE_MM))} to the grip
    </text>
    <text x={back + 5} y={H - 40} class="soft">+ {figure(mm(TRADE_MM))}</text>
    <text x={(nock + back) / 2} y={H - 20} text-anchor="middle" class="main">
      {figure(mm(draw))}{supposed ? ', assumed' : ''}
    </text>
    {#if !narrow}
      <text x={px - 8} y={y0 + 26} text-anchor="end" class="soft">deepest of the grip</text>
      <text x={nock - 16} y={arrowY + 5} text-anchor="end" class="soft">nock groove</text>
    {/if}
    <!-- the handle alone takes the finger: the page scrolls over the rest -->
    <g
      class="handle"
      role="slider"
      tabindex="0"
      aria-label="Draw length"
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      aria-valuenow={Math.round(draw)}
      aria-valuetext={figure(mm(draw))}
      onpointerdown={(event) => {
        handle.onpointerdown(event);
        event.currentTarget.focus({ preventScroll: true });
      }}
      onpointermove={handle.onpointermove}
      onkeydown={key}
    >
      <circle cx={nock} cy={arrowY} r="22" fill="transparent" />
      <circle cx={nock} cy={arrowY} r="8" class="knob" />
      <circle cx={nock} cy={arrowY} r="3" fill="var(--paper)" />
    </g>
  </svg>
</figure>

<style>
  .bow {
    fill: var(--wood);
    stroke: var(--wood-line);
    stroke-width: 1.3;
    stroke-linejoin: round;
  }
  .string {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .shaft {
    stroke: var(--wood-line);
    stroke-width: 4;
  }
  .pivot {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .knob {
    fill: var(--red);
  }
  .handle {
    cursor: ew-resize;
    touch-action: none;
  }
  .handle:focus {
    outline: none;
  }
  .handle:focus-visible .knob {
    stroke: var(--focus);
    stroke-width: 3;
  }
  .main {
    font-size: 17px;
    font-weight: 600;
  }
</style>
