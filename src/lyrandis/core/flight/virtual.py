"""Virtual rigs: a hidden truth and an archer of chosen care, who shoots the tests we ask for.

Tests, bench and trainer shoot with them. Their noise is their own: heavy-tailed, with flyers, and
nothing is tempered or put on a grid.
"""

from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.flight.belief import BORDER, FALSE_WEAK_DEG, Readable
from lyrandis.core.flight.choose import FlightTest
from lyrandis.core.flight.curves import NEVER, Contact, Touch, contact
from lyrandis.core.flight.likely import (
    BORDERS,
    CLEAR_M,
    HEARD_ANYWAY,
    HEARD_WHEN_STRUCK,
    MARK_AT,
    NO_PUSH,
    RELEASE_DEG,
    SHARED_BARE_M,
    SHARED_DEG,
    SLAP_AT,
    STEEPNESS,
    Noise,
    Push,
    rhos,
)
from lyrandis.core.flight.words import Class
from lyrandis.core.numeric import Array

FLYERS, FLYER_TIMES, HEAVY_TAIL = 0.04, 3.0, 6
"""Assumption: one arrow in 25 flies three times as wide; Student's t, six degrees of freedom."""
MARK_SPREAD = 0.4
"""Assumption: how unlike felts and powders take a mark, sd of the logarithm."""


AS_COMPUTED = contact(Touch.BOTH)


@dataclass(frozen=True)
class VirtualRig:
    """A rig whose truth we know."""

    curves: Readable
    care: Noise
    index: float
    """How far the shaft on the string is from the rig's match."""
    by: Contact = AS_COMPUTED
    """How its tail meets the bow."""
    gain: float = 1.0
    tail_zero: float = 0.0
    bare_zero: float = 0.0
    push_gain: float = 1.0
    swing: float = 0.5
    """0 to 1: how fast the feathers turn the arrow."""

    @property
    def truth(self) -> Class:
        """The class this rig belongs to."""
        if self.index < -BORDER:
            return "weak"
        if self.index <= BORDER:
            return "tuned"
        return "false_weak" if self._tail(NO_PUSH) < FALSE_WEAK_DEG["spine"] else "stiff"

    def near(self, by: float = 0.3) -> frozenset[Class]:
        """Return the classes within `by` index of the truth.

        Source: the index's borders.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> from lyrandis.core.flight.likely import NOISE
        >>> sorted(VirtualRig(SPINE_EXAMPLE, NOISE["steady"], 1.1).near())
        ['stiff', 'tuned']
        """
        moved = (self.index - by, self.index, self.index + by)
        return frozenset(self.at(index).truth for index in moved)

    def at(self, index: float) -> "VirtualRig":
        """Return the same rig with another shaft.

        Source: the definition.

        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> from lyrandis.core.flight.likely import NOISE
        >>> VirtualRig(SPINE_EXAMPLE, NOISE["steady"], 1.1).at(-3.0).truth
        'weak'
        """
        return replace(self, index=index)

    def shoot(self, test: FlightTest, push: Push, rng: np.random.Generator) -> float:
        """Return what the archer reads: a tail class, metres, or 0 and 1.

        Assumption: the noise's sizes; its shapes are not the engine's.

        >>> from lyrandis.core.flight.choose import PLAIN_TESTS
        >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
        >>> from lyrandis.core.flight.likely import NOISE
        >>> rig = VirtualRig(SPINE_EXAMPLE, NOISE["steady"], -4.0)
        >>> rig.shoot(PLAIN_TESTS[0], NO_PUSH, np.random.default_rng(1)) < 3
        True
        """
        if test.sees == "tail":
            return self._tail_class(test, push, rng)
        if test.sees == "bare":
            return self._bare(test, push, rng)
        impulse = self._strike(push)
        if test.sees == "slap":
            heard = HEARD_ANYWAY + HEARD_WHEN_STRUCK / (1 + (SLAP_AT / impulse) ** STEEPNESS)
            return float(rng.random() < heard)
        impulse *= float(np.exp(MARK_SPREAD * rng.standard_normal()))
        missed, false = self.care.missed, self.care.false
        left = false + (1 - missed - false) / (1 + (MARK_AT / impulse) ** STEEPNESS)
        return float(rng.random() < left)

    def _moved(self, push: Push) -> float:
        return self.index + push.by * (1.0 if push.exact else self.push_gain)

    def _tail(self, push: Push) -> float:
        result = self.curves.tail(np.array(self._moved(push)), self.by)
        return float(result)

    def _strike(self, push: Push) -> float:
        result = self.curves.strike(np.array(self._moved(push)), self.by)
        return float(result)

    def _tail_class(self, test: FlightTest, push: Push, rng: np.random.Generator) -> float:
        if rng.random() < self.care.lapse:
            return float(rng.integers(len(BORDERS) + 1))
        low, high = CLEAR_M
        three = rhos(test.distance_m)
        clear = low <= test.distance_m <= high
        rho = 1.0 if clear else three[2] + self.swing * (three[0] - three[2])
        mean = self.gain * self._tail(push) + self.curves.tail_zero * self.tail_zero
        arrows = round(test.arrows)
        eye = _wide(rng, arrows) * self.care.eye_deg
        release = rng.standard_normal(arrows) * RELEASE_DEG * rho
        read = rho * mean + float(np.mean(eye + release)) + SHARED_DEG * rng.standard_normal()
        return float(np.searchsorted(BORDERS, read))

    def _bare(self, test: FlightTest, push: Push, rng: np.random.Generator) -> float:
        far = test.distance_m
        bare = float(self.curves.bare(np.array(self._moved(push)), self.by, far))
        mean = self.gain * bare + self.curves.bare_zero(far) * self.bare_zero
        share = far / 18.0
        arrows = round(test.arrows)
        hits = [np.mean(_wide(rng, arrows)) * self.care.scatter_m * share for _ in range(2)]
        return mean + float(hits[0] - hits[1]) + SHARED_BARE_M * share * rng.standard_normal()


