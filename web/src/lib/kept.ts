/** What this window holds beside the log, kept over reloads and page switches. */

const PREFIX = 'lyrandis.kept.';

/** What was kept under a name; null when nothing was, or it cannot be read. */
export function kept<T>(name: string): T | null {
  try {
    return JSON.parse(sessionStorage.getItem(PREFIX + name) ?? 'null') as T | null;
  } catch {
    return null;
  }
}

/** Keep a value under a name; null forgets it. */
export function keep(name: string, value: unknown): void {
  try {
    if (value === null) sessionStorage.removeItem(PREFIX + name);
    else sessionStorage.setItem(PREFIX + name, JSON.stringify(value));
  } catch {
    // a browser that keeps nothing still works
  }
}
