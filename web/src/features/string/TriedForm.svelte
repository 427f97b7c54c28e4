<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { wanted } from '../../lib/wanted';

  let { brace, onrecorded }: { brace: string; onrecorded: () => void } = $props();

  let input = $state<HTMLInputElement>();
  const reading = new Reading({
    from: 'tried',
    fields: { height: '', sound: '', shock: '', turns: '' },
    line: ({ sound, shock, turns, height }) => [
      'tried',
      height?.trim() ? { field: 'height' } : `${brace} in`,
      ...(sound?.trim() ? ['sound', { field: 'sound' }] : []),
      ...(shock?.trim() ? ['shock', { field: 'shock' }] : []),
      ...(turns?.trim() ? ['turns', { field: 'turns' }] : []),
    ],
    whole: ({ sound, shock }) => Boolean(sound?.trim() || shock?.trim()),
  });

  /** Put the cursor where the first rating goes. */
  export function focus(): void {
    input?.focus();
  }

  const FIELDS = [
    ['sound', 'Sound, three shots', 'e.g. 3 4 3'],
    ['shock', 'Hand shock', 'e.g. 2 3 2'],
    ['height', 'Brace, if another', ''],
    ['turns', 'Turns', 'e.g. 28 1/2'],
  ] as const;

  function done() {
    onrecorded();
    input?.focus();
  }
</script>

<LineForm
  {reading}
  id="tried"
  where={false}
  columns="grid-cols-2 items-end"
  onrecorded={done}
  onguess={(text) => {
    const datum = text.split(' ').at(-1) ?? '';
    reading.set({ height: `${reading.fields.height?.trim() || `${brace} in`} ${datum}` });
  }}
  hint="Shoot three, then rate each: 0 still, 10 harsh. One of the two will do."
>
  {#snippet children(record)}
    {#each FIELDS as [name, label, example] (name)}
      <div class="min-w-0">
        <label class="label block" for="field-tried-{name}">{label}</label>
        {#if name === 'sound'}
          <input
            bind:this={input}
            {@attach wanted('brace')}
            id="field-tried-sound"
            class="field"
            autocomplete="off"
            placeholder={example}
            value={reading.fields.sound}
            oninput={(event) => reading.set({ sound: event.currentTarget.value })}
            aria-invalid={reading.wrong === 'sound' ? 'true' : undefined}
            aria-describedby="tried-says"
          />
        {:else}
          <input
            id="field-tried-{name}"
            class="field"
            autocomplete="off"
            placeholder={name === 'height' ? `${brace} in` : example}
            value={reading.fields[name]}
            oninput={(event) => reading.set({ [name]: event.currentTarget.value })}
            aria-invalid={reading.wrong === name ? 'true' : undefined}
            aria-describedby="tried-says"
          />
        {/if}
      </div>
    {/each}
    <div class="col-span-full">{@render record()}</div>
  {/snippet}
</LineForm>
