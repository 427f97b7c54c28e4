<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import StageHead from '../../components/StageHead.svelte';
  import Strip from '../../components/Strip.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import ArrowParts from '../../drawings/ArrowParts.svelte';
  import FloorScale from '../../drawings/FloorScale.svelte';
  import type { Assessment, Stage } from '../../lib/api';
  import { MATERIALS } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { draftOn, valueOf } from '../../lib/values';
  import ArrowMasses from './ArrowMasses.svelte';
  import WeighArrowForm from './WeighArrowForm.svelte';

  const PARTS = [
    ['shaft', 'Shaft length and grains per inch', 'shaft', '29 1/2 9.2gpi', 'shaft_length_mm'],
    ['point', 'Point', 'point', '125gr', 'point_gr'],
    ['insert', 'Insert', 'insert', '15gr', 'insert_gr'],
    ['arrownock', 'Arrow nock', 'arrownock', '9gr', 'arrow_nock_gr'],
    ['fletching', 'Fletching', 'fletching', '24gr', 'fletching_gr'],
    ['wrap', 'Wrap', 'wrap', '6gr', 'wrap_gr'],
  ] as const;

  function shown(stage: Stage, key: string): string | null {
    const value = valueOf(stage, key);
    if (!value?.figure) return null;
    const per = key === 'shaft_length_mm' ? valueOf(stage, 'shaft_gr_per_in')?.figure : null;
    return per ? `${figure(value.figure)}, ${figure(per)}` : figure(value.figure);
  }

  function about(assessment: Assessment): string {
    const set = assessment.fitted.find((part) => part.part === 'arrow_set')?.name;
    return set ? `${set}. Mass against this bow's weight.` : 'No arrows fitted yet.';
  }
</script>

<WhenReady key="arrow">
  {#snippet children(assessment, stage)}
    <StageHead {stage} about={about(assessment)} />
    <FloorScale drawing={assessment.drawings.floor} />
    <div class="mt-2">
      <Strip
        values={['arrow_mass', 'gpp', 'floor', 'floor_mass'].map((key) => valueOf(stage, key))}
      />
    </div>

    <div class="mt-5 grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="weigh-arrow">
        <h2 id="weigh-arrow">Weigh an arrow</h2>
        <WeighArrowForm masses={assessment.drawings.floor.arrows} />
      </section>
      <section aria-labelledby="masses">
        <h2 id="masses">Weighed</h2>
        <ArrowMasses
          masses={assessment.drawings.floor.arrows}
          mean={valueOf(stage, 'arrow_mass')?.figure?.value ?? null}
          more={assessment.drawings.floor.more}
        />
      </section>
    </div>

    <section aria-labelledby="parts" class="mt-6">
      <h2 id="parts">Parts</h2>
      <div class="mt-1"><ArrowParts drawing={assessment.drawings.arrow} /></div>
      <div class="mt-2 grid grid-cols-2 gap-3 lg:grid-cols-3">
        <ChoiceField
          control="material"
          label="Shaft material"
          choice={valueOf(stage, 'material')?.choice ?? null}
          options={MATERIALS}
          draft={(material) =>
            draftOn(assessment, 'arrow_set', { kind: 'arrow_build', material } as never)}
        />
        {#each PARTS as [control, label, word, example, key] (control)}
          <ReadingField {control} {label} {word} {example} shown={shown(stage, key)} />
        {/each}
      </div>
    </section>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
