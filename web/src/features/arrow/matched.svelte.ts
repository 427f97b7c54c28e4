/** Choosing the best matched arrows of the quiver. */
import { api, type MatchedSet } from '../../lib/api';
import { AskedOfRig } from '../../lib/asked.svelte';

export class MatchedChoice extends AskedOfRig<MatchedSet> {
  count = $state<number | null>(null);

  constructor() {
    super((rig) => api.matchedSet(rig, this.count ?? 0));
  }

  choose = (count: number): void => {
    this.count = count;
    void this.load();
  };

  /** Nothing is asked before a number is chosen. */
  protected override ready(): boolean {
    return this.count !== null;
  }
}
