"""Draw weight: the computed curve of the bow's kind, fitted to what its scale or mark says.

Weights in lbf, draws in mm on the trade datum with the string at the hook, slopes in lbf per inch.
The curve keeps its computed shape; its scale, and one tilt (how much faster or slower than typical
the weight climbs), are inferred from the points.
"""

import math
from bisect import bisect_left
from dataclasses import dataclass
from functools import cache
from operator import itemgetter
from typing import Literal, NamedTuple

from lyrandis.core.archer.draw import to_trade
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.hermite import Hermite
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.bow.readings import BowMark, BowWeighed
from lyrandis.core.constants import MARKED_DRAW_MM, MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.effective import Recorded
from lyrandis.core.estimate import Estimate
from lyrandis.core.memo import memo_by_equality
from lyrandis.core.reading import Source

TILT_SD_PER_IN = 0.0055
"""One standard deviation of a bow's weight per inch about its family's, as a share of its weight:
a tenth of the slope, so that a recurve's at 28 in is known to 1/2 lb per inch before weighing."""
UNKNOWN_TILT_SD_PER_IN = 0.0085
"""The same where family or length is not told."""
BEND_PER_IN2 = 0.0015
"""Assumption: how the family's curve may bend otherwise than this bow's, share per inch squared."""
MOST_BEND = 0.08
SCALE_SD_LBF = 0.4
"""Assumption: one reading of a bow scale, draw error included, one standard deviation."""
MARK_SD_SHARE = 0.04
MARK_SD_LBF = 1.5
"""Assumption: a maker's mark is wrong either way by a few pounds, one standard deviation."""
TOLD_WEIGHT_SHARE = 0.06
ESTIMATED_WEIGHT_SHARE = 0.12
"""Assumption: a supposed weight."""
POINT_OFF_CURVE = 3.5
"""A point this many standard deviations off what the others expect is named."""
LEAST_TO_LEAVE_OUT = 4
"""With this many points, one that is off is left out of the fit until it is weighed again."""
LEAST_STROKE_MM = MM_PER_IN
"""A weight this close to brace says nothing of the bow."""
_SD_SHARES: dict[Source, float] = {"told": TOLD_WEIGHT_SHARE, "estimated": ESTIMATED_WEIGHT_SHARE}


class Point(NamedTuple):
    """A known weight at a string position, with its standard deviation."""

    draw_mm: float
    weight: Estimate
    recorded: Recorded[BowWeighed] | Recorded[BowMark]


@dataclass(frozen=True)
class WeightFit:
    """ln W(x) = level + tilt (x - centre) + ln f(x), f the typical curve: the posterior."""

    centre_mm: float
    level: Estimate
    tilt: Estimate
    """Per inch."""
    covariance: float

    def factor(self, draw_mm: float) -> float:
        """Return W over f at a draw.

        Source: the model ln W = ln f + level + tilt (x - centre).

        >>> WeightFit(711.2, Estimate(0.0, 0.1), Estimate(0.0, 0.01), 0.0).factor(736.6)
        1.0
        """
        return math.exp(self.level.value + self.tilt.value * self._inches(draw_mm))

    def variance(self, draw_mm: float) -> float:
        """Return the variance of ln W at a draw, without the curve's own bend.

        Source: variance of a linear model's prediction.

        >>> round(WeightFit(711.2, Estimate(0.0, 0.1), Estimate(0.0, 0.01), 0.0).variance(736.6), 6)
        0.0101
        """
        x = self._inches(draw_mm)
        return max(self.level.sd**2 + 2 * self.covariance * x + (self.tilt.sd * x) ** 2, 0.0)

    def _inches(self, draw_mm: float) -> float:
        return (draw_mm - self.centre_mm) / MM_PER_IN


