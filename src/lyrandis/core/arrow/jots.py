"""The jot line's words for shafts, spine, the arrow pass and numbered arrows."""

from collections.abc import Callable
from typing import get_args

from lyrandis.core import entries as e
from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed, ArrowPass, NumberedArrow
from lyrandis.core.arrow.spine import pounds_from_reading, pounds_from_thousandths
from lyrandis.core.arrow.words import LengthDatum, LiesOn, Quill, ShaftMaterial, SpineStandard
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.errors import Code, DomainError, Guess
from lyrandis.core.free_order import Choice, Hears, Slot
from lyrandis.core.quantities import PLAUSIBLE, check
from lyrandis.core.spoken import Line, Measure
from lyrandis.core.stage_spec import Word
from lyrandis.core.units import FORCE_UNITS_LBF, LENGTH_UNITS_MM

_THOUSANDTHS = (200.0, 2100.0)
"""What a deflection in thousandths can be; a bare number in it is one."""
_THOUSANDTHS_UNITS = frozenset({"thou", "thousandths"})
_DATUMS: dict[str, LengthDatum] = {
    "groove": "groove_to_end", "end": "groove_to_end", "tip": "groove_to_tip",
    "bare": "shaft_only",
}  # fmt: skip
_STATES: dict[str, dict[str, object]] = {
    "sound": {"state": "sound"}, "good": {"state": "sound"}, "flexed": {"state": "sound"},
    "cracked": {"state": "cracked"}, "broken": {"state": "cracked"},
    "retired": {"retired": True}, "out": {"retired": True}, "back": {"retired": False},
}  # fmt: skip

_QUILLS: dict[str, Quill] = {
    "bound": "bound", "smooth": "bound", "wrapped": "bound", "tied": "bound",
    "lifts": "lifts", "lifting": "lifts", "loose": "lifts", "lifted": "lifts",
}  # fmt: skip
_LIES_ON: dict[str, LiesOn] = {on: on for on in get_args(LiesOn)}
_MATERIALS: dict[str, ShaftMaterial] = {
    **{material: material for material in get_args(ShaftMaterial)},
    "aluminum": "aluminium", "bamboo": "cane", "ash": "wood", "cedar": "wood", "pine": "wood",
}  # fmt: skip
_PARTS = {
    "point": ("point_gr", "125gr"), "insert": ("insert_gr", "20gr"),
    "wrap": ("wrap_gr", "6gr"),
    "arrownock": ("arrow_nock_gr", "9gr"),
}  # fmt: skip


def read_spine(line: Line) -> tuple[float, SpineStandard]:
    """Take a spine and return it in pounds of the wood scale, with the standard it was given in.

    A bare number of 200 or more is thousandths; a smaller one needs its standard. Wooden shafts are
    sold in groups: 50-55 and 50/55 are their middle.
    """
    group = line.take_span()
    if group is not None:
        low, high = sorted(group)
        line.take_word("lb", "lbs", "#", "pound", "pounds")
        return check("spine", (low + high) / 2), "wood"
    measure = line.measure("spine")
    wood = measure.unit in ("lb", "lbs", "#", "pound", "pounds")
    small = measure.number < _THOUSANDTHS[0]
    if not wood and measure.unit is not None and measure.unit not in _THOUSANDTHS_UNITS:
        raise _at(measure, "wrong_unit", f"“{measure.unit}” is not a unit of spine.")
    before = line.text[: measure.start]
    if wood and measure.number > PLAUSIBLE["spine"].high:
        reason = f"No shaft is {measure.number:g} lb stiff on the wood scale."
        raise _question(measure, reason, f"{before}{measure.number:g}")
    if not wood and small:
        reason = f"{measure.number:g} thousandths would be far too stiff for any shaft."
        raise _question(measure, reason, f"{before}{measure.number:g} lb")
    value = measure.number if wood else pounds_from_thousandths(measure.number)
    return _check(measure, value), "wood" if wood else "thousandths"


def _question(measure: Measure, reason: str, guess: str) -> DomainError:
    return DomainError(
        "wrong_standard",
        reason,
        "Give pounds on the wood scale (15 to 160) or thousandths of an inch (200 to 2000).",
        guesses=(Guess(guess, f"Did you mean “{guess}”?"),),
        span=(measure.start, measure.end),
    )


def _at(measure: Measure, code: Code, reason: str) -> DomainError:
    return DomainError(
        code, reason, "Type spine 500 or spine 63 lb.", span=(measure.start, measure.end)
    )


def _check(measure: Measure, value: float) -> float:
    try:
        return check("spine", round(value, 4))
    except DomainError as error:
        error.span = (measure.start, measure.end)
        raise


