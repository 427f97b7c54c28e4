"""Draw length from whatever readings there are, on one datum, with its uncertainty.

All lengths in mm on the trade datum (pivot + 1 3/4 in, string at the nock groove) unless said
otherwise; `sd` is one standard deviation. What is shown as ± is two.
"""

import math
from dataclasses import dataclass
from functools import cache
from typing import Literal, NamedTuple

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.readings import (
    ArmSpan,
    ArmTape,
    DrawMarked,
    DrawOnScale,
    DrawStated,
    GripDepth,
)
from lyrandis.core.archer.words import Datum, Hold
from lyrandis.core.constants import MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.effective import Recorded
from lyrandis.core.estimate import Estimate
from lyrandis.core.memo import memo_by_equality
from lyrandis.core.reading import BaseReading, Source

DrawBasis = Literal["rig", "direct", "guess"]

# Assumption: repeatability of each way of measuring, one standard deviation in inches. A marked
# arrow varies by the archer's own draw; tape and span vary between people of the same size.
METHOD_SD_IN: dict[str, float] = {
    "draw_marked": 1 / 8,
    "draw_on_scale": 3 / 16,
    "draw_stated": 1 / 2,
    "arm_tape": 5 / 8,
    "arm_span": 7 / 8,
}
ESTIMATED_SD_IN = 1.25
"""Assumption: a draw length somebody supposed, one standard deviation."""
LEAST_SD_IN = 1 / 32
"""Assumption: no number of readings beats half a sixteenth of an inch."""
SPAN_DIVISOR = 2.5
"""Arm span over draw length (trade convention, a first guess)."""

# Assumption: grip depths where nobody has measured, (mean, sd) in inches.
BACK_DEPTH_IN = (1.75, 0.125)
BELLY_DEPTH_IN = (0.25, 0.125)
UNSURE_DATUM_SD_IN = 5 / 8
"""Assumption: a length nobody knows the end of is taken as on the trade datum, which most people
are told; read to the grip itself it is 1 3/4 in more, to the back about the same. One sd."""

# Hook depth = e tan(gamma): groove to hook e = 3/4 to 1 in (fingers) or to 1.6 in (thumb), string
# angle gamma 25 to 35 degrees at full draw. (mean, sd) in inches.
HOOK_DEPTH_IN: dict[Hold | None, tuple[float, float]] = {
    "split": (9 / 16, 1 / 8),
    "three_under": (9 / 16, 1 / 8),
    "thumb": (3 / 4, 3 / 16),
    None: (5 / 8, 3 / 16),
}
HOOK_ALONG_STRING_IN: dict[Hold | None, tuple[float, float]] = {
    "split": (0.875, 0.125),
    "three_under": (1.0, 0.15),
    "thumb": (1.3, 0.2),
    None: (1.0, 0.25),
}
"""Assumption: from the nock groove along the string to the middle of the hook: 3/4 to 1 in for
fingers, up to 1.6 in for the thumb, (mean, sd)."""


class DrawReading(NamedTuple):
    """One reading brought to the trade datum."""

    length: Estimate
    method: str
    recorded: Recorded[BaseReading]
    shared: str | None = None
    """What else the reading leans on, and so shares an error with others like it."""
    shared_sd: float = 0.0


@dataclass(frozen=True)
class Draw:
    """The archer's draw: combined length, its basis, and the readings for and beside it."""

    length: Estimate
    basis: DrawBasis
    used: tuple[DrawReading, ...]
    beside: tuple[DrawReading, ...]
    scatter: float
    """Spread of the readings over the spread their errors explain (1 = as expected)."""


def draw_to_pivot(length: float, datum: Datum, archer: ArcherFacts) -> Estimate:
    """Return the true draw to the pivot of a length read to `datum`.

    pivot = trade - 1 3/4 in = back - back depth = belly + belly depth. A length whose end nobody
    knows is taken as on the trade datum, and no better known than that guess.

    Source: the trade's datum, pivot + 1 3/4 in; grip depths are Assumption.

    >>> draw_to_pivot(711.2, "trade", ArcherFacts()).value
    666.75
    """
    if datum == "pivot":
        return Estimate(length, 0.0)
    if datum == "trade":
        return Estimate(length - TRADE_OFFSET_MM, 0.0)
    if datum == "unsure":
        return Estimate(length - TRADE_OFFSET_MM, UNSURE_DATUM_SD_IN * MM_PER_IN)
    if datum == "back":
        depth = grip_depth(archer.back_depth, BACK_DEPTH_IN)
        return Estimate(length - depth.value, depth.sd)
    depth = grip_depth(archer.belly_depth, BELLY_DEPTH_IN)
    return Estimate(length + depth.value, depth.sd)


