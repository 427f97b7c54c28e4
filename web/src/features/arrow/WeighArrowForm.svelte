<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import Preview from '../../components/Preview.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { components } from '../../lib/api.gen';
  import { bench } from '../../lib/bench.svelte';
  import { Reading } from '../../lib/reading.svelte';

  let { masses }: { masses: components['schemas']['ArrowTick'][] } = $props();

  const next = $derived(Math.max(0, ...masses.map((mass) => mass.number ?? 0)) + 1);
  let number = $state('');
  let input = $state<HTMLInputElement>();
  const reading = new Reading((text) => `arrow ${number.trim() || next} ${text}`);

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    if (!(await reading.record())) return;
    number = '';
    input?.focus();
  }
</script>

<form onsubmit={submit} class="mt-1 grid grid-cols-[5rem_1fr_auto] items-end gap-3">
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
  <button class="act" class:act-strong={reading.parsed?.draft} disabled={bench.busy}>Record</button>
  <div id="arrow-says" class="col-span-3 min-h-5">
    {#if reading.problem}
      <ProblemNote
        problem={reading.problem}
        id="problem-arrow"
        onguess={(text) => reading.type(text.replace(/^arrow /, ''))}
      />
    {:else if reading.parsed}
      <Preview parsed={reading.parsed} where />
    {:else}
      <span class="text-sm text-soft">Complete, as it is shot. Enter records; then the next.</span>
    {/if}
  </div>
</form>
