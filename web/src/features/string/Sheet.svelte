<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import StringDrawing from '../../drawings/string/StringDrawing.svelte';
  import { STRING_MATERIALS, STRING_TYPES } from '../../lib/choices';
  import { draftOn, valueOf } from '../../lib/values';
  import { wanted } from '../../lib/wanted';
  import { shown } from '../bow/about';
  import Advice from './Advice.svelte';
  import OrderText from './OrderText.svelte';
  import StringHead from './StringHead.svelte';

  const FIELDS = [
    ['string', 'Length on the bow, strands', 'string', '{59} 16 strands', 'string_length'],
    ['turns-now', 'Turns now', 'turns', '19.5', null],
    ['bundle', 'Bundle, unserved', 'bundle', '2.1mm', 'bundle'],
    ['thread', 'Serving thread', 'thread', '0.46mm', 'thread'],
    ['serving', 'Middle serving', 'serving', '{5 1/2}', 'serving'],
    ['silencers', 'Silencers, both, from the loops', 'silencers', '{24gr} @ {12}', 'silencers'],
    ['nockgroove', "Arrow nock's groove", 'nockgroove', '2.8mm', null],
  ] as const;
</script>

<WhenReady key="string">
  {#snippet children(assessment, stage, page)}
    {@const sheet = page.sheet}
    <StringHead {stage} {page} />
    <StringDrawing {sheet} serving={valueOf(stage, 'serving')?.figure?.value ?? null} />
    <section aria-labelledby="about-string" class="mt-4" {@attach wanted('sheet')} tabindex="-1">
      <h2 id="about-string">This string</h2>
      <div class="mt-1 grid grid-cols-2 gap-3 lg:grid-cols-3">
        <ChoiceField
          control="fibre"
          label="Fibre"
          choice={valueOf(stage, 'material')?.choice ?? null}
          options={STRING_MATERIALS}
          draft={(material) => draftOn(assessment, 'string', { kind: 'string_build', material })}
        />
        <ChoiceField
          control="stringtype"
          label="Made as"
          choice={valueOf(stage, 'string_type')?.choice ?? null}
          options={STRING_TYPES}
          draft={(string_type) =>
            draftOn(assessment, 'string', { kind: 'string_build', string_type })}
        />
        {#each FIELDS as [control, label, word, example, key] (control)}
          <ReadingField
            {control}
            {label}
            {word}
            {example}
            shown={control === 'turns-now'
              ? sheet.turns == null
                ? null
                : `${sheet.turns}`
              : control === 'nockgroove'
                ? sheet.groove_told
                  ? `${sheet.groove_mm} mm`
                  : null
                : key
                  ? shown(stage, key)
                  : null}
            assumed={control === 'nockgroove' && !sheet.groove_told
              ? `${sheet.groove_mm} mm`
              : null}
          />
        {/each}
      </div>
    </section>
    <div class="mt-6 grid gap-6 lg:grid-cols-2">
      <Advice {sheet} />
      <OrderText lines={sheet.order} />
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
