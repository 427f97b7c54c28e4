"""Crawls from a few good marks: what is believed of speed, eye and drag, and what follows.

theta = (ln v', h', ln k, q) in seen quantities (see `sight`), Gaussian before any mark, maximum a
posteriori by Gauss-Newton; bands from the posterior's covariance. Every mark narrows the table,
and none is needed for one: the rig alone gives it, wide.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.sight import MM, G, Sight, crawls_mm, point_on_m, zeroed
from lyrandis.core.estimate import Estimate
from lyrandis.core.lazy import lazy
from lyrandis.core.numeric import Array
from lyrandis.core.student import NORMAL_95, student_95

DEEP_SD_MM = 2.0
"""Assumption: what a crawl of 60 mm does besides, one standard deviation."""
FLOOR_MM, FLOOR_SHARE_BEYOND = 0.5, 0.08
"""Assumption: no band is narrower; hook above the nock: 8 % of it. Found against richer worlds."""
LEAST_SCALE, SCALE_FROM, SCALE_PRIOR = 0.7, 4, 4.0
MOST_STEPS, SHORT_STEPS, DONE_SDS = 25, 3, 1e-5
NAMED_Z, LEFT_OUT_Z, LEAST_OTHERS = 2.5, 3.0, 4
YARDS_ASKED = 2.0
"""A fall of the misfit from which it is asked whether the distances were yards."""
NEXT_M = (5, 10, 15, 20, 25, 30, 35, 40, 45, 50)
LEAST_GAIN_MM = 0.2
"""A mark that narrows the table by less is not proposed."""


class FitMark(NamedTuple):
    """A crawl as shot, and how sure it is."""

    distance_m: float
    crawl_mm: float
    sd_mm: float = 2.0


class Prior(NamedTuple):
    """What the rig and the archer's face say before any mark, in seen quantities."""

    speed: Estimate
    """m/s, its sd too."""
    eye: Estimate
    drag: Estimate
    """1/m; its sd as a share of it."""
    tip_mm: float
    deep_sd_mm: float = DEEP_SD_MM
    together: float = 0.0
    """Covariance of ln v' and h' [mm], where both come from marks with other arrows."""

    @property
    def covariance(self) -> Array:
        result: Array = np.diag(self.sd**2)
        result[0, 1] = result[1, 0] = self.together
        return result

    @property
    def mean(self) -> Array:
        return np.array([math.log(self.speed.value), self.eye.value, math.log(self.drag.value), 0])

    @property
    def sd(self) -> Array:
        share = self.speed.sd / self.speed.value
        return np.array([share, self.eye.sd, self.drag.sd, self.deep_sd_mm])


class FitRow(NamedTuple):
    """The crawl for one distance, and the half of its band [mm]."""

    distance_m: float
    crawl_mm: float
    half_mm: float


class Residual(NamedTuple):
    """How a mark stands against the table."""

    off_mm: float
    """+ deeper than the table has it."""
    z: float
    """In standard deviations against the other marks alone."""


class NextDistance(NamedTuple):
    """The distance whose mark would tell most."""

    distance_m: float
    before_mm: float
    """Half of the table's band, root mean square."""
    after_mm: float


def sight_of(theta: Array, tip_mm: float) -> Sight:
    """Return the sight of some parameters.

    Source: definition of theta.

    >>> round(sight_of(np.array([4.0, 60.0, -6.4, 0.0]), 780.0).speed_mps, 1)
    54.6
    """
    speed, eye, drag, deep = (float(item) for item in theta)
    return Sight(math.exp(speed), eye, math.exp(drag), tip_mm, deep)


