"""What numbers are believable at a bench, and what a wrong one was probably meant to be.

The limits only refuse what cannot be a reading; judging is the rules' work.
"""

import math
from dataclasses import dataclass
from functools import partial
from typing import Annotated, cast

from pydantic import AfterValidator, Field
from pydantic.fields import FieldInfo

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.errors import DomainError, Guess
from lyrandis.core.phrase import Figure, phrase
from lyrandis.core.units import Unit, say

_ROUNDING = 1e-6
"""A limit typed in inches is still inside after its conversion."""


def within(value: float, low: float, high: float) -> bool:
    """Return True when a value lies between two limits, both inclusive, whatever was rounded.

    >>> within(round(66 * 25.4, 6), 48 * MM_PER_IN, 66 * MM_PER_IN)
    True
    """
    return low - _ROUNDING <= value <= high + _ROUNDING


@dataclass(frozen=True)
class Plausible:
    """The believable range of one quantity.

    `low` and `high` are inclusive, in `unit`; `word` is its jot word; `mistaken_for` lists the
    quantities people type in its place.
    """

    name: str
    unit: Unit
    low: float
    high: float
    word: str
    mistaken_for: tuple[str, ...] = ()

    def holds(self, value: float) -> bool:
        return within(value, self.low, self.high)


def _inches(
    name: str, low: float, high: float, word: str, mistaken_for: tuple[str, ...] = ()
) -> Plausible:
    return Plausible(name, "mm", low * MM_PER_IN, high * MM_PER_IN, word, mistaken_for)


PLAUSIBLE: dict[str, Plausible] = {
    "draw_length": _inches("draw length", 12, 40, "draw", ("bow_length", "arm_span")),
    "hook_position": _inches("string position", 12, 42, "draw hook", ("bow_length",)),
    "arm_length": _inches("arm length", 12, 42, "tape", ("arm_span",)),
    "arm_span": _inches("arm span", 40, 100, "span", ("arm_length",)),
    "hook_depth": _inches("hook depth", 0, 3, "hook", ("draw_length",)),
    "bow_length": _inches("bow length", 36, 84, "bow", ("draw_length", "riser_length")),
    "riser_length": _inches("riser length", 3, 30, "riser", ("bow_length",)),
    "limb_length": _inches("limb length", 12, 45, "limbs", ("bow_length",)),
    "brace_height": _inches("brace height", 3, 12, "brace", ("draw_length",)),
    "grip_depth": _inches("grip depth", 0, 4, "grip"),
    "shaft_length": _inches("shaft length", 15, 45, "shaft", ("bow_length", "shaft_diameter")),
    "string_length": _inches("string length", 30, 84, "string", ("draw_length",)),
    "draw_weight": Plausible("draw weight", "lbf", 1, 200, "scale"),
    "arrow_mass": Plausible("arrow mass", "gr", 100, 2500, "arrow"),
    "grains_per_pound": Plausible("grains per pound", "gr/lbf", 3, 30, "floor"),
    "shaft_grains_per_inch": Plausible("shaft mass per inch", "gr/in", 2, 25, "shaft"),
    "part_mass": Plausible("part mass", "gr", 0, 600, "point"),
    "riser_mass": Plausible("riser weight", "gr", 0, 46000, "riserweight"),
    "arrow_speed": Plausible("arrow speed", "m/s", 10, 120, "speed"),
    "shaft_mass": Plausible("bare shaft's mass", "gr", 60, 1500, "bareshaft"),
    "spine": Plausible("spine", "spine", 15, 160, "spine"),
    "shaft_diameter": Plausible("shaft diameter", "gap", 3, 15, "diameter"),
    "taper_length": _inches("taper length", 0, 30, "taper"),
    "fletching_length": _inches("fletching length", 0.5, 12, "fletching"),
    "run_out": Plausible("run-out", "gap", 0, 10, "straight"),
    "nock_turn": Plausible("nock turn", "deg", 0, 360, "turned"),
    "window": Plausible("window", "gap", -15, 25, "window"),
    "string_track": Plausible("string's track", "gap", -15, 15, "track"),
    "bundle_diameter": Plausible("bundle's diameter", "gap", 0.8, 5, "bundle"),
    "thread_diameter": Plausible("serving thread", "gap", 0.1, 1.5, "thread"),
    "serving_length": _inches("serving", 1, 20, "serving"),
    "silencer_place": _inches("silencer's place", 1, 40, "silencers"),
    "nock_height": Plausible("nock height", "gap", -15, 40, "lift"),
    "nock_outside": Plausible("arrow nock's thickness", "gap", 3, 15, "nockwidth"),
    "nock_groove": Plausible("arrow nock's groove", "gap", 1, 6, "nockgroove"),
    "tiller_gap": _inches("tiller gap", 2, 14, "tiller", ("draw_length",)),
    "aside": Plausible("place aside", "gap", -25, 25, "centreshot"),
    "forward": Plausible("place forward", "gap", -150, 1200, "riserweight"),
    "upward": Plausible("place up the riser", "gap", -500, 500, "riserweight"),
    "under_rest": Plausible("place under the rest", "gap", 0, 80, "gripmark"),
    "crawl": Plausible("crawl", "gap", 0, 120, "usualcrawl"),
    "hook_place": Plausible("crawl", "gap", -25, 120, "crawl"),
    "three_fingers": Plausible("width of three fingers", "gap", 33, 90, "finger three"),
    "finger_width": Plausible("finger's width", "gap", 11, 30, "finger"),
    "ten_stitches": Plausible("width of ten stitches", "gap", 12, 80, "stitches"),
    "eye_height": Plausible("eye over the nock", "gap", 15, 160, "eye"),
    "arrow_reach": _inches("nock to point's end", 15, 46, "reach"),
    "tail_aside": Plausible("place of the nock", "gap", -300, 300, "tail"),
    "hit_aside": Plausible("place of a hit", "mm", -2000, 2000, "bare"),
}

