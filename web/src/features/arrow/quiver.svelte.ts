/** Entering arrows by the row: read by the server as a table, recorded as entries. */
import {
  api,
  type EntryDraft,
  type Problem,
  type QuiverRow,
  type QuiverTable,
} from '../../lib/api';
import { bench } from '../../lib/bench.svelte';
import { draftOn } from '../../lib/values';

export const COLUMNS = ['number', 'mass', 'spine', 'straight', 'turn', 'remark'] as const;
export type Column = (typeof COLUMNS)[number];

/** Drafts on the fitted arrow set, or null when none is fitted. */
export function drafts(readings: EntryDraft['reading'][]): EntryDraft[] | null {
  const made = readings.map((reading) => draftOn(bench.assessment, 'arrow_set', reading));
  return made.every((draft) => draft !== null) ? made : null;
}

export const NO_SET: Problem = {
  type: 'about:blank',
  title: 'nothing fitted',
  status: 422,
  code: 'nothing_fitted',
  reason: 'This rig has no arrows fitted.',
  instruction: 'Fit an arrow set first, under Fitted now.',
  guesses: [],
};

export async function recordReadings(
  readings: EntryDraft['reading'][],
  says: string,
): Promise<Problem | null> {
  const made = drafts(readings);
  return made ? bench.record(made, says) : NO_SET;
}

const inQuotes = (text: string) => `"${text.replaceAll('"', '""')}"`;

/** One row typed into fields. */
export class RowEntry {
  cells = $state<Record<Column, string>>({
    number: '',
    mass: '',
    spine: '',
    straight: '',
    turn: '',
    remark: '',
  });
  problem = $state.raw<Problem | null>(null);
  at = $state<Column | null>(null);

  get empty(): boolean {
    return COLUMNS.every((column) => column === 'number' || !this.cells[column].trim());
  }

  /** Record the row; true when it was. Nothing typed is lost when it was not. */
  async record(number: number): Promise<boolean> {
    const cells = { ...this.cells, number: this.cells.number.trim() || `${number}` };
    const text = `${COLUMNS.join(';')}\n${COLUMNS.map((c) => inQuotes(cells[c].trim())).join(';')}`;
    const { data, problem } = await api.readQuiverTable(text);
    if (problem) return this.#refuse(problem, null);
    const bad = data.bad[0];
    if (bad) {
      return this.#refuse(
        { ...NO_SET, code: 'bad_row', reason: bad.reason, instruction: bad.instruction },
        (bad.column as Column | null) ?? 'mass',
      );
    }
    const refused = await recordReadings(data.readings, `Arrow ${cells.number}`);
    if (refused) return this.#refuse(refused, null);
    for (const column of COLUMNS) this.cells[column] = '';
    this.problem = null;
    this.at = null;
    return true;
  }

  #refuse(problem: Problem, at: Column | null): false {
    this.problem = problem;
    this.at = at;
    return false;
  }
}

/** A pasted or imported table: read first, recorded when asked. */
export class TableImport {
  text = $state('');
  table = $state.raw<QuiverTable | null>(null);
  problem = $state.raw<Problem | null>(null);
  done = $state('');

  async read(): Promise<void> {
    this.done = '';
    const { data, problem } = await api.readQuiverTable(this.text);
    this.table = data ?? null;
    this.problem = problem ?? null;
  }

  async take(file: File | undefined): Promise<void> {
    if (!file) return;
    this.text = await file.text();
    await this.read();
  }

  /** Record the rows that could be read. */
  async record(): Promise<void> {
    const table = this.table;
    if (!table) return;
    const count = table.arrows.length;
    const says = `${count} arrow${count === 1 ? '' : 's'} from a table`;
    this.problem = await recordReadings(table.readings, says);
    if (this.problem) return;
    this.done = `${says} recorded.`;
    this.table = null;
    if (!table.bad.length) this.text = '';
  }
}

export const inUse = (row: QuiverRow): boolean => !row.retired && row.safety !== 'cracked';
