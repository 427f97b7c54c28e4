/** Recording onto the open rig: what is done goes out in order, and can be taken back. */
import { SvelteSet } from 'svelte/reactivity';
import { api, type EntryDraft, type Problem, type Recorded } from './api';
import { noonOf, sayDay } from './days';
import { Outbox, type Act, type Job, type NewJob, type Taking } from './outbox.svelte';
import { tell } from './preferences.svelte';
import { badRow, nothingFitted } from './problems';
import { openRig } from './openrig.svelte';
import { toaster } from './toaster';
import { keepUndo, redoList, undoList } from './undone';

class Recorder {
  readonly outbox: Outbox = new Outbox((job) => this.#carryOut(job));
  /** The day chosen and what was recorded last, of one visit to a rig. */
  #chosen = $state.raw({ visit: 0, day: '' });
  #last = $state.raw({ visit: 0, words: '' });
  /** Controls that stand on the page now: what is refused comes back to them. */
  #here = new SvelteSet<string>();

  /** The day readings are recorded for, as yyyy-mm-dd; empty means now. */
  get day(): string {
    return this.#chosen.visit === openRig.visit ? this.#chosen.day : '';
  }

  set day(day: string) {
    this.#chosen = { visit: openRig.visit, day };
  }

  /** What this window recorded last, in words. */
  get recorded(): string {
    return this.#last.visit === openRig.visit ? this.#last.words : '';
  }

  set recorded(words: string) {
    this.#last = { visit: openRig.visit, words };
  }

  /** Say that a control is on the page; call the answer when it goes. */
  stands(control: string): () => void {
    this.#here.add(control);
    return () => this.#here.delete(control);
  }

  /** True when the control a job came from is on the page. */
  isHere(job: Job): boolean {
    return job.from !== null && this.#here.has(job.from);
  }

  /** True while something about a numbered arrow is on its way. */
  isSending(arrow: number): boolean {
    return this.outbox.waiting(openRig.rig).some((job) => arrowsOf(job).includes(arrow));
  }

  /** True while an entry is being taken back. */
  isTaking(entryId: string): boolean {
    return this.outbox
      .waiting(openRig.rig)
      .some(({ act }) => 'takings' in act && act.takings?.some((one) => one.entry_id === entryId));
  }

  /** Send something to be recorded of the open rig; resolves when it is (null) or is refused. */
  send(job: NewJob): Promise<Problem | null> {
    const { rig } = openRig;
    if (!rig) return Promise.resolve(null);
    return this.outbox.push({
      from: null,
      typed: null,
      arrow: null,
      ...job,
      key: crypto.randomUUID(),
      rig,
      happened_at: this.day ? noonOf(this.day) : null,
      done_at: now(),
      seen: openRig.clock.seen(rig),
      problem: null,
    });
  }

  /** Record drafts; answers the problem when they are refused. */
  record(drafts: EntryDraft[], says: string): Promise<Problem | null> {
    return this.send({ act: { do: 'record', drafts: drafts.map(withId) }, says });
  }

  /** Take an entry back. */
  takeBack(entryId: string, says: string): Promise<Problem | null> {
    return this.#said(this.send({ act: { do: 'take', takings: [taking(entryId)] }, says }));
  }

  /** Put entries back by taking back what took them back. */
  putBack(retractions: string[], says: string): Promise<Problem | null> {
    return this.#said(
      this.send({ act: { do: 'put', takings: retractions.map((id) => taking(id)) }, says }),
    );
  }

  /** Take back what this window recorded last. */
  undo(): Promise<Problem | null> {
    return this.#said(this.send({ act: { do: 'undo', takings: null }, says: 'take back' }));
  }

  /** Record again what this window took back last. */
  redo(): Promise<Problem | null> {
    return this.#said(this.send({ act: { do: 'redo', takings: null }, says: 'put back' }));
  }

  /** Number for the next arrow: behind the highest that is recorded or on its way. */
  get nextArrow(): number {
    const recorded = openRig.pages.arrow?.quiver.map((row) => row.number) ?? [];
    const sent = this.outbox.waiting(openRig.rig).flatMap(arrowsOf);
    return Math.max(0, ...recorded, ...sent) + 1;
  }

