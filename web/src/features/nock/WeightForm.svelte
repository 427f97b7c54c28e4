<script lang="ts">
  import LineInput from '../../components/LineInput.svelte';
  import LineForm from '../../components/LineForm.svelte';
  import { preferences } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';

  let first = $state<LineInput>();
  const reading = new Reading({
    from: 'riserweight',
    fields: { mass: '', up: '', forward: '', place: '' },
    line: ({ forward }) => [
      'riserweight',
      { field: 'mass' },
      { field: 'up' },
      ...(forward?.trim() ? [{ field: 'forward' }] : []),
      { field: 'place' },
    ],
    whole: ({ mass, up }) => Boolean(mass?.trim() && up?.trim()),
  });
  const FIELDS = [
    ['up', 'Up from the grip, or down', 'e.g. 150mm down'],
    ['forward', 'Forward', '20mm'],
    ['place', 'Called', 'e.g. lower insert'],
  ] as const;
</script>

<LineForm
  {reading}
  id="riserweight"
  where={false}
  columns="grid-cols-2 items-end"
  onrecorded={() => first?.focus()}
  hint="Mass low on the riser slows that end: put it near the middle."
>
  {#snippet children(record)}
    <LineInput
      bind:this={first}
      {reading}
      form="riserweight"
      name="mass"
      label="Mass"
      placeholder={`e.g. ${preferences.units === 'inch' ? '2oz' : '60g'}`}
      control="weights"
    />
    {#each FIELDS as [name, label, example] (name)}
      <LineInput {reading} form="riserweight" {name} {label} placeholder={example} />
    {/each}
    <div class="col-span-full">{@render record()}</div>
  {/snippet}
</LineForm>
