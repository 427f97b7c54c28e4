<script lang="ts">
  import { instrumentsPath } from '../lib/paths';
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
  import {
    api,
    type Assessment,
    type EntryDraft,
    type PartKind,
    type Problem,
    type SubjectOut,
  } from '../lib/api';
  import { Asked } from '../lib/asked.svelte';
  import { recorder } from '../lib/recorder.svelte';
  import { PART_WORDS } from '../lib/choices';
  import DidNotCome from './DidNotCome.svelte';
  import Picker from './Picker.svelte';
  import ProblemNote from './ProblemNote.svelte';

  let { assessment }: { assessment: Assessment } = $props();

  const KINDS = ['archer', 'bow', 'string', 'arrow_set'] as const satisfies readonly PartKind[];
  let open = $state(false);
  const known = {
    archer: new Asked<SubjectOut[]>(),
    bow: new Asked<SubjectOut[]>(),
    string: new Asked<SubjectOut[]>(),
    arrow_set: new Asked<SubjectOut[]>(),
  };
  /** What was refused, by the control that asked for it. */
  let problems = $state<Record<string, Problem | null>>({});
  let names = $state<Record<PartKind, string>>({ archer: '', bow: '', string: '', arrow_set: '' });

  const load = () => Promise.all(KINDS.map((kind) => known[kind].ask(() => api.subjects(kind))));

  let rigName = $state('');

  async function change(next: boolean) {
    open = next;
    rigName = assessment.name ?? '';
    problems = {};
    if (next) await load();
  }

  /** Record on the rig itself; a refusal stands beside the control it came from. */
  async function record(control: string, reading: EntryDraft['reading'], says: string) {
    if (!assessment.rig) return;
    const draft = { subject: { kind: 'rig' as const, id: assessment.rig }, reading };
    problems[control] = await recorder.record([draft], says);
  }

  const rename = (alike: boolean) =>
    record('rig', { kind: 'named', name: rigName.trim(), alike }, 'Renamed');

  const fit = (part: PartKind, partId: string | null) =>
    record(part, { kind: 'part_fitted', part, part_id: partId }, `${PART_WORDS[part]} changed`);

  async function make(part: PartKind, alike = false) {
    const name = names[part].trim();
    if (!name) return;
    const { data, problem } = await api.createSubject(part, name, alike);
    problems[part] = problem ?? null;
    if (problem) return;
    names[part] = '';
    await fit(part, data.id);
    await load();
  }
</script>

<section aria-labelledby="fitted-title" class="mx-5 mt-3 border-t border-line pt-3">
  <h2 id="fitted-title">Fitted now</h2>
  <dl class="mt-1 text-sm">
    {#each assessment.fitted as part (part.part)}
      <div class="flex gap-2 py-0.5">
        <dt class="w-14 shrink-0 text-soft">{PART_WORDS[part.part]}</dt>
        <dd class="min-w-0">{part.name ?? 'none'}</dd>
      </div>
    {/each}
  </dl>
  <Dialog {open} onOpenChange={(details) => void change(details.open)}>
    <Dialog.Trigger class="quiet mt-1 mr-3 text-sm">change parts</Dialog.Trigger>
    <Portal>
      <Dialog.Backdrop class="fixed inset-0 z-40 bg-black/40" />
      <Dialog.Positioner
        class="fixed inset-0 z-50 flex items-start justify-center overflow-auto p-4"
      >
        <Dialog.Content class="w-full max-w-xl rounded border border-line bg-raised p-6">
          <div class="flex items-start justify-between gap-4">
            <div>
              <Dialog.Title class="text-xl font-bold">Parts on {assessment.name}</Dialog.Title>
              <Dialog.Description class="text-soft">
                Each change is an entry of its own. A part shared between rigs brings its readings
                along.
              </Dialog.Description>
            </div>
            <Dialog.CloseTrigger class="act">Close</Dialog.CloseTrigger>
          </div>
          {#if open}
            <form
              class="mt-4"
              onsubmit={(event) => {
                event.preventDefault();
                void rename(false);
              }}
            >
              <label class="label block" for="rig-name">This rig is called</label>
              <div class="flex gap-1">
                <input id="rig-name" class="field" maxlength="60" bind:value={rigName} />
                <button
                  class="act"
                  disabled={!rigName.trim() || rigName.trim() === assessment.name}
                >
                  Rename
                </button>
              </div>
              {#if problems.rig}
                <ProblemNote
                  problem={problems.rig}
                  id="problem-rename"
                  insist={() => rename(true)}
                />
              {/if}
            </form>
            {#each KINDS as kind (kind)}
              {@const fitted = assessment.fitted.find((part) => part.part === kind)}
              <div class="mt-4 grid gap-2 border-t border-line pt-3 sm:grid-cols-2">
                <div>
                  <label class="label block" for="fit-{kind}">{PART_WORDS[kind]}</label>
                  <Picker
                    id="fit-{kind}"
                    label={PART_WORDS[kind]}
                    recorded={fitted?.id ?? ''}
                    options={(known[kind].data ?? []).map(({ id, name }) => [id, name] as const)}
                    none="none"
                    pick={(id) => fit(kind, id || null)}
                    invalid={Boolean(problems[kind])}
                    says={problems[kind] ? `problem-fit-${kind}` : undefined}
                  />
                  {#if known[kind].problem}
                    <DidNotCome
                      problem={known[kind].problem}
                      what="The list could not be fetched."
                      again={load}
                    />
                  {/if}
                </div>
                <form
                  onsubmit={(event) => {
                    event.preventDefault();
                    void make(kind);
                  }}
                >
                  <label class="label block" for="make-{kind}">or a new one, called</label>
                  <div class="flex gap-1">
                    <input id="make-{kind}" class="field" maxlength="60" bind:value={names[kind]} />
                    <button class="act" disabled={!names[kind].trim()}>Fit</button>
                  </div>
                </form>
                {#if problems[kind]}
                  <div class="sm:col-span-2">
                    <ProblemNote
                      problem={problems[kind]}
                      id="problem-fit-{kind}"
                      insist={() => make(kind, true)}
                    />
                  </div>
                {/if}
              </div>
            {/each}
            <p class="mt-4 border-t border-line pt-3">
              <a class="underline" href="/parts">All parts</a>
              <span class="text-soft">
                to rename one, and to see who has it and when it was looked over
              </span>
            </p>
          {/if}
        </Dialog.Content>
      </Dialog.Positioner>
    </Portal>
  </Dialog>
  <a class="quiet mt-1 inline-block text-sm" href={instrumentsPath(assessment.rig ?? '')}
    >instruments</a
  >
</section>
