/** Saying stored figures (mm, lbf, gr) in the archer's units. The core's `units.py` is the model. */
import type { components } from './api.gen';
import { inWords } from './days';
import { LEAST_BOW_LBF, MM_PER_IN, SCALES, SMALL_LENGTH_MM, SPINE_THOUSANDTHS } from './units.gen';

export { GRAINS_PER_GRAM, M_PER_FT, MM_PER_IN, NEWTONS_PER_LBF } from './units.gen';

export type Figure = components['schemas']['Figure'];
export type Phrase = components['schemas']['Phrase'];
export type UnitSet = 'inch' | 'centimetre' | 'metric';

export const UNIT_SETS: Record<UnitSet, string> = {
  inch: 'in · lb · gr',
  centimetre: 'cm · lb · gr',
  metric: 'cm · N · g',
};

const SIXTEENTH_MM = MM_PER_IN / 16;

export function sixteenths(lengthMm: number): string {
  const count = Math.floor(Math.abs(lengthMm) / SIXTEENTH_MM + 0.5);
  const whole = Math.floor(count / 16);
  const rest = count % 16;
  const sign = lengthMm < 0 && count > 0 ? '-' : '';
  if (rest === 0) return sign + whole;
  const divisor = [8, 4, 2, 1].find((d) => rest % d === 0) ?? 1;
  const fraction = `${rest / divisor}/${16 / divisor}`;
  return sign + (whole ? `${whole} ${fraction}` : fraction);
}

function scale(value: number, unit: Figure['unit'], units: UnitSet): [number, number, string] {
  if (unit === 'mm' && Math.abs(value) < SMALL_LENGTH_MM) return [1, 0, 'mm'];
  const [factor, places, label] = SCALES[unit][units];
  if (unit === 'lbf' && units === 'metric' && value >= LEAST_BOW_LBF)
    return [factor, places, `${label} (${value.toFixed(1)} lb)`];
  if (unit !== 'spine') return [factor, places, label];
  return [factor, places, `lb (${5 * Math.floor(SPINE_THOUSANDTHS / value / 5 + 0.5)})`];
}

export interface Said {
  number: string;
  plusMinus: string | null;
  unit: string;
}

/** Split a figure into its number, its ± and its unit. */
export function parts(figure: Figure, units: UnitSet): Said {
  const spread = figure.plus_minus ?? null;
  if (figure.unit === 'mm' && units === 'inch') {
    return {
      number: sixteenths(figure.value),
      plusMinus: spread === null ? null : sixteenths(Math.max(spread, SIXTEENTH_MM)),
      unit: 'in',
    };
  }
  const [factor, places, unit] = scale(figure.value, figure.unit, units);
  return {
    number: (figure.value * factor).toFixed(places),
    plusMinus: spread === null ? null : Math.max(spread * factor, 10 ** -places).toFixed(places),
    unit,
  };
}

export function say(figure: Figure, units: UnitSet): string {
  if (figure.unit === 'day') return inWords(new Date(1000 * figure.value).toISOString());
  const { number, plusMinus, unit } = parts(figure, units);
  const said = plusMinus === null ? number : `${number} ± ${plusMinus}`;
  return `${said}${unit === '°' ? '' : ' '}${unit}`
    .trim()
    .replace(/(\d) (?=\d+\/)/g, '$1\u202f')
    .replaceAll(' ', '\u00a0');
}

/** Put a phrase's figures into its sentence. */
export function sayPhrase(phrase: Phrase, units: UnitSet): string {
  const figures = phrase.figures ?? {};
  return phrase.template
    .replace(/\{(\w+)\}/g, (whole, name: string) => {
      const figure = figures[name];
      return figure ? say(figure, units) : whole;
    })
    .replaceAll('± ', '±\u00a0');
}

export function otherUnits(units: UnitSet): UnitSet {
  return units === 'inch' ? 'metric' : 'inch';
}

export const mm = (value: number, plusMinus?: number | null): Figure => ({
  value,
  unit: 'mm',
  plus_minus: plusMinus ?? null,
});
export const lbf = (value: number, plusMinus?: number | null): Figure => ({
  value,
  unit: 'lbf',
  plus_minus: plusMinus ?? null,
});
export const gr = (value: number, plusMinus?: number | null): Figure => ({
  value,
  unit: 'gr',
  plus_minus: plusMinus ?? null,
});
export const gpp = (value: number, plusMinus?: number | null): Figure => ({
  value,
  unit: 'gr/lbf',
  plus_minus: plusMinus ?? null,
});
export const mps = (value: number, plusMinus?: number | null): Figure => ({
  value,
  unit: 'm/s',
  plus_minus: plusMinus ?? null,
});
export const joules = (value: number, plusMinus?: number | null): Figure => ({
  value,
  unit: 'J',
  plus_minus: plusMinus ?? null,
});
export const spine = (value: number, plusMinus?: number | null): Figure => ({
  value,
  unit: 'spine',
  plus_minus: plusMinus ?? null,
});
export const gap = (value: number): Figure => ({ value, unit: 'gap', plus_minus: null });
export const millis = (value: number): Figure => ({ value, unit: 'ms', plus_minus: null });
export const lbfPerIn = (value: number): Figure => ({ value, unit: 'lbf/in', plus_minus: null });
export const deg = (value: number): Figure => ({ value, unit: 'deg', plus_minus: null });
export const perLength = (perInch: number): Figure => ({
  value: perInch,
  unit: '/in',
  plus_minus: null,
});
export const percent = (share: number): Figure => ({
  value: 100 * share,
  unit: '%',
  plus_minus: null,
});
