/** Asking the server: what came back, what went wrong, and whether it is still on its way. */
import { untrack } from 'svelte';
import type { LongAnswer, Problem } from './api';
import { openRig } from './openrig.svelte';
import { GIVEN_UP, poll } from './poll';

/** One kind of question. A problem belongs to the asking that met it, and goes with the next one. */
export class Asked<T> {
  data = $state.raw<T | null>(null);
  problem = $state.raw<Problem | null>(null);
  busy = $state(false);
  #turn = 0;

  /** How far what takes long has come, 0 to 1. */
  share = $state(0);

  /** Ask; only the latest asking counts. Returns the data, or null: refused, or asked anew since. */
  async ask(call: () => Promise<LongAnswer<T>>): Promise<T | null> {
    const turn = ++this.#turn;
    this.busy = true;
    this.share = 0;
    const answer = await poll({
      ask: call,
      share: (came) => came.share ?? null,
      wanted: () => turn === this.#turn,
      told: (share) => (this.share = share),
    });
    if (answer === null) return null;
    const { data, problem } = answer === 'given up' ? { problem: GIVEN_UP } : answer;
    this.busy = false;
    this.problem = problem ?? null;
    if (data !== undefined) this.data = data;
    else if (problem?.status !== 0 && !this.keeps()) this.data = null;
    return data ?? null;
  }

  /** True where a refusal leaves standing what was known before it. */
  protected keeps(): boolean {
    return true;
  }

  /** Forget what was asked; an answer still on its way is dropped. */
  clear(): void {
    this.#turn += 1;
    this.data = null;
    this.problem = null;
    this.busy = false;
  }
}

/** A question about the open rig, asked again when something is recorded of it. */
export class AskedOfRig<T> extends Asked<T> {
  #question: (rig: string, known: T | null) => Promise<LongAnswer<T>>;
  #rig: string | null = null;
  #again = false;

  /** `known` is what the last answer was. */
  constructor(question: (rig: string, known: T | null) => Promise<LongAnswer<T>>) {
    super();
    this.#question = question;
  }

  /** Ask now; while an answer is on its way, asking again waits for it, and only the last counts. */
  load = async (): Promise<void> => {
    const rig = openRig.rig;
    if (!rig || !this.ready()) return;
    if (rig !== this.#rig) {
      this.#rig = rig;
      this.clear();
      this.fresh();
    } else if (this.busy) {
      this.#again = true;
      return;
    }
    this.#again = false;
    await this.ask(() => this.#question(rig, this.data));
    if (this.#again && rig === this.#rig) void this.load();
  };

  /** What is computed of the rig falls when it cannot be computed any more. */
  protected override keeps(): boolean {
    return false;
  }

  /** False while there is nothing to ask yet. */
  protected ready(): boolean {
    return true;
  }

  /** Called when another rig is open than before. */
  protected fresh(): void {}

  /** Follow the rig: call while a component is being made. `before` runs before each asking. */
  follow(before?: () => void): this {
    $effect(() => {
      if (!openRig.assessment) return;
      untrack(() => {
        before?.();
        void this.load();
      });
    });
    return this;
  }
}
