"""The brace sweep: which height is quietest, how sure that is, and which to try next.

Noise over brace is one valley, skewed or not, with a floor that may be flat, or two dips side by
side; never more than 8 dB over its least. What an evening drifts is part of the error. Heights in
mm outside, in inches inside.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, fields, replace
from functools import lru_cache
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.numeric import Array

MOST_DB = 8.0
CURVATURE = 12.0
"""Assumption: 3 dB at half an inch from the quiet spot [dB/in2]."""
_SPREADS: Array = np.linspace(-0.9, 0.9, 4)
_SPREAD_SD = 0.55
STEP_IN = 1 / 32
BESIDE_IN, SHOULDER_IN, FIRST_STEP_IN = 3 / 8, 1 / 4, 1 / 4
"""The quiet spot may lie outside the maker's range, though nothing is proposed there."""
_SKEWS = ((0.6, 0.25), (1.0, 0.5), (1 / 0.6, 0.25))
"""How many times steeper it is below the quiet spot than above, and how likely."""
_FLOORS = ((0.0, 0.78), (1 / 8, 0.14), (1 / 4, 0.05), (3 / 8, 0.03))
"""Half the width of a floor that is flat, and how likely [in]."""
TWO_DIPS = 0.15
"""Assumption: three bows in twenty have two dips inside its range."""
DIPS_APART_IN, DIP_STEP_IN, DIP_CURVATURE = (0.375, 0.75), 1 / 16, 36.0
"""Dips beside each other are narrower than one valley [in, dB/in2]."""
_DEEPER = ((0.0, 0.4), (0.5, 0.3), (1.0, 0.3))
"""How much louder the other dip is, and how likely [dB]."""
AS_GOOD_DB = 0.5
"""Assumption: nobody hears a smaller difference from one height to another."""
_KAPPAS = ((1.0, 0.55), (1.7, 0.30), (3.0, 0.15))
"""Scale of the noise of takes and its weight: careless readings are allowed for."""
_GAINS = (0.3, 0.55, 1.0)
"""Points of a rating per dB: archers differ."""
RATING_SD = 1.7
"""Assumption: one rating from 0 to 10, as a judgement of the height [points]."""
SHOT_SHARE = 1.12
"""Assumption: the part of it that each shot has anew; more shots average that part only."""
HEIGHT_SD_DB, TAKE_SD_DB = 0.7, 1.0
DRIFT_DB, DRIFT_POINTS = 0.2, 0.2
"""Assumption: what an evening drifts from one height to the next, one standard deviation."""
ANY_LEVEL_SD = 30.0
"""Any level: only differences speak."""
NEAR_IN = 1 / 8
SIXTEENTH = 1 / 16
QUIETER_PER_DB = 0.3
LEAST_HEIGHTS, MOST_HEIGHTS = 4, 6
SURE_ENOUGH, QUIET_ENOUGH_DB = 0.92, 0.06
PAST_END = 0.5
OTHER_APART_IN, OTHER_SHARE = 5 / 16, 0.5
"""A second spot lies so far off, and is at least so likely beside the first."""
FLAT_SURE, FLAT_IN = 0.7, 3 / 8
"""A floor is called flat where it is so likely that nobody hears a difference, over so much."""


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
class Shapes:
    """Ways noise may go over brace, a node each [in, dB]."""

    spot: Array
    below: Array
    above: Array
    """Curvature to either side [dB/in2]."""
    floor: Array
    """Half the width of a flat floor."""
    other: Array
    """The second dip; the same as the first where there is none."""
    louder: Array
    """How much louder the second dip is."""
    prior: Array
    one: int
    """How many of them are one valley; the others follow."""

    def rise(self, braces: Array) -> Array:
        """Return noise over its least, shape (braces, nodes) [dB].

        N(x) = 8 (1 - exp(-c x^2/8)), x counted from the floor's edge. Source: our own.

        >>> shapes = shapes_of((7.5, 8.5))
        >>> bool((shapes.rise(np.array([7.0, 8.0])) >= 0).all())
        True
        """
        rise = self._valley(braces, self.spot, slice(None))
        two = slice(self.one, None)
        other = self._valley(braces, self.other, two) + self.louder[two]
        rise[:, two] = np.minimum(rise[:, two], other)
        return rise

    def _valley(self, braces: Array, at: Array, of: slice) -> Array:
        off = braces[:, None] - at[of]
        c = np.where(off < 0, self.below[of], self.above[of])
        past = np.maximum(np.abs(off) - self.floor[of], 0.0)
        valley: Array = MOST_DB * (1 - np.exp(-c * past**2 / MOST_DB))
        return valley

    def near(self, braces: Array, limits: tuple[float, float], within: float = NEAR_IN) -> Array:
        """Return whether a quietest place inside the limits lies near, shape (braces, nodes).

        Source: definition; a dip as good as the first counts as the first.

        >>> shapes = shapes_of((7.5, 8.5))
        >>> bool(shapes.near(np.array([8.0]), (7.5, 8.5), 1.0).all())
        True
        """
        low, high = (np.clip(self.spot + side * self.floor, *limits) for side in (-1, 1))
        at = braces[:, None]
        inside = (at >= low - within - 1e-9) & (at <= high + within + 1e-9)
        as_good = (self.louder <= AS_GOOD_DB) & (np.abs(at - self.other) <= within + 1e-9)
        return np.asarray(inside | as_good)


