/** Asking again until an answer is there: one way for all that takes long, and it has an end. */
import type { Answer, LongAnswer, Problem } from './api';

const AGAIN_MS = 100;
/** Longer than anything takes that does not stand still. */
const MOST_MS = 120_000;

export const GIVEN_UP: Problem = {
  type: 'about:blank',
  title: 'not there yet',
  status: 504,
  code: 'offline',
  reason: 'This takes longer than it should.',
  instruction: 'Ask again in a moment; if it stays, restart Lyrandis.',
  guesses: [],
};

export interface Polling<T> {
  ask: () => Promise<T>;
  /** How far it has come, 0 to 1; null once it is there. */
  share: (answer: T) => number | null;
  /** False once nobody waits for it any more. */
  wanted: () => boolean;
  told?: (share: number) => void;
  every_ms?: number;
  most_ms?: number;
}

/** Ask until the answer is there; null where nobody waits any more, or it came to no end. */
export async function poll<T>(polling: Polling<T>): Promise<T | 'given up' | null> {
  const { ask, share, wanted, told, every_ms = AGAIN_MS, most_ms = MOST_MS } = polling;
  const end = Date.now() + most_ms;
  for (;;) {
    const answer = await ask();
    if (!wanted()) return null;
    const come = share(answer);
    if (come === null) return answer;
    told?.(come);
    if (Date.now() > end) return 'given up';
    await new Promise((done) => setTimeout(done, every_ms));
    if (!wanted()) return null;
  }
}

/** Ask for what takes long until it is there, whoever waits. */
export async function settled<T>(ask: () => Promise<LongAnswer<T>>): Promise<Answer<T>> {
  const answer = await poll({ ask, share: (came) => came.share ?? null, wanted: () => true });
  if (answer === null || answer === 'given up' || answer.share !== undefined) {
    return { problem: GIVEN_UP };
  }
  return answer;
}
