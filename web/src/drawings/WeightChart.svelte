<script lang="ts">
  import BottomAxis from './BottomAxis.svelte';
  import { area, line } from 'd3-shape';
  import type { components } from '../lib/api.gen';
  import { figure, preferences } from '../lib/preferences.svelte';
  import { joules, lbf, mm } from '../lib/units';
  import { lengthTicks, lengthUnit, weightTicks, weightUnit } from './axis';
  import Hatch from './Hatch.svelte';
  import { Plot } from './plot.svelte';

  type Drawing = components['schemas']['WeightDrawing'];
  type Sample = components['schemas']['WeightSample'];
  let { drawing, weight }: { drawing: Drawing; weight: number | null } = $props();

  const plot = new Plot(290, { left: 34, right: 8, top: 34, bottom: 40 });

  const first = $derived(drawing.line[0]?.draw_mm ?? 0);
  const last = $derived(drawing.line.at(-1)?.draw_mm ?? 1);
  const x = $derived(plot.x(first, last));
  const top = $derived(Math.max(...drawing.line.map((s) => s.high_lbf)) * 1.05);
  const y = $derived(plot.y(0, top));
  const band = $derived(
    area<Sample>(
      (s) => x(s.draw_mm),
      (s) => y(s.low_lbf),
      (s) => y(s.high_lbf),
    )(drawing.line),
  );
  const path = $derived(
    line<Sample>(
      (s) => x(s.draw_mm),
      (s) => y(s.weight_lbf),
    )(drawing.line),
  );
  const own = $derived(drawing.own_mm ?? null);
  /** The work stored: what lies under the curve up to the archer's hook. */
  const stored = $derived(
    own === null || weight === null
      ? null
      : area<[number, number]>(
          (s) => x(s[0]),
          () => y(0),
          (s) => y(s[1]),
        )([
          ...drawing.line
            .filter((s) => s.draw_mm < own)
            .map((s): [number, number] => [s.draw_mm, s.weight_lbf]),
          [own, weight],
        ]),
  );
  const onset = $derived(
    drawing.onset_mm != null && drawing.onset_mm < last ? drawing.onset_mm : null,
  );
  const limit = $derived(
    drawing.limit_mm != null && drawing.limit_mm < last ? drawing.limit_mm : null,
  );
  const ownLeft = $derived(own !== null && x(own) > plot.across - 130);
  const points = $derived(drawing.points.filter((point) => !point.is_mark));
</script>

<figure bind:clientWidth={plot.width}>
  <svg
    viewBox="0 0 {plot.across} {plot.height}"
    class="w-full"
    role="img"
    aria-label="Draw weight against the position of the string at the hook"
  >
    <Hatch id="hatch" />
    {#each weightTicks(0, top, 5, preferences.units) as tick (tick.at)}
      <line x1={plot.left} x2={plot.right} y1={y(tick.at)} y2={y(tick.at)} stroke="var(--faint)" />
      <text x={plot.left - 8} y={y(tick.at)} dy="4" text-anchor="end" class="soft">{tick.text}</text
      >
    {/each}
    <BottomAxis ticks={lengthTicks(first, last, 11, preferences.units)} {x} y={plot.floor} />
    <line x1={plot.left} x2={plot.right} y1={plot.floor} y2={plot.floor} stroke="var(--line)" />
    <text x="0" y="12" class="soft">{weightUnit(preferences.units)}</text>
    <text x={plot.right} y={plot.height - 6} text-anchor="end" class="soft">
      string at the hook, {lengthUnit(preferences.units)}
    </text>

    {#if stored}
      <path d={stored} fill="var(--wood)" opacity="0.3" />
      {#if drawing.stored_j != null && own !== null}
        <text x={x(first + 0.62 * (own - first))} y={y(0) - 12} text-anchor="middle" class="soft">
          {figure(joules(drawing.stored_j))} stored
        </text>
      {/if}
    {/if}
    {#if onset !== null}
      <rect
        x={x(onset)}
        y={plot.top}
        width={plot.right - x(onset)}
        height={plot.floor - plot.top}
        fill="url(#hatch)"
        opacity="0.7"
      />
      <text x={plot.right} y={plot.top - 6} class="red" text-anchor="end">
        stack from {figure(mm(onset))}
      </text>
    {/if}
    {#if limit !== null}
      <line
        x1={x(limit)}
        x2={x(limit)}
        y1={plot.top + 4}
        y2={plot.floor}
        stroke="var(--red)"
        stroke-width="1.6"
      />
      <text x={x(limit) - 4} y={plot.top + 14} class="red" text-anchor="end">
        maker's limit {figure(mm(limit))}
      </text>
    {/if}
    <path d={band} fill="var(--blue)" opacity="0.16" />
    <path
      d={path}
      fill="none"
      stroke="var(--ink)"
      stroke-width="2"
      stroke-dasharray={drawing.basis === 'mark' ? '6 4' : undefined}
    />
    {#if own !== null && weight !== null}
      <line x1={x(own)} x2={x(own)} y1={y(weight)} y2={plot.floor} stroke="var(--ink)" />
      <circle cx={x(own)} cy={y(weight)} r="4" fill="var(--ink)" />
      <text
        x={x(own) + (ownLeft ? -10 : 10)}
        y={y(weight * 0.4) + 16}
        text-anchor={ownLeft ? 'end' : 'start'}
        class="soft"
      >
        at {figure(mm(own))}
      </text>
      <text
        x={x(own) + (ownLeft ? -10 : 10)}
        y={y(weight * 0.4)}
        text-anchor={ownLeft ? 'end' : 'start'}
        class="main"
      >
        {figure(lbf(weight))}
      </text>
    {/if}
    {#each drawing.points.filter((point) => point.is_mark) as mark (mark.entry)}
      <path
        d="M{x(mark.draw_mm)} {y(mark.weight_lbf) - 10} l10 10 -10 10 -10 -10Z"
        fill="none"
        stroke="var(--soft)"
        stroke-width="1.6"
      />
      <text x={x(mark.draw_mm) - 13} y={y(mark.weight_lbf) - 9} text-anchor="end" class="soft">
        mark
      </text>
    {/each}
    {#each points as point (point.entry)}
      {@const [px, py] = [x(Math.max(point.draw_mm, first)), y(point.weight_lbf)]}
      <circle cx={px} cy={py} r="4.5" class="point" class:out={point.left_out || point.unusable} />
      {#if point.left_out || point.unusable}
        <path d="M{px - 7} {py - 7}l14 14m0-14-14 14" stroke="var(--red)" stroke-width="1.6" />
      {/if}
    {/each}
  </svg>
</figure>

<style>
  .red {
    fill: var(--red);
  }
  .main {
    font-size: 17px;
    font-weight: 600;
  }
  .point.out {
    stroke-dasharray: 2 2;
  }
  .point {
    fill: var(--paper);
    stroke: var(--red);
    stroke-width: 2.2;
  }
</style>
