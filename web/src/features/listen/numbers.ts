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
