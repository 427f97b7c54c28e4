"""How long a string is made, and what a millimetre of it does to the brace. Lengths in mm."""

import math
from typing import NamedTuple

from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.statics import BowShape, string_length_at
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate

RULE_IN: dict[Family, float] = {
    "hunting_recurve": 4.0, "target_recurve": 4.0,
}  # fmt: skip
"""Assumption: bow less string by the trade's habit where it is not 3 in."""
USUAL_RULE_IN = 3.0
FAR_OFF_MM = 0.75 * MM_PER_IN
"""Assumption: a string this far from both ways to reckon it was measured otherwise."""
HALF_STEP_MM = MM_PER_IN / 2
"""The gain is taken over an inch of brace: the place where the string leaves the limb moves by
whole pieces, and over an eighth the gain jumps by a tenth."""
GAIN_DOUBT, GAIN_DOUBT_RIGID = 0.10, 0.25
"""Assumption: standard deviation of ln g; with stiff tips it peaks where the string begins to lie
on them."""


class StringLength(NamedTuple):
    """How long the string should be, by both ways to reckon it."""

    rule_mm: float
    computed_mm: float | None
    """Of the computed bow at its brace; None where it has none."""


def rule_length(family: Family, bow_length_mm: float) -> float:
    """Return the string's length by the trade's habit: bow less 3 in, recurves less 4 in.

    Source: habit of the trade.

    >>> rule_length("straight_longbow", 68 * 25.4) / 25.4
    65.0
    """
    return bow_length_mm - RULE_IN.get(family, USUAL_RULE_IN) * MM_PER_IN


def string_length(shape: BowShape) -> StringLength:
    """Return the string's length by rule and by the computed bow at its brace.

    Errors: those of `chain_of`. Source: as `rule_length`; the strung bow at rest.

    >>> found = string_length(BowShape("hunting_recurve", 1575.0, 432.0, 203.0))
    >>> [round(x) for x in found]
    [1473, 1476]
    """
    return StringLength(rule_length(shape.family, shape.bow_length_mm), string_length_at(shape))


def gain_of(shape: BowShape, *, segments: int | None = None) -> Estimate | None:
    """Return how much brace is gained per length of string taken off, with its sd.

    g = 1 in/(L(b - 1/2 in) - L(b + 1/2 in)). None where the bow has no such braces.
    Errors: those of `chain_of`. Source: difference of two strung bows.

    >>> found = gain_of(BowShape("hunting_recurve", 1524.0, 17 * 25.4, 7.75 * 25.4))
    >>> round(found.value, 2)
    1.06
    """
    ends = [
        string_length_at(
            shape._replace(brace_height_mm=shape.brace_height_mm + step), segments=segments
        )
        for step in (-HALF_STEP_MM, HALF_STEP_MM)
    ]
    if ends[0] is None or ends[1] is None or ends[0] <= ends[1]:
        return None
    gain = 2 * HALF_STEP_MM / (ends[0] - ends[1])
    rigid = FAMILIES[shape.family].rigid_tip_in > 0
    return Estimate(gain, gain * (GAIN_DOUBT_RIGID if rigid else GAIN_DOUBT))


class GainPair(NamedTuple):
    """One change of the string: how much shorter it was made, how much brace it gave [mm]."""

    shortening_mm: float
    gained_mm: float
    sd_mm: float
    """Of the gained brace: two readings of a square."""


def own_gain(model: Estimate, pairs: tuple[GainPair, ...]) -> Estimate:
    """Return the gain drawn to the archer's own changes, which outrank the model.

    ln g ~ N(ln g_model, sd); each pair says g = gained/shortening, with the sd of its readings.
    Source: normal observations of ln g, weighted by their variances.

    >>> own = own_gain(Estimate(1.10, 0.11), (GainPair(10.0, 13.0, 0.7), GainPair(5.0, 6.6, 0.7)))
    >>> round(own.value, 2)
    1.26
    """
    prior = model.sd / model.value
    weight, total = 1 / prior**2, math.log(model.value) / prior**2
    for pair in pairs:
        if pair.shortening_mm * pair.gained_mm <= 0:
            continue
        observed = math.log(pair.gained_mm / pair.shortening_mm)
        share = pair.sd_mm / abs(pair.gained_mm)
        weight += 1 / share**2
        total += observed / share**2
    gain = math.exp(total / weight)
    return Estimate(gain, gain / math.sqrt(weight))
