<script lang="ts">
  import { lengthEg, weightEg } from '../../lib/examples';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { mm } from '../../lib/units';
  import WeightUnits from '../../components/WeightUnits.svelte';
  import LineForm from '../../components/LineForm.svelte';
  import LineInput from '../../components/LineInput.svelte';

  let { own }: { own: number | null } = $props();

  let input = $state<LineInput>();
  const reading = new Reading({
    from: 'scale',
    fields: { weight: '', draw: '', at: '' },
    stays: ['at'],
    line: ({ at }) => ['scale', { field: 'weight' }, '@', { field: 'draw' }, at ?? ''],
    whole: ({ weight, draw }) => Boolean(weight?.trim() && draw?.trim()),
  });
</script>

<LineForm
  {reading}
  id="scale"
  columns="items-end sm:grid-cols-2 lg:grid-cols-[1fr_1fr_1.1fr_auto]"
  onrecorded={() => input?.focus()}
  hint={own === null
    ? `Distances on pivot + ${figure(mm(44.45))}.`
    : `Your own hook stands at ${figure(mm(own))}: weigh there first.`}
>
  {#snippet children(record)}
    <div class="min-w-0">
      <LineInput
        bind:this={input}
        {reading}
        name="weight"
        form="scale"
        label="Scale reads"
        placeholder="e.g. {weightEg(36.2)}"
        control="scale"
      />
      <WeightUnits text={reading.fields.weight ?? ''} onset={(weight) => reading.set({ weight })} />
    </div>
    <LineInput
      {reading}
      name="draw"
      form="scale"
      label="with the string at"
      placeholder={`e.g. ${own === null ? lengthEg('28') : figure(mm(own))}`}
    />
    <label class="flex min-h-9 items-center gap-2 text-sm">
      <input
        type="checkbox"
        checked={reading.fields.at === 'groove'}
        onchange={(event) => reading.set({ at: event.currentTarget.checked ? 'groove' : '' })}
      />
      read at the nock groove, not the hook
    </label>
    <div class="flex items-center justify-end">{@render record()}</div>
  {/snippet}
</LineForm>
