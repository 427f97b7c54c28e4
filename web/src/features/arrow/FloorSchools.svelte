<script lang="ts">
  import ChoiceField from '../../components/ChoiceField.svelte';
  import type { Assessment, PageOf } from '../../lib/api';
  import { LENGTHS_TAKEN, LIMBS_MADE } from '../../lib/choices';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { gpp } from '../../lib/units';
  import { draftOn } from '../../lib/values';

  type Floor = PageOf<'arrow'>['floor'];
  let { assessment, floor }: { assessment: Assessment; floor: Floor } = $props();

  const VOICES: Record<Floor['schools'][number]['voice'], string> = {
    bowyer: 'Bowyer or maker',
    mechanics: 'Mechanics',
    kind: 'Kind of bow',
    size: 'Tip and size',
    limbs: 'Limbs',
    stack: 'Stacking',
  };
</script>

<section aria-labelledby="floor-schools" class="mt-6">
  <h2 id="floor-schools">Who asks for how heavy an arrow</h2>
  <div class="scroll overflow-x-auto">
    <table class="rows mt-1">
      <thead><tr><th>School</th><th>Lightest</th><th>From</th></tr></thead>
      <tbody>
        {#each floor.schools as said (said.voice)}
          <tr>
            <td class:font-semibold={said.binds}>{VOICES[said.voice]}</td>
            <td class="whitespace-nowrap" class:font-semibold={said.binds}>
              {said.low === said.high
                ? figure(gpp(said.low))
                : `${said.low.toFixed(1)} to ${figure(gpp(said.high))}`}
            </td>
            <td class="text-soft"
              >{tell(said.because)}{said.binds ? ' This one binds here.' : ''}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="mt-1 text-sm text-soft">
    A told least rules. Else we go by the mechanics, held inside what the trade gives the kind.
    Discounts are sayings and never bind.
  </p>
  <div class="mt-2 grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
    <ChoiceField
      control="limbs-made"
      label="Limbs are made"
      choice={floor.limbs_made}
      options={LIMBS_MADE}
      draft={(made) => draftOn(assessment, 'bow', { kind: 'limbs_made', made })}
    />
    {#if floor.length_told_mm != null && floor.schools.some((said) => said.voice === 'size')}
      {@const bow_length_mm = floor.length_told_mm}
      <ChoiceField
        control="lengthtaken"
        label="Its length was measured"
        choice={floor.length_taken}
        options={LENGTHS_TAKEN}
        draft={(taken) => draftOn(assessment, 'bow', { kind: 'bow_length', bow_length_mm, taken })}
      />
    {/if}
  </div>
</section>
