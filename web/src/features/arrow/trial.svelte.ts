/** Trying before cutting: sliders over numbers the server computes; nothing is recorded. */
import {
  api,
  type EntryDraft,
  type Problem,
  type ReadingOf,
  type Trial,
  type Tried,
} from '../../lib/api';
import { AskedOfRig } from '../../lib/asked.svelte';
import { recorder } from '../../lib/recorder.svelte';
import { openRig } from '../../lib/openrig.svelte';
import { keep, kept } from '../../lib/kept';
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

export class Trying extends AskedOfRig<Trial> {
  asked = $state<Tried>({});
  /** Why what was tried could not be recorded. */
  refused = $state.raw<Problem | null>(null);

  constructor() {
    super((rig) => api.tryArrow(rig, $state.snapshot(this.asked)));
  }

  protected override keeps(): boolean {
    return true;
  }

  protected override fresh(): void {
    this.asked = kept<Tried>(`${openRig.rig ?? ''}.try`) ?? {};
    this.refused = null;
  }

  get changed(): Knob[] {
    const trial = this.data;
    if (!trial) return [];
    return (Object.keys(this.asked) as Knob[]).filter((knob) => {
      const value = this.asked[knob];
      return value != null && Math.abs(value - trial[knob].now) > trial[knob].step / 4;
    });
  }

  at(knob: Knob): number {
    return this.asked[knob] ?? this.data?.[knob].now ?? 0;
  }

  set(knob: Knob, value: number): void {
    this.#try({ ...this.asked, [knob]: value });
  }

  reset = (): void => {
    this.#try({});
  };

  /** Record what can be; the sliders go back when it is. */
  async record(): Promise<void> {
    const sent = this.asked;
    this.refused = await recorder.record(this.drafts(), 'What was tried');
    if (!this.refused && this.asked === sent) this.reset();
  }

  #try(asked: Tried): void {
    this.asked = asked;
    this.refused = null;
    keep(`${openRig.rig ?? ''}.try`, Object.keys(asked).length ? asked : null);
    void this.load();
  }

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
      made.push(draftOn(openRig.assessment, 'arrow_set', { kind: 'arrow_build', ...arrows }));
    }
    if (changed.includes('window_mm')) {
      made.push(
        draftOn(openRig.assessment, 'bow', {
          kind: 'arrow_pass',
          window_mm: this.at('window_mm'),
        }),
      );
    }
    if (
      changed.includes('brace_height_mm') &&
      openRig.rig &&
      fittedId(openRig.assessment, 'string')
    ) {
      made.push({
        subject: { kind: 'rig', id: openRig.rig },
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
