<script lang="ts">
  import PickOne from '../../components/PickOne.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import ShotRow from '../../drawings/listen/ShotRow.svelte';
  import WholeRecording from '../../drawings/listen/WholeRecording.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { api, type EntryDraft, type KeptSound } from '../../lib/api';
  import { sayDay } from '../../lib/days';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { mps } from '../../lib/units';
  import { arrived, wanted } from '../../lib/wanted';
  import SoundPage from './SoundPage.svelte';
  import { Listening } from './hearing.svelte';
  import { keptSounds } from './kept.svelte';
  import { behind, numberIn } from './numbers';

  const listening = new Listening();
  const pressed = new Recording();
  let butt = $state('18');
  let celsius = $state('15');
  let away = $state('0.4');
  let atButt = $state(false);
  let taped = $state(false);
  let struck = $state<number[]>([]);
  let added = $state<number[]>([]);
  let marks = $state<{ shot: number; release_s: number; strike_s: number }[]>([]);

  const found = $derived(listening.found?.speed ?? null);
  const told = $derived({
    butt_m: numberIn(butt, 3, 100),
    celsius: numberIn(celsius, -30, 50),
    microphone_m: numberIn(away, 0, 20),
  });
  const FIELDS = [
    ['butt', 'String to butt, m', 'Give 3 to 100 m, measured from the braced string.'],
    ['celsius', 'Air, °C', 'Give −30 to 50 °C.'],
    ['away', 'Microphone away, m', 'Give 0 to 20 m.'],
  ] as const;
  const wrong = $derived({
    butt: told.butt_m === null,
    celsius: told.celsius === null,
    away: told.microphone_m === null,
  });
  const ready = $derived(!wrong.butt && !wrong.celsius && !wrong.away);

  const question = (rig: string, kept: KeptSound) =>
    api.timeSound(rig, kept.mark, {
      butt_m: told.butt_m ?? 18,
      taped,
      celsius: told.celsius ?? 15,
      microphone_m: told.microphone_m ?? 0.4,
      at_butt: atButt,
      marks: $state.snapshot(marks),
      struck: $state.snapshot(struck),
      added: $state.snapshot(added),
    });
  function again() {
    if (listening.kept && ready) void listening.ask(question);
  }
  function fresh() {
    struck = [];
    marks = [];
    added = [];
  }
  /** A shot that was missed: those behind it are numbered one higher. */
  function add(at: number) {
    const after = behind(found?.whole.at_s ?? [], at);
    struck = struck.map(after);
    marks = marks.map((one) => ({ ...one, shot: after(one.shot) }));
    added = [...added, at];
    again();
  }
  async function record() {
    const { rig } = openRig;
    const draft = found?.draft;
    if (!draft || !rig) return;
    const entry: EntryDraft = { subject: { kind: 'rig', id: rig }, reading: draft };
    if (listening.kept?.simulated) entry.source = 'simulated';
    if (!(await pressed.record([entry], null, 'Speed by ear'))) return;
    fresh();
    listening.clear();
    void keptSounds.load();
  }
  const number = (value: string, name: (typeof FIELDS)[number][0]) => {
    if (name === 'butt') butt = value;
    else if (name === 'celsius') celsius = value;
    else away = value;
    again();
  };
  const strike = (one: number) => {
    struck = struck.includes(one) ? struck.filter((n) => n !== one) : [...struck, one];
    again();
  };
</script>

<SoundPage
  {listening}
  {question}
  {ready}
  problem="problem-speed"
  onfresh={fresh}
  what="butt"
  how="Shoot three arrows at the butt, three seconds apart, each loosed alike. A hard butt is heard best. Release and strike are heard in one recording; the rest is sums."
  pretend={{ takes: 3, butt_m: told.butt_m ?? 18 }}
  faults={['noisy']}