def to_trade(length: float, datum: Datum, archer: ArcherFacts) -> Estimate:
    """Return a length read to `datum` on the trade datum (pivot + 1 3/4 in).

    Source: the trade's datum, as `draw_to_pivot`.

    >>> to_trade(666.75, "pivot", ArcherFacts()).value
    711.2
    """
    if datum == "trade":
        return Estimate(length, 0.0)
    pivot = draw_to_pivot(length, datum, archer)
    return Estimate(pivot.value + TRADE_OFFSET_MM, pivot.sd)


def grip_depth(measured: Recorded[GripDepth] | None, assumed: tuple[float, float]) -> Estimate:
    """Return a grip depth as measured (± 1/16 in), or as assumed.

    Assumption: a rule reads a grip to a sixteenth, two standard deviations.

    >>> round(grip_depth(None, BACK_DEPTH_IN).value, 2)
    44.45
    """
    if measured is not None:
        return Estimate(measured.reading.depth_mm, MM_PER_IN / 32)
    return Estimate(assumed[0] * MM_PER_IN, assumed[1] * MM_PER_IN)


def hook_depth(archer: ArcherFacts, string_angle: float | None = None) -> Estimate:
    """Return how far the string at the hook lies behind the nock groove.

    As measured; else e tan(gamma), `string_angle` gamma [rad] from the vertical at full draw and e
    the hook's distance from the groove along the string by hold; else a usual depth by hold.

    Source: geometry of a string bent at the hook; e by hold is Assumption.

    >>> round(hook_depth(ArcherFacts()).value, 2)
    15.88
    >>> round(hook_depth(ArcherFacts(), math.radians(30)).value, 2)
    14.66
    """
    if archer.hook_depth is not None:
        sd = 1 / 4 if archer.hook_depth.source in ("estimated", "told") else 1 / 16
        return Estimate(archer.hook_depth.reading.hook_depth_mm, sd * MM_PER_IN)
    hold = archer.hold.reading.hold if archer.hold else None
    return usual_hook(hold) if string_angle is None else hook_along(hold, string_angle)


def hook_along(hold: Hold | None, string_angle: float) -> Estimate:
    """Return the hook depth of a hold where the string stands at an angle [rad] from upright.

    Source: geometry, e tan(gamma); e by hold is Assumption.

    >>> round(hook_along("split", math.radians(30)).value, 1)
    12.8
    """
    along, sd = HOOK_ALONG_STRING_IN[hold]
    tangent = math.tan(string_angle)
    return Estimate(along * tangent * MM_PER_IN, sd * tangent * MM_PER_IN)


def usual_hook(hold: Hold | None) -> Estimate:
    """Return the usual hook depth of a hold.

    Assumption: 3/4 to 1 in of string and 25 to 35 degrees at full draw.

    >>> usual_hook("split").value / 25.4
    0.5625
    """
    mean, sd = HOOK_DEPTH_IN[hold]
    return Estimate(mean * MM_PER_IN, sd * MM_PER_IN)


def draw_readings(archer: ArcherFacts, hook: Estimate | None = None) -> list[DrawReading]:
    """Return every reading that bears on draw length, on the trade datum.

    Source: the trade's datum; the ± of each way is Assumption.

    >>> from lyrandis.core.example import setup
    >>> [one.method for one in draw_readings(setup(["draw 28", "span 70"]).archer)]
    ['draw_marked', 'arm_span']
    """
    hook = hook or hook_depth(archer)
    result = [
        _reading(marked, marked.reading.draw_length_mm, archer, datum=marked.reading.datum)
        for marked in archer.marked
    ]
    for scale in archer.on_scale:
        reading = _reading(
            scale, scale.reading.hook_position_mm - hook.value, archer, datum=scale.reading.datum
        )
        shared_sd = math.hypot(reading.shared_sd, hook.sd)
        result.append(
            DrawReading(reading.length, reading.method, scale, shared="hook", shared_sd=shared_sd)
        )
    result += [
        _spanned(
            _reading(stated, stated.reading.draw_length_mm, archer, datum=stated.reading.datum),
            stated.reading.half_mm,
        )
        for stated in archer.stated
    ]
    result += [_reading(tape, tape.reading.arm_length_mm, archer) for tape in archer.arm_tapes]
    result += [
        _reading(span, span.reading.arm_span_mm / SPAN_DIVISOR, archer) for span in archer.arm_spans
    ]
    return result


