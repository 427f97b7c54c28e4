"""What numbers are believable at a bench, and what a wrong one was probably meant to be.

The limits only refuse what cannot be a reading; judging is the rules' work.
"""

import math
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic_core import core_schema

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.errors import DomainError, Guess
from lyrandis.core.phrase import Figure, Phrase, phrase
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

    `low` and `high` are inclusive, in `unit`, but for a `low` that is only `above`; `word` is its
    jot word; `mistaken_for` lists the quantities people type in its place.
    """

    name: str
    unit: Unit
    low: float
    high: float
    word: str = ""
    mistaken_for: tuple[str, ...] = ()
    above: bool = False
    """True where `low` itself is not believable."""
    refusal: str = ""
    """What is said of another value, where the usual words do not fit: `{said}` is the value."""
    instead: str = ""
    """What to give instead, where the usual words do not fit."""
    ever: tuple[float, float] | None = None
    """The widest limits that ever held, where they were wider: what is recorded stays readable."""
    usual: tuple[float, float] | None = None
    """What a number without a unit is taken for unasked; another one is asked."""
    inches_below: float = 0.0
    """A small number without a unit is inches below this, and millimetres from it on."""

    @property
    def small(self) -> bool:
        """Return whether a number without a unit is millimetres, whatever the reader's unit."""
        return self.unit == "gap" or self.inches_below > 0

    def is_usual(self, value: float) -> bool:
        return self.holds(value) if self.usual is None else within(value, *self.usual)

    def holds(self, value: float) -> bool:
        return within(value, self.low, self.high) and not (self.above and value <= self.low)

    def held_ever(self, value: float) -> bool:
        """Return whether a value was believable at any time."""
        return self.holds(value) or (self.ever is not None and within(value, *self.ever))


def _inches(
    name: str,
    low: float,
    high: float,
    word: str,
    mistaken_for: tuple[str, ...] = (),
    *,
    usual: tuple[float, float] | None = None,
    inches_below: float = 0.0,
) -> Plausible:
    in_mm = None if usual is None else (usual[0] * MM_PER_IN, usual[1] * MM_PER_IN)
    return Plausible(
        name, "mm", low * MM_PER_IN, high * MM_PER_IN, word, mistaken_for,
        usual=in_mm, inches_below=inches_below,
    )  # fmt: skip