def spine_said(line: Line) -> e.Reading:
    value, standard = read_spine(line)
    return ArrowBuild(spine_lbf=value, spine_standard=standard)


def deflection(line: Line) -> e.Reading:
    """Read a deflection with the span and weight it was read at; alone, the wood standard's."""
    bent = line.measure("length")
    span_mm, load_lbf = 26 * MM_PER_IN, 2.0
    if line.take_word("@", "at"):
        span = line.measure("length")
        span_mm = span.number * LENGTH_UNITS_MM.get(span.unit or "in", MM_PER_IN)
        load = line.measure("force")
        grams = {"g": 1 / 453.59237, "gram": 1 / 453.59237, "grams": 1 / 453.59237}
        load_lbf = load.number * {**FORCE_UNITS_LBF, **grams}.get(load.unit or "lb", 1.0)
    bent_mm = bent.number * LENGTH_UNITS_MM.get(bent.unit or "in", MM_PER_IN)
    value = pounds_from_reading(load_lbf, span_mm, bent_mm)
    standard: SpineStandard = "wood" if abs(span_mm - 26 * MM_PER_IN) < 1 else "thousandths"
    return ArrowBuild(spine_lbf=_check(bent, value), spine_standard=standard)


def shaft(line: Line) -> e.Reading:
    length = line.length("shaft_length")
    datum = _datum(line)
    per_inch = None if line.done else line.per_inch()
    return ArrowBuild(
        shaft_length_mm=length, length_datum=datum or _datum(line), shaft_gr_per_in=per_inch
    )


def _datum(line: Line) -> LengthDatum | None:
    line.take_word("to")
    token = line.peek()
    if token is None or token.text.lower() not in _DATUMS:
        return None
    return _DATUMS[line.take().text.lower()]


def fletching(line: Line) -> e.Reading:
    mass = line.mass("part_mass")
    length = None if line.done else line.length("fletching_length")
    return ArrowBuild(fletching_gr=mass, fletching_length_mm=length)


def bare_shaft(line: Line) -> e.Reading:
    return ArrowBuild(shaft_gr=line.mass("shaft_mass"))


def diameter(line: Line) -> e.Reading:
    return ArrowBuild(shaft_diameter_mm=read_diameter(line))


def read_diameter(line: Line) -> float:
    """Take a diameter and return mm; a bare number under 1 is inches."""
    return line.small("shaft_diameter", inches_below=1.0)


def taper(line: Line) -> e.Reading:
    if line.take_word("none", "off"):
        return ArrowBuild(tail_taper_mm=0.0, head_taper_mm=0.0)
    at_head = line.take_word("head")
    if not at_head and not line.take_word("tail"):
        raise line.error(
            "missing_choice", "Which end is tapered?", "Type taper tail 9in 5/16, or taper none."
        )
    length = line.length("taper_length")
    ends = None if line.done else read_diameter(line)
    if at_head:
        return ArrowBuild(head_taper_mm=length, head_diameter_mm=ends)
    return ArrowBuild(tail_taper_mm=length, tail_diameter_mm=ends)


def window(line: Line) -> e.Reading:
    if line.take_word("plunger"):
        return ArrowPass(plunger=True)
    if line.take_word("plate", "hard"):
        return ArrowPass(plunger=False)
    if line.take_word("centre", "center"):
        return ArrowPass(window_mm=0.0)
    value = line.small("window")
    past = line.take_word("past", "beyond")
    line.take_word("short")
    line.take_word("centre", "center")
    return ArrowPass(window_mm=-abs(value) if past else value)


def lies_on(line: Line) -> e.Reading:
    line.take_word("the", "a")
    return ArrowPass(lies_on=line.choice(_LIES_ON))


def track(line: Line) -> e.Reading:
    value = line.small("string_track")
    away = line.take_word("away", "off")
    line.take_word("to", "toward", "towards")
    line.take_word("arrow")
    return ArrowPass(track_mm=-abs(value) if away else value)


