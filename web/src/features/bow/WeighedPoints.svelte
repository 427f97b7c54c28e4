<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import MoreNote from '../../components/MoreNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { components } from '../../lib/api.gen';
  import { figure } from '../../lib/preferences.svelte';
  import { lbf, mm } from '../../lib/units';

  let { drawing }: { drawing: components['schemas']['WeightDrawing'] | null } = $props();

  const points = $derived((drawing?.points ?? []).filter((point) => !point.is_mark));

  function off(weight: number, expected: number): string {
    const gap = weight - expected;
    const text = figure(lbf(Math.abs(gap)));
    const sign = Number.parseFloat(text) === 0 ? '' : gap < 0 ? '−' : '+';
    return `${sign}${text}`;
  }
</script>

<div {@attach wanted('points')} tabindex="-1">
  {#if points.length}
    <table class="rows mt-1">
      <thead>
        <tr
          ><th>String at</th><th>Scale</th><th>Curve</th><th>Off</th><th
            ><span class="sr-only">Take back</span></th
          ></tr
        >
      </thead>
      <tbody>
        {#each points as point (point.entry)}
          <tr>
            <td class="whitespace-nowrap">
              {figure(mm(point.draw_mm))}
              {#if point.string_at === 'groove'}<span class="text-sm text-soft">from groove</span
                >{/if}
            </td>
            <td class="whitespace-nowrap">{figure(lbf(point.weight_lbf))}</td>
            <td class="whitespace-nowrap text-soft">{figure(lbf(point.expected_lbf))}</td>
            <td class="whitespace-nowrap">
              {off(point.weight_lbf, point.expected_lbf)}
              {#if point.left_out}<span class="text-sm text-amber">left out</span>{/if}
              {#if point.unusable}<span class="text-sm text-amber">at rest</span>{/if}
            </td>
            <td class="text-right">
              <TakeBack entry={point.entry} what={figure(lbf(point.weight_lbf))} />
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <MoreNote count={drawing?.more ?? 0} />
  {:else}
    <p class="mt-2 text-soft">
      Not weighed yet. {drawing ? 'The dashed curve is worked out from the mark.' : ''}
    </p>
  {/if}
</div>