PLAUSIBLE: dict[str, Plausible] = {
    "draw_length": _inches(
        "draw length", 12, 40, "draw", ("bow_length", "arm_span"), usual=(20, 34)
    ),
    "draw_half": Plausible("half of a span of draws", "mm", 0, 76.2, "draw", above=True),
    "hook_position": _inches(
        "string position", 12, 42, "draw hook", ("bow_length",), usual=(20, 35)
    ),
    "arm_length": _inches("arm length", 12, 42, "tape", ("arm_span",), usual=(20, 38)),
    "arm_span": _inches("arm span", 40, 100, "span", ("arm_length",), usual=(50, 84)),
    "hook_depth": _inches("hook depth", 0, 3, "hook", ("draw_length",), usual=(0, 1.5)),
    "bow_length": _inches(
        "bow length", 36, 84, "bow", ("draw_length", "riser_length"), usual=(44, 80)
    ),
    "riser_length": _inches("riser length", 3, 30, "riser", ("bow_length",), usual=(8, 30)),
    "limb_length": _inches("limb length", 12, 45, "limbs", ("bow_length",), usual=(15, 40)),
    "brace_height": _inches("brace height", 3, 12, "brace", ("draw_length",), usual=(4, 11)),
    "grip_depth": _inches("grip depth", 0, 4, "grip", usual=(0, 3)),
    "shaft_length": _inches(
        "shaft length", 15, 45, "shaft", ("bow_length", "shaft_diameter"), usual=(20, 36)
    ),
    "string_length": _inches("string length", 30, 84, "string", ("draw_length",), usual=(40, 78)),
    "draw_weight": Plausible("draw weight", "lbf", 1, 200, "scale", usual=(8, 120)),
    "arrow_mass": Plausible("arrow mass", "gr", 100, 2500, "arrow", usual=(130, 1200)),
    "grains_per_pound": Plausible("grains per pound", "gr/lbf", 3, 30, "floor", usual=(4, 16)),
    "shaft_grains_per_inch": Plausible(
        "shaft mass per inch", "gr/in", 2, 25, "shaft", usual=(3, 20)
    ),
    "part_mass": Plausible("part mass", "gr", 0, 600, "point", usual=(0, 400)),
    "riser_mass": Plausible("riser weight", "gr", 0, 46000, "riserweight"),
    "arrow_speed": Plausible("arrow speed", "m/s", 10, 120, "speed"),
    "shaft_mass": Plausible("bare shaft's mass", "gr", 60, 1500, "bareshaft", usual=(100, 900)),
    "spine": Plausible("spine", "spine", 15, 160, "spine"),
    "shaft_diameter": Plausible(
        "shaft diameter", "gap", 3, 15, "diameter", usual=(4, 13), inches_below=1
    ),
    "taper_length": _inches("taper length", 0, 30, "taper", usual=(1, 20)),
    "fletching_length": _inches("fletching length", 0.5, 12, "fletching", usual=(1, 7)),
    "run_out": Plausible("run-out", "gap", 0, 10, "straight"),
    "nock_turn": Plausible("nock turn", "deg", 0, 360, "turned"),
    "window": Plausible("window", "gap", -15, 25, "window"),
    "string_track": Plausible("string's track", "gap", -15, 15, "track"),
    "bundle_diameter": Plausible("bundle's diameter", "gap", 0.8, 5, "bundle", inches_below=0.3),
    "thread_diameter": Plausible("serving thread", "gap", 0.1, 1.5, "thread", inches_below=0.06),
    "serving_length": _inches("serving", 1, 20, "serving", usual=(2, 12)),
    "silencer_place": _inches("silencer's place", 1, 40, "silencers", usual=(2, 30)),
    "nock_height": Plausible("nock height", "gap", -15, 40, "lift", inches_below=1.2),
    "nock_outside": Plausible("arrow nock's thickness", "gap", 3, 15, "nockwidth"),
    "nock_groove": Plausible("arrow nock's groove", "gap", 1, 6, "nockgroove"),
    "tiller_gap": _inches(
        "tiller gap", 2, 14, "tiller", ("draw_length",), usual=(4, 12), inches_below=15
    ),
    "aside": Plausible("place aside", "gap", -25, 25, "centreshot"),
    "forward": Plausible("place forward", "gap", -150, 1200, "riserweight"),
    "upward": Plausible("place up the riser", "gap", -500, 500, "riserweight"),
    "under_rest": Plausible("place under the rest", "gap", 0, 80, "gripmark", inches_below=1.2),
    "hand_at_full": Plausible("place of the hand at full draw", "gap", -20, 20, "handrise"),
    "level_circle": Plausible("circle", "mm", 20, 2000, "circle"),
    "crawl": Plausible("crawl", "gap", 0, 120, "usualcrawl", inches_below=5),
    "hook_place": Plausible("crawl", "gap", -25, 120, "crawl", inches_below=5),
    "three_fingers": Plausible("width of three fingers", "gap", 33, 90, "finger three"),
    "finger_width": Plausible("finger's width", "gap", 11, 30, "finger", inches_below=1.5),
    "ten_stitches": Plausible("width of ten stitches", "gap", 12, 80, "stitches", inches_below=3.5),
    "eye_height": Plausible("eye over the nock", "gap", 15, 160, "eye", inches_below=6),
    "arrow_reach": _inches("nock to point's end", 15, 46, "reach", usual=(20, 38)),
    "tail_aside": Plausible("place of the nock", "gap", -300, 300, "tail"),
    "hit_aside": Plausible("place of a hit", "mm", -2000, 2000, "bare"),
    "riser_mass_g": Plausible("mass on the riser", "g", 0, 3000),
    "hours_strung": Plausible("number of hours strung", "h", 0, 2000),
    "strands": Plausible("number of strands", "count", 4, 60, "strands"),
    "turns": Plausible(
        "number of turns",
        "count",
        0,
        200,
        "turns",
        refusal="{said} turns are more than any string takes.",
        instead="Count turns the way the bundle is laid: whole or half turns, {low} to {high}.",
    ),
    "turns_by": Plausible("change of turns", "count", -100, 100, "turns"),
    "rating": Plausible(
        "rating",
        "ratio",
        0,
        10,
        refusal="{said} is no rating.",
        instead="Rate from {low}, still, to {high}, harsh.",
    ),
    "bolt_turns": Plausible(
        "number of bolt turns",
        "count",
        0,
        30,
        "bolts",
        refusal="{said} is no number of bolt turns.",
        instead="Count the turns out from the stop, {low} to {high}.",
    ),
    "drift": Plausible("drift over ten metres", "mm", -500, 500),
    "shooting_distance": Plausible(
        "distance to the butt",
        "m",
        0.5,
        100,
        "bare",
        refusal="{said} is no distance to shoot from.",
        instead="Give the distance to the butt, {low} to {high}.",
    ),
    "mark_distance": Plausible(
        "distance of a crawl",
        "m",
        1.5,
        120,
        "crawl",
        above=True,
        refusal="{said} is no distance for a crawl.",
        instead="Give more than {low} and at most {high}.",
    ),
    "fingers": Plausible(
        "number of fingers",
        "ratio",
        -1.5,
        6.5,
        "crawl",
        refusal="{said} fingers is no crawl.",
        instead="Give 0 to {high} fingers: no hand reaches further.",
    ),
    "stitches": Plausible(
        "number of stitches",
        "ratio",
        -10,
        60,
        "crawl",
        refusal="{said} stitches is no crawl.",
        instead="Give 0 to {high} stitches: no hand reaches further.",
    ),
    "repeatability": Plausible("repeatability of a crawl", "gap", 0.3, 10, "repeat"),
    "table_step": Plausible("step of a table", "m", 0.5, 20),
    "arrow_number": Plausible("arrow's number", "count", 1, 999, "arrow"),
    "arrows_shot": Plausible("number of arrows", "count", 1, 24),
    "arrows_of_mark": Plausible("number of arrows", "count", 1, 36),
    "grade": Plausible("grade, 0 straight, 1 slight, 2 clear, 3 strong", "count", -3, 3),
    "index": Plausible("index of a shaft", "ratio", -20, 20),
    "index_sd": Plausible("doubt of an index", "ratio", 0, 5, above=True),
    "half_interval": Plausible("half of an interval", "ratio", 0, 1e6, above=True),
    "recorded_second": Plausible("moment of a recording", "s", 0, 700),
    "recording_length": Plausible("length of a recording", "s", 0, 700, above=True),
    "sample_rate": Plausible("rate of a recording", "Hz", 4_000, 400_000),
    "level": Plausible("level", "dB", -250, 250),
    "take_level": Plausible("level of a take", "dB", -200, 40),
    "sound_pitch": Plausible("middle of a sound", "Hz", 0, 20_000),
    "sound_share": Plausible("share of a sound", "ratio", 0, 1e6),
    "sound_count": Plausible("number of bursts", "count", 0, 1e6),
    "spread_ms": Plausible("spread of bursts", "ms", 0, 1e6),
    "excess": Plausible("excess of a level", "dB", 0, 1e6),
    "likeness": Plausible("likeness of two sounds", "ratio", -1.01, 1.01),
    "partial_number": Plausible("number of a partial", "count", 1, 16),
    "partial": Plausible("partial of a string", "Hz", 20, 2_000, above=True),
    "string_note": Plausible("note of a string", "Hz", 20, 400, above=True),
    "note_doubt": Plausible("doubt of a note", "Hz", 0, 200, above=True),
    "second_pitch": Plausible("strength of a second pitch", "ratio", 0, 100),
    "pitch_ratio": Plausible("ratio of two pitches", "ratio", 0.8, 1, above=True),
    "take_number": Plausible("number of a take", "count", 1, 24),
    "shaft_ring": Plausible("ring of a shaft", "Hz", 20, 600),
    "ring_doubt": Plausible("doubt of a ring", "Hz", 0, 100, above=True),
    "ring_lines": Plausible("number of lines of a ring", "count", 2, 8),
    "draw_short_by": Plausible("amount a draw is short by", "mm", 3, 80),
    "draw_extra_by": Plausible("amount a draw is longer by", "mm", 3, 40),
    "silencers_by": Plausible("change of silencers", "gr", -200, 200),
    "plate_by": Plausible("change of a plate", "gap", -10, 10),
    "point_by": Plausible("change of a point", "gr", -200, 200),
    "brace_by": Plausible("change of a brace", "mm", -40, 40),
    "bolts_by": Plausible("change of bolt turns", "count", -12, 12),
    "riser_weight_by": Plausible("change of a riser weight", "gr", -15000, 15000),
    "tiller_more": Plausible("difference of the tiller gaps", "gap", -30, 30),
    "deflection": _inches("deflection", 0, 2.5, "deflection"),
    "gauge_span": _inches("span of a spine gauge", 10, 40, "deflection"),
    "gauge_load": Plausible("weight on a spine gauge", "lbf", 0.5, 10),
    "gauge_mass": Plausible("weight on a spine gauge", "gr", 3500, 70000),
    "spine_half": Plausible("half of a group of spines", "lbf", 0, 10, above=True),
    "other_shafts_by": Plausible("spine of other shafts", "spine", 15, 160),
    "nock_by": Plausible("change of a nock's height", "gap", -20, 20),
}

