/** The choices of the trade, in the order they are offered. */
export const HOLDS = [
  ['split', 'one over, two under'],
  ['three_under', 'three under'],
  ['thumb', 'thumb'],
] as const;
export const ANCHORS = [
  ['under_chin', 'under the chin'],
  ['corner', 'corner of the mouth'],
  ['cheekbone', 'cheekbone'],
] as const;
export const HANDS = [
  ['right', 'right'],
  ['left', 'left'],
] as const;
export const PURPOSES = [
  ['backyard', 'backyard'],
  ['woods', 'woods and 3-D course'],
  ['field', 'field round'],
  ['indoor', 'indoor target'],
  ['hunting', 'hunting from tight cover'],
  ['distance', 'distance'],
] as const;
export const FAMILIES = [
  ['selfbow', 'selfbow'],
  ['straight_longbow', 'straight longbow'],
  ['reflex_deflex_longbow', 'reflex-deflex longbow'],
  ['hunting_recurve', 'hunting recurve'],
  ['target_recurve', 'target recurve'],
  ['short_rigid_tip', 'bow with short static tips'],
  ['long_rigid_tip', 'bow with long static tips'],
  ['large_rigid_tip', 'bow with large static tips'],
] as const;
export const MATERIALS = [
  ['wood', 'wood'],
  ['carbon', 'carbon'],
  ['aluminium', 'aluminium'],
  ['cane', 'cane'],
  ['glass', 'glass'],
] as const;
export const LENGTH_DATUMS = [
  ['groove_to_end', 'nock groove to shaft end'],
  ['groove_to_tip', 'nock groove to the tip'],
  ['shaft_only', 'the bare shaft alone'],
] as const;
export const SIDES = [
  ['plate', 'hard plate or shelf'],
  ['plunger', 'plunger'],
] as const;
export const LIMB_PAIRS = [
  ['matched', 'a matched pair'],
  ['two_bottoms', 'two bottom limbs'],
  ['two_tops', 'two top limbs'],
  ['two_makers', 'limbs of two makers'],
] as const;
export const DATUMS = [
  ['', 'pivot + 1¾ in'],
  ['pivot', 'pivot'],
  ['back', 'back of the bow'],
  ['belly', 'belly'],
] as const;
export const PART_WORDS = {
  archer: 'Archer',
  bow: 'Bow',
  string: 'String',
  arrow_set: 'Arrows',
} as const;