@dataclass(frozen=True)
class Quiet:
    """The quiet spot as far as it is known."""

    brace_mm: float
    sd_mm: float
    near: float
    """Probability that a quietest place inside the limits lies within 1/8 in of `spots_mm`."""
    left_db: float
    """Loudness expected to be left at `brace_mm` over the quietest inside the limits."""
    heights: int
    shapes: Shapes
    likely: Array
    """How likely each of the shapes is."""
    next_mm: float | None
    """The height to try next; None where no more would help."""
    enough: bool
    """True when it is sure enough, or six heights have been tried."""
    other_mm: float | None = None
    """A second quiet spot that fits as well."""
    floor_mm: tuple[float, float] | None = None
    """Where the floor is flat, its two ends."""
    at_end: Literal["low", "high"] | None = None
    """The end of the range at or past which the quiet spot lies."""

    @property
    def spots_mm(self) -> tuple[float, ...]:
        """The quiet spot, or the two that fit as well, in order."""
        spots = [self.brace_mm] if self.other_mm is None else [self.brace_mm, self.other_mm]
        return tuple(sorted(spots))

    def valley(self, at_mm: Array) -> tuple[Array, Array]:
        """Return loudness over the quiet spot [dB] at some heights, with its sd.

        Source: mean over the posterior.

        >>> heights = (Height(195.0, (5.0,)), Height(185.0, (2.0,)), Height(178.0, (4.0,)))
        >>> found = sweep(heights, (175.0, 200.0))
        >>> mean, _ = found.valley(np.array([178.0, found.brace_mm, 198.0]))
        >>> bool(mean[1] < mean[0] and mean[1] < mean[2])
        True
        """
        rise = self.shapes.rise(at_mm / MM_PER_IN)
        mean = rise @ self.likely
        return mean, np.sqrt(np.maximum(rise**2 @ self.likely - mean**2, 0.0))


def loudness_of(takes_db: tuple[float, ...]) -> Loudness:
    """Return one height's loudness from its takes, robust, with its sd [dB].

    The median of few or many, the mean without the two ends of four to six; the spread is held
    near 1 dB while few takes speak.
    Source: order statistics; the figures are Assumption.

    >>> [round(x, 2) for x in loudness_of((3.1, 2.7, 3.4))]
    [3.1, 0.89]
    """
    ordered = sorted(takes_db)
    n = len(ordered)
    value = sum(ordered[1:-1]) / (n - 2) if 4 <= n <= 6 else float(np.median(ordered))
    off = sum(min(max(take - value, -2.5), 2.5) ** 2 for take in ordered)
    spread = (4 * TAKE_SD_DB**2 + off) / (3 + n)
    return Loudness(value, math.sqrt(1.25 * spread / n + HEIGHT_SD_DB**2))


def rated(ratings: tuple[float, ...]) -> Loudness:
    """Return one height's rating, with its sd [points]: the mean, part of the doubt shared.

    Assumption: a single rating is good to 1.7 points; only the shot's own part averages out.

    >>> [round(x, 2) for x in rated((3.0,))], [round(x, 2) for x in rated((3.0, 4.0, 3.0))]
    ([3.0, 1.7], [3.33, 1.43])
    """
    n = len(ratings)
    shared = RATING_SD**2 - SHOT_SHARE**2
    return Loudness(sum(ratings) / n, math.sqrt(shared + SHOT_SHARE**2 / n))


