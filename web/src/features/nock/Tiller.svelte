<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import TillerDrawing from '../../drawings/nock/TillerDrawing.svelte';
  import { KITS } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { gap, lbf } from '../../lib/units';
  import { draftOn, valueOf } from '../../lib/values';
  import NockHead from './NockHead.svelte';
  import TillerForm from './TillerForm.svelte';
</script>

<WhenReady key="nock">
  {#snippet children(assessment, stage, page)}
    {@const tiller = page.tiller}
    <NockHead {stage} {page} />
    <TillerDrawing drawing={tiller} />
    <div class="mt-3 grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="two-gaps">
        <h2 id="two-gaps">Measure both gaps</h2>
        <TillerForm place={tiller.place ?? null} />
      </section>
      <section aria-labelledby="what-can-be-set">
        <h2 id="what-can-be-set">What can be set</h2>
        <div class="mt-1 grid gap-3">
          <ChoiceField
            control="kit"
            label="On this bow"
            choice={valueOf(stage, 'kit')?.origin === 'estimated' ? null : tiller.kit}
            options={KITS}
            draft={(kit) => draftOn(assessment, 'bow', { kind: 'bow_kit', kit })}
          />
          {#if tiller.kit === 'full'}
            <div class="grid grid-cols-2 gap-3">
              <ReadingField
                control="bolts"
                label="Bolts, turns out"
                word="bolts"
                example="3 3"
                shown={tiller.upper_turns == null && tiller.lower_turns == null
                  ? null
                  : `upper ${tiller.upper_turns ?? '–'}, lower ${tiller.lower_turns ?? '–'}`}
              />
              <ReadingField
                control="bolts-most"
                label="Maker's most"
                word="bolts most"
                example="5"
                shown={tiller.most_turns == null ? null : `${tiller.most_turns}`}
              />
            </div>
            <p class="text-sm text-soft">
              A turn of both is about {(100 * tiller.turn_share).toFixed(1)} % of weight{tiller.weight_lbf ==
              null
                ? ''
                : `, ${figure(lbf(tiller.turn_share * tiller.weight_lbf))} here`}; one bolt half of
              it, and tiller. Both alike keep the tiller.
              {tiller.turn_pairs
                ? 'Drawn to your own weighings before and after.'
                : 'Weigh before and after a turn, and your own weighings outrank it.'}
              {#if tiller.turns_for_wish != null && tiller.wished_lbf != null && tiller.turns_for_wish !== 0}
                For {figure(lbf(tiller.wished_lbf))} turn both
                <strong class="text-ink"
                  >{Math.abs(tiller.turns_for_wish)}
                  {tiller.turns_for_wish > 0 ? 'in' : 'out'}</strong
                >, then weigh.
              {/if}
              Bolts must keep their grip: never past the maker's most.
            </p>
          {:else if tiller.tiller_mm != null}
            <p class="text-sm text-soft">
              Wanted {figure(gap(tiller.low_mm))} to {figure(gap(tiller.high_mm))}. On a plain bow
              tiller is known, not sanded.
            </p>
          {/if}
        </div>
      </section>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
