<script lang="ts">
  import Fold from '../../components/Fold.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import NameParts from '../../components/NameParts.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import NockDrawing from '../../drawings/nock/NockDrawing.svelte';
  import { Locator } from '../../drawings/nock/locator.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';
  import { Names } from '../../lib/terms.svelte';
  import type { PageOf } from '../../lib/api';
  import { LIES_ON } from '../../lib/choices';
  import { draftOn, valueOf } from '../../lib/values';
  import HeightBench from './HeightBench.svelte';
  import HeightsShot from './HeightsShot.svelte';
  import NockHead from './NockHead.svelte';

  const names = new Names('side');
  type Side = PageOf<'nock'>['side'];
  const said = (height: number | null | undefined) => (height == null ? null : figure(gap(height)));
  /** Control, label, jot word, example, and what is known. */
  const fields = (side: Side, crawl: string | null) =>
    [
      ['locator', 'Locator over the arrow', 'locator', '13mm over', said(side.locator_mm)],
      [
        'nockwidth',
        "Arrow's nock, thickness",
        'nockwidth',
        '6.5mm',
        side.nock_told ? said(side.nock_mm) : null,
      ],
      [
        'side',
        `Grip mark under the ${side.rest}`,
        'gripmark',
        '15.5mm',
        said(side.grip_under_rest_mm),
      ],
      side.rest === 'rest'
        ? ['shelf', 'Shelf under the rest', 'shelf', '9mm', said(side.shelf_under_rest_mm)]
        : null,
      side.rest === 'hand'
        ? [
            'handrise',
            'Hand at full draw',
            'handrise',
            '1mm high, 1mm low',
            side.hand_at_full_mm == null
              ? null
              : `${figure(gap(Math.abs(side.hand_at_full_mm)))} ${side.hand_at_full_mm < 0 ? 'low' : 'high'}`,
          ]
        : null,
      ['usualcrawl', 'Usual crawl', 'usualcrawl', '22mm', crawl],
    ].filter((field) => field !== null) as [string, string, string, string, string | null][];
</script>

<WhenReady key="nock">
  {#snippet children(assessment, stage, page)}
    {@const side = page.side}
    {@const usual = valueOf(stage, 'usual_crawl')?.figure}
    {@const crawl = usual ? figure(usual) : null}
    {@const locator = new Locator(() => page.side)}
    <NockHead {stage} {page} />
    <NockDrawing {locator} name={assessment.name ?? ''} terms={names.terms} />
    <div class="flex flex-wrap"><NameParts {names} /></div>
    <HeightBench {assessment} {locator} />
    <div class="mt-4">
      <Fold name="Heights shot" key="nock.heights">
        <section aria-labelledby="heights-shot">
          <h2 id="heights-shot">Heights shot</h2>
          <HeightsShot {side} />
        </section>
      </Fold>
      <Fold name="What it is read from" key="nock.from" says="rest, grip mark, the arrow's nock">
        <section aria-labelledby="about-nock">
          <h2 id="about-nock">What it is read from</h2>
          <div class="mt-1 grid grid-cols-2 gap-3">
            <ChoiceField
              control="lieson"
              label="The arrow lies on"
              choice={side.rest_told ? side.rest : null}
              options={LIES_ON}
              draft={(lies_on) => draftOn(assessment, 'bow', { kind: 'arrow_pass', lies_on })}
            />
            {#each fields(side, crawl) as [control, label, word, example, shown] (control)}
              <ReadingField
                {control}
                {label}
                {word}
                {example}
                {shown}
                assumed={control === 'nockwidth' && !side.nock_told
                  ? figure(gap(side.nock_mm))
                  : null}
              />
            {/each}
          </div>
          {#if side.hand_clearance_mm != null && side.lift_mm != null}
            <p class="mt-3">
              <strong>
                {figure(gap(Math.abs(side.hand_clearance_mm)))} ± {figure(
                  gap(side.hand_clearance_plus_minus_mm ?? 0),
                )}
                {side.hand_clearance_mm < 0 ? 'under the top of the hand' : 'over the hand'}
              </strong>
              is where the tail passes: lift {said(side.lift_mm)}{side.grip_under_rest_mm
                ? `, plus ${said(side.grip_under_rest_mm)} down to the mark`
                : ''}{side.hand_at_full_mm == null
                ? '; nobody has watched the hand at full draw'
                : `, ${side.hand_at_full_mm < 0 ? 'plus' : 'less'} ${said(Math.abs(side.hand_at_full_mm))} for the hand`}.
            </p>
          {/if}
          <p class="mt-2 text-sm text-soft">
            A hand 1 mm higher on the grip takes 1 mm off the lift: mark the grip before measuring.
          </p>
        </section>
      </Fold>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
