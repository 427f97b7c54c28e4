<script lang="ts">
  import { untrack } from 'svelte';
  import LineForm from '../../components/LineForm.svelte';
  import { LIMB_PLACES } from '../../lib/choices';
  import { Reading } from '../../lib/reading.svelte';
  import { wanted } from '../../lib/wanted';

  let { place }: { place: string | null } = $props();

  let input = $state<HTMLInputElement>();
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
  onrecorded={() => input?.focus()}
  hint="Square from the string to the same place on each limb."
>
  {#snippet children(record)}
    <div class="min-w-0">
      <label class="label block" for="field-tiller-upper">Upper gap</label>
      <input
        bind:this={input}
        {@attach wanted('tiller')}
        id="field-tiller-upper"
        class="field"
        autocomplete="off"
        placeholder="e.g. 181.5mm"
        value={reading.fields.upper}
        oninput={(event) => reading.set({ upper: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'upper' ? 'true' : undefined}
        aria-describedby="tiller-says"
      />
    </div>
    <div class="min-w-0">
      <label class="label block" for="field-tiller-lower">Lower gap</label>
      <input
        id="field-tiller-lower"
        class="field"
        autocomplete="off"
        placeholder="e.g. 177mm"
        value={reading.fields.lower}
        oninput={(event) => reading.set({ lower: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'lower' ? 'true' : undefined}
        aria-describedby="tiller-says"
      />
    </div>
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
