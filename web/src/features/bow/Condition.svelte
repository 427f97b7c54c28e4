<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import Assembly from './Assembly.svelte';
  import BowHead from './BowHead.svelte';
  import InspectionForm from './InspectionForm.svelte';
  import LimbsForm from './LimbsForm.svelte';
</script>

<WhenReady key="bow">
  {#snippet children(assessment, stage, page)}
    <BowHead {stage} />
    <div class="grid gap-8 lg:grid-cols-2">
      <section aria-labelledby="look-over">
        <h2 id="look-over">Look it over before stringing</h2>
        <InspectionForm {assessment} items={page.condition.items} />
      </section>
      <section aria-labelledby="pair">
        <h2 id="pair">Do the limbs belong together?</h2>
        <LimbsForm {assessment} limbs={page.condition.limbs ?? null} />
        <h2 id="together" class="mt-6">Put it together</h2>
        <Assembly {assessment} assembly={page.assembly} />
      </section>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
