<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import MoreNote from '../../components/MoreNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { components } from '../../lib/api.gen';
  import { figure } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';

  let { drawing }: { drawing: components['schemas']['DrawDrawing'] } = $props();

  const METHODS: Record<string, string> = {
    draw_marked: 'Marked arrow',
    draw_on_scale: 'String on a scale',
    draw_stated: 'Told',
    arm_tape: 'To the shoulder',
    arm_span: 'Arm span',
  };
</script>

<div {@attach wanted('readings')} tabindex="-1">
  {#if drawing.readings.length}
    <table class="rows mt-1">
      <thead>
        <tr
          ><th>How</th><th>On pivot + {figure(mm(44.45))}</th><th>Counts</th><th
            ><span class="sr-only">Take back</span></th
          ></tr
        >
      </thead>
      <tbody>
        {#each drawing.readings as reading (reading.entry)}
          <tr>
            <td>{METHODS[reading.method] ?? reading.method}</td>
            <td class="whitespace-nowrap">
              {figure(mm(reading.draw_mm, reading.plus_minus_mm))}
            </td>
            <td>{reading.used ? 'yes' : 'beside'}</td>
            <td class="text-right">
              <TakeBack entry={reading.entry} what={figure(mm(reading.draw_mm))} />
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <MoreNote count={drawing.more} />
  {:else}
    <p class="mt-2 text-soft">None yet. A mark on an arrow at full draw is the real thing.</p>
  {/if}
</div>
