/** Entering arrows by the row: read by the server as a table, recorded as entries. */
import {
  api,
  type ColumnAs,
  type EntryDraft,
  type QuiverRow,
  type QuiverTable,
} from '../../lib/api';
import { Asked } from '../../lib/asked.svelte';
import { recorder } from '../../lib/recorder.svelte';
import { openRig } from '../../lib/openrig.svelte';
import { Recording } from '../../lib/recording.svelte';
import { Typing } from '../../lib/typing.svelte';
import { NEW_PART, draftOn, fittedId } from '../../lib/values';

export const COLUMNS = ['number', 'mass', 'spine', 'straight', 'turn', 'remark'] as const;
export type Column = (typeof COLUMNS)[number];

/** Drafts on the fitted arrow set; null for each when none is fitted. */
export const drafts = (readings: readonly EntryDraft['reading'][]): (EntryDraft | null)[] =>
  readings.map((reading) => draftOn(openRig.assessment, 'arrow_set', reading));

const inQuotes = (text: string) => `"${text.replaceAll('"', '""')}"`;

/** One row typed into fields. */
export class RowEntry extends Typing {
  constructor() {
    super('quiver', Object.fromEntries(COLUMNS.map((column) => [column, ''])));
  }

  /** True while nothing but a number is typed. */
  get blank(): boolean {
    return COLUMNS.every((column) => column === 'number' || !this.fields[column]?.trim());
  }

  /** The column a problem is about. */
  get at(): Column | null {
    if (!this.problem) return null;
    return COLUMNS.find((column) => column === this.problem?.field) ?? 'mass';
  }

  /** Send the row to be recorded; false when there is nothing to send it on. */
  record(): boolean {
    const set = fittedId(openRig.assessment, 'arrow_set') ?? NEW_PART;
    const number = this.fields.number?.trim() || `${recorder.nextArrow}`;
    const cells = { ...this.fields, number };
    const row = COLUMNS.map((column) =>
      inQuotes((cells as typeof this.fields)[column]?.trim() ?? ''),
    );
    const table = `${COLUMNS.join(';')}\n${row.join(';')}`;
    const subject = { kind: 'arrow_set' as const, id: set };
    void this.send(
      { do: 'row', table, subject, drafts: null },
      `Arrow ${number}`,
      Number(number) || null,
      { number },
    );
    return true;
  }
}

const PAUSE_MS = 250;

/** A pasted or imported table: read as it stands in the box, recorded when asked. */
export class TableImport extends Typing {
  read = new Asked<QuiverTable>();
  recording = new Recording();
  done = $state('');
  /** What the archer says the columns hold; null while they are taken as understood. */
  columns = $state.raw<ColumnAs[] | null>(null);
  /** The text that `read` is about. */
  #about = $state<string | null>(null);
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    super('quiver-table', { text: '' });
    if (!this.empty) void this.#look();
  }

  get text(): string {
    return this.fields.text ?? '';
  }

  /** What was read of the text as it stands now. */
  get table(): QuiverTable | null {
    return this.#about === this.text ? this.read.data : null;
  }

  type(text: string): void {
    this.set({ text });
  }

  protected override changed(): void {
    super.changed();
    this.columns = null;
    this.done = '';
    clearTimeout(this.#timer);
    if (this.empty) this.read.clear();
    else this.#timer = setTimeout(() => void this.#look(), PAUSE_MS);
  }

  /** Say what a column holds, or in which unit. */
  map(index: number, column: Partial<ColumnAs>): void {
    const now = this.columns ?? this.table?.columns.map(({ name, unit }) => ({ name, unit })) ?? [];
    this.columns = now.map((one, at) => (at === index ? { ...one, ...column } : one));
    void this.#look();
  }

  async #look(): Promise<void> {
    const { text, columns } = this;
    if (await this.read.ask(() => api.readQuiverTable(text, columns))) this.#about = text;
  }

  async take(file: File | undefined): Promise<void> {
    if (file) this.type(textOf(await file.arrayBuffer()));
  }

  /** Record the rows that could be read. */
  async record(): Promise<void> {
    const { table, text } = this;
    if (!table) return;
    const count = table.arrows.length;
    const says = `${count} arrow${count === 1 ? '' : 's'} from a table`;
    if (!(await this.recording.record(drafts(table.readings), 'arrow_set', says))) return;
    if (this.text !== text) return;
    if (!table.bad.length) this.clear();
    this.done = `${says} recorded.`;
  }
}

/** The text of a file, in whichever way it was written down. */
export function textOf(bytes: ArrayBuffer): string {
  const [first, second] = new Uint8Array(bytes.slice(0, 2));
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

export const inUse = (row: QuiverRow): boolean => !row.retired && row.safety !== 'cracked';
