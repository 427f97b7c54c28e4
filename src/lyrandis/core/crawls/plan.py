"""Where point-on lies with another anchor, arrow or speed, and how deep the near crawls then go."""

import math
from collections.abc import Callable
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.archer.words import Anchor, Hold
from lyrandis.core.arrow.after import AIR, AXIAL_DRAG
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.crawls.sight import Sight, crawls_mm, point_on_m, zeroed
from lyrandis.core.estimate import Estimate

EYE_MM: dict[Anchor, dict[Hold, Estimate]] = {
    "cheekbone": {
        "split": Estimate(50.0, 10.0),
        "three_under": Estimate(38.0, 10.0),
        "thumb": Estimate(50.0, 14.0),
    },
    "corner": {
        "split": Estimate(78.0, 8.0),
        "three_under": Estimate(60.0, 8.0),
        "thumb": Estimate(78.0, 14.0),
    },
    "under_chin": {
        "split": Estimate(122.0, 10.0),
        "three_under": Estimate(108.0, 10.0),
        "thumb": Estimate(122.0, 14.0),
    },
}
"""Assumption: eye over the nock, from usual faces (pupil to corner 68, chin 112, cheekbone 40 mm);
the nock half a finger below the anchor (split) or above it (three under, index at the anchor)."""
MIRROR_SD_MM = 3.0
"""Assumption: the same measured in a mirror or on a photograph."""
KAPPA = Estimate(0.89, 0.03)
"""Assumption: how far the nock rises per mm of crawl, where the bow is not known."""
KAPPA_SD = 0.02
LAUNCH_SD = 0.03
"""Assumption: launch is not exactly along the shaft; as a share of speed."""
DRAG = Estimate(0.0017, 0.25)
"""Assumption: drag of a usual arrow [1/m]; sd as a share."""
DEEPEST_MM = 120.0
"""No hand reaches deeper."""

Lever = Literal["eye", "speed", "tip"]


class Planned(NamedTuple):
    """One way to hold, or one arrow, and what it gives."""

    point_on_m: float | None
    near_mm: float
    """Crawl at 10 m."""
    deepest_mm: float
    """Crawl at the nearest distance of the table."""


class Need(NamedTuple):
    """What one lever alone would have to be for a wished point-on."""

    lever: Lever
    value: float
    """Eye over nock [mm], speed [m/s] or nock to point [mm], in the arrow's own quantities."""
    by: float
    """Against what it is now."""


def as_seen(own: Sight, kappa: float) -> Sight:
    """Return a sight in seen quantities: v' = v sqrt(kappa), h' = h/kappa.

    Source: definition; `ranges.own` is the way back.

    >>> round(as_seen(Sight(52.0, 60.0, 0.0017, 780.0), 0.88).eye_mm, 1)
    68.2
    """
    return own._replace(speed_mps=own.speed_mps * math.sqrt(kappa), eye_mm=own.eye_mm / kappa)


def drag_of(mass_gr: float | None, diameter_mm: float | None) -> Estimate:
    """Return an arrow's drag k = rho Cd A/(2 m) [1/m], sd as a share.

    Source: drag as the square of speed, on the shaft's own section.

    >>> round(drag_of(400.0, 7.0).value, 5)
    0.00178
    """
    if mass_gr is None or diameter_mm is None:
        return DRAG
    area = math.pi * (diameter_mm / 1000) ** 2 / 4
    return Estimate(AIR * AXIAL_DRAG * area / (2 * mass_gr * KG_PER_GRAIN), DRAG.sd)


def planned(sight: Sight, nearest_m: float = 5.0) -> Planned:
    """Return what a sight gives: point-on, the crawl at 10 m, and the deepest one.

    Source: `sight`.

    >>> found = planned(as_seen(Sight(52.0, 60.0, 0.0017, 780.0), 0.88))
    >>> round(found.point_on_m, 1), round(found.near_mm)
    (39.6, 51)
    """
    near, deepest = crawls_mm(np.array([10.0, nearest_m]), sight).tolist()
    return Planned(point_on_m(sight), near, deepest)


def needs(sight: Sight, kappa: float, wished_m: float) -> tuple[Need, ...]:
    """Return what each lever alone would have to be for point-on at a wished distance.

    Eye: e'(d) itself; speed and tip by straight lines. Only those in reach: eye 20 to 140 mm, speed
    within a fifth, the tip within 100 mm. Source: `zeroed`.

    >>> base = as_seen(Sight(52.0, 60.0, 0.0017, 780.0), 0.88)
    >>> [(one.lever, round(one.by)) for one in needs(base, 0.88, 46.0)]
    [('eye', 10), ('speed', 4)]
    """
    result = []
    at = np.array([wished_m])
    eye = float(zeroed(at, sight).over_mm[0]) * kappa
    if EYE_REACH[0] <= eye <= EYE_REACH[1]:
        result.append(Need("eye", eye, eye - sight.eye_mm * kappa))

    def off_speed(share: float) -> float:
        other = sight._replace(speed_mps=sight.speed_mps * share)
        return float(zeroed(at, other).over_mm[0]) - sight.eye_mm

    share = _crossing(off_speed, 1 - SPEED_REACH, 1 + SPEED_REACH)
    if share is not None:
        own = sight.speed_mps / math.sqrt(kappa)
        result.append(Need("speed", own * share, own * (share - 1)))

    def off_tip(tip: float) -> float:
        return float(zeroed(at, sight._replace(tip_mm=tip)).over_mm[0]) - sight.eye_mm

    tip = _crossing(off_tip, sight.tip_mm - TIP_REACH_MM, sight.tip_mm + TIP_REACH_MM)
    if tip is not None:
        result.append(Need("tip", tip, tip - sight.tip_mm))
    return tuple(result)


EYE_REACH = (20.0, 140.0)
SPEED_REACH = 0.2
TIP_REACH_MM = 100.0


STEPS, CLOSE = 30, 1e-7


def _crossing(off: Callable[[float], float], low: float, high: float) -> float | None:
    """Return where a falling or rising function is nought between two ends; else None.

    Straight lines between the ends, an end that stays halved (Illinois): some six steps.
    """
    at_low, at_high = off(low), off(high)
    if at_low * at_high > 0:
        return None
    side = 0
    for _ in range(STEPS):
        at = (low * at_high - high * at_low) / (at_high - at_low)
        here = off(at)
        if abs(here) < CLOSE:
            break
        if here * at_high > 0:
            high, at_high = at, here
            at_low = at_low / 2 if side == -1 else at_low
            side = -1
        else:
            low, at_low = at, here
            at_high = at_high / 2 if side == 1 else at_high
            side = 1
    return at