def _grids(*axes: Array) -> list[Array]:
    return [grid.ravel() for grid in np.meshgrid(*axes, indexing="ij")]


def _shapes(parts: Sequence[Array], one: int) -> Shapes:
    spot, below, above, floor, other, louder, prior = parts
    return Shapes(spot, below, above, floor, other, louder, prior, one)


def _one_valley(low: float, high: float) -> Shapes:
    """One valley, skewed or not, its floor flat or not; its spot in the range or beside it."""
    count = round((high - low + 2 * BESIDE_IN) / STEP_IN)
    grid: Array = low - BESIDE_IN + STEP_IN * np.arange(count + 1, dtype=np.float64)
    (skews, skew_likely), (floors, floor_likely) = (
        np.array(pairs).T for pairs in (_SKEWS, _FLOORS)
    )
    spot, spread, skew, floor = _grids(grid, _SPREADS, np.log(skews), floors)
    outside = np.maximum(np.maximum(low - spot, spot - high), 0.0)
    prior = np.exp(-0.5 * (outside / SHOULDER_IN) ** 2 - 0.5 * (spread / _SPREAD_SD) ** 2)
    prior *= np.interp(skew, np.log(skews), skew_likely)
    prior *= np.interp(floor, floors, floor_likely)
    below, above = (CURVATURE * np.exp(spread + side * skew / 2) for side in (1, -1))
    return Shapes(spot, below, above, floor, spot, np.zeros(len(spot)), prior / prior.sum(),
                  len(spot))  # fmt: skip


def _two_dips(low: float, high: float) -> Shapes | None:
    """Two narrow dips inside the range; None where it has no room for them."""
    dips: Array = np.arange(low, high + 1e-9, DIP_STEP_IN)
    deeper, likely = np.array(_DEEPER).T
    first, other, spread, louder = _grids(dips, dips, np.array([-0.6, 0.0, 0.6]), deeper)
    apart = np.abs(first - other)
    kept = (apart >= DIPS_APART_IN[0] - 1e-9) & (apart <= DIPS_APART_IN[1] + 1e-9)
    if not kept.any():
        return None
    c, none = DIP_CURVATURE * np.exp(spread), np.zeros(len(first))
    prior = np.interp(louder, deeper, likely)
    prior = np.where(kept, prior, 0.0)
    parts = (first, c, c, none, other, louder, prior / prior.sum())
    return _shapes([part[kept] for part in parts], 0)


@lru_cache(maxsize=8)
def shapes_of(limits: tuple[float, float]) -> Shapes:
    """Return the ways noise may go over brace inside a maker's limits [in].

    Assumption: the quiet spot lies in the maker's range, or a little beside it; sizes are invented.

    >>> shapes = shapes_of((7.5, 8.5))
    >>> round(float(shapes.prior.sum()), 6), float(shapes.spot.min())
    (1.0, 7.125)
    """
    one, two = _one_valley(*limits), _two_dips(*limits)
    if two is None:
        return one
    one = replace(one, prior=(1 - TWO_DIPS) * one.prior)
    two = replace(two, prior=TWO_DIPS * two.prior)
    both = [
        np.concatenate([getattr(one, field.name), getattr(two, field.name)])
        for field in fields(Shapes) if field.name != "one"
    ]  # fmt: skip
    return _shapes(both, len(one.prior))


def _whitened(heard: list[Loudness], order: Array, drift: float) -> Array:
    """Return what frees a channel of its level and of what the evening drifts: R, R'R = S^-1."""
    doubt = np.diag([item.sd**2 for item in heard]) + ANY_LEVEL_SD**2
    later = order - order.mean()
    return np.linalg.inv(np.linalg.cholesky(doubt + drift**2 * np.outer(later, later)))


def _chi2(heard: list[Loudness], order: Array, drift: float, expected: Array) -> Array:
    """Return how far a channel lies from what each shape expects, shape (nodes,)."""
    root = _whitened(heard, order, drift)
    off = (root @ np.array([item.value for item in heard]))[:, None] - root @ expected
    result: Array = (off * off).sum(axis=0)
    return result


