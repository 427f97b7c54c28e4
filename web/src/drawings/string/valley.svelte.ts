/** The height being thought of on the brace valley: the proposal, or where the handle was put. */
import type { PageOf } from '../../lib/api';
import { MM_PER_IN } from '../../lib/units';
import { slid } from '../keys';

type Valley = PageOf<'string'>['valley'];

const SIXTEENTH = MM_PER_IN / 16;

export class Handle {
  #valley: () => Valley;
  #held = $state<number | null>(null);

  constructor(valley: () => Valley) {
    this.#valley = valley;
  }

  get valley(): Valley {
    return this.#valley();
  }

  readonly first = $derived.by(() => this.valley.braces_mm[0] ?? 0);
  readonly last = $derived.by(() => this.valley.braces_mm.at(-1) ?? 1);
  /** Where it stands while nobody moves it. */
  readonly proposed = $derived.by(
    () =>
      this.valley.next_mm ??
      (this.valley.enough ? this.valley.quiet_mm : this.valley.now_mm) ??
      (this.valley.low_mm + this.valley.high_mm) / 2,
  );
  readonly at = $derived.by(() => this.#held ?? this.proposed);
  readonly moved = $derived.by(() => this.#held !== null);
  readonly outside = $derived.by(
    () => this.at < this.valley.low_mm - 1e-6 || this.at > this.valley.high_mm + 1e-6,
  );

  hold(at_mm: number): void {
    const stepped = Math.round(at_mm / SIXTEENTH) * SIXTEENTH;
    this.#held = Math.min(Math.max(stepped, this.first), this.last);
  }

  release = (): void => {
    this.#held = null;
  };

  key = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') {
      this.release();
      return;
    }
    const to = slid(event, {
      now: this.at,
      step: SIXTEENTH,
      page: 4 * SIXTEENTH,
      low: this.valley.low_mm,
      high: this.valley.high_mm,
    });
    if (to !== null) this.hold(to);
  };
}
