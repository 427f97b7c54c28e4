<script lang="ts">
  import type { components } from '../lib/api.gen';
  import { figure } from '../lib/preferences.svelte';
  import { gr, mm } from '../lib/units';

  type Drawing = components['schemas']['ArrowDrawing'];
  let { drawing }: { drawing: Drawing } = $props();

  let width = $state(720);
  const W = $derived(Math.max(width, 300));
  const there = $derived(drawing.parts.filter((part) => part.mass_gr > 0));
  const total = $derived(Math.max(drawing.parts_gr ?? 0, drawing.weighed_gr ?? 0) * 1.02);
  const bars = $derived.by(() => {
    let from = 0;
    return there.map((part) => {
      const start = from;
      from += part.mass_gr;
      return { ...part, start: (start / total) * W, width: (part.mass_gr / total) * W };
    });
  });
  const wide = (width: number, name: string) => width > name.length * 7 + 12;
</script>

{#if there.length}
  <figure bind:clientWidth={width}>
    <svg viewBox="0 0 {W} 70" class="w-full" role="img" aria-label="The arrow's mass by its parts">
      {#each bars as bar (bar.name)}
        <rect
          x={bar.start}
          y="20"
          width={Math.max(bar.width - 1, 1)}
          height="22"
          fill={bar.given ? 'var(--wood)' : 'none'}
          stroke="var(--wood-line)"
          stroke-dasharray={bar.given ? undefined : '3 2'}
        />
        {#if wide(bar.width, bar.name)}
          <text x={bar.start + 6} y="14" class="soft">{bar.name}</text>
          <text x={bar.start + 6} y="36" class={bar.given ? 'on' : ''}
            >{figure(gr(bar.mass_gr))}</text
          >
        {/if}
      {/each}
      {#if drawing.weighed_gr != null}
        {@const at = (drawing.weighed_gr / total) * W}
        <line x1={at} x2={at} y1="14" y2="50" stroke="var(--red)" stroke-width="2" />
        <text x={at} y="66" text-anchor="end" class="strong"
          >scale {figure(gr(drawing.weighed_gr))}</text
        >
      {/if}
    </svg>
    <figcaption class="text-sm text-soft">
      {#if drawing.parts_gr != null}
        Parts add up to {figure(gr(drawing.parts_gr))}{drawing.shaft_length_mm == null
          ? ''
          : `, shaft ${figure(mm(drawing.shaft_length_mm))}`}. Dashed parts stand at usual values.
      {/if}
    </figcaption>
  </figure>
{/if}

<style>
  .on {
    fill: #15222b;
  }
  .strong {
    font-weight: 600;
  }
</style>
