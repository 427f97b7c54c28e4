/** The locator on the string: where it stands, and where it is being dragged to. */
import type { PageOf } from '../../lib/api';
import { slid } from '../keys';

type Side = PageOf<'nock'>['side'];

const STEP_MM = 0.5;
const LOW_MM = -6;
const HIGH_MM = 20;

export class Locator {
  #side: () => Side;
  #held = $state<number | null>(null);

  constructor(side: () => Side) {
    this.#side = side;
  }

  get side(): Side {
    return this.#side();
  }

  /** The lift as recorded, or where the search begins. */
  readonly now = $derived.by(() => this.side.lift_mm ?? this.side.start_mm);
  readonly lift = $derived.by(() => this.#held ?? this.now);
  readonly moved = $derived.by(() => this.#held !== null && this.#held !== this.now);

  hold(lift_mm: number, step = STEP_MM): void {
    if (this.side.fixed) return;
    const stepped = Math.round(lift_mm / step) * step;
    this.#held = Math.min(Math.max(stepped, LOW_MM), HIGH_MM);
  }

  release = (): void => {
    this.#held = null;
  };

  key = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') {
      this.release();
      return;
    }
    const fine = event.shiftKey;
    const to = slid(event, {
      now: this.lift,
      step: STEP_MM,
      page: fine ? 0.1 : 2,
      low: LOW_MM,
      high: HIGH_MM,
    });
    if (to !== null) this.hold(to, 0.1);
  };
}
