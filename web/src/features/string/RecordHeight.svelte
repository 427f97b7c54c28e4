<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { api, type EntryDraft, type KeptSound } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { mm } from '../../lib/units';
  import BringSound from '../listen/BringSound.svelte';
  import ListeningState from '../listen/ListeningState.svelte';
  import { Listening } from '../listen/hearing.svelte';

  let {
    at,
    recorded,
    onrecorded,
  }: {
    /** The height that is shot, to the pivot [mm]. */
    at: number;
    /** Another height was recorded before. */
    recorded: boolean;
    onrecorded: () => void;
  } = $props();

  const listening = new Listening();
  const pressed = new Recording();
  let samePlace = $state(true);
  let open = $state(false);

  const hearing = $derived(listening.found?.hearing ?? null);
  const draft = $derived(hearing?.draft ?? null);
  const levels = $derived(draft?.takes.map((take) => take.level_db) ?? []);
  const question = (rig: string, kept: KeptSound) =>
    api.hearSound(rig, kept.mark, {
      what: 'shot',
      struck: [],
      moved: [],
      added: [],
      same_place: samePlace,
    });

  async function record() {
    const { rig } = openRig;
    if (!draft || !rig || hearing?.level_half_db == null) return;
    const entry: EntryDraft = {
      subject: { kind: 'rig', id: rig },
      reading: {
        kind: 'brace_tried',
        brace_height_mm: at,
        datum: 'pivot',
        sound: [],
        shock: [],
        takes_db: levels,
        ear: {
          mark: draft.mark,
          half: hearing.level_half_db,
          same_place: recorded && samePlace,
        },
      },
    };
    if (listening.kept?.simulated) entry.source = 'simulated';
    if (!(await pressed.record([entry], null, `${levels.length} shots recorded`))) return;
    listening.clear();
    onrecorded();
  }
</script>

<details class="mt-2" bind:open>
  <summary class="quiet inline-block">record the shots instead</summary>
  {#if open}
    <div class="mt-2">
      <BringSound
        what="shot"
        how="Shoot three to five at {figure(mm(at))}, the phone to the side."
        busy={listening.share !== null}
        faults={['brace']}
        onbrought={(brought) => void listening.bring(brought, question)}
        onkept={(kept) => void listening.take(kept, question)}
      />
      <ListeningState {listening} {question} id="problem-height" />
      {#if hearing}
        {#each hearing.troubles as trouble (trouble)}
          <p class="font-semibold text-amber">{trouble}</p>
        {/each}
        <p class="mt-2">
          {levels.length
            ? `${levels.length} shots at ${figure(mm(at))}.`
            : 'No shot was found in it.'}
          {#if levels.length && hearing.level_half_db == null}
            <span class="text-amber">Its levels compare with nothing: record anew.</span>
          {/if}
        </p>
        {#if recorded}
          <label class="block"
            ><input type="checkbox" bind:checked={samePlace} /> phone, place and gain as at the height
            before</label
          >
        {/if}
        <p class="mt-1 flex items-center gap-3">
          <button
            class="act act-strong"
            disabled={!levels.length || hearing.level_half_db == null || pressed.busy}
            onclick={() => void record()}>Record this height</button
          >
          <button class="quiet" onclick={() => void listening.dismiss()}>not these</button>
        </p>
        {#if pressed.problem}<ProblemNote
            problem={pressed.problem}
            id="problem-tried-by-ear"
          />{/if}
      {/if}
    </div>
  {/if}
</details>
