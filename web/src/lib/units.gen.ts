/** Written by `make types` from the core. Do not edit. */
export const MM_PER_IN = 25.4;
export const M_PER_FT = 0.3048;
export const M_PER_YD = 0.9144000000000001;
export const NEWTONS_PER_LBF = 4.4482216152605;
export const GRAINS_PER_GRAM = 15.43235835294143;
export const SPINE_THOUSANDTHS = 31500.0;
export const SMALL_LENGTH_MM = 50.0;
export const LEAST_BOW_LBF = 8.0;
/** Metres of each word a distance that is shot may be said in. */
export const DISTANCE_UNITS_M = { m: 1.0, metre: 1.0, metres: 1.0, meter: 1.0, meters: 1.0, yd: 0.9144000000000001, yds: 0.9144000000000001, y: 0.9144000000000001, yard: 0.9144000000000001, yards: 0.9144000000000001, pace: 0.76, paces: 0.76, step: 0.76, steps: 0.76, ft: 0.3048, foot: 0.3048, feet: 0.3048, km: 1000.0, kilometre: 1000.0, kilometres: 1000.0, kilometer: 1000.0, kilometers: 1000.0 } as const;
/** Factor from the stored unit, decimals, and label, by set of units. */
export const SCALES = {
  mm: { inch: [0.1, 1, 'cm'], centimetre: [0.1, 1, 'cm'], metric: [0.1, 1, 'cm'] },
  gap: { inch: [1.0, 1, 'mm'], centimetre: [1.0, 1, 'mm'], metric: [1.0, 1, 'mm'] },
  lbf: { inch: [1.0, 1, 'lb'], centimetre: [1.0, 1, 'lb'], metric: [4.4482216152605, 0, 'N'] },
  gr: { inch: [1.0, 0, 'gr'], centimetre: [1.0, 0, 'gr'], metric: [0.06479891, 1, 'g'] },
  'gr/lbf': { inch: [1.0, 1, 'gr/lb'], centimetre: [1.0, 1, 'gr/lb'], metric: [1.0, 1, 'gr/lb'] },
  'lbf/in': { inch: [1.0, 1, 'lb/in'], centimetre: [1.0, 1, 'lb/in'], metric: [1.7512683524647636, 1, 'N/cm'] },
  'gr/in': { inch: [1.0, 1, 'gr/in'], centimetre: [1.0, 1, 'gr/in'], metric: [0.02551138188976378, 2, 'g/cm'] },
  'm/s': { inch: [3.280839895013123, 0, 'fps'], centimetre: [1.0, 1, 'm/s'], metric: [1.0, 1, 'm/s'] },
  J: { inch: [1.0, 1, 'J'], centimetre: [1.0, 1, 'J'], metric: [1.0, 1, 'J'] },
  deg: { inch: [1.0, 0, '°'], centimetre: [1.0, 0, '°'], metric: [1.0, 0, '°'] },
  '%': { inch: [1.0, 0, '%'], centimetre: [1.0, 0, '%'], metric: [1.0, 0, '%'] },
  count: { inch: [1.0, 0, ''], centimetre: [1.0, 0, ''], metric: [1.0, 0, ''] },
  spine: { inch: [1.0, 0, 'lb'], centimetre: [1.0, 0, 'lb'], metric: [1.0, 0, 'lb'] },
  Hz: { inch: [1.0, 0, 'Hz'], centimetre: [1.0, 0, 'Hz'], metric: [1.0, 0, 'Hz'] },
  dB: { inch: [1.0, 1, 'dB'], centimetre: [1.0, 1, 'dB'], metric: [1.0, 1, 'dB'] },
  ms: { inch: [1.0, 1, 'ms'], centimetre: [1.0, 1, 'ms'], metric: [1.0, 1, 'ms'] },
  ratio: { inch: [1.0, 2, ''], centimetre: [1.0, 2, ''], metric: [1.0, 2, ''] },
  day: { inch: [1.0, 0, ''], centimetre: [1.0, 0, ''], metric: [1.0, 0, ''] },
  m: { inch: [1.0, 1, 'm'], centimetre: [1.0, 1, 'm'], metric: [1.0, 1, 'm'] },
  s: { inch: [1.0, 1, 's'], centimetre: [1.0, 1, 's'], metric: [1.0, 1, 's'] },
  h: { inch: [1.0, 0, 'h'], centimetre: [1.0, 0, 'h'], metric: [1.0, 0, 'h'] },
  g: { inch: [1.0, 0, 'g'], centimetre: [1.0, 0, 'g'], metric: [1.0, 0, 'g'] },
  '/in': { inch: [1.0, 2, 'to the inch'], centimetre: [0.39370078740157477, 2, 'to the cm'], metric: [0.39370078740157477, 2, 'to the cm'] },
} as const;
