import type { Assessment, EntryDraft, PartKind, Stage, Value } from './api';

/** One value of a stage, by its key. */
export function valueOf(stage: Stage | null, key: string): Value | null {
  return stage?.values?.find((value) => value.key === key) ?? null;
}

/** The value of a stage that stands in the rail. */
export function headline(stage: Stage): Value {
  const live = valueOf(stage, stage.headline);
  if (!live) throw new Error(`stage ${stage.key} has no value ${stage.headline}`);
  return live;
}

/** The id of a part that is on the rig. */
export function fittedId(assessment: Assessment | null, part: PartKind): string | null {
  return assessment?.fitted.find((fitted) => fitted.part === part)?.id ?? null;
}

/** A part the rig has not got yet: what is recorded on it makes and fits one. */
export const NEW_PART = 'new-part';

/** A draft on a fitted part, or on one that is made in the same go. */
export function draftOn(
  assessment: Assessment | null,
  part: PartKind,
  reading: EntryDraft['reading'],
): EntryDraft | null {
  if (!assessment) return null;
  return { subject: { kind: part, id: fittedId(assessment, part) ?? NEW_PART }, reading };
}
