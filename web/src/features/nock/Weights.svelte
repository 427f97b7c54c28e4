<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import BalanceDrawing from '../../drawings/nock/BalanceDrawing.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { gap } from '../../lib/units';
  import NockHead from './NockHead.svelte';
  import WeightForm from './WeightForm.svelte';

  const taking = new Recording();

  function takeOff(place: string) {
    if (!openRig.rig) return;
    const subject = { kind: 'rig' as const, id: openRig.rig };
    const reading = {
      kind: 'riser_weight' as const,
      place,
      mass_g: 0,
      up_mm: 0,
      forward_mm: 20,
    };
    void taking.record([{ subject, reading }], null, `${place}: taken off`);
  }
</script>

<WhenReady key="nock">
  {#snippet children(_, stage, page)}
    {@const balance = page.balance}
    <NockHead {stage} {page} />
    <div class="grid gap-6 lg:grid-cols-2">
      <BalanceDrawing {balance} />
      <div>
        <section aria-labelledby="weights-on">
          <h2 id="weights-on">Weights on the riser</h2>
          {#if balance.weights.length}
            <table class="rows mt-1">
              <thead
                ><tr
                  ><th>Where</th><th>Mass</th><th>Up</th><th>Forward</th><th
                    ><span class="sr-only">Take off</span></th
                  ></tr
                ></thead
              >
              <tbody>
                {#each balance.weights as weight (weight.place)}
                  <tr>
                    <td class="font-semibold">{weight.place}</td>
                    <td class="whitespace-nowrap">{weight.mass_g.toFixed(0)} g</td>
                    <td class="whitespace-nowrap">{figure(gap(weight.up_mm))}</td>
                    <td class="whitespace-nowrap">{figure(gap(weight.forward_mm))}</td>
                    <td class="text-right">
                      <button class="quiet text-sm" onclick={() => takeOff(weight.place)}>
                        take off<span class="sr-only"> {weight.place}</span>
                      </button>
                    </td>
                  </tr>
                {/each}
              </tbody>
            </table>
            <p class="mt-2">
              Balance {figure(gap(Math.abs(balance.down_mm ?? 0)))}
              {(balance.down_mm ?? 0) >= 0 ? 'below' : 'above'} the bare riser's, {figure(
                gap(balance.x_mm ?? 0),
              )} forward; it turns the bow forward with {(balance.torque_nm ?? 0).toFixed(2)} N m.
            </p>
          {:else}
            <p class="mt-1 text-soft">None told. Weights on the riser are optional.</p>
          {/if}
        </section>
        <section aria-labelledby="weight-add" class="mt-4">
          <h2 id="weight-add">Put one on</h2>
          <WeightForm />
        </section>
      </div>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
