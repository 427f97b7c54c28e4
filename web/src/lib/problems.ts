/** Problems the page itself finds. */
import type { Problem, QuiverTable, SubjectKind } from './api';

export function own(
  code: Problem['code'],
  title: string,
  reason: string,
  instruction: string,
  guesses: Problem['guesses'] = [],
): Problem {
  return { type: 'about:blank', title, status: 422, code, reason, instruction, guesses };
}

/** The rig has no such part: nothing to record it on. */
export function nothingFitted(part: SubjectKind | null): Problem {
  const noun = part?.replace('_', ' ') ?? 'such part';
  const article = /^[aeiou]/.test(noun) ? 'an' : 'a';
  return own(
    'nothing_fitted',
    'nothing fitted',
    `This rig has no ${noun} fitted.`,
    part ? `Fit ${article} ${noun} first, under Fitted now.` : 'Fit one first, under Fitted now.',
  );
}

/** A row of a table that cannot be read. */
export function badRow(bad: QuiverTable['bad'][number]): Problem {
  const problem = own('bad_row', 'a row that cannot be read', bad.reason, bad.instruction);
  return { ...problem, field: bad.column ?? 'mass' };
}