@dataclass(frozen=True)
class DrawWeight:
    """The draw-force curve of the archer's bow, as inferred."""

    at_mm: float
    weight: Estimate
    """At `at_mm`, with the uncertainty of the draw itself in it."""
    bow_sd: float
    """The part of the weight's sd that the bow causes, not the draw."""
    slope: Estimate
    fit: WeightFit
    fitted: Hermite
    """Weight [lbf] against true draw to the pivot [mm]."""
    likeness: Likeness
    basis: Literal["weighed", "mark"]
    points: tuple[Point, ...]
    mark: Point | None
    off: Point | None = None
    """The point that clearly does not go with the others."""
    left_out: Point | None = None
    """One point so far off the others that the fit goes without it."""
    unusable: tuple[Point, ...] = ()
    """Points at or before brace."""

    def at(self, draw_mm: float) -> Estimate:
        """Return the weight at another draw; the band widens with the distance from readings.

        Source: linear Gaussian inference; the bend away from points is Assumption.

        >>> from lyrandis.core.example import rig
        >>> weight = rig().bow.weight
        >>> weight.at(812.8).sd > weight.at(711.2).sd
        True
        """
        value = self.curve_at(draw_mm)
        bend = _bend(self._distance_mm(draw_mm) / MM_PER_IN)
        return Estimate(value, value * math.sqrt(self.fit.variance(draw_mm) + bend**2))

    def curve_at(self, draw_mm: float) -> float:
        """Return the weight at another draw without its band; 0 at brace and before it.

        Source: the fitted curve, cubic between solved draws.

        >>> from lyrandis.core.example import rig
        >>> rig().bow.weight.curve_at(0.0)
        0.0
        """
        return max(self.fitted.at(draw_mm - TRADE_OFFSET_MM), 0.0)

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


def mark_point(bow: BowFacts) -> Point | None:
    """Return the maker's mark as a point, string at the scale's hook.

    Assumption: a mark is good to 3 lb or 8 %, two standard deviations.

    >>> from lyrandis.core.example import setup
    >>> mark_point(setup(["mark 45 @ 28"]).bow).weight
    Estimate(value=45.0, sd=1.8)
    """
    if bow.mark is None:
        return None
    mark = bow.mark.reading
    sd = max(MARK_SD_LBF, MARK_SD_SHARE * mark.draw_weight_lbf)
    if bow.mark.source == "estimated":
        sd = ESTIMATED_WEIGHT_SHARE * mark.draw_weight_lbf
    return Point(mark.draw_length_mm, Estimate(mark.draw_weight_lbf, sd), bow.mark)


@memo_by_equality
def weighed_points(
    bow: BowFacts, archer: ArcherFacts, hook: Estimate, curve: Hermite
) -> tuple[Point, ...]:
    """Return the weighed points by the position of the string at the hook.

    `curve` is the typical force curve: an error of draw weighs as much as the weight it gains.

    Assumption: a reading of a scale is good to 0.8 lb, two standard deviations.

    >>> from lyrandis.core.example import setup
    >>> told = setup(["scale 40 @ 27 groove"])
    >>> flat = Hermite((200.0, 700.0), (0.0, 40.0), (0.1, 0.05))
    >>> weighed_points(told.bow, told.archer, Estimate(14.0, 3.0), flat)[0].draw_mm
    699.8
    """
    points = []
    for recorded in bow.weighed:
        reading, entry = recorded
        at, loose = to_trade(reading.draw_length_mm, reading.datum, archer)
        if reading.string_at == "groove":
            at += hook.value
            loose = math.hypot(loose, hook.sd)
        share = _SD_SHARES.get(entry.source)
        sd = SCALE_SD_LBF if share is None else share * reading.draw_weight_lbf
        if loose:
            pivot = at - TRADE_OFFSET_MM
            steep = curve.slope(pivot) / max(curve.at(pivot), 1e-30)
            sd = math.hypot(sd, min(steep, 1 / MM_PER_IN) * reading.draw_weight_lbf * loose)
        points.append(Point(at, Estimate(reading.draw_weight_lbf, sd), recorded))
    return tuple(sorted(points, key=itemgetter(0)))


def least_draw_mm(likeness: Likeness) -> float:
    """Return the draw from which a weight says something of the bow: an inch past brace.

    Assumption: an inch past brace a weight begins to tell.

    >>> from lyrandis.core.example import rig
    >>> round(least_draw_mm(rig().bow.likeness) / 25.4, 2)
    10.75
    """
    return likeness.curve.first_mm + TRADE_OFFSET_MM + LEAST_STROKE_MM


