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

/** A draft on a fitted part, or null when the rig has no such part. */
export function draftOn(
  assessment: Assessment | null,
  part: PartKind,
  reading: EntryDraft['reading'],
): EntryDraft | null {
  const id = fittedId(assessment, part);
  return id ? { subject: { kind: part, id }, reading } : null;
}