def _loud(heard: list[Loudness], order: Array, rise: Array) -> Array:
    """Return the likelihood of recordings, robust in the scale of their noise."""
    chi2 = _chi2(heard, order, DRIFT_DB, rise)
    freedom = len(heard) - 1
    result: Array = sum(
        (weight * np.exp(-chi2 / (2 * kappa**2)) / kappa**freedom for kappa, weight in _KAPPAS),
        np.zeros_like(chi2),
    )
    return result


def _felt(heard: list[Loudness], order: Array, rise: Array) -> Array:
    """Return the likelihood of a channel of ratings: own zero, own points per dB."""
    result: Array = sum(
        (np.exp(-_chi2(heard, order, DRIFT_POINTS, gain * rise) / 2) for gain in _GAINS),
        np.zeros(rise.shape[1]),
    )
    return result / len(_GAINS)


_CHANNELS = (("takes_db", _loud), ("sound", _felt), ("shock", _felt))


@lru_cache(maxsize=64)
def sweep(heights: tuple[Height, ...], limits_mm: tuple[float, float]) -> Quiet:
    """Return the quiet spot after some heights were shot, in order, inside the maker's limits.

    Needs one height at least. Of each channel two heights speak at least.
    Source: Bayes' theorem on a grid of shapes (docs/MECHANICS.md).

    >>> heights = (Height(209.55, (6.0,), (5.0,)), Height(200.0, (3.0,), (3.0,)))
    >>> found = sweep(heights, (190.5, 215.9))
    >>> 190 < found.brace_mm < 205, found.enough
    (True, False)
    """
    low, high = limits = (limits_mm[0] / MM_PER_IN, limits_mm[1] / MM_PER_IN)
    shapes = shapes_of((round(low, 6), round(high, 6)))
    likely = shapes.prior
    tried = np.array([height.brace_mm for height in heights]) / MM_PER_IN
    rises = shapes.rise(tried)
    for channel, likelihood in _CHANNELS:
        spoken = [(n, getattr(height, channel)) for n, height in enumerate(heights)]
        spoken = [(n, said) for n, said in spoken if said]
        if len(spoken) < 2:
            continue
        order = np.array([n for n, _ in spoken])
        heard = [loudness_of(s) if channel == "takes_db" else rated(s) for _, s in spoken]
        likely = likely * likelihood(heard, order.astype(np.float64), rises[order])
    likely = likely / likely.sum()
    braces, over, beside = _map((round(low, 6), round(high, 6)))
    left = over @ likely
    # the likeliest place to lie near the quiet spot; of places as likely the quieter
    best = _least(braces, QUIETER_PER_DB * left - beside @ likely)
    left_db = float(np.interp(best, braces, left))
    spot = np.clip(shapes.spot, low, high)
    close = shapes.near(np.array([best]), limits)[0]
    near, other = float(likely @ close), None
    count = len(heights)
    sure = count >= LEAST_HEIGHTS and (near >= SURE_ENOUGH or left_db < QUIET_ENOUGH_DB)
    enough = sure or count >= MOST_HEIGHTS
    at = _second(braces, best, beside @ likely, left) if enough else None
    if at is not None:
        other = float(braces[at])
        near = float(likely @ (close | (beside[at] > 0)))
    return Quiet(
        brace_mm=best * MM_PER_IN,
        sd_mm=float(math.sqrt(likely @ (spot - best) ** 2)) * MM_PER_IN,
        near=near,
        left_db=left_db,
        heights=count,
        shapes=shapes,
        likely=likely,
        next_mm=None if enough else _next_height(heights, limits_mm, shapes, likely),
        enough=enough,
        other_mm=None if other is None else other * MM_PER_IN,
        floor_mm=_floor(braces, over, likely, best) if enough and other is None else None,
        at_end=_at_end(best, limits, shapes, likely) if enough else None,
    )


@lru_cache(maxsize=8)
def _map(limits: tuple[float, float]) -> tuple[Array, Array, Array]:
    """Return braces inside the limits, noise there over each shape's least, and what lies near."""
    low, high = limits
    shapes = shapes_of(limits)
    braces = np.linspace(low, high, max(round((high - low) / STEP_IN), 1) + 1)
    over = shapes.rise(braces)
    return braces, over - over.min(axis=0), shapes.near(braces, limits).astype(np.float64)


