/** Doing what an action says: what it records first, then where it leads. */
import { goTo } from './go';
import type { Action, EntryDraft, SubjectKind } from './api';
import { tell } from './preferences.svelte';
import { openRig } from './openrig.svelte';
import { Recording } from './recording.svelte';

type Recordable = Action['records'][number];

/** The id of the rig, or of the part of a kind that is on it. */
export function partOf(kind: SubjectKind): string | null {
  if (kind === 'rig') return openRig.rig;
  return openRig.assessment?.fitted.find((one) => one.part === kind)?.id ?? null;
}

/** What is recorded in one go, as drafts of the parts on the rig; null where one is not there. */
export function draftsOf(records: readonly Recordable[]): (EntryDraft | null)[] {
  return records.map(({ subject, reading }) => {
    const id = partOf(subject);
    return id === null ? null : { subject: { kind: subject, id }, reading };
  });
}

export class Doing {
  readonly recording = new Recording();

  /** Record what the action records, and go where it leads; refused, it stays and says why. */
  async act(action: Action): Promise<void> {
    const { records } = action;
    if (records.length) {
      const part = records[0]?.subject ?? null;
      const says = records.map((one) => tell(one.says)).join('; ');
      if (!(await this.recording.record(draftsOf(records), part, says))) return;
    }
    await goTo(action);
  }
}
