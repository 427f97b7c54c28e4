/** Addresses of a rig's pages. */
import { STAGES, type StagePath } from '../stages';
import type { StageKey } from './api';

export type Place = StageKey | 'logbook' | 'now';

export const placePath = (rig: string, place: Place): string =>
  `/rigs/${encodeURIComponent(rig)}/${place}`;

/** One page of a stage. */
export const pagePath = (rig: string, page: StagePath): string =>
  `/rigs/${encodeURIComponent(rig)}/${page}`;

/** A rig's own first page: what is known now. */
export const nowPath = (rig: string): string => `/rigs/${encodeURIComponent(rig)}/now`;

/** The page that draws the whole order of work. */
export const orderPath = (rig: string): string => `/rigs/${encodeURIComponent(rig)}/order`;

/** The page where readings are taken off instruments. */
export const instrumentsPath = (rig: string): string =>
  `/rigs/${encodeURIComponent(rig)}/instruments`;

/** The rig an address is about. */
export function rigOf(pathname: string): string | null {
  const written = /^\/rigs\/([^/]+)/.exec(pathname)?.[1];
  return written ? decodeURIComponent(written) : null;
}

/** The stage an address belongs to; none for the pages of the whole rig. */
export function stageOf(pathname: string): StageKey | null {
  const place = pathname.split('/')[3];
  return STAGES.find((stage) => stage.key === place)?.key ?? null;
}
