/** The choosing board: asked of the server for the rig, or for what is tried instead. */
import {
  api,
  type Asking,
  type ChoosingBoard,
  type FamilyBoard,
  type ParsedJot,
} from '../../lib/api';
import { Asked, AskedOfRig } from '../../lib/asked.svelte';
import { openRig } from '../../lib/openrig.svelte';
import { keep, kept } from '../../lib/kept';

/** A length or weight that is tried: read with the jot line's own grammar, recorded nowhere. */
class TriedField extends Asked<ParsedJot> {
  text = $state('');
  #word: string;
  #key: string;

  constructor(word: string, key: string) {
    super();
    this.#word = word;
    this.#key = key;
  }

  /** Read what is typed; null when it cannot be read, or something else was typed since. */
  async read(): Promise<number | null> {
    const parsed = await this.ask(() => api.parse(`${this.#word} ${this.text}`, null, null));
    const reading = parsed?.reading as Record<string, unknown> | undefined;
    const value = reading?.[this.#key];
    return typeof value === 'number' ? value : null;
  }

  override clear(): void {
    super.clear();
    this.text = '';
  }
}

export class Choosing extends AskedOfRig<ChoosingBoard> {
  asked = $state<Asking>({});
  family = $state<string | null>(null);
  draw = new TriedField('draw', 'draw_length_mm');
  hold = new TriedField('wish', 'draw_weight_lbf');

  constructor() {
    super((rig) => api.choosingBoard(rig, $state.snapshot(this.asked)));
  }

  get shown(): FamilyBoard | null {
    const families = this.data?.families ?? [];
    return families.find((board) => board.family === this.family) ?? families[0] ?? null;
  }

  get tried(): boolean {
    return Object.values(this.asked).some((value) => value !== undefined && value !== null);
  }

  try(asked: Asking): void {
    this.#set({ ...this.asked, ...asked });
  }

  async tryDraw(): Promise<void> {
    const draw_mm = await this.draw.read();
    if (draw_mm !== null) this.try({ draw_mm });
  }

  async tryHold(): Promise<void> {
    const hold_lbf = await this.hold.read();
    if (hold_lbf !== null) this.try({ hold_lbf });
  }

  reset(): void {
    this.draw.clear();
    this.hold.clear();
    this.#set({});
  }

  #set(asked: Asking): void {
    this.asked = asked;
    keep(`${openRig.rig ?? ''}.choose`, this.tried ? asked : null);
    void this.load();
  }

  /** The board that was there is still true of what it was asked for. */
  protected override keeps(): boolean {
    return true;
  }

  protected override fresh(): void {
    this.asked = kept<Asking>(`${openRig.rig ?? ''}.choose`) ?? {};
    this.family = null;
    this.draw.clear();
    this.hold.clear();
  }
}
