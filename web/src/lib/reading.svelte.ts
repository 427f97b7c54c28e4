/** A line being typed: read by the server as it grows, recorded on Enter. */
import { api, type ParsedJot, type StageKey } from './api';
import { openRig } from './openrig.svelte';
import { noonOf } from './days';
import type { Job } from './outbox.svelte';
import { tell } from './preferences.svelte';
import { Typing, type Fields } from './typing.svelte';

const PAUSE_MS = 120;

/** A part of the line: a word of ours, or what stands in a field. */
type Piece = string | { field: string; text?: string };

interface Form {
  /** The control's name. */
  from: string;
  fields?: Fields;
  /** Fields that keep their choice when the others are sent. */
  stays?: readonly string[];
  /** The line the fields make, piece by piece. */
  line?: (fields: Fields) => Piece[];
  /** False while too little is typed to be read. */
  whole?: (fields: Fields) => boolean;
  stage?: StageKey | null;
  /** The arrow it is about, where the form counts them. */
  arrow?: (fields: Fields) => Fields & { number: string };
}

export class Reading extends Typing {
  parsed = $state.raw<ParsedJot | null>(null);
  stage: StageKey | null;
  #form: Form;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #turn = 0;
  /** The line that `parsed` or a refusal to read it is about. */
  #read: string | null = null;

  constructor(form: Form) {
    super(form.from, form.fields ?? { text: '' }, form.stays);
    this.#form = form;
    this.stage = form.stage ?? null;
    if (!this.empty) this.changed();
  }

  get text(): string {
    return this.fields.text ?? '';
  }

  /** The jot line that is typed. */
  get line(): string {
    return this.#pieces().map(said).filter(Boolean).join(' ');
  }

  /** The field a problem is about: where its span stands, or the first that is empty. */
  get wrong(): string | null {
    if (!this.problem) return null;
    const start = this.problem.span?.[0] ?? null;
    let [at, found] = [0, null as string | null];
    for (const piece of this.#pieces()) {
      if (typeof piece !== 'string') {
        found ??= piece.field;
        if (start !== null && at <= start) found = piece.field;
      }
      at += said(piece) ? said(piece).length + 1 : 0;
    }
    return found;
  }

  type(text: string): void {
    this.set({ text });
  }

  protected override changed(): void {
    clearTimeout(this.#timer);
    const turn = ++this.#turn;
    const whole = !this.empty && (this.#form.whole?.(this.fields) ?? true);
    if (whole) this.#timer = setTimeout(() => void this.#look(turn), PAUSE_MS);
    else {
      this.parsed = null;
      this.problem = null;
      this.#read = null;
    }
  }

  async #look(turn: number): Promise<void> {
    const line = this.line;
    const { data, problem } = await api.parse(line, openRig.rig, this.stage);
    if (turn !== this.#turn) return;
    this.parsed = data ?? null;
    this.problem = problem ?? null;
    this.#read = problem?.status === 0 ? null : line;
  }

  /** Send what is typed to be recorded; false when there is nothing, or it cannot be read. */
  record(): boolean {
    if (this.empty) return false;
    const line = this.line;
    const known = this.#read === line;
    if (known && !this.parsed) {
      // what stood in its way may be gone by now: it is read again
      void this.#look(++this.#turn);
      return false;
    }
    const parsed = known ? this.parsed : null;
    const draft = parsed?.draft && {
      ...parsed.draft,
      happened_at: parsed.day ? noonOf(parsed.day) : null,
    };
    const counted = this.#form.arrow?.(this.fields) ?? null;
    void this.send(
      { do: 'line', line, stage: this.stage, draft: draft ?? null },
      parsed ? tell(parsed.says) : line,
      counted ? Number(counted.number) : null,
      counted ?? {},
    );
    return true;
  }

  /** Forget what was refused, and read what stands there anew: another rig is open. */
  anew(): void {
    this.problem = null;
    this.set({});
  }

  protected override tookUp(job: Job): void {
    clearTimeout(this.#timer);
    this.#turn += 1;
    this.parsed = null;
    // what could not be read stays as it is; what was refused may be sent again
    this.#read = job.act.do === 'line' && !job.act.draft ? this.line : null;
  }

  #pieces(): Piece[] {
    const pieces = this.#form.line?.(this.fields) ?? [{ field: 'text' }];
    return pieces.map((piece) =>
      typeof piece === 'string' ? piece : { text: this.fields[piece.field] ?? '', ...piece },
    );
  }
}

function said(piece: Piece): string {
  const text = typeof piece === 'string' ? piece : (piece.text ?? '');
  return text.trim() ? text : '';
}
