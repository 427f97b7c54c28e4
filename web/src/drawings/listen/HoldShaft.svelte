<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { figure, preferences } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';

  let { places }: { places: PageOf<'listen'>['hold_bare'] } = $props();

  const W = 720;
  const H = 120;
  const LEFT = 14;
  const Y = 62;
  const SWING = 15;
  const x = (at: number) => LEFT + ((W - 2 * LEFT) * at) / places.length_mm;
  const swing = $derived(
    [1, -1].map((side) =>
      places.swing
        .map((value, n) => {
          const at = (places.length_mm * n) / (places.swing.length - 1);
          return `${n ? 'L' : 'M'}${x(at).toFixed(1)},${(Y - side * SWING * value).toFixed(1)}`;
        })
        .join(''),
    ),
  );
  const first = $derived(places.nodes_mm[0] ?? 0);
  const last = $derived(places.nodes_mm.at(-1) ?? 0);
  const fromEnd = $derived(figure(mm(places.length_mm - last)));
  const near = $derived(preferences.units === 'inch' ? '2 to 4 in' : '5 to 10 cm');
  const says = $derived(
    `A shaft of ${figure(mm(places.length_mm))}: hold it ${figure(mm(first))} from the nock's end or ${fromEnd} from the other, tap it with a nail near the other end, the microphone ${near} from its middle.`,
  );
</script>

<svg viewBox="0 0 {W} {H}" role="img" aria-label={says}>
  {#each swing as path, n (n)}<path class="swing" d={path} />{/each}
  <rect class="shaft" x={x(0)} y={Y - 4} width={x(places.length_mm) - x(0)} height="8" />
  {#each [first, last] as node, n (n)}
    <path class="hold" d="M{x(node)},{Y - 6}l-6,-10h12zM{x(node)},{Y + 6}l-6,10h12z" />
    <text x={x(node)} y={Y + 34} text-anchor="middle" class="strong"
      >{n ? 'or here' : 'hold here'}
      <tspan class="soft">{n ? fromEnd : figure(mm(first))} from the end</tspan></text
    >
  {/each}
  <path class="tap" d="M{x(places.tap_mm)},{Y - 34}v26m-4,-7l4,7l4,-7" />
  <text x={W - LEFT} y={Y - 42} text-anchor="end" class="strong">tap here, with a nail</text>
  <circle class="mic" cx={x(places.microphone_mm)} cy={Y - 24} r="6" />
  <line
    class="mic"
    x1={x(places.microphone_mm)}
    x2={x(places.microphone_mm)}
    y1={Y - 18}
    y2={Y - 10}
  />
  <text x={x(places.microphone_mm)} y={Y - 38} text-anchor="middle" class="strong"
    >microphone <tspan class="soft">{near} off</tspan></text
  >
</svg>

<style>
  svg {
    width: 100%;
    max-width: 52rem;
  }
  .swing {
    fill: none;
    stroke: var(--soft);
    stroke-dasharray: 4 3;
  }
  .shaft {
    fill: var(--wood);
    stroke: var(--wood-line);
  }
  .hold {
    fill: var(--ink);
  }
  .tap,
  .mic {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .strong {
    font-weight: 600;
  }
  .soft {
    fill: var(--soft);
    font-weight: 400;
  }
  @media (max-width: 640px) {
    text {
      font-size: 22px;
    }
    .soft {
      display: none;
    }
  }
</style>
