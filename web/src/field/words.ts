/** How the field helper says distances and crawls. */
import { M_PER_YD } from '../lib/units.gen';
import type { FieldTable, Step } from './learn';

const SIGNS = ['', '¼', '½', '¾'] as const;

/** Whole steps to the part that is said of them, never above the nock. */
export function counted(crawl_mm: number, step: Step): number {
  return Math.max(Math.round((crawl_mm / step.mm) * step.parts) / step.parts, 0);
}

/** A count as it stands on a tab: 7, 16½. */
export function inFigures(count: number): string {
  const quarters = Math.round(count * 4);
  const whole = Math.floor(quarters / 4);
  const sign = SIGNS[quarters % 4] ?? '';
  return whole || !sign ? `${whole}${sign}` : sign;
}

export const STEP_WORDS: Record<Step['notation'], { one: string; many: string }> = {
  mm: { one: 'millimetre down', many: 'millimetres down' },
  fingers: { one: 'finger down', many: 'fingers down' },
  stitches: { one: 'stitch down', many: 'stitches down' },
};

/** What stands under the figure. */
export function steps(count: number, notation: Step['notation']): string {
  if (count === 0) return 'no crawl';
  return count <= 1 ? STEP_WORDS[notation].one : STEP_WORDS[notation].many;
}

/** A count as it is read by the jot line. */
export function asJotted(count: number, notation: Step['notation']): string {
  if (notation === 'mm') return `${count}mm`;
  const word = notation === 'fingers' ? 'finger' : 'stitch';
  const many = notation === 'fingers' ? 'fingers' : 'stitches';
  return `${count} ${count === 1 ? word : many}`;
}

export const perUnit = (table: FieldTable): number => (table.unit === 'yd' ? M_PER_YD : 1);

/** A distance in the archer's unit. */
export function far(distance_m: number, table: FieldTable): string {
  return `${Math.round((distance_m / perUnit(table)) * 10) / 10} ${table.unit}`;
}

/** Now, or so long ago, as it is written. */
export const instant = (ago_ms = 0): string => new Date(Date.now() - ago_ms).toISOString();
