"""The jot line's words for the bow."""

from typing import get_args

from lyrandis.core import entries as e
from lyrandis.core.archer.jots import read_datum
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
from lyrandis.core.bow.words import (
    ASSEMBLY_WORDS,
    AssemblyStep,
    BowMade,
    Family,
    InspectionItem,
    LengthTaken,
    LimbsAre,
    LimbsMade,
)
from lyrandis.core.constants import MARKED_DRAW_MM
from lyrandis.core.free_order import Choice, Hears, Slot
from lyrandis.core.quantities import check
from lyrandis.core.spoken import Line
from lyrandis.core.stage_spec import Word
from lyrandis.core.units import GPP_UNITS, MASS_UNITS_GR

_FAMILIES: dict[str, Family] = {
    **{family.replace("_", " "): family for family in get_args(Family)},
    "longbow": "straight_longbow", "recurve": "hunting_recurve", "reflex": "reflex_deflex_longbow",
    "reflex deflex": "reflex_deflex_longbow", "takedown recurve": "hunting_recurve",
}  # fmt: skip
_LIMBS: dict[str, LimbsAre] = {
    "matched": "matched", "two bottoms": "two_bottoms", "two tops": "two_tops",
    "two makers": "two_makers", "bottoms": "two_bottoms", "tops": "two_tops",
}  # fmt: skip
_ITEMS: dict[str, InspectionItem] = {
    **{item.replace("_", " "): item for item in get_args(InspectionItem)},
    "crazing": "finish", "lamination": "laminations", "tip": "tips", "limb": "limbs",
    "nocks": "string_grooves", "grooves": "string_grooves", "rattle": "twang",
}  # fmt: skip

_TAKEN: dict[str, LengthTaken] = {
    "strung": "strung", "along the back": "along_back", "back": "along_back",
    "unstrung": "along_back",
}  # fmt: skip
_LIMBS_MADE: dict[str, LimbsMade] = {
    "laminated": "laminated", "glass laminated": "laminated", "solid glass": "solid_glass",
    "solid glassfibre": "solid_glass", "fibreglass": "solid_glass", "natural": "natural",
    "all natural": "natural", "horn and sinew": "natural", "horn": "natural", "all wood": "natural",
}  # fmt: skip
_LIMBS_TOLD = {spelling: spelling for spelling in (*_LIMBS, *_LIMBS_MADE)}


def _scale(line: Line) -> e.Reading:
    weight = line.weight()
    line.take_word("@", "at")
    draw = line.length("draw_length")
    datum = read_datum(line)
    line.take_word("at", "@")
    at_groove = line.take_word("groove", "nock", "arrow")
    if not at_groove:
        line.take_word("hook")
    return BowWeighed(
        draw_weight_lbf=weight,
        draw_length_mm=draw,
        datum=datum,
        string_at="groove" if at_groove else "hook",
    )


def _mark(line: Line) -> e.Reading:
    weight = line.weight()
    if line.done:
        return BowMark(draw_weight_lbf=weight, draw_length_mm=MARKED_DRAW_MM)
    line.take_word("@", "at")
    return BowMark(draw_weight_lbf=weight, draw_length_mm=line.length("draw_length"))


def _length(line: Line) -> e.Reading:
    length = line.length("bow_length")
    taken = line.choice(_TAKEN) if not line.done else None
    return BowLength(bow_length_mm=length, taken=taken)


def _floor(line: Line) -> e.Reading:
    measure = line.measure("grains per pound")
    if measure.unit in MASS_UNITS_GR or (measure.unit is None and measure.number > 50):
        mass = measure.number * MASS_UNITS_GR[measure.unit or "gr"]
        return ArrowMinimum(arrow_mass_gr=check("arrow_mass", mass))
    if measure.unit not in (None, *GPP_UNITS):
        raise line.error(
            "wrong_unit", "A floor is in gpp or gr.", "Type floor 9 gpp or floor 430gr."
        )
    return ArrowMinimum(grains_per_pound=check("grains_per_pound", measure.number))


def _brace_range(line: Line) -> e.Reading:
    low = line.length("brace_height")
    line.take_word("to", "-", "–")
    return BraceRange(low_mm=low, high_mm=line.length("brace_height"))


def _speed(line: Line) -> e.Reading:
    speed = line.speed()
    return ArrowSpeed(speed_mps=speed, arrow_mass_gr=None if line.done else line.mass())


