/** Addresses of a rig's pages. */
import { STAGES, type StagePath } from '../stages';
import type { StageKey } from './api';

export type Place = StageKey | 'logbook' | 'now';

/** The first page of a place, under its rig: a stage's has the name of its tab. */
export function firstPage(place: Place): string {
  const tab = STAGES.find(({ key }) => key === place)?.pages[0]?.[0];
  return tab ? `${place}/${tab}` : place;
}

export const placePath = (rig: string, place: Place): string =>
  `/rigs/${encodeURIComponent(rig)}/${firstPage(place)}`;

/** The address that a page's older one leads to; null where it is its own. */
export function ownAddress(pathname: string): string | null {
  const [, , , place, page] = pathname.split('/');
  const rig = rigOf(pathname);
  if (!rig || page) return null;
  const own = firstPage((place || 'now') as Place);
  return own === place ? null : `/rigs/${encodeURIComponent(rig)}/${own}`;
}

/** What a page is called: its tab, its stage. */
export function titleOf(pathname: string): string[] {
  const [, , , place, page] = pathname.split('/');
  const stage = STAGES.find(({ key }) => key === place);
  const pages: readonly (readonly [string, string, string?])[] = stage?.pages ?? [];
  const tab = pages.find(([part]) => part === page) ?? pages[0];
  const name = stage?.name ?? `${place?.[0]?.toUpperCase() ?? ''}${place?.slice(1) ?? ''}`;
  return [tab?.[1], name || 'Now'].filter((word) => word !== undefined);
}

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
