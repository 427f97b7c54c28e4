<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TakeRows, { type TakeLine } from '../../drawings/listen/TakeRows.svelte';
  import TimeAxis from '../../drawings/listen/TimeAxis.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { api, type EntryDraft, type KeptSound } from '../../lib/api';
  import { Recording } from '../../lib/recording.svelte';
  import { arrived } from '../../lib/wanted';
  import ListeningState from './ListeningState.svelte';
  import type { Listening } from './hearing.svelte';
  import { sayDb } from './numbers';
  import WholeRecording from '../../drawings/listen/WholeRecording.svelte';

  let {
    listening,
    what,
    samePlace = $bindable(false),
    offerSame,
    onrecorded,
  }: {
    listening: Listening;
    what: 'pluck' | 'shot' | 'reference';
    samePlace?: boolean;
    /** There is an earlier recording it could share its place with. */
    offerSame: boolean;
    onrecorded: () => void;
  } = $props();

  const pressed = new Recording();
  let struck = $state<number[]>([]);
  let moved = $state<{ take: number; at_s: number }[]>([]);
  let added = $state<number[]>([]);
  let chosen = $state<number | null>(null);
  let held = $state(0);

  const hearing = $derived(listening.found?.hearing ?? null);
  const draft = $derived(hearing?.draft ?? null);
  const WORDS = { pluck: 'plucks', shot: 'shots', reference: 'knocks' };
  const lines = $derived(
    (hearing?.traces ?? []).map((trace, n): TakeLine => {
      const take = draft?.takes[n];
      return {
        number: n + 1,
        trace,
        struck: struck.includes(n + 1),
        says: take
          ? `${sayDb(take.level_db)}${moved.some((one) => one.take === n + 1) ? ', moved' : ''}`
          : '',
        spikes: take?.spikes_ms ?? [],
        blow: take?.blow_s == null ? null : 1000 * take.blow_s,
      };
    }),
  );

  export const question = (rig: string, kept: KeptSound) =>
    api.hearSound(rig, kept.mark, {
      what,
      struck: $state.snapshot(struck),
      moved: $state.snapshot(moved),
      added: $state.snapshot(added),
      same_place: samePlace,
    });
  const again = () => void listening.ask(question);

  function add(at: number) {
    added = [...added, at];
    again();
  }
  /** Strike out what sounds like another bow's. */
  function strikeOthers(others: readonly number[]) {
    struck = [...new Set([...struck, ...others])].sort((a, b) => a - b);
    again();
  }
  const others = $derived((hearing?.others ?? []).filter((one) => !struck.includes(one)));
  function strike(number: number) {
    struck = struck.includes(number)
      ? struck.filter((one) => one !== number)
      : [...struck, number].sort((a, b) => a - b);
    again();
  }
  function move(ms: number, letGo: boolean) {
    held = ms;
    const take = chosen === null ? undefined : draft?.takes[chosen - 1];
    if (!letGo || !take || chosen === null || ms === 0) return;
    moved = [
      ...moved.filter((one) => one.take !== chosen),
      { take: chosen, at_s: Math.max(take.at_s + ms / 1000, 0) },
    ];
    held = 0;
    again();
  }
  async function record() {
    const { rig } = openRig;
    const kept = listening.kept;
    if (!draft || !rig || !kept) return;
    const reading = { ...draft, same_place: samePlace } as EntryDraft['reading'];
    const entry: EntryDraft = { subject: { kind: 'rig', id: rig }, reading };
    if (kept.simulated) entry.source = 'simulated';
    const says = `${lines.length - struck.length} ${WORDS[what]} heard`;
    if (!(await pressed.record([entry], null, says))) return;
    forget();
    onrecorded();
  }
  export function forget() {
    fresh();
    listening.clear();
  }
  function fresh() {
    struck = [];
    moved = [];
    added = [];
    chosen = null;
  }
  /** Nothing of it is wanted: its file goes too. */
  function dismiss() {
    fresh();
    void listening.dismiss();
  }
</script>

<ListeningState {listening} {question} id="problem-sound" />
{#if hearing}
  <section aria-labelledby="new-title" class="new arrives" {@attach arrived}>
    <h2 id="new-title">
      {lines.length
        ? `${lines.length} ${WORDS[what]} found, not recorded yet`
        : `No ${WORDS[what]} found`}{listening.kept?.lossy ? ', from a compressed file' : ''}
    </h2>
    {#each hearing.troubles as trouble (trouble)}
      <p class="font-semibold text-amber">{trouble}</p>
    {/each}
    {#if others.length}
      <p>
        <button class="act" onclick={() => strikeOthers(others)}
          >Strike out {others.length === 1 ? 'take' : 'takes'} {others.join(', ')}</button
        >
      </p>
    {/if}
    {#if hearing.whole.overview.length}
      <WholeRecording whole={hearing.whole} {struck} busy={listening.share !== null} onadd={add} />
    {/if}
    {#if lines.length}
      <TakeRows
        {lines}
        label="new"
        {chosen}
        moved={held}
        onchoose={(number) => (chosen = number)}
        onmove={move}
        onstrike={strike}
      />
      <TimeAxis />
    {/if}
    <div class="acts">
      {#if offerSame}
        <label class="whitespace-nowrap"
          ><input type="checkbox" bind:checked={samePlace} /> phone, place and gain as before</label
        >
      {/if}
      <button
        class="act act-strong"
        disabled={!draft || pressed.busy || listening.share !== null}
        onclick={() => void record()}>Record these numbers</button
      >
      <button class="quiet" onclick={dismiss}>not these</button>
      {#if !draft && lines.length}<span class="text-soft">Nothing of it can be recorded.</span>{/if}
    </div>
    {#if pressed.problem}<ProblemNote problem={pressed.problem} id="problem-takes" />{/if}
  </section>
{/if}

<style>
  .new {
    margin-top: 0.9rem;
    padding: 0.6rem 0.8rem 0.8rem;
    border: 1px solid var(--line);
    border-radius: 4px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 1rem;
    margin-top: 0.5rem;
  }
</style>