def arrow(line: Line) -> e.Reading:
    """Read one finished arrow: its mass, or something else about a numbered one."""
    token = line.peek()
    follows = line.after_next()
    if token is None or not token.text.isdecimal() or follows is None:
        return ArrowMassed(arrow_mass_gr=line.mass())
    word = follows.text.lower()
    if follows.kind == "number":
        number = line.whole("arrow's number", 1, 999)
        return ArrowMassed(arrow_mass_gr=line.mass(), arrow_number=number)
    if word not in _STATES and word not in ("spine", "straight", "turned", "remark", "quill"):
        return ArrowMassed(arrow_mass_gr=line.mass())
    number = line.whole("arrow's number", 1, 999)
    line.take()
    if word in _STATES:
        return NumberedArrow.model_validate({"arrow_number": number, **_STATES[word]})
    if word == "quill":
        return NumberedArrow(arrow_number=number, quill=line.choice(_QUILLS))
    if word == "remark":
        return NumberedArrow(arrow_number=number, remark=line.rest())
    if word == "spine":
        value, standard = read_spine(line)
        return NumberedArrow(arrow_number=number, spine_lbf=value, spine_standard=standard)
    if word == "straight":
        return NumberedArrow(arrow_number=number, straight_mm=line.small("run_out"))
    return NumberedArrow(arrow_number=number, nock_turn_deg=line.degrees("nock_turn"))


def _part(field: str) -> Callable[[Line], e.Reading]:
    def read(line: Line) -> e.Reading:
        return ArrowBuild.model_validate({field: line.mass("part_mass")})

    return read


_LENGTH = (Slot("length", "length"),)
_MASS = (Slot("mass", "mass"),)
_NUMBER = Slot("number", "whole", after=("arrow", "#", "number", "no", "nr"))
_MASS_NAMES = (
    "arrow",
    "arrows",
    "arrow mass",
    "arrow weight",
    "finished",
    "complete arrow",
    "weighs",
)
_STATE = Choice("state", {
    **{state: state for state in _STATES}, "crack": "cracked", "split": "cracked",
    "fine": "sound", "ok": "sound", "flexed and sound": "sound", "damaged": "cracked",
    "lost": "retired", "gone": "retired", "retire": "retired", "back in": "back",
}, needed=True)  # fmt: skip
_ARROW = (
    Hears("arrow {number} {mass}", _MASS_NAMES, (_NUMBER, *_MASS), (), ("mass", "weight", "weighs", "arrow")),
    Hears("arrow {mass}", _MASS_NAMES, _MASS, (), ("mass", "weight", "weighs", "arrow", "arrows"), implied=True),
    Hears("arrow {number} {state}", ("number", "no", "#"), (_NUMBER,), (_STATE,)),
    Hears("arrow {number} quill {quill}", ("arrow",), (_NUMBER,), (
        Choice("of", dict.fromkeys(("quill", "quills", "feather", "feathers"), ""), needed=True),
        Choice("quill", dict(_QUILLS), needed=True),)),
    Hears("arrow {number} spine {spine}", ("spine",), (_NUMBER, Slot("spine", "any")), (
        Choice("arrow", {"arrow": ""}, needed=True),)),
)  # fmt: skip
_SPINE = (
    Hears("spine {spine}", ("spined", "static spine", "shaft spine", "spine of", "number on the shaft"), (Slot("spine", "any"),), (), ("shaft", "shafts", "arrow", "arrows")),
)  # fmt: skip
_LIES = (
    Hears("lieson {on}", (), (), (
        Choice("on", {
            "off the hand": "hand", "off my hand": "hand", "on the hand": "hand", "no shelf": "hand",
            "off the shelf": "shelf", "on the shelf": "shelf", "off a rest": "rest",
            "on a rest": "rest",
        }, needed=True),), implied=True),
)  # fmt: skip
_SHAFT = (
    Hears(
        "shaft {length} {per_inch} {datum}",
        ("shafts", "shaft length", "arrow length", "arrows cut", "cut to"),
        (Slot("length", "length"), Slot("per_inch", "per inch", needed=False)),
        (Choice("datum", {"tip": "tip", "to the tip": "tip", "point tip": "tip", "bare": "bare"}),),
        ("arrow", "arrows", "length"),
    ),
    Hears(
        "shaft {length} {long}",
        ("arrow", "arrows", "shafts"),
        (Slot("length", "length"),),
        (Choice("long", {"long": "", "in length": ""}, needed=True),),
    ),
)
_DIAMETER = (
    Hears(
        "diameter {length}",
        ("shaft diameter", "dia", "thick", "across"),
        _LENGTH,
        (),
        ("shaft", "shafts"),
    ),
)
_TAPER = (
    Hears(
        "taper {end} {length} {across}",
        ("tapered", "tapers"),
        (Slot("length", "length"), Slot("across", "length", needed=False, after=("to",))),
        (Choice("end", {"tail": "tail", "nock end": "tail", "head": "head", "point end": "head"}, needed=True),),
    ),
)  # fmt: skip
_FLETCHING = (
    Hears(
        "fletching {mass} {length}",
        ("feathers", "fletched", "vanes", "fletchings", "feather"),
        (*_MASS, Slot("length", "length", needed=False)),
        (),
        ("mass", "weight"),
    ),
)
_BARESHAFT = (
    Hears("bareshaft {mass}", ("bare shaft", "shaft only"), _MASS, (), ("mass", "weight")),
)
_MATERIAL = (
    Hears("material {material}", ("shafts", "shaft", "arrows", "made of"), (), (
        Choice("material", {**{name: name for name in _MATERIALS}, "wooden": "wood", "woodies": "wood", "spruce": "wood", "fir": "wood", "alu": "aluminium", "carbons": "carbon", "fibreglass": "glass", "fiberglass": "glass"}, needed=True),), ("arrow", "shaft"), implied=True),
)  # fmt: skip
_PART_NAMES = {
    "point": ("points", "pile", "piles", "tip", "tips", "field point", "field points", "broadhead", "head"),
    "insert": ("inserts", "outsert"),
    "wrap": ("wraps", "cresting"),
    "arrownock": ("arrow nock", "arrow nocks", "nock", "nocks"),
}  # fmt: skip
_WINDOW = (
    Hears(
        "window {length} {past}",
        ("cut", "sight window", "off centre", "off center", "short of centre", "short of center", "side plate", "centre shot", "center shot"),
        _LENGTH,
        (Choice("past", {"past centre": "past", "past center": "past", "past": "past", "beyond": "past", "beyond centre": "past"}),),
    ),
    Hears("window {how}", ("cut", "rest", "side", "arrow"), (), (Choice("how", {
        "centre cut": "centre", "center cut": "centre", "cut to centre": "centre", "cut to center": "centre",
        "plunger": "plunger", "button": "plunger", "hard plate": "plate", "side plate": "plate",
    }, needed=True),), implied=True),
)  # fmt: skip
_TRACK = (
    Hears(
        "track {length} {away}",
        ("string tracks", "tracking", "string off centre", "string off center", "tracks"),
        _LENGTH,
        (Choice("away", {"away": "away", "off": "away"}),),
    ),
)

