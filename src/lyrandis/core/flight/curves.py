"""What the readings would be at every spine: curves over the index, struck and clean.

Index: 10 ln(own spine over the rig's real match), + stiff. Tails in degrees, bare shafts in metres,
impulses in N s; + reads stiff. The same shapes serve the upright plane, where the index counts how
far the nock stands too low, in steps of 2 mm.
"""

from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.numeric import Array

INDEX: Array = np.arange(-5.0, 12.5, 1.0)
"""Where the curves are computed; their ends are held beyond."""
BARE_DISTANCES_M = (10.0, 18.0)
LEAST_IMPULSE, FREE_IMPULSE = 2e-4, 5e-4
NEVER = float("inf")
"""Shift of the contact threshold where the tail never strikes."""
STRIKES_FROM = 1.0
"""Index from which contact on the stiff side is shifted."""


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

    def tail(self, x: Array, k: Array) -> Array:
        """Return the tail at 2.3 m [deg] for an index and a shift of the threshold.

        C(x) + D(min(x, 1)) + D(max(x - k, 1)) - D(1), D struck less clean; C(x) where it never
        strikes. Weak-side contact stays as computed.
        Source: the computed shot; the shift is Assumption.

        >>> found = SPINE_EXAMPLE.tail(np.array([6.5]), np.array([0.0]))
        >>> round(float(found[0]), 3)
        -2.65
        """
        return self._shifted(self.tail_clean, self.tail_struck, x, k)

    def bare(self, x: Array, k: Array, distance_m: float) -> Array:
        """Return bare less fletched [m] at a distance, grown from the computed ones by its square.

        Source: as `tail`.

        >>> found = SPINE_EXAMPLE.bare(np.array([6.5]), np.array([0.0]), 18.0)
        >>> round(float(found[0]), 3)
        -0.385
        """
        near = min(range(len(self.bare_m)), key=lambda i: abs(self.bare_m[i] - distance_m))
        share = (distance_m / self.bare_m[near]) ** 2
        return share * self._shifted(self.bare_clean[near], self.bare_struck[near], x, k)

    def strike(self, x: Array, k: Array) -> Array:
        """Return the plate's impulse on the tail half [N s].

        Source: as `tail`.

        >>> found = SPINE_EXAMPLE.strike(np.array([6.5]), np.array([-1.25]))
        >>> round(float(found[0]), 5)
        0.03907
        """
        shift = np.where(np.isinf(k), 0.0, k)
        one = self._at(self.impulse, np.array(STRIKES_FROM))
        result = (
            self._at(self.impulse, np.minimum(x, STRIKES_FROM))
            + self._at(self.impulse, np.maximum(x - shift, STRIKES_FROM))
            - one
        )
        return np.where(np.isinf(k), FREE_IMPULSE, np.maximum(result, LEAST_IMPULSE))

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
        ends, never = np.array([-0.5, 0.5]), np.full(2, NEVER)
        low, high = self.bare(ends, never, distance_m)
        return float(high - low)

    def _shifted(
        self, clean: tuple[float, ...], struck: tuple[float, ...], x: Array, k: Array
    ) -> Array:
        gap = tuple(s - c for s, c in zip(struck, clean, strict=True))
        shift = np.where(np.isinf(k), 0.0, k)
        hit = (
            self._at(gap, np.minimum(x, STRIKES_FROM))
            + self._at(gap, np.maximum(x - shift, STRIKES_FROM))
            - self._at(gap, np.array(STRIKES_FROM))
        )
        return self._at(clean, x) + np.where(np.isinf(k), 0.0, hit)

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

    def _low(self, x: Array, k: Array) -> Array:
        shift = np.where(np.isinf(k), 0.0, k)
        return np.where(np.isinf(k), 0.0, np.maximum(x - self.bounce - shift, 0.0))

    def tail(self, x: Array, k: Array) -> Array:
        """Return the tail at 2.3 m [deg], + low: 0.45 a step, reversed once it bounces.

        Source: measured slopes of the computed shot in the upright plane.

        >>> UprightCurves().tail(np.array([1.0]), np.array([0.0])).tolist()
        [0.45]
        """
        return 0.45 * x - 1.3 * self._low(x, k)

    def bare(self, x: Array, k: Array, distance_m: float) -> Array:
        """Return bare less fletched [m], + high.

        Source: as `tail`.

        >>> UprightCurves().bare(np.array([1.0]), np.array([0.0]), 18.0).tolist()
        [0.06]
        """
        return (0.06 * x - 0.16 * self._low(x, k)) * (distance_m / 18.0) ** 2

    def strike(self, x: Array, k: Array) -> Array:
        """Return the impulse of rest or shelf on the tail half [N s].

        Source: as `tail`.

        >>> UprightCurves().strike(np.array([1.0]), np.array([0.0])).tolist()
        [0.0005]
        """
        return FREE_IMPULSE + 0.004 * self._low(x, k)

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
