"""The jot line's words for the bow."""

from typing import get_args

from lyrandis.core import entries as e
from lyrandis.core.archer.jots import read_datum
from lyrandis.core.constants import MARKED_DRAW_MM
from lyrandis.core.quantities import check
from lyrandis.core.room import Word
from lyrandis.core.spoken import Line
from lyrandis.core.units import GPP_UNITS, MASS_UNITS_GR

_FAMILIES: dict[str, e.Family] = {
    **{family.replace("_", " "): family for family in get_args(e.Family)},
    "longbow": "straight_longbow", "recurve": "hunting_recurve", "reflex": "reflex_deflex_longbow",
    "reflex deflex": "reflex_deflex_longbow", "takedown recurve": "hunting_recurve",
}  # fmt: skip
_LIMBS: dict[str, e.LimbsAre] = {
    "matched": "matched", "two bottoms": "two_bottoms", "two tops": "two_tops",
    "two makers": "two_makers", "bottoms": "two_bottoms", "tops": "two_tops",
}  # fmt: skip
_ITEMS: dict[str, e.InspectionItem] = {
    **{item.replace("_", " "): item for item in get_args(e.InspectionItem)},
    "crazing": "finish", "lamination": "laminations", "tip": "tips", "limb": "limbs",
    "nocks": "string_grooves", "grooves": "string_grooves", "rattle": "twang",
}  # fmt: skip


def _scale(line: Line) -> e.Reading:
    weight = line.weight()
    line.take_word("@", "at")
    draw = line.length("draw_length")
    datum = read_datum(line)
    line.take_word("at", "@")
    at_groove = line.take_word("groove", "nock", "arrow")
    if not at_groove:
        line.take_word("hook")
    return e.BowWeighed(
        draw_weight_lbf=weight,
        draw_length_mm=draw,
        datum=datum,
        string_at="groove" if at_groove else "hook",
    )


def _mark(line: Line) -> e.Reading:
    weight = line.weight()
    if line.done:
        return e.BowMark(draw_weight_lbf=weight, draw_length_mm=MARKED_DRAW_MM)
    line.take_word("@", "at")
    return e.BowMark(draw_weight_lbf=weight, draw_length_mm=line.length("draw_length"))


def _floor(line: Line) -> e.Reading:
    measure = line.measure("grains per pound")
    if measure.unit in MASS_UNITS_GR or (measure.unit is None and measure.number > 50):
        mass = measure.number * MASS_UNITS_GR[measure.unit or "gr"]
        return e.ArrowMinimum(arrow_mass_gr=check("arrow_mass", mass))
    if measure.unit not in (None, *GPP_UNITS):
        raise line.error(
            "wrong_unit", "A floor is in gpp or gr.", "Type floor 9 gpp or floor 430gr."
        )
    return e.ArrowMinimum(grains_per_pound=check("grains_per_pound", measure.number))


def _brace_range(line: Line) -> e.Reading:
    low = line.length("brace_height")
    line.take_word("to", "-", "–")
    return e.BraceRange(low_mm=low, high_mm=line.length("brace_height"))


def _speed(line: Line) -> e.Reading:
    speed = line.speed()
    return e.ArrowSpeed(speed_mps=speed, arrow_mass_gr=None if line.done else line.mass())


def _limbs(line: Line) -> e.Reading:
    token = line.peek()
    if token is None or token.kind != "number":
        return e.LimbPair(pair=line.choice(_LIMBS))
    if "length" in line.text.lower():
        upper, lower = line.length("limb_length"), line.length("limb_length")
        line.take_word("length", "long")
        return e.LimbPair(upper_length_mm=upper, lower_length_mm=lower)
    return e.LimbPair(upper_lbf=line.weight(), lower_lbf=line.weight())


def _inspect(line: Line) -> e.Reading:
    if line.take_word("all"):
        line.take_word("good", "fine")
        return e.Inspected(good=get_args(e.InspectionItem))
    failing = line.take_word("bad", "failing")
    if not failing:
        line.take_word("good", "fine")
    item = line.choice(_ITEMS)
    return e.Inspected(failing=(item,)) if failing else e.Inspected(good=(item,))


WORDS: tuple[Word, ...] = (
    Word("family", "bow", "family hunting recurve", "what sort of bow it is", lambda line: e.BowFamily(family=line.choice(_FAMILIES))),
    Word("mark", "bow", "mark 45 @ 28", "the weight written on the bow", _mark, ("marked",), offered=True),
    Word("bow", "bow", "bow 62", "bow length, nock to nock along the back", lambda line: e.BowLength(bow_length_mm=line.length("bow_length")), offered=True),
    Word("riser", "bow", "riser 17", "riser length", lambda line: e.RiserLength(riser_length_mm=line.length("riser_length"))),
    Word("scale", "bow", "scale 36.2 @ 27", "a weighed point: weight with the hook at a draw; add “groove” when read at the nock groove", _scale, ("weigh", "weighed"), takes="@"),
    Word("limit", "bow", "limit 30", "the maker's longest draw", lambda line: e.DrawLimit(draw_length_mm=line.length("draw_length"))),
    Word("floor", "bow", "floor 9 gpp", "the bowyer's lightest arrow, in gpp or grains", _floor),
    Word("bracerange", "bow", "bracerange 7 to 8", "the maker's brace heights", _brace_range),
    Word("limbs", "bow", "limbs 38 40", "marks of the upper and lower limb; or “limbs two bottoms”, “limbs 20 21 length”", _limbs),
    Word("inspect", "bow", "inspect all good", "the look-over before stringing; or “inspect bad crazing”, “inspect good string”", _inspect),
    Word("speed", "rig", "speed 168 fps 431gr", "a chronograph reading, with the arrow's mass", _speed, ("chrono",)),
)  # fmt: skip
