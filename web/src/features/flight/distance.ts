/** A distance as it is typed, in the words and units the jot line knows. */
import { DISTANCE_UNITS_M } from '../../lib/units.gen';
import { preferences } from '../../lib/preferences.svelte';
import type { Problem } from '../../lib/api';

const PER: Record<string, number | undefined> = DISTANCE_UNITS_M;

/** Metres of what is typed; null where it is no distance, or its unit is missing. */
export function metresOf(text: string): number | null {
  const [, number, unit = ''] = /^\s*(\d+(?:[.,]\d+)?)\s*([a-z]*)\s*$/i.exec(text) ?? [];
  if (number === undefined) return null;
  const factor =
    PER[unit.toLowerCase()] ?? (unit === '' && preferences.units !== 'inch' ? 1 : null);
  return factor === null ? null : Number(number.replace(',', '.')) * factor;
}

export const NO_DISTANCE: Problem = {
  type: 'about:blank',
  title: 'no distance',
  status: 422,
  code: 'missing_slot',
  reason: 'The distance is missing, or its unit.',
  instruction: 'Type it with its unit, e.g. 18 m, 20 yd or 3 paces.',
  guesses: [],
};
