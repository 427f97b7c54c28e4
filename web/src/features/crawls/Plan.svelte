<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenAsked from '../../components/WhenAsked.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { M_PER_YD } from '../../lib/units.gen';
  import PointOnScale from '../../drawings/crawls/PointOnScale.svelte';
  import { api, type PlanBoard } from '../../lib/api';
  import { AskedOfRig } from '../../lib/asked.svelte';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';
  import CrawlsHead from './CrawlsHead.svelte';
  import Nocks from './Nocks.svelte';
  import NoCrawls from './NoCrawls.svelte';

  let wished = $state(50);
  const asked: AskedOfRig<PlanBoard> = new AskedOfRig<PlanBoard>((rig, known) =>
    api.crawlPlan(rig, wished * (known?.unit === 'yd' ? M_PER_YD : 1)),
  ).follow();

  const per = $derived(asked.data?.unit === 'yd' ? M_PER_YD : 1);
  function wish(event: Event) {
    wished = Number((event.currentTarget as HTMLInputElement).value);
    void asked.load();
  }
  const unit = $derived(asked.data?.unit ?? 'm');
  const at = (metres: number | null | undefined) =>
    metres == null ? 'beyond 120 m' : `${Math.round(metres / per)} ${unit}`;
  const GROUPS = $derived(
    asked.data
      ? [
          { title: 'By anchor', first: 'Anchor', lines: asked.data.anchors },
          { title: 'By arrow', first: 'Arrow', lines: asked.data.arrows },
          ...(asked.data.bows.length
            ? [{ title: 'By bow', first: 'Your rigs', lines: asked.data.bows }]
            : []),
        ]
      : [],
  );
</script>

<WhenReady key="crawls">
  {#snippet children(_, stage, page)}
    <CrawlsHead {stage} {page} />
    <WhenAsked {asked}>
      {#snippet children(board)}
        {#each GROUPS as group (group.title)}
          <section class="mb-5" aria-label={group.title}>
            <table class="rows">
              <thead>
                <tr>
                  <th class="w-40">{group.first}</th>
                  <th>Point-on</th>
                  <th class="num">at 10 m</th>
                  <th class="num">at {at(board.nearest_m)}</th>
                  <th class="num">left before stack</th>
                </tr>
              </thead>
              <tbody>
                {#each group.lines as line (line.key)}
                  <tr class:now={line.now}>
                    <th scope="row">
                      {tell(line.says)}{#if line.now}<span class="text-sm text-soft">, now</span
                        >{/if}
                    </th>
                    <td>
                      <PointOnScale at_m={line.point_on_m ?? null} wished_m={board.wished_m} />
                      <span class="sr-only">point-on</span>
                      {at(line.point_on_m)}
                    </td>
                    <td class="num whitespace-nowrap">{line.near_mm.toFixed(0)} mm</td>
                    <td class="num whitespace-nowrap" class:out={line.too_deep}>
                      {line.deepest_mm.toFixed(0)} mm{#if line.too_deep}<span class="sr-only"
                          >, deeper than a hand reaches</span
                        >{/if}
                    </td>
                    <td class="num" class:out={line.margin_mm != null && line.margin_mm < 12.7}>
                      {line.margin_mm == null
                        ? '–'
                        : line.margin_mm < 0
                          ? 'past it'
                          : figure(mm(line.margin_mm))}
                    </td>
                  </tr>
                {/each}
              </tbody>
            </table>
          </section>
        {/each}
        <p class="text-sm text-soft">
          A crawl of more than 120 mm no hand reaches. Left before stack: at the deepest crawl, the
          bow held square, the worst case. Long shafts bring point-on nearer: less crawl for near
          shots.
        </p>
        <section class="mt-5" aria-labelledby="needs-title">
          <h2 id="needs-title">What a point-on further off or nearer needs</h2>
          <div class="wish">
            <input
              id="wished"
              type="range"
              min="15"
              max="90"
              step="1"
              value={wished}
              oninput={wish}
              class="range"
              aria-label="Point-on at"
              aria-valuetext={`${wished} ${unit}`}
            />
            <p class="text-lg">
              Point-on at <strong>{wished} {unit}</strong> needs one of these:
            </p>
          </div>
          {#if board.needs.length}
            <ul class="mt-1">
              {#each board.needs as need (need.lever)}<li class="need">{tell(need.says)}</li>{/each}
            </ul>
          {:else}
            <p class="text-soft">No single change reaches it.</p>
          {/if}
        </section>
        <Nocks {board} />
      {/snippet}
    </WhenAsked>
    <Cautions {stage} />
  {/snippet}
  {#snippet none()}<NoCrawls />{/snippet}
</WhenReady>

<style>
  .num {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  tbody th {
    font-weight: 400;
    color: var(--ink);
  }
  .now th,
  .now td {
    font-weight: 600;
  }
  .rows .out {
    color: var(--amber);
    font-weight: 600;
  }
  .wish {
    display: grid;
    grid-template-columns: minmax(8rem, 18rem) auto;
    justify-content: start;
    align-items: center;
    gap: 0.25rem 1.25rem;
  }
  @media (max-width: 640px) {
    .wish {
      grid-template-columns: 1fr;
    }
  }
  .need {
    border-bottom: 1px solid var(--line);
    padding: 0.3rem 0;
  }
</style>
