/** Planning a taper: typed lengths and diameters, read by the server, computed as they change. */
import { untrack } from 'svelte';
import { api, type Problem, type TaperAsked, type TaperPlan } from '../../lib/api';
import { bench } from '../../lib/bench.svelte';

type End = 'tail' | 'head';

export class Tapering {
  asked = $state<TaperAsked>({});
  plan = $state.raw<TaperPlan | null>(null);
  problem = $state.raw<Problem | null>(null);
  /** Which end the problem belongs to. */
  at = $state<End | null>(null);
  #rig: string | null = null;
  #turn = 0;

  follow(start: () => TaperAsked): this {
    $effect(() => {
      if (!bench.assessment) return;
      untrack(() => {
        if (bench.rig !== this.#rig) {
          this.#rig = bench.rig;
          this.asked = start();
          this.plan = null;
        }
        void this.load();
      });
    });
    return this;
  }

  load = async (): Promise<void> => {
    if (!bench.rig) return;
    const turn = ++this.#turn;
    const { data, problem } = await api.taperPlan(bench.rig, $state.snapshot(this.asked));
    if (turn !== this.#turn) return;
    this.problem = problem ?? null;
    if (problem) {
      this.at = problem.field?.startsWith('head') ? 'head' : 'tail';
      return;
    }
    this.plan = data;
  };

  /** Read `9in 5/16` for one end with the jot line's own grammar; nothing is recorded. */
  async type(end: End, text: string): Promise<void> {
    if (!text.trim()) {
      this.asked = { ...this.asked, [`${end}_taper_mm`]: 0, [`${end}_diameter_mm`]: undefined };
      return this.load();
    }
    const { data, problem } = await api.parse(`taper ${end} ${text}`, null, null);
    if (problem) {
      this.problem = problem;
      this.at = end;
      return;
    }
    const { reading } = data;
    if (reading.kind !== 'arrow_build') return;
    this.asked = {
      ...this.asked,
      [`${end}_taper_mm`]: reading[`${end}_taper_mm`] ?? 0,
      [`${end}_diameter_mm`]:
        reading[`${end}_diameter_mm`] ?? this.asked[`${end}_diameter_mm`] ?? undefined,
    };
    return this.load();
  }

  set(asked: TaperAsked): void {
    this.asked = asked;
    void this.load();
  }
}
