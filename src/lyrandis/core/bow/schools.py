"""Schools of choosing a bow's length: what each asks for, in inches. Conventions, named as such.

The first three are rules of thumb of the trade, put into numbers by Lyrandis; the fourth, the stack
margin, is computed for the kind of bow and is the one Lyrandis prefers.
"""

import math
from dataclasses import dataclass
from typing import Literal

from lyrandis.core.archer.words import Hold, Purpose
from lyrandis.core.bow.words import Family

School = Literal["ladder", "limb_first", "range", "stack_margin"]
Limbs = Literal["short", "medium", "long"]

LADDER_OVER_DRAW_IN = 40.0
"""Ladder by draw: 68 in of target recurve for a 28 in draw, a 2 in step for each 2 in of draw."""
RUNG_EDGE_IN = 0.25
LADDER_FAMILIES: frozenset[Family] = frozenset({"target_recurve"})

TAKEDOWN_FAMILIES: frozenset[Family] = frozenset({"hunting_recurve", "target_recurve"})
SHORT_LIMBS_TO_IN, MEDIUM_LIMBS_FROM_IN, MEDIUM_LIMBS_TO_IN = 27.0, 26.0, 30.0
"""Limb first: short limbs for draws up to 26 or 27 in, medium from there to 30 in, long from 30.
The sizes overlap."""
LIMBS_OVER_RISER_IN: dict[Limbs, float] = {"short": 41, "medium": 43, "long": 45}
"""A 25 in riser with medium limbs makes 68 in, one of 17 in makes 60 in."""
RISERS_IN: tuple[float, ...] = (15, 17, 19, 21, 23, 25, 27)
RISER_FOR_IN: dict[Purpose | None, tuple[float, float]] = {
    "hunting": (15, 17), "woods": (15, 19), "course": (17, 21), "backyard": (17, 21),
    None: (17, 21), "field": (19, 25), "indoor": (23, 25), "distance": (21, 25),
}  # fmt: skip
"""Limb first, then riser by purpose."""

RANGE_AT_28_IN: dict[Family, tuple[float, float]] = {
    "selfbow": (64, 70), "straight_longbow": (66, 70), "reflex_deflex_longbow": (58, 66),
    "hunting_recurve": (56, 64), "target_recurve": (66, 70), "short_rigid_tip": (50, 58),
    "long_rigid_tip": (50, 58), "large_rigid_tip": (54, 62),
}  # fmt: skip
RANGE_PER_DRAW = 1.5
"""Range by draw: a band of lengths at 28 in, 1 1/2 in longer per inch of draw."""
SHORT_END: frozenset[Purpose] = frozenset({"hunting", "woods"})
LONG_END: frozenset[Purpose] = frozenset({"field", "indoor", "distance"})

MARGIN_IN: dict[Purpose | None, tuple[float, float]] = {
    "hunting": (-0.5, 2.0), "woods": (0.0, 2.5), "course": (1.5, 4.0), "backyard": (0.5, 3.0),
    None: (0.5, 3.0), "field": (1.5, 4.0), "indoor": (1.5, 4.0), "distance": (1.0, 3.5),
}  # fmt: skip
"""Stack margin wanted, least and most: a hunter takes the last half inch stacking for a shorter
bow, a course or target archer wants 1 1/2 in or more in hand; far more is length without use."""
TARGET_LEAST_IN = 1.0
"""Everyday target bows of 66 to 72 in are shot with this much in hand."""


def margin_for(family: Family, purpose: Purpose | None) -> tuple[float, float]:
    """Return the stack margin a purpose wants of a kind of bow, least and most [in].

    Assumption: `MARGIN_IN`; an inch is enough for a target recurve.

    >>> margin_for("target_recurve", "field"), margin_for("hunting_recurve", "field")
    ((1.0, 4.0), (1.5, 4.0))
    """
    least, most = MARGIN_IN[purpose]
    return (min(least, TARGET_LEAST_IN) if family == "target_recurve" else least), most


PINCH_DEG: dict[Hold | None, float | None] = {
    "three_under": 120.0, "split": 112.0, "thumb": None, None: 112.0,
}  # fmt: skip
"""Finger angle under which the string pinches: three under most of all, a thumb ring not at all."""


SCHOOL_BAND_GPP: dict[Family, tuple[float, float]] = {
    "selfbow": (7.5, 9.0),
    "straight_longbow": (8.0, 9.5),
    "reflex_deflex_longbow": (8.0, 9.5),
    "hunting_recurve": (8.0, 9.5),
    "target_recurve": (6.5, 8.0),
    "short_rigid_tip": (9.5, 12.0),
    "long_rigid_tip": (11.0, 13.5),
    "large_rigid_tip": (13.0, 15.5),
}
"""Lightest arrows by kind of bow, a school of the trade: small bows at the lower end, large ones at
the upper [gr/lbf]."""


