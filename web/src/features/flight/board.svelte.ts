/** The board of evidence, and what is recorded from it. */
import {
  api,
  type Change,
  type EntryDraft,
  type FlightBoard,
  type LeverLine,
  type SubjectKind,
} from '../../lib/api';
import { AskedOfRig } from '../../lib/asked.svelte';
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
    if (!lever.reading) return false;
    const id = partOf(lever.subject);
    const draft = id && { subject: { kind: lever.subject, id }, reading: lever.reading };
    return this.saying.record([draft || null], lever.subject, says);
  }
}

/** The id of the rig, or of the part of a kind that is on it. */
export function partOf(kind: SubjectKind): string | null {
  if (kind === 'rig') return openRig.rig;
  return openRig.assessment?.fitted.find((one) => one.part === kind)?.id ?? null;
}
