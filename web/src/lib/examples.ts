/** Examples of what is typed, in the reader's units. */
import { preferences } from './preferences.svelte';
import { GRAINS_PER_GRAM, MM_PER_IN, NEWTONS_PER_LBF, SMALL_LENGTH_MM } from './units.gen';

const FRACTION = /^(?:(\d+(?:\.\d+)?)\s?)?(?:(\d+)\/(\d+))?$/;

/** A length as it is typed in inches (“27 3/8”), or what an archer in centimetres would type. */
export function lengthEg(inches: string): string {
  if (preferences.units === 'inch') return inches;
  const [, whole, over, under] = FRACTION.exec(inches) ?? [];
  const mm = (Number(whole ?? 0) + (over ? Number(over) / Number(under) : 0)) * MM_PER_IN;
  return mm < SMALL_LENGTH_MM ? `${mm.toFixed(0)}mm` : `${(mm / 10).toFixed(1)}cm`;
}

/** A draw weight in pounds, or in newtons. */
export const weightEg = (pounds: number): string =>
  preferences.units === 'metric' ? `${(pounds * NEWTONS_PER_LBF).toFixed(0)}N` : `${pounds} lb`;

/** A mass in grains, or in grams. */
export const massEg = (grains: number): string =>
  preferences.units === 'metric' ? `${(grains / GRAINS_PER_GRAM).toFixed(1)}g` : `${grains}gr`;

/** An example as it stands in our tables, what has a unit in braces: “{59} 16 strands”, “{24gr}”. */
export const eg = (example: string): string =>
  example.replace(/\{([^}]+)\}/g, (_, told: string) => {
    if (told.endsWith('gr')) return massEg(parseFloat(told));
    return told.endsWith('lb') ? weightEg(parseFloat(told)) : lengthEg(told);
  });
