<script lang="ts">
  import { massEg } from '../../lib/examples';
  import LineForm from '../../components/LineForm.svelte';
  import LineInput from '../../components/LineInput.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { gr, mps } from '../../lib/units';

  /** `own` is the mass of the arrows on the rig. */
  let { own }: { own: number | null } = $props();

  let input = $state<LineInput>();
  const reading = new Reading({
    from: 'speed',
    fields: { speed: '', mass: '' },
    line: () => ['speed', { field: 'speed' }, { field: 'mass' }],
    whole: ({ speed }) => Boolean(speed?.trim()),
  });
</script>

<LineForm
  {reading}
  id="speed"
  where={false}
  columns="grid-cols-[1fr_1fr_auto] items-end"
  onrecorded={() => input?.focus()}
  hint="At your own full draw. Two arrows far apart in mass tell energy and virtual mass from each other."
>
  {#snippet children(record)}
    <LineInput
      bind:this={input}
      {reading}
      name="speed"
      form="speed"
      label="Speed"
      placeholder={`e.g. ${figure(mps(51.2))}`}
      control="speed"
    />
    <LineInput
      {reading}
      name="mass"
      form="speed"
      label="of an arrow of"
      placeholder={own === null ? `e.g. ${massEg(431)}` : `yours, ${figure(gr(own))}`}
    />
    {@render record()}
  {/snippet}
</LineForm>