def points_at_rest(
    bow: BowFacts, archer: ArcherFacts, hook: Estimate, likeness: Likeness
) -> tuple[Point, ...]:
    """Return weighed points at or before brace, where no weight can be.

    Assumption: as `least_draw_mm`.

    >>> from lyrandis.core.example import rig
    >>> c = rig(["family selfbow", "bow 66", "brace 11", "scale 3 @ 12"])
    >>> len(points_at_rest(c.setup.bow, c.setup.archer, c.archer.hook, c.bow.likeness))
    1
    """
    least = least_draw_mm(likeness)
    points = weighed_points(bow, archer.grips, hook, likeness.curve.force)
    return tuple(point for point in points if point.draw_mm < least)


def draw_weight_at(
    bow: BowFacts, archer: ArcherFacts, *, at: Estimate, hook: Estimate, likeness: Likeness
) -> DrawWeight | None:
    """Return the weight with the string at `at` (hook position, mm).

    ln W = ln f(x) + level + tilt (x - at), f the computed curve of the bow's kind; level free,
    tilt ~ N(0, 0.0055 per inch); every point's variance grows by the bend the family's curve may
    have otherwise, so that near readings count most. Weighed points take the mark's place. None
    without evidence, or where `at` is not past brace. Source: linear Gaussian inference.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> drawn = {"at": c.archer.at_hook, "hook": c.archer.hook}
    >>> again = draw_weight_at(c.setup.bow, c.setup.archer, likeness=c.bow.likeness, **drawn)
    >>> round(again.weight.value, 1)
    46.2
    """
    curve = likeness.curve.force
    mark = mark_point(bow)
    weighed = weighed_points(bow, archer.grips, hook, curve)
    least = least_draw_mm(likeness)
    usable = [point for point in weighed if point.draw_mm >= least]
    points = usable or ([mark] if mark and mark.draw_mm >= least else [])
    if not points or at.value < least:
        return None
    prior = TILT_SD_PER_IN if likeness.known else UNKNOWN_TILT_SD_PER_IN
    evidence = _evidence(points, at.value, curve)
    fit = _fit(evidence, at.value, prior)
    off = _off_curve(evidence, fit)
    left_out = off if len(points) >= LEAST_TO_LEAVE_OUT else None
    if left_out is not None:
        fit = _fit(
            [reading for reading in evidence if reading.point is not left_out], at.value, prior
        )
    fitted = _fitted(curve, fit)
    value = fitted.at(at.value - TRADE_OFFSET_MM)
    slope = _slope(curve, fit, at.value)
    bow_sd = value * fit.level.sd
    return DrawWeight(
        at_mm=at.value,
        weight=Estimate(value, math.hypot(bow_sd, slope.value * at.sd / MM_PER_IN)),
        bow_sd=bow_sd,
        slope=slope,
        fit=fit,
        fitted=fitted,
        likeness=likeness,
        basis="weighed" if usable else "mark",
        points=tuple(points),
        mark=mark,
        off=off,
        left_out=left_out,
        unusable=tuple(point for point in weighed if point.draw_mm < least),
    )


def _bend(inches: float) -> float:
    """Return how far the family's curve may bend off this bow's, `inches` from a point (share)."""
    return min(BEND_PER_IN2 * inches**2 / 2, MOST_BEND)


class _Evidence(NamedTuple):
    """One point as the fit sees it: inches from the centre, ln W - ln f, its variance."""

    point: Point
    x: float
    y: float
    variance: float


def _evidence(points: list[Point], centre_mm: float, curve: Hermite) -> list[_Evidence]:
    force = cache(lambda draw_mm: curve.at(draw_mm - TRADE_OFFSET_MM))  # many weigh at one draw
    result = []
    for point in points:
        draw_mm, (weight, sd), _ = point
        x = (draw_mm - centre_mm) / MM_PER_IN
        y = math.log(weight / force(draw_mm))
        result.append(_Evidence(point, x, y, (sd / weight) ** 2 + _bend(x) ** 2))
    return result


