<script lang="ts">
  import { onDestroy } from 'svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import LevelMeter from '../../drawings/listen/LevelMeter.svelte';
  import { api, type KeptSound, type Problem } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { wanted } from '../../lib/wanted';
  import { Microphone } from './microphone.svelte';
  import { ACCEPTED, bring, MOST_BYTES, MOST_SECONDS, type Brought } from './wave';

  type Pretend = Parameters<typeof api.pretendSound>[1];

  let {
    what,
    how,
    busy,
    onbrought,
    onkept,
    pretend = {},
    faults = [],
  }: {
    what: Pretend['what'];
    /** What to do before the microphone, in a line. */
    how: string;
    busy: boolean;
    onbrought: (brought: Promise<Brought> | Brought) => void;
    onkept: (kept: KeptSound) => void;
    /** More of what the simulated microphone is asked. */
    pretend?: Partial<Pretend>;
    /** Faults it may be given. */
    faults?: readonly (keyof typeof FAULTS)[];
  } = $props();

  const FAULTS = {
    none: ['nothing', {}],
    rattle: ['a loose part', { rattle: 0.4 }],
    slack: ['a slack strand', { slack: 0.6 }],
    brace: ['brace too high', { brace_in: 0.625 }],
    light: ['an arrow too light', { light: 0.3 }],
    contact: ['the tail striking', { contact: 0.7 }],
    noisy: ['a noisy room', { noise_db: 6 }],
    rides: ['a gain that rides', { gain_rides: true }],
  } as const;

  const microphone = new Microphone((brought) => onbrought(brought));
  onDestroy(() => microphone.close());
  let over = $state(false);
  let hidden = $state<keyof typeof FAULTS>('none');
  let pretending = $state(false);
  let refused = $state.raw<Problem | null>(null);

  function chosen(files: FileList | null) {
    const file = files?.[0];
    if (file) onbrought(bring(file));
  }
  function dropped(event: DragEvent) {
    event.preventDefault();
    over = false;
    chosen(event.dataTransfer?.files ?? null);
  }
  /** Each time another recording of the same bow. */
  async function simulate() {
    if (!openRig.rig) return;
    pretending = true;
    const seed = (openRig.assessment?.revision ?? 0) * 10 + Math.floor(Math.random() * 10);
    const body = { what, seed, takes: 5, ...pretend, ...FAULTS[hidden][1] } as Pretend;
    const { data, problem } = await api.pretendSound(openRig.rig, body);
    pretending = false;
    refused = problem ?? null;
    if (data) onkept(data);
  }
  const clock = (seconds: number) =>
    `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
</script>

<section
  aria-labelledby="bring-title"
  class="bring"
  class:over
  {@attach wanted('bring')}
  tabindex="-1"
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={dropped}
>
  <h2 id="bring-title" class="sr-only">Bring a sound</h2>
  <p class="how">{how}</p>
  <div class="acts">
    {#if microphone.state === 'recording'}
      <button class="act act-strong big" onclick={() => microphone.stop()}>Stop recording</button>
      <p class="tabular-nums" role="status">
        <strong>{clock(microphone.seconds)}</strong>
        <span class="text-soft">{microphone.heard} heard</span>
      </p>
    {:else if microphone.state === 'ready'}
      <button class="act act-strong big" disabled={busy} onclick={() => microphone.start()}
        >Record</button
      >
      <button class="quiet" onclick={() => microphone.close()}>close the microphone</button>
    {:else}
      <button
        class="act big"
        disabled={busy || microphone.state === 'asking'}
        onclick={() => void microphone.open()}
        >{microphone.state === 'asking' ? 'The browser asks you…' : 'Open the microphone'}</button
      >
    {/if}
    {#if microphone.state !== 'recording'}
      <label class="act file">
        Choose a file
        <input
          type="file"
          class="sr-only"
          accept={ACCEPTED}
          disabled={busy}
          onchange={(event) => {
            chosen(event.currentTarget.files);
            event.currentTarget.value = '';
          }}
        />
      </label>
      <span class="text-sm text-soft">
        or drop it here: WAV, FLAC, or what a phone records; to {MOST_BYTES / 1e6} MB, {MOST_SECONDS /
          60} minutes
      </span>
    {/if}
  </div>
  {#if microphone.state === 'ready' || microphone.state === 'recording'}
    <div class="mt-2">
      <LevelMeter
        level={microphone.level}
        room={microphone.room}
        peak={microphone.peak}
        clips={microphone.clips}
      />
    </div>
  {/if}
  {#if microphone.trouble}
    <p class="mt-2 text-red" role="alert">
      <strong>{microphone.trouble[0]}</strong>
      {microphone.trouble[1]}
    </p>
  {/if}
  <details class="mt-2">
    <summary class="quiet inline-block text-sm">simulated microphone</summary>
    <div class="acts mt-1">
      {#if faults.length}
        <label class="text-sm text-soft" for="hidden-fault">Hidden in the bow</label>
        <select id="hidden-fault" class="field small" bind:value={hidden}>
          {#each ['none', ...faults] as const as fault (fault)}
            <option value={fault}>{FAULTS[fault][0]}</option>
          {/each}
        </select>
      {/if}
      <button class="act" disabled={busy || pretending} onclick={() => void simulate()}
        >{pretending ? 'Recording…' : 'Let it record this rig'}</button
      >
      <span class="text-sm text-soft">Made-up sound, recorded as simulated.</span>
    </div>
  </details>
  {#if refused}<ProblemNote problem={refused} id="problem-pretend" />{/if}
</section>

<style>
  .bring {
    border: 1px dashed var(--line);
    border-radius: 4px;
    padding: 0.7rem 0.9rem;
  }
  .bring:focus {
    outline: none;
  }
  .over {
    border-color: var(--ink);
    background: var(--raised);
  }
  .how {
    margin-bottom: 0.5rem;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 0.75rem;
  }
  .big {
    min-height: 2.75rem;
    padding-inline: 1.1rem;
  }
  .small {
    width: auto;
  }
  .file {
    cursor: pointer;
  }
  .file:focus-within {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
</style>
