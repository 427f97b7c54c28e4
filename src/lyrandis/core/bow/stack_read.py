"""Where stack begins on the archer's own bow: on the curve its scale shows, else of its limbs.

Onset is the limbs' own: it does not move with the brace that is read today. Draws in mm, true to
the pivot.
"""

from dataclasses import replace
from functools import lru_cache

import numpy as np

from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.hermite import Hermite
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.bow.stack import UNKNOWN_ONSET_SD_MM, Stack, stack_of, typical_stack
from lyrandis.core.bow.statics import BowShape, draw_curve
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.bow.weight_fit import WeightFit
from lyrandis.core.constants import MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.errors import DomainError
from lyrandis.core.estimate import Estimate

SHOWN_BY_POINTS = 4
"""Assumption: so many weighings show where the weight begins to climb."""
SHOWN_OVER_MM = 5 * MM_PER_IN
"""They lie in the last of the draw before the hook."""
PAST_HOOK_MM = MM_PER_IN / 2
FELT_SD_MM = MM_PER_IN / 4
"""Assumption: a wall is felt to within half an inch, two standard deviations."""
CURVES_DRAWN = 32
"""Curves of the posterior whose onsets give the ±."""


def stack_of_rig(
    likeness: Likeness,
    weight: DrawWeight | None,
    at_hook: Estimate | None,
    felt_mm: float | None = None,
) -> Stack:
    """Return where a rig's bow stacks.

    Where its archer feels it (`felt_mm`, a draw with the string at the hook). Else, where four
    weighings and more lie in the last five inches before the hook, of the curve they show. Else of
    the kind's limbs at their kind's usual brace.

    Source: `stack_of`; the numbers of points and inches are Assumption.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> stack_of_rig(c.bow.likeness, c.bow.weight, c.archer.at_hook).read
    False
    """
    if felt_mm is not None:
        onset = felt_mm - TRADE_OFFSET_MM
        limbs = stack_of_limbs(likeness.shape)
        return replace(limbs, onset_mm=onset, onset_sd_mm=FELT_SD_MM, felt=True)
    if weight is not None and weight.basis == "weighed" and at_hook is not None:
        last = [point.draw_mm - at_hook.value for point in weight.points]
        if sum(-SHOWN_OVER_MM <= off <= PAST_HOOK_MM for off in last) >= SHOWN_BY_POINTS:
            return _read(likeness.shape, weight.fit, weight.fitted)
    limbs = stack_of_limbs(likeness.shape)
    return limbs if likeness.known else replace(limbs, onset_sd_mm=UNKNOWN_ONSET_SD_MM)


def stack_of_limbs(shape: BowShape) -> Stack:
    """Return the stack of a kind's limbs, braced as its kind usually is.

    Assumption: as `stack_of`; a brace moves the string, not the limbs' own travel.

    >>> high = BowShape("hunting_recurve", 1524.0, 396.0, 9 * 25.4)
    >>> low = high._replace(brace_height_mm=6.5 * 25.4)
    >>> stack_of_limbs(high) == stack_of_limbs(low)
    True
    """
    usual = shape._replace(brace_height_mm=FAMILIES[shape.family].brace_in * MM_PER_IN)
    try:
        return typical_stack(usual)
    except DomainError:
        return typical_stack(shape)


@lru_cache(maxsize=128)
def _read(shape: BowShape, fit: WeightFit, fitted: Hermite) -> Stack:
    """Return the stack of the curve a scale shows, its ± from curves of the posterior."""
    curve = draw_curve(shape)
    found = stack_of(curve, fitted)
    draws = np.array(curve.force.x) + TRADE_OFFSET_MM
    logs = fit.drawn(draws, CURVES_DRAWN)
    onsets = []
    for log in logs:
        weights = np.exp(log) * np.array(curve.force.y)
        slopes = np.gradient(weights, draws)
        tried = Hermite(curve.force.x, tuple(weights.tolist()), tuple(slopes.tolist()))
        onsets.append(stack_of(curve, tried).onset_mm or curve.last_mm)
    return replace(found, onset_sd_mm=max(float(np.std(onsets)), MM_PER_IN / 8), read=True)
