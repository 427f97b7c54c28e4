"""What a wrong guess of the distance costs, and what a slope does to a crawl.

In the arrow's own quantities (see `Own`), not in the seen ones a table is fitted in.
"""

import math
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from lyrandis.core.crawls.fit import CrawlFit
from lyrandis.core.crawls.sight import (
    NEAREST_M,
    SLOW_END_M,
    SLOW_MPS,
    STEEP,
    G,
    Sight,
    flown_mm,
    height_mm,
    zeroed,
)
from lyrandis.core.numeric import border

INTEGRATED_M, INTEGRATED_MPS = 40.0, 48.0
"""Further than this with a slower arrow, a slope is flown in full."""
WORTHLESS_M = 1.0


class Miss(NamedTuple):
    """Where an arrow strikes when the mark stands nearer or further than was guessed [mm]."""

    nearer_mm: float
    """+ high."""
    further_mm: float
    """- low."""


@dataclass(frozen=True, slots=True)
class Slope:
    """A shot up (+) or down, by the crawl of level ground and put right."""

    degrees: float
    more_mm: float
    """Crawl to add."""
    costs_mm: float
    """Where it strikes with the crawl of level ground, + high."""


def own(fit: CrawlFit, kappa: float) -> Sight:
    """Return the arrow's own sight from the seen one: v = v'/sqrt(kappa), h = kappa h'.

    Source: definition of the seen quantities; k is the same to first order.

    >>> from lyrandis.core.crawls.fit import Prior, fit_crawls
    >>> from lyrandis.core.estimate import Estimate
    >>> rig = Prior(Estimate(52.0, 3.0), Estimate(68.0, 9.0), Estimate(0.0017, 0.25), 780.0)
    >>> own(fit_crawls(rig), 0.88).speed_mps.__round__(1)
    55.4
    """
    seen = fit.sight
    return seen._replace(
        speed_mps=seen.speed_mps / math.sqrt(kappa), eye_mm=seen.eye_mm * kappa, deep_mm=0.0
    )


def miss(sight: Sight, distance_m: float, guess_m: float) -> Miss | None:
    """Return where it strikes when the mark stands `guess_m` nearer and further; None too near.

    Source: `height_mm`, exact; the two sides are not alike.

    >>> found = miss(Sight(55.0, 64.0, 0.0016, 780.0), 30.0, 5.0)
    >>> round(found.nearer_mm / 10, 1), round(found.further_mm / 10, 1)
    (20.9, -29.8)
    """
    if distance_m - guess_m < WORTHLESS_M:
        return None
    over = float(zeroed(np.array([distance_m]), sight).over_mm[0])
    at = height_mm(np.array([distance_m - guess_m, distance_m + guess_m]), over, sight)
    return Miss(float(at[0]), float(at[1]))


def furthest_m(sight: Sight, guess_m: float, circle_mm: float) -> float | None:
    """Return the largest distance at which a guess wrong by so much stays within a circle's radius.

    By the worse side, the mark further than thought. None where it never does, up to 120 m.
    Source: `miss`, bisected.

    >>> round(furthest_m(Sight(55.0, 64.0, 0.0016, 780.0), 5.0, 200.0), 1)
    19.3
    """

    def worst(distance: float) -> float:
        found = miss(sight, distance, guess_m)
        return math.inf if found is None else max(found.nearer_mm, -found.further_mm)

    low, high = max(NEAREST_M, guess_m + WORTHLESS_M), 120.0
    if worst(low) > circle_mm:
        return None
    if worst(high) <= circle_mm:
        return high
    return border(lambda distance: worst(distance) <= circle_mm, low, high)[0]


def on_slope(sight: Sight, distance_m: float, degrees: float) -> Slope:
    """Return what a slope asks of the crawl, and what it costs not to heed it.

    S -> S cos(s) (1 + g d sin(s)/(2 v^2)), s > 0 up; flown in full for slow arrows beyond 40 m.
    Source: gravity across and along the path. The cosine alone is not enough for a slow arrow.

    >>> found = on_slope(Sight(55.0, 64.0, 0.0016, 780.0), 30.0, 30.0)
    >>> round(found.more_mm, 1)
    4.6
    """
    level = float(zeroed(np.array([distance_m]), sight).over_mm[0])
    up = math.radians(degrees)
    if distance_m > INTEGRATED_M and sight.speed_mps < INTEGRATED_MPS:
        needed = _flown_over(sight, distance_m, up, level)
        costs = flown_mm(distance_m, level, sight, up_rad=up)
    else:
        # e for the slope: the same zeroing with another fall, as of a shot with g' = g share
        along = G * distance_m * math.sin(up) / (2 * sight.speed_mps**2)
        share = math.cos(up) * (1 + along)
        tilted = sight._replace(speed_mps=sight.speed_mps / math.sqrt(share))
        needed = float(zeroed(np.array([distance_m]), tilted).over_mm[0])
        costs = float(height_mm(np.array([distance_m]), level, tilted)[0])
    return Slope(degrees, level - needed, costs)


def _flown_over(sight: Sight, distance_m: float, up: float, start: float) -> float:
    """Return e for a slope by full integration, by secants."""
    a, b = start, start - 2.0
    fa, fb = (flown_mm(distance_m, item, sight, up_rad=up) for item in (a, b))
    for _ in range(8):
        if abs(fb - fa) < 1e-12:
            break
        a, fa, b = b, fb, b - fb * (b - a) / (fb - fa)
        fb = flown_mm(distance_m, b, sight, up_rad=up)
    return b


def ends_m(sight: Sight, wished_m: float) -> float:
    """Return how far a table may go: not where the arrow is too slow or the angle too steep.

    Source: compared with full integration (see `SLOW_MPS`, `STEEP`).

    >>> ends_m(Sight(43.0, 80.0, 0.0025, 780.0), 90.0)
    70.0
    """
    end = min(wished_m, SLOW_END_M) if sight.speed_mps < SLOW_MPS else wished_m
    while end > NEAREST_M:
        over = float(zeroed(np.array([end]), sight).over_mm[0])
        if over / sight.tip_mm <= STEEP:
            break
        end -= 1.0
    return end
