<script lang="ts">
  import { massEg } from '../../lib/examples';
  import LineForm from '../../components/LineForm.svelte';
  import LineInput from '../../components/LineInput.svelte';
  import { recorder } from '../../lib/recorder.svelte';
  import { Reading } from '../../lib/reading.svelte';

  let input = $state<LineInput>();
  const counted = (number: string | undefined) => number?.trim() || `${recorder.nextArrow}`;
  const reading = new Reading({
    from: 'arrow',
    fields: { number: '', mass: '' },
    line: ({ number }) => ['arrow', { field: 'number', text: counted(number) }, { field: 'mass' }],
    whole: ({ mass }) => Boolean(mass?.trim()),
    arrow: ({ number }) => ({ number: counted(number) }),
  });
</script>

<LineForm
  {reading}
  id="arrow"
  columns="grid-cols-[5rem_1fr_auto] items-end"
  onrecorded={() => input?.focus()}
  onguess={(text) => reading.set({ mass: text.replace(/^arrow (\d+ )?/, '') })}
  hint="Complete, as it is shot. Enter records; then the next."
>
  {#snippet children(record)}
    <LineInput
      {reading}
      name="number"
      form="arrow"
      label="Number"
      placeholder={`${recorder.nextArrow}`}
      inputmode="numeric"
    />
    <LineInput
      bind:this={input}
      {reading}
      name="mass"
      form="arrow"
      label="Finished mass"
      placeholder="e.g. {massEg(431)}"
      control="arrow"
    />
    {@render record()}
  {/snippet}
</LineForm>
