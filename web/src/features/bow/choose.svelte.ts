/** The choosing board: asked of the server for the rig, or for what is tried instead. */
import {
  api,
  type Asking,
  type ChoosingBoard,
  type FamilyBoard,
  type Problem,
} from '../../lib/api';

export class Choosing {
  #rig: string;
  asked = $state<Asking>({});
  board = $state.raw<ChoosingBoard | null>(null);
  problem = $state.raw<Problem | null>(null);
  family = $state<string | null>(null);
  busy = $state(false);
  #turn = 0;

  constructor(rig: string) {
    this.#rig = rig;
  }

  get shown(): FamilyBoard | null {
    const families = this.board?.families ?? [];
    return families.find((board) => board.family === this.family) ?? families[0] ?? null;
  }

  get tried(): boolean {
    return Object.values(this.asked).some((value) => value !== undefined && value !== null);
  }

  async load(): Promise<void> {
    const turn = ++this.#turn;
    this.busy = true;
    const { data, problem } = await api.choosingBoard(this.#rig, $state.snapshot(this.asked));
    if (turn !== this.#turn) return;
    this.busy = false;
    this.problem = problem ?? null;
    if (data) this.board = data;
  }

  try(asked: Asking): void {
    this.asked = { ...this.asked, ...asked };
    void this.load();
  }

  reset(): void {
    this.asked = {};
    void this.load();
  }
}
