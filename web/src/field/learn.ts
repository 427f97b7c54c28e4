/** The table as it is known here: what was carried, moved by the shots since. See core/crawls/field.py. */
import type { components } from '../lib/api.gen';

export type FieldTable = components['schemas']['FieldTable'];
export type Point = FieldTable['points'][number];
export type Step = FieldTable['steps'][number];
export type Struck = 'high' | 'fine' | 'low';

/** A shot as it was logged: what was counted, and where it struck. */
export interface Logged {
  distance_m: number;
  /** Steps of the notation that were counted. */
  count: number;
  notation: Step['notation'];
  struck: Struck | null;
  /** Where it struck, + high; null where only the side was told. */
  high_mm: number | null;
  arrows: number;
  guessed: boolean;
}

/** The crawl for a distance, as it is believed now. */
export interface Known {
  crawl_mm: number;
  half_mm: number;
  /** Where it strikes if the mark stands a little further off; null where that is not reckoned. */
  further_mm: number | null;
}

const SIZE = 4;

export class Learner {
  readonly table: FieldTable;
  #moved: number[];
  #covariance: number[][];

  constructor(table: FieldTable, shots: readonly Logged[]) {
    this.table = table;
    this.#moved = new Array<number>(SIZE).fill(0);
    this.#covariance = table.covariance.map((row) => [...row]);
    for (const shot of shots) this.#learn(shot);
  }

  get nearest_m(): number {
    return this.table.points[0]?.distance_m ?? 2;
  }

  get furthest_m(): number {
    return this.table.points.at(-1)?.distance_m ?? 2;
  }

  at(distance_m: number): Known {
    const { factor, scale, floor_mm, floor_share } = this.table;
    const found = this.#point(distance_m);
    const crawl = found.crawl_mm + dot(found.steep, this.#moved);
    const sd = Math.sqrt(Math.max(quadratic(this.#covariance, found.steep), 0));
    const floor = crawl < 0 ? Math.hypot(floor_mm, floor_share * crawl) : floor_mm;
    return {
      crawl_mm: crawl,
      half_mm: factor * Math.hypot(scale * sd, floor),
      further_mm: found.further_mm ?? null,
    };
  }

  /** How far higher an arrow strikes for a millimetre less of crawl. */
  highPerMm(distance_m: number): number {
    const tip = this.table.tip_mm / 1000;
    return (this.table.kappa * (distance_m - tip)) / tip;
  }

  /** y = c_shot - c; S = J P J' + sd^2; dtheta += P J' y/S; P -= P J' J P/S */
  #learn(shot: Logged): void {
    const found = this.#point(shot.distance_m);
    const mark = this.#mark(shot);
    const across = this.#covariance.map((row) => dot(row, found.steep));
    const spread = dot(found.steep, across) + mark.sd * mark.sd;
    const off = mark.crawl - found.crawl_mm - dot(found.steep, this.#moved);
    this.#moved = this.#moved.map((one, at) => one + (across[at]! * off) / spread);
    this.#covariance = this.#covariance.map((row, i) =>
      row.map((one, j) => one - (across[i]! * across[j]!) / spread),
    );
  }

  /** The crawl that would have struck, with one standard deviation. */
  #mark(shot: Logged): { crawl: number; sd: number } {
    const { table } = this;
    const step = table.steps.find((one) => one.notation === shot.notation) ?? table.steps[0]!;
    let crawl = shot.count * step.mm;
    let sd = Math.hypot(step.read_sd_mm, shot.count * step.sd_mm);
    let group = (table.group_mm * shot.distance_m) / 20 / Math.sqrt(shot.arrows);
    const high = this.highPerMm(shot.distance_m);
    if (shot.struck !== null) {
      crawl += (table.struck_sds[shot.struck]! * group) / high;
      sd = Math.hypot(sd, (table.struck_sd * group) / high);
    } else if (shot.high_mm !== null) {
      if (Math.abs(shot.high_mm) > table.trusted_mm) group = Math.hypot(group, 0.25 * shot.high_mm);
      crawl += shot.high_mm / high;
      sd = Math.hypot(sd, group / high);
    }
    if (shot.guessed) {
      const near = this.#point(shot.distance_m - 0.5).crawl_mm;
      const far = this.#point(shot.distance_m + 0.5).crawl_mm;
      sd = Math.hypot(sd, Math.abs(far - near) * table.guessed_share * shot.distance_m);
    }
    return { crawl, sd };
  }

  #point(distance_m: number): Point {
    const { points } = this.table;
    const first = points[0]!;
    const at = Math.min(Math.max(distance_m - first.distance_m, 0), points.length - 1);
    const [low, share] = [Math.floor(at), at % 1];
    const [a, b] = [points[low]!, points[Math.min(low + 1, points.length - 1)]!];
    const between = (x: number, y: number) => x + share * (y - x);
    const [i, j, k, l] = a.steep;
    return {
      distance_m,
      crawl_mm: between(a.crawl_mm, b.crawl_mm),
      steep: [
        between(i, b.steep[0]),
        between(j, b.steep[1]),
        between(k, b.steep[2]),
        between(l, b.steep[3]),
      ],
      further_mm:
        a.further_mm == null || b.further_mm == null ? null : between(a.further_mm, b.further_mm),
    };
  }
}

function dot(a: readonly number[], b: readonly number[]): number {
  return a.reduce((sum, one, at) => sum + one * b[at]!, 0);
}

function quadratic(matrix: readonly number[][], along: readonly number[]): number {
  return dot(
    matrix.map((row) => dot(row, along)),
    along,
  );
}
