/** What is on its way to the log: sent in order, kept until the server has it, handed back when refused. */
import { OFFLINE, type EntryDraft, type Problem, type StageKey } from './api';

/** Something a person did that is to be recorded. */
export type Act =
  | { do: 'record'; drafts: EntryDraft[] }
  /** A typed line; its draft once it has been read. */
  | { do: 'line'; line: string; stage: StageKey | null; draft: EntryDraft | null }
  /** A row of a table of arrows; its drafts once it has been read. */
  | { do: 'row'; table: string; subject: EntryDraft['subject']; drafts: EntryDraft[] | null }
  | { do: 'undo' | 'redo'; takings: Taking[] | null }
  | { do: 'take' | 'put'; takings: Taking[] };

/** An entry to take back, and the id its retraction gets. */
export interface Taking {
  entry_id: string;
  id: string;
  happened_at?: string;
}

export interface Job {
  key: string;
  rig: string;
  act: Act;
  /** What it records, in words, for the person who waits. */
  says: string;
  /** The control it was typed into, to which it comes back when refused. */
  from: string | null;
  /** What stood in that control's fields. */
  typed: Record<string, string> | null;
  /** Number of the arrow it is about. */
  arrow: number | null;
  /** The day it is recorded for, where one was chosen. */
  happened_at: string | null;
  /** The hour it was done: it is recorded for that, however late it arrives. */
  done_at: string | undefined;
  /** Newest revision of the rig that was seen when it was done. */
  seen: number | null;
  problem: Problem | null;
}

export type NewJob = Pick<Job, 'act' | 'says'> & Partial<Pick<Job, 'from' | 'typed' | 'arrow'>>;

const LISTS = 'lyrandis.unsent.';
const RETRY_MS = 2000;

export class Outbox {
  /** Waiting or refused, in the order they were done. */
  jobs = $state.raw<Job[]>([]);
  /** True while the server does not answer and things wait for it. */
  stuck = $state(false);
  #send: (job: Job) => Promise<Problem | null>;
  /** Who waits for the outcome of a job, by its key. */
  #told: Record<string, (problem: Problem | null) => void> = {};
  #working = false;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #list = LISTS + crypto.randomUUID();

  /** `send` answers null when a job is done, or the problem; one without answer is tried again. */
  constructor(send: (job: Job) => Promise<Problem | null>) {
    this.#send = send;
    addEventListener('online', () => void this.work());
    // held as long as this window lives: who finds it free may send what was left behind
    void navigator.locks.request(this.#list, () => new Promise(() => {}));
    void this.#adopt();
  }

  waiting(rig: string | null): Job[] {
    return this.jobs.filter((job) => job.rig === rig && !job.problem);
  }

  refused(rig: string | null): Job[] {
    return this.jobs.filter((job) => job.rig === rig && job.problem);
  }

  /** Put a job behind the others; resolves when it is recorded (null) or refused. */
  push(job: Job): Promise<Problem | null> {
    const outcome = new Promise<Problem | null>((told) => (this.#told[job.key] = told));
    this.#keep([...this.jobs, job]);
    void this.work();
    return outcome;
  }

  /** Take a job out of the list. */
  drop(key: string): void {
    this.#keep(this.jobs.filter((job) => job.key !== key));
  }

  /** Write down what became known of a job: what was read of its line, which entries it takes. */
  change(key: string, change: Partial<Job>): void {
    this.#keep(this.jobs.map((job) => (job.key === key ? { ...job, ...change } : job)));
  }

  /** Own entries do not count as somebody else's: those who saw all before them have seen them. */
  moved(rig: string, seen: number | null, revision: number): void {
    const follows = (job: Job) => job.rig === rig && job.seen !== null && job.seen >= (seen ?? 0);
    this.#keep(
      this.jobs.map((job) =>
        follows(job) ? { ...job, seen: Math.max(job.seen ?? 0, revision) } : job,
      ),
    );
  }

  /** Send what waits, one after the other. */
  async work(): Promise<void> {
    if (this.#working) return;
    this.#working = true;
    clearTimeout(this.#timer);
    try {
      for (;;) {
        const job = this.jobs.find((one) => !one.problem);
        if (!job) break;
        const problem = await this.#trySending(job);
        if (problem?.status === 0) {
          this.stuck = true;
          this.#timer = setTimeout(() => void this.work(), RETRY_MS);
          break;
        }
        this.stuck = false;
        this.#finish(job, problem);
      }
    } finally {
      this.#working = false;
    }
  }

  /** What throws is tried again, as what is not answered. */
  async #trySending(job: Job): Promise<Problem | null> {
    try {
      return await this.#send(job);
    } catch {
      return OFFLINE;
    }
  }

  #finish(job: Job, problem: Problem | null): void {
    const told = this.#told[job.key];
    delete this.#told[job.key];
    if (problem && (job.from || !told)) this.change(job.key, { problem });
    else this.drop(job.key);
    told?.(problem);
  }

  #keep(jobs: Job[]): void {
    this.jobs = jobs;
    try {
      if (jobs.length) localStorage.setItem(this.#list, JSON.stringify(jobs));
      else localStorage.removeItem(this.#list);
    } catch {
      // without storage it still waits in this window
    }
  }

  /** Take over what windows that are gone could not send. */
  async #adopt(): Promise<void> {
    for (const list of listsBeside(this.#list)) {
      await navigator.locks.request(list, { ifAvailable: true }, (lock) => {
        if (!lock) return;
        const left = readList(list);
        localStorage.removeItem(list);
        this.#keep([...left, ...this.jobs]);
      });
    }
    void this.work();
  }
}

/** Lists of other windows, living or gone; none where nothing may be kept. */
function listsBeside(own: string): string[] {
  try {
    return Object.keys(localStorage).filter((name) => name.startsWith(LISTS) && name !== own);
  } catch {
    return [];
  }
}

function readList(list: string): Job[] {
  try {
    return JSON.parse(localStorage.getItem(list) ?? '[]') as Job[];
  } catch {
    return [];
  }
}
