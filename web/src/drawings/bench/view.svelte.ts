/** Where things stand on the bench drawing, and how far the string is drawn. */
import { slid } from '../keys';
import { curveCatmullRom, line } from 'd3-shape';
import { MM_PER_IN } from '../../lib/units';
import { poseAt, toward, up, type BenchGeometry, type Place, type Pose } from './pose';

const TRADE_OFFSET_MM = 1.75 * MM_PER_IN;
const STEP_MM = MM_PER_IN / 8;
const BIG_STEP_MM = MM_PER_IN;
/** Room for the length's dimension line over the bow, and for a label under the axis. */
const ABOVE_PX = 40;
const BELOW_PX = 26;
const TAKE_MS = 700;
const MOST_HIGH_PX = 300;

const smooth = line<Place>().curve(curveCatmullRom.alpha(0.5));

/** A smooth line through a limb's places; a rigid tip, the last of them, stays straight. */
function limbLine(places: Place[], rigid: boolean): string {
  const tip = places.at(-1);
  if (!rigid || !tip) return smooth(places) ?? '';
  return `${smooth(places.slice(0, -1)) ?? ''}L${tip[0]} ${tip[1]}`;
}

export class BenchView {
  #drawing: () => BenchGeometry;
  width = $state(720);
  /** Where the string is held; null until somebody draws it: then the archer's own draw. */
  #held = $state<number | null>(null);
  #frame = 0;

  constructor(drawing: () => BenchGeometry) {
    this.#drawing = drawing;
  }

  get drawing(): BenchGeometry {
    return this.#drawing();
  }

  readonly rest = $derived.by(() => this.drawing.poses[0]?.draw_mm ?? 0);
  readonly spent = $derived.by(() => this.drawing.poses.at(-1)?.draw_mm ?? 1);
  readonly full = $derived.by(() => {
    const own = this.drawing.own_mm ?? 28 * MM_PER_IN;
    return Math.min(Math.max(own, this.rest), this.spent);
  });
  readonly draw = $derived.by(() => {
    const held = this.#held ?? this.full;
    return Math.min(Math.max(held, this.rest), this.spent);
  });
  readonly pose: Pose = $derived.by(() => poseAt(this.drawing.poses, this.draw));
  readonly brace: Pose = $derived.by(() => poseAt(this.drawing.poses, this.rest));

  /** The furthest draw the axis shows. */
  readonly furthest = $derived.by(() => {
    const wanted = Math.max(this.full + 2.5 * MM_PER_IN, (this.drawing.onset_mm ?? 0) + MM_PER_IN);
    return Math.min(Math.max(wanted, 31 * MM_PER_IN), this.spent);
  });
  readonly W = $derived.by(() => Math.max(this.width, 300));
  readonly narrow = $derived.by(() => this.W < 560);
  readonly #highest = $derived.by(() => Math.min(-45, ...this.drawing.unstrung.map(toward)));
  /** Pixels per mm: the widest limb, and some air at the sides. */
  readonly scale = $derived.by(() => {
    const reach = Math.max(...this.drawing.unstrung.map(up), ...this.brace.limb.map(up));
    const across = (this.W / 2 - (this.narrow ? 10 : 52)) / reach;
    // no higher than leaves the form below it in sight
    const down = this.furthest - TRADE_OFFSET_MM - this.#highest;
    return this.narrow ? across : Math.min(across, MOST_HIGH_PX / down);
  });
  readonly top = $derived.by(() => ABOVE_PX - this.#highest * this.scale);
  readonly H = $derived.by(
    () => this.top + (this.furthest - TRADE_OFFSET_MM) * this.scale + BELOW_PX,
  );

  x = (side: number, up_mm: number): number => this.W / 2 + side * up_mm * this.scale;
  y = (toward_mm: number): number => this.top + toward_mm * this.scale;
  /** Where a draw on the trade datum stands. */
  at = (draw_mm: number): number => this.y(draw_mm - TRADE_OFFSET_MM);

  place = (side: number, point: readonly number[]): Place => [
    this.x(side, up(point)),
    this.y(toward(point)),
  ];

  /** A limb's middle line. */
  middle = (side: number, limb: readonly (readonly number[])[]): string =>
    limbLine(
      limb.map((point) => this.place(side, point)),
      this.drawing.rigid_tip,
    );

  /** A limb's outline, thinning from root to tip. */
  outline = (side: number, limb: readonly (readonly number[])[]): string => {
    const middle = limb.map((point) => this.place(side, point));
    const edge = (half: 1 | -1): Place[] =>
      middle.map((here, i) => {
        const before = middle[i - 1] ?? here;
        const after = middle[i + 1] ?? here;
        const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
        const length = Math.hypot(dx, dy) || 1;
        const thick = half * (0.5 * this.thickness(i / (middle.length - 1)));
        return [here[0] - (dy / length) * thick, here[1] + (dx / length) * thick];
      });
    const back = limbLine(edge(1), this.drawing.rigid_tip);
    const returning = edge(-1).reverse();
    const [tip, ...rest] = returning;
    const belly =
      this.drawing.rigid_tip && tip
        ? `M${tip[0]} ${tip[1]}L${(smooth(rest) ?? '').slice(1)}`
        : (smooth(returning) ?? '');
    return `${back}L${belly.slice(1)}Z`;
  };

  /** A limb's thickness on the drawing, root 0 to tip 1 [px]. */
  thickness = (share: number): number => {
    const root = Math.max(22 * this.scale, 6);
    return root + share * (Math.max(9 * this.scale, 3.5) - root);
  };

  /** The string from tip to hook to tip; on a recurve it first lies along the limb. */
  string = (pose: Pose): string => {
    const half = (side: number): Place[] => {
      const tip = pose.limb.at(-1) ?? [0, 0];
      return [this.place(side, tip), this.place(side, pose.leaves)];
    };
    const hook: Place = [this.W / 2, this.at(pose.draw_mm)];
    const points = [...half(-1), hook, ...half(1).reverse()];
    return `M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}`;
  };

  hold(draw_mm: number): void {
    cancelAnimationFrame(this.#frame);
    this.#held = draw_mm;
  }

  /** Hold the string where a pointer is. */
  holdAt(y: number): void {
    this.hold((y - this.top) / this.scale + TRADE_OFFSET_MM);
  }

  key = (event: KeyboardEvent): void => {
    const wanted = slid(event, {
      now: this.draw,
      step: STEP_MM,
      page: BIG_STEP_MM,
      low: this.rest,
      high: this.furthest,
      end: this.full,
      downward: true,
    });
    if (wanted !== null) this.hold(wanted);
  };

  /** Draw the bow from brace to the archer's own draw, slowly enough to watch. */
  drawIt = (): void => {
    cancelAnimationFrame(this.#frame);
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) {
      this.#held = null;
      return;
    }
    const start = performance.now();
    const step = (now: number): void => {
      const t = Math.min((now - start) / TAKE_MS, 1);
      const eased = t * t * (3 - 2 * t);
      this.#held = t < 1 ? this.rest + eased * (this.full - this.rest) : null;
      if (t < 1) this.#frame = requestAnimationFrame(step);
    };
    this.#frame = requestAnimationFrame(step);
  };

  stop = (): void => cancelAnimationFrame(this.#frame);
}
