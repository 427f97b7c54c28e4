"""The spine this rig wants: where the tail leaves without leaning, with its band.

Spines in pounds of the wood scale, masses in grains, lengths in mm.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, overload

import numpy as np

from lyrandis.core.arrow.beam import modes_of
from lyrandis.core.arrow.bend import PUSHES, RELEASES, Shot, bend
from lyrandis.core.arrow.spine import STIFFNESS_PER_POUND, stiffness
from lyrandis.core.constants import NEWTONS_PER_LBF
from lyrandis.core.numeric import Array, border

Clearance = Literal["clear", "marginal", "slap"]
Stiffness = Literal["very_weak", "weak", "little_weak", "matched", "little_stiff", "stiff", "far"]

STIFFEST, WEAKEST, STEP = 130.0, 26.0, 4.0
SCAN: Array = np.arange(STIFFEST, WEAKEST - 0.1, -STEP)
WEAKEST_AT_ALL, LIGHT_STEP = 12.0, 2.0
LIGHT_SCAN: Array = np.arange(WEAKEST - LIGHT_STEP, WEAKEST_AT_ALL - 0.1, -LIGHT_STEP)
"""Shot only where nothing stiffer matches: the shafts of a beginner's bow."""
MATCH_DT = 40e-6
SPREAD_LOW, SPREAD_HIGH = 0.7, 1.4
"""Roots further off than this are of another kind and do not widen the band."""
LEAST_BAND = 0.10
"""The band is never narrower than this share either way."""
OUTER = 2
"""Roots left out at either end before the mean is taken."""
UNSEEN_DEG = 2.5
"""Assumption: a lean of the tail nobody tells from none, archer's own spread in it."""
FAR_INDEX = 2.5
"""Index from which a shaft is more than a little off. Convention."""
VERY_WEAK = 0.65
"""Below this share of the match no number is given."""
MARGINAL_NS, SLAP_NS = 0.0025, 0.008
"""Rear impulse: to 0.0015 is ordinary, 0.0036 marginal, 0.014 and more a slap; the limits lie
between."""
PLATE_SHARE_PER_MM = 0.018
"""How far the match moves with the plate, as a share: 0.75 to 1.1 lb a mm on the reference rigs."""
PARTS_SHARE = 0.028
"""Ten grains of point and ten of string, which nobody knows closer: a fiftieth each, together."""
STRONG_LBF = (50.0, 55.0)
LEANS_STIFF = 0.10
"""Assumption: from 55 lb up the shot asks for shafts a tenth stiffer than practice does."""
ROUGH = 0.15
"""A match whose band reaches further than this either way is rough."""
PLATEAU_DEG = 5.0
LEAST_PLATEAU = 4
"""A run of spines (in steps of the scan) that all leave this straight is a plateau."""


