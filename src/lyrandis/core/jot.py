"""The jot line: a bench shorthand turned into readings, with its own list of words."""

import difflib
import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TypeVar, get_args

from pydantic import ValidationError

from lyrandis.core import entries as e
from lyrandis.core import jot_arrow as arrow
from lyrandis.core.constants import MARKED_DRAW_MM
from lyrandis.core.errors import DomainError, Guess
from lyrandis.core.quantities import check
from lyrandis.core.spoken import Line, Token
from lyrandis.core.units import GPP_UNITS, MASS_UNITS_GR


@dataclass(frozen=True)
class Word:
    """One word of the jot line."""

    word: str
    subject: e.SubjectKind
    example: str
    records: str
    read: Callable[[Line], e.Reading]
    also: tuple[str, ...] = ()


_DATUMS: dict[str, e.Datum] = {
    "trade": "trade", "pivot": "pivot", "true": "pivot", "back": "back", "belly": "belly",
}  # fmt: skip
_HOLDS: dict[str, e.Hold] = {
    "split": "split", "one over two under": "split", "mediterranean": "split",
    "three under": "three_under", "under": "three_under", "three": "three_under",
    "thumb": "thumb", "ring": "thumb", "thumb ring": "thumb",
}  # fmt: skip
_ANCHORS: dict[str, e.Anchor] = {
    "chin": "under_chin", "under chin": "under_chin", "corner": "corner", "mouth": "corner",
    "corner of the mouth": "corner", "cheek": "cheekbone", "cheekbone": "cheekbone",
}  # fmt: skip
_HANDS: dict[str, e.Hand] = {"right": "right", "left": "left", "rh": "right", "lh": "left"}
_PURPOSES: dict[str, e.Purpose] = {purpose: purpose for purpose in get_args(e.Purpose)}
_FAMILIES: dict[str, e.Family] = {
    **{family.replace("_", " "): family for family in get_args(e.Family)},
    "longbow": "straight_longbow", "recurve": "hunting_recurve", "reflex": "reflex_deflex_longbow",
    "reflex deflex": "reflex_deflex_longbow", "takedown recurve": "hunting_recurve",
}  # fmt: skip
_MATERIALS: dict[str, e.ShaftMaterial] = {
    **{material: material for material in get_args(e.ShaftMaterial)},
    "aluminum": "aluminium", "bamboo": "cane", "ash": "wood", "cedar": "wood", "pine": "wood",
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
_PARTS = {
    "point": ("point_gr", "125gr"), "insert": ("insert_gr", "20gr"),
    "wrap": ("wrap_gr", "6gr"),
    "arrownock": ("arrow_nock_gr", "9gr"),
}  # fmt: skip

T = TypeVar("T")


def _choice(line: Line, options: dict[str, T]) -> T:
    start = line.peek()
    said = line.rest().lower().replace("-", " ").replace("_", " ")
    if said in options:
        return options[said]
    near = difflib.get_close_matches(said, options, n=2, cutoff=0.5)
    head = line.text[: start.start] if start else line.text.rstrip() + " "
    raise DomainError(
        "unknown_choice" if said else "missing_choice",
        f"“{said}” is not one of the choices." if said else "The choice is missing.",
        "Type one of: " + ", ".join(dict.fromkeys(first_words(options))) + ".",
        guesses=tuple(Guess(head + word, f"Did you mean “{word}”?") for word in near),
        span=(start.start if start else len(line.text), len(line.text)),
    )


def first_words(options: dict[str, T]) -> list[str]:
    """Return one spelling per choice: the first one listed."""
    spelling: dict[T, str] = {}
    for word, choice in options.items():
        spelling.setdefault(choice, word)
    return list(spelling.values())


def _at(line: Line) -> None:
    line.take_word("@", "at")


def _datum(line: Line) -> e.Datum:
    line.take_word("to")
    token = line.peek()
    if token is None or token.text.lower() not in _DATUMS:
        return "trade"
    return _DATUMS[line.take().text.lower()]


def _draw(line: Line) -> e.Reading:
    at_hook = line.take_word("hook")
    said = line.take_word("said", "about", "told")
    length = line.length("hook_position" if at_hook else "draw_length")
    datum = _datum(line)
    if line.take_word("at"):
        at_hook = line.take_word("hook")
        if not at_hook:
            raise line.error("unknown_word", "“at” wants “hook”.", "Type draw 27 7/8 at hook.")
    if at_hook:
        return e.DrawOnScale(hook_position_mm=length, datum=datum)
    if said:
        return e.DrawStated(draw_length_mm=length, datum=datum)
    return e.DrawMarked(draw_length_mm=length, datum=datum)


def _scale(line: Line) -> e.Reading:
    weight = line.weight()
    _at(line)
    draw = line.length("draw_length")
    datum = _datum(line)
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
    _at(line)
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


def _brace(line: Line) -> e.Reading:
    height = line.length("brace_height")
    return e.BraceHeight(
        brace_height_mm=height, datum="back" if _datum(line) == "back" else "pivot"
    )


def _brace_range(line: Line) -> e.Reading:
    low = line.length("brace_height")
    line.take_word("to", "-", "–")
    return e.BraceRange(low_mm=low, high_mm=line.length("brace_height"))


def _grip(line: Line) -> e.Reading:
    depth = line.length("grip_depth")
    to = _datum(line)
    return e.GripDepth(to="belly" if to == "belly" else "back", depth_mm=depth)


def _string(line: Line) -> e.Reading:
    length = line.length("string_length")
    strands = None
    if not line.done:
        strands = line.whole("number of strands", 4, 60)
        line.take_word("strands", "strand")
    return e.StringBuild(string_length_mm=length, strands=strands)


def _speed(line: Line) -> e.Reading:
    speed = line.speed()
    return e.ArrowSpeed(speed_mps=speed, arrow_mass_gr=None if line.done else line.mass())


def _limbs(line: Line) -> e.Reading:
    token = line.peek()
    if token is None or token.kind != "number":
        return e.LimbPair(pair=_choice(line, _LIMBS))
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
    item = _choice(line, _ITEMS)
    return e.Inspected(failing=(item,)) if failing else e.Inspected(good=(item,))


def _part(field: str) -> Callable[[Line], e.Reading]:
    def read(line: Line) -> e.Reading:
        return e.ArrowBuild.model_validate({field: line.mass("part_mass")})

    return read


WORDS: tuple[Word, ...] = (
    Word("draw", "archer", "draw 27 3/8", "draw length on a marked arrow; add pivot, back or belly for another datum, “at hook” for the string on a scale, “said” for hearsay", _draw),
    Word("tape", "archer", "tape 27 1/2", "fingertip to shoulder hollow", lambda line: e.ArmTape(arm_length_mm=line.length("arm_length"))),
    Word("span", "archer", "span 70", "arm span", lambda line: e.ArmSpan(arm_span_mm=line.length("arm_span"))),
    Word("hook", "archer", "hook 1/2", "hook depth: string at the hook behind the nock groove", lambda line: e.HookDepth(hook_depth_mm=line.length("hook_depth"))),
    Word("hold", "archer", "hold three under", "how the string is held", lambda line: e.HoldChosen(hold=_choice(line, _HOLDS))),
    Word("anchor", "archer", "anchor cheekbone", "where the drawing hand stops", lambda line: e.AnchorChosen(anchor=_choice(line, _ANCHORS))),
    Word("hand", "archer", "hand left", "the hand that draws", lambda line: e.HandChosen(hand=_choice(line, _HANDS))),
    Word("purpose", "archer", "purpose woods", "what the rig is for", lambda line: e.PurposeChosen(purpose=_choice(line, _PURPOSES))),
    Word("wish", "archer", "wish 38", "draw weight wished for at full draw", lambda line: e.WeightWished(draw_weight_lbf=line.weight())),
    Word("family", "bow", "family hunting recurve", "what sort of bow it is", lambda line: e.BowFamily(family=_choice(line, _FAMILIES))),
    Word("bow", "bow", "bow 62", "bow length, nock to nock along the back", lambda line: e.BowLength(bow_length_mm=line.length("bow_length"))),
    Word("riser", "bow", "riser 17", "riser length", lambda line: e.RiserLength(riser_length_mm=line.length("riser_length"))),
    Word("mark", "bow", "mark 45 @ 28", "the weight written on the bow", _mark, ("marked",)),
    Word("scale", "bow", "scale 36.2 @ 27", "a weighed point: weight with the hook at a draw; add “groove” when read at the nock groove", _scale, ("weigh", "weighed")),
    Word("limit", "bow", "limit 30", "the maker's longest draw", lambda line: e.DrawLimit(draw_length_mm=line.length("draw_length"))),
    Word("floor", "bow", "floor 9 gpp", "the bowyer's lightest arrow, in gpp or grains", _floor),
    Word("bracerange", "bow", "bracerange 7 to 8", "the maker's brace heights", _brace_range),
    Word("limbs", "bow", "limbs 38 40", "marks of the upper and lower limb; or “limbs two bottoms”, “limbs 20 21 length”", _limbs),
    Word("inspect", "bow", "inspect all good", "the look-over before stringing; or “inspect bad crazing”, “inspect good string”", _inspect),
    Word("speed", "rig", "speed 168 fps 431gr", "a chronograph reading, with the arrow's mass", _speed, ("chrono",)),
    Word("grip", "bow", "grip 1 3/4 back", "pivot to the back (or belly) where the arrow passes", _grip),
    Word("brace", "rig", "brace 7 5/8", "brace height", _brace),
    Word("string", "string", "string 59 16 strands", "string length and strands", _string),
    Word("window", "bow", "window 3mm", "the arrow pass: face short of centre; “3mm past”, “centre”, “plunger”, “plate”", arrow.window),
    Word("track", "bow", "track 2mm", "how far the string runs to the arrow's side; “2mm away” for the other", arrow.track),
    Word("arrow", "arrow_set", "arrow 4 431gr", "finished mass of one arrow; or “arrow 4 spine 52lb”, “straight 0.2mm”, “turned 180”, “sound”, “cracked”, “retired”, “back”, “remark …”", arrow.arrow, ("arrows", "mass")),
    Word("spine", "arrow_set", "spine 500", "static spine: thousandths of an inch, or “63 lb” on the wood scale", arrow.spine),
    Word("deflection", "arrow_set", "deflection 1/2in @ 26in 2lb", "a shaft on a spine gauge: how far it bent, span and weight", arrow.deflection),
    Word("shaft", "arrow_set", "shaft 29 1/2 9.2gpi", "shaft length, nock groove to shaft end, and mass per inch; “tip” when measured to the tip, “bare” for the shaft alone", arrow.shaft),
    Word("diameter", "arrow_set", "diameter 8.7mm", "shaft diameter", arrow.diameter),
    Word("taper", "arrow_set", "taper tail 9in 5/16", "taper of the tail or head end: length, diameter at the end; “none”", arrow.taper),
    Word("fletching", "arrow_set", "fletching 18gr 3in", "mass of the fletching, and its length", arrow.fletching),
    Word("bareshaft", "arrow_set", "bareshaft 310gr", "mass of the bare shaft, weighed", arrow.bare_shaft),
    Word("material", "arrow_set", "material wood", "what the shafts are made of", lambda line: e.ArrowBuild(material=_choice(line, _MATERIALS))),
    *(Word(word, "arrow_set", f"{word} {mass}", f"mass of the {field.removesuffix('_gr').replace('_', ' ')}", _part(field)) for word, (field, mass) in _PARTS.items()),
    Word("note", "rig", "note new tab today", "words worth keeping", lambda line: e.Noted(text=line.rest())),
)  # fmt: skip
_BY_WORD = {name: word for word in WORDS for name in (word.word, *word.also)}


@dataclass(frozen=True)
class Jotted:
    """What a jot line would record, and on which kind of subject."""

    subject: e.SubjectKind
    reading: e.Reading
    word: str
    source: e.Source | None = None


_ON_RIG = re.compile(r"\s+(?:here|on this rig)\s*$", re.IGNORECASE)
_GUESSED = re.compile(r"\s*\?\s*$")


def parse(text: str, *, stage: str | None = None) -> Jotted:
    """Turn a jot line into a reading.

    `stage` ("archer", "bow" or "arrow") says what a bare number means. A "?" at the end marks an
    estimate; "here" records on the rig instead of the part. Raises `DomainError` with the span of
    the word at fault and the nearest forms.

    >>> parse("scale 36.2 @ 27").reading.draw_weight_lbf
    36.2
    >>> parse("69.5cm").reading.draw_length_mm
    695.0
    >>> parse("draw 28 here ?").subject, parse("draw 28 ?").source
    ('rig', 'estimated')
    """
    plain = _GUESSED.sub("", text)
    guessed = plain != text
    said = _ON_RIG.sub("", plain)
    line = Line(said)
    head = line.peek()
    if head is None:
        raise DomainError("empty", "Nothing is typed yet.", "Type a reading, e.g. draw 27 3/8.")
    bare = head.kind == "number"
    jotted = _bare(said, line, stage) if bare else _worded(said, line, head)
    if said != plain:
        if "rig" not in jotted.reading.of:
            raise DomainError(
                "wrong_subject",
                f"“{jotted.word}” belongs to the part, not to this rig.",
                "Leave out “here”.",
                span=(len(said), len(plain)),
            )
        jotted = replace(jotted, subject="rig")
    return replace(jotted, source="estimated") if guessed else jotted


def _worded(text: str, line: Line, head: Token) -> Jotted:
    word = _BY_WORD.get(head.text.lower())
    if word is None:
        raise _unknown(text, head)
    line.take()
    try:
        reading = word.read(line)
    except ValidationError as error:
        raise _first_domain_error(error) from None
    line.end()
    return Jotted(word.subject, reading, word.word)


def _unknown(text: str, head: Token) -> DomainError:
    rest = text[head.end :]
    near = difflib.get_close_matches(head.text.lower(), _BY_WORD, n=3, cutoff=0.55)
    near = [word for word in near if _parses(word + rest)] or near
    return DomainError(
        "unknown_word",
        f"“{head.text}” is not a word the jot line knows.",
        "Start with what it is, e.g. draw, scale, arrow, brace.",
        guesses=tuple(
            Guess(word + rest, f"Did you mean “{(word + rest).strip()}”?") for word in near
        ),
        span=(head.start, head.end),
    )


def _first_domain_error(error: ValidationError) -> DomainError:
    cause = error.errors()[0].get("ctx", {}).get("error")
    if isinstance(cause, DomainError):
        return cause
    return DomainError("invalid", error.errors()[0]["msg"], "Check what was typed.")


def _bare(text: str, line: Line, stage: str | None) -> Jotted:
    """Read a line that starts with a number, by its unit, its size and the stage it is typed on."""
    for word in _bare_candidates(text, line, stage):
        try:
            return parse(f"{word} {text}")
        except DomainError:
            continue
    raise DomainError(
        "which_quantity",
        f"“{text.strip()}” could be several things.",
        "Say first what it is.",
        guesses=tuple(
            Guess(f"{word} {text.strip()}", f"Did you mean “{word} {text.strip()}”?")
            for word in ("draw", "wish", "mark", "bow", "arrow")
            if _parses(f"{word} {text}")
        ),
        span=(0, len(text)),
    )


def _bare_candidates(text: str, line: Line, stage: str | None) -> list[str]:
    kinds = line.measure("length").kinds
    if "@" in text:
        return ["scale"]
    if kinds == ("mass",):
        return ["arrow"]
    if "length" not in kinds or (len(kinds) > 1 and stage is None):
        return ["arrow"] if len(kinds) > 1 and _parses(f"arrow {text}") else []
    return {"arrow": ["shaft", "arrow"], "bow": ["bow"], "archer": ["draw", "bow"]}.get(
        stage or "", ["draw", "bow"]
    )


def _parses(text: str) -> bool:
    try:
        parse(text)
    except DomainError:
        return False
    return True