def _fit(evidence: list[_Evidence], centre_mm: float, tilt_sd: float) -> WeightFit:
    """Return level and tilt about `centre_mm` (normal equations, tilt with its prior)."""
    # minimise sum w (y - level - tilt x)^2 + (tilt/sd)^2, w = 1/variance
    s_w = s_x = s_y = s_xy = 0.0
    s_xx = 1 / tilt_sd**2
    for _, x, y, variance in evidence:
        w = 1 / variance
        s_w += w
        s_x += w * x
        s_xx += w * x * x
        s_y += w * y
        s_xy += w * x * y
    determinant = s_w * s_xx - s_x**2
    return WeightFit(
        centre_mm=centre_mm,
        level=Estimate((s_xx * s_y - s_x * s_xy) / determinant, math.sqrt(s_xx / determinant)),
        tilt=Estimate((s_w * s_xy - s_x * s_y) / determinant, math.sqrt(s_w / determinant)),
        covariance=-s_x / determinant,
    )


def _off_curve(evidence: list[_Evidence], fit: WeightFit) -> Point | None:
    """Return the point furthest off what the others expect, if it is clearly off.

    Leave-one-out in closed form: residual / (sd sqrt(1 - leverage)).
    """
    if len(evidence) < 3:
        return None
    # residual^2 / (variance (1 - leverage)); leverage variance = a + b x + c x^2
    level, tilt = fit.level.value, fit.tilt.value
    a, b, c = fit.level.sd**2, 2 * fit.covariance, fit.tilt.sd**2
    worst, most = None, POINT_OFF_CURVE**2
    for point, x, y, variance in evidence:
        left = variance - min(a + b * x + c * x * x, 0.99 * variance)
        off = (y - level - tilt * x) ** 2 / left
        if off > most:
            worst, most = point, off
    return worst


def _fitted(curve: Hermite, fit: WeightFit) -> Hermite:
    """Return the typical curve with level and tilt put in [lbf against true draw in mm]."""
    factors = [fit.factor(x + TRADE_OFFSET_MM) for x in curve.x]
    tilt = fit.tilt.value / MM_PER_IN
    return Hermite(
        curve.x,
        tuple(factor * f for factor, f in zip(factors, curve.y, strict=True)),
        tuple(
            factor * (slope + tilt * f)
            for factor, f, slope in zip(factors, curve.y, curve.dy, strict=True)
        ),
    )


def _slope(curve: Hermite, fit: WeightFit, at_mm: float) -> Estimate:
    """Return the weight per inch at a draw [lbf/in], its sd from level and tilt."""
    pivot = at_mm - TRADE_OFFSET_MM
    weight = fit.factor(at_mm) * curve.at(pivot)
    per_inch = curve.slope(pivot) / curve.at(pivot) * MM_PER_IN + fit.tilt.value
    spread = math.hypot(per_inch * fit.level.sd, fit.tilt.sd)
    return Estimate(weight * per_inch, weight * spread)


def mark_to_ask_for(hold_lbf: float, at: Estimate, likeness: Likeness) -> Estimate:
    """Return the mark at 28 in of such a bow that holds `hold_lbf` with the string at `at` (mm).

    mark = hold f(28 in)/f(at), f the computed curve of the bow's kind.

    Source: force scales with the limb's stiffness at every draw.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> round(mark_to_ask_for(40.0, c.archer.at_hook, c.bow.likeness).value, 1)
    39.0
    """
    curve = likeness.curve.force
    pivot = max(at.value - TRADE_OFFSET_MM, likeness.curve.first_mm + LEAST_STROKE_MM)
    ratio = curve.at(MARKED_DRAW_MM - TRADE_OFFSET_MM) / curve.at(pivot)
    inches = (at.value - MARKED_DRAW_MM) / MM_PER_IN
    tilt = TILT_SD_PER_IN if likeness.known else UNKNOWN_TILT_SD_PER_IN
    steep = curve.slope(pivot) / curve.at(pivot)
    mark = hold_lbf * ratio
    return Estimate(mark, mark * math.hypot(tilt * inches, steep * at.sd))
