"""Draw weight at the archer's own draw, from weighed points or from the mark.

Weights in lbf, draws in mm on the trade datum with the string at the hook, slopes in lbf per inch.
A straight line with a known spread of slopes, until the bow itself is computed.
"""

import math
from bisect import bisect_left
from dataclasses import dataclass
from typing import Literal, NamedTuple

from lyrandis.core import entries as e
from lyrandis.core.archer.draw import Estimate, to_trade
from lyrandis.core.constants import MARKED_DRAW_MM, MM_PER_IN
from lyrandis.core.setup import BowSetup, Recorded

SLOPE_SHARE_PER_IN = 1 / 18
"""Weight gained per inch as a share of weight: 2.5 lb on a 45 lb bow (trade rule, 2 to 3 lb)."""
SLOPE_SPREAD = 0.10
"""One standard deviation of that share: 2 to 3 lb on a 45 lb bow is two either way."""
CURVATURE_PER_IN2 = 0.004
"""Assumption: how a draw-force curve bends off its tangent, share of weight per inch squared."""
SCALE_SD_LBF = 0.4
"""Assumption: one reading of a bow scale, draw error included, one standard deviation."""
MARK_SD_SHARE = 0.04
MARK_SD_LBF = 1.5
"""Assumption: a maker's mark is wrong either way by a few pounds, one standard deviation."""
TOLD_SD_SHARE = 0.06
ESTIMATED_SD_SHARE = 0.12
"""Assumption: a supposed weight."""
_SD_SHARES: dict[e.Source, float] = {"told": TOLD_SD_SHARE, "estimated": ESTIMATED_SD_SHARE}


class Point(NamedTuple):
    """A known weight at a string position, with its standard deviation."""

    draw_mm: float
    weight: Estimate
    recorded: Recorded[e.BowWeighed] | Recorded[e.BowMark]


@dataclass(frozen=True)
class DrawWeight:
    """The weight line: W(x) = weight + slope (x - at), as inferred."""

    at_mm: float
    weight: Estimate
    """At `at_mm`, with the uncertainty of the draw itself in it."""
    bow_sd: float
    """The part of the weight's sd that the bow causes, not the draw."""
    slope: Estimate
    covariance: float
    basis: Literal["weighed", "mark"]
    points: tuple[Point, ...]
    mark: Point | None

    def at(self, draw_mm: float) -> Estimate:
        """Return the weight at another draw; the band widens with the distance from readings."""
        offset = (draw_mm - self.at_mm) / MM_PER_IN
        nearest = self._distance_mm(draw_mm) / MM_PER_IN
        bend = CURVATURE_PER_IN2 * abs(self.weight.value) * nearest**2 / 2
        variance = self.bow_sd**2 + 2 * self.covariance * offset + (self.slope.sd * offset) ** 2
        return Estimate(self.line_at(draw_mm), math.sqrt(max(variance, 0.0) + bend**2))

    def line_at(self, draw_mm: float) -> float:
        """Return the weight at another draw without its band."""
        return self.weight.value + self.slope.value * (draw_mm - self.at_mm) / MM_PER_IN

    def _distance_mm(self, draw_mm: float) -> float:
        """Return how far the nearest point lies; the points stand in order of draw."""
        place = bisect_left(self.points, draw_mm, key=lambda point: point.draw_mm)
        around = self.points[max(place - 1, 0) : place + 1]
        return min(abs(draw_mm - point.draw_mm) for point in around)

    @property
    def beyond_mm(self) -> float:
        """How far the archer's draw lies outside the weighed points; 0 between them."""
        first, last = self.points[0].draw_mm, self.points[-1].draw_mm
        return max(self.at_mm - last, first - self.at_mm, 0.0)


def mark_point(bow: BowSetup) -> Point | None:
    """Return the maker's mark as a point, string at the scale's hook."""
    if bow.mark is None:
        return None
    mark = bow.mark.reading
    sd = max(MARK_SD_LBF, MARK_SD_SHARE * mark.draw_weight_lbf)
    if bow.mark.source == "estimated":
        sd = ESTIMATED_SD_SHARE * mark.draw_weight_lbf
    return Point(mark.draw_length_mm, Estimate(mark.draw_weight_lbf, sd), bow.mark)


