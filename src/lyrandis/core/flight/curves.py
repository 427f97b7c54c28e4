"""What the readings would be at every spine: curves over the index, struck and clean.

Index: 10 ln(own spine over the rig's real match), + stiff. Tails in degrees, bare shafts in metres,
impulses in N s; + reads stiff. The same shapes serve the upright plane, where the index counts how
far the nock stands too low, in steps of 2 mm.
"""

from dataclasses import dataclass, replace
from enum import IntEnum
from typing import NamedTuple

import numpy as np

from lyrandis.core.lazy import lazy
from lyrandis.core.numeric import Array

INDEX: Array = np.arange(-5.0, 12.5, 1.0)
"""Where the curves are computed; their ends are held beyond."""
BARE_DISTANCES_M = (10.0, 18.0)
LEAST_IMPULSE, FREE_IMPULSE = 2e-4, 5e-4
MOST_BASE = 2.5e-3
"""Assumption: whatever a matched shaft's impulse computes to, it leaves hardly a mark."""
ONSET_IMPULSE, ONSET_DEG = 6e-3, 1.5
"""Contact is seen from this much more impulse, or this much more of the tail, than at the match."""
ONSET_FROM, ONSET_TO, ONSET_STEP = 1.0, 12.0, 0.05
GATE_OPENS, GATE_WIDTH = 0.75, 0.375
"""Assumption: how far beyond its onset contact is half believed, and how fast that grows."""
UNDERSTOOD_ONSET, UNDERSTOOD_TAIL_DEG, CLEAN_TAIL_DEG = 2.0, 1.0, 0.5


class Touch(IntEnum):
    """How the tail of a stiff shaft meets the bow."""

    BOTH = 0
    """Fletched and bare alike, from an onset on."""
    FLETCHED = 1
    """The fletched tail only: bare shafts pass."""
    ALWAYS = 2
    """As computed, whatever the match."""
    NEVER = 3


class Contact(NamedTuple):
    """How the tail meets the bow, over a grid: the way, and the shift of its onset [index]."""

    way: Array
    shift: Array


def contact(way: Touch, shift: float = 0.0) -> Contact:
    """Return one way of meeting the bow.

    Source: definition.

    >>> contact(Touch.BOTH, 1.5).shift.tolist()
    1.5
    """
    return Contact(np.array(int(way)), np.array(shift))


NEVER = contact(Touch.NEVER)


Row = tuple[float, ...]
"""One reading over the index."""


def _gap(clean: Row, struck: Row) -> Row:
    return tuple(s - c for s, c in zip(struck, clean, strict=True))


