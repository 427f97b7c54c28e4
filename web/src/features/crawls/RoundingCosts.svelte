<script lang="ts">
  import type { PageOf } from '../../lib/api';

  let { page }: { page: PageOf<'crawls'> } = $props();

  const rows = $derived(page.rows.filter((row) => !row.beyond));
  const costs = (high_mm: number) => {
    const cm = Math.round(Math.abs(high_mm) / 10);
    return cm ? `${cm} cm ${high_mm > 0 ? 'high' : 'low'}` : 'nothing';
  };
</script>

<section class="mt-6" aria-labelledby="rounding-title">
  <h2 id="rounding-title">What rounding costs</h2>
  <table class="rows mt-1">
    <thead>
      <tr>
        <th><span class="sr-only">Distance</span></th>
        <th class="num">mm</th>
        <th>Fingers, to the quarter</th>
        <th>costs</th>
        {#if page.stitch_mm != null}
          <th>Stitches, to the half</th>
          <th>costs</th>
        {/if}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.distance_m)}
        <tr>
          <th scope="row" class="font-semibold whitespace-nowrap text-ink">{row.says}</th>
          <td class="num">{row.crawl_mm.toFixed(1)}</td>
          <td>{row.fingers}</td>
          <td class="whitespace-nowrap text-soft">{costs(row.fingers_high_mm)}</td>
          {#if page.stitch_mm != null}
            <td>{row.stitches_short}</td>
            <td class="whitespace-nowrap text-soft">{costs(row.stitches_high_mm ?? 0)}</td>
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<style>
  .num {
    text-align: right;
    font-variant-numeric: tabular-nums;
    padding-right: 1.5rem;
  }
</style>
