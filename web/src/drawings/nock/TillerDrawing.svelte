<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';

  let { drawing }: { drawing: PageOf<'nock'>['tiller'] } = $props();

  const W = 640;
  const H = 190;
  const string = 150;
  const wanted = $derived(
    `wanted ${figure(gap(drawing.low_mm))} to ${figure(gap(drawing.high_mm))}`,
  );
  const inside = $derived(
    drawing.tiller_mm != null &&
      drawing.tiller_mm >= drawing.low_mm &&
      drawing.tiller_mm <= drawing.high_mm,
  );
  const band = $derived((at: number) => 320 + 14 * Math.min(Math.max(at, -9), 12));
</script>

<figure>
  <svg
    viewBox="0 0 {W} {H}"
    class="mx-auto w-full max-w-3xl"
    role="img"
    aria-label={drawing.tiller_mm == null
      ? `Tiller not measured; ${wanted}`
      : `Tiller ${figure(gap(drawing.tiller_mm))}; ${wanted}`}
  >
    <path
      d="M20 {string}C70 84 130 56 216 52H424C510 56 570 84 620 {string}C566 96 508 72 424 72C390 92 250 92 216 72C132 72 74 96 20 {string}Z"
      fill="var(--wood)"
      stroke="var(--wood-line)"
      stroke-width="1.4"
    />
    <line x1="20" x2="620" y1={string} y2={string} stroke="var(--ink)" stroke-width="2.4" />
    {#each [[216, drawing.upper_mm, 'end', -8], [424, drawing.lower_mm, 'start', 8]] as const as [x, value, anchor, dx] (x)}
      <path d="M{x} 76V{string - 3}m-4-8 4 8 4-8M{x} 76m-4 8 4-8 4 8" class="gap" />
      <text x={x + dx} y="118" text-anchor={anchor} class="main">
        {value == null ? 'not measured' : figure(gap(value))}
      </text>
    {/each}
    <text x="20" y={string + 20} class="soft">upper</text>
    <text x="620" y={string + 20} text-anchor="end" class="soft">lower</text>
    <text
      x="320"
      y="20"
      text-anchor="middle"
      class="main"
      class:amber={drawing.tiller_mm != null && !inside}
    >
      {drawing.tiller_mm == null
        ? 'tiller not measured'
        : `tiller ${drawing.tiller_mm > 0 ? '+' : ''}${figure({ ...gap(drawing.tiller_mm), plus_minus: drawing.tiller_plus_minus_mm ?? null })}`}
    </text>
    <text x="320" y="40" text-anchor="middle" class="soft">{wanted}</text>
    <line x1={band(-9)} x2={band(12)} y1={string + 30} y2={string + 30} stroke="var(--line)" />
    <rect
      x={band(drawing.low_mm)}
      y={string + 25}
      width={band(drawing.high_mm) - band(drawing.low_mm)}
      height="10"
      fill="var(--green)"
      opacity="0.4"
    />
    {#if drawing.tiller_mm != null}
      <line
        x1={band(drawing.tiller_mm)}
        x2={band(drawing.tiller_mm)}
        y1={string + 22}
        y2={string + 38}
        stroke="var(--ink)"
        stroke-width="2.4"
      />
    {/if}
  </svg>
</figure>

<style>
  .main {
    font-size: 16px;
    font-weight: 600;
  }
  .amber {
    fill: var(--amber);
  }
  .gap {
    stroke: var(--ink);
    fill: none;
  }
</style>
