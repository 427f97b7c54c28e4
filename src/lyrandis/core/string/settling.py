"""How a new string lets the brace down, and when it has settled. Heights in mm, times in hours.

h(t) = h_end + D f(t), t counted while the bow is strung and f one of many ways to fade: a quick and
a slow part, exp(-t/tau1) and exp(-t/tau2), a stretched exponential exp(-(t/tau)^beta), or a power
of the time, (1 + t/t0)^-p. All of them are weighed side by side; at each h_end (one for each number
of turns), D, what damp days do and what a night unstrung gave back are linear, so their posterior
is exact.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.lazy import lazy
from lyrandis.core.numeric import Array, border, normal_below
from lyrandis.core.string.words import StringMaterial

RULE_SD_MM = 0.5
"""Assumption: a rule with a square."""
ENOUGH_MM = MM_PER_IN / 16
"""Less than this to come counts as settled."""
SURE = 0.88
"""Chosen on strings of other laws: of none of them more than one in twelve is called too soon."""
NINE_IN_TEN = 0.9
LEAST_READINGS, LEAST_HOURS = 4, 3.0
APART_H = 12.0
"""So far apart, in hours strung, two sittings must agree within 1/16 in."""
SITTING_H = 4.0
"""Readings further apart are of two sittings; so are those before and after a night unstrung."""
STEPS_MM = (MM_PER_IN / 8, MM_PER_IN / 16, 1.0, MM_PER_IN / 32, 0.5)
"""What rules are read to, coarsest first."""
STEP_READINGS, ON_STEP_MM = 3, 0.02

QUICK: Array = np.geomspace(0.4, 4.0, 4)
SLOW: Array = np.geomspace(6.0, 200.0, 9)
SHARES: Array = np.array([0.15, 0.3, 0.45, 0.6, 0.8])
"""Of the slow part."""
TAUS: Array = np.geomspace(0.3, 60.0, 16)
BETAS: Array = np.array([0.4, 0.55, 0.75, 1.0])
"""0.4 imitates creep that goes with the logarithm of time."""
STARTS: Array = np.array([0.4, 1.0, 2.5])
POWERS: Array = np.array([0.4, 0.55, 0.75, 1.0])
"""Of creep that goes with a power of the time."""
FADING_LIKELY = (0.35, 0.45, 0.2)
"""Assumption: how likely two times, a stretched exponential and a power are beforehand."""
TAU_MIDDLE_H, TAU_SPREAD = 4.0, 2.5
SLOW_MIDDLE_H, SLOW_SPREAD = 18.0, 3.0
"""Assumption: where the times lie, and how many times longer or shorter they may well be."""
DAMP_MM = ((0.1, 0.6), (0.6, 0.4))
"""Assumption: what a damp or dry day does to the brace, one standard deviation, and how likely."""
BACK_MM, BACK_H = 0.7, 0.8
"""Assumption: what a night unstrung gives back, one standard deviation, and how soon it is gone."""
END_SD_MM = 15.0
STRETCH_MM: dict[StringMaterial | None, tuple[float, float]] = {
    "polyester": (6.0, 5.0), "low_stretch": (1.0, 1.0), None: (6.0, 5.0),
}  # fmt: skip
"""Assumption: what a new string lets the brace down in all, mean and sd; up to half an inch by the
trade. Linen and others are taken as polyester."""
_HOURS: Array = np.concatenate([np.arange(0.25, 12.0, 0.25), np.arange(12.0, 200.5, 1.0)])


class _Shapes(NamedTuple):
    """Ways a string's creep may fade, each with the log of its prior."""

    two: tuple[Array, Array, Array]
    """Quick time, slow time, share of the slow."""
    stretched: tuple[Array, Array]
    power: tuple[Array, Array]
    log_prior: Array