@dataclass(frozen=True)
class Curves:
    """Readings over the index: of the flexing alone, and with the tail's contact left in."""

    index: tuple[float, ...]
    tail_clean: tuple[float, ...]
    tail_struck: tuple[float, ...]
    bare_m: tuple[float, ...]
    """Distances of the bare shafts, one row each."""
    bare_clean: tuple[tuple[float, ...], ...]
    bare_struck: tuple[tuple[float, ...], ...]
    impulse: tuple[float, ...]
    tail_bare_clean: tuple[float, ...] = ()
    tail_bare_struck: tuple[float, ...] = ()
    """The same of an unfletched arrow; where they are not computed, the fletched one's."""

    def unfletched(self) -> "Curves":
        """Return the curves of which `tail` is that of a bare shaft.

        Source: the computed flight without feathers.

        >>> SPINE_EXAMPLE.unfletched() is SPINE_EXAMPLE
        True
        """
        if not self.tail_bare_clean:
            return self
        return replace(
            self, tail_clean=self.tail_bare_clean, tail_struck=self.tail_bare_struck,
        )  # fmt: skip

    @lazy
    def base(self) -> float:
        """The least impulse about the match [N s]: what the bow does to any shaft."""
        return min(i for x, i in zip(self.index, self.impulse, strict=True) if -1 <= x <= 1)

    @lazy
    def onset(self) -> float:
        """Index from which contact on the stiff side is seen in the computed shot; 12 if never."""
        x = np.arange(ONSET_FROM, ONSET_TO + ONSET_STEP / 2, ONSET_STEP)
        gap = _gap(self.tail_clean, self.tail_struck)
        more = np.abs(self._at(gap, x) - self._at(gap, np.array(0.0)))
        seen = (self._at(self.impulse, x) > self.base + ONSET_IMPULSE) | (more > ONSET_DEG)
        return float(x[np.argmax(seen)]) if seen.any() else ONSET_TO

    @property
    def understood(self) -> bool:
        """False where this bow's contact begins so near the match that tails hardly tell there."""
        by_contact = self.tail(np.array(2.0), contact(Touch.BOTH))
        return self.onset >= UNDERSTOOD_ONSET and float(by_contact) >= UNDERSTOOD_TAIL_DEG

    def tail(self, x: Array, by: Contact) -> Array:
        """Return the tail at 2.3 m [deg] for an index and a way of meeting the bow.

        With C clean, D struck less clean, k the shift of the onset o and
        gate = 1 / (1 + exp(-(x - max(o + k, 1) - 0.75) / 0.375)):
        x > 0: C(x) + D(x - k) gate; x <= 0: C(x) + D(x) - D(0). Never: C(x); always: C(x) + D(x).
        So that a matched shaft reads straight on every bow.
        Source: the computed shot; that a matched shaft's computed contact is not seen in practice,
        and the gate's shape, are Assumption.

        >>> found = SPINE_EXAMPLE.tail(np.array([0.0, 2.0, 8.0]), contact(Touch.BOTH))
        >>> [round(float(deg), 2) for deg in found]
        [0.0, 2.8, -7.02]
        """
        gap = _gap(self.tail_clean, self.tail_struck)
        return self._at(self.tail_clean, x) + self._struck(gap, x, by, strikes=True)

    def bare(self, x: Array, by: Contact, distance_m: float) -> Array:
        """Return bare less fletched [m] at a distance, grown from the computed ones by its square.

        Source: as `tail`; where the fletched tail alone touches, bare shafts fly clean.

        >>> found = SPINE_EXAMPLE.bare(np.array([8.0]), contact(Touch.BOTH), 18.0)
        >>> round(float(found[0]), 3)
        -0.613
        """
        near = min(range(len(self.bare_m)), key=lambda i: abs(self.bare_m[i] - distance_m))
        share = (distance_m / self.bare_m[near]) ** 2
        gap = _gap(self.bare_clean[near], self.bare_struck[near])
        clean = self._at(self.bare_clean[near], x)
        return share * (clean + self._struck(gap, x, by, strikes=by.way != Touch.FLETCHED))

    def strike(self, x: Array, by: Contact) -> Array:
        """Return the plate's impulse on the tail half [N s].

        Source: as `tail`.

        >>> found = SPINE_EXAMPLE.strike(np.array([0.0, 8.0]), contact(Touch.BOTH))
        >>> [round(float(impulse), 5) for impulse in found]
        [0.0002, 0.04147]
        """
        base = min(self.base, MOST_BASE)
        shift = np.where(by.way <= Touch.FLETCHED, by.shift, 0.0)
        at = self._at(self.impulse, np.where(x > 0, x - shift, x))
        weak = np.maximum(at - self._at(self.impulse, np.array(0.0)), 0.0)
        stiff = np.maximum(at - base, 0.0) * self._gate(x, shift)
        found = np.where(by.way == Touch.ALWAYS, at, base + np.where(x > 0, stiff, weak))
        return np.where(by.way == Touch.NEVER, FREE_IMPULSE, np.maximum(found, LEAST_IMPULSE))

    @property
    def tail_zero(self) -> float:
        """How much the tail reads for one step of the index about nought [deg]."""
        low, high = self._at(self.tail_clean, np.array([-0.5, 0.5]))
        return float(high - low)

    def bare_zero(self, distance_m: float) -> float:
        """Return how much bare shafts read for one step of the index about nought [m].

        Source: difference of the curve over one step.

        >>> round(SPINE_EXAMPLE.bare_zero(18.0), 3)
        0.135
        """
        low, high = self.bare(np.array([-0.5, 0.5]), NEVER, distance_m)
        return float(high - low)

    def _gate(self, x: Array, shift: Array) -> Array:
        opens = np.maximum(self.onset + shift, ONSET_FROM) + GATE_OPENS
        result: Array = 1.0 / (1.0 + np.exp(-np.clip((x - opens) / GATE_WIDTH, -60.0, 60.0)))
        return result

    def _struck(
        self, gap: tuple[float, ...], x: Array, by: Contact, *, strikes: Array | bool
    ) -> Array:
        """Return what contact adds to the clean reading."""
        shift = np.where(by.way <= Touch.FLETCHED, by.shift, 0.0)
        stiff = self._at(gap, x - shift) * self._gate(x, shift) * strikes
        weak = self._at(gap, x) - self._at(gap, np.array(0.0))
        hit = np.where(x > 0, stiff, weak)
        hit = np.where(by.way == Touch.ALWAYS, self._at(gap, x), hit)
        return np.where(by.way == Touch.NEVER, 0.0, hit)

    def _at(self, values: tuple[float, ...], x: Array) -> Array:
        result: Array = np.interp(x, self.index, values)
        return result