def _limbs(line: Line) -> e.Reading:
    token = line.peek()
    if token is None or token.kind != "number":
        told = line.choice(_LIMBS_TOLD)
        return (
            LimbsMadeOf(made=_LIMBS_MADE[told])
            if told in _LIMBS_MADE
            else LimbPair(pair=_LIMBS[told])
        )
    if "length" in line.text.lower():
        upper, lower = line.length("limb_length"), line.length("limb_length")
        line.take_word("length", "long")
        return LimbPair(upper_length_mm=upper, lower_length_mm=lower)
    return LimbPair(upper_lbf=line.weight(), lower_lbf=line.weight())


_STEPS: dict[str, AssemblyStep] = {
    **{words: step for step, (words, _) in ASSEMBLY_WORDS.items()},
    **{step.replace("_", " "): step for step in ASSEMBLY_WORDS},
}
_MADE: dict[str, BowMade] = {
    "take down": "take_down", "takedown": "take_down", "one piece": "one_piece",
}  # fmt: skip


def _together(line: Line) -> e.Reading:
    if line.take_word("all"):
        return PutTogether(done=tuple(ASSEMBLY_WORDS))
    return PutTogether(done=(line.choice(_STEPS),))


def _inspect(line: Line) -> e.Reading:
    if line.take_word("all"):
        line.take_word("good", "fine")
        return Inspected(good=get_args(InspectionItem))
    failing = line.take_word("bad", "failing")
    if not failing:
        line.take_word("good", "fine")
    item = line.choice(_ITEMS)
    return Inspected(failing=(item,)) if failing else Inspected(good=(item,))


_LENGTH = (Slot("length", "length"),)
_ON_LIMB = Choice("on", {"on the limb": "", "on limb": "", "on the bow": ""})
_AT = (Slot("weight", "force"), Slot("length", "length", after=("@", "at", "with", "by")))
_FAMILY = (
    Hears("family {family}", ("kind of bow", "sort of bow", "it is a"), (), (
        Choice("family", {
            **{spelling: spelling for spelling in _FAMILIES},
            "self bow": "selfbow", "flatbow": "straight longbow", "english longbow": "straight longbow",
            "r/d longbow": "reflex deflex longbow", "hybrid longbow": "reflex deflex longbow",
            "takedown": "takedown recurve", "horse bow": "short rigid tip",
            "horsebow": "short rigid tip", "static tip": "short rigid tip",
            "static tips": "short rigid tip",
        }, needed=True),), implied=True),
)  # fmt: skip
_MARK = (
    Hears(
        "mark {weight} @ {length}",
        ("marked", "written", "rated", "label", "labelled", "stamped", "bow weight", "says on the limb"),
        _AT,
        (_ON_LIMB,),
        ("bow", "draw"),
        implied=True,
    ),
    Hears("mark {weight}", ("marked", "written", "rated", "label", "labelled", "stamped", "bow weight", "poundage"), (Slot("weight", "force"),), (_ON_LIMB,), ("bow",)),
)  # fmt: skip
_BOW = (
    Hears("bow {length} {taken}", ("bow length", "long bow", "nock to nock"), _LENGTH, (
        Choice("taken", {"strung": "strung", "when strung": "strung", "along the back": "along the back", "unstrung": "unstrung"}),), ("long",)),
)  # fmt: skip
_RISER = (Hears("riser {length}", ("riser length", "handle"), _LENGTH),)
_SCALE = (
    Hears(
        "scale {weight} @ {length} {groove}",
        ("weighed", "weigh", "weighs", "weight", "draw weight", "pulls", "pulled", "holding", "holds", "on the scale", "peak", "peaks", "on fingers", "scales"),
        _AT,
        (Choice("groove", {"groove": "groove", "at the nock": "groove", "nock groove": "groove"}),),
        ("bow", "draw", "string"),
        implied=True,
    ),
)  # fmt: skip
_STACK = (
    Hears(
        "stack {length}",
        (
            "wall at",
            "stacks at",
            "stacks from",
            "stack from",
            "stack at",
            "hits a wall at",
            "it stacks at",
        ),
        _LENGTH,
    ),
)
_LIMIT = (
    Hears("limit {length}", ("max draw", "maximum draw", "longest draw", "draw limit", "do not overdraw", "limit draw"), _LENGTH),
)  # fmt: skip
_FLOOR = (
    Hears("floor {number}", ("minimum arrow", "do not go under", "don't go under", "go under", "at least", "lightest arrow", "min arrow", "not under", "arrow minimum", "no lighter than"), (Slot("number", "any"),)),
)  # fmt: skip
_BRACERANGE = (
    Hears(
        "bracerange {low} to {high}",
        ("brace", "brace height", "brace range", "brace heights", "bh", "fistmele", "between"),
        (Slot("low", "length"), Slot("high", "length")),
    ),
)
_LIMBS_SAID = (
    Hears("limbs {upper} {lower}", ("limb marks", "limb weights"), (Slot("upper", "force"), Slot("lower", "force"))),
    Hears("limbs {pair}", (), (), (Choice("pair", {
        "two bottoms": "two bottoms", "two bottom limbs": "two bottoms", "two lower limbs": "two bottoms",
        "two tops": "two tops", "two top limbs": "two tops", "two upper limbs": "two tops",
        "two makers": "two makers", "different makers": "two makers", "matched limbs": "matched",
        "matched pair": "matched", "matched": "matched",
    }, needed=True),), implied=True),
)  # fmt: skip
_ITEMS_SAID = {
    **{spelling: spelling for spelling in _ITEMS}, "serving": "string", "loops": "string",
    "strands": "string", "groove": "string grooves", "limb tip": "tip", "limb tips": "tips",
}  # fmt: skip
_FAILING = dict.fromkeys(
    ("bad", "worn", "frayed", "cracked", "crack", "twisted", "loose", "crazed", "lifting", "lifts",
     "split", "chipped", "broken", "damaged", "rattles", "buzzes"), "bad",
)  # fmt: skip
_INSPECT = (
    Hears("inspect {bad} {item}", ("look over", "looked over", "found"), (), (
        Choice("item", _ITEMS_SAID, needed=True),
        Choice("bad", _FAILING, needed=True),
    ), implied=True),
    Hears("inspect good {item}", ("inspected", "checked", "looked over", "looked at", "look over"), (), (
        Choice("item", _ITEMS_SAID, needed=True),
        Choice("good", dict.fromkeys(("good", "fine", "ok", "sound", "whole"), ""), needed=True),
    )),
    Hears("inspect all good", ("inspected", "looked over", "looked it over", "checked", "look over"), (), (
        Choice("all", {"all good": "", "all fine": "", "all sound": "", "good": "", "fine": "", "ok": "", "sound": ""}, needed=True),)),
)  # fmt: skip
_SPEED = (
    Hears(
        "speed {speed} {mass}",
        ("chrono", "chronograph", "chronographed", "arrow speed", "fast", "flies"),
        (Slot("speed", "speed"), Slot("mass", "mass", needed=False)),
        (),
        ("arrow", "arrows"),
        implied=True,
    ),
)

