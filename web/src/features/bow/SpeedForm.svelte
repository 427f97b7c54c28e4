<script lang="ts">
  import Preview from '../../components/Preview.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { Assessment } from '../../lib/api';
  import { bench } from '../../lib/bench.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { gr, mps } from '../../lib/units';
  import { wanted } from '../../lib/wanted';

  let { assessment }: { assessment: Assessment } = $props();

  let speed = $state('');
  let mass = $state('');
  let input = $state<HTMLInputElement>();
  const reading = new Reading();
  const own = $derived(assessment.drawings.knee?.arrow_gr ?? null);

  const line = () => `speed ${speed}${/[a-z]/i.test(speed) || !mass ? '' : ' '} ${mass}`.trim();

  function read() {
    reading.type(speed.trim() ? line() : '');
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    reading.type(line());
    if (!(await reading.record())) return;
    speed = '';
    mass = '';
    input?.focus();
  }
</script>

<form onsubmit={submit} class="mt-1 grid grid-cols-2 gap-3">
  <div class="min-w-0">
    <label class="label block" for="field-speed">Speed</label>
    <input
      bind:this={input}
      {@attach wanted('speed')}
      id="field-speed"
      class="field"
      autocomplete="off"
      placeholder={`e.g. ${figure(mps(51.2))}`}
      bind:value={speed}
      oninput={read}
      aria-invalid={reading.problem ? 'true' : undefined}
      aria-describedby="speed-says"
    />
  </div>
  <div class="min-w-0">
    <label class="label block" for="field-speed-mass">of an arrow of</label>
    <input
      id="field-speed-mass"
      class="field"
      autocomplete="off"
      placeholder={own === null ? 'e.g. 431 gr' : `yours, ${figure(gr(own))}`}
      bind:value={mass}
      oninput={read}
      aria-describedby="speed-says"
    />
  </div>
  <div id="speed-says" class="min-h-5">
    {#if reading.problem}
      <ProblemNote problem={reading.problem} id="problem-speed" />
    {:else if reading.parsed}
      <Preview parsed={reading.parsed} />
    {:else}
      <span class="text-sm text-soft">
        At your own full draw. Two arrows far apart in mass tell energy and virtual mass from each
        other.
      </span>
    {/if}
  </div>
  <div class="flex items-start justify-end">
    <button class="act" class:act-strong={reading.parsed?.draft} disabled={bench.busy}
      >Record</button
    >
  </div>
</form>
