"""Draw weight: the computed curve of the bow's kind, fitted to what its scale or mark says.

Weights in lbf, draws in mm on the trade datum with the string at the hook, slopes in lbf per inch.
What a scale says goes before what the kind of bow usually does: the computed curve is drawn to the
points (`weight_fit`), and no reading next to full draw is ever left out.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from operator import itemgetter
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.archer.draw import to_trade
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.hermite import Hermite
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.bow.readings import BowMark, BowWeighed
from lyrandis.core.bow.weight_fit import WeightFit, fit_points, stands_off
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
ONE_DRAW_MM = MM_PER_IN / 4
"""Points so near each other were weighed at one draw."""
APART_LBF = 0.5
"""Readings of one draw may differ by this, over twice what their errors explain."""
MOST_WEIGHED = 40
"""Points that are fitted: the nearest to the hook."""
LEAST_STROKE_MM = MM_PER_IN
"""A weight this close to brace says nothing of the bow."""
_SD_SHARES: dict[Source, float] = {"told": TOLD_WEIGHT_SHARE, "estimated": ESTIMATED_WEIGHT_SHARE}


class Point(NamedTuple):
    """A known weight at a string position, with its standard deviation."""

    draw_mm: float
    weight: Estimate
    recorded: Recorded[BowWeighed] | Recorded[BowMark]


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
    """One point between others, so far off them that the fit goes without it."""
    without_end: WeightFit | None = None
    """Where the first or the last point is off: what the others say. The ± reaches both."""
    apart: tuple[Point, Point] | None = None
    """Two readings of one draw that cannot both be right; the ± reaches both."""
    unusable: tuple[Point, ...] = ()
    """Points at or before brace."""

    def at(self, draw_mm: float) -> Estimate:
        """Return the weight at another draw; the band widens with the distance from readings.

        Source: `WeightFit`.

        >>> from lyrandis.core.example import rig
        >>> weight = rig().bow.weight
        >>> weight.at(812.8).sd > weight.at(711.2).sd
        True
        """
        value = self.curve_at(draw_mm)
        share = _doubt(self.fit, self.without_end, self.apart, draw_mm)
        return Estimate(value, value * share)

    def curve_at(self, draw_mm: float) -> float:
        """Return the weight at another draw without its band; 0 at brace and before it.

        Source: the fitted curve, cubic between solved draws.

        >>> from lyrandis.core.example import rig
        >>> rig().bow.weight.curve_at(0.0)
        0.0
        """
        return max(self.fitted.at(draw_mm - TRADE_OFFSET_MM), 0.0)

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
    >>> c = rig(["bow 62", "brace 10", "scale 3lb @ 12"])
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

    Weighed points take the mark's place. One that stands between others and clearly off them is
    left out until it is weighed again; the first and the last never are, and two readings of one
    draw that differ are both kept: there the ± reaches from one to the other. None without
    evidence, or where `at` is not past brace. Source: `weight_fit`.

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
    apart, odd = _at_one_draw(points, at.value)
    off = odd or (None if apart else _off_curve(evidence, fit))
    left_out = without_end = None
    if off is not None:
        others = _fit([one for one in evidence if one.point is not off], at.value, prior)
        between = points[0].draw_mm < off.draw_mm < points[-1].draw_mm
        if odd or (between and len(points) >= LEAST_TO_LEAVE_OUT):
            fit, left_out = others, off
        else:
            without_end = others
    fitted = _fitted(curve, fit)
    value = fitted.at(at.value - TRADE_OFFSET_MM)
    slope = _slope(curve, fit, at.value)
    bow_sd = value * _doubt(fit, without_end, apart, at.value)
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
        without_end=without_end,
        apart=apart,
        unusable=tuple(point for point in weighed if point.draw_mm < least),
    )


def _doubt(
    fit: WeightFit,
    without_end: WeightFit | None,
    apart: tuple[Point, Point] | None,
    draw_mm: float,
) -> float:
    """Return the sd of a weight at a draw as a share: it reaches both of what contradicts."""
    share = math.sqrt(fit.variance(draw_mm))
    if without_end is not None:
        gap = without_end.factor(draw_mm) / fit.factor(draw_mm) - 1
        share = math.hypot(share, gap / 2)
    if apart is not None:
        # half their distance is two standard deviations: what they scatter is not counted twice
        low, high = sorted(point.weight.value for point in apart)
        share = max(share / fit.widened, (high - low) / 2 / (high + low))
    return share


def _at_one_draw(
    points: Sequence[Point], at_mm: float
) -> tuple[tuple[Point, Point] | None, Point | None]:
    """Return two readings of one draw that contradict, the nearest to `at_mm`; or the one odd one.

    Of three and more readings of one draw of which all but one agree, that one is the odd one.
    """
    near = sorted(points, key=lambda point: abs(point.draw_mm - at_mm))[:MOST_WEIGHED]
    for point in near:
        alike = [other for other in near if abs(other.draw_mm - point.draw_mm) <= ONE_DRAW_MM]
        pairs = [
            (one, two)
            for place, one in enumerate(alike)
            for two in alike[place + 1 :]
            if _contradict(one, two)
        ]
        if not pairs:
            continue
        in_all = [one for one in alike if all(any(one is each for each in pair) for pair in pairs)]
        if len(alike) > 2 and len(in_all) == 1:
            return None, in_all[0]
        return max(pairs, key=lambda pair: abs(pair[0].weight.value - pair[1].weight.value)), None
    return None, None


def _contradict(one: Point, two: Point) -> bool:
    # |W1 - W2| > 2 sqrt(sd1^2 + sd2^2) + half a pound
    allowed = 2 * math.hypot(one.weight.sd, two.weight.sd) + APART_LBF
    return abs(one.weight.value - two.weight.value) > allowed


class _Evidence(NamedTuple):
    """One point as the fit sees it: inches from the centre, ln W - ln f, its variance."""

    point: Point
    x: float
    y: float
    variance: float


def _evidence(points: Sequence[Point], centre_mm: float, curve: Hermite) -> list[_Evidence]:
    force = cache(lambda draw_mm: curve.at(draw_mm - TRADE_OFFSET_MM))  # many weigh at one draw
    result = []
    near = sorted(points, key=lambda point: abs(point.draw_mm - centre_mm))[:MOST_WEIGHED]
    for point in near:
        draw_mm, (weight, sd), _ = point
        x = (draw_mm - centre_mm) / MM_PER_IN
        y = math.log(weight / force(draw_mm))
        result.append(_Evidence(point, x, y, (sd / weight) ** 2))
    return result


def _fit(evidence: Sequence[_Evidence], centre_mm: float, tilt_sd: float) -> WeightFit:
    return fit_points(
        tuple(one.x for one in evidence),
        tuple(one.y for one in evidence),
        tuple(one.variance for one in evidence),
        centre_mm,
        tilt_sd,
    )


def _off_curve(evidence: Sequence[_Evidence], fit: WeightFit) -> Point | None:
    """Return the point furthest off what the others expect, if it is clearly off."""
    if len(evidence) < 3:
        return None
    off = np.abs(stands_off(fit))
    worst = int(off.argmax())
    return evidence[worst].point if off[worst] > POINT_OFF_CURVE else None


def _fitted(curve: Hermite, fit: WeightFit) -> Hermite:
    """Return the typical curve drawn to the points [lbf against true draw in mm]."""
    factors = [fit.factor(x + TRADE_OFFSET_MM) for x in curve.x]
    climbs = [fit.climb(x + TRADE_OFFSET_MM).value / MM_PER_IN for x in curve.x]
    return Hermite(
        curve.x,
        tuple(factor * f for factor, f in zip(factors, curve.y, strict=True)),
        tuple(
            factor * (slope + climb * f)
            for factor, f, slope, climb in zip(factors, curve.y, curve.dy, climbs, strict=True)
        ),
    )


def _slope(curve: Hermite, fit: WeightFit, at_mm: float) -> Estimate:
    """Return the weight per inch about a draw [lbf/in]: over the inch, as an archer feels it."""
    # (W(x + half an inch) - W(x - half an inch)) / an inch; its doubt that of ln W's difference
    half = MM_PER_IN / 2
    ends = [at_mm + half, at_mm - half]
    high, low = (fit.factor(end) * curve.at(end - TRADE_OFFSET_MM) for end in ends)
    weight = (high + low) / 2
    spread = math.sqrt(fit.variance_of(ends, [1.0, -1.0]))
    share = (high - low) / weight
    return Estimate(high - low, weight * math.hypot(spread, share * math.sqrt(fit.variance(at_mm))))


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
