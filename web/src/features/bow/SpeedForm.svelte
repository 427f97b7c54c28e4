<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { gr, mps } from '../../lib/units';
  import { wanted } from '../../lib/wanted';

  /** `own` is the mass of the arrows on the rig. */
  let { own }: { own: number | null } = $props();

  let speed = $state('');
  let mass = $state('');
  let input = $state<HTMLInputElement>();
  const reading = new Reading();

  const line = () => `speed ${speed}${/[a-z]/i.test(speed) || !mass ? '' : ' '} ${mass}`.trim();

  function read() {
    reading.type(speed.trim() ? line() : '');
  }

  function recorded() {
    speed = '';
    mass = '';
    input?.focus();
  }
</script>

<LineForm
  {reading}
  id="speed"
  where={false}
  columns="grid-cols-[1fr_1fr_auto] items-end"
  before={() => reading.type(line())}
  onrecorded={recorded}
  hint="At your own full draw. Two arrows far apart in mass tell energy and virtual mass from each other."
>
  {#snippet children(record)}
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
    {@render record()}
  {/snippet}
</LineForm>
