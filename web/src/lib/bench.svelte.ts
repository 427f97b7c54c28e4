/** The open rig: its assessment, and recording onto it. */
import {
  api,
  type Action,
  type Assessment,
  type EntryDraft,
  type PageOf,
  type Problem,
  type StageKey,
} from './api';
import { toaster } from './toaster';

type Status = 'loading' | 'ready' | 'missing' | 'offline';

/** Entries recorded in one go, and how they were said. */
interface Batch {
  ids: string[];
  says: string;
}

const UNDO_KEPT = 50;

type Pages = { [K in StageKey]?: PageOf<K> };

class BenchState {
  rig = $state<string | null>(null);
  assessment = $state.raw<Assessment | null>(null);
  /** Geometry of the stages' pages that was asked for, all of the assessment's revision. */
  pages = $state.raw<Pages>({});
  /** The stage whose pages are open: its geometry comes with every answer. */
  place = $state<StageKey | null>(null);
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
  #early: { rig: string; place: StageKey | null; done: Promise<void> } | null = null;
  /** Tags of the last answers, by the page they were about: the server says when they still hold. */
  #tags = new Map<StageKey | null, string>();

  /** Begin to fetch a rig while the code of its page is still on its way. */
  openEarly(rig: string, place: StageKey | null): void {
    this.place = place;
    this.#early = { rig, place, done: this.#open(rig) };
  }

  /** Show a rig as it is now; one that was begun early is not fetched twice. */
  open(rig: string, place: StageKey | null = this.place): Promise<void> {
    this.place = place;
    const early = this.#early;
    this.#early = null;
    return early?.rig === rig && early.place === place ? early.done : this.#open(rig);
  }

  async #open(rig: string): Promise<void> {
    if (this.rig !== rig) {
      this.rig = rig;
      this.assessment = null;
      this.pages = {};
      this.#tags.clear();
      this.day = '';
      this.recorded = '';
    }
    if (!this.assessment) this.status = 'loading';
    const place = this.place;
    const known = place === null ? this.assessment !== null : this.pages[place] !== undefined;
    const tag = known ? (this.#tags.get(place) ?? null) : null;
    const { data, problem } = await api.rig(rig, place, tag);
    if (this.rig !== rig) return;
    if (data) {
      if (data.assessment) this.#show(data.assessment);
      else this.status = 'ready';
      this.#tag(place, data.tag);
    } else {
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
    const place = this.place;
    const { data, problem } = await api.record(sent, rig, this.#seen(), place);
    this.busy = false;
    if (problem) {
      if (problem.code === 'changed_meanwhile') await this.open(rig);
      return problem;
    }
    if (data.assessment) this.#show(data.assessment);
    this.#tag(place, data.tag);
    const ids = data.entries.map((entry) => entry.id);
    this.#keep(rig, [...this.#batches(rig), { ids, says: says ?? '' }]);
    this.recorded = says ?? '';
    return null;
  }

  /** Take an entry back, or (given a retraction) put it back. */
  async retract(entryId: string, says: string): Promise<Problem | null> {
    const rig = this.rig;
    if (!rig) return null;
    const place = this.place;
    const { data, problem } = await api.retract(entryId, rig, place);
    if (problem) {
      toaster.error({ title: problem.reason, description: problem.instruction });
      return problem;
    }
    if (data.assessment) this.#show(data.assessment);
    this.#tag(place, data.tag);
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

  #tag(place: StageKey | null, tag: string | null): void {
    if (tag) this.#tags.set(place, tag);
    else this.#tags.delete(place);
  }

  #seen(): number | null {
    return this.assessment?.revision ?? null;
  }

  #show(assessment: Assessment): void {
    const before = this.assessment;
    const same =
      before !== null &&
      before.rig === assessment.rig &&
      before.revision === assessment.revision &&
      before.entry_count === assessment.entry_count;
    const { page } = assessment;
    this.pages = { ...(same ? this.pages : {}), ...(page ? { [page.stage]: page } : {}) };
    if (!same) this.assessment = assessment;
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
