"""The tip as a sight: where the hook stands for a distance, and where an arrow strikes.

The eye looks over the arrow's tip at the mark. A crawl lowers the hook, so the nock rises towards
the eye's line: the nearer the mark, the deeper the crawl. Distances in m from the nock, lengths on
the bow in mm, speeds in m/s, drag k in 1/m (deceleration k v^2).

"Seen" quantities fold in how the string slopes at full draw: the nock rises only kappa c for a
crawl c, kappa the cosine of the string from square to the arrow, so that with v' = v sqrt(kappa)
and h' = h/kappa the crawl is h' - e' by the same formulas.
"""

import math
from typing import NamedTuple

import numpy as np

from lyrandis.core.numeric import Array

G = 9.80665
NEWTON_STEPS = 4
POINT_ON_GRID = 60
MM = 1000.0
NEAREST_M, FURTHEST_M = 2.0, 120.0
"""Distances a mark or a row may have."""
STEEP = 0.35
"""Sine of the angle of sight from which the flat fire is no longer trusted."""
SLOW_MPS, SLOW_END_M = 45.0, 70.0
"""A slower arrow's table ends there: by full integration it is off by a hand's breadth at 90 m."""


class Sight(NamedTuple):
    """What a table of crawls follows from, in seen quantities."""

    speed_mps: float
    eye_mm: float
    """Eye over the nock at full draw, with no crawl."""
    drag: float
    tip_mm: float
    """Nock groove to the point's very end."""
    deep_mm: float = 0.0
    """What a crawl of 60 mm does besides, by tail, limbs and speed."""


class Zeroed(NamedTuple):
    """A sight zeroed at some distances."""

    over_mm: Array
    """Eye over the nock, e."""
    drop_m: Array
    lean: Array
    """Angle between arrow and line of sight [rad]."""
    slope: Array
    """How height grows with e at the mark."""


def drop_m(distance_m: Array, speed_mps: float, drag: float) -> Array:
    """Return how far an arrow falls below its line [m].

    S = g (e^z - 1 - z)/(4 k^2 v^2), z = 2 k d. Source: flat fire with drag as the square of speed.
    Range: to 50 m within 1 mm of full integration at 55 m/s.

    >>> round(float(drop_m(np.array([30.0]), 55.0, 0.0016)[0]), 3)
    1.507
    """
    # S = g (e^z - 1 - z)/(4 k^2 v^2), z = 2 k d; for small z g d^2/(2 v^2) (1 + z/3 + ...)
    z = 2 * drag * distance_m
    exact = (np.expm1(z) - z) / np.maximum(z, 1e-12) ** 2 * 2
    shape = np.where(z > 1e-4, exact, 1 + z / 3)
    fall: Array = 0.5 * G * (distance_m / speed_mps) ** 2 * shape
    return fall


def zeroed(distance_m: Array, sight: Sight) -> Zeroed:
    """Return how the nock stands under the eye for the arrow to strike at each distance.

    height(d) = -e + d tan a - S/cos^2 a = 0, a = asin(e/Lt), by Newton from S/(d/Lt - 1).
    Source: the geometry of a sight whose post is the arrow's own tip.

    >>> sight = Sight(60.0, 80.0, 0.0016, 780.0)
    >>> [round(80 - one, 1) for one in zeroed(np.array([5.0, 30.0, 60.0]), sight).over_mm.tolist()]
    [73.7, 46.2, 10.8]
    """
    # f(e) = -e + d tan a - S/cos^2 a; f' = -1 + d/(Lt cos^3 a) - 2 S sin a/(Lt cos^4 a)
    tip, fall = sight.tip_mm / MM, drop_m(distance_m, sight.speed_mps, sight.drag)
    e = fall / (distance_m / tip - 1)
    for _ in range(NEWTON_STEPS):
        sine = np.clip(e / tip, -0.9, 0.9)
        cosine = np.sqrt(1 - sine**2)
        height = -e + distance_m * sine / cosine - fall / cosine**2
        slope = -1 + distance_m / (tip * cosine**3) - 2 * fall * sine / (tip * cosine**4)
        e = e - height / slope
    sine = np.clip(e / tip, -0.9, 0.9)
    cosine = np.sqrt(1 - sine**2)
    slope = -1 + distance_m / (tip * cosine**3) - 2 * fall * sine / (tip * cosine**4)
    return Zeroed(e * MM, fall, np.arcsin(sine), slope)


