"""The mechanics' school of spine: how every shaft leaves, and where its tail does not lean.

Spines in pounds of the wood scale, masses in grains, lengths in mm.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from lyrandis.core.arrow.bend import PUSHES, RELEASES, Shot, bend
from lyrandis.core.arrow.spine import STIFFNESS_PER_POUND, stiffness
from lyrandis.core.numeric import Array, border

Clearance = Literal["clear", "marginal", "slap"]
Stiffness = Literal["very_weak", "weak", "little_weak", "matched", "little_stiff", "stiff", "far"]

STIFFEST, WEAKEST, STEP = 130.0, 26.0, 4.0
SCAN: Array = np.arange(STIFFEST, WEAKEST - 0.1, -STEP)
WEAKEST_AT_ALL, LIGHT_STEP = 12.0, 2.0
LIGHT_SCAN: Array = np.arange(WEAKEST - LIGHT_STEP, WEAKEST_AT_ALL - 0.1, -LIGHT_STEP)
ALL_SPINES: Array = np.concatenate([SCAN, LIGHT_SCAN])
"""Every spine that is shot, stiffest first."""
MATCH_DT = 40e-6
OUTER = 2
"""Roots left out at either end before the mean is taken."""
FAR_INDEX = 2.5
"""Index from which a shaft is more than a little off. Convention."""
VERY_WEAK = 0.65
"""Below this share of the match no number is given."""
MARGINAL_NS, SLAP_NS = 0.0025, 0.008
"""Rear impulse: to 0.0015 is ordinary, 0.0036 marginal, 0.014 and more a slap; the limits lie
between."""
PLATEAU_DEG = 5.0
LEAST_PLATEAU = 4
"""A run of spines (in steps of the scan) that all leave this straight is a plateau."""


@dataclass(frozen=True)
class ShotMatch:
    """What the computed shot alone says: every spine's kicks, and the root where it has one."""

    matched: float | None
    """None when no spine between 12 and 130 lb leaves straight."""
    kicks: tuple[tuple[float, ...], ...]
    """Clean kick of every spine of `ALL_SPINES` (rows) by release [deg]."""
    clearance: Clearance | None
    rear_impulse: float | None
    exit_speed: float
    time_on_string: float


def spine_index(spine_lbf: float, matched_lbf: float) -> float:
    """Return tenths of stiffness off the match: 10 ln(own/matched); + is stiff.

    Source: our own convention; a tenth of stiffness is about what a practised eye tells apart.

    >>> round(spine_index(55.0, 50.0), 2)
    0.95
    """
    return 10 * math.log(spine_lbf / matched_lbf)


def stiffness_word(index: float) -> Stiffness:
    """Return the word for an index.

    Assumption: bounds of the words are our conventions.

    >>> [stiffness_word(i) for i in (-6, -3, -1.5, 0.4, 2, 4, 8)]
    ['very_weak', 'weak', 'little_weak', 'matched', 'little_stiff', 'stiff', 'far']
    """
    limits: tuple[tuple[float, Stiffness], ...] = (
        (10 * math.log(VERY_WEAK), "very_weak"),
        (-FAR_INDEX, "weak"),
        (-1.0, "little_weak"),
        (1.0, "matched"),
        (FAR_INDEX, "little_stiff"),
        (5.0, "stiff"),
    )
    return next((word for limit, word in limits if index < limit), "far")


def clearance_of(impulse: float) -> Clearance:
    """Return the word for the plate's impulse on the tail half [N s].

    Assumption: limits tuned on the prototype (docs/CALIBRATION.md).

    >>> [clearance_of(i) for i in (0.001, 0.0036, 0.014)]
    ['clear', 'marginal', 'slap']
    """
    if impulse < MARGINAL_NS:
        return "clear"
    return "marginal" if impulse < SLAP_NS else "slap"


@lru_cache(maxsize=128)
def match_spine(shot: Shot, spine_lbf: float | None = None, dt: float = MATCH_DT) -> ShotMatch:
    """Return what the computed shot says of a set-up, and how a shaft of `spine_lbf` does on it.

    Shot from 130 down to 26 lb by 4 and on to 12 lb by 2: each of nine releases has its root, the
    first + to - change of its clean kick, cubic through four points; the mechanics' own match is
    the mean of the middle five. Lower roots are false: those under 26 lb count only where there is
    none above. `matched.py` weighs the kicks themselves.
    Source: docs/MECHANICS.md; good to 10 % at best.

    >>> from lyrandis.core.example import rig
    >>> match = match_spine(rig().arrow.shooting.shot)
    >>> 55 < match.matched < 70
    True
    """
    own = [spine_lbf] if spine_lbf else []
    spines = np.concatenate([ALL_SPINES, own])
    clean = (*(True for _ in ALL_SPINES), *(False for _ in own))
    ei = STIFFNESS_PER_POUND * spines[None, :]
    ways = (*(RELEASES for _ in ALL_SPINES), *(PUSHES for _ in own))
    bent = bend((shot,), ei, releases=ways, clean=clean, dt=dt)
    kicks = np.degrees(bent.kick[0].reshape(len(spines), len(RELEASES)))
    impulse = float(bent.rear_impulse[0, -len(RELEASES) :].mean()) if spine_lbf else None
    every = kicks[: len(ALL_SPINES)]
    roots = roots_of(SCAN, every[: len(SCAN)])
    if np.sort(roots)[OUTER] == 0.0:
        roots = roots_of(ALL_SPINES, every)
    return ShotMatch(
        matched=middle_of(roots),
        kicks=tuple(map(tuple, every.tolist())),
        clearance=None if impulse is None else clearance_of(impulse),
        rear_impulse=impulse,
        exit_speed=bent.strokes[0].exit_speed,
        time_on_string=bent.strokes[0].time_on_string,
    )


