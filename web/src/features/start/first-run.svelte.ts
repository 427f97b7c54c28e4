/** The three questions of a first run, and the rig they make. */
import { api, type ParsedJot, type Problem, type RigDraft } from '../../lib/api';
import { FAMILIES } from '../../lib/choices';
import { keep, kept } from '../../lib/kept';
import { freeName, sameName } from '../../lib/names';
import { own } from '../../lib/problems';

type First = { reading: ParsedJot['reading']; source?: ParsedJot['source']; as_typed?: string };

export const DRAW_WAYS = [
  ['draw', 'Marked on an arrow at full draw'],
  ['draw said', 'I was told, or remember'],
  ['tape', 'Tape, fingertip to shoulder hollow'],
  ['span', 'Arm span'],
] as const;

export const ARROW_WAYS = [
  ['weighed', 'Its mass, on a scale'],
  ['told', 'Its mass, told or from a list'],
  ['spine', 'The number on the shaft'],
] as const;

const NAME = 'first-run';
const START = {
  step: 0,
  rigName: '',
  archerName: '',
  /** The archer here of the same name, and whether it is the same person: null while that is open. */
  namesake: null as string | null,
  same: null as boolean | null,
  drawWay: 'draw said',
  draw: '',
  family: 'hunting_recurve',
  mark: '',
  length: '',
  arrowWay: 'weighed',
  mass: '',
  request: '',
  firsts: { archer: [] as First[], bow: [] as First[], arrow_set: [] as First[] },
};

export class FirstRun {
  answers = $state({ ...START, ...kept<typeof START>(NAME) });
  problem = $state.raw<{ field: string; problem: Problem } | null>(null);
  busy = $state(false);

  constructor() {
    this.answers.request ||= crypto.randomUUID();
    $effect(() => keep(NAME, $state.snapshot(this.answers)));
  }

  get step(): number {
    return this.answers.step;
  }

  /** Read one field's jot line; on a problem keep everything typed and say it beside the field. */
  async #read(field: string, line: string): Promise<First | null> {
    const mark = this.answers.firsts.bow.find(
      ({ reading }) => reading.kind === 'bow_mark',
    )?.reading;
    const weight = mark?.kind === 'bow_mark' ? mark.draw_weight_lbf : null;
    const { data, problem } = await api.parse(line, null, null, weight);
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
    this.answers.firsts[part] = found;
    this.answers.step += 1;
    return true;
  }

  answerDraw = async (): Promise<boolean> =>
    (await this.#whoItIs()) &&
    this.#answer('archer', [['draw', `${this.answers.drawWay} ${this.answers.draw}`]]);
  skipDraw = async (): Promise<boolean> =>
    (await this.#whoItIs()) && this.#answer('archer', [['draw', 'draw said 28 ?']]);

  /** Ask whether an archer of that name is the one who is here; false while that is open. */
  async #whoItIs(): Promise<boolean> {
    const { archerName } = this.answers;
    if (!archerName.trim()) {
      this.answers.namesake = null;
      return true;
    }
    const { data } = await api.subjects('archer');
    const here = data?.find((one) => sameName(one.name, archerName));
    if (here?.id !== this.answers.namesake) this.answers.same = null;
    this.answers.namesake = here?.id ?? null;
    if (!here || this.answers.same !== null) return true;
    this.problem = {
      field: 'name',
      problem: own(
        'name_taken',
        'another one is called the same',
        `There is an archer called “${here.name}” already.`,
        'Is it the same person?',
        [
          { text: 'same', says: 'Yes, the same' },
          { text: 'other', says: 'No, another one' },
        ],
      ),
    };
    return false;
  }

  /** Say whether the archer is the one of that name who is here. */
  whoIs(answer: string): void {
    this.problem = null;
    this.answers.same = answer === 'same';
  }

  answerBow = (): Promise<boolean> => {
    const lines: [string, string][] = [
      ['family', `family ${this.answers.family.replaceAll('_', ' ')}`],
      ['mark', `mark ${this.answers.mark}`],
    ];
    if (this.answers.length.trim()) lines.push(['length', `bow ${this.answers.length}`]);
    return this.#answer('bow', lines);
  };
  skipBow = (): Promise<boolean> =>
    this.#answer('bow', [
      ['family', 'family hunting recurve ?'],
      ['mark', 'mark 40 @ 28 ?'],
    ]);

  answerArrow = async (): Promise<boolean> => {
    const { arrowWay, mass } = this.answers;
    if (arrowWay === 'spine') {
      return this.#answer('arrow_set', [
        ['mass', `spine ${mass.replace(/^\s*spine\s*/i, '')}`],
        ['mass', 'arrow 400gr ?'],
      ]);
    }
    if (!(await this.#answer('arrow_set', [['mass', `arrow ${mass}`]]))) return false;
    const [first] = this.answers.firsts.arrow_set;
    if (first) first.source = arrowWay === 'told' ? 'told' : 'weighed';
    return true;
  };

  /** Take up one of the meanings a number was questioned for. */
  meant(text: string): void {
    this.problem = null;
    this.answers.arrowWay = text.startsWith('spine') ? 'spine' : this.answers.arrowWay;
    this.answers.mass = text.replace(/^(spine|arrow) /, '');
  }

  skipArrow = (): Promise<boolean> => this.#answer('arrow_set', [['mass', 'arrow 400gr ?']]);

  back(): void {
    this.problem = null;
    this.answers.step = Math.max(0, this.step - 1);
  }

  /** Make the rig; return its id, or null with the problem shown. */
  async make(alike = false): Promise<string | null> {
    const family = FAMILIES.find(([key]) => key === this.answers.family)?.[1] ?? 'bow';
    const bowName = `${family[0]?.toUpperCase()}${family.slice(1)}`;
    const firsts = $state.snapshot(this.answers.firsts);
    const { rigName, archerName, namesake, same } = this.answers;
    this.busy = true;
    // names nobody typed are numbered; typed ones are the archer's own affair
    const [rigs, parts] = await Promise.all([api.rigs(), api.parts()]);
    const free = (name: string, kind: string) =>
      freeName(
        name,
        (parts.data ?? []).filter((part) => part.kind === kind).map((part) => part.name),
      );
    const draft = {
      name:
        rigName.trim() ||
        freeName(
          bowName,
          (rigs.data ?? []).map((rig) => rig.name),
        ),
      alike,
      archer: {
        name: archerName.trim() || free('Archer', 'archer'),
        readings: firsts.archer,
        ...(same === null || !namesake ? {} : same ? { same_as: namesake } : { alike: true }),
      },
      bow: { name: free(bowName, 'bow'), readings: firsts.bow },
      arrow_set: { name: free('First arrows', 'arrow_set'), readings: firsts.arrow_set },
      request: this.answers.request,
    } as RigDraft;
    const { data, problem } = await api.createRig(draft);
    this.busy = false;
    if (problem) {
      this.problem = { field: 'rig', problem };
      this.answers.step = 2;
      return null;
    }
    this.answers = { ...START, firsts: { archer: [], bow: [], arrow_set: [] } };
    keep(NAME, null);
    return data.rig ?? null;
  }
}
