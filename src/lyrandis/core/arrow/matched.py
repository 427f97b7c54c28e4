"""The match: what mechanics and practice together say a rig wants, as one posterior.

Spines in pounds of the wood scale. No root decides: the computed kicks make every spine more or
less likely, practice says where to look, and a flat or an odd kick leaves it to practice.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lyrandis.core.arrow.beam import Beam, modes_of
from lyrandis.core.arrow.bend import RELEASES, Shot, bend
from lyrandis.core.arrow.match import (
    ALL_SPINES,
    MATCH_DT,
    ShotMatch,
    Stiffness,
    match_spine,
    spine_index,
    stiffness_word,
)
from lyrandis.core.arrow.practice import WEIGHT_POWER, Practice, RigHabit, practice_of
from lyrandis.core.arrow.spine import STIFFNESS_PER_POUND, stiffness
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.numeric import Array

_STEP = 0.02
GRID: Array = np.arange(math.log(9.0), math.log(200.0), _STEP)
"""ln of every spine that is weighed."""
KICK_SD_DEG = 3.0
"""Assumption: a computed lean this large is as likely as not to be no lean at all."""
MECHANICS_SD = 0.14
"""Assumption: how far the computed shot lies off, as ln of the spine (docs/CALIBRATION.md)."""
NEVER_LESS = 0.05
"""What the mechanics leave to a spine they call impossible."""
LEAST_BAND, MOST_BAND = math.log(1.09), math.log(1.35)
PER_WINDOW_MM = 0.02
MEASURED_MM = 0.5
HEAVY_SHAFT_GR_PER_IN = 16.0
"""Beyond it the bending is outside what was tried: practice alone."""
SCHOOLS_APART_SDS = 2.5
ASKED_LBF = (15.0, 130.0)
"""Shafts weaker or stiffer than these are not asked for in words: nobody sells them."""
REACH_SDS = 4.5
_REACH: Array = np.linspace(-40 * _STEP, 40 * _STEP, 81)


@dataclass(frozen=True)
class SpineMatch:
    """The spine a rig wants, with the two schools it comes from."""

    matched: float
    low: float
    high: float
    sd: float
    """Of the natural logarithm."""
    shot: ShotMatch
    """The mechanics' school, and what the own shaft does on the string."""
    practice: Practice
    frequency: float
    """First natural frequency of the own shaft, else of the matched one [Hz]."""

    def word(self, spine_lbf: float) -> Stiffness:
        """Return the word for a shaft: matched inside the band, else by its index.

        Source: as `stiffness_word`.

        >>> from lyrandis.core.example import rig
        >>> match = rig().match
        >>> match.word(match.high), match.word(2 * match.matched)
        ('matched', 'far')
        """
        if self.low <= spine_lbf <= self.high:
            return "matched"
        index = self.index(spine_lbf)
        word = stiffness_word(index)
        if word != "matched":
            return word
        return "little_stiff" if index > 0 else "little_weak"

    def index(self, spine_lbf: float) -> float:
        """Return 10 ln(EI/EI matched): -1 is about a tenth too weak; + is stiff.

        Source: as `spine_index`.

        >>> from lyrandis.core.example import rig
        >>> match = rig().match
        >>> match.index(match.matched)
        0.0
        """
        return spine_index(spine_lbf, self.matched)

    @property
    def bends_on_string(self) -> float:
        """Time on the string times first frequency; 0.87 to 1.06 near match."""
        return self.shot.time_on_string * self.frequency

    @property
    def apart(self) -> float | None:
        """ln of mechanics over practice where the schools disagree, else None."""
        if self.shot.matched is None:
            return None
        apart = math.log(self.shot.matched / self.practice.wants)
        common = math.hypot(MECHANICS_SD, self.practice.sd)
        return apart if abs(apart) > SCHOOLS_APART_SDS * common else None

    @property
    def weaker_school(self) -> float:
        """The lesser of what the two schools want."""
        return min(self.shot.matched or math.inf, self.practice.wants)


@lru_cache(maxsize=128)
def match_of(shot: Shot, habit: RigHabit, spine_lbf: float | None = None) -> SpineMatch:
    """Return the spine a set-up wants, and how a shaft of `spine_lbf` does on it.

    Source: docs/MECHANICS.md; the schools' weights in docs/CALIBRATION.md.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> match = match_of(c.arrow.shooting.shot, c.arrow.shooting.habit)
    >>> match.low < match.matched < match.high
    True
    """
    mechanics = match_spine(shot, spine_lbf)
    practice = practice_of(shot, habit)
    mean, sd = _pooled(shot, practice, ALL_SPINES, np.array(mechanics.kicks))
    sd = math.hypot(sd, doubt_of(shot, habit))
    matched = math.exp(mean)
    band = min(max(sd, LEAST_BAND), MOST_BAND)
    return SpineMatch(
        matched=matched,
        low=matched * math.exp(-band),
        high=matched * math.exp(band),
        sd=sd,
        shot=mechanics,
        practice=practice,
        frequency=modes_of(shot.beam).frequency(stiffness(spine_lbf or matched)),
    )


