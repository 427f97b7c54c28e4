/** Which answer about a rig is the newest: answers can overtake each other on their way. */
export class RevisionClock {
  /** Newest revision this window has seen of each rig. */
  #newest = new Map<string, number>();
  /** Counts askings and answers. */
  #count = 0;
  #shownAt = 0;

  /** Newest revision seen of a rig, or null. */
  seen(rig: string): number | null {
    return this.#newest.get(rig) ?? null;
  }

  /** Mark that something is asked now; the mark comes back with its answer. */
  ask(): number {
    return ++this.#count;
  }

  /** True when something newer was shown after this was asked. */
  isOvertaken(asked: number, revision: number, shown: number): boolean {
    return asked < this.#shownAt && revision < shown;
  }

  /** Note an answer. An older one never takes a revision back. */
  answered(rig: string, revision: number, older: boolean): void {
    this.#newest.set(rig, older ? Math.max(this.seen(rig) ?? 0, revision) : revision);
  }

  /** Note that an answer stands on the page from now on. */
  show(): void {
    this.#shownAt = ++this.#count;
  }
}
