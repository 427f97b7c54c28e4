/** What the server computes of the open rig's arrow, fetched again when the rig changes. */
import { untrack } from 'svelte';
import type { Answer, Problem } from '../../lib/api';
import { bench } from '../../lib/bench.svelte';

export class Fetched<T> {
  data = $state.raw<T | null>(null);
  problem = $state.raw<Problem | null>(null);
  busy = $state(false);
  #ask: (rig: string) => Promise<Answer<T>>;
  #turn = 0;
  #rig: string | null = null;

  constructor(ask: (rig: string) => Promise<Answer<T>>) {
    this.#ask = ask;
  }

  load = async (): Promise<void> => {
    const rig = bench.rig;
    if (!rig) return;
    if (rig !== this.#rig) {
      this.#rig = rig;
      this.data = null;
    }
    const turn = ++this.#turn;
    this.busy = true;
    const { data, problem } = await this.#ask(rig);
    if (turn !== this.#turn) return;
    this.busy = false;
    this.problem = problem ?? null;
    if (data) this.data = data;
    else if (problem?.status !== 0) this.data = null;
  };

  /** Follow the rig: call while a component is being made. */
  follow(): this {
    $effect(() => {
      if (bench.assessment) untrack(() => void this.load());
    });
    return this;
  }
}
