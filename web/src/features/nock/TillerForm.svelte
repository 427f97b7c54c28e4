<script lang="ts">
  import { untrack } from 'svelte';
  import LineInput from '../../components/LineInput.svelte';
  import LineForm from '../../components/LineForm.svelte';
  import { LIMB_PLACES } from '../../lib/choices';
  import { Reading } from '../../lib/reading.svelte';

  let { place }: { place: string | null } = $props();

  let first = $state<LineInput>();
  const reading = new Reading({
    from: 'tiller',
    fields: { upper: '', lower: '', place: untrack(() => place) ?? 'fade' },
    stays: ['place'],
    line: () => ['tiller', { field: 'upper' }, { field: 'lower' }, { field: 'place' }],
    whole: ({ upper, lower }) => Boolean(upper?.trim() && lower?.trim()),
  });
</script>

<LineForm
  {reading}
  id="tiller"
  where={false}
  columns="grid-cols-2 items-end"
  onrecorded={() => first?.focus()}
  hint="Square from the string to the same place on each limb."
>
  {#snippet children(record)}
    <LineInput
      bind:this={first}
      {reading}
      form="tiller"
      name="upper"
      label="Upper gap"
      placeholder="e.g. 181.5mm"
      control="tiller"
    />
    <LineInput {reading} form="tiller" name="lower" label="Lower gap" placeholder="e.g. 177mm" />
    <div class="min-w-0">
      <label class="label block" for="field-tiller-place">Where on both limbs</label>
      <select
        id="field-tiller-place"
        class="field"
        value={reading.fields.place}
        onchange={(event) => reading.set({ place: event.currentTarget.value })}
      >
        {#each LIMB_PLACES as [place, words] (place)}<option value={place}>{words}</option>{/each}
      </select>
    </div>
    <div>{@render record()}</div>
  {/snippet}
</LineForm>
