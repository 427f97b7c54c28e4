/** Hits put on the butt face: fletched and bare, numbered, movable until they are recorded. */
import type { Hit } from '../../lib/api';
import { keep, kept } from '../../lib/kept';

const MOST = 24;
const REACHES_MM = [420, 210, 105] as const;

export class Butt {
  /** How near one looks: half the butt's width that is shown. */
  #near = $state(0);
  #name: string;
  hits = $state.raw<Hit[]>([]);
  bare = $state(false);
  /** Number of the arrow that is put on next, where the arrows are numbered. */
  arrow = $state('');
  /** The hit that can be moved: the last one, or the one that was taken hold of. */
  held = $state<number | null>(null);

  constructor(rig: string) {
    this.#name = `${rig}.hits`;
    this.hits = kept<Hit[]>(this.#name) ?? [];
  }

  get reach(): number {
    return REACHES_MM[this.#near] ?? REACHES_MM[0];
  }
  get nearest(): boolean {
    return this.#near === REACHES_MM.length - 1;
  }
  get widest(): boolean {
    return this.#near === 0;
  }

  /** Look closer (+1) or wider (-1). */
  look(by: number): void {
    this.#near = Math.min(Math.max(this.#near + by, 0), REACHES_MM.length - 1);
  }

  add(right_mm: number, up_mm: number): void {
    if (this.hits.length >= MOST) return;
    const number = /^[1-9]\d{0,2}$/.test(this.arrow.trim()) ? Number(this.arrow) : null;
    const hit = { ...this.#inside(right_mm, up_mm), bare: this.bare, arrow_number: number };
    this.#set([...this.hits, hit]);
    this.arrow = '';
    this.held = this.hits.length - 1;
  }

  move(index: number, right_mm: number, up_mm: number): void {
    this.#set(
      this.hits.map((hit, i) => (i === index ? { ...hit, ...this.#inside(right_mm, up_mm) } : hit)),
    );
    this.held = index;
  }

  remove(index = this.held ?? this.hits.length - 1): void {
    this.#set(this.hits.filter((_, i) => i !== index));
    this.held = this.hits.length ? this.hits.length - 1 : null;
  }

  clear(): void {
    this.#set([]);
    this.held = null;
  }

  readonly groups = $derived.by(() =>
    [false, true].map((bare) => {
      const found = this.hits.filter((hit) => (hit.bare ?? false) === bare);
      if (!found.length) return null;
      const mean = (pick: (hit: Hit) => number) =>
        found.reduce((sum, hit) => sum + pick(hit), 0) / found.length;
      const [right, up] = [mean((hit) => hit.right_mm), mean((hit) => hit.up_mm)];
      const spread = Math.max(
        ...found.map((hit) => Math.hypot(hit.right_mm - right, hit.up_mm - up)),
      );
      return { bare, count: found.length, right, up, spread };
    }),
  );

  #inside(right_mm: number, up_mm: number) {
    const clip = (value: number) => Math.round(Math.min(Math.max(value, -2000), 2000));
    return { right_mm: clip(right_mm), up_mm: clip(up_mm) };
  }

  #set(hits: Hit[]): void {
    this.hits = hits;
    keep(this.#name, hits.length ? hits : null);
  }
}