@lru_cache(maxsize=64)
def clearance_at(shot: Shot, spine_lbf: float, dt: float = MATCH_DT) -> Clearance:
    """Return how a shaft of some spine clears the plate, rear contact left in, nine releases.

    Source: the computed shot, rear contact left in.

    >>> from lyrandis.core.example import rig
    >>> clearance_at(rig().arrow.shooting.shot, 60.0)
    'clear'
    """
    ei = np.array([[stiffness(spine_lbf)]])
    full = bend((shot,), ei, releases=PUSHES, clean=False, dt=dt)
    return clearance_of(float(full.rear_impulse.mean()))


def first_root(spines: Array, kicks: Array) -> float | None:
    """Return where the kick first changes from + to - going down in spine, by a cubic.

    Source: interpolation by a cubic, bisection.

    >>> first_root(np.array([60.0, 56.0, 52.0, 48.0]), np.array([9.0, 5.0, 1.0, -3.0]))
    51.0
    """
    falls = np.flatnonzero((kicks[:-1] > 0) & (kicks[1:] <= 0))
    if not len(falls):
        return None
    i = int(falls[0])
    at = min(max(i - 1, 0), len(spines) - 4)
    cubic = _cubic(spines[at : at + 4].tolist(), kicks[at : at + 4].tolist())
    high, low = float(spines[i]), float(spines[i + 1])
    return round(sum(border(lambda at: cubic(at) <= 0, low, high)) / 2, 6)


def _cubic(x: list[float], y: list[float]) -> Callable[[float], float]:
    """Return the cubic through four points, by Newton's divided differences."""
    # p(s) = c0 + (s - x0)(c1 + (s - x1)(c2 + (s - x2) c3))
    c = y[:]
    for order in range(1, 4):
        for at in range(3, order - 1, -1):
            c[at] = (c[at] - c[at - 1]) / (x[at] - x[at - order])
    c0, c1, c2, c3 = c
    x0, x1, x2, _ = x
    return lambda s: c0 + (s - x0) * (c1 + (s - x1) * (c2 + (s - x2) * c3))


def roots_of(spines: Array, kicks: Array) -> Array:
    """Return the root of every release (columns of `kicks`): 0 where it lies below the spines
    shot, infinite where it lies above them, the stiffest being weak already.

    Source: as `first_root`; a root below a weak one is false.

    >>> kicks = np.array([[9.0, 9.0, -1.0], [5.0, 8.0, -3.0], [1.0, 7.0, -5.0], [-3.0, 6.0, -9.0]])
    >>> roots_of(np.array([60.0, 56.0, 52.0, 48.0]), kicks).tolist()
    [51.0, 0.0, inf]
    """
    roots = np.full(kicks.shape[1], np.inf)
    for j in np.flatnonzero(kicks[0] > 0):
        roots[j] = first_root(spines, kicks[:, j]) or 0.0
    return roots


def middle_of(roots: Array) -> float | None:
    """Return the middle of the releases' roots; None where it lies beyond the spines shot.

    The mean without the two outermost at either end, their median where one of those lies beyond.
    Source: the trimmed mean, which one release near a resonance of string and arrow hardly moves.

    >>> middle_of(np.array([40.0, 47.0, 48.0, 50.0, 52.0, 58.0, 80.0]))
    50.0
    >>> middle_of(np.array([0.0, 0.0, 0.0, 0.0, 0.0, 90.0, 92.0])) is None
    True
    """
    ordered = np.sort(roots)
    middle = float(np.median(ordered))
    if not 0 < middle < math.inf:
        return None
    inner = ordered[OUTER : len(ordered) - OUTER]
    if inner.size and inner[0] > 0 and inner[-1] < math.inf:
        middle = float(inner.mean())
    return middle


@lru_cache(maxsize=64)
def straight_spines(shot: Shot, dt: float = MATCH_DT) -> tuple[float, float] | None:
    """Return the widest run of stiffer spines whose tails the plate itself leaves straight.

    Rear contact left in: a shaft without a point, sliding along the plate, has a wide plateau. None
    where fewer than four neighbouring spines of the scan stay within `PLATEAU_DEG`.

    Source: the computed shot over all spines of the scan.

    >>> from lyrandis.core.example import rig
    >>> straight_spines(rig().arrow.shooting.shot) is None
    True
    """
    ei = STIFFNESS_PER_POUND * SCAN[None, :]
    full = bend((shot,), ei, releases=PUSHES, clean=False, dt=dt)
    kicks = np.degrees(full.kick[0].reshape(len(SCAN), len(PUSHES)).mean(axis=1))
    best = (0, 0)
    start = 0
    for i, straight in enumerate([*(np.abs(kicks) <= PLATEAU_DEG).tolist(), False]):
        if not straight:
            best = max(best, (i - start, start))
            start = i + 1
    count, first = best
    if count < LEAST_PLATEAU:
        return None
    return float(SCAN[first + count - 1]), float(SCAN[first])