def matches_of(shots: Sequence[Shot], habit: RigHabit) -> tuple[float, ...]:
    """Return the matched spine of every shot in one batch, only the spines that count being shot.

    Source: as `match_of`, within `REACH_SDS` of what practice wants.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> shooting = c.arrow.shooting
    >>> abs(matches_of([shooting.shot], shooting.habit)[0] - c.match.matched) < 0.05
    True
    """
    if not shots:
        return ()
    practices = [practice_of(shot, habit) for shot in shots]
    low = min(p.wants * math.exp(-REACH_SDS * p.sd) for p in practices)
    high = max(p.wants * math.exp(REACH_SDS * p.sd) for p in practices)
    first = max(int((high < ALL_SPINES).sum()) - 1, 0)
    spines = ALL_SPINES[first : int((low <= ALL_SPINES).sum()) + 1]
    ei = STIFFNESS_PER_POUND * np.tile(spines, (len(shots), 1))
    kicks = np.degrees(bend(tuple(shots), ei, dt=MATCH_DT).kick)
    kicks = kicks.reshape(len(shots), len(spines), len(RELEASES))
    return tuple(
        math.exp(_pooled(shot, practice, spines, kick)[0])
        for shot, practice, kick in zip(shots, practices, kicks, strict=True)
    )


def doubt_of(shot: Shot, habit: RigHabit) -> float:
    """Return what draw weight and window that nobody measured add to the match's sd [ln].

    Source: the practice school's own slopes times the doubt of what goes into them.

    >>> from lyrandis.core.example import rig
    >>> shooting = rig().arrow.shooting
    >>> doubt_of(shooting.shot, shooting.habit) < 0.03
    True
    """
    guessed = max(shot.side.doubt * 1000 - MEASURED_MM, 0.0)
    return math.hypot(WEIGHT_POWER * habit.weight_doubt, PER_WINDOW_MM * guessed)


def asked(spine_lbf: float) -> float:
    """Return a spine as it is asked for in words: within what is sold.

    Source: `ASKED_LBF`.

    >>> asked(9.0), asked(50.0), asked(200.0)
    (15.0, 50.0, 130.0)
    """
    low, high = ASKED_LBF
    return min(max(spine_lbf, low), high)


def is_heavy(beam: Beam) -> bool:
    """Return whether a shaft is heavier per inch than the bending was tried for.

    Source: `HEAVY_SHAFT_GR_PER_IN`.

    >>> from lyrandis.core.example import rig
    >>> is_heavy(rig().arrow.sheet.beam)
    False
    """
    return beam.mass_per_length / KG_PER_GRAIN * MM_PER_IN / 1000 > HEAVY_SHAFT_GR_PER_IN


def _pooled(shot: Shot, practice: Practice, spines: Array, kicks: Array) -> tuple[float, float]:
    """Return mean and sd of ln of the spine; `kicks` [deg] of spines (falling) by releases."""
    # like(S) = mean_j exp(-k_j^2 / (2 x 3^2)), convolved with N(0, hypot(.14, beyond)) in ln S
    # post(S) = (like + .05) N(ln S; ln M_p, sd_p)
    at = np.log(spines[::-1])
    like = np.zeros_like(GRID)
    if not is_heavy(shot.beam):
        for kick in kicks[::-1].T:
            like += np.exp(-0.5 * (np.interp(GRID, at, kick) / KICK_SD_DEG) ** 2)
        # beyond the weights and points that were tried the mechanics are as much vaguer as practice
        kernel = np.exp(-0.5 * (_REACH / math.hypot(MECHANICS_SD, practice.beyond)) ** 2)
        wide = np.pad(like / kicks.shape[1], len(_REACH) // 2, mode="edge")
        like = np.convolve(wide, kernel / kernel.sum(), mode="valid")
    off = (GRID - math.log(practice.wants)) / practice.sd
    post = (like + NEVER_LESS) * np.exp(-0.5 * off**2)
    post /= post.sum()
    mean = float(post @ GRID)
    return mean, math.sqrt(float(post @ (GRID - mean) ** 2))
