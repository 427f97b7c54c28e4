/** A guess of the distance that is wrong by so much, and the circle that is wished for. */
import type { RangeBoard } from '../../lib/api';

const LEAST_CM = 5;
const MOST_CM = 60;

export class Horn {
  #board: () => RangeBoard;
  by = $state(5);
  /** Half across. */
  circle_cm = $state(15);

  constructor(board: () => RangeBoard) {
    this.#board = board;
  }

  get board(): RangeBoard {
    return this.#board();
  }

  readonly row = $derived.by(() => this.board.guesses.find((one) => one.by === this.by) ?? null);
  readonly beside = $derived.by(() => {
    const other = this.by === 2 ? 1 : 2;
    return this.board.guesses.find((one) => one.by === other) ?? null;
  });
  /** The largest distance at which such a guess stays inside the circle, either way. */
  readonly furthest = $derived.by(() => this.inside(this.row));

  inside(row: RangeBoard['guesses'][number] | null): number | null {
    if (!row) return null;
    const { distances } = this.board;
    const worst = distances.map((_, i) =>
      Math.max(row.nearer_mm[i] ?? 0, -(row.further_mm[i] ?? -Infinity)),
    );
    const limit = 10 * this.circle_cm;
    const first = worst.findIndex((miss) => Number.isFinite(miss));
    if (first < 0 || (worst[first] ?? Infinity) > limit) return null;
    const out = worst.findIndex((miss, i) => i > first && miss > limit);
    if (out < 0) return distances.at(-1) ?? null;
    const [a, b] = [worst[out - 1] ?? 0, worst[out] ?? 0];
    const [near, far] = [distances[out - 1] ?? 0, distances[out] ?? 0];
    return near + ((far - near) * (limit - a)) / Math.max(b - a, 1e-9);
  }

  hold(cm: number): void {
    this.circle_cm = Math.min(Math.max(Math.round(cm), LEAST_CM), MOST_CM);
  }
}