def _least(braces: Array, left: Array) -> float:
    """Return where a curve over braces is least: a parabola through three of its points."""
    at = int(left.argmin())
    if at in (0, len(braces) - 1):
        return float(braces[at])
    before, here, after = left[at - 1 : at + 2]
    bend = before - 2 * here + after
    step = (before - after) / (2 * bend) if bend > 0 else 0.0
    return float(braces[at] + step * (braces[1] - braces[0]))


def _second(braces: Array, best: float, near: Array, left: Array) -> int | None:
    """Return a second place that fits about as well as the best, with a hump between the two."""
    apart = np.abs(braces - best) >= OTHER_APART_IN
    if not apart.any():
        return None
    at = int(np.where(apart, near, -1.0).argmax())
    here = int(np.abs(braces - best).argmin())
    between = left[min(at, here) : max(at, here) + 1]
    hump = float(between.max()) - max(float(left[at]), float(left[here]))
    return at if near[at] >= OTHER_SHARE * near[here] and hump >= AS_GOOD_DB else None


def _floor(braces: Array, over: Array, likely: Array, best: float) -> tuple[float, float] | None:
    """Return the two ends of a floor on which nobody hears a difference [mm]; None if narrow."""
    same = (over <= AS_GOOD_DB) @ likely >= FLAT_SURE
    here = int(np.abs(braces - best).argmin())
    if not same[here]:
        return None
    low = here - int(np.argmin(np.append(same[: here + 1][::-1], False))) + 1
    high = here + int(np.argmin(np.append(same[here:], False))) - 1
    if braces[high] - braces[low] < FLAT_IN - 1e-9:
        return None
    return float(braces[low]) * MM_PER_IN, float(braces[high]) * MM_PER_IN


def _at_end(
    best: float, limits: tuple[float, float], shapes: Shapes, likely: Array
) -> Literal["low", "high"] | None:
    """Return the end the best place lies at, or past which the quiet spot probably lies."""
    low, high = limits
    if best <= low + SIXTEENTH or likely @ (shapes.spot <= low + SIXTEENTH / 2) > PAST_END:
        return "low"
    past = likely @ (shapes.spot >= high - SIXTEENTH / 2) > PAST_END
    return "high" if best >= high - SIXTEENTH or past else None


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
    heights: tuple[Height, ...], limits_mm: tuple[float, float], shapes: Shapes, likely: Array
) -> float:
    """Return the height that tells most inside the limits, not the last one again [mm]."""
    low, high = (limit / MM_PER_IN for limit in limits_mm)
    tried = np.array([height.brace_mm for height in heights]) / MM_PER_IN
    if len(heights) == 1:
        step = max((high - low) / 3, FIRST_STEP_IN)
        second = tried[0] + (step if tried[0] < (low + high) / 2 else -step)
        return float(min(max(second, low), high)) * MM_PER_IN
    low, high = _between_worse(heights, (low, high))
    weights = np.array([1 / _sd_db(height) ** 2 for height in heights])
    weights = weights / weights.sum()
    noise = float(np.mean([_sd_db(height) ** 2 for height in heights]))
    first, last = math.ceil(low / SIXTEENTH - 1e-9), math.floor(high / SIXTEENTH + 1e-9)
    choices: Array = SIXTEENTH * np.arange(first, max(last, first) + 1, dtype=np.float64)
    # the height that was just shot is not asked for again at once
    fresh = np.abs(choices - tried[-1]) >= SIXTEENTH - 1e-9
    choices = choices[fresh] if fresh.any() else choices
    y = shapes.rise(choices) - weights @ shapes.rise(tried)
    mean = y @ likely
    total = y**2 @ likely - mean**2
    # by where the quiet spot is: what is told is how the mean differs from spot to spot
    spots, at = np.unique(np.round(shapes.spot / SIXTEENTH), return_inverse=True)
    share = np.bincount(at, likely, len(spots))
    by_spot = np.array([np.bincount(at, row * likely, len(spots)) for row in y])
    told = by_spot**2 @ (1 / np.maximum(share, 1e-300)) - mean**2
    return float(choices[int((told / (total - told + noise)).argmax())]) * MM_PER_IN


def _sd_db(height: Height) -> float:
    """Return how well a height's loudness is known, all its channels together [dB]."""
    known = 1 / loudness_of(height.takes_db).sd ** 2 if height.takes_db else 0.0
    for ratings in (height.sound, height.shock):
        if ratings:
            known += (_GAINS[1] / rated(ratings).sd) ** 2
    return 1 / math.sqrt(known) if known else 1e3
