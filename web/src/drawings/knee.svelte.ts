/** The arrow mass being tried on the efficiency knee, and what it would get. */
import { slid } from './keys';
import { bisector } from 'd3-array';
import type { components } from '../lib/api.gen';

type Drawing = components['schemas']['KneeDrawing'];
type Sample = components['schemas']['KneeSample'];

const byMass = bisector((sample: Sample) => sample.mass_gr);
const STEP_GR = 5;
const SHOWN_FROM_GPP = 4;
const SHOWN_TO_GPP = 16;

/** What an arrow gets, between the masses the core has worked out. */
export function sampleAt(samples: Sample[], mass_gr: number): Sample {
  const index = Math.min(Math.max(byMass.right(samples, mass_gr), 1), samples.length - 1);
  const [a, b] = [samples[index - 1], samples[index]];
  if (!a || !b) throw new Error('a knee has at least two samples');
  const t = Math.min(Math.max((mass_gr - a.mass_gr) / (b.mass_gr - a.mass_gr), 0), 1);
  const between = (of: (sample: Sample) => number) => of(a) + (of(b) - of(a)) * t;
  return {
    mass_gr,
    share: between((s) => s.share),
    speed_mps: between((s) => s.speed_mps),
    speed_plus_minus_mps: between((s) => s.speed_plus_minus_mps),
    left_j: between((s) => s.left_j),
    before_mps: a.before_mps == null ? null : between((s) => s.before_mps ?? 0),
  };
}

export class Knee {
  #drawing: () => Drawing;
  #held = $state<number | null>(null);

  constructor(drawing: () => Drawing) {
    this.#drawing = drawing;
  }

  get drawing(): Drawing {
    return this.#drawing();
  }

  readonly floor = $derived.by(() => this.drawing.bowyer_gr ?? this.drawing.floor_gr);
  readonly least = $derived.by(() => SHOWN_FROM_GPP * this.drawing.weight_lbf);
  readonly most = $derived.by(() =>
    Math.min(
      Math.max(
        SHOWN_TO_GPP * this.drawing.weight_lbf,
        (this.drawing.arrow_gr ?? 0) * 1.1,
        ...this.drawing.readings.map((reading) => reading.mass_gr * 1.1),
      ),
      this.drawing.samples.at(-1)?.mass_gr ?? 1,
    ),
  );
  /** The samples that are shown, both ends included. */
  readonly shown = $derived.by(() => [
    sampleAt(this.drawing.samples, this.least),
    ...this.drawing.samples.filter((s) => s.mass_gr > this.least && s.mass_gr < this.most),
    sampleAt(this.drawing.samples, this.most),
  ]);
  readonly own = $derived.by(() => this.drawing.arrow_gr ?? 10 * this.drawing.weight_lbf);
  readonly mass = $derived.by(() =>
    Math.min(Math.max(this.#held ?? this.own, this.least), this.most),
  );
  readonly tried = $derived.by(() => this.#held !== null);
  readonly here = $derived.by(() => sampleAt(this.drawing.samples, this.mass));

  hold(mass_gr: number): void {
    this.#held = Math.min(Math.max(mass_gr, this.least), this.most);
  }

  release = (): void => {
    this.#held = null;
  };

  key = (event: KeyboardEvent): void => {
    const wanted = slid(event, {
      now: this.mass,
      step: STEP_GR,
      page: 5 * STEP_GR,
      low: this.least,
      high: this.most,
    });
    if (wanted !== null) this.hold(wanted);
  };
}