def band_words(family: Family) -> str:
    """Return the trade's band of a kind of bow in words [gr/lbf].

    Source: `SCHOOL_BAND_GPP`, sayings of the trade.

    >>> band_words("selfbow")
    '7.5 to 9'
    """
    low, high = SCHOOL_BAND_GPP[family]
    return f"{low:g} to {high:g}"


def held_in_band(per_pound: float, family: Family) -> float:
    """Return a computed floor held inside what the trade allows the kind [gr/lbf].

    Source: `SCHOOL_BAND_GPP`, a school of the trade.

    >>> [held_in_band(floor, "target_recurve") for floor in (5.2, 7.0, 9.0)]
    [6.5, 7.0, 8.0]
    """
    low, high = SCHOOL_BAND_GPP[family]
    return min(max(per_pound, low), high)


@dataclass(frozen=True)
class SchoolsAsked:
    """Lengths a school asks for [in]."""

    low: float
    high: float


def ladder(family: Family, draw_in: float) -> SchoolsAsked | None:
    """Return the rung for a draw, or None for bows the ladder does not speak of.

    Assumption: a school's rule of thumb put into numbers by us.

    >>> ladder("target_recurve", 28.4)
    SchoolsAsked(low=68.0, high=68.0)
    """
    if family not in LADDER_FAMILIES:
        return None
    # between two rungs, a quarter inch either way, both are allowed
    low, high = (
        2.0 * math.floor((draw_in + LADDER_OVER_DRAW_IN + off) / 2 + 0.5)
        for off in (-RUNG_EDGE_IN, RUNG_EDGE_IN)
    )
    return SchoolsAsked(low, high)


def limbs_for(draw_in: float) -> tuple[Limbs, ...]:
    """Return the limbs the limb-first school allows a draw; where two sizes overlap, both.

    Assumption: `SHORT_LIMBS_TO_IN` and its fellows; a school's rule.

    >>> limbs_for(25.0), limbs_for(26.5), limbs_for(28.0), limbs_for(30.0), limbs_for(31.0)
    (('short',), ('short', 'medium'), ('medium',), ('medium', 'long'), ('long',))
    """
    allowed: tuple[tuple[Limbs, bool], ...] = (
        ("short", draw_in <= SHORT_LIMBS_TO_IN),
        ("medium", MEDIUM_LIMBS_FROM_IN < draw_in <= MEDIUM_LIMBS_TO_IN),
        ("long", draw_in >= MEDIUM_LIMBS_TO_IN),
    )
    return tuple(limbs for limbs, fits in allowed if fits)


def riser_for(family: Family, purpose: Purpose | None) -> SchoolsAsked:
    """Return the risers the limb-first school gives a purpose; a target bow keeps to 23 to 27.

    Assumption: riser by purpose, a school's rule.

    >>> riser_for("hunting_recurve", "woods").low
    15
    """
    low, high = RISER_FOR_IN[purpose]
    return SchoolsAsked(23, 27) if family == "target_recurve" else SchoolsAsked(low, high)


def limb_first(family: Family, draw_in: float, purpose: Purpose | None) -> SchoolsAsked | None:
    """Return the lengths of limb first, then riser; None for bows made in one piece.

    Assumption: a school's rule of thumb put into numbers by us.

    >>> limb_first("hunting_recurve", 28.0, "hunting")
    SchoolsAsked(low=58, high=60)
    """
    if family not in TAKEDOWN_FAMILIES:
        return None
    beyond = [LIMBS_OVER_RISER_IN[limbs] for limbs in limbs_for(draw_in)]
    riser = riser_for(family, purpose)
    return SchoolsAsked(riser.low + min(beyond), riser.high + max(beyond))


def range_by_draw(family: Family, draw_in: float, purpose: Purpose | None) -> SchoolsAsked:
    """Return the end of the family's band that suits the purpose.

    Assumption: a school's rule of thumb put into numbers by us.

    >>> range_by_draw("hunting_recurve", 28.0, "hunting")
    SchoolsAsked(low=56.0, high=60.0)
    """
    shift = RANGE_PER_DRAW * (draw_in - 28)
    low, high = (float(round(end + shift)) for end in RANGE_AT_28_IN[family])
    middle = float(round((low + high) / 2))
    if purpose in SHORT_END:
        return SchoolsAsked(low, middle)
    return SchoolsAsked(middle, high) if purpose in LONG_END else SchoolsAsked(low, high)