def _shapes() -> _Shapes:
    def grids(*axes: Array) -> tuple[Array, ...]:
        return tuple(grid.ravel() for grid in np.meshgrid(*axes, indexing="ij"))

    quick, slow, share = grids(QUICK, SLOW, SHARES)
    tau, beta = grids(TAUS, BETAS)
    start, power = grids(STARTS, POWERS)
    likely = (
        np.exp(-0.5 * (np.log(slow / SLOW_MIDDLE_H) / math.log(SLOW_SPREAD)) ** 2),
        np.exp(-0.5 * (np.log(tau / TAU_MIDDLE_H) / math.log(TAU_SPREAD)) ** 2),
        np.ones(len(start)),
    )
    weights = [part * one / one.sum() for part, one in zip(FADING_LIKELY, likely, strict=True)]
    return _Shapes(
        (quick, slow, share), (tau, beta), (start, power), np.log(np.concatenate(weights))
    )


_SHAPES = _shapes()


@dataclass(frozen=True, slots=True)
class SettlingReading:
    """A brace read while the string settles."""

    hours: float
    """Strung so far."""
    brace_mm: float
    segment: int = 0
    """Counts up with every change of turns."""
    since: float | None = None
    """Hours since it was strung again; None while it has not been unstrung."""


class Left(NamedTuple):
    """What is still to come at some hour."""

    mean_mm: float
    p90_mm: float
    """Nine strings in ten have less to come."""
    settled: float
    """Probability that less than 1/16 in is to come."""


