<script lang="ts">
  import type { PageOf } from '../../lib/api';

  let { page }: { page: PageOf<'crawls'> } = $props();

  type Row = PageOf<'crawls'>['rows'][number];
  const near = (a: number, b: number) => Math.abs(a - b) < 0.5;
  const proposed = (row: Row) => page.next != null && near(row.distance_m, page.next.distance_m);
  const signed = (value: number) => `${value < 0 ? '−' : ''}${Math.abs(value)}`;
  const costs = (high: number) =>
    `${Math.abs(high / 10).toFixed(1)} cm ${high > 0 ? 'high' : 'low'} by rounding`;
</script>

<div>
  <table class="rows">
    <thead>
      <tr>
        <th><span class="sr-only">Distance</span></th>
        <th class="num">mm</th>
        <th class="num">±</th>
        {#if page.next}<th class="num green">± after</th>{/if}
        <th class="num">fingers</th>
        {#if page.stitch_mm != null}<th class="num">stitches</th>{/if}
      </tr>
    </thead>
    <tbody>
      {#each page.rows as row (row.distance_m)}
        <tr class:beyond={row.beyond} class:proposed={proposed(row)}>
          <th scope="row" class="whitespace-nowrap">{row.says}</th>
          <td class="num font-semibold">{signed(Math.round(row.crawl_mm))}</td>
          <td class="num text-soft">{row.half_mm.toFixed(0)}</td>
          {#if page.next}<td class="num green">{row.after_mm?.toFixed(0) ?? ''}</td>{/if}
          <td class="num" title={`${row.fingers}: ${costs(row.fingers_high_mm)}`}
            >{row.fingers_short}</td
          >
          {#if page.stitch_mm != null}
            <td
              class="num"
              title={row.stitches_high_mm != null ? costs(row.stitches_high_mm) : undefined}
              >{row.stitches_short ?? ''}</td
            >
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="mt-1 text-sm text-soft">
    {#if page.rows.some((row) => row.beyond)}Soft: beyond point-on, the hook above the nock.{/if}
    {#if page.next}After: with a crawl shot at {page.next.says}.{/if}
    {#if !page.finger_measured}A finger is taken as {page.finger_mm.toFixed(0)} mm.{/if}
  </p>
</div>

<style>
  .num {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .green {
    color: var(--green);
  }
  .rows td,
  .rows th {
    padding-block: 0.22rem;
  }
  tbody th {
    font-weight: 600;
    color: var(--ink);
  }
  .beyond td,
  .beyond th {
    color: var(--soft);
    font-weight: 400;
  }
  .proposed {
    background: color-mix(in srgb, var(--green) 16%, var(--paper));
  }
</style>
