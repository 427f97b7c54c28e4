/** Days as the reader counts them. */

/** Noon of a day of the reader's, as an instant; null for today, which is now. */
export const noonOf = (day: string): string | null =>
  day === today() ? null : new Date(`${day}T12:00`).toISOString();

/** Today, as yyyy-mm-dd. */
export const today = (): string => new Date().toLocaleDateString('sv');

/** The day of an instant, as yyyy-mm-dd. */
export const dayOf = (instant: string): string => new Date(instant).toLocaleDateString('sv');

/** The day of an instant in words, as 15 January 2026. */
export const inWords = (instant: string): string =>
  new Date(instant).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  });

/** The time of day of an instant, as 14:05. */
export const sayTime = (instant: string): string =>
  new Date(instant).toLocaleTimeString('sv', { hour: '2-digit', minute: '2-digit' });

/** The day in words; today is said as today. */
export const sayDay = (instant: string): string =>
  dayOf(instant) === today() ? 'today' : inWords(instant);
