"""The spine this rig wants: where the tail leaves without leaning, with its band.

Spines in pounds of the wood scale, masses in grains, lengths in mm.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, overload

import numpy as np

from lyrandis.core.arrow.beam import Array, modes_of
from lyrandis.core.arrow.bend import RELEASES, Shot, bend
from lyrandis.core.arrow.spine import STIFFNESS_PER_POUND, stiffness

Clearance = Literal["clear", "marginal", "slap"]
Stiffness = Literal["very_weak", "weak", "little_weak", "matched", "little_stiff", "stiff", "far"]

STIFFEST, WEAKEST, STEP = 130.0, 26.0, 4.0
SCAN: Array = np.arange(STIFFEST, WEAKEST - 0.1, -STEP)
WEAKEST_AT_ALL, LIGHT_STEP = 14.0, 2.0
LIGHT_SCAN: Array = np.arange(WEAKEST + 2 * LIGHT_STEP, WEAKEST_AT_ALL - 0.1, -LIGHT_STEP)
"""Shot only where nothing stiffer matches: the shafts of a beginner's bow."""
MATCH_DT = 30e-6
LEAST_BAND = 0.10
"""The band is never narrower than this share either way."""
VERY_WEAK = 0.65
"""Below this share of the match no number is given."""
MARGINAL_NS, SLAP_NS = 0.0025, 0.008
"""Rear impulse: to 0.0015 is ordinary, 0.0036 marginal, 0.014 and more a slap; the limits lie
between."""
PLATEAU_DEG = 5.0
LEAST_PLATEAU = 4
"""A run of spines (in steps of the scan) that all leave this straight is a plateau."""


@dataclass(frozen=True)
class SpineMatch:
    """The matched spine and what the arrow's own spine is against it."""

    matched: float | None
    """None when there is none between 14 and 130 lb."""
    low: float
    high: float
    out_of_range: Literal["stiffer", "weaker"] | None
    kick_deg: float | None
    """Of the arrow's own spine."""
    clearance: Clearance | None
    rear_impulse: float | None
    exit_speed: float
    time_on_string: float
    frequency: float | None
    """First natural frequency of the own shaft, else of the matched one [Hz]."""

    @property
    def bends_on_string(self) -> float | None:
        """Time on the string times first frequency; 0.87 to 1.06 near match."""
        return None if self.frequency is None else self.time_on_string * self.frequency

    def index(self, spine_lbf: float) -> float | None:
        """Return 10 ln(EI/EI matched): -1 is about a tenth too weak; + is stiff.

        Source: as `spine_index`.

        >>> from lyrandis.core.example import rig
        >>> match = rig().arrow.match
        >>> match.index(match.matched)
        0.0
        """
        return None if self.matched is None else spine_index(spine_lbf, self.matched)


def spine_index(spine_lbf: float, matched_lbf: float) -> float:
    """Return tenths of stiffness off the match: 10 ln(own/matched); + is stiff.

    Source: our own convention; a tenth of stiffness is about what a practised eye tells apart.

    >>> round(spine_index(55.0, 50.0), 2)
    0.95
    """
    return 10 * math.log(spine_lbf / matched_lbf)


