/** Recording at a press: what was refused, said where it was pressed. */
import type { EntryDraft, Problem, SubjectKind } from './api';
import { recorder } from './recorder.svelte';
import { nothingFitted } from './problems';

export class Recording {
  problem = $state.raw<Problem | null>(null);
  /** Pressed and not recorded yet. */
  busy = $state(false);

  /** Record drafts; one that could not be made, for want of a part, is said as that. */
  async record(
    drafts: (EntryDraft | null)[],
    part: SubjectKind | null,
    says: string,
  ): Promise<boolean> {
    this.problem = null;
    const made = drafts.filter((draft) => draft !== null);
    if (made.length < drafts.length) {
      this.problem = nothingFitted(part);
      return false;
    }
    this.busy = true;
    this.problem = await recorder.record(made, says);
    this.busy = false;
    return this.problem === null;
  }
}
