/** The parts by name: shown over a drawing when it is asked for. */
import { api, type Term } from './api';
import { Asked } from './asked.svelte';

export class Names {
  open = $state(false);
  readonly asked = new Asked<Term[]>();
  #drawing: Term['drawing'];

  constructor(drawing: Term['drawing']) {
    this.#drawing = drawing;
  }

  /** The terms of the drawing, in the order they are numbered. */
  readonly terms = $derived.by(() =>
    this.open ? (this.asked.data ?? []).filter((term) => term.drawing === this.#drawing) : [],
  );

  toggle = (): void => {
    this.open = !this.open;
    if (this.open && !this.asked.data) void this.asked.ask(api.terms);
  };
}
