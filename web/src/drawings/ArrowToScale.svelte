<script lang="ts">
  import type { components } from '../lib/api.gen';
  import { figure } from '../lib/preferences.svelte';
  import { mm } from '../lib/units';

  let { drawing }: { drawing: components['schemas']['ArrowDrawing'] } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 300));
  const MIDDLE = 34;
  const ACROSS = 1.6;
  const POINT_MM = 26;
  const scale = $derived((W - 12) / (drawing.length_mm + POINT_MM + 6));
  const x = (mm: number) => 6 + (mm + 6) * scale;
  const knots = $derived(
    drawing.profile.length
      ? drawing.profile.map(([at, across]) => [at ?? 0, across ?? drawing.diameter_mm] as const)
      : ([
          [0, drawing.diameter_mm],
          [drawing.length_mm, drawing.diameter_mm],
        ] as const),
  );
  const half = (across: number) => (across / 2) * ACROSS;
  const shaft = $derived(
    [
      ...knots.map(([at, across]) => `${x(at)},${MIDDLE - half(across)}`),
      ...[...knots].reverse().map(([at, across]) => `${x(at)},${MIDDLE + half(across)}`),
    ].join(' '),
  );
  const end = $derived(knots.at(-1)?.[1] ?? drawing.diameter_mm);
  const feather = $derived({
    from: x(drawing.fletching_from_mm),
    to: x(drawing.fletching_from_mm + drawing.fletching_length_mm),
  });
</script>

<figure bind:clientWidth={width}>
  <svg viewBox="0 0 {W} 84" class="w-full" role="img" aria-labelledby="to-scale">
    <path
      d="M{feather.from} {MIDDLE} l{(feather.to - feather.from) * 0.25} -18 H{feather.to -
        6} L{feather.to} {MIDDLE} l-6 18 H{feather.from + (feather.to - feather.from) * 0.25} z"
      fill="var(--green)"
      opacity="0.55"
    />
    <polygon points={shaft} fill="var(--wood)" stroke="var(--wood-line)" stroke-width="0.8" />
    <rect
      x={x(-6)}
      y={MIDDLE - half(end)}
      width={6 * scale + 4}
      height={half(end) * 2}
      fill="var(--ink)"
    />
    {#if drawing.pointed}
      <path
        d="M{x(drawing.length_mm)} {MIDDLE - half(end)} L{x(
          drawing.length_mm + POINT_MM,
        )} {MIDDLE} L{x(drawing.length_mm)} {MIDDLE + half(end)} z"
        fill="var(--ink)"
      />
    {/if}
    <line
      x1={x(drawing.length_mm / 2)}
      x2={x(drawing.length_mm / 2)}
      y1={MIDDLE + 10}
      y2={MIDDLE + 22}
      stroke="var(--soft)"
    />
    <text x={x(drawing.length_mm / 2) - 6} y={MIDDLE + 38} text-anchor="end" class="soft"
      >middle</text
    >
    {#if drawing.balance_mm != null}
      <path
        d="M{x(drawing.balance_mm)} {MIDDLE + 10} l-6 12 h12 z"
        fill="none"
        stroke="var(--ink)"
        stroke-width="1.4"
      />
      <text x={x(drawing.balance_mm)} y={MIDDLE + 38} class="strong">
        balances at {figure(mm(drawing.balance_mm))}
      </text>
    {/if}
    <text x={W - 2} y="12" text-anchor="end" class="soft">{figure(mm(drawing.length_mm))}</text>
  </svg>
  <figcaption id="to-scale" class="text-sm text-soft">
    Nock groove to shaft end to scale, thickness drawn wider{drawing.assumed.length
      ? `. Assumed: ${drawing.assumed.join(', ')}`
      : ''}.
  </figcaption>
</figure>

<style>
  .strong {
    font-weight: 600;
  }
</style>
