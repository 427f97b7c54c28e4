<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import NameParts from '../../components/NameParts.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import NockDrawing from '../../drawings/nock/NockDrawing.svelte';
  import { Locator } from '../../drawings/nock/locator.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';
  import { Names } from '../../lib/terms.svelte';
  import { valueOf } from '../../lib/values';
  import HeightBench from './HeightBench.svelte';
  import HeightsShot from './HeightsShot.svelte';
  import NockHead from './NockHead.svelte';

  const names = new Names('side');
  const FIELDS = [
    ['locator', 'Locator over the arrow', 'locator', '13mm over'],
    ['nockwidth', "Arrow's nock, thickness", 'nockwidth', '6.5mm'],
    ['side', 'Grip mark under the rest', 'gripmark', '15.5mm'],
    ['shelf', 'Shelf under the rest', 'shelf', '9mm'],
    ['usualcrawl', 'Usual crawl', 'usualcrawl', '22mm'],
  ] as const;
</script>

<WhenReady key="nock">
  {#snippet children(assessment, stage, page)}
    {@const side = page.side}
    {@const locator = new Locator(() => page.side)}
    <NockHead {stage} {page} />
    <NockDrawing {locator} name={assessment.name ?? ''} terms={names.terms} />
    <div class="flex flex-wrap"><NameParts {names} /></div>
    <HeightBench {assessment} {locator} />
    <div class="mt-4 grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="heights-shot">
        <h2 id="heights-shot">Heights shot</h2>
        <HeightsShot {side} />
      </section>
      <section aria-labelledby="about-nock">
        <h2 id="about-nock">What it is read from</h2>
        <div class="mt-1 grid grid-cols-2 gap-3">
          {#each FIELDS as [control, label, word, example] (control)}
            <ReadingField
              {control}
              {label}
              {word}
              {example}
              shown={control === 'locator'
                ? side.locator_mm == null
                  ? null
                  : figure(gap(side.locator_mm))
                : control === 'nockwidth'
                  ? side.nock_told
                    ? figure(gap(side.nock_mm))
                    : null
                  : control === 'side'
                    ? side.grip_under_rest_mm == null
                      ? null
                      : figure(gap(side.grip_under_rest_mm))
                    : control === 'shelf'
                      ? side.shelf_under_rest_mm == null
                        ? null
                        : figure(gap(side.shelf_under_rest_mm))
                      : valueOf(stage, 'usual_crawl')?.figure
                        ? figure(valueOf(stage, 'usual_crawl')!.figure!)
                        : null}
              assumed={control === 'nockwidth' && !side.nock_told
                ? figure(gap(side.nock_mm))
                : null}
            />
          {/each}
        </div>
        <p class="mt-2 text-sm text-soft">
          A hand 1 mm higher on the grip takes 1 mm off the lift: mark the grip before measuring.
        </p>
      </section>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
