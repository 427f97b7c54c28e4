<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { wanted } from '../../lib/wanted';

  let input = $state<HTMLInputElement>();
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
    ['mass', 'Mass', 'e.g. 60g'],
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
  onrecorded={() => input?.focus()}
  hint="Mass low on the riser slows that end: put it near the middle."
>
  {#snippet children(record)}
    {#each FIELDS as [name, label, example] (name)}
      <div class="min-w-0">
        <label class="label block" for="field-weight-{name}">{label}</label>
        {#if name === 'mass'}
          <input
            bind:this={input}
            {@attach wanted('weights')}
            id="field-weight-mass"
            class="field"
            autocomplete="off"
            placeholder={example}
            value={reading.fields.mass}
            oninput={(event) => reading.set({ mass: event.currentTarget.value })}
            aria-invalid={reading.wrong === 'mass' ? 'true' : undefined}
            aria-describedby="riserweight-says"
          />
        {:else}
          <input
            id="field-weight-{name}"
            class="field"
            autocomplete="off"
            placeholder={example}
            value={reading.fields[name]}
            oninput={(event) => reading.set({ [name]: event.currentTarget.value })}
            aria-invalid={reading.wrong === name ? 'true' : undefined}
            aria-describedby="riserweight-says"
          />
        {/if}
      </div>
    {/each}
    <div class="col-span-full">{@render record()}</div>
  {/snippet}
</LineForm>
