<script lang="ts">
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import type { Assessment, ReadingOf, Stage } from '../../lib/api';
  import { LENGTH_DATUMS, MATERIALS, SIDES } from '../../lib/choices';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { draftOn, valueOf } from '../../lib/values';

  let { assessment, stage }: { assessment: Assessment; stage: Stage } = $props();

  // control, label, jot word, example, value's key, what goes behind it
  const SHAFT = [
    [
      'shaft',
      'Shaft length, and what it weighs for a length',
      'shaft',
      '{29 1/2} 9.2gpi',
      'shaft_length_mm',
    ],
    ['bareshaft', 'Bare shaft, weighed', 'bareshaft', '{310gr}', 'shaft_gr'],
    ['diameter', 'Diameter', 'diameter', '11/32 or 7mm', 'shaft_diameter_mm'],
    ['spine', 'Spine, on the label or gauge', 'spine', '500 or 52 lb', 'spine'],
    ['deflection', 'Spine, by deflection', 'deflection', '{1/2} @ {26} 2lb', ''],
  ] as const;
  const PARTS = [
    ['point', 'Point', 'point', '{125gr}', 'point_gr'],
    ['insert', 'Insert', 'insert', '{15gr}', 'insert_gr'],
    ['arrownock', 'Arrow nock', 'arrownock', '{9gr}', 'arrow_nock_gr'],
    ['fletching', 'Fletching, length', 'fletching', '{24gr} {4}', 'fletching_gr'],
    ['wrap', 'Wrap', 'wrap', '{6gr}', 'wrap_gr'],
  ] as const;

  function shown(key: string): string | null {
    const value = valueOf(stage, key);
    if (!value?.figure) return null;
    const beside = { shaft_length_mm: 'shaft_gr_per_in', fletching_gr: 'fletching_length_mm' };
    const other = beside[key as keyof typeof beside];
    const per = other ? valueOf(stage, other)?.figure : null;
    const detail = value.detail ? ` ${tell(value.detail)}` : '';
    return (per ? `${figure(value.figure)}, ${figure(per)}` : figure(value.figure)) + detail;
  }
  const taper = (end: 'tail' | 'head') => {
    const long = valueOf(stage, `${end}_taper_mm`)?.figure;
    const across = valueOf(stage, `${end}_diameter_mm`)?.figure;
    return long && across && long.value > 0 ? `${figure(long)} to ${figure(across)}` : null;
  };
  const window = $derived(valueOf(stage, 'window'));
  const onBow = (told: Omit<ReadingOf<'arrow_pass'>, 'kind'>) =>
    draftOn(assessment, 'bow', { kind: 'arrow_pass', ...told });
  const onArrows = (told: Omit<ReadingOf<'arrow_build'>, 'kind'>) =>
    draftOn(assessment, 'arrow_set', { kind: 'arrow_build', ...told });
</script>

<fieldset class="fields">
  <legend class="label">Shaft</legend>
  <ChoiceField
    control="material"
    label="Shaft material"
    choice={valueOf(stage, 'material')?.choice ?? null}
    options={MATERIALS}
    draft={(material) => onArrows({ material })}
  />
  {#each SHAFT as [control, label, word, example, key] (control)}
    <ReadingField {control} {label} {word} {example} shown={key ? shown(key) : null} />
  {/each}
  <ChoiceField
    control="length-datum"
    label="Length is measured"
    choice={valueOf(stage, 'length_datum')?.choice ?? 'groove_to_end'}
    options={LENGTH_DATUMS}
    draft={(length_datum) => onArrows({ length_datum })}
  />
  <ReadingField
    control="tail-taper"
    label="Tail taper: length, end"
    word="taper tail"
    example={'{9} {5/16}'}
    shown={taper('tail')}
    hint="The spine above is the shaft's before tapering."
  />
  <ReadingField
    control="head-taper"
    label="Head taper: length, end"
    word="taper head"
    example={'{4} {5/16}'}
    shown={taper('head')}
  />
</fieldset>
<fieldset class="fields">
  <legend class="label">On the shaft</legend>
  {#each PARTS as [control, label, word, example, key] (control)}
    <ReadingField {control} {label} {word} {example} shown={shown(key)} />
  {/each}
</fieldset>
<fieldset class="fields">
  <legend class="label">Where it passes the bow</legend>
  <ReadingField
    control="window"
    label="Window, short of centre"
    word="window"
    example="3mm, or 2mm past"
    shown={shown('window')}
    assumed={window?.because?.[0] ? tell(window.because[0]).replace(/^Taken as |\.$/g, '') : null}
    hint="Straight edge along the string: how far the face the arrow lies on stands from it."
  />
  <ReadingField
    control="track"
    label="String tracks to the arrow's side"
    word="track"
    example="2mm, or 2mm away"
    shown={shown('track')}
    hint="Sight the string against the limbs' middle."
  />
  <ChoiceField
    control="plunger"
    label="Side the arrow leans on"
    choice={valueOf(stage, 'plunger')?.choice ?? 'plate'}
    options={SIDES}
    draft={(side) => onBow({ plunger: side === 'plunger' })}
  />
</fieldset>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
    align-items: start;
    gap: 0.75rem;
    margin-top: 1rem;
    border: 0;
    padding: 0;
  }
  legend {
    margin-bottom: 0.3rem;
    font-weight: 600;
  }
</style>
