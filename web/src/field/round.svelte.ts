/** A round: the table, the shots logged, and their way home. Kept in the browser at every step. */
import { Learner, type FieldTable, type Logged } from './learn';
import { shotsAsText } from './text';
import { asJotted, instant, perUnit } from './words';

/** A shot, and how far it has come. */
export interface Shot extends Logged {
  id: string;
  at: string;
  /** What it was shot with, as the text says it. */
  of: string;
  /** The shot as it can be jotted. */
  line: string;
  /** Sent at least once: the bench may have it although its answer never came. */
  tried: boolean;
  /** Recorded on the bench. */
  home: boolean;
  /** The table here has it already. */
  counted: boolean;
  /** Taken back: the id of what takes it back, until that is recorded too. */
  taken: string | null;
  /** To be recorded although it differs. */
  insisted: boolean;
  /** Why it waits for a choice, or was refused. */
  differs: string | null;
  refused: string | null;
}

interface Kept {
  format: number;
  table: FieldTable;
  shots: Shot[];
  arrows: number;
  guessed: boolean;
  notation: string | null;
}

type Link = 'asking' | 'here' | 'away' | 'carried';

const RETRY_MS = 4000;
/** The bench holds each question for a quarter of a second. */
const MOST_ASKED = 60;
/** Of what is kept: a table of another one is asked for anew. */
const FORMAT = 1;
const KEPT_MS = 14 * 24 * 3600 * 1000;

/** An id without `randomUUID`, which a page from a file may not have. */
function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(8));
  return Array.from(bytes, (one) => one.toString(16).padStart(2, '0')).join('');
}

export class Round {
  table = $state.raw<FieldTable | null>(null);
  shots = $state.raw<Shot[]>([]);
  arrows = $state(1);
  guessed = $state(true);
  notation = $state<string | null>(null);
  link = $state<Link>('asking');
  /** Why there is no table. */
  problem = $state('');
  /** False where the browser keeps nothing: then a closed page loses what was not given back. */
  keeps = $state(true);
  readonly rig: string;
  #carried: boolean;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #busy = false;

  readonly learner = $derived(
    this.table
      ? new Learner(
          this.table,
          this.shots.filter((one) => !one.counted && !one.taken && !one.refused),
        )
      : null,
  );
  readonly step = $derived(
    this.table?.steps.find((one) => one.notation === this.notation) ?? this.table?.steps[0] ?? null,
  );
  /** Shots that stand. */
  readonly standing = $derived(this.shots.filter((one) => !one.taken));
  readonly unsent = $derived(this.shots.filter((one) => !one.home && !one.taken && !one.refused));
  readonly toChoose = $derived(this.shots.filter((one) => one.differs && !one.home && !one.taken));
  readonly refused = $derived(this.shots.filter((one) => one.refused && !one.taken));

  constructor(rig: string, carried: FieldTable | null) {
    this.rig = rig;
    this.#carried = carried !== null;
    this.#begin(carried);
  }

