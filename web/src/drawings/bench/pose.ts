/** The bow at any draw, between the draws the core has solved. */
import { bisector } from 'd3-array';
import type { components } from '../../lib/api.gen';

export type Pose = components['schemas']['BowPose'];
export type BenchGeometry = components['schemas']['BenchDrawing'];
export type Place = [number, number];
/** A place of the core: toward the archer, up the limb [mm]. */
type Point = readonly number[];

export const toward = (point: Point | undefined): number => point?.[0] ?? 0;
export const up = (point: Point | undefined): number => point?.[1] ?? 0;

const byDraw = bisector((pose: Pose) => pose.draw_mm);

const between = (a: number, b: number, t: number): number => a + (b - a) * t;
const maybe = (a: number | null, b: number | null, t: number): number | null =>
  a === null || b === null ? null : between(a, b, t);
const place = (a: Point, b: Point, t: number): Place => [
  between(toward(a), toward(b), t),
  between(up(a), up(b), t),
];

/** The pose at a draw, kept within what is solved; neighbours are under an inch apart. */
export function poseAt(poses: Pose[], draw_mm: number): Pose {
  const last = poses.length - 1;
  const index = Math.min(Math.max(byDraw.right(poses, draw_mm), 1), last);
  const [a, b] = [poses[index - 1], poses[index]];
  if (!a || !b) throw new Error('a bow has at least two poses');
  const t = Math.min(Math.max((draw_mm - a.draw_mm) / (b.draw_mm - a.draw_mm), 0), 1);
  return {
    draw_mm: between(a.draw_mm, b.draw_mm, t),
    limb: a.limb.map((point, i) => place(point, b.limb[i] ?? point, t)),
    leaves: place(a.leaves, b.leaves, t),
    finger_angle_deg: between(a.finger_angle_deg, b.finger_angle_deg, t),
    tip_angle_deg: between(a.tip_angle_deg, b.tip_angle_deg, t),
    weight_lbf: maybe(a.weight_lbf, b.weight_lbf, t),
    lbf_per_in: maybe(a.lbf_per_in, b.lbf_per_in, t),
    energy_j: maybe(a.energy_j, b.energy_j, t),
  };
}