@dataclass(frozen=True)
class Settling:
    """The fitted creep: weights over the ways it may fade, and D with each of them."""

    weights: Array
    stretch: Array
    """Posterior mean of D at each node [mm]."""
    stretch_sd: Array
    ends: Array
    """Posterior mean of h_end by node and segment."""
    hours: float
    """Of the newest reading."""
    count: int
    agree: bool
    """True where two sittings 12 h strung apart agree within 1/16 in."""
    agrees_from: float
    """Hours of the first reading that agrees with the newest and may be its pair 12 h later."""

    def left(self, hours: float) -> Left:
        """Return what is still to come after so many hours strung [mm].

        Source: mixture of normals cut off at nought.

        >>> found = fit_settling((SettlingReading(0.1, 203.0), SettlingReading(6, 196.5)))
        >>> found.left(6).mean_mm > found.left(30).mean_mm
        True
        """
        fading = self._fading(hours)
        mean = float(self.weights @ (fading * _mean_cut(self.stretch, self.stretch_sd)))
        return Left(mean, self._quantile(fading, NINE_IN_TEN), self._below(fading, ENOUGH_MM))

    def _fading(self, hours: float | Array) -> Array:
        """Return the share of the creep that is left at each node."""
        share = _fading(hours)
        return np.concatenate([share] * (len(self.weights) // len(_SHAPES.log_prior)), axis=-1)

    def _below(self, fading: Array, limit_mm: float) -> float:
        """Return the probability that what is to come is below a limit."""
        return float((1 - self._over(fading, limit_mm)) @ self.weights)

    def _over(self, fading: Array, limit_mm: float) -> Array:
        """Return the probability at each node that more than a limit is to come."""
        whole = _share_below(self.stretch / self.stretch_sd)
        return _share_below((self.stretch - limit_mm / fading) / self.stretch_sd) / whole

    def _quantile(self, fading: Array, share: float) -> float:
        return sum(border(lambda mm: self._below(fading, mm) < share, 0.0, 60.0, steps=20)) / 2

    @lazy
    def now(self) -> Left:
        """What is still to come after the newest reading."""
        return self.left(self.hours)

    @property
    def is_settled(self) -> bool:
        """True when hardly more is to come, and two sittings well apart agree."""
        return self.looks_still and self.agree

    @property
    def looks_still(self) -> bool:
        """True when enough readings say that less than 1/16 in is to come."""
        enough = self.count >= LEAST_READINGS and self.hours >= LEAST_HOURS
        return enough and self.now.settled >= SURE

    @lazy
    def settled_at(self) -> float | None:
        """Hours strung by which it will have settled; None where 200 do not do it.

        Not before 12 h after the first reading that agrees with the newest.
        """
        over = self._over(self._fading(_HOURS[:, None]), ENOUGH_MM)
        sure = np.flatnonzero((1 - over) @ self.weights >= SURE)
        if not sure.size:
            return None
        return max(float(_HOURS[sure[0]]), LEAST_HOURS, self.agrees_from + APART_H)

    def curve(self, hours: Array, segment: int) -> tuple[Array, Array]:
        """Return brace and its sd over hours strung, with the turns of a segment [mm].

        Source: mean and variance of the mixture, h_end and D taken as independent.

        >>> found = fit_settling((SettlingReading(0.1, 203.0), SettlingReading(6, 196.5)))
        >>> brace, sd = found.curve(np.array([0.1, 6.0]), 0)
        >>> bool(brace[0] > brace[1])
        True
        """
        node = self.ends[:, segment] + self._fading(hours[:, None]) * self.stretch
        mean = node @ self.weights
        return mean, np.sqrt(np.maximum((node - mean[:, None]) ** 2 @ self.weights, 0.0))


LEAST_LEFT = 1e-30
"""What has faded away: no smaller share is told from nothing."""


def _fading(hours: float | Array) -> Array:
    """Return the share of the creep that is left with each shape, never quite nought."""
    quick, slow, share = _SHAPES.two
    tau, beta = _SHAPES.stretched
    start, power = _SHAPES.power
    # (1 - s) exp(-t/tau1) + s exp(-t/tau2);  exp(-(t/tau)^beta);  (1 + t/t0)^-p
    parts = (
        (1 - share) * np.exp(-hours / quick) + share * np.exp(-hours / slow),
        np.exp(-((hours / tau) ** beta)),
        (1 + hours / start) ** -power,
    )
    left: Array = np.maximum(np.concatenate(parts, axis=-1), LEAST_LEFT)
    return left


def _share_below(z: Array) -> Array:
    """Return the normal's distribution, never quite nought: it is divided by."""
    return np.maximum(normal_below(z), 1e-12)


def _mean_cut(mean: Array, sd: Array) -> Array:
    """Return the mean of a normal cut off at nought: m + s phi(m/s)/Phi(m/s)."""
    z = mean / sd
    return mean + sd * np.exp(-0.5 * z * z) / math.sqrt(2 * math.pi) / _share_below(z)


def rule_step(readings: Sequence[SettlingReading]) -> float:
    """Return what the rule was read to [mm]: the coarsest step all readings lie on; nought if none.

    Source: definition; only differences count, for each datum begins elsewhere.

    >>> sixteenths = [SettlingReading(t, 200.0 - 1.5875 * n) for n, t in enumerate((1, 2, 4))]
    >>> rule_step(sixteenths), rule_step([SettlingReading(1, 200.0), SettlingReading(2, 199.77)])
    (1.5875, 0.0)
    """
    off = np.array([one.brace_mm - readings[0].brace_mm for one in readings])
    if len(off) < STEP_READINGS:
        return 0.0
    if not off.any():
        return 1.0
    for step in STEPS_MM:
        if np.all(np.abs(off - np.round(off / step) * step) < ON_STEP_MM):
            return step
    return 0.0


def sittings_of(readings: Sequence[SettlingReading]) -> list[int]:
    """Return the number of the sitting of each reading.

    A new one begins where the bow was unstrung between, or four hours after the last began.
    Source: definition.

    >>> sittings_of([SettlingReading(t, 200.0) for t in (0.1, 1, 3, 5, 8, 10)])
    [0, 0, 0, 1, 1, 2]
    """
    result, began = [0], readings[0].hours
    for before, after in pairwise(readings):
        again = after.since is not None and (before.since is None or after.since < before.since)
        fresh = again or after.hours - began > SITTING_H
        began = after.hours if fresh else began
        result.append(result[-1] + fresh)
    return result


def sittings_agree(readings: Sequence[SettlingReading]) -> bool:
    """Return whether the newest reading agrees with the one 12 h strung earlier, within 1/16 in.

    With the same turns. Source: the trade's own way: read again another day.

    >>> read = [SettlingReading(t, h) for t, h in ((6, 196.5), (12, 196.0), (24, 195.8))]
    >>> sittings_agree(read[:2]), sittings_agree(read)
    (False, True)
    """
    at = _twelve_before(readings)
    return at is not None and _agrees(readings[at], readings[-1])


def _twelve_before(readings: Sequence[SettlingReading]) -> int | None:
    """Return where the last reading 12 h strung before the newest stands, with its turns."""
    newest = readings[-1]
    earlier = [
        at for at, one in enumerate(readings)
        if one.segment == newest.segment and newest.hours - one.hours >= APART_H
    ]  # fmt: skip
    return earlier[-1] if earlier else None


def _agrees(one: SettlingReading, newest: SettlingReading) -> bool:
    within = abs(one.brace_mm - newest.brace_mm) <= ENOUGH_MM + ON_STEP_MM
    return within and one.segment == newest.segment


def _covariance(
    readings: Sequence[SettlingReading], sd_mm: float, damp_mm: float, segments: Array
) -> Array:
    """Return how readings go together: rule, days, nights unstrung, and ends nobody knows."""
    sittings = np.array(sittings_of(readings))
    since = np.array([math.inf if one.since is None else one.since for one in readings])
    total = sd_mm**2 * np.eye(len(readings))
    total += damp_mm**2 * (sittings[:, None] == sittings)
    back = BACK_MM * np.exp(-since / BACK_H)
    total += np.outer(back, back) * (sittings[:, None] == sittings)
    return total + END_SD_MM**2 * segments @ segments.T


@lru_cache(maxsize=64)
def fit_settling(
    readings: tuple[SettlingReading, ...],
    material: StringMaterial | None = None,
    sd_mm: float = RULE_SD_MM,
) -> Settling:
    """Fit the creep of a string to brace readings in order of hours strung.

    With each shape f and each size of damp days, y = ends + f D + noise is linear and normal; the
    node's weight is its prior times the probability of the readings there. The readings are no
    better than the rule's step. Needs one reading at least.
    Source: Bayes' theorem on a grid; the shapes and the priors are Assumption.

    >>> times = ((0.1, 203.0), (1, 200.2), (3, 198.0), (6, 196.5))
    >>> found = fit_settling(tuple(SettlingReading(t, h) for t, h in times))
    >>> found.is_settled
    False
    """
    hours = np.array([reading.hours for reading in readings])
    brace = np.array([reading.brace_mm for reading in readings])
    told = sorted({reading.segment for reading in readings})
    first = [next(one for one in readings if one.segment == s) for s in told]
    within = np.array([[one.segment == s for s in told] for one in readings], dtype=np.float64)
    start = within @ np.array([one.brace_mm for one in first])
    stretch, stretch_sd = STRETCH_MM.get(material, STRETCH_MM[None])
    fading = _fading(hours[:, None])
    logs, means, sds, ends = [], [], [], []
    for damp_mm, likely in DAMP_MM:
        total = _covariance(readings, max(sd_mm, rule_step(readings)), damp_mm, within)
        root = np.linalg.cholesky(total)
        # whitened: y ~ N(f D, 1), D ~ N(m, s^2):  1/var = 1/s^2 + f.f,  mean = (m/s^2 + f.y) var
        y = np.linalg.solve(root, brace - start)
        f = np.linalg.solve(root, fading)
        variance = 1 / (1 / stretch_sd**2 + (f * f).sum(axis=0))
        mean = (stretch / stretch_sd**2 + y @ f) * variance
        sd = np.sqrt(variance)
        evidence = (mean**2 / variance - y @ y) / 2 + np.log(sd) - np.log(np.diag(root)).sum()
        logs.append(
            math.log(likely) + _SHAPES.log_prior + evidence + np.log(_share_below(mean / sd))
        )
        means.append(mean)
        sds.append(sd)
        gain = END_SD_MM**2 * np.linalg.solve(total, within).T
        ends.append(gain @ ((brace - start)[:, None] - fading * mean))
    log_weight = np.concatenate(logs)
    weights = np.exp(log_weight - log_weight.max())
    return Settling(
        weights=weights / weights.sum(),
        stretch=np.concatenate(means),
        stretch_sd=np.concatenate(sds),
        ends=np.concatenate(ends, axis=1).T + np.array([one.brace_mm for one in first]),
        hours=float(hours.max()),
        count=len(readings),
        agree=sittings_agree(readings),
        agrees_from=next(
            one.hours
            for one in readings[_twelve_before(readings) or 0 :]
            if _agrees(one, readings[-1])
        ),
    )
