<script lang="ts">
  import { lengthEg } from '../../lib/examples';
  import LineInput from '../../components/LineInput.svelte';
  import LineForm from '../../components/LineForm.svelte';
  import { Reading } from '../../lib/reading.svelte';

  let {
    brace,
    onrecorded,
  }: {
    /** The height it is taken to be shot at; null where none was read: then it is asked for. */
    brace: string | null;
    onrecorded: () => void;
  } = $props();

  let first = $state<LineInput>();
  const reading = new Reading({
    from: 'tried',
    fields: { height: '', sound: '', shock: '', turns: '', tail: '' },
    stays: [],
    line: ({ sound, shock, turns, height, tail }) => [
      'tried',
      brace === null || height?.trim() ? { field: 'height' } : `${brace} in`,
      ...(sound?.trim() ? ['sound', { field: 'sound' }] : []),
      ...(shock?.trim() ? ['shock', { field: 'shock' }] : []),
      ...(turns?.trim() ? ['turns', { field: 'turns' }] : []),
      ...(tail ? ['tail', { field: 'tail' }] : []),
    ],
    whole: ({ sound, shock }) => Boolean(sound?.trim() || shock?.trim()),
  });

  /** Put the cursor where the first rating goes. */
  export function focus(): void {
    first?.focus();
  }

  const HEARD = [
    ['sound', 'Sound, three shots', 'e.g. 3 4 3'],
    ['shock', 'Hand shock', 'e.g. 2 3 2'],
  ] as const;
  /** A brace that was never read comes first: nothing is rated at no height. */
  const FIELDS = $derived([
    ...(brace === null
      ? [['height', 'Brace it was shot at', `e.g. ${lengthEg('7 5/8')}`] as const]
      : []),
    ...HEARD,
    ...(brace === null ? [] : [['height', 'Brace, if another', lengthEg(brace)] as const]),
    ['turns', 'Turns', 'e.g. 28.5'] as const,
  ]);

  $effect(() => {
    if (reading.problem && brace === null && !reading.fields.height?.trim()) first?.focus();
  });

  function done() {
    onrecorded();
    first?.focus();
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
    reading.set({
      height: `${reading.fields.height?.trim() || (brace ? `${brace} in` : '')} ${datum}`,
    });
  }}
  hint="Shoot three, then rate each: 0 still, 10 harsh. One of the two will do."
>
  {#snippet children(record)}
    {#each FIELDS as [name, label, example], place (name)}
      {#if place === 0}
        <LineInput
          bind:this={first}
          {reading}
          form="tried"
          {name}
          {label}
          placeholder={example}
          control="brace"
        />
      {:else}
        <LineInput {reading} form="tried" {name} {label} placeholder={example} />
      {/if}
    {/each}
    <div class="min-w-0">
      <label class="label block" for="field-tried-tail">Tail, if you looked</label>
      <select
        id="field-tried-tail"
        class="field"
        value={reading.fields.tail}
        onchange={(event) => reading.set({ tail: event.currentTarget.value })}
      >
        {#each ['', 'straight', 'left', 'right', 'high', 'low'] as tail (tail)}
          <option value={tail}>{tail || 'not looked'}</option>
        {/each}
      </select>
    </div>
    <div>{@render record()}</div>
  {/snippet}
</LineForm>
