/** The words of the jot line with their forms, in the reader's units, asked for once. */
import { api, type JotWord } from './api';
import { Asked } from './asked.svelte';
import { preferences } from './preferences.svelte';

class Words extends Asked<JotWord[]> {
  #units: string | null = null;

  /** Ask for them, unless they are here in these units. */
  load = async (): Promise<void> => {
    if (this.data && this.#units === preferences.units) return;
    this.#units = preferences.units;
    await this.ask(api.words);
  };

  /** Those that a search finds: by word, by what they record or are called. */
  find(search: string): JotWord[] {
    const wanted = search.toLowerCase().trim();
    const all = this.data ?? [];
    if (!wanted) return all;
    const found = all.map((word) => ({ word, rank: rank(word, wanted) }));
    return found
      .filter(({ rank }) => rank > 0)
      .sort((one, other) => other.rank - one.rank)
      .map(({ word }) => word);
  }
}

/** How well a word meets what is searched for; 0 is not at all. */
function rank(word: JotWord, wanted: string): number {
  if (word.word === wanted) return 5;
  if (word.names.some((name) => name === wanted)) return 4;
  if (word.word.startsWith(wanted)) return 3;
  if (word.names.some((name) => name.includes(wanted))) return 2;
  return `${word.records} ${word.example}`.toLowerCase().includes(wanted) ? 1 : 0;
}

export const words = new Words();

/** The numbers that stand in a line, with their units, for the fields of a form. */
export function numbersIn(line: string): string[] {
  const number = String.raw`\d+(?:[ -]\d+\/\d+|\/\d+|[.,]\d+)?`;
  const unit = String.raw`(?:\s?(?:in|inch|inches|cm|mm|lbs?|kg|gr|grains|g|m|yd|fps|#|")(?![\w]))?`;
  return line.match(new RegExp(number + unit, 'gi')) ?? [];
}
