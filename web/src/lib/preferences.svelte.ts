/** How this person reads: units and light or dark. Kept in the browser. */
import { UNIT_SETS, type Phrase, type Figure, type UnitSet, parts, say, sayPhrase } from './units';

export type Theme = 'light' | 'dark';

function kept<T extends string>(key: string, allowed: readonly T[], otherwise: T): T {
  try {
    const found = localStorage.getItem(key);
    return allowed.includes(found as T) ? (found as T) : otherwise;
  } catch {
    return otherwise;
  }
}

function keep(key: string, value: string): void {
  try {
    localStorage.setItem(key, value);
  } catch {
    // a browser that keeps nothing still works
  }
}

const UNIT_KEYS = Object.keys(UNIT_SETS) as UnitSet[];

class Preferences {
  units = $state<UnitSet>(kept('lyrandis.units', UNIT_KEYS, 'inch'));
  theme = $state<Theme>(
    kept(
      'lyrandis.theme',
      ['light', 'dark'],
      matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light',
    ),
  );

  /** False when single keys do nothing, for those whose speech or tremor would press them. */
  keys = $state(kept('lyrandis.keys', ['on', 'off'], 'on') === 'on');

  /** True when every fold begins open, for who would rather scroll than press. */
  unfolded = $state(kept('lyrandis.folds', ['open', 'closed'], 'closed') === 'open');

  /** True when this person wants nothing to move. */
  still = $state(matchMedia('(prefers-reduced-motion: reduce)').matches);

  constructor() {
    this.#show();
    matchMedia('(prefers-reduced-motion: reduce)').addEventListener('change', (event) => {
      this.still = event.matches;
    });
  }

  nextUnits(): void {
    const index = UNIT_KEYS.indexOf(this.units);
    this.units = UNIT_KEYS[(index + 1) % UNIT_KEYS.length] ?? 'inch';
    keep('lyrandis.units', this.units);
  }

  toggleKeys(): void {
    this.keys = !this.keys;
    keep('lyrandis.keys', this.keys ? 'on' : 'off');
  }

  toggleFolds(): void {
    this.unfolded = !this.unfolded;
    keep('lyrandis.folds', this.unfolded ? 'open' : 'closed');
  }

  toggleTheme(): void {
    this.theme = this.theme === 'dark' ? 'light' : 'dark';
    keep('lyrandis.theme', this.theme);
    this.#show();
  }

  #show(): void {
    document.documentElement.dataset.mode = this.theme;
  }
}

export const preferences = new Preferences();

/** Say a phrase in the archer's units. */
export const tell = (phrase: Phrase): string => sayPhrase(phrase, preferences.units);
/** Say a figure in the archer's units. */
export const figure = (value: Figure): string => say(value, preferences.units);
export const figureParts = (value: Figure) => parts(value, preferences.units);