SPINE_EXAMPLE = Curves(
    index=tuple(INDEX.tolist()),
    tail_clean=(-2.8, -3.0, -2.8, -2.2, -1.2, 0, 1.4, 2.8, 4.2, 5.3, 5.8, 5.9, 6.2, 6.7, 7.2, 7.3,
                6.8, 6.2),
    tail_struck=(-3.7, -3.1, -2.8, -2.2, -1.2, 0, 1.4, 2.8, 4.2, 5.3, 5.8, 0, -5.3, -7.1, -7.5,
                 -6.7, -5.7, -4.5),
    bare_m=(18.0,),
    bare_clean=((-0.32, -0.33, -0.30, -0.23, -0.12, 0, 0.15, 0.30, 0.44, 0.56, 0.61, 0.60,
                       0.59, 0.59, 0.61, 0.60, 0.56, 0.49),),
    bare_struck=((-0.57, -0.49, -0.30, -0.23, -0.12, 0, 0.15, 0.30, 0.44, 0.56, 0.49, -0.20,
                        -0.57, -0.62, -0.58, -0.49, -0.31, 0),),
    impulse=tuple(1e-3 * i for i in (3.6, 0.1, 0, 0, 0, 0, 0, 0, 0, 0, 0.2, 15.0, 31.2, 41.7, 50.6,
                                     55.3, 57.5, 55.0)),
)  # fmt: skip
"""A recurve with a plate, for worked examples and tests."""


def _struck_by(clean: Row, gap: Row) -> Row:
    return tuple(round(c + g, 4) for c, g in zip(clean, gap, strict=True))


def _usual_curves() -> Curves:
    """Return the curves an ordinary bow has: medians over 52 understood ones of 80.

    Source: computed curves of the population in `tests/core/population/`, seeds 1000 to 1079.
    """
    tail = (-2.54, -2.38, -2.15, -1.71, -0.92, 0.0, 1.2, 2.53, 3.89, 5.19, 6.13, 6.95, 7.43, 7.73,
            8.08, 8.4, 8.4, 8.4)  # fmt: skip
    tail_gap = (-2.46, -1.2, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, -0.09, -1.08, -3.01, -5.67, -7.62, -9.75,
                -10.7, -10.7, -10.7, -10.0)  # fmt: skip
    near = (-0.087, -0.087, -0.082, -0.061, -0.034, 0.0, 0.036, 0.083, 0.131, 0.178, 0.212, 0.228,
            0.24, 0.24, 0.24, 0.24, 0.24, 0.23)  # fmt: skip
    near_gap = (-0.132, -0.079, -0.015, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, -0.036, -0.12, -0.193, -0.262,
                -0.295, -0.33, -0.33, -0.295, -0.26)  # fmt: skip
    far = (-0.26, -0.26, -0.242, -0.182, -0.107, 0.0, 0.121, 0.27, 0.408, 0.498, 0.574, 0.615, 0.62,
           0.62, 0.62, 0.63, 0.63, 0.617)  # fmt: skip
    far_gap = (-0.26, -0.153, -0.042, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, -0.084, -0.288, -0.496, -0.666,
               -0.772, -0.92, -0.92, -0.805, -0.707)  # fmt: skip
    impulse = (0.0106, 0.0048, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0003, 0.004, 0.0125, 0.0214, 0.0324,
               0.0415, 0.0518, 0.0614, 0.067, 0.0676)  # fmt: skip
    bare_tail = (-4.59, -4.58, -3.85, -3.12, -1.71, 0.0, 2.23, 4.79, 7.37, 9.47, 11.28, 12.06, 12.4,
                 12.4, 12.4, 12.8, 12.6, 11.6)  # fmt: skip
    bare_tail_gap = (-6.08, -4.14, -0.95, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, -1.68, -5.49, -9.61, -13.5,
                     -15.4, -17.2, -17.1, -14.5, -13.1)  # fmt: skip
    return Curves(
        index=tuple(INDEX.tolist()),
        tail_clean=tail,
        tail_struck=_struck_by(tail, tail_gap),
        bare_m=BARE_DISTANCES_M,
        bare_clean=(near, far),
        bare_struck=(_struck_by(near, near_gap), _struck_by(far, far_gap)),
        impulse=impulse,
        tail_bare_clean=bare_tail,
        tail_bare_struck=_struck_by(bare_tail, bare_tail_gap),
    )


