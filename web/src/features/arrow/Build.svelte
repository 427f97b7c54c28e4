<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import Strip from '../../components/Strip.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import ArrowParts from '../../drawings/ArrowParts.svelte';
  import ArrowToScale from '../../drawings/ArrowToScale.svelte';
  import FloorScale from '../../drawings/FloorScale.svelte';
  import { valueOf } from '../../lib/values';
  import ArrowHead from './ArrowHead.svelte';
  import ArrowMasses from './ArrowMasses.svelte';
  import FloorSchools from './FloorSchools.svelte';
  import BuildFields from './BuildFields.svelte';
  import WeighArrowForm from './WeighArrowForm.svelte';
</script>

<WhenReady key="arrow">
  {#snippet children(assessment, stage, page)}
    <ArrowHead {assessment} {stage} />
    <FloorScale drawing={page.floor} />
    <div class="mt-2">
      <Strip
        values={['arrow_mass', 'gpp', 'floor', 'floor_mass'].map((key) => valueOf(stage, key))}
      />
    </div>

    <div class="mt-5 grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="weigh-arrow">
        <h2 id="weigh-arrow">Weigh an arrow</h2>
        <WeighArrowForm />
      </section>
      <section aria-labelledby="masses">
        <h2 id="masses">Weighed</h2>
        <ArrowMasses
          masses={page.floor.arrows}
          mean={valueOf(stage, 'arrow_mass')?.figure?.value ?? null}
          more={page.floor.more}
        />
      </section>
    </div>

    <FloorSchools {assessment} floor={page.floor} />

    <section aria-labelledby="sheet" class="mt-6">
      <h2 id="sheet">Build sheet</h2>
      <div class="mt-1"><ArrowToScale drawing={page.arrow} /></div>
      <Strip
        values={['balance', 'forward', 'ring', 'unexplained'].map((key) => valueOf(stage, key))}
      />
      <p class="mt-1 text-sm text-soft">
        Weight forward steadies an arrow; how far it drops is speed and drag, not balance.
      </p>
      <div class="mt-4"><ArrowParts drawing={page.arrow} /></div>
      <BuildFields {assessment} {stage} />
    </section>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