def _reading(
    recorded: Recorded[DrawMarked]
    | Recorded[DrawOnScale]
    | Recorded[DrawStated]
    | Recorded[ArmTape]
    | Recorded[ArmSpan],
    length: float,
    archer: ArcherFacts,
    *,
    datum: Datum = "trade",
) -> DrawReading:
    kind = recorded.reading.kind
    sd = _method_sd_mm(kind, recorded.entry.source)
    value, shared_sd = to_trade(length, datum, archer)
    shared = datum if shared_sd else None
    return DrawReading(Estimate(value, sd), kind, recorded, shared, shared_sd)


@cache
def _spanned(reading: DrawReading, half_mm: float | None) -> DrawReading:
    """Widen a draw told as a span: anywhere in it is as likely as elsewhere in it."""
    if half_mm is None:
        return reading
    sd = math.hypot(reading.length.sd, half_mm / math.sqrt(3))
    return reading._replace(length=Estimate(reading.length.value, sd))


def _method_sd_mm(kind: str, source: Source) -> float:
    """Return how well a way of measuring repeats [mm], one standard deviation."""
    sd_in = METHOD_SD_IN[kind]
    if source == "estimated":
        sd_in = ESTIMATED_SD_IN
    elif source == "told":
        sd_in = max(sd_in, METHOD_SD_IN["draw_stated"])
    return sd_in * MM_PER_IN


def combine(readings: list[DrawReading]) -> tuple[Estimate, float]:
    """Return the weighted mean of readings and their scatter.

    mean = sum(w x) / sum(w), w = 1/sd^2; variance = 1/sum(w), widened by the scatter
    sum(w (x - mean)^2)/(n - 1) where that is above 1, plus the errors that readings of one datum
    share. Source: weighted least squares; the widening is the Birge ratio of metrology.

    >>> from lyrandis.core.example import setup
    >>> readings = draw_readings(setup(["draw 28", "draw 28 1/2"]).archer)
    >>> round(combine(readings)[0].value / 25.4, 2)
    28.25
    """
    # mean = sum(w x)/sum(w), w = 1/sd^2; variance = max(Birge, 1)^2/sum(w) + shared errors
    weights = [1 / reading.length.sd**2 for reading in readings]
    total = sum(weights)
    mean = sum(w * r.length.value for w, r in zip(weights, readings, strict=True)) / total
    scatter = 1.0
    if len(readings) > 1:
        misfit = sum(
            w * (r.length.value - mean) ** 2 for w, r in zip(weights, readings, strict=True)
        )
        scatter = math.sqrt(misfit / (len(readings) - 1))
    variance = max(scatter, 1.0) ** 2 / total
    for cause in {reading.shared for reading in readings if reading.shared}:
        share = sum(
            w * r.shared_sd for w, r in zip(weights, readings, strict=True) if r.shared == cause
        )
        variance += (share / total) ** 2
    return Estimate(mean, max(math.sqrt(variance), LEAST_SD_IN * MM_PER_IN)), scatter


@memo_by_equality
def draw_of(archer: ArcherFacts, hook: Estimate | None = None) -> Draw | None:
    """Return the draw length, or None when nothing bears on it.

    Readings taken on this rig outrank the archer's general ones; an arrow drawn outranks tape,
    span and hearsay. What is outranked stands beside, as a cross-check.

    Source: weighted least squares within the best rank of readings.

    >>> from lyrandis.core.example import setup
    >>> draw_of(setup(["draw 28", "span 75"]).archer).length.value
    711.2
    """
    readings = draw_readings(archer, hook)
    if not readings:
        return None
    direct = [r for r in readings if _is_direct(r)]
    on_rig = [r for r in direct if r.recorded.on_rig]
    basis: DrawBasis = "rig" if on_rig else "direct" if direct else "guess"
    used = on_rig or direct or readings
    length, scatter = combine(used)
    counted = {reading.recorded.entry.id for reading in used}
    beside = tuple(r for r in readings if r.recorded.entry.id not in counted)
    return Draw(length, basis, tuple(used), beside, scatter)


def _is_direct(reading: DrawReading) -> bool:
    return reading.method in ("draw_marked", "draw_on_scale") and reading.recorded.source not in (
        "estimated",
        "told",
    )
