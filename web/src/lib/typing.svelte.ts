/** Fields being filled in: kept while they are, emptied when they are sent, back when refused. */
import type { Problem } from './api';
import { recorder } from './recorder.svelte';
import { openRig } from './openrig.svelte';
import { keep, kept } from './kept';
import type { Act, Job } from './outbox.svelte';

export type Fields = Record<string, string>;

export class Typing {
  /** The control's name. */
  readonly from: string;
  fields = $state<Fields>({});
  problem = $state.raw<Problem | null>(null);
  #start: Fields;
  #stays: readonly string[];
  /** What stood here when a refused line was taken up again. */
  #aside: Fields[] = [];

  /** `start` names the fields; those that `stay` keep their choice when the others are sent. */
  constructor(from: string, start: Fields, stays: readonly string[] = []) {
    this.from = from;
    this.#start = start;
    this.#stays = stays;
    this.fields = { ...start, ...kept<Fields>(this.#name) };
    $effect(() => recorder.stands(from));
    $effect(() => {
      if (this.empty && this.refused.length) this.takeUp(this.refused[0] as Job);
    });
  }

  /** True while nothing is typed; choices beside do not count. */
  get empty(): boolean {
    return Object.keys(this.#start).every(
      (field) => this.#stays.includes(field) || this.fields[field] === this.#start[field],
    );
  }

  /** Sent from here and not recorded yet. */
  get waiting(): Job[] {
    return recorder.outbox.waiting(openRig.rig).filter((job) => job.from === this.from);
  }

  /** Sent from here and refused. */
  get refused(): Job[] {
    return recorder.outbox.refused(openRig.rig).filter((job) => job.from === this.from);
  }

  set(fields: Fields): void {
    this.fields = { ...this.fields, ...fields };
    const untouched = Object.entries(this.#start).every(([name, at]) => this.fields[name] === at);
    keep(this.#name, untouched ? null : this.fields);
    this.changed();
  }

  /** Called when what is typed has changed. */
  protected changed(): void {
    this.problem = null;
  }

  /** Empty the fields that are typed into. */
  clear(): void {
    const typed = Object.entries(this.#start).filter(([field]) => !this.#stays.includes(field));
    this.set(this.#aside.pop() ?? Object.fromEntries(typed));
  }

  /** Send what is typed, and empty the fields for the next. */
  protected send(
    act: Act,
    says: string,
    arrow: number | null,
    fixed: Fields = {},
  ): Promise<Problem | null> {
    const typed = { ...this.fields, ...fixed };
    this.clear();
    return recorder.send({ act, says, arrow, from: this.from, typed });
  }

  /** Put a refused line back into the fields; what stands there comes back after it. */
  takeUp(job: Job): void {
    if (!this.empty) this.#aside.push({ ...this.fields });
    recorder.outbox.drop(job.key);
    this.set(job.typed ?? {});
    this.problem = job.problem;
    this.tookUp(job);
  }

  /** Called when a refused line is back in the fields. */
  protected tookUp(_: Job): void {}

  get #name(): string {
    return `${openRig.rig ?? ''}.${this.from}`;
  }
}
