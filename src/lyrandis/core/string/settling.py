"""How a new string lets the brace down, and when it has settled. Heights in mm, times in hours.

h(t) = h_end + D exp(-(t/tau)^beta), t counted while the bow is strung: a stretched exponential,
the usual form of a polymer's creep that ends. Tau and beta run over a grid; at each of its nodes
h_end (one for each number of turns) and D are linear, so their posterior is exact.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.lazy import lazy
from lyrandis.core.numeric import Array, border, normal_below
from lyrandis.core.string.words import StringMaterial

READING_SD_MM, CARELESS_SD_MM = 0.5, 0.8
"""Assumption: a rule with a square; one read in passing."""
ENOUGH_MM = MM_PER_IN / 16
"""Less than this to come counts as settled."""
SURE = 0.9
LEAST_READINGS, LEAST_HOURS = 4, 3.0
TAUS: Array = np.geomspace(0.3, 60.0, 25)
BETAS: Array = np.array([0.4, 0.55, 0.75, 1.0])
"""0.4 imitates creep that goes with the logarithm of time."""
_TAU, _BETA = (grid.ravel() for grid in np.meshgrid(TAUS, BETAS, indexing="ij"))
_LOG_PRIOR: Array = -0.5 * ((np.log(_TAU) - math.log(4.0)) / math.log(2.5)) ** 2
END_SD_MM = 15.0
STRETCH_MM: dict[StringMaterial | None, tuple[float, float]] = {
    "polyester": (6.0, 5.0), "low_stretch": (1.0, 1.0), None: (6.0, 5.0),
}  # fmt: skip
"""Assumption: what a new string lets the brace down in all, mean and sd; up to half an inch by the
trade. Linen and others are taken as polyester."""
_HOURS: Array = np.concatenate([np.arange(0.25, 12.0, 0.25), np.arange(12.0, 96.5, 0.5)])


@dataclass(frozen=True, slots=True)
class SettlingReading:
    """A brace read while the string settles."""

    hours: float
    """Strung so far."""
    brace_mm: float
    segment: int = 0
    """Counts up with every change of turns."""


class Left(NamedTuple):
    """What is still to come at some hour."""

    mean_mm: float
    p90_mm: float
    settled: float
    """Probability that less than 1/16 in is to come."""


@dataclass(frozen=True)
class Settling:
    """The fitted creep: weights over the grid, and D at each node."""

    weights: Array
    stretch: Array
    """Posterior mean of D at each node [mm]."""
    stretch_sd: Array
    ends: Array
    """Posterior mean of h_end by node and segment."""
    ends_sd: Array
    hours: float
    """Of the newest reading."""
    count: int

    def left(self, hours: float) -> Left:
        """Return what is still to come after so many hours strung [mm].

        Source: mixture of normals cut off at nought.

        >>> found = fit_settling((SettlingReading(0.1, 203.0), SettlingReading(6, 196.5)))
        >>> found.left(6).mean_mm > found.left(30).mean_mm
        True
        """
        fading = _fading(hours)
        mean = float(self.weights @ (fading * _mean_cut(self.stretch, self.stretch_sd)))
        return Left(mean, self._quantile(fading, SURE), self._below(fading, ENOUGH_MM))

    def _below(self, fading: Array, limit_mm: float) -> float:
        """Return the probability that what is to come is below a limit."""
        whole = _share_below(self.stretch / self.stretch_sd)
        over = _share_below((self.stretch - limit_mm / fading) / self.stretch_sd)
        return float(self.weights @ (1 - over / whole))

    def _quantile(self, fading: Array, share: float) -> float:
        return sum(border(lambda mm: self._below(fading, mm) < share, 0.0, 60.0, steps=20)) / 2

    @lazy
    def now(self) -> Left:
        """What is still to come after the newest reading."""
        return self.left(self.hours)

    @property
    def is_settled(self) -> bool:
        """True when enough readings say that less than 1/16 in is to come."""
        enough = self.count >= LEAST_READINGS and self.hours >= LEAST_HOURS
        return enough and self.now.settled >= SURE

    @lazy
    def settled_at(self) -> float | None:
        """Hours strung by which it will have settled; None where 96 do not do it."""
        fading = _fading(_HOURS[:, None])
        whole = _share_below(self.stretch / self.stretch_sd)
        over = _share_below((self.stretch - ENOUGH_MM / fading) / self.stretch_sd)
        sure = np.flatnonzero((1 - over / whole) @ self.weights >= SURE)
        if not sure.size:
            return None
        first = float(_HOURS[sure[0]])
        return max(first, LEAST_HOURS)

    def curve(self, hours: Array, segment: int) -> tuple[Array, Array]:
        """Return brace and its sd over hours strung, with the turns of a segment [mm].

        Source: mean and variance of the mixture, h_end and D taken as independent.

        >>> found = fit_settling((SettlingReading(0.1, 203.0), SettlingReading(6, 196.5)))
        >>> brace, sd = found.curve(np.array([0.1, 6.0]), 0)
        >>> bool(brace[0] > brace[1])
        True
        """
        fading = _fading(hours[:, None])
        node = self.ends[:, segment] + fading * self.stretch
        mean = node @ self.weights
        return mean, np.sqrt(np.maximum((node - mean[:, None]) ** 2 @ self.weights, 0.0))


LEAST_LEFT = 1e-30
"""What has faded away: no smaller share is told from nothing."""


def _fading(hours: float | Array) -> Array:
    """Return the share of the creep that is left at each node, never quite nought."""
    # f(t) = exp(-(t/tau)^beta)
    left: Array = np.maximum(np.exp(-((hours / _TAU) ** _BETA)), LEAST_LEFT)
    return left


def _share_below(z: Array) -> Array:
    """Return the normal's distribution, never quite nought: it is divided by."""
    return np.maximum(normal_below(z), 1e-12)


