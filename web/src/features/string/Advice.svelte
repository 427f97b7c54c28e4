<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { STRING_MATERIALS } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';

  let { sheet }: { sheet: PageOf<'string'>['sheet'] } = $props();

  const NAMES: Record<string, string> = Object.fromEntries(STRING_MATERIALS);
</script>

<section aria-labelledby="lengths-strands">
  <h2 id="lengths-strands">Length and strands for this bow</h2>
  <table class="rows mt-1">
    <tbody>
      <tr>
        <th scope="row">By the trade's habit</th>
        <td class="whitespace-nowrap">{figure(mm(sheet.rule_mm))}</td>
      </tr>
      <tr>
        <th scope="row">Of the computed bow at its brace</th>
        <td class="whitespace-nowrap">
          {sheet.computed_mm == null ? 'not computed' : figure(mm(sheet.computed_mm))}
        </td>
      </tr>
      <tr>
        <th scope="row">Measured on the bow</th>
        <td class="whitespace-nowrap" class:font-semibold={sheet.length_told}>
          {sheet.length_told ? `${figure(mm(sheet.length_mm))}, wins` : 'not yet'}
        </td>
      </tr>
      {#each sheet.advised as one (one.material)}
        <tr>
          <th scope="row">{NAMES[one.material]}, at least {one.least}</th>
          <td class="whitespace-nowrap">
            {one.strands} strands, thread {one.thread_mm} mm
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="mt-1 text-sm text-soft">
    {#if !sheet.advised.length}
      Strands need your draw and the bow's weight.
    {:else}
      Strands for four times the shot's peak, then for a nock groove of {sheet.groove_mm.toFixed(1)} mm{sheet.groove_told
        ? ''
        : ' (taken)'}. Fit and feel decide more often than strength.
    {/if}
  </p>
  <p class="mt-2 text-sm text-soft">
    <strong class="text-ink">A slack strand?</strong> Unstrung, take out one turn, look along the
    bundle, and pluck it.{sheet.few_strands
      ? ' With so few strands one slack one is a good part of the string.'
      : ''}
  </p>
</section>