@dataclass(frozen=True)
class SpineMatch:
    """The matched spine and what the arrow's own spine is against it."""

    matched: float | None
    """None when there is none between 12 and 130 lb."""
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
    def rough(self) -> bool:
        """True where only a band is honest."""
        return self.matched is not None and (self.high - self.low) / 2 > ROUGH * self.matched

    def word(self, spine_lbf: float) -> Stiffness | None:
        """Return the word for a shaft: matched inside the band, else by its index.

        Source: as `stiffness_word`.

        >>> from lyrandis.core.example import rig
        >>> match = rig().match
        >>> match.word(match.high), match.word(2 * match.matched)
        ('matched', 'far')
        """
        index = self.index(spine_lbf)
        if index is None:
            return None
        if self.low <= spine_lbf <= self.high:
            return "matched"
        word = stiffness_word(index)
        if word != "matched":
            return word
        return "little_stiff" if index > 0 else "little_weak"

    @property
    def bends_on_string(self) -> float | None:
        """Time on the string times first frequency; 0.87 to 1.06 near match."""
        return None if self.frequency is None else self.time_on_string * self.frequency

    def index(self, spine_lbf: float) -> float | None:
        """Return 10 ln(EI/EI matched): -1 is about a tenth too weak; + is stiff.

        Source: as `spine_index`.

        >>> from lyrandis.core.example import rig
        >>> match = rig().match
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
def match_spine(shot: Shot, spine_lbf: float | None = None, dt: float = MATCH_DT) -> SpineMatch:
    """Return the matched spine of a set-up, and how a shaft of `spine_lbf` does on it.

    Scan down from 130 to 26 lb by 4: each of nine releases has its root, the first + to - change
    of its clean kick, cubic through four points; the match is the mean of the middle five, the band
    their spread, at least +-10 %, all spines round it whose tails lean by less than anybody sees,
    and widened by what is not known of plate, point and string. Lower roots are false.
    Where even 26 lb leans stiff (a light bow), on to 12 lb by 2.
    Source: docs/MECHANICS.md; good to 10 % at best.

    >>> from lyrandis.core.example import rig
    >>> match = match_spine(rig().arrow.shooting.shot)
    >>> match.low < match.matched < match.high
    True
    """
    own = [spine_lbf, spine_lbf] if spine_lbf else []
    spines = np.concatenate([SCAN, own])
    clean = (*(True for _ in SCAN), *((True, False) if spine_lbf else ()))
    ei = STIFFNESS_PER_POUND * spines[None, :]
    ways = (*(RELEASES for _ in SCAN), *(PUSHES for _ in own))
    bent = bend((shot,), ei, releases=ways, clean=clean, dt=dt)
    kicks = np.degrees(bent.kick[0].reshape(len(spines), len(RELEASES)))
    impulse = float(bent.rear_impulse[0, -len(RELEASES) :].mean()) if spine_lbf else None
    scan, scanned = SCAN, kicks[: len(SCAN)]
    roots = roots_of(scan, scanned)
    if np.sort(roots)[OUTER] == 0.0:
        lighter = bend((shot,), STIFFNESS_PER_POUND * LIGHT_SCAN[None, :], dt=dt).kick[0]
        scan = np.concatenate([SCAN, LIGHT_SCAN])
        light = np.degrees(lighter.reshape(len(LIGHT_SCAN), len(RELEASES)))
        scanned = np.concatenate([scanned, light])
        roots = roots_of(scan, scanned)
    matched, low, high = middle_of(roots)
    if matched is not None:
        flat_low, flat_high = unseen(scan, scanned.mean(axis=1), matched)
        low, high = _with_doubts(shot, matched, min(low, flat_low), max(high, flat_high))
    rings = spine_lbf or matched
    return SpineMatch(
        matched=matched,
        low=low,
        high=high,
        out_of_range=None if matched else ("weaker" if np.median(roots) == 0.0 else "stiffer"),
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


def _with_doubts(shot: Shot, matched: float, low: float, high: float) -> tuple[float, float]:
    """Return the band with what is not known closely: plate, point and string, and strong bows."""
    # shares in quadrature: spread of the releases, 2 sd of the plate, parts
    other = math.hypot(2000 * shot.side.doubt * PLATE_SHARE_PER_MM, PARTS_SHARE)
    below = math.hypot(1 - low / matched, other)
    above = math.hypot(high / matched - 1, other)
    start, end = STRONG_LBF
    weight = shot.push.force[-1] / NEWTONS_PER_LBF
    below += LEANS_STIFF * min(max((weight - start) / (end - start), 0.0), 1.0)
    return matched * (1 - below), matched * (1 + above)


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


def middle_of(roots: Array) -> tuple[float | None, float, float]:
    """Return the middle of the releases' roots, and how far they spread, at least a tenth.

    The middle is the mean without the two outermost at either end, their median where one of those
    lies beyond the spines shot; None, 0, 0 where the median itself does.
    Source: the trimmed mean, which one release near a resonance of string and arrow hardly moves.

    >>> middle_of(np.array([40.0, 47.0, 48.0, 50.0, 52.0, 58.0, 80.0]))
    (50.0, 40.0, 58.0)
    >>> middle_of(np.array([20.0, 20.0, 22.0, 24.0, 48.0, 90.0, 92.0, 95.0, 95.0]))[1:]
    (48.0, 60.720000000000006)
    """
    ordered = np.sort(roots)
    middle = float(np.median(ordered))
    if not 0 < middle < math.inf:
        return None, 0.0, 0.0
    inner = ordered[OUTER : len(ordered) - OUTER]
    if inner.size and inner[0] > 0 and inner[-1] < math.inf:
        middle = float(inner.mean())
    near = roots[(roots > SPREAD_LOW * middle) & (roots < SPREAD_HIGH * middle)]
    low = min(float(near.min(initial=middle)), middle * (1 - LEAST_BAND))
    high = max(float(near.max(initial=middle)), middle * (1 + LEAST_BAND))
    return middle, low, high


def unseen(spines: Array, kicks: Array, matched: float) -> tuple[float, float]:
    """Return the run of spines round a match whose kick [deg] is less than anybody sees.

    Where the kick is flat over spine the match itself says little: the whole run flies alike.
    Source: linear between the spines shot; the limit is Assumption (`UNSEEN_DEG`).

    >>> kicks = np.array([9.0, 3.0, 1.0, -1.0, -2.0, -6.0])
    >>> unseen(np.array([60.0, 56.0, 52.0, 48.0, 44.0, 40.0]), kicks, 50.0)
    (43.5, 55.0)
    """
    fine: Array = np.linspace(spines[-1], spines[0], 4 * round(float(spines[0] - spines[-1])) + 1)
    seen = np.abs(np.interp(fine, spines[::-1], kicks[::-1])) > UNSEEN_DEG
    at = int(np.abs(fine - matched).argmin())
    if seen[at]:
        return matched, matched
    below, above = np.flatnonzero(seen[:at]), np.flatnonzero(seen[at:])
    low = fine[below[-1] + 1] if below.size else fine[0]
    high = fine[at + above[0] - 1] if above.size else fine[-1]
    return float(low), float(high)


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
