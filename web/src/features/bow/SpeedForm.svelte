<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { gr, mps } from '../../lib/units';
  import { wanted } from '../../lib/wanted';

  /** `own` is the mass of the arrows on the rig. */
  let { own }: { own: number | null } = $props();

  let input = $state<HTMLInputElement>();
  const reading = new Reading({
    from: 'speed',
    fields: { speed: '', mass: '' },
    line: () => ['speed', { field: 'speed' }, { field: 'mass' }],
    whole: ({ speed }) => Boolean(speed?.trim()),
  });
</script>

<LineForm
  {reading}
  id="speed"
  where={false}
  columns="grid-cols-[1fr_1fr_auto] items-end"
  onrecorded={() => input?.focus()}
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
        value={reading.fields.speed}
        oninput={(event) => reading.set({ speed: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'speed' ? 'true' : undefined}
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
        value={reading.fields.mass}
        oninput={(event) => reading.set({ mass: event.currentTarget.value })}
        aria-invalid={reading.wrong === 'mass' ? 'true' : undefined}
        aria-describedby="speed-says"
      />
    </div>
    {@render record()}
  {/snippet}
</LineForm>
