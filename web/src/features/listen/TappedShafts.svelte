<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import { slid } from '../../drawings/keys';
  import { api, type EntryDraft, type PageOf, type ShaftsBoard } from '../../lib/api';
  import { AskedOfRig } from '../../lib/asked.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { gr } from '../../lib/units';
  import { SPINE_THOUSANDTHS } from '../../lib/units.gen';
  import { fittedId } from '../../lib/values';
  import { wanted } from '../../lib/wanted';
  import { dragged } from '../../drawings/dragged';

  let { page }: { page: PageOf<'listen'> } = $props();

  const pressed = new Recording();
  let width = $state(1.5);
  const asked: AskedOfRig<ShaftsBoard> = new AskedOfRig<ShaftsBoard>((rig) =>
    api.tapped(rig, width),
  );
  $effect(() => {
    void width;
    if (page.shafts && width !== page.shafts.width_lbf) void asked.load();
  });
  const board = $derived(
    page.shafts && width !== page.shafts.width_lbf && asked.data ? asked.data : page.shafts,
  );
  const known = $derived((board?.shafts ?? []).filter((one) => one.spine_lbf != null));
  const ends = $derived.by(() => {
    const values = known.flatMap((one) => [
      (one.spine_lbf ?? 0) - (one.half_lbf ?? 0),
      (one.spine_lbf ?? 0) + (one.half_lbf ?? 0),
    ]);
    const low = Math.min(...values, board?.low_lbf ?? Infinity);
    const high = Math.max(...values, board?.high_lbf ?? -Infinity);
    return [low - 0.6, high + 0.6] as const;
  });
  const W = 300;
  const x = $derived(scaleLinear([ends[0], ends[1]], [4, W - 4]));
  const ticks = $derived(x.ticks(5));

  /** To a tenth of a pound: fine as it is heard, beside the other standard. */
  const spoken = (lbf: number) => `${lbf.toFixed(1)} lb (${Math.round(SPINE_THOUSANDTHS / lbf)})`;
  const out = (lbf: number) => {
    if (!board || board.low_lbf == null || board.high_lbf == null) return '';
    return lbf > board.high_lbf
      ? `${(lbf - board.high_lbf).toFixed(1)} lb over`
      : `${(board.low_lbf - lbf).toFixed(1)} lb under`;
  };

  /** The spines of the band, written into the quiver: each with its ± and the recording. */
  async function keep() {
    const id = fittedId(openRig.assessment, 'arrow_set');
    const drafts = known.map((one): EntryDraft | null =>
      id
        ? {
            subject: { kind: 'arrow_set', id },
            reading: {
              kind: 'numbered_arrow',
              arrow_number: one.number,
              spine_lbf: Math.round((one.spine_lbf ?? 0) * 100) / 100,
              spine_ear: {
                mark: one.mark,
                half: Math.max(one.half_lbf ?? 0.1, 0.01),
                same_place: false,
              },
            },
            source: one.source,
          }
        : null,
    );
    const count = drafts.length;
    await pressed.record(
      drafts,
      'arrow_set',
      `Spine of ${count} shaft${count === 1 ? '' : 's'} by ear`,
    );
  }
  let typed = $state<Record<string, string>>({});
  /** A shaft's own mass, with its taps as they were. */
  async function weigh(one: ShaftsBoard['shafts'][number], text: string) {
    const value = Number(text.replace(',', '.'));
    const id = fittedId(openRig.assessment, 'arrow_set');
    if (!id || !Number.isFinite(value) || value < 100 || value > 2500) return;
    const reading = {
      kind: 'shaft_tapped' as const,
      arrow_number: one.number,
      state: one.state,
      mark: one.mark,
      taps: one.heard,
      mass_gr: value,
    };
    const entry: EntryDraft = { subject: { kind: 'arrow_set', id }, reading, source: one.source };
    if (await pressed.record([entry], 'arrow_set', `Shaft ${one.number} ${value} gr`))
      typed = { ...typed, [one.number]: '' };
  }
  function drag(to: number) {
    if (board?.low_lbf == null) return;
    width = Math.round(10 * Math.min(Math.max(x.invert(to) - board.low_lbf, 0.2), 20)) / 10;
  }
  function key(event: KeyboardEvent) {
    const to = slid(event, { now: width, step: 0.1, page: 0.5, low: 0.2, high: 20 });
    if (to !== null) width = Math.round(10 * to) / 10;
  }
</script>

