/** Choosing the best matched arrows of the quiver. */
import { untrack } from 'svelte';
import { api, type MatchedSet, type Problem } from '../../lib/api';
import { bench } from '../../lib/bench.svelte';

export class MatchedChoice {
  count = $state<number | null>(null);
  set = $state.raw<MatchedSet | null>(null);
  problem = $state.raw<Problem | null>(null);
  #turn = 0;

  follow(): this {
    $effect(() => {
      if (bench.assessment) untrack(() => void (this.count && this.load()));
    });
    return this;
  }

  choose = (count: number): void => {
    this.count = count;
    void this.load();
  };

  load = async (): Promise<void> => {
    if (!bench.rig || !this.count) return;
    const turn = ++this.#turn;
    const { data, problem } = await api.matchedSet(bench.rig, this.count);
    if (turn !== this.#turn) return;
    this.set = data ?? null;
    this.problem = problem ?? null;
  };
}