_SLIPS_OF_UNIT: dict[Unit, tuple[tuple[float, str], ...]] = {
    "lbf": ((1 / 4.4482216, "N"), (2.2046226, "kg")),
    "gr": ((15.432358, "g"), (1 / 15.432358, "gr")),
    "m/s": ((0.3048, "fps"),),
    "gap": ((MM_PER_IN, "in"), (1 / MM_PER_IN, "mm")),
}
_LENGTH_TYPED_IN_INCHES = ((1 / 2.54, "cm"), (1 / 25.4, "mm"))
_LENGTH_TYPED_IN_METRIC = ((2.54, "in"), (0.1, "mm"), (10.0, "cm"), (25.4, "in"))


def _slips(meant: Plausible, value: float) -> tuple[tuple[float, str], ...]:
    """Return the factors by which a mistaken unit would have changed what was typed."""
    if meant.unit != "mm":
        return _SLIPS_OF_UNIT.get(meant.unit, ())
    typed_in_inches = any(
        abs(value / MM_PER_IN * parts - round(value / MM_PER_IN * parts)) < 1e-6
        for parts in (16, 10)
    )
    return _LENGTH_TYPED_IN_INCHES if typed_in_inches else _LENGTH_TYPED_IN_METRIC


def _guesses(key: str, value: float) -> tuple[Guess, ...]:
    meant = PLAUSIBLE[key]
    found = []
    for other_key in meant.mistaken_for:
        other = PLAUSIBLE[other_key]
        if other.holds(value):
            question = f"Did you mean {_an(other.name)} of {{figure}}?"
            found.append(
                Guess(
                    f"{other.word} {say(value, other.unit)}",
                    phrase(question, figure=Figure(value, other.unit)),
                )
            )
    for factor, unit in _slips(meant, value):
        if meant.holds(value * factor):
            figure = _in_unit(value * factor, unit)
            said = figure
            if meant.unit in ("mm", "gap"):
                said = "{same}" if unit == "in" else f"{figure} ({{same}})"
            slip = phrase(f"Did you mean {said}?", same=Figure(value * factor, meant.unit))
            found.append(Guess(f"{meant.word} {figure}", slip))
            break
    return tuple(found)


def _an(name: str) -> str:
    return f"{'an' if name[0] in 'aeiou' else 'a'} {name}"


def _in_unit(value: float, unit: str) -> str:
    per_unit = {
        "cm": 10.0,
        "mm": 1.0,
        "in": MM_PER_IN,
        "N": 0.22480894,
        "kg": 2.2046226,
        "g": 15.432358,
        "fps": 0.3048,
    }
    return f"{value / per_unit.get(unit, 1.0):.4g} {unit}"


def check(key: str, value: float) -> float:
    """Return `value` if it is believable for the quantity `key`, else raise `DomainError`.

    >>> check("draw_length", 700.0)
    700.0
    """
    meant = PLAUSIBLE[key]
    if meant.holds(value):
        return value
    if not math.isfinite(value):
        raise DomainError(
            "not_a_number",
            f"{_an(meant.name).capitalize()} must be a finite number.",
            "Type a plain number.",
        )
    said = "{said}" if abs(value) < 100 * meant.high else "That"
    if meant.low >= 0 and (value < 0 or (value == 0 and meant.low > 0)):
        reason = f"{_an(meant.name).capitalize()} cannot be {'negative' if value < 0 else 'zero'}."
    else:
        reason = f"{said} is outside what {_an(meant.name)} can be."
    raise DomainError(
        "out_of_range",
        phrase(reason, said=Figure(value, meant.unit)),
        phrase(
            f"Give {_an(meant.name)} between {{low}} and {{high}}, and check the unit.",
            low=Figure(meant.low, meant.unit),
            high=Figure(meant.high, meant.unit),
        ),
        guesses=_guesses(key, value) if value > 0 else (),
    )