def _mean_cut(mean: Array, sd: Array) -> Array:
    """Return the mean of a normal cut off at nought: m + s phi(m/s)/Phi(m/s)."""
    z = mean / sd
    return mean + sd * np.exp(-0.5 * z * z) / math.sqrt(2 * math.pi) / _share_below(z)


@lru_cache(maxsize=64)
def fit_settling(
    readings: tuple[SettlingReading, ...],
    material: StringMaterial | None = None,
    sd_mm: float = READING_SD_MM,
) -> Settling:
    """Fit the creep of a string to brace readings in order of hours strung.

    At every node y = X (ends, D) + noise is linear and normal; the node's weight is its prior times
    the probability of the readings there. Needs one reading at least.
    Source: Bayes' theorem on a grid; the law and the priors are Assumption.

    >>> times = ((0.1, 203.0), (1, 200.2), (3, 198.0), (6, 196.5))
    >>> found = fit_settling(tuple(SettlingReading(t, h) for t, h in times))
    >>> found.is_settled
    False
    """
    hours = np.array([reading.hours for reading in readings])
    brace = np.array([reading.brace_mm for reading in readings])
    segments = sorted({reading.segment for reading in readings})
    first = [
        next(reading.brace_mm for reading in readings if reading.segment == s) for s in segments
    ]
    stretch, stretch_sd = STRETCH_MM.get(material, STRETCH_MM[None])
    prior = np.array([*first, stretch])
    spread = np.diag([*(END_SD_MM**2 for _ in segments), stretch_sd**2])
    design = np.zeros((len(_TAU), len(readings), len(prior)))
    for row, reading in enumerate(readings):
        design[:, row, segments.index(reading.segment)] = 1.0
    design[:, :, -1] = np.exp(-((hours / _TAU[:, None]) ** _BETA[:, None]))
    # y ~ N(X m, S), S = X P X' + sd^2 I; posterior mean m + P X' S^-1 (y - X m)
    across = spread @ design.transpose(0, 2, 1)
    total = design @ across + sd_mm**2 * np.eye(len(readings))
    off = brace - design @ prior
    solved = np.linalg.solve(total, off[:, :, None])[:, :, 0]
    _, log_det = np.linalg.slogdet(total)
    log_weight = _LOG_PRIOR - 0.5 * (np.einsum("ij,ij->i", off, solved) + log_det)
    mean = prior + np.einsum("ijk,ik->ij", across, solved)
    left = spread - across @ np.linalg.solve(total, across.transpose(0, 2, 1))
    sd = np.sqrt(np.maximum(np.einsum("ijj->ij", left), 1e-12))
    log_weight = log_weight + np.log(_share_below(mean[:, -1] / sd[:, -1]))
    weights = np.exp(log_weight - log_weight.max())
    return Settling(
        weights=weights / weights.sum(),
        stretch=mean[:, -1],
        stretch_sd=sd[:, -1],
        ends=mean[:, :-1],
        ends_sd=sd[:, :-1],
        hours=float(hours.max()),
        count=len(readings),
    )
