/** A distance as it is typed: metres, yards, feet or paces. */
import { M_PER_FT } from '../../lib/units';
import { preferences } from '../../lib/preferences.svelte';
import type { Problem } from '../../lib/api';

const PACE_M = 0.76;
const PER: [RegExp, number][] = [
  [/^(m|metres?|meters?)$/, 1],
  [/^(yds?|y|yards?)$/, 3 * M_PER_FT],
  [/^(ft|feet|foot)$/, M_PER_FT],
  [/^(paces?|steps?)$/, PACE_M],
];

/** Metres of what is typed; null where it is no distance, or its unit is missing. */
export function metresOf(text: string): number | null {
  const [, number, unit = ''] = /^\s*(\d+(?:[.,]\d+)?)\s*([a-z]*)\s*$/i.exec(text) ?? [];
  if (number === undefined) return null;
  const per = PER.find(([words]) => words.test(unit.toLowerCase()))?.[1];
  const factor = per ?? (unit === '' && preferences.units !== 'inch' ? 1 : null);
  return factor === null ? null : Number(number.replace(',', '.')) * factor;
}

export const NO_DISTANCE: Problem = {
  type: 'about:blank',
  title: 'no distance',
  status: 422,
  code: 'missing_number',
  reason: 'The distance is missing, or its unit.',
  instruction: 'Type it with its unit, e.g. 18 m, 20 yd or 3 paces.',
  guesses: [],
};
