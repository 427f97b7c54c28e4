/** Addresses of a rig's pages. */
export type Place = 'archer' | 'bow' | 'arrow' | 'logbook';

export const placePath = (rig: string, place: Place): string =>
  `/rigs/${encodeURIComponent(rig)}/${place}`;
