/** The three questions of a first run, and the rig they make. */
import { api, type ParsedJot, type Problem, type RigDraft } from '../../lib/api';
import { FAMILIES } from '../../lib/choices';

type First = { reading: ParsedJot['reading']; source?: ParsedJot['source']; as_typed?: string };

export const DRAW_WAYS = [
  ['draw', 'Marked on an arrow at full draw'],
  ['draw said', 'I was told, or remember'],
  ['tape', 'Tape, fingertip to shoulder hollow'],
  ['span', 'Arm span'],
] as const;

export class FirstRun {
  step = $state(0);
  rigName = $state('');
  archerName = $state('');
  drawWay = $state<string>('draw said');
  draw = $state('');
  family = $state<string>('hunting_recurve');
  mark = $state('');
  length = $state('');
  mass = $state('');
  problem = $state.raw<{ field: string; problem: Problem } | null>(null);
  busy = $state(false);
  #firsts: { archer: First[]; bow: First[]; arrow_set: First[] } = {
    archer: [],
    bow: [],
    arrow_set: [],
  };

  /** Read one field's jot line; on a problem keep everything typed and say it beside the field. */
  async #read(field: string, line: string): Promise<First | null> {
    const { data, problem } = await api.parse(line, null, null);
    if (problem) {
      this.problem = { field, problem };
      return null;
    }
    return { reading: data.reading, source: data.source, as_typed: line };
  }

  async #readAll(lines: [field: string, line: string][]): Promise<First[] | null> {
    const found: First[] = [];
    for (const [field, line] of lines) {
      const first = await this.#read(field, line);
      if (!first) return null;
      found.push(first);
    }
    return found;
  }

  async #answer(part: 'archer' | 'bow' | 'arrow_set', lines: [string, string][]): Promise<boolean> {
    this.problem = null;
    this.busy = true;
    const found = await this.#readAll(lines);
    this.busy = false;
    if (!found) return false;
    this.#firsts[part] = found;
    this.step += 1;
    return true;
  }

  answerDraw = (): Promise<boolean> =>
    this.#answer('archer', [['draw', `${this.drawWay} ${this.draw}`]]);
  skipDraw = (): Promise<boolean> => this.#answer('archer', [['draw', 'draw said 28 ?']]);

  answerBow = (): Promise<boolean> => {
    const lines: [string, string][] = [
      ['family', `family ${this.family.replaceAll('_', ' ')}`],
      ['mark', `mark ${this.mark}`],
    ];
    if (this.length.trim()) lines.push(['length', `bow ${this.length}`]);
    return this.#answer('bow', lines);
  };
  skipBow = (): Promise<boolean> =>
    this.#answer('bow', [
      ['family', 'family hunting recurve ?'],
      ['mark', 'mark 40 @ 28 ?'],
    ]);

  answerArrow = (): Promise<boolean> => this.#answer('arrow_set', [['mass', `arrow ${this.mass}`]]);
  skipArrow = (): Promise<boolean> => this.#answer('arrow_set', [['mass', 'arrow 400gr ?']]);

  back(): void {
    this.problem = null;
    this.step = Math.max(0, this.step - 1);
  }

  /** Make the rig; return its id, or null with the problem shown. */
  async make(): Promise<string | null> {
    const family = FAMILIES.find(([key]) => key === this.family)?.[1] ?? 'bow';
    const bowName = `${family[0]?.toUpperCase()}${family.slice(1)}`;
    const draft = {
      name: this.rigName.trim() || bowName,
      archer: { name: this.archerName.trim() || 'Archer', readings: this.#firsts.archer },
      bow: { name: bowName, readings: this.#firsts.bow },
      arrow_set: { name: 'First arrows', readings: this.#firsts.arrow_set },
    } as RigDraft;
    this.busy = true;
    const { data, problem } = await api.createRig(draft);
    this.busy = false;
    if (problem) {
      this.problem = { field: 'rig', problem };
      return null;
    }
    return data.rig ?? null;
  }
}
