<script lang="ts">
  import type { PageOf, Stage } from '../../lib/api';
  import Fold from '../../components/Fold.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import Strip from '../../components/Strip.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import WeightChart from '../../drawings/WeightChart.svelte';
  import { FAMILIES } from '../../lib/choices';
  import { draftOn, valueOf } from '../../lib/values';
  import { shown } from './about';
  import Bench from './Bench.svelte';
  import BowHead from './BowHead.svelte';
  import WeighedPoints from './WeighedPoints.svelte';
  import WeighForm from './WeighForm.svelte';

  const FIELDS = [
    ['mark', 'Marked weight and draw', 'mark', '{45lb} @ {28}', 'mark'],
    ['bow', 'Length, nock to nock', 'bow', '{62}', 'bow_length'],
    ['riser', 'Riser, fades included', 'riser', '{17}', 'riser_length'],
    ['limit', "Maker's longest draw", 'limit', '{30}', 'draw_limit'],
    ['stack', 'Stack or wall felt from', 'stack', '{28 1/2}', 'stack_felt'],
    ['floor', "Bowyer's lightest arrow", 'floor', '9 gpp or {430gr}', 'arrow_minimum'],
    ['bracerange', "Maker's brace, low to high", 'bracerange', '{7} to {8}', 'brace_range'],
    ['brace', 'Brace height now', 'brace', '{7 5/8}', 'brace_height'],
    ['string', 'String length and strands', 'string', '{59} 16 strands', 'string'],
  ] as const;

  function points(weight: PageOf<'bow'>['weight']): string {
    const count = weight?.points.filter((point) => !point.is_mark).length ?? 0;
    return count ? `${count} weighed` : 'not weighed yet';
  }

  /** What is told of it, in few words. */
  function about(stage: Stage): string {
    const lacks = FIELDS.filter(([, , , , key]) => valueOf(stage, key)?.missing).length;
    return lacks ? `${lacks} not told yet` : 'all told';
  }
</script>

<WhenReady key="bow">
  {#snippet children(assessment, stage, page)}
    <BowHead {stage} />
    <Bench {assessment} {stage} {page} />

    <section aria-labelledby="weigh" class="mt-5">
      <h2 id="weigh">Weigh it</h2>
      <WeighForm own={page.weight?.own_mm ?? null} />
    </section>

    <div class="mt-5">
      <Fold name="Draw curve and weighed points" key="bow.curve" says={points(page.weight)}>
        {#if page.weight}
          <WeightChart
            drawing={page.weight}
            weight={valueOf(stage, 'draw_weight')?.figure?.value ?? null}
          />
        {:else}
          <p class="mt-1 grid h-40 place-items-center border border-dashed border-line text-soft">
            Enter the mark or weigh the bow once, and its curve is drawn here.
          </p>
        {/if}
        <section aria-labelledby="points" class="my-4">
          <h2 id="points">Weighed points</h2>
          <WeighedPoints drawing={page.weight ?? null} />
        </section>
        <Strip
          values={['draw_weight', 'slope', 'wished_weight', 'mark_to_ask'].map((key) =>
            valueOf(stage, key),
          )}
        />
      </Fold>
      <Fold name="About this bow" key="bow.about" says={about(stage)}>
        <section aria-labelledby="about-bow" class="mt-6">
          <h2 id="about-bow">About this bow</h2>
          <div class="mt-1 grid grid-cols-2 gap-3 lg:grid-cols-3">
            <ChoiceField
              control="family"
              label="Family"
              choice={valueOf(stage, 'family')?.choice ?? null}
              options={FAMILIES}
              draft={(family) => draftOn(assessment, 'bow', { kind: 'bow_family', family })}
            />
            {#each FIELDS as [control, label, word, example, key] (control)}
              <ReadingField
                {control}
                {label}
                {word}
                {example}
                shown={shown(stage, key)}
                weight={control === 'mark'}
              />
            {/each}
            <ReadingField
              control="wish"
              label="Weight you wish to hold"
              word="wish"
              example={'{38lb}'}
              shown={shown(stage, 'wished_weight')}
              weight
            />
          </div>
        </section>
      </Fold>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