@overload
def stiffness_word(index: float) -> Stiffness: ...
@overload
def stiffness_word(index: float | None) -> Stiffness | None: ...
def stiffness_word(index: float | None) -> Stiffness | None:
    """Return the word for an index.

    Assumption: bounds of the words are our conventions.

    >>> [stiffness_word(i) for i in (-6, -3, -1.5, 0.4, 2, 4, 8)]
    ['very_weak', 'weak', 'little_weak', 'matched', 'little_stiff', 'stiff', 'far']
    """
    if index is None:
        return None
    limits: tuple[tuple[float, Stiffness], ...] = (
        (10 * math.log(VERY_WEAK), "very_weak"),
        (-2.5, "weak"),
        (-1.0, "little_weak"),
        (1.0, "matched"),
        (2.5, "little_stiff"),
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
def match_spine(shot: Shot, spine_lbf: float | None = None, dt: float = MATCH_DT) -> SpineMatch:
    """Return the matched spine of a set-up, and how a shaft of `spine_lbf` does on it.

    Scan down from 130 to 26 lb by 4: the first + to - change of the mean clean kick over nine
    releases, cubic through four points. Band: the nine releases' own roots, at least +-10 %. Lower
    roots are false. Where even 26 lb leans stiff (a light bow), on to 14 lb by 2.
    Source: docs/MECHANICS.md; good to 10 % at best.

    >>> from lyrandis.core.example import rig
    >>> match = match_spine(rig().arrow.shooting.shot)
    >>> match.low < match.matched < match.high
    True
    """
    own = [spine_lbf, spine_lbf] if spine_lbf else []
    spines = np.concatenate([SCAN, own])
    clean = (*(True for _ in SCAN), *((True, False) if spine_lbf else ()))
    bent = bend((shot,), STIFFNESS_PER_POUND * spines[None, :], clean=clean, dt=dt)
    kicks = np.degrees(bent.kick[0].reshape(len(spines), len(RELEASES)))
    impulse = float(bent.rear_impulse[0, -len(RELEASES) :].mean()) if spine_lbf else None
    stiff_at_first = bool(kicks[0].mean() > 0)
    matched, low, high = _root(SCAN, kicks[: len(SCAN)])
    if matched is None and stiff_at_first:
        lighter = bend((shot,), STIFFNESS_PER_POUND * LIGHT_SCAN[None, :], dt=dt).kick[0]
        matched, low, high = _root(
            LIGHT_SCAN, np.degrees(lighter.reshape(len(LIGHT_SCAN), len(RELEASES)))
        )
    rings = spine_lbf or matched
    return SpineMatch(
        matched=matched,
        low=low,
        high=high,
        out_of_range=None if matched else ("weaker" if stiff_at_first else "stiffer"),
        kick_deg=float(kicks[len(SCAN)].mean()) if spine_lbf else None,
        clearance=None if impulse is None else clearance_of(impulse),
        rear_impulse=impulse,
        exit_speed=bent.strokes[0].exit_speed,
        time_on_string=bent.strokes[0].time_on_string,
        frequency=modes_of(shot.beam).frequency(stiffness(rings)) if rings else None,
    )


@lru_cache(maxsize=64)
def clearance_at(shot: Shot, spine_lbf: float, dt: float = MATCH_DT) -> Clearance:
    """Return how a shaft of some spine clears the plate, rear contact left in, nine releases.

    Source: the computed shot, rear contact left in.

    >>> from lyrandis.core.example import rig
    >>> clearance_at(rig().arrow.shooting.shot, 60.0)
    'clear'
    """
    full = bend((shot,), np.array([[stiffness(spine_lbf)]]), clean=False, dt=dt)
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
    for _ in range(40):
        middle = (high + low) / 2
        if cubic(middle) > 0:
            high = middle
        else:
            low = middle
    return round((high + low) / 2, 6)


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


def _root(spines: Array, kicks: Array) -> tuple[float | None, float, float]:
    """Return the match and its band: the mean's first root, and the releases' own."""
    matched = first_root(spines, kicks.mean(axis=1))
    roots = [first_root(spines, kicks[:, j]) for j in range(len(RELEASES))]
    return matched, *_band(matched, roots)


def _band(matched: float | None, roots: list[float | None]) -> tuple[float, float]:
    if matched is None:
        return 0.0, 0.0
    found = [root for root in roots if root is not None and 0.7 < root / matched < 1.4]
    low = min([*found, matched * (1 - LEAST_BAND)])
    high = max([*found, matched * (1 + LEAST_BAND)])
    return low, high


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
    full = bend((shot,), STIFFNESS_PER_POUND * SCAN[None, :], clean=False, dt=dt)
    kicks = np.degrees(full.kick[0].reshape(len(SCAN), len(RELEASES)).mean(axis=1))
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
