<script lang="ts">
  import WhenReady from '../../components/WhenReady.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import BowHead from './BowHead.svelte';
  import KneeBench from './KneeBench.svelte';
  import SpeedForm from './SpeedForm.svelte';
  import SpeedReadings from './SpeedReadings.svelte';
</script>

<WhenReady key="bow">
  {#snippet children(_, stage, page)}
    <BowHead {stage} />
    {#if page.knee}
      <KneeBench drawing={page.knee} />
    {:else}
      <p class="grid h-48 place-items-center border border-dashed border-line p-4 text-soft">
        Energy needs your draw and the bow's weight: mark an arrow at full draw, and weigh the bow
        or enter its mark.
      </p>
    {/if}
    <div class="mt-5 grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="clock">
        <h2 id="clock">Add a chronograph reading</h2>
        <SpeedForm own={page.knee?.arrow_gr ?? null} />
      </section>
      <section aria-labelledby="clocked">
        <h2 id="clocked">What the chronograph said</h2>
        <SpeedReadings knee={page.knee ?? null} {stage} />
      </section>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