  /** Begin once no other window of this browser keeps the same round. */
  #begin(carried: FieldTable | null): void {
    const begin = () => {
      this.#read();
      if (carried) {
        this.#take(carried);
        this.link = 'carried';
      } else {
        addEventListener('online', () => void this.sync());
        void this.sync();
      }
    };
    // a page from a file may have no locks; there it is alone
    if (!navigator.locks) return begin();
    void navigator.locks.request(this.#key, { ifAvailable: true }, (lock) => {
      if (lock) begin();
      else this.problem = 'The field helper is open in another window here. Go on there.';
      return lock ? new Promise<void>(() => {}) : undefined;
    });
  }

  /** Take in a table; shots it has heard of are home. */
  #take(table: FieldTable): void {
    this.table = table;
    this.#change(table.mark_ids, (one) => ({ ...one, home: true, counted: true }));
  }

  log(shot: Logged): void {
    const { table } = this;
    if (!table) return;
    const of = `of ${table.rig} with ${table.arrow_set ?? '-'} held ${table.anchor} ${table.hold}`;
    this.shots = [
      ...this.shots,
      {
        ...shot,
        id: newId(),
        at: instant(),
        of,
        line: jotted(shot, table),
        tried: false,
        home: false,
        counted: false,
        taken: null,
        insisted: false,
        differs: null,
        refused: null,
      },
    ];
    this.#changed();
  }

  takeBack(id: string): void {
    this.#change([id], (one) => ({ ...one, taken: newId() }));
    this.#changed();
  }

  /** Record a shot that differs all the same, now or once the bench answers. */
  insist(id: string): void {
    this.#change([id], (one) => ({ ...one, insisted: true, differs: null }));
    void this.sync();
  }

  choose(change: { arrows?: number; guessed?: boolean; notation?: string }): void {
    if (change.arrows) this.arrows = change.arrows;
    if (change.guessed !== undefined) this.guessed = change.guessed;
    if (change.notation) this.notation = change.notation;
    this.#keep();
  }

  /** Forget shots that are given back, and begin anew. */
  clear(): void {
    this.shots = [];
    this.#keep();
  }

  /** What a messenger or a file carries home. */
  text(shots: readonly Shot[] = this.standing): string {
    return shotsAsText(shots);
  }

  /** Bring shots home and ask for the table; quiet while nobody answers. */
  async sync(): Promise<void> {
    if (this.#carried || this.#busy) return;
    this.#busy = true;
    clearTimeout(this.#timer);
    try {
      // what was taken back after a sending without an answer is sent once more, to be taken back
      const fresh = this.shots.filter(
        (one) => !one.home && !one.refused && !one.differs && (!one.taken || one.tried),
      );
      if (fresh.length) await this.#send(fresh);
      await this.#sendTakings();
      await this.#ask();
      this.link = 'here';
    } catch {
      this.link = 'away';
    } finally {
      this.#busy = false;
    }
    const waits = this.shots.some((one) => !one.refused && !one.differs && !done(one));
    if (this.link === 'away' || waits) {
      this.#timer = setTimeout(() => void this.sync(), this.link === 'away' ? RETRY_MS : 0);
    }
  }

  async #send(shots: readonly Shot[]): Promise<void> {
    const also = shots.filter((one) => one.insisted).map((one) => one.id);
    const body = { text: this.text(shots), record: true, also };
    const ids = shots.map((one) => one.id);
    this.#change(ids, (one) => ({ ...one, tried: true }));
    const answer = await post(`/api/rigs/${this.rig}/field-shots`, body);
    if (!answer.ok) {
      const { reason } = (await answer.json()) as { reason: string };
      this.#change(ids, (one) => ({ ...one, refused: reason }));
      return;
    }
    const { lines, recorded } = (await answer.json()) as {
      lines: { id: string; state: string; why: string | null }[];
      recorded: string[];
    };
    for (const line of lines) {
      const home = recorded.includes(line.id) || line.state === 'here';
      this.#change([line.id], (one) => ({
        ...one,
        home,
        differs: !home && line.state === 'differs' ? line.why : null,
        refused: line.state === 'bad' ? line.why : null,
      }));
    }
  }

  async #sendTakings(): Promise<void> {
    for (const one of this.shots.filter((shot) => shot.home && shot.taken)) {
      const entries = [{ entry_id: one.id, id: one.taken }];
      // taken back on the bench meanwhile: that is what was wanted
      await post('/api/retractions', { entries, rig: this.rig });
      this.shots = this.shots.filter((shot) => shot.id !== one.id);
    }
    this.shots = this.shots.filter(
      (shot) => !shot.taken || (shot.tried && !shot.refused && !shot.differs),
    );
    this.#keep();
  }

  async #ask(): Promise<void> {
    const sent = this.shots.filter((one) => one.home).map((one) => one.id);
    const answer = await this.#table();
    if (answer.status >= 500) throw new Error(`${answer.status}`);
    if (!answer.ok) {
      const problem = (await answer.json()) as { reason: string; instruction: string };
      this.problem = `${problem.reason} ${problem.instruction}`;
      return;
    }
    this.problem = '';
    this.#take((await answer.json()) as FieldTable);
    this.#change(sent, (one) => ({ ...one, counted: true }));
  }

  /** Ask for the table until it is worked out; one that does not come counts as no answer. */
  async #table(): Promise<Response> {
    for (let times = 0; times < MOST_ASKED; times += 1) {
      const answer = await fetch(`/api/rigs/${this.rig}/field-table`);
      if (answer.status !== 202) return answer;
    }
    throw new Error('the table does not come');
  }

  #change(ids: readonly string[], change: (shot: Shot) => Shot): void {
    this.shots = this.shots.map((one) => (ids.includes(one.id) ? change(one) : one));
    this.#keep();
  }

  #changed(): void {
    if (this.#carried) this.shots = this.shots.filter((one) => !one.taken);
    this.#keep();
    void this.sync();
  }

  get #key(): string {
    return `lyrandis.field.${this.#carried ? 'carried.' : ''}${this.rig}`;
  }

  #read(): void {
    try {
      const kept = JSON.parse(localStorage.getItem(this.#key) ?? 'null') as Kept | null;
      if (!kept) return;
      if (kept.format === FORMAT) this.table = kept.table;
      const since = instant(KEPT_MS);
      this.shots = kept.shots.filter((one) => !one.home || one.at > since);
      this.arrows = kept.arrows;
      this.guessed = kept.guessed;
      this.notation = kept.notation;
    } catch {
      this.keeps = false;
    }
  }

  #keep(): void {
    const { table, shots, arrows, guessed, notation } = this;
    if (!table) return;
    const kept = { format: FORMAT, table, shots, arrows, guessed, notation };
    try {
      localStorage.setItem(this.#key, JSON.stringify(kept));
      this.keeps = true;
    } catch {
      this.keeps = false;
    }
  }
}

const done = (shot: Shot): boolean => shot.home && !shot.taken;

/** Post; a bench that is in trouble of its own counts as one that does not answer. */
async function post(path: string, body: unknown): Promise<Response> {
  const headers = { 'content-type': 'application/json' };
  const answer = await fetch(path, { method: 'POST', headers, body: JSON.stringify(body) });
  if (answer.status >= 500) throw new Error(`${answer.status}`);
  return answer;
}

/** A shot in the words of the jot line. */
function jotted(shot: Logged, table: FieldTable): string {
  const distance = Math.round((shot.distance_m / perUnit(table)) * 10) / 10;
  const where = `${shot.guessed ? 'guessed ' : ''}${distance}${table.unit}`;
  const struck =
    shot.struck ??
    `${Math.abs(shot.high_mm ?? 0) / 10}cm ${(shot.high_mm ?? 0) < 0 ? 'low' : 'high'}`;
  const arrows = `${shot.arrows} arrow${shot.arrows === 1 ? '' : 's'}`;
  return `crawl ${where} ${asJotted(shot.count, shot.notation as 'mm')} ${struck} ${arrows}`;
}
