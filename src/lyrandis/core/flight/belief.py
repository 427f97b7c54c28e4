"""Belief over one axis: an exact grid of what could be, updated by what was seen.

State: x, the index; k, how the tail meets the bow; g, gain of readings; dt and db, where tails
and bare shafts read nought; h, gain of pushes. Beside it `off`: that the readings contradict each
other, because something else changed. Pure and deterministic.
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Protocol

import numpy as np

from lyrandis.core.flight.curves import Contact, Touch
from lyrandis.core.flight.words import CLASSES, AxisName, Class
from lyrandis.core.lazy import lazy
from lyrandis.core.numeric import Array

SPINE_X: Array = np.arange(-8.25, 14.0, 0.5)
UPRIGHT_X: Array = np.arange(-8.25, 8.5, 0.5)
_SHIFTS: dict[Touch, tuple[float, ...]] = {
    Touch.BOTH: (-3.0, -1.5, 0.0, 1.5, 3.0),
    Touch.FLETCHED: (-2.0, 0.0, 2.0),
    Touch.ALWAYS: (0.0,),
    Touch.NEVER: (0.0,),
}
CONTACTS = Contact(
    np.array([float(way) for way, shifts in _SHIFTS.items() for _ in shifts]),
    np.array([shift for shifts in _SHIFTS.values() for shift in shifts]),
)
"""The ways the tail may meet the bow: by its onset, with bare shafts or without, always, never."""
GAINS: Array = np.exp(np.array([-0.606, 0.0, 0.606]))
ZEROS: Array = np.array([-0.78, 0.0, 0.78])
PUSH_GAINS: Array = np.array([0.3, 1.0, 1.7])
THIRDS: Array = np.array([1 / 6, 4 / 6, 1 / 6])
"""Three-point Gauss-Hermite weights: Assumption, ln g of sd 0.35 and zeros of sd 0.45 index."""
PUSH_WEIGHTS: Array = np.array([0.25, 0.5, 0.25])
OFF = 0.04
"""Assumption: that something else changed, before anything was seen."""
TEMPER: dict[AxisName, float] = {"spine": 0.7, "upright": 1.0}
"""Power of the likelihood: keeps the stated chances honest when noise or curves are not ours."""
SPINE_SD, WIDE_SD, WIDE_SHARE = 1.8, 5.0, 0.1
"""Assumption: the match is good to 18 %, and one in ten labels or entries is wrong."""
UPRIGHT_SD, UPRIGHT_WIDE_SD, UPRIGHT_WIDE_SHARE = 2.0, 4.0, 0.05
SHIFT_SD: dict[AxisName, float] = {"spine": 2.0, "upright": 1.5}
WAYS: dict[AxisName, dict[Touch, float]] = {
    "spine": {Touch.BOTH: 0.64, Touch.FLETCHED: 0.21, Touch.ALWAYS: 0.05, Touch.NEVER: 0.10},
    "upright": {Touch.BOTH: 0.80, Touch.FLETCHED: 0.0, Touch.ALWAYS: 0.0, Touch.NEVER: 0.20},
}
"""Assumption: felt, high riding and soft plates are not in the mechanics, nor what a bow always
does to every shaft."""
FALSE_WEAK_DEG: dict[AxisName, float] = {"spine": -1.0, "upright": 0.0}
"""A stiff shaft is false weak where its struck tail reads further to the weak side than this."""
BORDER = 1.0
"""Classes meet an index of one from nought: a tenth of stiffness, 2 mm of nock."""


class Readable(Protocol):
    """What a grid is read against."""

    def tail(self, x: Array, by: Contact) -> Array: ...
    def bare(self, x: Array, by: Contact, distance_m: float) -> Array: ...
    def strike(self, x: Array, by: Contact) -> Array: ...
    @property
    def tail_zero(self) -> float: ...
    def bare_zero(self, distance_m: float) -> float: ...
    def unfletched(self) -> "Readable": ...


@dataclass(frozen=True)
class Plane:
    """One axis and what is read along it, without a belief."""

    name: AxisName
    curves: Readable

    @property
    def x(self) -> Array:
        return SPINE_X if self.name == "spine" else UPRIGHT_X

    @property
    def unfletched(self) -> "Plane":
        return replace(self, curves=self.curves.unfletched())


@lru_cache(maxsize=32)
def classes_of(plane: Plane) -> Array:
    """Return which class each index and shift of a plane is, (x, k, 4); not to be written to.

    Source: as `Axis.class_of_cell`.

    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> classes_of(Plane("spine", SPINE_EXAMPLE)).shape
    (45, 10, 4)
    """
    x = np.repeat(plane.x[:, None], len(CONTACTS.way), axis=1)
    stiff, weak = x > BORDER, x < -BORDER
    false = stiff & (plane.curves.tail(x, CONTACTS) < FALSE_WEAK_DEG[plane.name])
    result: Array = np.stack([~stiff & ~weak, weak, stiff & ~false, false], axis=2).astype(float)
    result.setflags(write=False)
    return result


@dataclass(frozen=True)
class Axis:
    """What is believed of one axis. p has shape (x, k, g, dt, db, h) and sums to one."""

    plane: Plane
    p: Array
    off: float = OFF

    @property
    def name(self) -> AxisName:
        return self.plane.name

    @property
    def curves(self) -> Readable:
        return self.plane.curves

    @property
    def x(self) -> Array:
        return self.plane.x

    @lazy
    def over_x(self) -> Array:
        """Chance of each index."""
        result: Array = self.p.sum(axis=(1, 2, 3, 4, 5))
        return result

    @property
    def mean(self) -> float:
        return float(self.over_x @ self.x)

    @property
    def sd(self) -> float:
        return math.sqrt(max(float(self.over_x @ (self.x - self.mean) ** 2), 0.0))

    def within(self, share: float = 0.95) -> tuple[float, float]:
        """Return between which indices the middle `share` of the belief lies.

        Source: quantiles, linear inside a step of the grid.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> low, high = new_axis("spine", SPINE_EXAMPLE, 0.0).within(0.5)
        >>> round(low, 1), round(high, 1)
        (-1.3, 1.3)
        """
        edges = np.append(self.x - 0.25, self.x[-1] + 0.25)
        below = np.append(0.0, np.cumsum(self.over_x))
        tail = (1 - share) / 2
        low, high = np.interp([tail, 1 - tail], below, edges)
        return float(low), float(high)

    def chance_between(self, low: float, high: float) -> float:
        """Return the chance that the index lies between two values.

        Source: sum of the belief, linear inside a step of the grid.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> round(new_axis("spine", SPINE_EXAMPLE, 0.0).chance_between(-1.0, 1.0), 2)
        0.4
        """
        edges = np.append(self.x - 0.25, self.x[-1] + 0.25)
        below = np.append(0.0, np.cumsum(self.over_x))
        under_low, under_high = np.interp([low, high], edges, below)
        return float(under_high - under_low)

    def chances(self) -> dict[Class, float]:
        """Return the chance of each class.

        False weak: stiff, and the struck tail reads weak.
        Source: sums of the grid.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> found = new_axis("spine", SPINE_EXAMPLE, 5.0).chances()
        >>> {name: round(chance, 3) for name, chance in found.items()}
        {'tuned': 0.021, 'weak': 0.012, 'stiff': 0.712, 'false_weak': 0.256}
        """
        return self._chances

    @lazy
    def _chances(self) -> dict[Class, float]:
        over = self.p.sum(axis=(2, 3, 4, 5))
        result = np.einsum("xk,xkc->c", over, self.class_of_cell())
        return dict(zip(CLASSES, result.tolist(), strict=True))

    def class_of_cell(self) -> Array:
        """Return which class each index and shift is, (x, k, 4) of noughts and ones.

        Source: the borders of the index, and the sign of the struck tail beyond.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> bool((new_axis("spine", SPINE_EXAMPLE).class_of_cell().sum(axis=2) == 1).all())
        True
        """
        return classes_of(self.plane)

    def seen(self, likely: Array, null: float) -> "Axis":
        """Return the belief after something was seen.

        `likely` is its likelihood over the grid, `null` the same where something else changed.
        Source: Bayes' theorem, the likelihood tempered on the spine axis.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> axis = new_axis("spine", SPINE_EXAMPLE, 0.0)
        >>> axis.seen(np.ones(axis.p.shape), 1.0).off
        0.04
        """
        evidence = float((self.p * likely).sum())
        off = self.off * null / (self.off * null + (1 - self.off) * evidence)
        p = self.p * likely ** TEMPER[self.name]
        return replace(self, p=p / p.sum(), off=off)

    def moved(self, by: float, *, gains: bool, sd: float) -> "Axis":
        """Return the belief after a correction moved the index.

        With `gains` the move is `by` times the push's own gain h, else exact but for `sd`.
        Source: convolution with a normal on the grid of x.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> axis = new_axis("spine", SPINE_EXAMPLE, 2.0)
        >>> round(axis.moved(-2.0, gains=False, sd=0.3).mean - axis.mean, 1)
        -2.0
        """
        x, width = self.x, max(sd, 0.3)
        p = np.empty_like(self.p)
        for j, gain in enumerate(PUSH_GAINS):
            centre = by * (float(gain) if gains else 1.0)
            kernel = np.exp(-0.5 * ((x[:, None] - x[None, :] - centre) / width) ** 2)
            kernel /= np.maximum(kernel.sum(axis=0, keepdims=True), 1e-300)
            p[..., j] = np.tensordot(kernel, self.p[..., j], axes=(1, 0))
        return replace(self, p=p / p.sum())


def new_axis(
    name: AxisName,
    curves: Readable,
    centre: float = 0.0,
    *,
    sd: float | None = None,
    wide: float | None = None,
) -> Axis:
    """Return the belief before anything was seen, the model's index being `centre`.

    x ~ (1 - w) N(m, s) + w N(m, wide); k ~ N(0, s_k) or never; the rest by three points.
    Assumption: the sizes (docs/MECHANICS.md).

    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> round(new_axis("spine", SPINE_EXAMPLE, 5.0).mean, 2)
    4.97
    """
    spine = name == "spine"
    x = SPINE_X if spine else UPRIGHT_X
    narrow = (SPINE_SD if spine else UPRIGHT_SD) if sd is None else sd
    broad = WIDE_SD if spine else UPRIGHT_WIDE_SD
    share = (WIDE_SHARE if spine else UPRIGHT_WIDE_SHARE) if wide is None else wide
    px = (1 - share) * _bell(x - centre, narrow) + share * _bell(x - centre, broad)
    pk = _ways(name)
    p = np.einsum("i,j,k,l,m,n->ijklmn", px / px.sum(), pk, THIRDS, THIRDS, THIRDS, PUSH_WEIGHTS)
    return Axis(Plane(name, curves), p)


def _ways(name: AxisName) -> Array:
    """Return the chance of each way to meet the bow; k ~ N(0, s_k) within a way."""
    bell = np.exp(-0.5 * (CONTACTS.shift / SHIFT_SD[name]) ** 2)
    result = np.zeros(len(bell))
    for way, share in WAYS[name].items():
        of = CONTACTS.way == way
        result[of] = share * bell[of] / bell[of].sum()
    return result


def _bell(off: Array, sd: float) -> Array:
    result: Array = np.exp(-0.5 * (off / sd) ** 2) / sd
    return result