_AS_TYPED: dict[Unit, str] = {
    "count": "", "ratio": "", "m": " m", "s": " s", "h": " h", "g": " g", "Hz": " Hz",
    "dB": " dB", "ms": " ms",
}  # fmt: skip
"""What is said as it was typed, whatever units the reader has."""
_COUNTED: frozenset[Unit] = frozenset({"count", "ratio"})
"""What nobody measures in another unit."""
_SLIPS_OF_UNIT: dict[Unit, tuple[tuple[float, str], ...]] = {
    "lbf": ((1 / 4.4482216, "N"), (2.2046226, "kg")),
    "gr": ((15.432358, "g"), (1 / 15.432358, "gr")),
    "m/s": ((0.3048, "fps"),),
    "m": ((0.001, "m"),),
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
    result = []
    for other_key in meant.mistaken_for:
        other = PLAUSIBLE[other_key]
        if other.holds(value):
            question = f"Did you mean {_an(other.name)} of {{figure}}?"
            result.append(
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
            result.append(Guess(f"{meant.word} {figure}", slip))
            break
    return tuple(result)


def _with_figures(template: str, unit: Unit, **values: float) -> Phrase:
    """Return a sentence with values in it: as figures, or as typed where no reader has others."""
    label = _AS_TYPED.get(unit)
    if label is None:
        return phrase(template, **{name: Figure(value, unit) for name, value in values.items()})
    for name, value in values.items():
        template = template.replace(f"{{{name}}}", f"{value:g}{label}")
    return phrase(template)


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
    if meant.refusal and value >= 0:
        reason = meant.refusal
    elif meant.low >= 0 and (value < 0 or (value == 0 and meant.low > 0)):
        reason = f"{_an(meant.name).capitalize()} cannot be {'negative' if value < 0 else 'zero'}."
    else:
        reason = f"{said} is outside what {_an(meant.name)} can be."
    raise DomainError(
        "out_of_range",
        _with_figures(reason, meant.unit, said=value),
        _with_figures(
            meant.instead
            or f"Give {_an(meant.name)} between {{low}} and {{high}}"
            + (", and check the unit." if meant.unit not in _COUNTED else "."),
            meant.unit,
            low=meant.low,
            high=meant.high,
        ),
        guesses=_guesses(key, value) if value > 0 else (),
    )


STORED = "stored"
AS_STORED = {STORED: True}
"""A validation's context: what is read was believable when it was recorded."""


@dataclass(frozen=True)
class Quantity:
    """Marks a number as a quantity of the trade: its words, its believable range and its unit.

    What is recorded is checked; what is read from the record (`STORED`) by the widest limits that
    ever held, so that a limit that is narrowed takes nothing out of it.

    >>> from pydantic import TypeAdapter
    >>> length = TypeAdapter(Annotated[float, Quantity("bow_length")])
    >>> length.validate_python(1600.0)
    1600.0
    >>> round(length.json_schema()["maximum"], 1)
    2133.6
    """

    key: str

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> core_schema.CoreSchema:
        return core_schema.with_info_after_validator_function(self._believed, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: core_schema.CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        meant = PLAUSIBLE[self.key]
        said = f"{meant.name} [{meant.unit}], {meant.low:g} to {meant.high:g}"
        low, high = (int(item) if item == int(item) else item for item in (meant.low, meant.high))
        least = {"exclusiveMinimum" if meant.above else "minimum": low}
        return {**handler(schema), **least, "maximum": high, "description": said}

    def _believed(self, value: float, info: core_schema.ValidationInfo) -> float:
        return believable(self.key, value, info.context)


def believable(key: str, value: float, context: Any) -> float:
    """Return a value that is believable now, or was at any time where it is read as stored.

    Raises `DomainError` as `check`.

    >>> believable("strands", 16, {STORED: True})
    16
    """
    if context and context.get(STORED) and PLAUSIBLE[key].held_ever(value):
        return value
    return check(key, value)


DrawLength = Annotated[float, Quantity("draw_length")]
HookPosition = Annotated[float, Quantity("hook_position")]
ArmLength = Annotated[float, Quantity("arm_length")]
ArmSpanMm = Annotated[float, Quantity("arm_span")]
HookDepthMm = Annotated[float, Quantity("hook_depth")]
BowLengthMm = Annotated[float, Quantity("bow_length")]
RiserLengthMm = Annotated[float, Quantity("riser_length")]
LimbLength = Annotated[float, Quantity("limb_length")]
BraceHeightMm = Annotated[float, Quantity("brace_height")]
GripDepthMm = Annotated[float, Quantity("grip_depth")]
ShaftLength = Annotated[float, Quantity("shaft_length")]
StringLengthMm = Annotated[float, Quantity("string_length")]
DrawWeightLbf = Annotated[float, Quantity("draw_weight")]
ArrowMassGr = Annotated[float, Quantity("arrow_mass")]
GrainsPerPound = Annotated[float, Quantity("grains_per_pound")]
ShaftGrainsPerInch = Annotated[float, Quantity("shaft_grains_per_inch")]
SpineLbf = Annotated[float, Quantity("spine")]
SpineHalf = Annotated[float, Quantity("spine_half")]
ShaftDiameter = Annotated[float, Quantity("shaft_diameter")]
TaperLength = Annotated[float, Quantity("taper_length")]
FletchingLength = Annotated[float, Quantity("fletching_length")]
RunOut = Annotated[float, Quantity("run_out")]
NockTurn = Annotated[float, Quantity("nock_turn")]
Window = Annotated[float, Quantity("window")]
StringTrack = Annotated[float, Quantity("string_track")]
ShaftMass = Annotated[float, Quantity("shaft_mass")]
BundleDiameter = Annotated[float, Quantity("bundle_diameter")]
ThreadDiameter = Annotated[float, Quantity("thread_diameter")]
ServingLength = Annotated[float, Quantity("serving_length")]
SilencerPlace = Annotated[float, Quantity("silencer_place")]
TillerMore = Annotated[float, Quantity("tiller_more")]
NockHeightMm = Annotated[float, Quantity("nock_height")]
NockOutside = Annotated[float, Quantity("nock_outside")]
NockGroove = Annotated[float, Quantity("nock_groove")]
TillerGap = Annotated[float, Quantity("tiller_gap")]
Aside = Annotated[float, Quantity("aside")]
Forward = Annotated[float, Quantity("forward")]
Upward = Annotated[float, Quantity("upward")]
DrawHalf = Annotated[float, Quantity("draw_half")]
UnderRest = Annotated[float, Quantity("under_rest")]
HandAtFull = Annotated[float, Quantity("hand_at_full")]
Crawl = Annotated[float, Quantity("crawl")]
Hook = Annotated[float, Quantity("hook_place")]
FingerWidthMm = Annotated[float, Quantity("finger_width")]
TenStitches = Annotated[float, Quantity("ten_stitches")]
EyeHeightMm = Annotated[float, Quantity("eye_height")]
ArrowReachMm = Annotated[float, Quantity("arrow_reach")]
TailAside = Annotated[float, Quantity("tail_aside")]
HitAside = Annotated[float, Quantity("hit_aside")]
RiserMass = Annotated[float, Quantity("riser_mass_g")]
HoursStrung = Annotated[float, Quantity("hours_strung")]
PartMass = Annotated[float, Quantity("part_mass")]
ArrowSpeedMps = Annotated[float, Quantity("arrow_speed")]
