/** A recording that was brought and is being listened to, before anything of it is recorded. */
import { openRig } from '../../lib/openrig.svelte';
import { api, type HeardSound, type KeptSound, type LongAnswer, type Problem } from '../../lib/api';
import { GIVEN_UP, poll } from '../../lib/poll';
import { keptSounds } from './kept.svelte';
import { SoundTrouble, type Brought } from './wave';

/** What went wrong in the page itself, said as the bench says it. */
export function troubleOf(error: unknown): Problem {
  const known = error instanceof SoundTrouble;
  return {
    type: 'about:blank',
    title: 'no sound file',
    status: 422,
    code: 'not_a_sound',
    reason: known ? error.reason : 'That could not be read.',
    instruction: known ? error.instruction : 'Choose it again, or bring another.',
    guesses: [],
  };
}

export type Question = (rig: string, kept: KeptSound) => Promise<LongAnswer<HeardSound>>;

export class Listening {
  /** What was brought and did not reach the bench. */
  unsent = $state.raw<Brought | null>(null);
  kept = $state.raw<KeptSound | null>(null);
  found = $state.raw<HeardSound | null>(null);
  /** How far it has come, 0 to 1; null while nothing is on its way. */
  share = $state<number | null>(null);
  problem = $state.raw<Problem | null>(null);
  #turn = 0;
  /** Brought just now, and in nobody's record yet. */
  #fresh = false;

  /** Keep what was brought on the bench, then listen to it. */
  async bring(brought: Promise<Brought> | Brought, question: Question): Promise<void> {
    const turn = ++this.#turn;
    this.problem = null;
    this.found = this.kept = null;
    this.share = 0;
    try {
      const sound = await brought;
      const { data: kept, problem } = await api.keepSound(sound.data, sound.name, sound.lossy);
      if (turn !== this.#turn) return;
      // no answer is no refusal: it may be sent again
      this.unsent = problem?.status === 0 || (problem?.status ?? 0) >= 500 ? sound : null;
      if (problem) return this.#fail(problem);
      this.kept = kept;
      this.#fresh = true;
    } catch (error) {
      if (turn === this.#turn) this.#fail(troubleOf(error));
      return;
    }
    await this.ask(question);
  }

  /** Send anew what did not reach the bench. */
  again(question: Question): Promise<void> {
    return this.unsent ? this.bring(this.unsent, question) : this.ask(question);
  }

  /** Take one that is kept already; `fresh` where it was made just now. */
  async take(kept: KeptSound, question: Question, fresh = false): Promise<void> {
    this.#turn += 1;
    this.#fresh = fresh;
    this.kept = kept;
    this.found = null;
    await this.ask(question);
  }

  /** Listen, and ask again until it is through; only the latest question counts. */
  async ask(question: Question): Promise<void> {
    const turn = ++this.#turn;
    const { kept } = this;
    const { rig } = openRig;
    if (!kept || !rig) return;
    this.share ??= 0;
    this.problem = null;
    const answer = await poll({
      ask: () => question(rig, kept),
      share: (came) => came.share ?? null,
      wanted: () => turn === this.#turn,
      told: (share) => (this.share = share),
    });
    if (answer === null) return;
    const { data, problem } = answer === 'given up' ? { problem: GIVEN_UP } : answer;
    if (problem) return this.#fail(problem);
    this.found = data ?? null;
    this.share = null;
  }

  /** Not this one: what was brought just now is forgotten with its file. */
  async dismiss(): Promise<void> {
    const { kept } = this;
    const fresh = this.#fresh;
    this.clear();
    if (kept && fresh) await keptSounds.forget(kept.mark);
  }

  clear(): void {
    this.#turn += 1;
    this.#fresh = false;
    this.kept = this.found = this.problem = this.share = this.unsent = null;
  }

  #fail(problem: Problem): void {
    this.problem = problem;
    this.share = null;
  }
}
