"""The brace sweep: which height is quietest, how sure that is, and which to try next.

Noise over brace has one quiet spot: a + N(b - b*), N(x) = 8 (1 - exp(-c x^2/8)) dB, quadratic near
it and never more than 8 dB. b* and c run over a grid. Heights in mm outside, in inches inside.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.numeric import Array

MOST_DB = 8.0
CURVATURE = 12.0
"""Assumption: 3 dB at half an inch from the quiet spot [dB/in2]."""
_SPREADS: Array = np.linspace(-1.1, 1.1, 7)
_SPREAD_SD = 0.55
STEP_IN = 1 / 32
BESIDE_IN, SHOULDER_IN = 1 / 4, 1 / 8
"""The quiet spot may lie a little outside the maker's range, though nothing is proposed there."""
_KAPPAS = ((1.0, 0.55), (1.7, 0.30), (3.0, 0.15))
"""Scale of the noise of takes and its weight: careless readings are allowed for."""
_GAINS = (0.3, 0.6, 1.2)
"""Points of a rating per dB: archers differ."""
RATING_SD = 1.5
"""Assumption: one rating from 0 to 10, as a judgement of the height."""
SHOT_SHARE = 1.12
"""Assumption: the part of it that each shot has anew; more shots average that part only."""
HEIGHT_SD_DB, TAKE_SD_DB = 0.5, 1.0
NEAR_IN = 1 / 8
SIXTEENTH = 1 / 16
LEAST_HEIGHTS, MOST_HEIGHTS = 4, 6
SURE_ENOUGH, QUIET_ENOUGH_DB = 0.92, 0.06


class Height(NamedTuple):
    """A brace height that was shot, and how it sounded and felt."""

    brace_mm: float
    sound: tuple[float, ...] = ()
    """Rated 0 still to 10 harsh, a shot each."""
    shock: tuple[float, ...] = ()
    takes_db: tuple[float, ...] = ()
    """Loudness of recordings, against any one level."""


class Loudness(NamedTuple):
    """One height in one channel."""

    value: float
    sd: float


@dataclass(frozen=True)
class Quiet:
    """The quiet spot as far as it is known."""

    brace_mm: float
    sd_mm: float
    near: float
    """Probability that it lies within 1/8 in of `brace_mm`."""
    left_db: float
    """Loudness expected to be left at `brace_mm` over the quiet spot."""
    heights: int
    braces_mm: Array
    """The grid of the quiet spot, and how likely each is."""
    likely: Array
    next_mm: float | None
    """The height to try next; None where no more would help."""
    enough: bool
    """True when it is sure enough, or six heights have been tried."""
    at_end: Literal["low", "high"] | None = None
    """The end of the range at or past which the quiet spot lies."""

    def valley(self, at_mm: Array) -> tuple[Array, Array]:
        """Return loudness over the quiet spot [dB] at some heights, with its sd.

        Source: mean over the posterior.

        >>> heights = (Height(195.0, (5.0,)), Height(185.0, (2.0,)), Height(178.0, (4.0,)))
        >>> found = sweep(heights, (175.0, 200.0))
        >>> mean, _ = found.valley(np.array([178.0, found.brace_mm, 198.0]))
        >>> bool(mean[1] < mean[0] and mean[1] < mean[2])
        True
        """
        grid = self.braces_mm / MM_PER_IN
        weights = self.likely
        rise = _rise((at_mm / MM_PER_IN)[:, None, None] - grid[None, :, None])
        mean = np.einsum("hbc,bc->h", rise, weights)
        square = np.einsum("hbc,bc->h", rise**2, weights)
        return mean, np.sqrt(np.maximum(square - mean**2, 0.0))


_CURVATURES: Array = CURVATURE * np.exp(_SPREADS)
_CURVATURE_LIKELY: Array = np.exp(-0.5 * (_SPREADS / _SPREAD_SD) ** 2)


def _rise(off_in: Array) -> Array:
    """Return N over the curvatures, on the last axis: 8 (1 - exp(-c x^2/8))."""
    return MOST_DB * (1 - np.exp(-_CURVATURES * off_in**2 / MOST_DB))


def loudness_of(takes_db: tuple[float, ...]) -> Loudness:
    """Return one height's loudness from its takes, robust, with its sd [dB].

    The median of few or many, the mean without the two ends of four to six; the spread is held
    near 1 dB while few takes speak.
    Source: order statistics; the figures are Assumption.

    >>> [round(x, 2) for x in loudness_of((3.1, 2.7, 3.4))]
    [3.1, 0.74]
    """
    ordered = sorted(takes_db)
    n = len(ordered)
    value = sum(ordered[1:-1]) / (n - 2) if 4 <= n <= 6 else float(np.median(ordered))
    off = sum(min(max(take - value, -2.5), 2.5) ** 2 for take in ordered)
    spread = (4 * TAKE_SD_DB**2 + off) / (3 + n)
    return Loudness(value, math.sqrt(1.25 * spread / n + HEIGHT_SD_DB**2))


