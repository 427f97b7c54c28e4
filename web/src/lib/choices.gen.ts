/** Written by `make types` from the core. Do not edit. */
export const DATUM_WORDS = [
  ['trade', ''],
  ['pivot', ' to the pivot'],
  ['back', ' to the back of the bow'],
  ['belly', ' to the belly'],
  ['unsure', ', to what is not known'],
] as const;
export const HOLD_WORDS = [
  ['split', 'one over, two under'],
  ['three_under', 'three under'],
  ['thumb', 'thumb'],
] as const;
export const ANCHOR_WORDS = [
  ['under_chin', 'under the chin'],
  ['corner', 'corner of the mouth'],
  ['cheekbone', 'cheekbone'],
] as const;
export const HAND_WORDS = [
  ['right', 'right'],
  ['left', 'left'],
] as const;
export const PURPOSE_WORDS = [
  ['backyard', 'backyard'],
  ['woods', 'woods'],
  ['course', '3-D course'],
  ['field', 'field round'],
  ['indoor', 'indoor target'],
  ['hunting', 'hunting from tight cover'],
  ['distance', 'distance'],
] as const;
export const FAMILY_WORDS = [
  ['selfbow', 'selfbow'],
  ['straight_longbow', 'straight longbow'],
  ['reflex_deflex_longbow', 'reflex-deflex longbow'],
  ['hunting_recurve', 'hunting recurve'],
  ['target_recurve', 'target recurve'],
  ['short_rigid_tip', 'bow with short static tips'],
  ['long_rigid_tip', 'bow with long static tips'],
  ['large_rigid_tip', 'bow with large static tips'],
] as const;
export const LIMBS_ARE_WORDS = [
  ['matched', 'matched limbs'],
  ['two_bottoms', 'two bottom limbs'],
  ['two_tops', 'two top limbs'],
  ['two_makers', 'limbs of two makers'],
] as const;
export const LIMBS_MADE_WORDS = [
  ['laminated', 'laminated with glass'],
  ['solid_glass', 'solid glass'],
  ['natural', 'all natural: wood, horn, sinew'],
] as const;
export const LENGTH_TAKEN_WORDS = [
  ['along_back', 'unstrung, along the back'],
  ['strung', 'strung, straight from nock to nock'],
] as const;
export const BOW_MADE_WORDS = [
  ['one_piece', 'in one piece'],
  ['take_down', 'to be taken down'],
] as const;
export const STRING_MATERIAL_WORDS = [
  ['polyester', 'polyester'],
  ['low_stretch', 'low-stretch fibre'],
  ['linen', 'linen'],
  ['other', 'other'],
] as const;
export const STRING_TYPE_WORDS = [
  ['endless', 'endless loop'],
  ['twisted', 'twisted bundles'],
] as const;
export const BRACE_DATUM_WORDS = [
  ['pivot', ''],
  ['back', ' to the back'],
  ['plunger', ' to the plunger\'s line'],
] as const;
export const SHAFT_MATERIAL_WORDS = [
  ['wood', 'wood'],
  ['carbon', 'carbon'],
  ['aluminium', 'aluminium'],
  ['cane', 'cane'],
  ['glass', 'glass'],
] as const;
export const LENGTH_DATUM_WORDS = [
  ['groove_to_end', 'nock groove to shaft end'],
  ['groove_to_tip', 'nock groove to the tip'],
  ['shaft_only', 'the bare shaft alone'],
] as const;
export const FLIGHT_WORDS = [
  ['clean', 'flew clean'],
  ['stiff', 'still stiff'],
  ['weak', 'weak'],
] as const;
export const LIES_ON_WORDS = [
  ['shelf', 'the shelf'],
  ['rest', 'a rest'],
  ['hand', 'the hand'],
] as const;
export const QUILL_WORDS = [
  ['bound', 'quill ends bound and smooth'],
  ['lifts', 'a quill lifts'],
] as const;
export const NOCK_DATUM_WORDS = [
  ['lift', 'underside of the arrow over square'],
  ['locator_over', 'lower edge of the locator above the arrow'],
  ['locator_under', 'upper edge of the locator below the arrow'],
] as const;
export const NOCK_FLIGHT_WORDS = [
  ['clean', 'clean'],
  ['bounced', 'bounced up and down'],
  ['bare_level', 'bare shaft level with the fletched'],
  ['bare_high', 'bare shaft above the fletched'],
  ['bare_low', 'bare shaft below the fletched'],
] as const;
export const LIMB_PLACE_WORDS = [
  ['fade', 'the end of the fade'],
  ['pocket', 'the limb pocket'],
] as const;
export const BOW_KIT_WORDS = [
  ['plain', 'nothing to set on the riser'],
  ['rest', 'rest or plunger can be set'],
  ['full', 'limb bolts, rest and plunger can be set'],
] as const;
export const CAUSE_WORDS = [
  ['false_weak', 'false weak'],
  ['stiff', 'stiff'],
  ['weak', 'weak'],
  ['tuned', 'matched'],
] as const;
export const HEIGHT_WORDS = [
  ['tuned', 'right height'],
  ['stiff', 'too low'],
  ['weak', 'too high'],
  ['false_weak', 'low, bounces'],
] as const;
export const PUSHED_WORDS = [
  ['draw_short', 'draw short'],
  ['draw_extra', 'draw extra'],
  ['silencers', 'silencers'],
  ['plate', 'plate or window'],
  ['point', 'another point'],
  ['brace', 'another brace'],
  ['other_shafts', 'other shafts'],
  ['nock', 'nock moved'],
] as const;
export const CARE_WORDS = [
  ['steady', 'steady: tight groups, a sharp eye'],
  ['ordinary', 'ordinary'],
  ['beginning', 'beginning: wide groups'],
] as const;
export const MATCH_FROM_WORDS = [
  ['flight', 'what this rig\'s flight says'],
  ['model', 'the computed match alone'],
] as const;
export const NOTATION_WORDS = [
  ['mm', 'millimetres'],
  ['fingers', 'fingers by feel'],
  ['stitches', 'stitches of the tab'],
] as const;
export const SURENESS_WORDS = [
  ['sure', 'sure of it'],
  ['ordinary', 'as usual'],
  ['about', 'about'],
] as const;
export const STRUCK_WORDS = [
  ['high', 'struck high'],
  ['fine', 'struck fine'],
  ['low', 'struck low'],
] as const;
export const DISTANCE_UNIT_WORDS = [
  ['m', 'metres'],
  ['yd', 'yards'],
] as const;
export const NODE_WORDS = [
  ['draw', 'draw length'],
  ['hold', 'hold'],
  ['anchor', 'anchor'],
  ['grip', 'grip mark'],
  ['silencers', 'silencers'],
  ['string', 'string'],
  ['settled', 'string settled'],
  ['weight_rough', 'weight, first'],
  ['tiller_rough', 'tiller, first'],
  ['limb_alignment', 'limbs in line'],
  ['centre_shot', 'centre shot'],
  ['riser_weights', 'riser weights'],
  ['tiller', 'tiller'],
  ['bare_rough', 'bare shaft, first'],
  ['brace', 'brace'],
  ['nock', 'nock height'],
  ['arrows', 'arrows'],
  ['walk_back', 'walk-back'],
  ['bare_final', 'bare shaft, last'],
  ['fine', 'fine tuning'],
  ['crawls', 'crawls'],
] as const;
export const SHORT_WORDS = [
  ['draw', 'draw'],
  ['hold', 'hold'],
  ['anchor', 'anchor'],
  ['grip', 'grip'],
  ['silencers', 'silencers'],
  ['string', 'string'],
  ['settled', 'string'],
  ['weight_rough', 'weight'],
  ['tiller_rough', 'tiller'],
  ['limb_alignment', 'limb'],
  ['centre_shot', 'centre shot'],
  ['riser_weights', 'weight'],
  ['tiller', 'tiller'],
  ['bare_rough', 'bare shaft'],
  ['brace', 'brace'],
  ['nock', 'nock'],
  ['arrows', 'arrows'],
  ['walk_back', 'walk-back'],
  ['bare_final', 'bare shaft'],
  ['fine', 'fine tuning'],
  ['crawls', 'crawls'],
] as const;
export const HABIT_WORDS = [
  ['workbench', 'the whole workbench order'],
  ['short', 'the short order: string, brace, nock, arrows'],
] as const;
export const WHAT_WORDS = [
  ['pluck', 'pluck'],
  ['shot', 'shot'],
  ['reference', 'reference knock'],
] as const;
export const BROUGHT_WORDS = [
  ['pluck', 'pluck'],
  ['shot', 'shot'],
  ['reference', 'reference knock'],
  ['butt', 'shot at a butt'],
  ['taps', 'tapped shafts'],
] as const;
export const TROUBLE_WORDS = [
  ['clipped', 'The recorder was overloaded: move it back or lower its gain.'],
  ['too_quiet', 'Hardly any sound: move nearer.'],
  ['few_takes', 'Fewer than three takes: three at least, five are better.'],
  ['no_takes', 'No pluck or shot found.'],
  ['noisy', 'Too noisy here: go indoors or wait for the wind.'],
  ['low_rate', 'Above 3.6 kHz nothing was recorded: a rattle may be missed.'],
  ['gain_rides', 'The phone seems to adjust its own gain: switch it off.'],
  ['voice', 'Somebody speaks, or music plays, between the takes.'],
  ['others', 'Some takes sound like another bow\'s: strike out what is not yours.'],
] as const;
export const FAULT_WORDS = [
  ['rattle', 'something loose'],
  ['slack', 'a slack strand'],
  ['brace', 'brace off its quiet place'],
  ['arrow', 'an arrow too light'],
  ['contact', 'the tail striking the bow'],
] as const;
export const TAPPED_STATE_WORDS = [
  ['bare', 'bare shaft'],
  ['finished', 'finished arrow'],
] as const;
