/** The open rig: its assessment, and recording onto it. */
import { api, type Action, type Assessment, type EntryDraft, type Problem } from './api';
import { toaster } from './toaster';

type Status = 'loading' | 'ready' | 'missing' | 'offline';

/** Entries recorded in one go, and how they were said. */
interface Batch {
  ids: string[];
  says: string;
}

const UNDO_KEPT = 50;

class BenchState {
  rig = $state<string | null>(null);
  assessment = $state.raw<Assessment | null>(null);
  status = $state<Status>('loading');
  problem = $state.raw<Problem | null>(null);
  /** A control that a finding or the next step asks for. */
  wanted = $state.raw<Action | null>(null);
  busy = $state(false);
  /** The day readings are recorded for, as yyyy-mm-dd; empty means now. */
  day = $state('');
  /** What this window recorded last, in words. */
  recorded = $state('');

  /** The rig whose fetch began before its page was there. */
  #early: { rig: string; done: Promise<void> } | null = null;

  /** Begin to fetch a rig while the code of its page is still on its way. */
  openEarly(rig: string): void {
    this.#early = { rig, done: this.#open(rig) };
  }

  /** Show a rig as it is now; one that was begun early is not fetched twice. */
  open(rig: string): Promise<void> {
    const early = this.#early;
    this.#early = null;
    return early?.rig === rig ? early.done : this.#open(rig);
  }

  async #open(rig: string): Promise<void> {
    if (this.rig !== rig) {
      this.rig = rig;
      this.assessment = null;
      this.day = '';
      this.recorded = '';
    }
    if (!this.assessment) this.status = 'loading';
    const { data, problem } = await api.rig(rig);
    if (this.rig !== rig) return;
    if (data) this.#show(data);
    else {
      this.problem = problem;
      this.status = problem.status === 404 ? 'missing' : 'offline';
    }
  }

  stage(key: string) {
    return this.assessment?.stages.find((stage) => stage.key === key) ?? null;
  }

  /** Record drafts; answer the problem when they are refused, with everything kept as typed. */
  async record(drafts: EntryDraft[], says?: string): Promise<Problem | null> {
    const rig = this.rig;
    if (!rig) return null;
    this.busy = true;
    const happened_at = this.day ? new Date(`${this.day}T12:00`).toISOString() : undefined;
    const sent = drafts.map((draft) => ({
      ...draft,
      id: draft.id ?? crypto.randomUUID(),
      happened_at: draft.happened_at ?? happened_at,
    }));
    const { data, problem } = await api.record(sent, rig, this.assessment?.revision ?? null);
    this.busy = false;
    if (problem) {
      if (problem.code === 'changed_meanwhile') await this.open(rig);
      return problem;
    }
    if (data.assessment) this.#show(data.assessment);
    const ids = data.entries.map((entry) => entry.id);
    this.#keep(rig, [...this.#batches(rig), { ids, says: says ?? '' }]);
    this.recorded = says ?? '';
    return null;
  }

  /** Take an entry back, or (given a retraction) put it back. */
  async retract(entryId: string, says: string): Promise<Problem | null> {
    const rig = this.rig;
    if (!rig) return null;
    const { data, problem } = await api.retract(entryId, rig);
    if (problem) {
      toaster.error({ title: problem.reason, description: problem.instruction });
      return problem;
    }
    if (data.assessment) this.#show(data.assessment);
    const retraction = data.entries[0]?.id;
    if (retraction) {
      toaster.info({
        title: says,
        action: { label: 'Put back', onClick: () => void this.retract(retraction, 'Put back') },
      });
    }
    return null;
  }

  /** Take back what this window recorded last. */
  async undo(): Promise<void> {
    const rig = this.rig;
    if (!rig) return;
    const batches = this.#batches(rig);
    const last = batches.pop();
    if (!last) {
      toaster.info({
        title: 'Nothing left to take back here.',
        description: 'Older entries are in the logbook.',
      });
      return;
    }
    this.#keep(rig, batches);
    this.recorded = '';
    for (const id of last.ids.reverse()) await this.retract(id, `Taken back: ${last.says}`);
  }

  #show(assessment: Assessment): void {
    this.assessment = assessment;
    this.problem = null;
    this.status = 'ready';
  }

  #batches(rig: string): Batch[] {
    try {
      return JSON.parse(sessionStorage.getItem(`lyrandis.undo.${rig}`) ?? '[]') as Batch[];
    } catch {
      return [];
    }
  }

  #keep(rig: string, batches: Batch[]): void {
    sessionStorage.setItem(`lyrandis.undo.${rig}`, JSON.stringify(batches.slice(-UNDO_KEPT)));
  }
}

export const bench = new BenchState();