def _checked(key: str) -> AfterValidator:
    return AfterValidator(partial(check, key))


def _told(key: str) -> FieldInfo:
    meant = PLAUSIBLE[key]
    text = f"{meant.name} [{meant.unit}], {meant.low:g} to {meant.high:g}"
    return cast(FieldInfo, Field(description=text))


DrawLength = Annotated[float, _checked("draw_length"), _told("draw_length")]
HookPosition = Annotated[float, _checked("hook_position"), _told("hook_position")]
ArmLength = Annotated[float, _checked("arm_length"), _told("arm_length")]
ArmSpan = Annotated[float, _checked("arm_span"), _told("arm_span")]
HookDepth = Annotated[float, _checked("hook_depth"), _told("hook_depth")]
BowLength = Annotated[float, _checked("bow_length"), _told("bow_length")]
RiserLength = Annotated[float, _checked("riser_length"), _told("riser_length")]
LimbLength = Annotated[float, _checked("limb_length"), _told("limb_length")]
BraceHeight = Annotated[float, _checked("brace_height"), _told("brace_height")]
GripDepth = Annotated[float, _checked("grip_depth"), _told("grip_depth")]
ShaftLength = Annotated[float, _checked("shaft_length"), _told("shaft_length")]
StringLength = Annotated[float, _checked("string_length"), _told("string_length")]
DrawWeight = Annotated[float, _checked("draw_weight"), _told("draw_weight")]
ArrowMass = Annotated[float, _checked("arrow_mass"), _told("arrow_mass")]
GrainsPerPound = Annotated[float, _checked("grains_per_pound"), _told("grains_per_pound")]
ShaftGrainsPerInch = Annotated[
    float, _checked("shaft_grains_per_inch"), _told("shaft_grains_per_inch")
]
Spine = Annotated[float, _checked("spine"), _told("spine")]
ShaftDiameter = Annotated[float, _checked("shaft_diameter"), _told("shaft_diameter")]
TaperLength = Annotated[float, _checked("taper_length"), _told("taper_length")]
FletchingLength = Annotated[float, _checked("fletching_length"), _told("fletching_length")]
RunOut = Annotated[float, _checked("run_out"), _told("run_out")]
NockTurn = Annotated[float, _checked("nock_turn"), _told("nock_turn")]
Window = Annotated[float, _checked("window"), _told("window")]
StringTrack = Annotated[float, _checked("string_track"), _told("string_track")]
ShaftMass = Annotated[float, _checked("shaft_mass"), _told("shaft_mass")]
BundleDiameter = Annotated[float, _checked("bundle_diameter"), _told("bundle_diameter")]
ThreadDiameter = Annotated[float, _checked("thread_diameter"), _told("thread_diameter")]
ServingLength = Annotated[float, _checked("serving_length"), _told("serving_length")]
SilencerPlace = Annotated[float, _checked("silencer_place"), _told("silencer_place")]
NockHeight = Annotated[float, _checked("nock_height"), _told("nock_height")]
NockOutside = Annotated[float, _checked("nock_outside"), _told("nock_outside")]
NockGroove = Annotated[float, _checked("nock_groove"), _told("nock_groove")]
TillerGap = Annotated[float, _checked("tiller_gap"), _told("tiller_gap")]
Aside = Annotated[float, _checked("aside"), _told("aside")]
Forward = Annotated[float, _checked("forward"), _told("forward")]
Upward = Annotated[float, _checked("upward"), _told("upward")]
UnderRest = Annotated[float, _checked("under_rest"), _told("under_rest")]
Crawl = Annotated[float, _checked("crawl"), _told("crawl")]
Hook = Annotated[float, _checked("hook_place"), _told("hook_place")]
FingerWidth = Annotated[float, _checked("finger_width"), _told("finger_width")]
TenStitches = Annotated[float, _checked("ten_stitches"), _told("ten_stitches")]
EyeHeight = Annotated[float, _checked("eye_height"), _told("eye_height")]
ArrowReach = Annotated[float, _checked("arrow_reach"), _told("arrow_reach")]
TailAside = Annotated[float, _checked("tail_aside"), _told("tail_aside")]
HitAside = Annotated[float, _checked("hit_aside"), _told("hit_aside")]
RiserMass = Annotated[float, Field(ge=0, le=3000, description="mass on the riser [g], 0 to 3000")]
HoursStrung = Annotated[float, Field(ge=0, le=2000, description="hours strung, 0 to 2000")]
PartMass = Annotated[float, _checked("part_mass"), _told("part_mass")]
ArrowSpeed = Annotated[float, _checked("arrow_speed"), _told("arrow_speed")]
