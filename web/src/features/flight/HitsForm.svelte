<script lang="ts">
  import PickOne from '../../components/PickOne.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import ButtFace from '../../drawings/flight/ButtFace.svelte';
  import { Butt } from '../../drawings/flight/butt.svelte';
  import type { PageOf, Problem } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { wanted } from '../../lib/wanted';
  import { metresOf, NO_DISTANCE } from './distance';

  let { page }: { page: PageOf<'flight'> } = $props();

  const SHAFTS = [
    [false, 'fletched'],
    [true, 'bare'],
  ] as const;
  const butt = new Butt(openRig.rig ?? '');
  const recording = new Recording();
  const asked = $derived(page.asked?.sees === 'bare' ? page.asked : null);
  // svelte-ignore state_referenced_locally
  let distance = $state(`${asked?.distance_m ?? page.bare_distance_m} m`);
  const far = $derived(metresOf(distance));
  const differs = $derived(
    asked && far !== null && Math.abs(far - asked.distance_m) > 0.5 ? asked.distance_m : null,
  );
  const bare = $derived(butt.hits.filter((hit) => hit.bare).length);
  let missing = $state.raw<Problem | null>(null);
  const problem = $derived(missing ?? recording.problem);

  async function record() {
    const distance_m = metresOf(distance);
    missing = distance_m === null ? NO_DISTANCE : null;
    if (distance_m === null || !openRig.rig) return;
    const reading = {
      kind: 'butt_hits' as const,
      hits: butt.hits,
      distance_m,
      trial: page.trial ?? null,
    };
    const subject = { kind: 'rig' as const, id: openRig.rig };
    const says = `${butt.hits.length} hits at ${distance}`;
    if (await recording.record([{ subject, reading }], null, says)) butt.clear();
  }
</script>

<section aria-labelledby="hits-title">
  <div class="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
    <h2 id="hits-title" class="grow text-[1.05rem] !text-ink">Hits</h2>
    <label class="w-20">
      <span class="label block">Distance</span>
      <input
        class="field"
        autocomplete="off"
        bind:value={distance}
        oninput={() => (missing = null)}
        aria-invalid={problem ? 'true' : undefined}
        aria-describedby="hits-says"
      />
    </label>
    <PickOne
      legend="Next hit"
      options={SHAFTS}
      value={butt.bare}
      pick={(bare) => (butt.bare = bare)}
    />
  </div>
  <div {@attach wanted('hits')} tabindex="-1" class="outline-none"><ButtFace {butt} /></div>
  {#if asked}
    <p class="mt-1 text-sm" class:text-amber={differs !== null}>
      {#if differs !== null}
        The test asks for {differs} m: from {distance} it counts as shot there.
      {:else}
        {bare} of {asked.arrows} bare, {butt.hits.length - bare} of {asked.arrows} fletched
      {/if}
    </p>
  {/if}
  <p class="mt-1 flex items-center gap-3 text-sm">
    <button type="button" class="quiet" disabled={butt.nearest} onclick={() => butt.look(1)}
      >closer</button
    >
    <button type="button" class="quiet" disabled={butt.widest} onclick={() => butt.look(-1)}
      >wider</button
    >
    {#if butt.held !== null}
      <span class="text-soft">hit {butt.held + 1} of {butt.hits.length}</span>
    {/if}
  </p>
  <label class="mt-1 flex items-center gap-2 text-sm text-soft">
    Next hit is arrow
    <input
      class="field w-16"
      inputmode="numeric"
      autocomplete="off"
      placeholder="no."
      bind:value={butt.arrow}
    />
  </label>
  <div id="hits-says" class="mt-2 flex flex-wrap items-center gap-3">
    {#if butt.hits.length}
      <button class="act act-strong" disabled={recording.busy} onclick={() => void record()}>
        Record {butt.hits.length}
        {butt.hits.length === 1 ? 'hit' : 'hits'}
      </button>
      <button class="quiet" onclick={() => butt.remove()}>remove {(butt.held ?? 0) + 1}</button>
      <button class="quiet" onclick={() => butt.clear()}>start anew</button>
    {:else}
      <span class="text-sm text-soft">The cross is your aim. Tap a hit, drag a wrong one.</span>
    {/if}
    {#if problem}<ProblemNote {problem} id="problem-hits" />{/if}
  </div>
</section>