>
  {#snippet fields()}
    <form
      class="where"
      onsubmit={(event) => {
        event.preventDefault();
        again();
      }}
    >
      {#each FIELDS as [name, label, instruction] (name)}
        <div>
          <label class="label block" for="speed-{name}">{label}</label>
          <input
            id="speed-{name}"
            class="field"
            inputmode="decimal"
            value={name === 'butt' ? butt : name === 'celsius' ? celsius : away}
            aria-invalid={wrong[name] ? 'true' : undefined}
            aria-describedby={wrong[name] ? `problem-speed-${name}` : undefined}
            oninput={(event) => number(event.currentTarget.value, name)}
          />
          {#if wrong[name]}<p id="problem-speed-{name}" class="text-sm text-red">
              {instruction}
            </p>{/if}
        </div>
      {/each}
      <PickOne
        legend="Distance by"
        options={[
          [true, 'tape'],
          [false, 'paces, a mark'],
        ]}
        value={taped}
        pick={(one: boolean) => {
          taped = one;
          again();
        }}
      />
      <PickOne
        legend="Microphone beside the"
        options={[
          [false, 'bow'],
          [true, 'butt'],
        ]}
        value={atButt}
        pick={(one: boolean) => {
          atButt = one;
          again();
        }}
      />
    </form>
  {/snippet}
  {#snippet heard(page)}
    {#if found}
      <section class="arrives mt-4" aria-labelledby="shots-title" {@attach arrived}>
        <h2 id="shots-title">
          {found.shots.length === 0
            ? 'No shot was heard'
            : found.shots.length === 1
              ? 'One shot'
              : `${found.shots.length} shots`}
        </h2>
        <WholeRecording whole={found.whole} {struck} busy={listening.share !== null} onadd={add} />
        {#if found.shots.length === 0}
          <p class="text-soft">Move the microphone nearer, or wait for the wind.</p>
        {:else}
          <ol>
            {#each found.shots as shot (shot.number)}
              <li class="shot">
                <span class="n">{shot.number}</span>
                <ShotRow
                  {shot}
                  onmove={(release_s, strike_s) => {
                    marks = [
                      ...marks.filter((one) => one.shot !== shot.number),
                      { shot: shot.number, release_s, strike_s },
                    ];
                    again();
                  }}
                />
                <span class="says">
                  {#if shot.speed_mps != null}
                    <strong class:text-soft={!shot.counts}
                      >{figure(mps(shot.speed_mps, shot.half_mps ?? null))}</strong
                    >
                  {/if}
                  {#if shot.why_not && !struck.includes(shot.number)}
                    <span class="block text-sm text-amber">{shot.why_not}</span>
                  {/if}
                  <button class="quiet text-sm" onclick={() => strike(shot.number)}
                    >{struck.includes(shot.number) ? 'put back' : 'strike out'}</button
                  >
                </span>
              </li>
            {/each}
          </ol>
          <p class="text-sm text-soft">
            Upper handle: release. Lower: strike. Drag them, or arrows 0.1 ms, shift 5 ms, Enter.
            {#if found.shots.some((shot) => shot.other_s != null)}
              Dashed amber: another place where the strike may be.
            {/if}
          </p>
        {/if}
        {#if found.speed_mps != null}
          <div class="answer">
            <p class="large">{figure(mps(found.speed_mps, found.half_mps ?? null))}</p>
            {#if !found.agrees}
              <p class="font-semibold text-amber">
                The bow's sums expect another speed: see the distance and the marks.
              </p>
            {/if}
            <p class="text-soft">
              {found.expected_mps == null
                ? 'The sums have no speed of their own yet.'
                : `The bow's sums alone: ${figure(mps(found.expected_mps))}.`}
              {#if page.arrow_mass_gr == null}Weigh the arrow: only then it calibrates the bow.{/if}
            </p>
            <button
              class="act act-strong"
              disabled={pressed.busy || listening.share !== null}
              onclick={() => void record()}>Record this speed</button
            >
          </div>
          <ul class="text-sm text-soft">
            {#each found.because as line, n (n)}<li>{tell(line)}</li>{/each}
          </ul>
          {#if pressed.problem}<ProblemNote problem={pressed.problem} id="problem-record" />{/if}
        {/if}
      </section>
    {/if}
    <section class="mt-5" aria-labelledby="speeds-title" {@attach wanted('speed')} tabindex="-1">
      <h2 id="speeds-title">Speeds by ear</h2>
      {#if page.speeds.length}
        <ul>
          {#each page.speeds as one (one.entry_id)}
            <li class="line">
              <span
                ><strong>{figure(mps(one.speed_mps, one.half_mps))}</strong>
                <span class="text-soft">{sayDay(one.at)}</span></span
              >
              <TakeBack entry={one.entry_id} what={figure(mps(one.speed_mps))} />
            </li>
          {/each}
        </ul>
        <p class="text-sm text-soft">
          They count as a chronograph's readings do: see Energy on the bow's pages.
        </p>
      {:else}
        <p class="text-soft">None yet. They draw the bow's energy as a chronograph does.</p>
      {/if}
    </section>
  {/snippet}
</SoundPage>

<style>
  .where {
    display: flex;
    flex-wrap: wrap;
    gap: 0.75rem 1rem;
    align-items: start;
    margin-bottom: 0.75rem;
  }
  .where > div {
    width: 9.5rem;
  }
  .shot {
    display: grid;
    grid-template-columns: 1.5rem minmax(0, 1fr) 11rem;
    gap: 0.6rem;
    align-items: center;
    border-bottom: 1px solid var(--line);
    padding: 0.35rem 0;
  }
  .n {
    font-weight: 600;
    text-align: right;
  }
  .answer {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 1.25rem;
    margin: 0.75rem 0 0.4rem;
  }
  .large {
    font-size: 1.75rem;
    font-weight: 700;
    line-height: 1.15;
  }
  .line {
    display: flex;
    justify-content: space-between;
    border-bottom: 1px solid var(--line);
    padding: 0.3rem 0;
    max-width: 32rem;
  }
  @media (max-width: 640px) {
    .shot {
      grid-template-columns: 1.2rem minmax(0, 1fr);
    }
    .says {
      grid-column: 2;
    }
  }
</style>
