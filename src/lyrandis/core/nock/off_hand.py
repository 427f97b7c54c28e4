"""Shooting off the hand: the hand is the rest, and what it eats of the arrow's clearance. In mm."""

import math

from lyrandis.core.estimate import Estimate

HAND_SD_MM = 0.4
"""Assumption: how well somebody beside the archer reads the hand's top against its mark."""
UNREAD_HAND_SD_MM = 1.0
"""Assumption: a hand nobody watched comes back to its mark within 2 mm."""


def clearance_over_hand(
    lift: Estimate, *, mark_under_mm: float = 0.0, hand_over_mark_mm: float | None = None
) -> Estimate:
    """Return how far the arrow's tail passes over the hand it lay on [mm]; below 0 it presses.

    The tail comes home at its lift over the square line. The hand's line (the mark on the grip)
    may lie under where square was laid, which leaves room; a hand that stands over its mark at
    full draw takes as much away.

    Source: geometry. Assumption: `HAND_SD_MM` and `UNREAD_HAND_SD_MM`.

    >>> read = clearance_over_hand(Estimate(1.0, 0.3), hand_over_mark_mm=2.0)
    >>> read.value, round(read.plus_minus, 1)
    (-1.0, 1.0)
    """
    # clearance = lift + (square less mark) - (hand less mark)
    sd = UNREAD_HAND_SD_MM if hand_over_mark_mm is None else HAND_SD_MM
    value = lift.value + mark_under_mm - (hand_over_mark_mm or 0.0)
    return Estimate(value, math.hypot(lift.sd, sd))
