<script lang="ts">
  import TakeBack from '../../components/TakeBack.svelte';
  import ValleyChart from '../../drawings/string/ValleyChart.svelte';
  import { Handle } from '../../drawings/string/valley.svelte';
  import type { PageOf } from '../../lib/api';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { mm, sixteenths } from '../../lib/units';
  import RecordHeight from './RecordHeight.svelte';
  import TriedForm from './TriedForm.svelte';

  let { valley, settled }: { valley: PageOf<'string'>['valley']; settled: boolean | null } =
    $props();

  const handle = new Handle(() => valley);
  let form = $state<{ focus: () => void }>();
  const mean = (ratings: number[]) =>
    ratings.length ? (ratings.reduce((a, b) => a + b, 0) / ratings.length).toFixed(1) : '–';
  const recorded = $derived(valley.shots.some((shot) => shot.recorded));
  const shocked = $derived(valley.shots.some((shot) => shot.shock.length));
  /** Nobody read a brace or chose a height: what is only usual is never recorded as read. */
  const unread = $derived(valley.now_mm == null && !valley.shots.length && !handle.moved);
  const halves = (turns: number) => `${Math.round(2 * turns) / 2}`;
</script>

<div class="grid gap-5 lg:grid-cols-[minmax(0,1fr)_20.6rem]">
  <div class="min-w-0">
    <ValleyChart {handle} onenter={() => form?.focus()} />
    {#if valley.said}
      <p class="mt-1 text-green">
        {tell(valley.said)}
        {#if settled === false}<span class="text-amber">The string is still settling.</span>{/if}
      </p>
    {:else}
      <p class="mt-1 text-soft">
        {valley.heights
          ? 'One height says nothing yet: try the next.'
          : unread
            ? 'Read the brace first; then shoot three there, and rate them.'
            : 'Shoot three where it is, and rate them.'}
      </p>
    {/if}
  </div>
  <div class="min-w-0">
    <section aria-labelledby="tried">
      <h2 id="tried">Heights tried</h2>
      {#if valley.shots.length}
        <table class="rows mt-1">
          <thead>
            <tr
              ><th>Brace</th><th>Sound</th>
              {#if shocked}<th>Shock</th>{/if}
              {#if recorded}<th>Recorded</th>{/if}<th><span class="sr-only">Take back</span></th
              ></tr
            >
          </thead>
          <tbody>
            {#each valley.shots as shot (shot.entry_id)}
              <tr>
                <td class="whitespace-nowrap">
                  <strong>{figure(mm(shot.brace_mm))}</strong>
                  {#if shot.turns != null}<span class="block text-sm text-soft"
                      >{shot.turns} turns</span
                    >{/if}
                  {#if shot.tail}<span class="block text-sm text-soft">tail {shot.tail}</span>{/if}
                </td>
                <td>{mean(shot.sound)}</td>
                {#if shocked}<td>{mean(shot.shock)}</td>{/if}
                {#if recorded}
                  <td
                    >{shot.recorded_db != null
                      ? `+${Math.max(shot.recorded_db, 0).toFixed(1)} dB`
                      : shot.recorded
                        ? 'another place'
                        : '–'}</td
                  >
                {/if}
                <td class="text-right">
                  <TakeBack entry={shot.entry_id} what={figure(mm(shot.brace_mm))} />
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="mt-1 text-sm text-soft">
          Rated 0 still to 10 harsh.
          {#if recorded}Recorded: over the quiet spot, triangles in the drawing.{/if}
        </p>
      {:else}
        <p class="mt-1 text-soft">None yet.</p>
      {/if}
    </section>
    <section aria-labelledby="try-next" class="mt-4">
      <h2 id="try-next">
        {valley.enough && !handle.moved ? 'Found; another try' : 'Try next'}
      </h2>
      {#if !unread}
        <p class="mt-1">
          <strong class="text-lg">{figure(mm(handle.at))}</strong>
          {#if !handle.moved && valley.next_turns != null}
            <span class="text-soft">turns then {halves(valley.next_turns)}</span>
          {/if}
          {#if handle.moved}
            <button class="quiet text-sm" onclick={handle.release}>back to the proposal</button>
          {/if}
        </p>
      {/if}
      {#if !handle.moved && valley.out_of_reach}
        <p class="mt-1 text-sm text-amber">{tell(valley.out_of_reach)}</p>
      {/if}
      {#if handle.outside}
        <p class="text-sm text-red">
          Outside {valley.told ? "the maker's range" : 'the usual range'}: a low brace slaps the
          arm, a high one asks much of string and limbs.
        </p>
      {/if}
      {#if !unread}
        <RecordHeight at={handle.at} {recorded} onrecorded={handle.release} />
      {/if}
      <TriedForm
        bind:this={form}
        brace={unread ? null : sixteenths(handle.at)}
        onrecorded={handle.release}
      />
    </section>
  </div>
</div>
