/** The wave of one take as a path: least and most of each column. */
import type { Trace } from '../../lib/api';

export const FROM_MS = -20;
export const TO_MS = 200;

/** Return a closed path of a trace, `width` by `height`, its middle at half the height. */
export function waveOf(trace: Trace, width: number, height: number): string {
  const count = trace.high.length;
  if (!count) return '';
  const step = width / count;
  const y = (value: number) => (height / 2 - (value / 100) * (height / 2)).toFixed(1);
  const upper = trace.high.map((value, n) => `${((n + 0.5) * step).toFixed(1)},${y(value)}`);
  const lower = trace.low.map((value, n) => `${((n + 0.5) * step).toFixed(1)},${y(value)}`);
  return `M${upper.join('L')}L${lower.reverse().join('L')}Z`;
}

export const across = (ms: number, width: number, from = FROM_MS, to = TO_MS): number =>
  (width * (ms - from)) / (to - from);
