<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenAsked from '../../components/WhenAsked.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { Horn } from '../../drawings/crawls/horn.svelte';
  import HornChart from '../../drawings/crawls/HornChart.svelte';
  import { api, type RangeBoard } from '../../lib/api';
  import { AskedOfRig } from '../../lib/asked.svelte';
  import CrawlsHead from './CrawlsHead.svelte';
  import NoCrawls from './NoCrawls.svelte';

  const asked = new AskedOfRig<RangeBoard>(api.crawlRanges).follow();
  const horn = new Horn(() => asked.data as RangeBoard);
  let slopeAt = $state(30);

  const unit = $derived(asked.data?.unit ?? 'm');
  const shown = $derived(
    (asked.data?.distances ?? []).flatMap((at, i) =>
      at % 5 === 0 && at >= 10 ? [[at, i] as const] : [],
    ),
  );
  const cm = (mm: number | null | undefined) => (mm == null ? '–' : Math.abs(mm / 10).toFixed(0));
  const outside = (mm: number | null | undefined) =>
    mm != null && Math.abs(mm) > 10 * horn.circle_cm;
  const rows = $derived.by(() => {
    const [bold, pale] = [horn.row, horn.beside];
    return [
      { by: bold, way: 'nearer' as const, bold: true },
      { by: pale, way: 'nearer' as const, bold: false },
      { by: pale, way: 'further' as const, bold: false },
      { by: bold, way: 'further' as const, bold: true },
    ].filter((row) => row.by !== null);
  });
  const slope = $derived(
    asked.data?.slopes.find((one) => one.distance === slopeAt) ?? asked.data?.slopes[0] ?? null,
  );
  /** Where it is said to hardly matter: five off at twenty. */
  const said = $derived.by(() => {
    const at = asked.data?.distances.indexOf(20) ?? -1;
    const five = asked.data?.guesses.find((one) => one.by === 5);
    return at < 0 || !five ? null : (five.further_mm[at] ?? null);
  });
  const share = $derived(Math.round(200 * (asked.data?.speed_share ?? 0)));
</script>

<WhenReady key="crawls">
  {#snippet children(_, stage, page)}
    <CrawlsHead {stage} {page} />
    <WhenAsked {asked}>
      {#snippet children(board)}
        <div class="head">
          <div>
            <label for="guess" class="text-soft">Your guess of the distance is wrong by</label>
            <span class="float-right text-lg font-semibold">{horn.by} {unit}</span>
            <input
              id="guess"
              type="range"
              min="1"
              max="10"
              step="1"
              bind:value={horn.by}
              class="range w-full"
            />
          </div>
          <p>
            <span class="block text-soft">inside a circle {2 * horn.circle_cm} cm across to</span>
            <span class="text-2xl font-bold">
              {#if horn.furthest === null}no distance{:else}
                {horn.furthest.toFixed(0)} ± {Math.max(
                  2 * horn.furthest * board.speed_share,
                  0.5,
                ).toFixed(0)}
                {unit}
              {/if}
            </span>
          </p>
        </div>
        <HornChart {horn} />
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="overflow-x-auto" role="region" aria-label="Misses by distance" tabindex="0">
          <table class="rows">
            <thead>
              <tr>
                <th>taken for</th>
                {#each shown as [at] (at)}<th class="num">{at} {unit}</th>{/each}
              </tr>
            </thead>
            <tbody>
              {#each rows as row (`${row.by?.by}${row.way}`)}
                <tr class:bold={row.bold}>
                  <th scope="row" class="whitespace-nowrap">
                    {row.by?.by}
                    {unit}
                    {row.way}, cm {row.way === 'nearer' ? 'high' : 'low'}
                  </th>
                  {#each shown as [at, i] (at)}
                    {@const mm =
                      row.way === 'nearer' ? row.by?.nearer_mm[i] : row.by?.further_mm[i]}
                    <td class="num" class:out={outside(mm)}>{cm(mm)}</td>
                  {/each}
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
        <p class="mt-1 text-sm text-soft">
          Each ± {share} %, from the speed{board.marks ? '' : ', which no crawl has told yet'}.
          Amber: outside the circle.
          {#if board.hunts}
            <strong class="text-ink"
              >Law, practice and nerve set your limit, not this number.</strong
            >
          {/if}
        </p>
        <div class="mt-4 grid gap-6 lg:grid-cols-2">
          <section aria-labelledby="slopes-title">
            <div class="flex items-baseline justify-between gap-3">
              <h2 id="slopes-title">Uphill and downhill</h2>
              <label class="text-sm text-soft"
                >at
                <select bind:value={slopeAt} class="ml-1">
                  {#each board.slopes as one (one.distance)}
                    <option value={one.distance}>{one.says}</option>
                  {/each}
                </select></label
              >
            </div>
            {#if slope}
              <table class="rows mt-1">
                <thead>
                  <tr
                    ><th>Slope</th><th class="num">Crawl deeper by</th><th class="num">Else</th></tr
                  >
                </thead>
                <tbody>
                  {#each slope.slopes as one (one.degrees)}
                    <tr>
                      <td>{Math.abs(one.degrees)}° {one.degrees > 0 ? 'up' : 'down'}</td>
                      <td class="num font-semibold">{one.more_mm.toFixed(1)} mm</td>
                      <td class="num text-soft"
                        >{cm(one.costs_mm)} cm {one.costs_mm >= 0 ? 'high' : 'low'}</td
                      >
                    </tr>
                  {/each}
                </tbody>
              </table>
            {/if}
          </section>
          {#if said !== null}
            <section aria-labelledby="said-title">
              <h2 id="said-title">Where it is said to hardly matter</h2>
              <p class="mt-1">
                “Five {unit === 'yd' ? 'yards' : 'metres'} is nothing inside twenty.”
              </p>
              <p class="text-soft">
                Yours strikes {cm(said)} ± {Math.round(
                  (Math.abs(said) / 10) * 2 * board.speed_share,
                )}
                cm low at 20 {unit}.
              </p>
            </section>
          {/if}
        </div>
      {/snippet}
    </WhenAsked>
    <Cautions {stage} />
  {/snippet}
  {#snippet none()}<NoCrawls />{/snippet}
</WhenReady>

<style>
  .head {
    display: grid;
    grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
    gap: 2rem;
    align-items: end;
  }
  .num {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .rows td,
  .rows th {
    padding-block: 0.25rem;
  }
  tbody th {
    font-weight: 400;
    color: var(--soft);
  }
  .bold th,
  .bold td {
    font-weight: 600;
    color: var(--ink);
  }
  .rows .out {
    font-weight: 700;
    color: var(--amber);
  }
  @media (max-width: 767px) {
    .head {
      grid-template-columns: 1fr;
      gap: 0.5rem;
    }
  }
</style>
