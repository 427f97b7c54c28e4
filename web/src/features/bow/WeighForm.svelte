<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { mm } from '../../lib/units';
  import LineForm from '../../components/LineForm.svelte';

  let { own }: { own: number | null } = $props();

  let weight = $state('');
  let draw = $state('');
  let groove = $state(false);
  let input = $state<HTMLInputElement>();
  const reading = new Reading();
  const complete = $derived(weight.trim() !== '' && draw.trim() !== '');

  const line = () => `scale ${weight} @ ${draw}${groove ? ' groove' : ''}`;

  function read() {
    reading.type(complete ? line() : '');
  }

  function recorded() {
    weight = '';
    draw = '';
    input?.focus();
  }
</script>

<LineForm
  {reading}
  id="scale"
  before={() => reading.type(line())}
  onrecorded={recorded}
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
        bind:value={weight}
        oninput={read}
        aria-invalid={reading.problem ? 'true' : undefined}
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
        bind:value={draw}
        oninput={read}
        aria-describedby="scale-says"
      />
    </div>
    <label class="flex min-h-9 items-center gap-2 text-sm">
      <input type="checkbox" bind:checked={groove} onchange={read} />
      read at the nock groove, not the hook
    </label>
    <div class="flex items-center justify-end">{@render record()}</div>
  {/snippet}
</LineForm>