  /** A refusal that has no field to stand beside is said by itself. */
  async #said(outcome: Promise<Problem | null>): Promise<Problem | null> {
    const problem = await outcome;
    if (problem) toaster.error({ title: problem.reason, description: problem.instruction });
    return problem;
  }

  async #carryOut(job: Job): Promise<Problem | null> {
    const { act } = job;
    switch (act.do) {
      case 'record':
        return this.#record(job, act.drafts);
      case 'line':
      case 'row':
        return this.#readAndRecord(job, act);
      case 'undo':
      case 'redo':
        return this.#repeat(job, act);
      case 'take':
      case 'put':
        return this.#take(job, act.takings, (by) => {
          const taken = act.takings.map((one) => one.entry_id);
          if (act.do === 'put') this.#isBack(job, taken);
          else this.#isTaken(job, taken, by);
        });
    }
  }

  async #readAndRecord(job: Job, act: Act & { do: 'line' | 'row' }): Promise<Problem | null> {
    const read = act.do === 'line' ? await readLine(act, job) : await readRow(act);
    if (read.problem) return read.problem;
    const { drafts, says, known } = read;
    const change = { act: known, says: says ?? job.says };
    this.outbox.change(job.key, change);
    return this.#record({ ...job, ...change }, drafts);
  }

  async #record(job: Job, drafts: EntryDraft[]): Promise<Problem | null> {
    const { rig } = job;
    const happened_at = drafts[0]?.happened_at ?? job.happened_at;
    const sent = drafts.map((draft, index) => ({
      ...draft,
      id: draft.id ?? (index ? `${job.key.slice(0, 32)}-${index}` : job.key),
      happened_at: draft.happened_at ?? happened_at ?? job.done_at,
    }));
    const asked = openRig.clock.ask();
    const { data, problem } = await api.record(sent, rig, job.seen, openRig.place);
    if (problem) {
      if (problem.code === 'changed_meanwhile' && openRig.rig === rig) await openRig.again(rig);
      return problem;
    }
    this.#recorded(job, data, asked);
    const ids = data.entries.map((entry) => entry.id);
    const done = undoList(rig);
    if (!done.some((batch) => batch.ids[0] === ids[0])) done.push({ ids, says: job.says });
    keepUndo(rig, done, []);
    if (openRig.rig === rig) this.recorded = recordedWords({ ...job, happened_at }, data);
    return null;
  }

  /** Undo or redo, whatever is next when its turn comes. */
  async #repeat(job: Job, act: Act & { do: 'undo' | 'redo' }): Promise<Problem | null> {
    const undoes = act.do === 'undo';
    const [done, undone] = [undoList(job.rig), redoList(job.rig)];
    const [batch, last] = [done.at(-1), undone.at(-1)];
    const wanted = undoes ? batch?.ids.toReversed() : last?.by;
    if (!wanted) {
      toaster.info({
        title: undoes ? 'Nothing left to take back here.' : 'Nothing to put back here.',
        description: 'Older entries are in the logbook.',
      });
      return null;
    }
    const takings = act.takings ?? wanted.map((id) => taking(id, job.done_at));
    this.outbox.change(job.key, { act: { do: act.do, takings } });
    const says = undoes ? batch?.says : last?.batch.says;
    const problem = await this.#take(job, takings, (by) =>
      undoes
        ? this.#isTaken({ ...job, says: says ?? '' }, wanted, by)
        : this.#isBack({ ...job, says: says ?? '' }, wanted),
    );
    // somebody else did it meanwhile: it is no longer this window's to do
    if (problem?.status === 409 || problem?.status === 404) {
      keepUndo(job.rig, undoes ? done.slice(0, -1) : done, undoes ? undone : undone.slice(0, -1));
    }
    return problem;
  }

  async #take(
    job: Job,
    takings: Taking[],
    after: (retractions: string[]) => void,
  ): Promise<Problem | null> {
    const asked = openRig.clock.ask();
    const { data, problem } = await api.takeBack(takings, job.rig, openRig.place);
    if (problem) return problem;
    this.#recorded(job, data, asked);
    after(data.entries.map((entry) => entry.id));
    return null;
  }

  /** Entries were taken back: they leave what can be undone, and a message offers to put back. */
  #isTaken(job: Job, entries: string[], by: string[]): void {
    const done = undoList(job.rig)
      .map((batch) => ({ ...batch, ids: batch.ids.filter((id) => !entries.includes(id)) }))
      .filter((batch) => batch.ids.length);
    const batch = { ids: entries.toReversed(), says: job.says };
    keepUndo(job.rig, done, [...redoList(job.rig), { batch, by }]);
    if (openRig.rig !== job.rig) return;
    this.recorded = '';
    toaster.info({
      title: `Taken back: ${job.says}`,
      action: {
        label: by.length > 1 ? 'Put back all' : 'Put back',
        onClick: () => void this.putBack(by, job.says),
      },
    });
  }

  /** What was taken back stands again, and can be undone as before. */
  #isBack(job: Job, retractions: string[]): void {
    const undone = redoList(job.rig);
    const back = undone.find((one) => one.by.some((id) => retractions.includes(id)));
    if (back) {
      keepUndo(
        job.rig,
        [...undoList(job.rig), back.batch],
        undone.filter((one) => one !== back),
      );
    }
    if (openRig.rig === job.rig) toaster.info({ title: `Put back: ${job.says}` });
  }

  /** Take in what came back from recording. */
  #recorded(job: Job, data: Recorded, asked: number): void {
    const { assessment } = data;
    if (!assessment) return;
    this.outbox.moved(job.rig, job.seen, assessment.revision);
    openRig.show(job.rig, assessment, asked, assessment.page?.stage ?? null, data.tag);
  }
}

