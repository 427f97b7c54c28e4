<script lang="ts">
  import type { Step } from './learn';

  let { crawl_mm, half_mm, step }: { crawl_mm: number; half_mm: number; step: Step } = $props();

  const HEIGHT = 330;
  const TOP = 26;
  /** Every so many steps a longer line with its number. */
  const named = $derived(step.notation === 'mm' ? 10 : step.notation === 'fingers' ? 1 : 5);
  const drawn = $derived(step.notation === 'mm' ? 5 : step.notation === 'fingers' ? 0.5 : 1);
  const reach = $derived(Math.max(60, crawl_mm + half_mm + 5));
  const y = (mm: number) => TOP + (mm / reach) * (HEIGHT - TOP - 12);
  const lines = $derived(
    Array.from({ length: Math.floor(reach / (drawn * step.mm)) }, (_, at) => (at + 1) * drawn),
  );
  const isNamed = (count: number) => Math.abs(count / named - Math.round(count / named)) < 1e-6;
</script>

<svg viewBox={`0 0 112 ${HEIGHT}`} aria-hidden="true">
  <rect class="tab" x="44" y={y(0) - 10} width="44" height={y(reach) - y(0) + 10} />
  {#each lines as count (count)}
    <line
      class="stitch"
      x1="44"
      x2={isNamed(count) ? 66 : 56}
      y1={y(count * step.mm)}
      y2={y(count * step.mm)}
    />
    {#if isNamed(count)}
      <text x="71" y={y(count * step.mm) + 5} class="count">{count}</text>
    {/if}
  {/each}
  <rect
    class="band"
    x="44"
    y={y(Math.max(crawl_mm - half_mm, 0))}
    width="46"
    height={Math.max(y(crawl_mm + half_mm) - y(Math.max(crawl_mm - half_mm, 0)), 2)}
  />
  <line class="string" x1="43" x2="43" y1="0" y2={HEIGHT} />
  <line class="nock" x1="34" x2="54" y1={y(0)} y2={y(0)} />
  <text x="0" y={y(0) - 9}>nock</text>
  {#if crawl_mm > 2}
    <path class="way" d={`M28 ${y(0) + 4} V${y(crawl_mm) - 4} m-4 -6 l4 6 l4 -6`} />
  {/if}
  <line class="hook" x1="38" x2="108" y1={y(crawl_mm)} y2={y(crawl_mm)} />
</svg>

<style>
  svg {
    display: block;
    height: 100%;
    max-width: 100%;
  }
  text {
    font-size: 15px;
    fill: var(--soft);
  }
  .count {
    fill: var(--wood-line);
  }
  .tab {
    fill: var(--wood);
    opacity: 0.55;
  }
  .stitch {
    stroke: var(--wood-line);
  }
  .string {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .nock {
    stroke: var(--ink);
    stroke-width: 4;
  }
  .hook {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .way {
    fill: none;
    stroke: var(--ink);
  }
  .band {
    fill: var(--soft);
    opacity: 0.45;
  }
</style>