USUAL_CURVES = _usual_curves()


def as_practice_has_it(own: Curves) -> Curves:
    """Return curves to read a bow with: its own where they are understood, else the usual ones.

    Where only the contact begins too near the match, the flexing stays the bow's own and contact
    is the usual bow's. Where a stiffer shaft would not even read stiffer clean, nothing of the
    computed shot is believed.
    Source: practice: about its match a stiffer shaft reads stiffer on every bow.

    >>> as_practice_has_it(SPINE_EXAMPLE) is SPINE_EXAMPLE
    True
    """
    if own.understood:
        return own
    two = np.array([-2.0, 2.0])
    weak, stiff = own.tail(two, NEVER)
    bare_weak, bare_stiff = own.bare(two, NEVER, BARE_DISTANCES_M[-1])
    if weak > -CLEAN_TAIL_DEG or stiff < CLEAN_TAIL_DEG or bare_weak > 0 or bare_stiff < 0:
        return USUAL_CURVES
    return replace(
        own,
        tail_struck=_struck_by(
            own.tail_clean, _gap(USUAL_CURVES.tail_clean, USUAL_CURVES.tail_struck)
        ),
        bare_struck=tuple(
            _struck_by(clean, _gap(usual_clean, usual_struck))
            for clean, usual_clean, usual_struck in zip(
                own.bare_clean, USUAL_CURVES.bare_clean, USUAL_CURVES.bare_struck, strict=True
            )
        ),
        impulse=USUAL_CURVES.impulse,
        tail_bare_struck=_struck_by(
            own.tail_bare_clean, _gap(USUAL_CURVES.tail_bare_clean, USUAL_CURVES.tail_bare_struck)
        ),
    )


@dataclass(frozen=True)
class UprightCurves:
    """The upright plane: straight lines with a bounce below, measured on the computed shot.

    Assumption: slopes rounded; the nock bounces from 3 mm too low on.
    """

    bounce: float = 1.5

    def unfletched(self) -> "UprightCurves":
        """Return the same: feathers are not told apart in this plane.

        Assumption: the slopes hold for bare shafts too.

        >>> UprightCurves().unfletched() == UprightCurves()
        True
        """
        return self

    def _low(self, x: Array, by: Contact) -> Array:
        low = np.maximum(x - self.bounce - by.shift, 0.0)
        return np.where(by.way == Touch.NEVER, 0.0, low)

    def tail(self, x: Array, by: Contact) -> Array:
        """Return the tail at 2.3 m [deg], + low: 0.45 a step, reversed once it bounces.

        Source: measured slopes of the computed shot in the upright plane.

        >>> UprightCurves().tail(np.array([1.0]), contact(Touch.BOTH)).tolist()
        [0.45]
        """
        return 0.45 * x - 1.3 * self._low(x, by)

    def bare(self, x: Array, by: Contact, distance_m: float) -> Array:
        """Return bare less fletched [m], + high.

        Source: as `tail`.

        >>> UprightCurves().bare(np.array([1.0]), contact(Touch.BOTH), 18.0).tolist()
        [0.06]
        """
        return (0.06 * x - 0.16 * self._low(x, by)) * (distance_m / 18.0) ** 2

    def strike(self, x: Array, by: Contact) -> Array:
        """Return the impulse of rest or shelf on the tail half [N s].

        Source: as `tail`.

        >>> UprightCurves().strike(np.array([1.0]), contact(Touch.BOTH)).tolist()
        [0.0005]
        """
        return FREE_IMPULSE + 0.004 * self._low(x, by)

    @property
    def tail_zero(self) -> float:
        """One step of the index [deg]."""
        return 0.45

    def bare_zero(self, distance_m: float) -> float:
        """Return one step of the index [m].

        Source: as `bare`.

        >>> round(UprightCurves().bare_zero(18.0), 3)
        0.06
        """
        return 0.06 * (distance_m / 18.0) ** 2
