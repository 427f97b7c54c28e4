<script lang="ts">
  import { figure, preferences } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';
  import { lengthTicks } from '../axis';
  import type { BenchView } from './view.svelte';
  import Hatch from '../Hatch.svelte';

  let { view }: { view: BenchView } = $props();

  const cx = $derived(view.W / 2);
  const ticks = $derived(
    lengthTicks(
      view.rest,
      view.furthest,
      preferences.units === 'inch' ? 30 : 20,
      preferences.units,
    ),
  );
  const named = $derived(
    lengthTicks(view.rest, view.furthest, 8, preferences.units).map((tick) => tick.at),
  );
  const isNamed = (at: number) => named.some((other) => Math.abs(other - at) < 0.1);
  const own = $derived(view.drawing.own_mm ?? null);
  const onset = $derived(view.drawing.onset_mm ?? null);
  const limit = $derived(view.drawing.limit_mm ?? null);
  const shown = (draw: number | null): draw is number =>
    draw !== null && draw <= view.furthest + 0.1;
  const LINE_PX = 17;
  /** Own draw stands left, limits right; two labels that would touch are pushed apart. */
  const apart = $derived(
    limit !== null && onset !== null ? view.at(onset) - view.at(limit) : Number.POSITIVE_INFINITY,
  );
  const leader = $derived(view.W - (view.narrow ? 98 : 150));
  const push = $derived(Math.max(LINE_PX - Math.abs(apart), 0) / 2);
  const onsetShift = $derived(4 + (apart >= 0 ? push : -push));
  const limitShift = $derived(4 - (apart >= 0 ? push : -push));
</script>

<Hatch id="stack-hatch" every={6} />
{#if shown(onset)}
  <rect
    x={cx - 17}
    y={view.at(onset)}
    width="34"
    height={Math.max(view.at(view.furthest) - view.at(onset), 0)}
    fill="url(#stack-hatch)"
    opacity="0.6"
  />
  <line x1={cx} x2={leader} y1={view.at(onset)} y2={view.at(onset)} class="red-line" />
  <text x={view.W - 2} y={view.at(onset) + onsetShift} text-anchor="end" class="red">
    {view.narrow ? 'stack' : 'stack begins'}
    {figure(mm(onset))}
  </text>
{/if}
{#each ticks as tick (tick.at)}
  <line
    x1={cx - (isNamed(tick.at) ? 9 : 5)}
    x2={cx + (isNamed(tick.at) ? 9 : 5)}
    y1={view.at(tick.at)}
    y2={view.at(tick.at)}
    stroke="var(--soft)"
    stroke-width="0.9"
  />
  {#if isNamed(tick.at)}
    <text x={cx + 20} y={view.at(tick.at) + 4} class="soft">{tick.text}</text>
  {/if}
{/each}
{#if shown(limit)}
  <line x1={cx} x2={leader} y1={view.at(limit)} y2={view.at(limit)} class="red-line" />
  <text x={view.W - 2} y={view.at(limit) + limitShift} text-anchor="end" class="red">
    {view.narrow ? 'limit' : "maker's limit"}
    {figure(mm(limit))}
  </text>
{/if}
<g class="brace">
  <line
    x1={cx + 52}
    x2={cx + 52}
    y1={view.y(0) + 2}
    y2={view.at(view.rest) - 2}
    marker-start="url(#dim-start)"
    marker-end="url(#dim-end)"
  />
</g>
{#if shown(own)}
  <line x1={cx - 84} x2={cx - 8} y1={view.at(own)} y2={view.at(own)} stroke="var(--ink)" />
  <line
    x1={cx}
    x2={cx}
    y1={view.y(0)}
    y2={view.at(own)}
    stroke="var(--ink)"
    stroke-width="0.7"
    stroke-dasharray="2 4"
  />
  <text x={cx - 90} y={view.at(own) - 5} text-anchor="end" class="soft">your hook</text>
  <text x={cx - 90} y={view.at(own) + 12} text-anchor="end" class="strong">{figure(mm(own))}</text>
{/if}

<style>
  .strong {
    font-weight: 600;
    font-size: 15px;
  }
  .brace line {
    stroke: var(--soft);
    stroke-width: 0.9;
  }
  .red {
    fill: var(--red);
  }
  .red-line {
    stroke: var(--red);
    stroke-width: 1.1;
  }
</style>
