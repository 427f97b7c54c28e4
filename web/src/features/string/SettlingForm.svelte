<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { wanted } from '../../lib/wanted';

  /** `clock` is true where the string's own clock runs. */
  let { clock }: { clock: boolean } = $props();

  let input = $state<HTMLInputElement>();
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
  onrecorded={() => input?.focus()}
  onguess={(text) => reading.set({ brace: text.replace(/^brace /, '').replace(/ after .*$/, '') })}
  hint={clock
    ? 'Without hours the string’s own clock counts them.'
    : 'Four readings over three hours at least: after 0.2, 1, 3 and 6 h, say.'}
>
  {#snippet children(record)}
    <div class="min-w-0">
      <label class="label block" for="field-settling">Brace</label>
      <input
        bind:this={input}
        {@attach wanted('settling')}
        id="field-settling"
        class="field"
        autocomplete="off"
        placeholder="e.g. 7 5/8"
        value={reading.fields.brace}
        oninput={(event) => reading.set({ brace: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'brace' ? 'true' : undefined}
        aria-describedby="settling-says"
      />
    </div>
    <div class="min-w-0">
      <label class="label block" for="field-settling-hours">after hours strung</label>
      <input
        id="field-settling-hours"
        class="field"
        autocomplete="off"
        placeholder={clock ? 'by its clock' : 'e.g. 3'}
        value={reading.fields.hours}
        oninput={(event) => reading.set({ hours: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'hours' ? 'true' : undefined}
        aria-describedby="settling-says"
      />
    </div>
    {@render record()}
  {/snippet}
</LineForm>
