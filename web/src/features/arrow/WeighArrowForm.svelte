<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import LineForm from '../../components/LineForm.svelte';
  import { recorder } from '../../lib/recorder.svelte';
  import { Reading } from '../../lib/reading.svelte';

  let input = $state<HTMLInputElement>();
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
    <div>
      <label class="label block" for="field-arrow-number">Number</label>
      <input
        id="field-arrow-number"
        class="field"
        inputmode="numeric"
        autocomplete="off"
        placeholder={`${recorder.nextArrow}`}
        value={reading.fields.number}
        oninput={(event) => reading.set({ number: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'number' ? 'true' : undefined}
        aria-describedby="arrow-says"
      />
    </div>
    <div class="min-w-0">
      <label class="label block" for="field-arrow">Finished mass</label>
      <input
        bind:this={input}
        {@attach wanted('arrow')}
        id="field-arrow"
        class="field"
        autocomplete="off"
        placeholder="e.g. 431gr or 27.9g"
        value={reading.fields.mass}
        oninput={(event) => reading.set({ mass: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'mass' ? 'true' : undefined}
        aria-describedby="arrow-says"
      />
    </div>
    {@render record()}
  {/snippet}
</LineForm>
