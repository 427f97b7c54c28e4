/** The distance being asked of the table: in whole metres or yards, read between its points. */
import type { PageOf } from '../../lib/api';
import { M_PER_YD } from '../../lib/units.gen';
import { slid } from '../keys';

type Crawls = PageOf<'crawls'>;

export interface Between {
  crawl_mm: number;
  half_mm: number;
}

export class Reach {
  #page: () => Crawls;
  #held = $state<number | null>(null);

  constructor(page: () => Crawls) {
    this.#page = page;
  }

  get page(): Crawls {
    return this.#page();
  }

  readonly per = $derived.by(() => (this.page.unit === 'yd' ? M_PER_YD : 1));
  readonly first = $derived.by(() => Math.ceil((this.page.curve[0]?.distance_m ?? 5) / this.per));
  readonly last = $derived.by(() =>
    Math.floor((this.page.curve.at(-1)?.distance_m ?? 50) / this.per + 1e-6),
  );
  /** In the archer's unit. */
  readonly at = $derived.by(
    () => this.#held ?? Math.round(Math.min(20, this.page.point_on_m ?? 20) / this.per),
  );
  readonly distance_m = $derived.by(() => this.at * this.per);
  readonly here = $derived.by(() => between(this.page, this.distance_m));

  hold(at: number): void {
    this.#held = Math.min(Math.max(Math.round(at), this.first), this.last);
  }

  key = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') {
      this.#held = null;
      return;
    }
    const to = slid(event, {
      now: this.at,
      step: 1,
      page: 5,
      low: this.first,
      high: this.last,
    });
    if (to !== null) this.hold(to);
  };
}

/** Read the curve between its points. */
export function between(page: Crawls, distance_m: number): Between | null {
  const { curve } = page;
  const after = curve.findIndex((point) => point.distance_m >= distance_m);
  const far = curve[after];
  const near = curve[after - 1] ?? far;
  if (!near || !far) return null;
  const run = far.distance_m - near.distance_m;
  const share = run > 0 ? (distance_m - near.distance_m) / run : 0;
  const of = (a: number, b: number) => a + share * (b - a);
  return {
    crawl_mm: of(near.crawl_mm, far.crawl_mm),
    half_mm: of(near.half_mm, far.half_mm),
  };
}
