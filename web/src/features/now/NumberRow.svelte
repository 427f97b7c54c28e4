<script lang="ts">
  import type { KnownNumber } from '../../lib/api';
  import { placePath } from '../../lib/paths';
  import { figure, figureParts, tell } from '../../lib/preferences.svelte';
  import type { Figure } from '../../lib/units';

  /** One number: its value, how sure it is as a length, and the limit that must not be touched. */
  let { row, rig }: { row: KnownNumber; rig: string } = $props();

  const W = 220;
  const H = 34;
  const MIDDLE = 13;
  const EDGE = 8;

  const said = $derived(row.figure ? figureParts(row.figure) : null);
  const sure = $derived(row.figure?.plus_minus ?? 0);
  /** Half of what the axis shows: the ±, the limit, and some of the number itself. */
  const half = $derived.by(() => {
    if (!row.figure) return 1;
    const { value } = row.figure;
    const reach = [row.limit?.value, row.own].map((at) =>
      at === undefined || at === null ? 0 : Math.abs(at - value) * 1.12,
    );
    return Math.max(sure * 1.5, ...reach, Math.abs(value) * 0.03, 1e-9);
  });
  const x = $derived((at: number) => {
    const value = row.figure?.value ?? 0;
    return EDGE + ((at - value) / half / 2 + 0.5) * (W - 2 * EDGE);
  });
  const limit = $derived(row.limit ?? null);
  const touched = $derived.by(() => {
    if (!limit || !row.figure) return false;
    const away =
      limit.side === 'below' ? row.figure.value - limit.value : limit.value - row.figure.value;
    return away < sure;
  });
  const end = $derived.by(() => {
    const at = limit ? x(limit.value) : 0;
    return at > W - 44 ? 'end' : at < 44 ? 'start' : 'middle';
  });
  const limitSaid = $derived.by(() => {
    if (!limit || !row.figure) return '';
    const at: Figure = { value: limit.value, unit: row.figure.unit, plus_minus: null };
    return limit.value === 0 ? limit.name : `${limit.name} ${figureParts(at).number}`;
  });
  const says = $derived.by(() => {
    if (!row.figure) return '';
    const kept = !limit
      ? ''
      : touched
        ? `, too near ${limitSaid} to be sure`
        : `, clear of ${limitSaid}`;
    const then =
      row.after == null
        ? ''
        : `, ± ${figure({ ...row.figure, value: row.after, plus_minus: null })} once measured`;
    return `${figure(row.figure)}${kept}${then}`;
  });
</script>

<li class="row">
  <a class="said" href={placePath(rig, row.stage)}>
    <span class="block text-sm text-soft">{row.label}</span>
    {#if said && row.figure}
      <span class="value" class:pale={row.assumed}>{said.number} {said.unit}</span>
      {#if said.plusMinus}<span class="text-sm whitespace-nowrap text-soft">± {said.plusMinus}</span
        >{/if}
    {:else if row.missing}
      <span class="text-soft">{tell(row.missing)}</span>
    {/if}
  </a>
  {#if row.figure}
    <svg viewBox="0 0 {W} {H}" class="axis" role="img" aria-label={says}>
      <line x1={EDGE} x2={W - EDGE} y1={MIDDLE} y2={MIDDLE} stroke="var(--line)" />
      <rect
        x={x(row.figure.value - sure)}
        y={MIDDLE - 7}
        width={Math.max(2, x(row.figure.value + sure) - x(row.figure.value - sure))}
        height="14"
        fill="var(--blue)"
        opacity={row.assumed ? 0.2 : 0.38}
      />
      {#if row.after != null}
        <rect
          x={x(row.figure.value - row.after)}
          y={MIDDLE - 4}
          width={Math.max(3, x(row.figure.value + row.after) - x(row.figure.value - row.after))}
          height="8"
          class="after"
        />
      {/if}
      <line
        x1={x(row.figure.value)}
        x2={x(row.figure.value)}
        y1={MIDDLE - 9}
        y2={MIDDLE + 9}
        stroke="var(--ink)"
        stroke-width="2"
      />
      {#if row.own != null}
        <path d="M{x(row.own)} {MIDDLE + 3}l5 9h-10z" fill="var(--wood-line)" />
        <text x={x(row.own)} y={H - 1} text-anchor="middle" class="tick">yours</text>
      {/if}
      {#if limit}
        <line
          x1={x(limit.value)}
          x2={x(limit.value)}
          y1="1"
          y2={MIDDLE + 10}
          class="limit"
          class:touched
        />
        <text x={x(limit.value)} y={H - 1} text-anchor={end} class="tick" class:touched
          >{limitSaid}</text
        >
      {/if}
    </svg>
  {:else}
    <span></span>
  {/if}
  <span class="from text-sm text-soft">{row.figure ? tell(row.stands_on) : ''}</span>
</li>

<style>
  .row {
    display: grid;
    grid-template-columns: minmax(8.4rem, 1fr) minmax(120px, 220px) minmax(6.5rem, 0.8fr);
    gap: 0.8rem;
    align-items: center;
    border-bottom: 1px solid var(--line);
    padding-block: 0.5rem;
  }
  .said {
    color: var(--ink);
    text-decoration: none;
  }
  .said:hover .value {
    text-decoration: underline dotted;
    text-underline-offset: 4px;
  }
  .value {
    font-size: 1.2rem;
    font-weight: 600;
    white-space: nowrap;
  }
  .pale {
    color: var(--soft);
    font-weight: 400;
  }
  .axis {
    width: 100%;
    overflow: visible;
  }
  .after {
    fill: none;
    stroke: var(--green);
    stroke-dasharray: 3 2;
    stroke-width: 1.3;
  }
  .limit {
    stroke: var(--soft);
    stroke-width: 2;
  }
  .limit.touched {
    stroke: var(--red);
  }
  .tick {
    fill: var(--soft);
    font-size: 12px;
  }
  .tick.touched {
    fill: var(--red);
  }
  @media (max-width: 767px) {
    .row {
      grid-template-columns: minmax(7.4rem, 1fr) minmax(110px, 1.2fr);
    }
    .from {
      grid-column: 1 / -1;
      margin-top: -0.5rem;
    }
  }
</style>
