"""What a quarter inch more brace does: the string shortened, the limbs as they are."""

from typing import NamedTuple

from lyrandis.core.archer.words import Hold
from lyrandis.core.bow.moving_mass import moving_mass
from lyrandis.core.bow.statics import BowShape, draw_curve
from lyrandis.core.bow.thrust import returned
from lyrandis.core.constants import JOULES_PER_LBF_MM, KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.errors import DomainError
from lyrandis.core.string.length import HALF_STEP_MM

PER_IN = 4.0
"""Differences are taken over an inch and given for a quarter of it."""


class BraceChange(NamedTuple):
    """What 1/4 in more brace changes at the same draw."""

    weight_lbf: float
    stored_j: float
    speed_mps: float
    string_mm: float
    """How much shorter the string is made."""


def brace_change(
    shape: BowShape, weight_lbf: float, pivot_mm: float, arrow_gr: float, hold: Hold | None = None
) -> BraceChange | None:
    """Return what a quarter inch more brace does to a bow that holds a weight at a draw.

    Differences between half an inch less and half an inch more, the limbs' stiffness held; None
    where the bow has no such braces.
    Source: the bow's statics and the sharing of energy, each at three braces.

    >>> shape = BowShape("straight_longbow", 66 * 25.4, 14 * 25.4, 6.75 * 25.4)
    >>> found = brace_change(shape, 47.0, 26.25 * 25.4, 423.0)
    >>> round(found.weight_lbf, 2), round(found.stored_j, 2), round(found.string_mm, 1)
    (0.16, -0.39, 4.9)
    """
    try:
        stiffness = weight_lbf / draw_curve(shape).force.at(pivot_mm)
        low, high = (
            draw_curve(shape._replace(brace_height_mm=shape.brace_height_mm + step))
            for step in (-HALF_STEP_MM, HALF_STEP_MM)
        )
    except DomainError:
        return None
    speeds = []
    for curve in (low, high):
        stored = stiffness * curve.energy.at(pivot_mm) * JOULES_PER_LBF_MM
        virtual = moving_mass(curve.shape).virtual_mass(pivot_mm, stiffness, None)
        back = stored * returned(shape.family, hold)
        speeds.append((2 * back / ((arrow_gr + virtual) * KG_PER_GRAIN)) ** 0.5)
    per_step = 2 * HALF_STEP_MM / MM_PER_IN * PER_IN
    return BraceChange(
        weight_lbf=stiffness * (high.force.at(pivot_mm) - low.force.at(pivot_mm)) / per_step,
        stored_j=stiffness
        * JOULES_PER_LBF_MM
        * (high.energy.at(pivot_mm) - low.energy.at(pivot_mm))
        / per_step,
        speed_mps=(speeds[1] - speeds[0]) / per_step,
        string_mm=(low.string_length_mm - high.string_length_mm) / per_step,
    )
