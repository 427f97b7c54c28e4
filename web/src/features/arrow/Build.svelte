<script lang="ts">
  import type { Stage } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import Fold from '../../components/Fold.svelte';
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

  /** What is told of the parts, in few words. */
  function parts(stage: Stage): string {
    const said = ['shaft_length_mm', 'point_gr', 'spine'].map((key) => valueOf(stage, key)?.figure);
    const told = said.filter((one) => one != null).map((one) => figure(one));
    return told.length ? told.join(', ') : 'shaft, point and feathers are not told';
  }
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

    <div class="mt-5">
      <Fold name="Who asks for how heavy an arrow" key="build.floor">
        <FloorSchools {assessment} floor={page.floor} />
      </Fold>
      <Fold name="Build sheet" key="build.sheet" says={parts(stage)}>
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
      </Fold>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
