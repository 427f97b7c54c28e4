/** The three questions of a first run: read as they are typed, and the rig they make. */
import { untrack } from 'svelte';
import {
  api,
  type FirstAnswers,
  type FirstRunOut,
  type Problem,
  type RigDraft,
} from '../../lib/api';
import { Asked } from '../../lib/asked.svelte';
import { FAMILIES } from '../../lib/choices';
import { keep, kept } from '../../lib/kept';
import { freeName, sameName } from '../../lib/names';
import { preferences } from '../../lib/preferences.svelte';
import { own } from '../../lib/problems';
import { MM_PER_IN, sixteenths } from '../../lib/units';

/** Fields that are typed. */
export type Typed = 'draw' | 'span' | 'tape' | 'mark' | 'length' | 'mass' | 'spine';
type Field = keyof FirstRunOut['wrong'] & string;

const NAME = 'first-run.1';
const TYPED: readonly Typed[] = ['draw', 'span', 'tape', 'mark', 'length', 'mass', 'spine'];
const PAUSE_MS = 90;

const START = {
  draw: '',
  draw_to: 'trade' as NonNullable<FirstAnswers['draw_to']>,
  marked: false,
  span: '',
  tape: '',
  family: null as FirstAnswers['family'] | null,
  mark: '',
  length: '',
  mass: '',
  mass_told: false,
  spine: '',
  rigName: '',
  archerName: '',
  /** The archer here of the same name, and whether it is the same person: null while that is open. */
  namesake: null as string | null,
  same: null as boolean | null,
  request: '',
};

export const DRAW_TO = [
  ['trade', 'grip + 1¾', 'grip + 4.4 cm'],
  ['pivot', 'grip itself', 'grip itself'],
  ['back', 'bow’s back', 'bow’s back'],
  ['unsure', 'not sure', 'not sure'],
] as const;

/** Where on the trade datum a length that is typed begins: the grip itself adds so much. */
const OFFSET_MM: Partial<Record<typeof START.draw_to, number>> = { pivot: 1.75 * MM_PER_IN };

export class FirstRun {
  answers = $state({ ...START, ...kept<typeof START>(NAME) });
  asked = new Asked<FirstRunOut>();
  /** A problem of making it: a name that is taken, no answer. */
  problem = $state.raw<{ field: string; problem: Problem } | null>(null);
  busy = $state(false);
  /** Where the draw is held while it is dragged, before the answer is there [mm, trade datum]. */
  held = $state<number | null>(null);
  #timer = 0;

  constructor() {
    this.answers.request ||= crypto.randomUUID();
    $effect(() => keep(NAME, $state.snapshot(this.answers)));
    $effect(() => {
      const body = this.#body;
      clearTimeout(this.#timer);
      this.#timer = window.setTimeout(
        () => void this.#ask(body),
        untrack(() => (this.asked.data ? PAUSE_MS : 0)),
      );
    });
  }

