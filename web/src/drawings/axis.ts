/** Axes in the archer's units: where ticks stand (in stored units) and what they say. */
import { ticks } from 'd3-array';
import {
  GRAINS_PER_GRAM,
  M_PER_FT,
  MM_PER_IN,
  NEWTONS_PER_LBF,
  sixteenths,
  type UnitSet,
} from '../lib/units';

export interface Tick {
  at: number;
  text: string;
}

export function lengthTicks(lowMm: number, highMm: number, count: number, units: UnitSet): Tick[] {
  if (units !== 'inch') {
    return ticks(lowMm / 10, highMm / 10, count).map((cm) => ({ at: cm * 10, text: `${cm}` }));
  }
  const span = (highMm - lowMm) / MM_PER_IN;
  const step = [1 / 8, 1 / 4, 1 / 2, 1, 2, 4, 8].find((s) => span / s <= count) ?? 8;
  const first = Math.ceil(lowMm / MM_PER_IN / step) * step;
  const found: Tick[] = [];
  for (let inch = first; inch <= highMm / MM_PER_IN + 1e-9; inch += step) {
    found.push({ at: inch * MM_PER_IN, text: sixteenths(inch * MM_PER_IN) });
  }
  return found;
}

/** Ticks of a quantity that is said in its stored unit times a factor. */
function scaledTicks(low: number, high: number, count: number, factor: number): Tick[] {
  return ticks(low * factor, high * factor, count).map((value) => ({
    at: value / factor,
    text: `${value}`,
  }));
}

export const weightTicks = (low: number, high: number, count: number, units: UnitSet): Tick[] =>
  scaledTicks(low, high, count, units === 'metric' ? NEWTONS_PER_LBF : 1);

export const massTicks = (low: number, high: number, count: number, units: UnitSet): Tick[] =>
  scaledTicks(low, high, count, units === 'metric' ? 1 / GRAINS_PER_GRAM : 1);

export const speedTicks = (low: number, high: number, count: number, units: UnitSet): Tick[] =>
  scaledTicks(low, high, count, units === 'inch' ? 1 / M_PER_FT : 1);

export const lengthUnit = (units: UnitSet): string => (units === 'inch' ? 'in' : 'cm');
export const weightUnit = (units: UnitSet): string => (units === 'metric' ? 'N' : 'lb');
export const speedUnit = (units: UnitSet): string => (units === 'inch' ? 'fps' : 'm/s');