WORDS: tuple[Word, ...] = (
    Word("family", "bow", "family hunting recurve", "what sort of bow it is", lambda line: BowFamily(family=line.choice(_FAMILIES)), hears=_FAMILY),
    Word("mark", "bow", "mark 45 @ 28", "the weight written on the bow", _mark, ("marked",), offered=True, at=True, hears=_MARK),
    Word("bow", "bow", "bow 62", "bow length, nock to nock along the back; or “bow 55 strung”", _length, offered=True, hears=_BOW),
    Word("riser", "bow", "riser 17", "riser length", lambda line: RiserLength(riser_length_mm=line.length("riser_length")), hears=_RISER),
    Word("scale", "bow", "scale 36.2 @ 27", "a weighed point: weight with the hook at a draw; add “groove” when read at the nock groove", _scale, ("weigh", "weighed"), at=True, hears=_SCALE),
    Word("stack", "bow", "stack 28 1/2", "where you feel the weight climb, the string at your hook", lambda line: StackFelt(draw_length_mm=line.length("draw_length")), ("wall",), hears=_STACK),
    Word("limit", "bow", "limit 30", "the maker's longest draw", lambda line: DrawLimit(draw_length_mm=line.length("draw_length")), hears=_LIMIT),
    Word("floor", "bow", "floor 9 gpp", "the bowyer's lightest arrow, in gpp or grains", _floor, hears=_FLOOR),
    Word("bracerange", "bow", "bracerange 7 to 8", "the maker's brace heights", _brace_range, hears=_BRACERANGE),
    Word("limbs", "bow", "limbs 38 40", "marks of the upper and lower limb; or “limbs two bottoms”, “limbs 20 21 length”, “limbs natural”, “limbs solid glass”, “limbs laminated”", _limbs, hears=_LIMBS_SAID),
    Word("inspect", "bow", "inspect all good", "the look-over before stringing; or “inspect bad crazing”, “inspect good string”", _inspect, hears=_INSPECT),
    Word("made", "bow", "made take-down", "whether the bow is in one piece or to be taken down", lambda line: BowMadeAs(made=line.choice(_MADE))),
    Word("together", "bow", "together larger loop", "a step of putting the bow together; or “together all”", _together),
    Word("speed", "rig", "speed 168 fps 431gr", "a chronograph reading, with the arrow's mass", _speed, ("chrono",), hears=_SPEED),
)  # fmt: skip
