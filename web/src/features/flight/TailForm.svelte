<script lang="ts">
  import PickOne from '../../components/PickOne.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import Unsent from '../../components/Unsent.svelte';
  import TailDial from '../../drawings/flight/TailDial.svelte';
  import { Tail } from '../../drawings/flight/tail.svelte';
  import type { PageOf } from '../../lib/api';
  import { recorder } from '../../lib/recorder.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { wanted } from '../../lib/wanted';
  import { metresOf } from './distance';

  let { page }: { page: PageOf<'flight'> } = $props();

  const ARROWS = [
    ['1', '1'],
    ['3', '3'],
    ['6', '6'],
  ] as const;
  const SHAFTS = [
    ['', 'fletched'],
    ['bare', 'bare'],
  ] as const;
  const tail = new Tail(() => page);
  const metres = (far: number) => `${Math.round(far * 10) / 10} m`;
  // svelte-ignore state_referenced_locally
  const asked = page.asked?.sees === 'tail' ? page.asked : null;
  // svelte-ignore state_referenced_locally
  const reading = new Reading({
    from: 'tail',
    fields: {
      seen: '',
      distance: metres(asked?.distance_m ?? page.tail_distance_m),
      arrows: `${asked?.arrows ?? page.arrows}`,
      bare: '',
    },
    stays: ['distance', 'arrows', 'bare'],
    line: ({ arrows, bare }) => [
      'tail',
      { field: 'seen' },
      '@',
      { field: 'distance' },
      `${arrows} arrows`,
      bare ? 'bare' : '',
    ],
  });
  const far = $derived(metresOf(reading.fields.distance ?? ''));
  const note = $derived.by(() => {
    if (far === null) return null;
    const { clear_low_m, clear_high_m, furthest_tail_m } = page;
    if (far > furthest_tail_m)
      return `From ${furthest_tail_m} m on a healthy tail swings over: it is kept, and does not count. Read it from ${clear_low_m} to ${clear_high_m} m.`;
    if (far < clear_low_m || far > clear_high_m)
      return `It shows most from ${clear_low_m} to ${clear_high_m} m.`;
    return null;
  });

  function record(seen: string) {
    if (!reading.fields.distance?.trim()) {
      reading.set({ seen });
      return;
    }
    reading.set({ seen });
    reading.record();
    tail.release();
  }
  function tap(grade: number) {
    const side = grade > 0 ? 'right' : 'left';
    record(grade ? `${side} ${Math.abs(grade)}` : 'straight');
  }
  const recorded = $derived(page.seen.findLast((one) => one.kind === 'tail_seen') ?? null);
  const waits = $derived(recorder.outbox.waiting(openRig.rig).some((job) => job.from === 'tail'));
</script>

<section aria-labelledby="tail-title">
  <div class="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2 max-md:gap-x-2">
    <h2 id="tail-title" class="grow text-[1.05rem] !text-ink max-md:sr-only">Tail</h2>
    <label class="w-24">
      <span class="label block">Distance</span>
      <input
        class="field"
        autocomplete="off"
        value={reading.fields.distance}
        oninput={(event) => reading.set({ distance: event.currentTarget.value })}
        aria-invalid={reading.problem ? 'true' : undefined}
        aria-describedby="tail-says"
      />
    </label>
    <PickOne
      legend="Arrows"
      options={ARROWS}
      value={reading.fields.arrows ?? '3'}
      pick={(arrows) => reading.set({ arrows })}
    />
    <PickOne
      legend="Shafts"
      options={SHAFTS}
      value={reading.fields.bare ?? ''}
      pick={(bare) => reading.set({ bare })}
    />
  </div>
  <div {@attach wanted('tail')} tabindex="-1" class="outline-none">
    <TailDial {tail} onrecord={() => record(tail.line)} ontap={tap} />
  </div>
  {#if tail.moved && !tail.dragging}
    <p class="mt-2 flex flex-wrap items-center gap-3">
      <button class="act act-strong" onclick={() => record(tail.line)}>Record {tail.words}</button>
      <button class="quiet" onclick={tail.release}>put it back</button>
    </p>
  {/if}
  <div id="tail-says" class="min-h-6">
    {#if reading.problem}
      <ProblemNote
        problem={reading.problem}
        id="problem-tail"
        onguess={(text) => {
          const distance = text
            .split('@')[1]
            ?.split(/\d+ arrows/)[0]
            ?.trim();
          if (distance) reading.set({ distance });
          reading.record();
        }}
      />
    {:else if note}
      <p class="text-sm text-amber">{note}</p>
    {:else if waits || !recorded}
      <p class="text-sm text-soft">
        Seen from behind. Drag the nock to where it points, the average of the end; or tap a column.
      </p>
    {:else}
      <p class="text-sm text-soft">
        Drag the nock to where it points, the average of the end; or tap a column.
      </p>
    {/if}
    {#if reading.fields.seen}
      <p class="text-sm">
        Kept: tail {reading.fields.seen}.
        <button type="button" class="quiet text-ink" onclick={() => reading.record()}
          >Record it now</button
        >
      </p>
    {/if}
    <Unsent typing={reading} />
  </div>
</section>
