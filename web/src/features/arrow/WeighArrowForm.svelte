<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import LineForm from '../../components/LineForm.svelte';
  import type { components } from '../../lib/api.gen';
  import { Reading } from '../../lib/reading.svelte';

  let { masses }: { masses: components['schemas']['ArrowTick'][] } = $props();

  const next = $derived(Math.max(0, ...masses.map((mass) => mass.number ?? 0)) + 1);
  let number = $state('');
  let input = $state<HTMLInputElement>();
  const reading = new Reading((text) => `arrow ${number.trim() || next} ${text}`);

  function recorded() {
    number = '';
    input?.focus();
  }
</script>

<LineForm
  {reading}
  id="arrow"
  columns="grid-cols-[5rem_1fr_auto] items-end"
  onrecorded={recorded}
  onguess={(text) => reading.type(text.replace(/^arrow /, ''))}
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
        placeholder={`${next}`}
        bind:value={number}
        oninput={() => reading.type(reading.text)}
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
        value={reading.text}
        oninput={(event) => reading.type(event.currentTarget.value)}
        aria-invalid={reading.problem ? 'true' : undefined}
        aria-describedby="arrow-says"
      />
    </div>
    {@render record()}
  {/snippet}
</LineForm>
