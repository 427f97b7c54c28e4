/** The plane of a chart: as wide as its figure, with room around it for axes and words. */
import { scaleLinear } from 'd3-scale';

interface Room {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

export class Plot {
  /** Width of the figure; it binds its own to this. */
  width = $state(720);
  readonly height: number;
  readonly #room: Room;
  readonly #least: number;

  constructor(height: number, room: Room, least = 300) {
    this.height = height;
    this.#room = room;
    this.#least = least;
  }

  /** Width it is drawn in: never so narrow that words run into each other. */
  get across(): number {
    return Math.max(this.width, this.#least);
  }

  get left(): number {
    return this.#room.left;
  }

  get right(): number {
    return this.across - this.#room.right;
  }

  get top(): number {
    return this.#room.top;
  }

  get floor(): number {
    return this.height - this.#room.bottom;
  }

  /** The scale across, from the plane's left to its right. */
  x(first: number, last: number) {
    return scaleLinear([first, last], [this.left, this.right]);
  }

  /** The scale up, from the plane's floor to its top. */
  y(low: number, high: number) {
    return scaleLinear([low, high], [this.floor, this.top]);
  }
}
