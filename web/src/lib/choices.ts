/** The choices of the trade, in the order they are offered. */
export {
  ANCHOR_WORDS as ANCHORS,
  FAMILY_WORDS as FAMILIES,
  HAND_WORDS as HANDS,
  HOLD_WORDS as HOLDS,
  LENGTH_DATUM_WORDS as LENGTH_DATUMS,
  LENGTH_TAKEN_WORDS as LENGTHS_TAKEN,
  LIES_ON_WORDS as LIES_ON,
  LIMBS_ARE_WORDS as LIMB_PAIRS,
  LIMBS_MADE_WORDS as LIMBS_MADE,
  PURPOSE_WORDS as PURPOSES,
  BOW_KIT_WORDS as KITS,
  BOW_MADE_WORDS as BOW_MADES,
  HABIT_WORDS as HABITS,
  LIMB_PLACE_WORDS as LIMB_PLACES,
  NOCK_FLIGHT_WORDS as NOCK_FLIGHTS,
  CARE_WORDS as CARES,
  MATCH_FROM_WORDS as MATCH_SOURCES,
  STRING_MATERIAL_WORDS as STRING_MATERIALS,
  STRING_TYPE_WORDS as STRING_TYPES,
  SHAFT_MATERIAL_WORDS as MATERIALS,
} from './choices.gen';

export const SIDES = [
  ['plate', 'hard plate or shelf'],
  ['plunger', 'plunger'],
] as const;
/** What a length is typed to, as a word of the jot line. */
export const DATUMS = [
  ['', 'pivot and trade allowance'],
  ['pivot', 'pivot'],
  ['back', 'back of the bow'],
  ['belly', 'belly'],
  ['unsure', 'not known'],
] as const;
/** The kinds of bow as they are chosen among. */
export const KINDS = [
  ['straight_longbow', 'longbow'],
  ['reflex_deflex_longbow', 'reflex-deflex'],
  ['selfbow', 'selfbow'],
  ['hunting_recurve', 'hunting recurve'],
  ['target_recurve', 'target recurve'],
  ['short_rigid_tip', 'short static tips'],
  ['long_rigid_tip', 'long static tips'],
  ['large_rigid_tip', 'large static tips'],
  [null, 'not sure'],
] as const;
export const PART_WORDS = {
  archer: 'Archer',
  bow: 'Bow',
  string: 'String',
  arrow_set: 'Arrows',
} as const;