def crawls_mm(distance_m: Array, sight: Sight) -> Array:
    """Return the crawl for each distance; below nought the hook would stand above the nock.

    c = u + q (u/60 mm)^2, u = h' - e'. Source: `zeroed`; the square is what deep crawls do besides.

    >>> crawls_mm(np.array([5.0, 50.0]), Sight(55.0, 64.0, 0.0016, 780.0)).round(1).tolist()
    [56.5, -4.0]
    """
    u = sight.eye_mm - zeroed(distance_m, sight).over_mm
    result: Array = u + sight.deep_mm * (u / 60.0) ** 2
    return result


def high_per_mm(distance_m: float, tip_mm: float, kappa: float) -> float:
    """Return how far higher an arrow strikes for a millimetre less of crawl [mm/mm].

    kappa (d - Lt)/Lt. Source: similar triangles over the tip; within half a per cent to 80 cm.

    >>> round(high_per_mm(25.0, 780.0, 0.88), 1)
    27.3
    """
    tip = tip_mm / MM
    return kappa * (distance_m - tip) / tip


def point_on_m(sight: Sight) -> float | None:
    """Return the distance shot without a crawl; None where it lies beyond 120 m or under 2 m.

    Source: `zeroed` at e = h, on two grids, each finer than the last, and a straight line between.

    >>> round(point_on_m(Sight(55.0, 64.0, 0.0016, 780.0)), 1)
    47.2
    """
    low, high = NEAREST_M, FURTHEST_M
    for _ in range(2):
        tried = np.linspace(low, high, POINT_ON_GRID)
        off = zeroed(tried, sight).over_mm - sight.eye_mm
        if off[0] >= 0 or off[-1] < 0:
            return None
        behind = int(np.argmax(off >= 0))
        low, high = float(tried[behind - 1]), float(tried[behind])
    before, after = float(off[behind - 1]), float(off[behind])
    return low + (high - low) * before / (before - after)


def height_mm(distance_m: Array, over_mm: float, sight: Sight) -> Array:
    """Return where an arrow passes above the line of sight, shot with the nock `over_mm` under it.

    Source: as `zeroed`. `sight` in the arrow's own quantities, not in seen ones.

    >>> sight = Sight(55.0, 64.0, 0.0016, 780.0)
    >>> over = float(zeroed(np.array([30.0]), sight).over_mm[0])
    >>> [round(one / 10, 1) for one in height_mm(np.array([25.0, 35.0]), over, sight).tolist()]
    [20.9, -29.8]
    """
    lean = math.asin(max(-0.9, min(0.9, over_mm / sight.tip_mm)))
    # height(x) = -e + x tan a - S(x)/cos^2 a
    fall = drop_m(distance_m, sight.speed_mps, sight.drag)
    result: Array = MM * (distance_m * math.tan(lean) - fall / math.cos(lean) ** 2) - over_mm
    return result


def flown_mm(
    distance_m: float, over_mm: float, sight: Sight, *, up_rad: float = 0.0, steps: int = 300
) -> float:
    """Return the same by full integration, on a slope too: + above the line of sight [mm].

    x'' = -k v vx, y'' = -g - k v vy, Runge-Kutta of fourth order. Source: Newton's law with drag as
    the square of speed.

    >>> sight = Sight(55.0, 64.0, 0.0016, 780.0)
    >>> over = float(zeroed(np.array([20.0]), sight).over_mm[0])
    >>> abs(flown_mm(20.0, over, sight)) < 0.2
    True
    """
    lean = math.asin(max(-0.9, min(0.9, over_mm / sight.tip_mm)))
    down, along = G * math.cos(up_rad), G * math.sin(up_rad)
    vx, vy = sight.speed_mps * math.cos(lean), sight.speed_mps * math.sin(lean)
    x, y, dx = 0.0, -over_mm / MM, distance_m / steps

    def rates(vx: float, vy: float) -> tuple[float, float, float]:
        # by distance along the line of sight: d/dx = (d/dt)/vx
        speed = math.hypot(vx, vy)
        return (
            vy / vx,
            (-along - sight.drag * speed * vx) / vx,
            (-down - sight.drag * speed * vy) / vx,
        )

    for _ in range(steps):
        a = rates(vx, vy)
        b = rates(vx + a[1] * dx / 2, vy + a[2] * dx / 2)
        c = rates(vx + b[1] * dx / 2, vy + b[2] * dx / 2)
        d = rates(vx + c[1] * dx, vy + c[2] * dx)
        y += dx * (a[0] + 2 * b[0] + 2 * c[0] + d[0]) / 6
        vx += dx * (a[1] + 2 * b[1] + 2 * c[1] + d[1]) / 6
        vy += dx * (a[2] + 2 * b[2] + 2 * c[2] + d[2]) / 6
        x += dx
    return y * MM
