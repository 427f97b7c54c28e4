<script lang="ts">
  import { onDestroy, onMount } from 'svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import type { KeptSound } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { BROUGHT_WORDS } from '../../lib/choices.gen';
  import { sayDay, sayTime } from '../../lib/days';
  import { wanted } from '../../lib/wanted';
  import { goToPath } from '../../lib/navigation';
  import { pagePath } from '../../lib/paths';
  import type { StagePath } from '../../stages';
  import { keptSounds } from './kept.svelte';
  import ListenHead from './ListenHead.svelte';

  onMount(() => void keptSounds.load());

  let playing = $state<string | null>(null);
  let asking = $state<string | null>(null);
  let said = $state('');
  let player: HTMLAudioElement | null = null;
  onDestroy(() => player?.pause());

  function hear(mark: string) {
    player?.pause();
    if (playing === mark) {
      playing = null;
      return;
    }
    player = new Audio(`/api/sounds/${mark}`);
    player.onended = () => (playing = null);
    playing = mark;
    void player.play().catch(() => (playing = null));
  }
  async function forget(mark: string, name: string) {
    asking = null;
    if (playing === mark) hear(mark);
    said = (await keptSounds.forget(mark))
      ? `${name} is forgotten. Its numbers stay.`
      : 'It could not be forgotten: Lyrandis does not answer.';
  }
  function listenAs(one: KeptSound, select: HTMLSelectElement) {
    const what = select.value;
    select.value = '';
    if (!what || !openRig.rig) return;
    keptSounds.handOver(one);
    const page = PAGES[what];
    if (!page) keptSounds.as = what as 'pluck' | 'shot' | 'reference';
    void goToPath(pagePath(openRig.rig, page ?? 'listen'));
  }
  /** Where a recording is listened to that is no take of the string. */
  const PAGES: Record<string, StagePath | undefined> = {
    butt: 'listen/speed',
    taps: 'listen/taps',
  };
  const size = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
</script>

{#snippet keptActs(one: { mark: string; name: string })}
  <button class="quiet" onclick={() => hear(one.mark)}
    >{playing === one.mark ? 'stop' : 'hear it'}</button
  >
  {#if asking === one.mark}
    <button class="act" onclick={() => void forget(one.mark, one.name)}>Forget it for good</button>
    <button class="quiet" onclick={() => (asking = null)}>keep it</button>
  {:else}
    <button class="quiet" onclick={() => (asking = one.mark)}>forget</button>
  {/if}
{/snippet}

<WhenReady key="listen">
  {#snippet children(_, stage, page)}
    {@const loose = (keptSounds.all ?? []).filter(
      (one) =>
        !page.recordings.some((recorded) => recorded.mark === one.mark) &&
        !page.speeds.some((speed) => speed.mark === one.mark),
    )}
    <ListenHead {stage} {page} />
    <section aria-labelledby="kept-title" {@attach wanted('recordings')} tabindex="-1">
      <h2 id="kept-title">Recorded of this rig</h2>
      {#if page.recordings.length}
        <table class="rows mt-1">
          <thead>
            <tr>
              <th>When</th>
              <th>What</th>
              <th>Takes</th>
              <th>Place</th>
              <th>What is wrong with it</th>
              <th><span class="sr-only">Do</span></th>
            </tr>
          </thead>
          <tbody>
            {#each page.recordings.toReversed() as one (one.mark)}
              {@const struck = one.takes.filter((take) => take.struck).length}
              <tr>
                <th scope="row">
                  {sayDay(one.at)}, {sayTime(one.at)}
                  <span class="block text-sm font-normal text-soft"
                    >{one.name}{one.source === 'simulated' ? ' · simulated' : ''}{one.lossy
                      ? ' · from a compressed file'
                      : ''}</span
                  >
                </th>
                <td>{one.what}</td>
                <td class="whitespace-nowrap"
                  >{one.takes.length - struck}{struck ? `, ${struck} struck out` : ''}</td
                >
                <td class="whitespace-nowrap">{one.session}</td>
                <td class:text-amber={one.troubles.length} class:text-soft={!one.troubles.length}>
                  {one.troubles.length
                    ? one.troubles.join(' ')
                    : one.levels_hold
                      ? 'nothing'
                      : 'its levels do not compare: the phone adjusts its gain'}
                </td>
                <td class="acts">
                  {#if keptSounds.has(one.mark)}
                    {@render keptActs(one)}
                  {:else}
                    <span class="text-soft">forgotten, numbers stay</span>
                  {/if}
                  <TakeBack entry={one.entry_id} what="the recording of {sayDay(one.at)}" />
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      {:else}
        <p class="mt-1 text-soft">None yet.</p>
      {/if}
    </section>
    {#if loose.length}
      <section class="mt-5" aria-labelledby="loose-title">
        <h2 id="loose-title">Kept, and not among them</h2>
        <p class="text-sm text-soft">Taps, shots of other rigs, and what was not recorded.</p>
        <ul class="mt-1">
          {#each loose as one (one.mark)}
            <li class="loose">
              <span
                >{one.name}
                <span class="text-soft"
                  >{one.seconds.toFixed(0)} s, {size(one.size)}{one.simulated
                    ? ', simulated'
                    : ''}</span
                ></span
              >
              <span class="acts">
                <label>
                  <span class="sr-only">Listen to {one.name} as</span>
                  <select class="field as" onchange={(event) => listenAs(one, event.currentTarget)}>
                    <option value="">listen to it as…</option>
                    {#each BROUGHT_WORDS as [key, words] (key)}
                      <option value={key}>{words}</option>
                    {/each}
                  </select>
                </label>
                {@render keptActs(one)}
              </span>
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    <p class="mt-3 min-h-5" role="status">{said}</p>
    <p class="text-sm text-soft">
      {#if keptSounds.all?.length}
        {keptSounds.all.length === 1
          ? 'One recording takes'
          : `${keptSounds.all.length} recordings take`}
        {size(keptSounds.all.reduce((sum, one) => sum + one.size, 0))} of this disk.
      {/if}
      Recordings hold voices. They lie in the folder of this bench on this machine and go nowhere; a saved
      logbook holds their numbers only.
    </p>
  {/snippet}
</WhenReady>

<style>
  section:focus {
    outline: none;
  }
  tbody th {
    font-weight: 600;
    font-size: 1rem;
    color: var(--ink);
  }
  .acts {
    text-align: right;
    white-space: nowrap;
  }
  .acts :global(button) {
    margin-left: 0.5rem;
  }
  .as {
    width: auto;
    min-height: 1.9rem;
    padding-block: 0.1rem;
  }
  .loose {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0.25rem 1rem;
    border-bottom: 1px solid var(--line);
    padding: 0.3rem 0;
  }
  @media (max-width: 720px) {
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      border-bottom: 1px solid var(--line);
      padding: 0.4rem 0;
    }
    td,
    tbody th {
      border: 0;
      padding: 0;
    }
    td:nth-child(4) {
      display: none;
    }
    td:nth-child(5),
    td:nth-child(6) {
      grid-column: 1 / -1;
      text-align: left;
      white-space: normal;
    }
  }
</style>