def rated(ratings: tuple[float, ...]) -> Loudness:
    """Return one height's rating, with its sd [points]: the mean, part of the doubt shared.

    Assumption: a single rating is good to 1.5 points; only the shot's own part averages out.

    >>> [round(x, 2) for x in rated((3.0,))], [round(x, 2) for x in rated((3.0, 4.0, 3.0))]
    ([3.0, 1.5], [3.33, 1.19])
    """
    n = len(ratings)
    shared = RATING_SD**2 - SHOT_SHARE**2
    return Loudness(sum(ratings) / n, math.sqrt(shared + SHOT_SHARE**2 / n))


def grid_of(limits_mm: tuple[float, float]) -> tuple[Array, Array]:
    """Return the grid of the quiet spot [in] and its prior: flat in the range, with shoulders.

    Assumption: the quiet spot lies in the maker's range, or a little beside it.

    >>> grid, prior = grid_of((190.5, 215.9))
    >>> float(grid[0]), float(grid[-1]), bool(prior[0] < prior[len(prior) // 2])
    (7.25, 8.75, True)
    """
    low, high = (limit / MM_PER_IN for limit in limits_mm)
    count = round((high - low + 2 * BESIDE_IN) / STEP_IN)
    grid: Array = low - BESIDE_IN + STEP_IN * np.arange(count + 1, dtype=np.float64)
    outside = np.maximum(np.maximum(low - grid, grid - high), 0.0)
    return grid, np.exp(-0.5 * (outside / SHOULDER_IN) ** 2)


def _loud(heard: list[Loudness], rise: Array) -> Array:
    """Return the likelihood of recordings: the level out by weighted mean, robust in its scale."""
    chi2 = _chi2(heard, rise)
    freedom = len(heard) - 1
    result: Array = sum(
        (weight * np.exp(-chi2 / (2 * kappa**2)) / kappa**freedom for kappa, weight in _KAPPAS),
        np.zeros_like(chi2),
    )
    return result


def _felt(heard: list[Loudness], rise: Array) -> Array:
    """Return the likelihood of a channel of ratings: own zero, own points per dB."""
    result: Array = sum(
        (np.exp(-_chi2(heard, gain * rise) / 2) for gain in _GAINS), np.zeros(rise.shape[1:])
    )
    return result / len(_GAINS)


def _chi2(heard: list[Loudness], expected: Array) -> Array:
    value = np.array([item.value for item in heard])[:, None, None]
    weight = np.array([1 / item.sd**2 for item in heard])[:, None, None]
    off = value - expected
    off = off - (weight * off).sum(axis=0) / weight.sum(axis=0)
    result: Array = (weight * off**2).sum(axis=0)
    return result


@lru_cache(maxsize=64)
def sweep(heights: tuple[Height, ...], limits_mm: tuple[float, float]) -> Quiet:
    """Return the quiet spot after some heights were shot, inside the maker's limits.

    Needs one height at least. Of each channel two heights speak at least.
    Source: Bayes' theorem on a grid of quiet spot and curvature (docs/MECHANICS.md).

    >>> heights = (Height(209.55, (6.0,), (5.0,)), Height(200.0, (3.0,), (3.0,)))
    >>> found = sweep(heights, (190.5, 215.9))
    >>> 190 < found.brace_mm < 205, found.enough
    (True, False)
    """
    grid, prior = grid_of(limits_mm)
    likely = prior[:, None] * _CURVATURE_LIKELY[None, :]
    tried = np.array([height.brace_mm for height in heights]) / MM_PER_IN
    for channel, likelihood in _CHANNELS:
        spoken = [(b, getattr(h, channel)) for b, h in zip(tried, heights, strict=True)]
        spoken = [(b, said) for b, said in spoken if said]
        if len(spoken) < 2:
            continue
        rise = _rise(np.array([b for b, _ in spoken])[:, None, None] - grid[None, :, None])
        heard = [loudness_of(s) if channel == "takes_db" else rated(s) for _, s in spoken]
        likely = likely * likelihood(heard, rise)
    likely = likely / likely.sum()
    spots = likely.sum(axis=1)
    best = float(spots @ grid)
    near = float(spots[np.abs(grid - best) <= NEAR_IN + 1e-9].sum())
    left = float((_rise((best - grid)[:, None]) * likely).sum())
    count = len(heights)
    sure = count >= LEAST_HEIGHTS and (near >= SURE_ENOUGH or left < QUIET_ENOUGH_DB)
    enough = sure or count >= MOST_HEIGHTS
    return Quiet(
        brace_mm=best * MM_PER_IN,
        sd_mm=float(math.sqrt(max(spots @ (grid - best) ** 2, 0.0))) * MM_PER_IN,
        near=near,
        left_db=left,
        heights=count,
        braces_mm=grid * MM_PER_IN,
        likely=likely,
        next_mm=None if enough else _next_height(heights, limits_mm, grid, likely),
        enough=enough,
        at_end=_at_end(best * MM_PER_IN, limits_mm) if enough else None,
    )


