/** Trying before cutting: sliders over numbers the server computes; nothing is recorded. */
import { untrack } from 'svelte';
import {
  api,
  type EntryDraft,
  type Problem,
  type ReadingOf,
  type Trial,
  type Tried,
} from '../../lib/api';
import { bench } from '../../lib/bench.svelte';
import { draftOn, fittedId } from '../../lib/values';

export type Knob = keyof Pick<
  Trial,
  | 'shaft_length_mm'
  | 'point_gr'
  | 'draw_weight_lbf'
  | 'brace_height_mm'
  | 'window_mm'
  | 'string_added_gr'
>;

export class Trying {
  asked = $state<Tried>({});
  trial = $state.raw<Trial | null>(null);
  problem = $state.raw<Problem | null>(null);
  #rig: string | null = null;
  #busy = false;
  #again = false;

  follow(): this {
    $effect(() => {
      if (bench.assessment) untrack(() => void this.load());
    });
    return this;
  }

  get changed(): Knob[] {
    const trial = this.trial;
    if (!trial) return [];
    return (Object.keys(this.asked) as Knob[]).filter((knob) => {
      const value = this.asked[knob];
      return value != null && Math.abs(value - trial[knob].now) > trial[knob].step / 4;
    });
  }

  at(knob: Knob): number {
    return this.asked[knob] ?? this.trial?.[knob].now ?? 0;
  }

  /** Ask again with what stands now; while an answer is on its way only the last asking counts. */
  load = async (): Promise<void> => {
    const rig = bench.rig;
    if (!rig) return;
    if (rig !== this.#rig) {
      this.#rig = rig;
      this.asked = {};
      this.trial = null;
    }
    if (this.#busy) {
      this.#again = true;
      return;
    }
    this.#busy = true;
    const { data, problem } = await api.tryArrow(rig, $state.snapshot(this.asked));
    this.#busy = false;
    if (rig === bench.rig) {
      this.problem = problem ?? null;
      if (data) this.trial = data;
    }
    if (this.#again) {
      this.#again = false;
      void this.load();
    }
  };

  set(knob: Knob, value: number): void {
    this.asked = { ...this.asked, [knob]: value };
    void this.load();
  }

  reset = (): void => {
    this.asked = {};
    void this.load();
  };

  /** What of it can be recorded: settings and parts. A weight is weighed, not chosen. */
  drafts(): EntryDraft[] {
    const made: (EntryDraft | null)[] = [];
    const changed = this.changed;
    const arrows: Omit<ReadingOf<'arrow_build'>, 'kind'> = {};
    if (changed.includes('shaft_length_mm')) {
      arrows.shaft_length_mm = this.at('shaft_length_mm');
      arrows.length_datum = 'groove_to_end';
    }
    if (changed.includes('point_gr')) arrows.point_gr = this.at('point_gr');
    if (Object.keys(arrows).length) {
      made.push(draftOn(bench.assessment, 'arrow_set', { kind: 'arrow_build', ...arrows }));
    }
    if (changed.includes('window_mm')) {
      made.push(
        draftOn(bench.assessment, 'bow', {
          kind: 'arrow_pass',
          window_mm: this.at('window_mm'),
        }),
      );
    }
    if (changed.includes('brace_height_mm') && bench.rig && fittedId(bench.assessment, 'string')) {
      made.push({
        subject: { kind: 'rig', id: bench.rig },
        reading: {
          kind: 'brace_height',
          brace_height_mm: this.at('brace_height_mm'),
          datum: 'pivot',
        },
      });
    }
    return made.filter((draft) => draft !== null);
  }
}