def weighed_points(bow: BowSetup, hook: Estimate) -> list[Point]:
    """Return the weighed points by the position of the string at the hook."""
    points = []
    for recorded in bow.weighed:
        reading = recorded.reading
        draw = to_trade(reading.draw_length_mm, reading.datum, bow)
        behind = hook if reading.string_at == "groove" else Estimate(0.0, 0.0)
        share = _SD_SHARES.get(recorded.source)
        sd = SCALE_SD_LBF if share is None else share * reading.draw_weight_lbf
        per_mm = SLOPE_SHARE_PER_IN * reading.draw_weight_lbf / MM_PER_IN
        sd = math.hypot(sd, per_mm * math.hypot(draw.sd, behind.sd))
        points.append(
            Point(draw.value + behind.value, Estimate(reading.draw_weight_lbf, sd), recorded)
        )
    return sorted(points, key=lambda point: point.draw_mm)


def draw_weight_at(bow: BowSetup, at: Estimate, hook: Estimate) -> DrawWeight | None:
    """Return the weight with the string at `at` (hook position, mm), or None without evidence.

    Bayesian straight line: slope ~ N(W/18, 10 %) per inch, level free; every point's variance
    grows by (curvature dx^2 / 2)^2, so that near readings count most. Weighed points take the
    mark's place. Source: linear Gaussian inference; "2 to 3 lb per inch" is the trade's rule.
    """
    mark = mark_point(bow)
    weighed = weighed_points(bow, hook)
    points = weighed or ([mark] if mark else [])
    if not points:
        return None
    nearest = min(points, key=lambda point: abs(point.draw_mm - at.value)).weight.value
    level, slope, covariance = _line(points, at.value, nearest)
    value = max(level.value, 0.1 * nearest)
    spread = math.hypot(level.sd, slope.value * at.sd / MM_PER_IN)
    return DrawWeight(
        at_mm=at.value,
        weight=Estimate(value, spread),
        bow_sd=level.sd,
        slope=slope,
        covariance=covariance,
        basis="weighed" if weighed else "mark",
        points=tuple(points),
        mark=mark,
    )


def _line(points: list[Point], at_mm: float, near: float) -> tuple[Estimate, Estimate, float]:
    """Return level and slope [lbf, lbf/in] at `at_mm` and their covariance (normal equations)."""
    prior_slope = SLOPE_SHARE_PER_IN * near
    information = 1 / (SLOPE_SPREAD * prior_slope) ** 2
    s_w = s_x = s_y = s_xy = 0.0
    s_xx = information
    s_xy = information * prior_slope
    for point in points:
        offset = (point.draw_mm - at_mm) / MM_PER_IN
        bend = CURVATURE_PER_IN2 * near * offset**2 / 2
        weight = 1 / (point.weight.sd**2 + bend**2)
        s_w += weight
        s_x += weight * offset
        s_xx += weight * offset**2
        s_y += weight * point.weight.value
        s_xy += weight * offset * point.weight.value
    determinant = s_w * s_xx - s_x**2
    level = (s_xx * s_y - s_x * s_xy) / determinant
    slope = (s_w * s_xy - s_x * s_y) / determinant
    return (
        Estimate(level, math.sqrt(s_xx / determinant)),
        Estimate(slope, math.sqrt(s_w / determinant)),
        -s_x / determinant,
    )


def mark_to_ask_for(hold_lbf: float, at: Estimate) -> Estimate:
    """Return the mark at 28 in of a bow that holds `hold_lbf` with the string at `at` (mm).

    mark = hold / (1 + (x - 28 in)/18 in), the weight rule turned round.

    >>> round(mark_to_ask_for(38.0, Estimate(711.2, 0.0)).value, 1)
    38.0
    """
    inches = (at.value - MARKED_DRAW_MM) / MM_PER_IN
    ratio = 1 + SLOPE_SHARE_PER_IN * inches
    mark = hold_lbf / ratio
    relative = math.hypot(
        SLOPE_SHARE_PER_IN * SLOPE_SPREAD * inches / ratio,
        SLOPE_SHARE_PER_IN * at.sd / MM_PER_IN / ratio,
    )
    return Estimate(mark, mark * relative)