def _wide(rng: np.random.Generator, arrows: int) -> Array:
    """Draw a scatter of sd about one: heavy tails, now and then a flyer."""
    scale = np.sqrt((HEAVY_TAIL - 2) / HEAVY_TAIL)
    result = rng.standard_t(HEAVY_TAIL, arrows) * scale
    wide: Array = np.where(rng.random(arrows) < FLYERS, FLYER_TIMES * result, result)
    return wide


def a_contact(rng: np.random.Generator) -> Contact:
    """Draw how a tail meets its bow: N(0, 2) about the onset, a quarter of them fletched only.

    Assumption: the sizes of the prior, drawn continuously.

    >>> a_contact(np.random.default_rng(2)).way.tolist() in (0, 1, 2, 3)
    True
    """
    drawn = rng.random()
    if drawn < 0.10:
        return NEVER
    if drawn < 0.15:
        return contact(Touch.ALWAYS)
    way = Touch.FLETCHED if drawn < 0.36 else Touch.BOTH
    return contact(way, 2.0 * rng.standard_normal())


def a_rig(
    curves: Readable, care: Noise, model_index: float, rng: np.random.Generator, error: float = 1.0
) -> VirtualRig:
    """Draw a rig of which the model says `model_index`; `error` widens the model's own.

    True index: nine in ten N(m, 1.8), one in ten N(m, 5); gains and zeros as spread as
    the schools are.
    Assumption: the sizes of the prior, drawn continuously.

    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> rig = a_rig(SPINE_EXAMPLE, NOISE["steady"], 5.0, np.random.default_rng(1))
    >>> abs(rig.index - 5.0) < 10
    True
    """
    wide = rng.random() < 0.1
    by = a_contact(rng)
    return VirtualRig(
        curves,
        care,
        index=model_index + error * (5.0 if wide else 1.8) * rng.standard_normal(),
        by=by,
        gain=float(np.exp(0.35 * rng.standard_normal())),
        tail_zero=0.4 * rng.standard_normal(),
        bare_zero=0.4 * rng.standard_normal(),
        push_gain=max(float(1 + 0.5 * rng.standard_normal()), 0.0),
        swing=rng.random(),
    )
