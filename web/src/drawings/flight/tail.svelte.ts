/** The nock on the tail dial: where it is dragged to, in mm from straight; + is right, and high. */
import type { PageOf } from '../../lib/api';
import { slid } from '../keys';

type Page = PageOf<'flight'>;

export class Tail {
  #page: () => Page;
  #held = $state<{ across: number; up: number } | null>(null);
  /** True while a pointer has hold of it. */
  dragging = $state(false);

  constructor(page: () => Page) {
    this.#page = page;
  }

  get page(): Page {
    return this.#page();
  }

  /** How far the dial reaches from its middle. */
  readonly reach = $derived.by(() => 1.45 * Math.max(...this.page.borders_mm));
  readonly across = $derived.by(() => this.#held?.across ?? 0);
  readonly up = $derived.by(() => this.#held?.up ?? 0);
  readonly moved = $derived.by(() => this.#held !== null);
  /** Which column it stands in: 0 straight, 1 slight, 2 clear, 3 strong; + right. */
  readonly column = $derived.by(() => this.columnOf(this.across));
  readonly words = $derived.by(() => this.say(this.across, this.up));
  /** The same as the jot line takes it. */
  readonly line = $derived.by(() => lineOf(this.across, this.up));

  columnOf(off: number): number {
    const grade = this.page.borders_mm.filter((border) => Math.abs(off) > border).length;
    return off < 0 ? -grade : grade;
  }

  hold(across: number, up: number, step = 1): void {
    const to = (value: number) =>
      Math.min(Math.max(Math.round(value / step) * step, -this.reach), this.reach);
    // near level is level, near straight is straight: a hand does not drag to nought
    const flat = (value: number) => (Math.abs(value) < SNAP_MM ? 0 : value);
    this.#held = { across: flat(to(across)), up: flat(to(up)) };
  }

  release = (): void => {
    this.#held = null;
  };

  /** Arrow keys move by a millimetre, with shift by ten; Home is straight. Returns true if it did. */
  key(event: KeyboardEvent, plane: 'across' | 'up'): void {
    if (event.key === 'Escape') {
      this.release();
      return;
    }
    const straight = event.key === 'Home';
    const now = plane === 'across' ? this.across : this.up;
    const at = { now, step: 1, page: 10, low: -this.reach, high: this.reach };
    const to = straight ? 0 : slid(event, at);
    if (straight) event.preventDefault();
    if (to === null) return;
    const held = { across: this.across, up: this.up, [plane]: to };
    this.#held = held;
  }

  say(across: number, up: number): string {
    const side = across
      ? `${Math.abs(Math.round(across))} ± ${Math.round(this.page.eye_mm)} mm ${across > 0 ? 'right' : 'left'}`
      : 'straight';
    const height = up ? `, ${Math.abs(Math.round(up))} mm ${up > 0 ? 'high' : 'low'}` : ', level';
    return side + height;
  }
}

const SNAP_MM = 4;

function lineOf(across: number, up: number): string {
  const parts = [];
  if (across) parts.push(`${across > 0 ? 'right' : 'left'} ${Math.abs(Math.round(across))}mm`);
  else parts.push('straight');
  if (up) parts.push(`${up > 0 ? 'high' : 'low'} ${Math.abs(Math.round(up))}mm`);
  else if (!across) parts.push('level');
  else parts.push('high 0mm');
  return parts.join(' ');
}
