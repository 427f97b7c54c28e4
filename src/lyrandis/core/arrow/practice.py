"""The practice school of spine: what everyday shooters end with, as one product of factors.

Spines in pounds of the wood scale, lengths in inches or mm as named, masses in grains. A school of
its own, shown beside the mechanics; `matched.py` brings the two together.
"""

import math
from dataclasses import dataclass
from typing import Literal

from lyrandis.core.arrow.bend import Shot
from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN, NEWTONS_PER_LBF
from lyrandis.core.drawn import Drawn

ANCHOR_LBF, ANCHOR_WEIGHT_LBF, ANCHOR_LENGTH_IN, ANCHOR_TIP_GR = 51.0, 45.0, 28.0, 125.0
WEIGHT_POWER = 2 / 3
PER_INCH, PER_25_GR, LOW_STRETCH, PER_BRACE_IN, BY_THUMB = 0.06, 0.06, 0.07, 0.04, 0.10
LEAST_TIP_FACTOR = 0.6
MOST_BRACE_OFF_IN = 2.0
SHORT_FROM_MM, SHORT_PER_MM, SHORT_MOST = 1.0, 0.020, 0.24
PAST_PER_MM, PAST_MOST = 0.03, 0.15
PRACTICE_SD, THUMB_SD = 0.15, 0.25
SD_PER_100_GR, HEAVY_TIP_GR = 0.10, 200.0
SD_PER_10_LB, TRIED_WEIGHTS_LBF = 0.10, (25.0, 70.0)
USUALLY_LOW_STRETCH: tuple[Family, ...] = ("hunting_recurve", "target_recurve")
"""Assumption: recurves carry low-stretch strings where nobody said."""

TermName = Literal["draw weight", "shaft length", "point", "string", "brace", "window", "thumb"]


@dataclass(frozen=True)
class RigHabit:
    """What the practice school asks of a rig beyond what its shot holds."""

    low_stretch: bool
    thumb: bool
    usual_brace_mm: float
    half_shaft_mm: float
    weight_doubt: float = 0.0
    """Standard deviation of the draw weight, as a share of it."""


class PracticeTerm(Drawn):
    """One factor of the sum; the first is pounds, the rest are shares of what stands so far."""

    name: TermName
    factor: float
    pounds: float
    """What it adds to what stands before it."""


@dataclass(frozen=True)
class Practice:
    """What practice says a rig wants, factor by factor."""

    wants: float
    sd: float
    """Of the natural logarithm."""
    beyond: float
    """The part of it that comes from a weight or a point beyond those that were tried."""
    terms: tuple[PracticeTerm, ...]


def habit_of(
    family: Family, *, low_stretch: bool | None, thumb: bool, diameter_mm: float,
    weight_doubt: float,
) -> RigHabit:  # fmt: skip
    """Return what the school asks of a rig of some kind; a string nobody spoke of is its usual.

    Assumption: `USUALLY_LOW_STRETCH`.

    >>> found = habit_of("selfbow", low_stretch=None, thumb=False, diameter_mm=8.0, weight_doubt=0)
    >>> found.low_stretch, found.usual_brace_mm, found.half_shaft_mm
    (False, 152.4, 4.0)
    """
    low = family in USUALLY_LOW_STRETCH if low_stretch is None else low_stretch
    usual = round(FAMILIES[family].brace_in * MM_PER_IN, 3)
    return RigHabit(low, thumb, usual, round(diameter_mm / 2, 3), round(weight_doubt, 3))


def practice_of(shot: Shot, habit: RigHabit) -> Practice:
    """Return the spine practice gives a shot [lb of the wood scale].

    51 (W/45)^(2/3) times a factor for length, point, string, brace, window and thumb. Range: 16 to
    75 lb, points of 60 to 400 gr; wider doubt beyond 200 gr, under 25 and over 70 lb.
    Source: fitted on 16 everyday anchors and 45 sound rigs, rms 8 % (docs/CALIBRATION.md).

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> round(practice_of(c.arrow.shooting.shot, c.arrow.shooting.habit).wants)
    60
    """
    weight = shot.push.force[-1] / NEWTONS_PER_LBF
    tip = shot.beam.tip / KG_PER_GRAIN
    long = shot.beam.length * 1000 / MM_PER_IN - ANCHOR_LENGTH_IN
    brace = (shot.push.brace * 1000 - habit.usual_brace_mm) / MM_PER_IN
    brace = min(max(brace, -MOST_BRACE_OFF_IN), MOST_BRACE_OFF_IN)
    short = shot.side.offset * 1000 - habit.half_shaft_mm
    # M = 51 (W/45)^(2/3) (1 + .06 (tip - 125)/25)
    #     exp(.06 (L - 28) + .07 low + .04 brace + w - .1 thumb)
    factors: tuple[tuple[TermName, float], ...] = (
        ("shaft length", math.exp(PER_INCH * long)),
        ("point", max(1 + PER_25_GR * (tip - ANCHOR_TIP_GR) / 25, LEAST_TIP_FACTOR)),
        ("string", math.exp(LOW_STRETCH * habit.low_stretch)),
        ("brace", math.exp(PER_BRACE_IN * brace)),
        ("window", math.exp(_window(short))),
        ("thumb", math.exp(-BY_THUMB * habit.thumb)),
    )
    wants = ANCHOR_LBF * (weight / ANCHOR_WEIGHT_LBF) ** WEIGHT_POWER
    terms = [PracticeTerm(name="draw weight", factor=1.0, pounds=wants)]
    for name, factor in factors:
        terms.append(PracticeTerm(name=name, factor=factor, pounds=wants * (factor - 1)))
        wants *= factor
    low, high = TRIED_WEIGHTS_LBF
    beyond = math.hypot(
        SD_PER_100_GR * max(tip - HEAVY_TIP_GR, 0.0) / 100,
        SD_PER_10_LB * max(low - weight, weight - high, 0.0) / 10,
    )
    sd = math.hypot(THUMB_SD if habit.thumb else PRACTICE_SD, beyond)
    return Practice(wants, sd, beyond, tuple(terms))


def _window(short_mm: float) -> float:
    """Return ln of the factor for a face so many mm short of centre; - is past it."""
    if short_mm < 0:
        return min(-PAST_PER_MM * short_mm, PAST_MOST)
    return -min(SHORT_PER_MM * max(short_mm - SHORT_FROM_MM, 0.0), SHORT_MOST)
