<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import MoreNote from '../../components/MoreNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { components } from '../../lib/api.gen';
  import { figure } from '../../lib/preferences.svelte';
  import { gpp, gr } from '../../lib/units';

  let {
    masses,
    mean,
    more,
  }: { masses: components['schemas']['ArrowTick'][]; mean: number | null; more: number } = $props();

  const sorted = $derived([...masses].sort((a, b) => (a.number ?? 999) - (b.number ?? 999)));

  function off(mass: number): string {
    const gap = mass - (mean ?? mass);
    const text = figure(gr(Math.abs(gap)));
    return `${Number.parseFloat(text) === 0 ? '' : gap < 0 ? '−' : '+'}${text}`;
  }
</script>

<div {@attach wanted('masses')} tabindex="-1">
  {#if sorted.length}
    <table class="rows mt-1">
      <thead>
        <tr
          ><th>No.</th><th>Mass</th><th>Off the mean</th><th>gr/lb</th><th
            ><span class="sr-only">Take back</span></th
          ></tr
        >
      </thead>
      <tbody>
        {#each sorted as arrow (arrow.entry)}
          <tr>
            <td class="font-semibold">{arrow.number ?? '–'}</td>
            <td class="whitespace-nowrap">{figure(gr(arrow.mass_gr))}</td>
            <td class="whitespace-nowrap text-soft">{off(arrow.mass_gr)}</td>
            <td class="whitespace-nowrap">
              {arrow.grains_per_pound == null ? '' : figure(gpp(arrow.grains_per_pound))}
            </td>
            <td class="text-right">
              <TakeBack entry={arrow.entry} what={figure(gr(arrow.mass_gr))} />
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <MoreNote count={more} />
  {:else}
    <p class="mt-2 text-soft">None weighed yet.</p>
  {/if}
</div>
