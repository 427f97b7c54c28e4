/** Planning a taper: typed lengths and diameters, read by the server, computed as they change. */
import { api, type ParsedJot, type Problem, type TaperAsked, type TaperPlan } from '../../lib/api';
import { Asked, AskedOfRig } from '../../lib/asked.svelte';
import { openRig } from '../../lib/openrig.svelte';
import { keep, kept } from '../../lib/kept';

export type End = 'tail' | 'head';

export class Tapering extends AskedOfRig<TaperPlan> {
  asked = $state<TaperAsked>({});
  /** What is typed of each end, and what was wrong with it. */
  typed = $state<Record<End, string>>({ tail: '', head: '' });
  #ends = { tail: new Asked<ParsedJot>(), head: new Asked<ParsedJot>() };
  #usual: () => TaperAsked;

  /** `usual` is what is planned before anything is typed. */
  constructor(usual: () => TaperAsked) {
    super((rig) => api.taperPlan(rig, $state.snapshot(this.asked)));
    this.#usual = usual;
  }

  /** What is wrong with an end: as it was typed, or as it was planned. */
  problemOf(end: End): Problem | null {
    const typed = this.#ends[end].problem;
    if (typed) return typed;
    const planned = this.problem;
    return planned && (planned.field?.startsWith('head') ? 'head' : 'tail') === end
      ? planned
      : null;
  }

  /** Read `9in 5/16` for one end with the jot line's own grammar; nothing is recorded. */
  async type(end: End): Promise<void> {
    const text = this.typed[end];
    if (!text.trim()) {
      this.#ends[end].clear();
      this.set({ ...this.asked, [`${end}_taper_mm`]: 0, [`${end}_diameter_mm`]: undefined });
      return;
    }
    const parsed = await this.#ends[end].ask(() => api.parse(`taper ${end} ${text}`, null, null));
    const reading = parsed?.reading;
    if (reading?.kind !== 'arrow_build') return;
    const across = reading[`${end}_diameter_mm`] ?? this.asked[`${end}_diameter_mm`];
    this.set({
      ...this.asked,
      [`${end}_taper_mm`]: reading[`${end}_taper_mm`] ?? 0,
      [`${end}_diameter_mm`]: across ?? undefined,
    });
  }

  set(asked: TaperAsked): void {
    this.asked = asked;
    keep(`${openRig.rig ?? ''}.taper`, asked);
    void this.load();
  }

  protected override keeps(): boolean {
    return true;
  }

  protected override fresh(): void {
    this.asked = kept<TaperAsked>(`${openRig.rig ?? ''}.taper`) ?? this.#usual();
    this.typed = { tail: '', head: '' };
    this.#ends.tail.clear();
    this.#ends.head.clear();
  }
}
