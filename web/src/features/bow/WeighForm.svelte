<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { mm } from '../../lib/units';
  import LineForm from '../../components/LineForm.svelte';

  let { own }: { own: number | null } = $props();

  let input = $state<HTMLInputElement>();
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
  onrecorded={() => input?.focus()}
  hint={own === null
    ? 'Distances on pivot + 1¾ in.'
    : `Your own hook stands at ${figure(mm(own))}: weigh there first.`}
>
  {#snippet children(record)}
    <div class="min-w-0">
      <label class="label block" for="field-scale">Scale reads</label>
      <input
        bind:this={input}
        {@attach wanted('scale')}
        id="field-scale"
        class="field"
        autocomplete="off"
        placeholder="e.g. 36.2 lb"
        value={reading.fields.weight}
        oninput={(event) => reading.set({ weight: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'weight' ? 'true' : undefined}
        aria-describedby="scale-says"
      />
    </div>
    <div class="min-w-0">
      <label class="label block" for="field-scale-draw">with the string at</label>
      <input
        id="field-scale-draw"
        class="field"
        autocomplete="off"
        placeholder={`e.g. ${own === null ? '28' : figure(mm(own))}`}
        value={reading.fields.draw}
        oninput={(event) => reading.set({ draw: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'draw' ? 'true' : undefined}
        aria-describedby="scale-says"
      />
    </div>
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
