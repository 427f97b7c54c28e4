<script lang="ts">
  import PickOne from '../../components/PickOne.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import HoldShaft from '../../drawings/listen/HoldShaft.svelte';
  import WholeRecording from '../../drawings/listen/WholeRecording.svelte';
  import { api, type EntryDraft, type KeptSound } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { fittedId } from '../../lib/values';
  import { arrived } from '../../lib/wanted';
  import SoundPage from './SoundPage.svelte';
  import { Listening } from './hearing.svelte';
  import { behind, numberIn } from './numbers';
  import TappedShafts from './TappedShafts.svelte';

  const listening = new Listening();
  const pressed = new Recording();
  let built = $state<'bare' | 'finished'>('bare');
  let first = $state('1');
  let again = $state<number[]>([]);
  let quarter = $state<number[]>([]);
  let struck = $state<number[]>([]);
  let added = $state<number[]>([]);

  const found = $derived(listening.found?.taps ?? null);
  const firstNumber = $derived(numberIn(first, 1, 999));
  const whole = $derived(firstNumber !== null && Number.isInteger(firstNumber));

  const question = (rig: string, kept: KeptSound) =>
    api.tapSound(rig, kept.mark, {
      state: built,
      first: whole ? (firstNumber ?? 1) : 1,
      again: $state.snapshot(again),
      quarter: $state.snapshot(quarter),
      struck: $state.snapshot(struck),
      added: $state.snapshot(added),
    });
  function anew() {
    if (listening.kept && whole) void listening.ask(question);
  }
  const toggled = (list: number[], one: number) =>
    (list.includes(one) ? list.filter((n) => n !== one) : [...list, one]).sort((a, b) => a - b);
  function fresh() {
    again = [];
    quarter = [];
    struck = [];
    added = [];
  }
  /** A tap that was missed: those behind it are numbered one higher. */
  function add(at: number) {
    const after = behind(found?.whole.at_s ?? [], at);
    again = again.map(after);
    quarter = quarter.map(after);
    struck = struck.map(after);
    added = [...added, at];
    anew();
  }
  async function record() {
    const id = fittedId(openRig.assessment, 'arrow_set');
    const drafts = (found?.drafts ?? []).map((reading): EntryDraft | null =>
      id
        ? {
            subject: { kind: 'arrow_set', id },
            reading,
            ...(listening.kept?.simulated ? { source: 'simulated' as const } : {}),
          }
        : null,
    );
    const count = drafts.length;
    const says = `${count} shaft${count === 1 ? '' : 's'} tapped`;
    if (!(await pressed.record(drafts, 'arrow_set', says))) return;
    const last = found?.drafts.at(-1)?.arrow_number;
    if (last) first = `${last + 1}`;
    fresh();
    listening.clear();
  }
</script>

<SoundPage
  {listening}
  {question}
  ready={whole}
  problem="problem-taps"
  onfresh={fresh}
  what="taps"
  how="Tap one shaft after another, two seconds apart. Twice the same shaft? Say so below when it is heard."
  pretend={{ takes: 12, state: built }}
  faults={['noisy']}
>
  {#snippet fields(page)}
    {@const places = built === 'bare' ? page.hold_bare : page.hold_finished}
    <div class="top">
      <PickOne
        legend="They are"
        options={[
          ['bare', 'bare shafts'],
          ['finished', 'finished arrows'],
        ]}
        value={built}
        pick={(one: 'bare' | 'finished') => {
          built = one;
          anew();
        }}
      />
      <div>
        <label class="label block" for="first-shaft">First shaft's number</label>
        <input
          id="first-shaft"
          class="field"
          inputmode="numeric"
          bind:value={first}
          aria-invalid={whole ? undefined : 'true'}
          aria-describedby={whole ? undefined : 'problem-first'}
          oninput={anew}
        />
        {#if !whole}<p id="problem-first" class="text-sm text-red">
            Give a whole number, 1 to 999.
          </p>{/if}
      </div>
    </div>
    <HoldShaft {places} />
  {/snippet}
  {#snippet heard(page)}
    {#if found}
      <section class="arrives mt-4" aria-labelledby="taps-title" {@attach arrived}>
        <h2 id="taps-title">
          {found.taps.length === 0
            ? 'No tap was heard'
            : `${found.taps.length} taps, not recorded yet`}
        </h2>
        {#each found.troubles as trouble (trouble)}
          <p class="font-semibold text-amber">{trouble}</p>
        {/each}
        <WholeRecording whole={found.whole} {struck} busy={listening.share !== null} onadd={add} />
        {#if found.taps.length}
          <table class="rows taps mt-1">
            <thead>
              <tr>
                <th>Tap</th>
                <th>Shaft</th>
                <th>Rings at</th>
                <th>Over the room</th>
                <th><span class="sr-only">Say of it</span></th>
              </tr>
            </thead>
            <tbody>
              {#each found.taps as tap (tap.take)}
                <tr class:off={struck.includes(tap.take)}>
                  <td>{tap.take}</td>
                  <th scope="row">{tap.number}{tap.quarter ? ', turned' : ''}</th>
                  <td class="whitespace-nowrap">
                    {#if tap.why_not && !struck.includes(tap.take)}
                      <span class="text-amber">{tap.why_not}</span>
                    {:else if tap.ring_hz != null}
                      {tap.ring_hz.toFixed(1)} ± {(tap.half_hz ?? 0).toFixed(1)} Hz
                    {/if}
                  </td>
                  <td class="whitespace-nowrap">{tap.over_db.toFixed(0)} dB</td>
                  <td class="text-right">
                    {#if tap.take > 1}
                      <label class="tick"
                        ><input
                          type="checkbox"
                          checked={again.includes(tap.take)}
                          onchange={() => {
                            again = toggled(again, tap.take);
                            anew();
                          }}
                        /> same shaft</label
                      >
                    {/if}
                    <label class="tick"
                      ><input
                        type="checkbox"
                        checked={quarter.includes(tap.take)}
                        onchange={() => {
                          quarter = toggled(quarter, tap.take);
                          anew();
                        }}
                      /> turned a quarter</label
                    >
                    <button
                      class="quiet text-sm"
                      onclick={() => {
                        struck = toggled(struck, tap.take);
                        anew();
                      }}>{struck.includes(tap.take) ? 'put back' : 'strike out'}</button
                    >
                  </td>
                </tr>
              {/each}
            </tbody>
          </table>
          <p class="mt-2 flex flex-wrap items-center gap-4">
            <button
              class="act act-strong"
              disabled={!found.drafts.length || pressed.busy || listening.share !== null}
              onclick={() => void record()}
              >{found.drafts.length
                ? `Record ${found.drafts.length} shaft${found.drafts.length === 1 ? '' : 's'}`
                : 'Nothing to record'}</button
            >
            <button
              class="quiet"
              onclick={() => {
                fresh();
                void listening.dismiss();
              }}>not these</button
            >
          </p>
          {#if pressed.problem}<ProblemNote problem={pressed.problem} id="problem-tapped" />{/if}
        {/if}
      </section>
    {/if}
    <TappedShafts {page} />
  {/snippet}
</SoundPage>

<style>
  .top {
    display: flex;
    flex-wrap: wrap;
    gap: 0.75rem 1.5rem;
    align-items: start;
  }
  .top > div {
    width: 10rem;
  }
  .taps tbody th {
    color: var(--ink);
    font-weight: 600;
    font-size: 1rem;
  }
  .off {
    opacity: 0.6;
  }
  .tick {
    margin-right: 0.9rem;
    white-space: nowrap;
    font-size: 0.87rem;
  }
</style>
