/** Saying stored figures (mm, lbf, gr) in the archer's units. The core's `units.py` is the model. */
import type { components } from './api.gen';

export type Figure = components['schemas']['Figure'];
export type Phrase = components['schemas']['Phrase'];
export type UnitSet = 'inch' | 'centimetre' | 'metric';

export const UNIT_SETS: Record<UnitSet, string> = {
  inch: 'in · lb · gr',
  centimetre: 'cm · lb · gr',
  metric: 'cm · N · g',
};

export const MM_PER_IN = 25.4;
export const M_PER_FT = 0.3048;
const NEWTONS_PER_LBF = 4.4482216152605;
const GRAINS_PER_GRAM = 15.43235835294143;
/** Pounds times thousandths of one shaft. */
const SPINE_THOUSANDTHS = 31500;
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
  const metric = units === 'metric';
  switch (unit) {
    case 'mm':
      return Math.abs(value) < 50 ? [1, 0, 'mm'] : [0.1, 1, 'cm'];
    case 'lbf':
      return metric ? [NEWTONS_PER_LBF, 0, 'N'] : [1, 1, 'lb'];
    case 'gr':
      return metric ? [1 / GRAINS_PER_GRAM, 1, 'g'] : [1, 0, 'gr'];
    case 'gr/in':
      return metric ? [1 / GRAINS_PER_GRAM / 2.54, 2, 'g/cm'] : [1, 1, 'gr/in'];
    case 'lbf/in':
      return metric ? [NEWTONS_PER_LBF / 2.54, 1, 'N/cm'] : [1, 1, 'lb/in'];
    case 'gr/lbf':
      return [1, 1, 'gr/lb'];
    case 'm/s':
      return units === 'inch' ? [1 / M_PER_FT, 0, 'fps'] : [1, 1, 'm/s'];
    case 'J':
      return [1, 1, 'J'];
    case 'gap':
      return [1, 1, 'mm'];
    case 'spine':
      return [1, 0, `lb (${5 * Math.floor(SPINE_THOUSANDTHS / value / 5 + 0.5)})`];
    case 'Hz':
      return [1, 0, 'Hz'];
    case 'ms':
      return [1, 1, 'ms'];
    case 'ratio':
      return [1, 2, ''];
    case 'deg':
      return [1, 0, '°'];
    case '%':
      return [1, 0, '%'];
    default:
      return [1, 0, ''];
  }
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
export const percent = (share: number): Figure => ({
  value: 100 * share,
  unit: '%',
  plus_minus: null,
});