const now = (): string => new Date().toISOString();
const taking = (entry_id: string, happened_at: string = now()): Taking => ({
  entry_id,
  id: crypto.randomUUID(),
  happened_at,
});
const withId = (draft: EntryDraft): EntryDraft => ({
  ...draft,
  id: draft.id ?? crypto.randomUUID(),
});

function arrowsOf(job: Job): number[] {
  const drafts = 'drafts' in job.act ? job.act.drafts : 'draft' in job.act ? [job.act.draft] : [];
  const told = (drafts ?? []).map((draft) =>
    draft && 'arrow_number' in draft.reading ? draft.reading.arrow_number : null,
  );
  return [job.arrow, ...told].filter((number) => typeof number === 'number');
}

type Read =
  { drafts: EntryDraft[]; says?: string; known: Act; problem?: undefined } | { problem: Problem };

async function readLine(act: Act & { do: 'line' }, job: Job): Promise<Read> {
  if (act.draft) return { drafts: [act.draft], known: act };
  const { data, problem } = await api.parse(act.line, job.rig, act.stage);
  if (problem) return { problem };
  const draft = data.draft;
  if (!draft) return { problem: nothingFitted(data.subject_kind) };
  draft.happened_at = data.day ? noonOf(data.day) : null;
  return { drafts: [draft], says: tell(data.says), known: { ...act, draft } };
}

async function readRow(act: Act & { do: 'row' }): Promise<Read> {
  if (act.drafts) return { drafts: act.drafts, known: act };
  const { data, problem } = await api.readQuiverTable(act.table);
  if (problem) return { problem };
  const bad = data.bad[0];
  if (bad) return { problem: badRow(bad) };
  const drafts = data.readings.map((reading) => ({ subject: act.subject, reading }));
  return { drafts, known: { ...act, drafts } };
}

/** What was recorded, for which day where that is not now, and what stands instead. */
function recordedWords(job: Job, data: Recorded): string {
  const day = job.happened_at ? ` for ${sayDay(job.happened_at)}` : '';
  const [newer] = Object.values(data.overruled);
  const stands = newer ? `. ${tell(newer.says)} of ${sayDay(newer.happened_at)} stands` : '';
  const sent =
    'drafts' in job.act ? (job.act.drafts ?? []) : 'draft' in job.act ? [job.act.draft] : [];
  const fitted = data.entries.flatMap(({ reading }) =>
    reading.kind === 'part_fitted' && !sent.some((draft) => draft?.reading.kind === 'part_fitted')
      ? (data.assessment?.fitted.find((part) => part.id === reading.part_id)?.name ?? [])
      : [],
  );
  const made = fitted.length ? `. Fitted: ${fitted.join(', ')}` : '';
  return `${job.says}${day}${made}${stands}`;
}

export const recorder = new Recorder();