<section class="mt-5" aria-labelledby="shafts-title" {@attach wanted('shafts')} tabindex="-1">
  <h2 id="shafts-title">Shafts tapped</h2>
  {#if board}
    <table class="rows mt-1">
      <thead>
        <tr>
          <th>No</th>
          <th>Weighs</th>
          <th>Rings at</th>
          <th>Spine</th>
          <th>Taps</th>
          <th class="axis">
            <span class="sr-only">On one axis, in pounds</span>
            <svg viewBox="0 0 {W} 20" aria-hidden="true">
              {#each ticks as lbf (lbf)}
                <text x={x(lbf)} y="13" text-anchor="middle">{lbf}</text>
              {/each}
            </svg>
          </th>
          <th><span class="sr-only">In the set</span></th>
        </tr>
      </thead>
      <tbody>
        {#each board.shafts as one (one.number)}
          {@const inside = board.inside.includes(one.number)}
          <tr>
            <th scope="row">{one.number}</th>
            <td class="whitespace-nowrap">
              {#if one.weighed && one.mass_gr != null}
                {figure(gr(one.mass_gr))}
              {:else}
                <form
                  onsubmit={(event) => {
                    event.preventDefault();
                    void weigh(one, typed[one.number] ?? '');
                  }}
                >
                  <label class="sr-only" for="mass-{one.number}"
                    >Mass of shaft {one.number} in grains</label
                  >
                  <input
                    id="mass-{one.number}"
                    class="field mass"
                    inputmode="decimal"
                    placeholder={one.mass_gr == null ? 'gr' : one.mass_gr.toFixed(0)}
                    bind:value={typed[one.number]}
                  />
                </form>
              {/if}
            </td>
            <td class="whitespace-nowrap">{one.ring_hz.toFixed(1)} Hz</td>
            <td class="whitespace-nowrap">
              {#if one.spine_lbf == null}
                <span class="text-soft">wants its mass</span>
              {:else}
                <strong>{spoken(one.spine_lbf)}</strong>
                <span class="text-soft">± {(one.half_lbf ?? 0).toFixed(1)}</span>
              {/if}
              {#if one.uneven != null}
                <span class="block text-sm text-amber">uneven: mark the stiff side</span>
              {/if}
            </td>
            <td>{one.taps}</td>
            <td class="axis">
              <svg viewBox="0 0 {W} 22" aria-hidden="true">
                {#if board.low_lbf != null && board.high_lbf != null}
                  <rect
                    class="band"
                    x={x(board.low_lbf)}
                    width={x(board.high_lbf) - x(board.low_lbf)}
                    y="-12"
                    height="47"
                  />
                {/if}
                {#if one.spine_lbf != null}
                  {@const half = one.half_lbf ?? 0}
                  <line
                    class="doubt"
                    x1={x(one.spine_lbf - half)}
                    x2={x(one.spine_lbf + half)}
                    y1="11"
                    y2="11"
                  />
                  <circle class:inside cx={x(one.spine_lbf)} cy="11" r="4.5" />
                {/if}
              </svg>
            </td>
            <td class="text-right md:whitespace-nowrap">
              {#if one.spine_lbf != null}
                {inside ? 'in the set' : out(one.spine_lbf)}
              {/if}
              <TakeBack entry={one.entry_id} what="shaft {one.number}" />
            </td>
          </tr>
        {/each}
      </tbody>
      {#if board.low_lbf != null && board.high_lbf != null}
        <tfoot>
          <tr>
            <td colspan="5" class="text-right text-soft">width of the set</td>
            <td class="axis">
              <svg viewBox="0 0 {W} 22">
                <g
                  class="handle"
                  role="slider"
                  tabindex="0"
                  aria-label="Width of the set in pounds"
                  aria-valuemin="0.2"
                  aria-valuemax="20"
                  aria-valuenow={width}
                  {...dragged((at) => drag(at.x))}
                  onkeydown={key}
                >
                  <rect
                    x={x(board.high_lbf) - 16}
                    y="0"
                    width="32"
                    height="22"
                    fill="transparent"
                  />
                  <line x1={x(board.high_lbf)} x2={x(board.high_lbf)} y1="0" y2="11" />
                  <circle cx={x(board.high_lbf)} cy="11" r="7" />
                </g>
              </svg>
            </td>
            <td class="whitespace-nowrap"><strong>{width.toFixed(1)} lb wide</strong></td>
          </tr>
        </tfoot>
      {/if}
    </table>
    <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
      {#if known.some((one) => !one.kept)}
        <button class="act" disabled={pressed.busy} onclick={() => void keep()}
          >Write these spines into the quiver</button
        >
      {:else if known.length}
        <span>Their spines stand in the quiver.</span>
      {/if}
      <span>
        {board.inside.length} of {known.length} lie within {board.width_lbf.toFixed(1)} lb.
        {#if board.shared_half_lbf != null}
          <span class="text-soft"
            >All together may be off by ± {board.shared_half_lbf.toFixed(1)} lb{board.calibrated
              .length
              ? ''
              : ': measure one on a gauge too'}.</span
          >
        {/if}
      </span>
    </p>
    {#if pressed.problem}<ProblemNote problem={pressed.problem} id="problem-shafts" />{/if}
  {:else}
    <p class="mt-1 text-soft">
      None yet. Each gets its ring, and with its mass its spine in both standards; the closest of
      them are the matched set.
    </p>
  {/if}
</section>

<style>
  section:focus {
    outline: none;
  }
  tbody th {
    color: var(--ink);
    font-weight: 700;
    font-size: 1rem;
  }
  .mass {
    width: 5.2rem;
    min-height: 1.9rem;
  }
  .axis {
    width: 34%;
    padding-block: 0;
  }
  .axis svg {
    display: block;
    width: 100%;
    overflow: visible;
  }
  .axis text {
    fill: var(--soft);
    font-size: 15px;
  }
  .band {
    fill: color-mix(in srgb, var(--green) 22%, var(--paper));
  }
  .doubt {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  circle {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  circle.inside {
    fill: var(--ink);
  }
  .handle {
    cursor: ew-resize;
    touch-action: none;
  }
  .handle line {
    stroke: var(--red);
    stroke-width: 1.5;
  }
  .handle circle {
    fill: var(--red);
    stroke: var(--paper);
  }
  @media (max-width: 720px) {
    .axis,
    th:nth-child(3),
    td:nth-child(3),
    th:nth-child(5),
    td:nth-child(5),
    tfoot {
      display: none;
    }
  }
</style>
