/** The trade's words where they stand: found in a sentence, and opened. */
import { api, type GlossaryTerm } from './api';
import { Asked } from './asked.svelte';

/** A piece of a sentence; with a term it is one of the trade's words. */
export interface Piece {
  text: string;
  term: GlossaryTerm | null;
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

class Glossary extends Asked<GlossaryTerm[]> {
  /** The word that is open, and the one in the sentence it was opened at. */
  open = $state.raw<{ term: GlossaryTerm; at: HTMLElement } | null>(null);
  #asked = false;

  readonly #bySpelling = $derived.by(() => {
    const pairs = (this.data ?? []).flatMap((term) =>
      term.spellings.map((spelling) => [spelling, term] as const),
    );
    return Object.fromEntries(pairs) as Record<string, GlossaryTerm>;
  });
  /** Every spelling, the longest first: “point-on” before “point”. */
  readonly #pattern = $derived.by(() => {
    const spellings = Object.keys(this.#bySpelling).sort((a, b) => b.length - a.length);
    if (!spellings.length) return null;
    return new RegExp(`(?<![\\w-])(${spellings.map(escaped).join('|')})(?![\\w-])`, 'gi');
  });

  /** Ask for the words once, when a page first has some to show. */
  load = (): void => {
    if (this.#asked) return;
    this.#asked = true;
    void this.ask(api.glossary).then((data) => (this.#asked = data !== null));
  };

  /** A sentence in pieces: each of the trade's words once, where it first stands. */
  pieces(text: string): Piece[] {
    const pattern = this.#pattern;
    if (!pattern) return [{ text, term: null }];
    const pieces: Piece[] = [];
    const seen: string[] = [];
    let from = 0;
    for (const found of text.matchAll(pattern)) {
      const term = this.#bySpelling[found[0].toLowerCase()];
      if (!term || seen.includes(term.key)) continue;
      seen.push(term.key);
      if (found.index > from) pieces.push({ text: text.slice(from, found.index), term: null });
      pieces.push({ text: found[0], term });
      from = found.index + found[0].length;
    }
    if (from < text.length) pieces.push({ text: text.slice(from), term: null });
    return pieces;
  }

  /** The terms a search meets: by word, by what else it is called, by what it means. */
  find(search: string): GlossaryTerm[] {
    const wanted = search.toLowerCase().trim();
    const meets = (term: GlossaryTerm) =>
      [term.word, ...term.spellings, ...term.also, term.means].join(' ').toLowerCase();
    return (this.data ?? []).filter((term) => meets(term).includes(wanted));
  }

  toggle(term: GlossaryTerm, at: HTMLElement): void {
    this.open = this.open?.at === at ? null : { term, at };
  }

  /** Close it; the word it was opened at takes the focus again where that was inside. */
  close = (): void => {
    const at = this.open?.at;
    const inside = document.getElementById('term')?.contains(document.activeElement);
    this.open = null;
    if (inside) at?.focus();
  };

  /** The next of the trade's words on the page takes the focus; with `back` the one before. */
  walk(back: boolean): void {
    const words = [...document.querySelectorAll<HTMLElement>('[data-term]')].filter(
      (word) => word.getClientRects().length,
    );
    if (!words.length) return;
    const at = words.indexOf(document.activeElement as HTMLElement);
    const to = at < 0 ? (back ? words.length - 1 : 0) : at + (back ? -1 : 1);
    const next = words[(to + words.length) % words.length];
    next?.scrollIntoView({ block: 'nearest' });
    next?.focus({ preventScroll: true });
  }
}

export const glossary = new Glossary();