def slopes(distance_m: Array, sight: Sight) -> Array:
    """Return how each crawl moves with (ln v', h', ln k, q): one row a distance.

    de/dS = 1/(f' cos^2 a), dS/dln v = -2 S, dS/dln k = g z (e^z - 1)/(4 k^2 v^2) - 2 S.
    Source: implicit differentiation of `zeroed`; against differences to 2e-5.

    >>> slopes(np.array([20.0]), Sight(52.0, 68.0, 0.0017, 780.0)).round(2).tolist()
    [[60.36, 1.0, -0.69, 0.4]]
    """
    result = zeroed(distance_m, sight)
    # c = u + q (u/60)^2, u = h' - e; dc/du = 1 + 2 q u/3600
    u = sight.eye_mm - result.over_mm
    steep = 1 + 2 * sight.deep_mm * u / 3600
    by_fall = MM / (result.slope * np.cos(result.lean) ** 2)
    z = 2 * sight.drag * distance_m
    # g z (e^z - 1)/(4 k^2 v^2) = g d^2/v^2 (e^z - 1)/z
    drag = G * (distance_m / sight.speed_mps) ** 2 * np.expm1(z) / np.maximum(z, 1e-12)
    return np.column_stack(
        [
            steep * by_fall * 2 * result.drop_m,
            steep,
            -steep * by_fall * (drag - 2 * result.drop_m),
            (u / 60.0) ** 2,
        ]
    )


@dataclass(frozen=True, eq=False)
class CrawlFit:
    """What is believed after the marks."""

    prior: Prior
    marks: tuple[FitMark, ...]
    theta: Array
    covariance: Array
    told: bool = False
    """True where the archer's own repeatability is told: then the band trusts it."""

    @lazy
    def sight(self) -> Sight:
        return sight_of(self.theta, self.prior.tip_mm)

    @lazy
    def _at_marks(self) -> tuple[Array, Array, Array]:
        """Standardised residuals, leverages, and the plain residuals [mm]."""
        if not self.marks:
            return np.empty(0), np.empty(0), np.empty(0)
        distance, crawl, sd = (np.array(column) for column in zip(*self.marks, strict=True))
        off = crawl - crawls_mm(distance, self.sight)
        steep = slopes(distance, self.sight)
        leverage = np.einsum("ij,jk,ik->i", steep, self.covariance, steep) / sd**2
        return off / sd, np.minimum(leverage, 0.999), off

    @lazy
    def residuals(self) -> tuple[Residual, ...]:
        """How each mark stands, in the marks' order."""
        r, leverage, off = self._at_marks
        z = r / np.sqrt(1 - leverage)
        return tuple(Residual(float(a), float(b)) for a, b in zip(off, z, strict=True))

    @lazy
    def scale(self) -> float:
        """How much wider the marks scatter than was said of them, from four marks on."""
        n = len(self.marks)
        if n < SCALE_FROM:
            return 1.0
        r, leverage, _ = self._at_marks
        # s^2 = (4 + sum r^2)/(4 + n - sum leverage)
        freedom = SCALE_PRIOR + n - float(leverage.sum())
        return max(LEAST_SCALE, math.sqrt((SCALE_PRIOR + float((r**2).sum())) / freedom))

    @property
    def factor(self) -> float:
        """Half of the band in standard deviations: Student's where nobody told a repeatability."""
        n = len(self.marks)
        return NORMAL_95 if self.told or n < SCALE_FROM else student_95(n + 2)

    def sd_mm(self, distance_m: Array) -> Array:
        """Return the posterior's standard deviation of each crawl, without scale or floor [mm].

        sd^2 = j A^-1 j^T, j the crawl's slopes. Distances 2 to 120 m, one row out for each in.
        Source: propagation of a covariance.

        >>> drag = Estimate(0.0017, 0.25)
        >>> rig = Prior(Estimate(52.0, 3.12), Estimate(68.0, 10.0), drag, 780.0, 1.0)
        >>> fit_crawls(rig, [FitMark(20, 34.0)]).sd_mm(np.array([20.0, 40.0])).round(1).tolist()
        [2.0, 4.2]
        """
        steep = slopes(distance_m, self.sight)
        result: Array = np.sqrt(np.einsum("ij,jk,ik->i", steep, self.covariance, steep))
        return result

    def table(self, distances_m: Sequence[float]) -> tuple[FitRow, ...]:
        """Return the crawl for each distance with the half of its 95 % band [mm].

        half = factor hypot(scale sd, floor), the floor wider beyond point-on. 2 to 120 m.
        Assumption: the floor, found against worlds richer than the model (MECHANICS).

        >>> drag = Estimate(0.0017, 0.25)
        >>> rig = Prior(Estimate(52.0, 3.12), Estimate(68.0, 10.0), drag, 780.0, 1.0)
        >>> [round(row.half_mm, 1) for row in fit_crawls(rig, [FitMark(20, 34.0)]).table([20, 40])]
        [4.0, 8.3]
        """
        distance = np.array(distances_m, dtype=float)
        crawl = crawls_mm(distance, self.sight)
        floor = np.where(
            crawl < 0, np.hypot(FLOOR_MM, FLOOR_SHARE_BEYOND * np.abs(crawl)), FLOOR_MM
        )
        half = self.factor * np.hypot(self.scale * self.sd_mm(distance), floor)
        return tuple(
            FitRow(float(d), float(c), float(h))
            for d, c, h in zip(distance, crawl, half, strict=True)
        )

    @lazy
    def point_on(self) -> Estimate | None:
        """The distance shot without a crawl, with its sd [m]; None beyond 120 m."""
        at = point_on_m(self.sight)
        if at is None:
            return None
        near = np.array([at - 0.05, at + 0.05])
        per_m = abs(float(np.diff(crawls_mm(near, self.sight))[0])) / 0.1
        return Estimate(at, self.scale * float(self.sd_mm(np.array([at]))[0]) / per_m)

    @property
    def misfit(self) -> float:
        """Sum of squares of marks and prior, in standard deviations."""
        r, _, _ = self._at_marks
        off = self.theta - self.prior.mean
        return float((r**2).sum() + off @ np.linalg.solve(self.prior.covariance, off))


