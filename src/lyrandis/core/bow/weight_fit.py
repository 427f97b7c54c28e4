"""What weighed points ask of a bow's computed curve: its height, one tilt, and what neither says.

    ln W(x) = ln f(x) + level + tilt (x - c) + g(x)

f is the curve of the bow's kind; level is free, tilt about none, and g whatever else this bow does:
a Gaussian process, so that a point rules near itself and says little three inches away. Draws in mm
on the trade datum, x in inches from the fit's centre c, weights in lbf.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.numeric import Array

LEVEL_SD = 3.0
"""Assumption: a weight is not known beforehand: one standard deviation of ln W - ln f."""
RESIDUAL_SD = 0.08
"""Assumption: how far a bow's curve stands off its kind's, height and tilt apart, as a share."""
RESIDUAL_IN = 3.0
"""Assumption: over so many inches it goes back to its kind's; a wall is hardly more sudden."""


@dataclass(frozen=True, eq=False)
class WeightFit:
    """The posterior of ln W - ln f, given the points."""

    centre_mm: float
    tilt_sd: float
    """Before any point, per inch."""
    base: float
    """Mean of the points' ln W - ln f: the level is free about it."""
    inches: Array
    """Of the points from the centre (n)."""
    pulls: Array
    """K^-1 (y - base) (n)."""
    inverse: Array
    """K^-1 of the points, their own errors in it (n, n)."""
    widened: float
    """What the points scatter over what their errors explain; never under 1."""

    @property
    def level(self) -> Estimate:
        """What the points make of the kind's height at the centre, as ln."""
        return Estimate(self.log_factor(self.centre_mm), math.sqrt(self.variance(self.centre_mm)))

    @property
    def tilt(self) -> Estimate:
        """How much faster than usual the weight climbs at the centre, per inch, as ln."""
        return self.climb(self.centre_mm)

    def factor(self, draw_mm: float) -> float:
        """Return W over f at a draw.

        Source: mean of the posterior, ln.

        >>> fit = fit_points((0.0,), (0.1,), (1e-4,), 711.2, 0.0055)
        >>> round(fit.factor(711.2), 3)
        1.105
        """
        return math.exp(self.log_factor(draw_mm))

    def log_factor(self, draw_mm: float) -> float:
        """Return the posterior mean of ln W - ln f at a draw.

        Source: Gaussian process regression, k(x, X) K^-1 y.

        >>> fit = fit_points((0.0,), (0.1,), (1e-4,), 711.2, 0.0055)
        >>> round(fit.log_factor(711.2), 4)
        0.1
        """
        return self.base + float(self._kernel(self._inches(draw_mm)) @ self.pulls)

    def climb(self, draw_mm: float) -> Estimate:
        """Return how much faster than the kind's the weight climbs at a draw, per inch, as ln.

        Source: derivative of the posterior, k'(x, X) K^-1 y; prior variance sd_tilt^2 + A^2/l^2.

        >>> fit = fit_points((0.0,), (0.1,), (1e-4,), 711.2, 0.0055)
        >>> round(fit.climb(711.2).value, 4), round(fit.climb(711.2).sd, 4)
        (0.0, 0.0272)
        """
        x = self._inches(draw_mm)
        away = x - self.inches
        # d/dx [tilt^2 x X + A^2 exp(-(x - X)^2/2 l^2)]
        near = _residual(away)
        steep = self.tilt_sd**2 * self.inches - near * away / RESIDUAL_IN**2
        before = self.tilt_sd**2 + (RESIDUAL_SD / RESIDUAL_IN) ** 2
        variance = max(before - float(steep @ self.inverse @ steep), 1e-12)
        return Estimate(float(steep @ self.pulls), math.sqrt(variance) * self.widened)

    def variance(self, draw_mm: float) -> float:
        """Return the variance of ln W at a draw.

        Source: Gaussian process regression, k(x, x) - k(x, X) K^-1 k(X, x).

        >>> fit = fit_points((0.0,), (0.1,), (1e-4,), 711.2, 0.0055)
        >>> round(fit.variance(711.2), 6), round(fit.variance(609.6), 4)
        (0.0001, 0.0081)
        """
        return self.variance_of([draw_mm], [1.0])

    def variance_of(self, draws_mm: Sequence[float], shares: Sequence[float]) -> float:
        """Return the variance of a weighted mean of ln W over draws.

        Source: s^T C s with C the posterior's covariance.

        >>> fit = fit_points((0.0,), (0.1,), (1e-4,), 711.2, 0.0055)
        >>> fit.variance_of([609.6, 609.6], [0.5, 0.5]) == fit.variance_of([609.6], [1.0])
        True
        """
        x, share = (np.asarray(draws_mm) - self.centre_mm) / MM_PER_IN, np.asarray(shares)
        over = share @ kernel(x[:, None], self.inches, self.tilt_sd)
        before = float(share @ kernel(x[:, None], x, self.tilt_sd) @ share)
        return max(before - float(over @ self.inverse @ over), 1e-12) * self.widened**2

    def drawn(self, draws_mm: Array, count: int) -> Array:
        """Return some curves of ln W - ln f the posterior allows (count, draws); always the same.

        Source: mean and covariance of the posterior, by its eigenvectors.

        >>> fit = fit_points((0.0,), (0.1,), (1e-4,), 711.2, 0.0055)
        >>> fit.drawn(np.array([685.8, 711.2]), 3).shape
        (3, 2)
        """
        x = (draws_mm - self.centre_mm) / MM_PER_IN
        over = kernel(x[:, None], self.inches, self.tilt_sd)
        spread = kernel(x[:, None], x, self.tilt_sd) - over @ self.inverse @ over.T
        values, vectors = np.linalg.eigh(spread)
        root = vectors * np.sqrt(np.maximum(values, 0.0)) * self.widened
        chance = np.random.default_rng(0).standard_normal((count, len(x)))
        curves: Array = self.base + over @ self.pulls + chance @ root.T
        return curves

    def _kernel(self, x: float) -> Array:
        return kernel(np.float64(x), self.inches, self.tilt_sd)

    def _inches(self, draw_mm: float) -> float:
        return (draw_mm - self.centre_mm) / MM_PER_IN


