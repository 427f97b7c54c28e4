/** What this window recorded and took back last, so that it can be undone and done again. */
import { keep, kept } from './kept';

/** Entries recorded in one go, and how they were said. */
export interface Batch {
  ids: string[];
  says: string;
}

/** A batch that was taken back, with the retractions that did it. */
export interface Undone {
  batch: Batch;
  by: string[];
}

const KEPT = 50;

export const undoList = (rig: string): Batch[] => kept<Batch[]>(`${rig}.undo`) ?? [];
export const redoList = (rig: string): Undone[] => kept<Undone[]>(`${rig}.redo`) ?? [];

export function keepUndo(rig: string, done: Batch[], undone: Undone[]): void {
  keep(`${rig}.undo`, done.slice(-KEPT));
  keep(`${rig}.redo`, undone.slice(-KEPT));
}
