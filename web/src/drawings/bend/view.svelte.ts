/** The shot being looked at: which arrow, which instant, and where everything stands on the page. */
import type { ShotDrawing, ShownArrow } from '../../lib/api';

/** Bending is drawn this much wider than it is, against the arrow's length. */
export const WIDER = 5;
/** A shot of about 20 ms is played over this many seconds. */
const PLAY_S = 6;

export class BendView {
  #drawing: () => ShotDrawing;
  frame = $state(0);
  chosen = $state<ShownArrow['which'] | null>(null);
  playing = $state(false);
  #request = 0;

  constructor(drawing: () => ShotDrawing) {
    this.#drawing = drawing;
  }

  get drawing(): ShotDrawing {
    return this.#drawing();
  }

  get last(): number {
    return this.drawing.times_ms.length - 1;
  }

  get arrow(): ShownArrow | null {
    const arrows = this.drawing.arrows;
    return arrows.find((arrow) => arrow.which === this.chosen) ?? arrows[0] ?? null;
  }

  get time(): number {
    return this.drawing.times_ms[this.frame] ?? 0;
  }

  play = (): void => {
    if (this.playing) {
      this.stop();
      return;
    }
    this.playing = true;
    if (this.frame >= this.last) this.frame = 0;
    const from = this.frame;
    const start = performance.now();
    const step = (now: number) => {
      if (!this.playing) return;
      const gone = ((now - start) / 1000 / PLAY_S) * this.last;
      this.frame = Math.min(from + Math.floor(gone), this.last);
      if (this.frame >= this.last) this.playing = false;
      else this.#request = requestAnimationFrame(step);
    };
    this.#request = requestAnimationFrame(step);
  };

  stop = (): void => {
    this.playing = false;
    cancelAnimationFrame(this.#request);
  };

  scrub = (frame: number): void => {
    this.stop();
    this.frame = Math.min(Math.max(Math.round(frame), 0), this.last);
  };
}

/** Where a frame of a shot is placed: x in mm from the plate, y in tenths of a mm from the line. */
export interface Stage {
  x: (mm: number) => number;
  y: (tenths: number) => number;
}

/** Lay a shot out on so many pixels, its bending drawn wider; outward is up for the left side. */
export function layOut(
  drawing: ShotDrawing,
  width: number,
  line: number,
  wider: number = WIDER,
): Stage {
  const first = -drawing.draw_mm - 25;
  const length = drawing.stations_mm.at(-1) ?? 0;
  const last = (drawing.nock_mm.at(-1) ?? 0) + length + 25;
  const scale = width / (last - first);
  const up = drawing.outward_is_left ? -1 : 1;
  return {
    x: (mm) => (mm - first) * scale,
    y: (tenths) => line + up * (tenths / 10) * scale * wider,
  };
}

/** The path of an arrow at one frame. */
export function arrowPath(
  drawing: ShotDrawing,
  aside: number[][],
  frame: number,
  stage: Stage,
): string {
  const nock = drawing.nock_mm[frame] ?? 0;
  return (aside[frame] ?? [])
    .map((y, i) => {
      const at = `${stage.x(nock + (drawing.stations_mm[i] ?? 0)).toFixed(1)} ${stage.y(y).toFixed(1)}`;
      return `${i ? 'L' : 'M'}${at}`;
    })
    .join('');
}

/** y of the arrow at a place along it, between stations. */
export function asideAt(drawing: ShotDrawing, aside: number[][], frame: number, s: number): number {
  const row = aside[frame] ?? [];
  const step = (drawing.stations_mm[1] ?? 1) - (drawing.stations_mm[0] ?? 0);
  const i = Math.min(Math.max(Math.floor(s / step), 0), row.length - 2);
  const share = s / step - i;
  return (row[i] ?? 0) * (1 - share) + (row[i + 1] ?? 0) * share;
}

/** Room between shaft and plate in mm, or null while no shaft is beside it. */
export function roomAtPlate(drawing: ShotDrawing, arrow: ShownArrow, frame: number): number | null {
  const station = -(drawing.nock_mm[frame] ?? 0);
  const length = drawing.stations_mm.at(-1) ?? 0;
  if (station < 0 || station > length) return null;
  const centre = drawing.face_mm + drawing.diameter_mm / 2;
  return asideAt(drawing, arrow.aside, frame, station) / 10 - centre;
}

/** True while the fletching is beside the plate. */
export function fletchingBeside(drawing: ShotDrawing, frame: number): boolean {
  const station = -(drawing.nock_mm[frame] ?? 0);
  const from = drawing.fletching_from_mm;
  return station >= from && station <= from + drawing.fletching_length_mm;
}

/** The instant worth seeing first: the hardest touch of the tail, else late on the string. */
export function tellingFrame(drawing: ShotDrawing): number {
  const late = Math.round(0.62 * (drawing.times_ms.length - 1));
  const own = drawing.arrows[0];
  if (!own || own.clearance === 'clear') return late;
  const half = (drawing.stations_mm.at(-1) ?? 0) / 2;
  let hardest = late;
  drawing.nock_mm.forEach((nock, frame) => {
    const press = own.plate_n[frame] ?? 0;
    if (-nock <= half && press > (own.plate_n[hardest] ?? 0)) hardest = frame;
  });
  return hardest;
}
