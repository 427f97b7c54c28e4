/** Numbers typed into a plain field of this page, and levels said. */

/** Return a number inside its limits; null for what is none. A comma is a point, −  a minus. */
export function numberIn(text: string, low: number, high: number): number | null {
  const plain = text.trim().replace(',', '.').replace('−', '-');
  if (!/^-?\d+(\.\d+)?$/.test(plain)) return null;
  const value = Number(plain);
  return value >= low && value <= high ? value : null;
}

/** A level, with a true minus. */
export const sayDb = (db: number): string => `${db < 0 ? '−' : ''}${Math.abs(db).toFixed(1)} dB`;

/** What becomes of a take's number when one is put in at an instant: those behind it count one up. */
export const behind = (at: readonly number[], instant: number) => (number: number) =>
  (at[number - 1] ?? 0) > instant ? number + 1 : number;