def fit_crawls(prior: Prior, marks: Sequence[FitMark] = (), *, told: bool = False) -> CrawlFit:
    """Return what marks make of the prior. Marks at any distance from 2 to 120 m, none needed.

    A = P^-1 + J^T W J, steps A^-1 (J^T W (c - c(theta)) + P^-1 (mean - theta)), P the prior's
    covariance, the first three no longer than three prior sds.
    Source: Gauss-Newton for the maximum a posteriori.

    >>> drag = Estimate(0.0017, 0.25)
    >>> rig = Prior(Estimate(52.0, 3.12), Estimate(68.0, 10.0), drag, 780.0, 1.0)
    >>> [round(row.crawl_mm, 1) for row in fit_crawls(rig, [FitMark(20, 34.0)]).table([10, 40])]
    [49.0, 3.2]
    """
    mean, sd = prior.mean, prior.sd
    if not marks:
        return CrawlFit(prior, (), mean, prior.covariance, told)
    inverse = np.linalg.inv(prior.covariance)
    distance, crawl, mark_sd = np.array(marks, dtype=float).T
    weight = 1 / mark_sd**2
    theta = mean.copy()
    for number in range(MOST_STEPS):
        sight = sight_of(theta, prior.tip_mm)
        steep = slopes(distance, sight)
        precision = inverse + steep.T @ (weight[:, None] * steep)
        pull = steep.T @ (weight * (crawl - crawls_mm(distance, sight))) + inverse @ (mean - theta)
        step = np.linalg.solve(precision, pull)
        if number < SHORT_STEPS:
            step = np.clip(step, -3 * sd, 3 * sd)
        theta = theta + step
        if float(np.max(np.abs(step) / sd)) < DONE_SDS:
            break
    steep = slopes(distance, sight_of(theta, prior.tip_mm))
    precision = inverse + steep.T @ (weight[:, None] * steep)
    covariance: Array = np.linalg.inv(precision)
    return CrawlFit(prior, tuple(marks), theta, covariance, told)


