"""What archers say of a bow: the rows of the bow's words."""

from typing import get_args

from lyrandis.core.archer.jots import DATUMS
from lyrandis.core.bow.readings import (
    ArrowMinimum,
    ArrowSpeed,
    BowFamily,
    BowLength,
    BowMadeAs,
    BowMark,
    BowWeighed,
    BraceRange,
    DrawLimit,
    Inspected,
    LimbPair,
    LimbsMadeOf,
    PutTogether,
    RiserLength,
    StackFelt,
)
from lyrandis.core.bow.words import ASSEMBLY_WORDS, InspectionItem
from lyrandis.core.hearing.matching import Matching
from lyrandis.core.hearing.table import Slot, Word

PLAIN_WORDS = "bow limb limbs riser handle maker bowyer"

_FAMILIES = {
    "selfbow": "selfbow; self bow; selfbow made of yew",
    "straight_longbow": "straight longbow; longbow; english longbow; flatbow; flat bow; american longbow",
    "reflex_deflex_longbow": "reflex deflex longbow; reflex deflex; reflex; rd longbow; r/d longbow; hybrid longbow; hybrid; reflex longbow; deflex reflex longbow",
    "hunting_recurve": "hunting recurve; recurve; takedown recurve; takedown recurve for hunting; take down recurve; takedown; recurve bow",
    "target_recurve": "target recurve; olympic recurve; olympic style recurve; target recurve bow",
    "short_rigid_tip": "short rigid tip; horsebow; horse bow; static tip; static tips; short static tips; static tip horse bow short tips; static tip horse bow",
    "long_rigid_tip": "long rigid tip; long static tips; long static tip",
    "large_rigid_tip": "large rigid tip; large static tips; large static tip",
}
_MARK = "bow says; limbs are marked; label says; on the label; sticker says; on the limb; on limb; on the limbs; limbs say; limbs marked; marked on the limb; marked weight; nominal; advertised; sold as; listed; printed; printed on the limb; reads on the limb; nominally; marked; written; rated; stamped; label; labelled; sticker; limb says; says on the limb; limb; bow weight; poundage"
_SCALE = "weighs; scaled; scale shows; on the hanging scale; weighing; pulls on the scale; on my scale; holding weight; hand scale; hanging scale; luggage scale; real weight; true weight; actual weight; measured weight; on a scale; with the scale; off the scale; weighed; weigh; pulls; pulled; otf; on the fingers; on my fingers; on fingers; bow scale; on the scale; on scale; scale says; weight at my draw; peak; peaks; holds; holding; waage; pull; pulling; draw weight; scales"
_FLOOR = "min arrow; minimum arrow; at least; lightest arrow; not lighter than; no lighter than; not go under; not go below; not below; not shoot under; arrow minimum; bowyer wants; not under; go under"
_WEIGHT = Slot("draw_weight_lbf", "force", "draw_weight")
_AT_DRAW = Slot(
    "draw_length_mm", "length", "draw_length", before="at; draw; with; by", on_the_way=True
)
_ITEMS: dict[InspectionItem, str] = {
    "limbs": "limbs; limb; upper limb; lower limb; top limb; bottom limb",
    "tips": "tips; tip; limb tip; limb tips",
    "finish": "finish; crazing",
    "laminations": "laminations; lamination; lams",
    "string": "string; serving; loops; strands",
    "string_grooves": "string grooves; grooves; string groove; groove; nocks",
    "right_way_up": "right way up",
    "stringer": "stringer",
    "twang": "rattle; rattles; twang",
}
_WRONG = "bad; failing; worn; frayed; fraying; cracked; crack; twisted; loose; crazed; crazing; lifting; lifts; split; chipped; broken; damaged; delaminating; sharp; buzzes"
_FINE = "good; all good; fine; sound; all fine; ok; all sound; whole"


def _paired(matching: Matching) -> bool:
    """One weight for both limbs."""
    if not matching.fill():
        return False
    matching.values["lower_lbf"] = matching.values["upper_lbf"]
    return True


def _failing(matching: Matching) -> bool:
    """Record what fails; crazing is the finish's, whatever it is said of."""
    crazed = matching.says("crazed", "crazing")
    item = "finish" if crazed else matching.chosen["_item"]
    matching.values["failing"] = (item,)
    if crazed:
        matching.texts["_item"] = "finish"
    return True


def _good(matching: Matching) -> bool:
    matching.values["good"] = (matching.chosen["_item"],)
    return True


def _floor_named(matching: Matching) -> bool:
    return matching.says("arrow", "arrows", "floor") or any(
        item.amount is not None and item.amount.unit is not None for item in matching.items
    )


def _step(matching: Matching) -> bool:
    step = matching.chosen["_step"]
    matching.values["done"] = tuple(ASSEMBLY_WORDS) if step == "all" else (step,)
    return True


