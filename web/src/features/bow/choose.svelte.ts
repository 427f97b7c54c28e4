/** The choosing board: asked of the server for the rig, or for what is tried instead. */
import {
  api,
  type Asking,
  type ChoosingBoard,
  type FamilyBoard,
  type Problem,
} from '../../lib/api';
import { bench } from '../../lib/bench.svelte';

export class Choosing {
  #rig: string | null = null;
  asked = $state<Asking>({});
  board = $state.raw<ChoosingBoard | null>(null);
  /** Why there is no board. */
  problem = $state.raw<Problem | null>(null);
  /** Why what was typed cannot be tried; a board that comes in later leaves it standing. */
  refused = $state.raw<Problem | null>(null);
  family = $state<string | null>(null);
  #turn = 0;

  get shown(): FamilyBoard | null {
    const families = this.board?.families ?? [];
    return families.find((board) => board.family === this.family) ?? families[0] ?? null;
  }

  get tried(): boolean {
    return Object.values(this.asked).some((value) => value !== undefined && value !== null);
  }

  /** Ask for the open rig; another rig than before starts afresh. */
  async load(): Promise<void> {
    const rig = bench.rig;
    if (!rig) return;
    if (rig !== this.#rig) {
      this.#rig = rig;
      this.asked = {};
      this.family = null;
      this.board = null;
      this.refused = null;
    }
    const turn = ++this.#turn;
    const { data, problem } = await api.choosingBoard(rig, $state.snapshot(this.asked));
    if (turn !== this.#turn) return;
    this.problem = problem ?? null;
    if (data) this.board = data;
  }

  try(asked: Asking): void {
    this.asked = { ...this.asked, ...asked };
    void this.load();
  }

  reset(): void {
    this.refused = null;
    this.asked = {};
    void this.load();
  }
}
