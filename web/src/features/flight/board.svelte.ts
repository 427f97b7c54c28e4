/** The board of evidence, and what is recorded from it. */
import { api, type Change, type EntryDraft, type FlightBoard, type LeverLine } from '../../lib/api';
import { AskedOfRig } from '../../lib/asked.svelte';
import { draftsOf } from '../../lib/doing.svelte';
import { openRig } from '../../lib/openrig.svelte';
import { tell } from '../../lib/preferences.svelte';
import { Recording } from '../../lib/recording.svelte';

export class Board extends AskedOfRig<FlightBoard> {
  readonly saying = new Recording();

  constructor() {
    super(api.flight);
  }

  /** Record something of the open rig. */
  say(reading: EntryDraft['reading'], says: string): Promise<boolean> {
    const subject = { kind: 'rig' as const, id: openRig.rig ?? '' };
    return this.saying.record([{ subject, reading }], null, says);
  }

  /** Begin a trial: what is changed is recorded until it is put back. */
  begin(trial: Change, says: string): Promise<boolean> {
    return this.say({ kind: 'trial_set', trial }, `Trial: ${says}`);
  }

  /** Do what a lever says: the change itself is recorded, or a trial begun. */
  async pull(lever: LeverLine): Promise<boolean> {
    const says = tell(lever.what);
    if (lever.trial) return this.begin(lever.trial, says);
    const part = lever.records[0]?.subject ?? null;
    return this.saying.record(draftsOf(lever.records), part, says);
  }
}