def _at_end(best_mm: float, limits_mm: tuple[float, float]) -> Literal["low", "high"] | None:
    low, high = limits_mm
    if best_mm <= low + SIXTEENTH * MM_PER_IN:
        return "low"
    return "high" if best_mm >= high - SIXTEENTH * MM_PER_IN else None


_CHANNELS = (("takes_db", _loud), ("sound", _felt), ("shock", _felt))


def _between_worse(heights: tuple[Height, ...], limits: tuple[float, float]) -> tuple[float, float]:
    """Return the limits drawn in to the nearest heights on either side that were rated worse [in].

    Beyond a height that was worse in that direction nothing is proposed.
    """
    best = max(range(len(heights)), key=lambda index: sum(
        _worse(other, heights[index]) > 0 for other in heights))  # fmt: skip
    at, (low, high) = heights[best].brace_mm / MM_PER_IN, limits
    for height in heights:
        brace = height.brace_mm / MM_PER_IN
        if _worse(height, heights[best]) > 0:
            low = max(low, brace) if brace < at else low
            high = min(high, brace) if brace > at else high
    return low, high


def _worse(one: Height, other: Height) -> float:
    """Return how much worse one height was than another, over the channels both were rated in."""
    total = 0.0
    for channel, points in (("takes_db", 1.0), ("sound", _GAINS[1]), ("shock", _GAINS[1])):
        ratings = getattr(one, channel), getattr(other, channel)
        if all(ratings):
            judged = [loudness_of(r) if channel == "takes_db" else rated(r) for r in ratings]
            doubt = (judged[0].sd ** 2 + judged[1].sd ** 2) / points
            total += (judged[0].value - judged[1].value) / doubt
    return total


def _next_height(
    heights: tuple[Height, ...], limits_mm: tuple[float, float], grid: Array, likely: Array
) -> float:
    """Return the height that tells most, to a sixteenth inside the limits [mm]."""
    low, high = (limit / MM_PER_IN for limit in limits_mm)
    tried = np.array([height.brace_mm for height in heights]) / MM_PER_IN
    if len(heights) == 1:
        step = max((high - low) / 3, BESIDE_IN)
        second = tried[0] + (step if tried[0] < (low + high) / 2 else -step)
        return float(min(max(second, low), high)) * MM_PER_IN
    low, high = _between_worse(heights, (low, high))
    weights = np.array([1 / _sd_db(height) ** 2 for height in heights])
    weights = weights / weights.sum()
    noise = float(np.mean([_sd_db(height) ** 2 for height in heights]))
    first, last = math.ceil(low / SIXTEENTH - 1e-9), math.floor(high / SIXTEENTH + 1e-9)
    choices: Array = SIXTEENTH * np.arange(first, max(last, first) + 1, dtype=np.float64)
    base = np.einsum("h,hbc->bc", weights, _rise(tried[:, None, None] - grid[None, :, None]))
    y = _rise(choices[:, None, None] - grid[None, :, None]) - base
    spots = likely.sum(axis=1)
    mean = np.einsum("kbc,bc->k", y, likely)
    total = np.einsum("kbc,bc->k", y**2, likely) - mean**2
    by_spot = np.einsum("kbc,bc->kb", y, likely) / np.maximum(spots, 1e-300)
    told = by_spot**2 @ spots - mean**2
    return float(choices[int((told / (total - told + noise)).argmax())]) * MM_PER_IN


def _sd_db(height: Height) -> float:
    """Return how well a height's loudness is known, all its channels together [dB]."""
    known = 1 / loudness_of(height.takes_db).sd ** 2 if height.takes_db else 0.0
    for ratings in (height.sound, height.shock):
        if ratings:
            known += (_GAINS[1] / rated(ratings).sd) ** 2
    return 1 / math.sqrt(known) if known else 1e3