  get #body(): FirstAnswers {
    const { draw, draw_to, marked, span, tape, family, mark, length, mass, mass_told, spine } =
      this.answers;
    const told = {
      draw,
      draw_to,
      marked,
      span,
      tape,
      family,
      mark,
      length,
      mass,
      mass_told,
      spine,
    };
    return { ...told, units: preferences.units };
  }

  async #ask(body: FirstAnswers): Promise<void> {
    if (await this.asked.ask(() => api.firstRun(body))) this.held = null;
  }

  /** Read what stands in the fields now, whatever is still on its way. */
  settle = async (): Promise<void> => {
    clearTimeout(this.#timer);
    await this.#ask(this.#body);
  };

  /** What is wrong with a field, as long as something stands in it. */
  wrong(field: Field): FirstRunOut['wrong'][Field] | null {
    return this.asked.data?.wrong[field] ?? null;
  }

  number(key: FirstRunOut['numbers'][number]['key']) {
    return this.asked.data?.numbers.find((one) => one.key === key) ?? null;
  }

  /** The draw that is drawn, on the trade datum [mm]. */
  get draw_mm(): number {
    return this.held ?? this.number('draw')?.figure?.value ?? 28 * MM_PER_IN;
  }

  /** True where nobody told it yet. */
  get supposed(): boolean {
    return this.held === null && (this.number('draw')?.assumed ?? true);
  }

  /** Put the draw where it is dragged to, said in the reader's units and to what it is measured. */
  hold(trade_mm: number): void {
    this.held = trade_mm;
    const typed = trade_mm - (OFFSET_MM[this.answers.draw_to] ?? 0);
    this.answers.draw =
      preferences.units === 'inch' ? sixteenths(typed) : `${(typed / 10).toFixed(1)} cm`;
  }

  /** Take up another meaning of what was typed: it goes to its own field. */
  meant(field: Field, guess: string): void {
    const found = this.wrong(field);
    const at = found?.problem.guesses?.findIndex((one) => one.text === guess) ?? -1;
    const to = found?.guesses_for[at];
    if (!to || !isTyped(to.question)) return;
    if (isTyped(field) && to.question !== field) this.answers[field] = '';
    this.answers[to.question] = to.text;
    document.getElementById(`first-${to.question}`)?.focus();
  }

  /** The first field that cannot be read; made is only what can. */
  get firstWrong(): string | null {
    return TYPED.find((field) => this.wrong(field)) ?? null;
  }

  /** What the rig is called where nobody names it. */
  get bowName(): string {
    const family = FAMILIES.find(([key]) => key === this.answers.family)?.[1] ?? 'my bow';
    return `${family[0]?.toUpperCase()}${family.slice(1)}`;
  }

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

  #told(part: 'archer' | 'bow' | 'arrow_set', run: Pick<FirstRunOut, 'answered'>) {
    return Object.values(run.answered)
      .filter((one) => one.subject === part)
      .map(({ reading, source, as_typed }) => ({ reading, source, as_typed }));
  }

  /** Make the rig; return its id, or null with the problem shown. */
  make = async (alike = false): Promise<string | null> => {
    if (this.busy) return null;
    this.problem = null;
    this.busy = true;
    const made = await this.#make(alike);
    this.busy = false;
    return made;
  };

  async #make(alike: boolean): Promise<string | null> {
    if (!(await this.#whoItIs())) return null;
    // what is recorded is what stands in the fields now, not what stood there a moment ago
    const read = await api.firstRun(this.#body);
    if (read.problem) return this.#refuse(read.problem);
    // names nobody typed are numbered; typed ones are the archer's own affair
    const [rigs, parts] = await Promise.all([api.rigs(), api.parts()]);
    const free = (name: string, kind: string) =>
      freeName(
        name,
        (parts.data ?? []).filter((part) => part.kind === kind).map((part) => part.name),
      );
    const { rigName, archerName, namesake, same } = this.answers;
    const rigNames = (rigs.data ?? []).map((rig) => rig.name);
    const draft = {
      name: rigName.trim() || freeName(this.bowName, rigNames),
      alike,
      archer: {
        name: archerName.trim() || free('Archer', 'archer'),
        readings: this.#told('archer', read.data),
        ...(same === null || !namesake ? {} : same ? { same_as: namesake } : { alike: true }),
      },
      bow: { name: free(this.bowName, 'bow'), readings: this.#told('bow', read.data) },
      arrow_set: {
        name: free('First arrows', 'arrow_set'),
        readings: this.#told('arrow_set', read.data),
      },
      request: this.answers.request,
    } as RigDraft;
    const { data, problem } = await api.createRig(draft);
    if (problem) return this.#refuse(problem);
    this.answers = { ...START };
    keep(NAME, null);
    return data.rig ?? null;
  }

  #refuse(problem: Problem): null {
    this.problem = { field: 'rig', problem };
    return null;
  }
}

function isTyped(field: string): field is Typed {
  return (TYPED as readonly string[]).includes(field);
}
