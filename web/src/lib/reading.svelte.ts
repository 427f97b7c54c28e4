/** A line being typed: read by the server as it grows, recorded on Enter. */
import { api, type ParsedJot, type Problem, type StageKey } from './api';
import { bench } from './bench.svelte';
import { tell } from './preferences.svelte';

const PAUSE_MS = 120;

export class Reading {
  text = $state('');
  parsed = $state.raw<ParsedJot | null>(null);
  problem = $state.raw<Problem | null>(null);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #turn = 0;
  /** Sent with the draft, and again with the same text: a repeated send is recorded once. */
  #sendId = crypto.randomUUID();
  #line: (text: string) => string;
  #stage: StageKey | null;

  /** `line` turns what is typed into a jot line, e.g. by putting the field's word before it. */
  constructor(line: (text: string) => string = (text) => text, stage: StageKey | null = null) {
    this.#line = line;
    this.#stage = stage;
  }

  set stage(stage: StageKey | null) {
    this.#stage = stage;
  }

  type(text: string): void {
    if (text !== this.text) this.#sendId = crypto.randomUUID();
    this.text = text;
    clearTimeout(this.#timer);
    if (!text.trim()) {
      this.#turn += 1;
      this.parsed = null;
      this.problem = null;
      return;
    }
    this.#timer = setTimeout(() => void this.read(), PAUSE_MS);
  }

  async read(): Promise<void> {
    clearTimeout(this.#timer);
    const turn = ++this.#turn;
    const { data, problem } = await api.parse(this.#line(this.text), bench.rig, this.#stage);
    if (turn !== this.#turn) return;
    this.parsed = data ?? null;
    this.problem = problem ?? null;
  }

  /** Record what is typed; true when it was, and the line is then empty. */
  async record(): Promise<boolean> {
    if (!this.text.trim()) return false;
    await this.read();
    const draft = this.parsed?.draft;
    if (!draft) return false;
    const says = this.parsed ? tell(this.parsed.says) : undefined;
    const problem = await bench.record([{ ...draft, id: this.#sendId }], says);
    if (problem) {
      this.problem = problem;
      return false;
    }
    this.type('');
    return true;
  }
}
