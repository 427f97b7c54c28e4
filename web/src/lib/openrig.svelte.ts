/** The open rig as the page shows it: its assessment, and the geometry of the stages' pages. */
import { api, type Action, type Assessment, type PageOf, type Problem, type StageKey } from './api';
import { RevisionClock } from './revisions';

type Status = 'loading' | 'ready' | 'missing' | 'offline';

type Pages = { [K in StageKey]?: PageOf<K> };

class OpenRig {
  rig = $state<string | null>(null);
  assessment = $state.raw<Assessment | null>(null);
  /** Geometry of the stages' pages that was asked for, all of the assessment's revision. */
  pages = $state.raw<Pages>({});
  /** The stage whose pages are open: its geometry comes with every answer. */
  place = $state<StageKey | null>(null);
  status = $state<Status>('loading');
  problem = $state.raw<Problem | null>(null);
  /** A control that a finding or the next step asks for. */
  wanted = $state.raw<Pick<Action, 'stage' | 'control'> | null>(null);
  /** Counts the rigs opened one after another: what was meant for one visit ends with it. */
  visit = $state(0);
  readonly clock = new RevisionClock();

  /** The rig whose fetch began before its page was there. */
  #early: { rig: string; place: StageKey | null; done: Promise<void> } | null = null;
  /** Tags of the last answers, by the page they were about: the server says when they still hold. */
  #tags = new Map<StageKey | null, string>();

  /** Begin to fetch a rig while the code of its page is still on its way. */
  openEarly(rig: string, place: StageKey | null): void {
    this.place = place;
    this.#early = { rig, place, done: this.again(rig) };
  }

  /** Show a rig as it is now; one that was begun early is not fetched twice. */
  open(rig: string, place: StageKey | null = this.place): Promise<void> {
    this.place = place;
    const early = this.#early;
    this.#early = null;
    return early?.rig === rig && early.place === place ? early.done : this.again(rig);
  }

  /** Fetch a rig, with what stands open of it. */
  async again(rig: string): Promise<void> {
    if (this.rig !== rig) {
      this.rig = rig;
      this.assessment = null;
      this.pages = {};
      this.#tags.clear();
      this.visit += 1;
    }
    if (!this.assessment) this.status = 'loading';
    const place = this.place;
    const known = place === null ? this.assessment !== null : this.pages[place] !== undefined;
    const tag = known ? (this.#tags.get(place) ?? null) : null;
    const asked = this.clock.ask();
    const { data, problem } = await api.rig(rig, place, tag);
    if (this.rig !== rig) return;
    if (problem) {
      this.problem = problem;
      this.status = NOT_THERE.includes(problem.status) ? 'missing' : 'offline';
    } else if (data.assessment) this.show(rig, data.assessment, asked, place, data.tag);
    else this.status = 'ready';
  }

  stage(key: string) {
    return this.assessment?.stages.find((stage) => stage.key === key) ?? null;
  }

  /** Show an answer, unless it is about another rig, or was overtaken on its way. */
  show(
    rig: string,
    assessment: Assessment,
    asked: number,
    place: StageKey | null,
    tag: string | null,
  ): void {
    const before = this.rig === rig ? this.assessment : null;
    const { revision } = assessment;
    const overtaken = this.clock.isOvertaken(asked, revision, before?.revision ?? 0);
    this.clock.answered(rig, revision, overtaken || this.rig !== rig);
    if (this.rig !== rig || overtaken) return;
    const same =
      before?.revision === revision &&
      before.entry_count === assessment.entry_count &&
      before.reckoning === assessment.reckoning;
    const { page } = assessment;
    this.pages = { ...(same ? this.pages : {}), ...(page ? { [page.stage]: page } : {}) };
    if (!same) {
      this.assessment = assessment;
      this.#tags.clear();
    }
    if (tag) this.#tags.set(place, tag);
    this.clock.show();
    this.problem = null;
    this.status = 'ready';
  }
}

const NOT_THERE: readonly number[] = [404, 422];

export const openRig = new OpenRig();