def odd_one(fit: CrawlFit) -> int | None:
    """Return which mark does not fit the others, if one does not; none is named of one alone.

    Source: leave-one-out residuals in closed form; from 2.5 on. Never left out silently.

    >>> drag = Estimate(0.0017, 0.25)
    >>> rig = Prior(Estimate(52.0, 3.12), Estimate(68.0, 10.0), drag, 780.0, 1.0)
    >>> marks = [FitMark(10, 50.0), FitMark(20, 36.5), FitMark(30, 32.0), FitMark(40, 8.0)]
    >>> odd_one(fit_crawls(rig, marks))
    2
    """
    if len(fit.marks) < 2:
        return None
    worst = max(range(len(fit.marks)), key=lambda number: abs(fit.residuals[number].z))
    return worst if abs(fit.residuals[worst].z) > NAMED_Z else None


def next_distance(
    fit: CrawlFit,
    table_m: Sequence[float],
    *,
    furthest_m: float = 50.0,
    sd_mm: float = 2.0,
    weights: Sequence[float] | None = None,
) -> NextDistance | None:
    """Return the distance whose mark narrows the table most; None where it gains too little.

    Mean over the table of (J_d S J_x)^2/(J_x S J_x + sd^2), x every 5 m up to the nearest of 50 m,
    point-on and the archer's own range; the table weighted by the course where it is told.
    Source: the Gaussian posterior's variance after one more mark.

    >>> drag = Estimate(0.0017, 0.25)
    >>> rig = Prior(Estimate(52.0, 3.12), Estimate(68.0, 10.0), drag, 780.0, 1.0)
    >>> next_distance(fit_crawls(rig), range(5, 55, 5)).distance_m
    30.0
    """
    on = fit.point_on
    last = min(furthest_m, on.value if on else furthest_m)
    tried = [item for item in NEXT_M if item <= last]
    if not tried:
        return None
    rows, points = np.array(table_m, dtype=float), np.array(tried, dtype=float)
    share = np.ones(len(rows)) if weights is None else np.array(weights, dtype=float)
    share = share / share.sum()
    covariance = fit.scale**2 * fit.covariance
    at_rows, at_points = slopes(rows, fit.sight), slopes(points, fit.sight)
    across = at_rows @ covariance @ at_points.T
    own = np.einsum("ij,jk,ik->i", at_points, covariance, at_points)
    gained = share @ (across**2 / (own + sd_mm**2))
    now = float(share @ np.einsum("ij,jk,ik->i", at_rows, covariance, at_rows))
    best = int(np.argmax(gained))
    before, after = math.sqrt(now), math.sqrt(max(now - float(gained[best]), 0.0))
    if before - after < LEAST_GAIN_MM:
        return None
    return NextDistance(float(points[best]), fit.factor * before, fit.factor * after)


def were_yards(fit: CrawlFit) -> bool:
    """Tell whether to ask if all distances were meant in yards. Only ever a question.

    The misfit falls by more than 2 with every distance x 0.9144.
    Source: likelihoods; marks alone cannot tell for sure (8.6 % of distance are 4 % of speed).

    >>> drag = Estimate(0.0017, 0.25)
    >>> rig = Prior(Estimate(52.0, 0.6), Estimate(68.0, 3.0), drag, 780.0, 1.0)
    >>> true = fit_crawls(rig).table([10 * M_PER_YD, 20 * M_PER_YD, 40 * M_PER_YD])
    >>> marks = [FitMark(d, row.crawl_mm, 1.0) for d, row in zip((10, 20, 40), true, strict=True)]
    >>> were_yards(fit_crawls(rig, marks))
    True
    """
    if not fit.marks:
        return False
    other = [mark._replace(distance_m=mark.distance_m * M_PER_YD) for mark in fit.marks]
    return fit.misfit - fit_crawls(fit.prior, other, told=fit.told).misfit > YARDS_ASKED


def without(fit: CrawlFit, number: int) -> CrawlFit:
    """Return the fit of the other marks.

    Source: definition.

    >>> drag = Estimate(0.0017, 0.25)
    >>> rig = Prior(Estimate(52.0, 3.12), Estimate(68.0, 10.0), drag, 780.0, 1.0)
    >>> without(fit_crawls(rig, [FitMark(20, 34.0)]), 0).marks
    ()
    """
    others = [mark for at, mark in enumerate(fit.marks) if at != number]
    return replace(fit_crawls(fit.prior, others, told=fit.told))
