<script lang="ts">
  import Fold from '../../components/Fold.svelte';
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
    <section aria-labelledby="look-over">
      <h2 id="look-over">Look it over before stringing</h2>
      <InspectionForm {assessment} items={page.condition.items} />
    </section>
    <div class="mt-4">
      <Fold name="Do the limbs belong together?" key="bow.limbs">
        <section aria-labelledby="pair">
          <h2 id="pair">Do the limbs belong together?</h2>
          <LimbsForm {assessment} limbs={page.condition.limbs ?? null} />
        </section>
      </Fold>
      <Fold name="Put it together" key="bow.together">
        <section aria-labelledby="together">
          <h2 id="together">Put it together</h2>
          <Assembly {assessment} assembly={page.assembly} />
        </section>
      </Fold>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
