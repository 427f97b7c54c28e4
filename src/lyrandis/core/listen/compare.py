"""Before and after: whether a change was heard, and by how much; or that it was not told apart."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import counted
from lyrandis.core.student import student_95, student_chance

LEAST_TAKES = 3
PRIOR_FREEDOM = 4
HUBER, HUBER_ROUNDS, CLIPPED = 1.5, 6, 3.0
WOULD_SHOW = 1.7
"""A difference of so many half intervals would have been told."""


class Spread(NamedTuple):
    """How far one archer's takes lie apart, and what taking bow and place up again adds."""

    take: float
    again: float


LEVEL_DB = Spread(1.0, 0.4)
"""Assumption: one careful archer's shots vary about a decibel; 0.4 dB from bow and place."""
RING_LN = Spread(0.10, 0.03)
"""Assumption: ring times of one bow, in logs."""
BRIGHT_LN = Spread(0.08, 0.03)
"""Assumption: where the power lies in the spectrum, in logs."""


@dataclass(frozen=True)
class Compared:
    """After less before, in the unit of what was compared."""

    change_db: float
    half_db: float
    """Half of the 95 % interval."""
    error_db: float
    freedom: int

    @property
    def told_apart(self) -> bool:
        return abs(self.change_db) > self.half_db

    @property
    def would_show_db(self) -> float:
        """From about here a difference would have been told."""
        return WOULD_SHOW * self.half_db

    @property
    def sure(self) -> float:
        """How sure the direction is: one half knows nothing."""
        return student_chance(abs(self.change_db) / self.error_db, self.freedom)


def middle(values: Sequence[float], unit: float = 1.0) -> float:
    """Return a mean that one odd take hardly moves: Huber's, `unit` being one take's spread.

    Source: Huber's M-estimate, six rounds from the median.

    >>> round(middle([-40.1, -39.2, -40.8]), 2), round(middle([1.0, 1.1, 0.9, 9.0]), 1)
    (-40.03, 1.5)
    """
    told = np.array(values, dtype=np.float64)
    at = float(np.median(told))
    for _ in range(HUBER_ROUNDS):
        off = told - at
        weight = np.minimum(1.0, HUBER * unit / np.maximum(np.abs(off), 1e-12))
        at = float((weight * told).sum() / weight.sum())
    return at


def compared(
    before: Sequence[float],
    after: Sequence[float],
    spread: Spread = LEVEL_DB,
    *,
    beside: float = 0.0,
) -> Compared:
    """Return how something changed between two sets of takes of one session.

    s^2 = (4 p^2 + sum clip(v - median, -3p, 3p)^2)/(4 + n1 + n2 - 2), p one take's usual spread,
    se = sqrt(1.05 s^2 (1/n1 + 1/n2) + 2 a^2 + beside^2), interval D +- t(2 + n1 + n2) se. `beside`
    is another standard deviation, as of a reference knock. Raises `DomainError` for less than
    three a side.
    Source: our own; a test asks how often made-up archers are told a change that was none.

    >>> found = compared([-40.1, -39.2, -40.8], [-43.0, -42.1, -43.6])
    >>> round(found.change_db, 2), round(found.half_db, 1), found.told_apart
    (-2.87, 2.2, True)
    """
    for side in (before, after):
        if len(side) < LEAST_TAKES:
            raise DomainError(
                "too_few",
                f"Only {counted(len(side), 'take')}: three at least, five are better.",
                "Record more, at the same place with the same gain.",
            )
    first, last = len(before), len(after)
    total = PRIOR_FREEDOM * spread.take**2
    for side in (before, after):
        off = np.array(side) - float(np.median(side))
        most = CLIPPED * spread.take
        total += float((np.clip(off, -most, most) ** 2).sum())
    variance = total / (PRIOR_FREEDOM + first + last - 2)
    error = math.sqrt(1.05 * variance * (1 / first + 1 / last) + 2 * spread.again**2 + beside**2)
    freedom = 2 + first + last
    change = middle(after, spread.take) - middle(before, spread.take)
    return Compared(change, student_95(freedom) * error, error, freedom)