WORDS: tuple[Word, ...] = (
    Word("family", "bow", BowFamily, "family {family}", "what sort of bow it is", "family hunting recurve",
         "kind of bow; sort of bow", choices={"family": _FAMILIES},
         beside="bow; short tips; 3 piece; three piece; takedown; take down; one piece; yew",
         implied=True, need=("family",), weak="reflex deflex; hybrid; reflex"),
    Word("mark", "bow", BowMark, "mark {draw_weight_lbf} [at {draw_length_mm}]",
         "the weight written on the bow, and the draw it is written for", "mark 45 @ 28",
         _MARK, (_WEIGHT, Slot("draw_length_mm", "length", "draw_length", needed=False, before="at; with; by; draw")),
         beside="bow; on the limb; on limb; on the limbs; on the bow; draw; weight"),
    Word("mark", "bow", BowMark, "mark {draw_weight_lbf}", slots=(Slot("draw_weight_lbf", "force", "draw_weight", by_name=True),),
         choices={"_bow": {1: "bow"}}, self_telling=("force",), need=("_bow",)),
    Word("scale", "bow", BowWeighed, "scale {draw_weight_lbf} at {draw_length_mm} {datum} {string_at}",
         "a weighed point: weight with the hook at a draw; “groove” when read at the nock groove", "scale 36.2 @ 27",
         _SCALE, (_WEIGHT, _AT_DRAW),
         {"string_at": {"hook": "hook; at the hook; at hook", "groove": "groove; at the nock groove; at the groove; nock groove; at the nock"}, "datum": DATUMS},
         "bow; draw; string; says; it; full draw; at full draw; comes to; weight"),
    Word("scale", "bow", None, slots=(_WEIGHT, Slot("draw_length_mm", "length", "draw_length", before="at; draw")),
         names="at", unnamed=True, beside="bow; draws; draw", self_telling=("force",),
         asks_which=("mark {draw_weight_lbf} at {draw_length_mm}", "scale {draw_weight_lbf} at {draw_length_mm}"),
         question="Is that written on the bow, or did a scale say it?"),
    Word("bow", "bow", BowLength, "bow {bow_length_mm} {taken}",
         "bow length, nock to nock along the back; “strung” where it was taken of the strung bow", "bow 62",
         "bow length; amo; amo length; ntn; nock to nock; long bow; length of the bow; amo bow length; bow len; length nock to nock; string nock to string nock; tip to tip",
         (Slot("bow_length_mm", "length", "bow_length"),),
         {"taken": {"strung": "strung; when strung", "along_back": "along the back; back; unstrung"}}, "length; long; bow"),
    Word("riser", "bow", RiserLength, "riser {riser_length_mm}", "riser length", "riser 17",
         "riser length; handle", (Slot("riser_length_mm", "length", "riser_length"),), beside="length; long"),
    Word("limbs", "bow", LimbPair, "limbs {upper_lbf} {lower_lbf}", "marks of the upper and the lower limb", "limbs 38 40",
         "limb; top limb; upper limb; limb marks; limb weights",
         (Slot("upper_lbf", "force", "draw_weight", before="top; upper; above", pairs=True, label="upper limb"),
          Slot("lower_lbf", "force", "draw_weight", before="bottom; lower; below", pairs=True, label="lower limb")),
         beside="/; limb; bottom limb; lower limb; marked; limbs", needs=lambda m: not m.says("at")),
    Word("limbs", "bow", LimbPair, "limbs both {upper_lbf}", slots=(Slot("upper_lbf", "force", "draw_weight"),),
         names="both limbs", choices={"_both": {1: "both; both limbs; each"}}, beside="limbs; marked; both limbs",
         need=("_both",), build=_paired),
    Word("limbs", "bow", LimbPair, "limbs {pair}", "how the two limbs belong together", "limbs two bottoms",
         choices={"pair": {
             "matched": "matched; matched pair; a matched pair; matched limbs",
             "two_bottoms": "two bottoms; two bottom limbs; two lower limbs; bottoms",
             "two_tops": "two tops; two top limbs; two upper limbs; tops",
             "two_makers": "two makers; of two makers; from two makers; limbs from different makers; different makers",
         }}, beside="limbs; pair; of; from", implied=True, need=("pair",), weak="matched; bottoms; tops"),
    Word("limbs", "bow", LimbPair, "limbs {upper_length_mm} {lower_length_mm} length", "how long each limb is", "limbs 20 21 length",
         slots=(Slot("upper_length_mm", "length", "limb_length", before="top; upper", pairs=True, label="upper limb"),
                Slot("lower_length_mm", "length", "limb_length", before="bottom; lower", pairs=True, label="lower limb")),
         choices={"_length": {1: "length; long"}}, beside="limb", need=("_length",)),
    Word("limbs", "bow", LimbsMadeOf, "limbs {made}", "what the limbs are made of", "limbs laminated",
         choices={"made": {
             "laminated": "laminated; glass laminated",
             "solid_glass": "solid glass; solid glassfibre; glass",
             "natural": "natural; all natural; horn and sinew; horn; all wood",
         }}, beside="limbs; made of", need=("made",)),
    Word("limit", "bow", DrawLimit, "limit {draw_length_mm}", "the maker's longest draw", "limit 30",
         "max draw; maximum draw; longest draw; draw limit; limit draw; no more than; not draw past; not drew past; not draw over; not overdraw; do not overdraw; not past; not drawn past; max; maximum; max draw length; maximum draw length; not draw more than; not draw beyond; not draw it past; safe draw",
         (Slot("draw_length_mm", "length", "draw_length"),), beside="maker says; maker; bowyer says; draw; do"),
    Word("stack", "bow", StackFelt, "stack {draw_length_mm}", "where you feel the weight climb, the string at your hook", "stack 28 1/2",
         "wall; wall at; stacks at; stacks from; stack from; stack at; hits a wall at; it stacks at; stacks",
         (Slot("draw_length_mm", "length", "draw_length"),)),
    Word("floor", "bow", ArrowMinimum, "floor {grains_per_pound}", "the bowyer's lightest arrow, in grains per pound", "floor 9 gpp",
         _FLOOR, (Slot("grains_per_pound", "grains per pound", "grains_per_pound"),),
         beside="bowyer; bowyer says; maker; maker says; arrow; arrows; bowyer wants; do", needs=_floor_named),
    Word("floor", "bow", ArrowMinimum, "floor {arrow_mass_gr}", "the bowyer's lightest arrow, as a mass", "floor 430gr",
         _FLOOR, (Slot("arrow_mass_gr", "mass", "arrow_mass"),),
         beside="bowyer; bowyer says; maker; maker says; arrow; arrows; bowyer wants; do"),
    Word("bracerange", "bow", BraceRange, "bracerange {low_mm} to {high_mm}", "the maker's brace heights", "bracerange 7 to 8",
         "brace; brace height; brace range; bh; fistmele; brace heights; recommended brace height; recommended brace; maker says brace",
         (Slot("low_mm", "length", "brace_height", label="from"), Slot("high_mm", "length", "brace_height", label="to")),
         beside="maker says; between; should; to; range; recommended; height"),
    Word("inspect", "bow", Inspected, "inspect bad {_item}", "something found wrong at the look-over", "inspect bad crazing",
         "found; look over; looked over", choices={"_item": _ITEMS, "_bad": {1: _WRONG}},
         beside="on the lower limb; on the upper limb; on the limb; on limb; on a limb",
         implied=True, need=("_item", "_bad"), build=_failing,
         weak="split; bad; cracked; broken; loose; worn; string; tip; tips; limbs; limb; groove; strands; nocks; twang; sharp; failing; damaged; lifts"),
    Word("inspect", "bow", Inspected, "inspect good {_item}", "one thing looked over and good", "inspect good string",
         "inspected; checked; looked over; looked at; look over", choices={"_item": _ITEMS, "_good": {1: _FINE}},
         need=("_item", "_good"), build=_good, needs=lambda m: not m.says("all")),
    Word("inspect", "bow", Inspected, "inspect all good", "the whole look-over before stringing", "inspect all good",
         "looked over; looked it over; look over; inspected; checked; all good", choices={"_good": {1: _FINE}},
         beside="everything; bow; it", fixed={"good": get_args(InspectionItem)}, need=("_good",)),
    Word("made", "bow", BowMadeAs, "made {made}", "whether the bow is in one piece or to be taken down", "made take-down",
         choices={"made": {"take_down": "take-down; take down; takedown", "one_piece": "one piece; in one piece"}},
         beside="bow", need=("made",)),
    Word("together", "bow", PutTogether, "together {_step}", "a step of putting the bow together, or all of them", "together larger loop",
         choices={"_step": {
             "limbs_seated": "limbs seated; seated",
             "bolts_tight": "bolts tight; bolts turned in",
             "marks_up": "marks up; upper limb on top; the upper limb on top",
             "larger_loop": "larger loop; larger loop on the upper limb; larger loop on top",
             "with_stringer": "with stringer; strung with a stringer; strung with the stringer",
             "loops_seated": "loops seated; both loops in their grooves",
             "rest_fixed": "rest fixed; rest or shelf in order",
             "brace_read": "brace read; brace height read",
             "twang_listened": "twang listened; twanged for rattles",
             "all": "all",
         }}, implied=True, need=("_step",), weak="all; seated", build=_step),
    Word("speed", "rig", ArrowSpeed, "speed {speed_mps} {arrow_mass_gr}", "a chronograph reading, with the arrow's mass", "speed 168 fps 431gr",
         "chrono; chronograph; chronographed; arrow speed; velocity; fast; flies",
         (Slot("speed_mps", "speed", "arrow_speed"), Slot("arrow_mass_gr", "mass", "arrow_mass", needed=False)),
         beside="arrow; arrows", self_telling=("speed",)),
)  # fmt: skip