WORDS: tuple[Word, ...] = (
    Word("window", "bow", "window 3mm", "the arrow pass: face short of centre; “3mm past”, “centre”, “plunger”, “plate”", window, hears=_WINDOW),
    Word("lieson", "bow", "lieson hand", "what the arrow lies on: shelf, rest or hand", lies_on, hears=_LIES),
    Word("track", "bow", "track 2mm", "how far the string runs to the arrow's side; “2mm away” for the other", track, hears=_TRACK),
    Word("arrow", "arrow_set", "arrow 4 431gr", "finished mass of one arrow; or “arrow 4 spine 52lb”, “straight 0.2mm”, “turned 180”, “sound”, “cracked”, “retired”, “back”, “quill lifts”, “quill bound”, “remark …”", arrow, ("arrows", "mass"), takes="mass", offered=True, hears=_ARROW),
    Word("spine", "arrow_set", "spine 500", "static spine: thousandths of an inch, or “63 lb” on the wood scale", spine_said, hears=_SPINE),
    Word("deflection", "arrow_set", "deflection 1/2in @ 26in 2lb", "a shaft on a spine gauge: how far it bent, span and weight", deflection),
    Word("shaft", "arrow_set", "shaft 29 1/2 9.2gpi", "shaft length, nock groove to shaft end, and mass per inch; “tip” when measured to the tip, “bare” for the shaft alone", shaft, hears=_SHAFT),
    Word("diameter", "arrow_set", "diameter 8.7mm", "shaft diameter", diameter, hears=_DIAMETER),
    Word("taper", "arrow_set", "taper tail 9in 5/16", "taper of the tail or head end: length, diameter at the end; “none”", taper, hears=_TAPER),
    Word("fletching", "arrow_set", "fletching 18gr 3in", "mass of the fletching, and its length", fletching, hears=_FLETCHING),
    Word("bareshaft", "arrow_set", "bareshaft 310gr", "mass of the bare shaft, weighed", bare_shaft, hears=_BARESHAFT),
    Word("material", "arrow_set", "material wood", "what the shafts are made of", lambda line: ArrowBuild(material=line.choice(_MATERIALS)), hears=_MATERIAL),
    *(Word(word, "arrow_set", f"{word} {mass}", f"mass of the {field.removesuffix('_gr').replace('_', ' ')}", _part(field), hears=(Hears(f"{word} {{mass}}", _PART_NAMES[word], _MASS, (), ("arrow", "mass", "weight")),)) for word, (field, mass) in _PARTS.items()),
)  # fmt: skip
