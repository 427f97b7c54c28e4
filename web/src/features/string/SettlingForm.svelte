<script lang="ts">
  import { lengthEg } from '../../lib/examples';
  import LineForm from '../../components/LineForm.svelte';
  import LineInput from '../../components/LineInput.svelte';
  import { Reading } from '../../lib/reading.svelte';

  /** `clock` is true where the string's own clock runs. */
  let { clock }: { clock: boolean } = $props();

  let first = $state<LineInput>();
  const reading = new Reading({
    from: 'settling',
    fields: { brace: '', hours: '' },
    line: (fields) => [
      'brace',
      { field: 'brace' },
      ...(fields.hours?.trim() ? ['after', { field: 'hours' }] : []),
    ],
    whole: ({ brace }) => Boolean(brace?.trim()),
  });
</script>

<LineForm
  {reading}
  id="settling"
  where={false}
  columns="grid-cols-[1fr_1fr_auto] items-end"
  onrecorded={() => first?.focus()}
  onguess={(text) => reading.set({ brace: text.replace(/^brace /, '').replace(/ after .*$/, '') })}
  hint={clock
    ? 'Without hours the string’s own clock counts them.'
    : 'Four readings over three hours at least: after 0.2, 1, 3 and 6 h, say.'}
>
  {#snippet children(record)}
    <LineInput
      bind:this={first}
      {reading}
      form="settling"
      name="brace"
      label="Brace"
      placeholder={`e.g. ${lengthEg('7 5/8')}`}
      control="settling"
    />
    <LineInput
      {reading}
      form="settling"
      name="hours"
      label="after hours strung"
      placeholder={clock ? 'by its clock' : 'e.g. 3'}
    />
    {@render record()}
  {/snippet}
</LineForm>
