<script lang="ts">
  import { wanted } from '../../lib/wanted';
  import type { Assessment } from '../../lib/api';
  import { bench } from '../../lib/bench.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { mm } from '../../lib/units';
  import Preview from '../../components/Preview.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';

  let { assessment }: { assessment: Assessment } = $props();

  let weight = $state('');
  let draw = $state('');
  let groove = $state(false);
  let input = $state<HTMLInputElement>();
  const reading = new Reading();
  const own = $derived(assessment.drawings.weight?.own_mm ?? null);
  const complete = $derived(weight.trim() !== '' && draw.trim() !== '');

  const line = () => `scale ${weight} @ ${draw}${groove ? ' groove' : ''}`;

  function read() {
    reading.type(complete ? line() : '');
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    reading.type(line());
    if (!(await reading.record())) return;
    weight = '';
    draw = '';
    input?.focus();
  }
</script>

<form onsubmit={submit} class="mt-1 grid grid-cols-2 gap-3">
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
  <div class="flex items-center justify-end">
    <button class="act" class:act-strong={reading.parsed?.draft} disabled={bench.busy}
      >Record</button
    >
  </div>
  <div id="scale-says" class="col-span-2 min-h-5">
    {#if reading.problem}
      <ProblemNote problem={reading.problem} id="problem-scale" />
    {:else if reading.parsed}
      <Preview parsed={reading.parsed} where />
    {:else}
      <span class="text-sm text-soft">
        {own === null
          ? 'Distances on pivot + 1¾ in.'
          : `Your own hook stands at ${figure(mm(own))}: weigh there first.`}
      </span>
    {/if}
  </div>
</form>