def kernel(a: Array | np.float64, b: Array, tilt_sd: float) -> Array:
    """Return the covariance of ln W - ln f at two places before anything is weighed.

    Inches from the centre, any shapes that broadcast.
    Source: sum of the three parts' covariances; the residual's form is Assumption.

    >>> float(kernel(np.float64(0.0), np.array([0.0]), 0.0055)[0])
    9.0064
    """
    # level^2 + tilt^2 a b + A^2 exp(-(a - b)^2/2 l^2)
    found: Array = LEVEL_SD**2 + tilt_sd**2 * a * b + _residual(a - b)
    return found


def _residual(away: Array | np.float64) -> Array:
    near: Array = RESIDUAL_SD**2 * np.exp(-((away / RESIDUAL_IN) ** 2) / 2)
    return near


@lru_cache(maxsize=128)
def fit_points(
    inches: tuple[float, ...],
    logs: tuple[float, ...],
    variances: tuple[float, ...],
    centre_mm: float,
    tilt_sd: float,
) -> WeightFit:
    """Return the posterior given points: places [in from the centre], ln W - ln f, variances.

    Where points scatter more than their errors explain, the ± is widened by what they do: chi^2
    over n - 1, the level taken off first.

    Source: Gaussian process regression; kept by its arguments.

    >>> fit = fit_points((-2.0, 0.0), (0.0, 0.05), (1e-4, 1e-4), 711.2, 0.0055)
    >>> round(fit.factor(711.2), 3), fit.widened
    (1.049, 1.0)
    """
    x, told = np.array(inches), np.array(logs)
    base = float(told.mean())
    y = told - base
    before = kernel(x[:, None], x, tilt_sd)
    inverse: Array = np.linalg.inv(before + np.diag(variances)).astype(np.float64)
    # the level's share is taken off: a height far from the kind's is no scatter
    flat = y - float(inverse.sum(axis=0) @ y) / float(inverse.sum())
    scatter = float(flat @ inverse @ flat) / max(len(x) - 1, 1)
    return WeightFit(
        centre_mm, tilt_sd, base, x, inverse @ y, inverse, max(1.0, math.sqrt(max(scatter, 0.0)))
    )


def stands_off(fit: WeightFit) -> Array:
    """Return how far each fitted point stands off what the others expect, in its own sds (n).

    Source: leave-one-out in closed form, (K^-1 y)_i/sqrt((K^-1)_ii).

    >>> fit = fit_points((-2.0, 0.0, 2.0), (0.0, 0.4, 0.0), (1e-4,) * 3, 711.2, 0.0055)
    >>> int(np.argmax(np.abs(stands_off(fit))))
    1
    """
    found: Array = fit.pulls / np.sqrt(np.diag(fit.inverse))
    return found
