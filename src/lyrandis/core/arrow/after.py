"""The arrow after it has left the bow: bare shafts against fletched ones. SI units.

Good for directions and for small, medium or large; not for centimetres. Absolute left or right of
a fletched arrow is not computed: aim decides it.
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.arrow.beam import Beam, modes_of
from lyrandis.core.arrow.bend import NOMINAL, Bent, Shot, bend
from lyrandis.core.arrow.spine import stiffness
from lyrandis.core.errors import DomainError
from lyrandis.core.numeric import Array

AIR = 1.2
"""Density of air [kg/m3]."""
STRIPS = 12
CROSSFLOW, SKIN = 1.1, 0.03
AXIAL_DRAG = 2.0
FEATHER_HEIGHT = 0.012
FEATHER_LIFT = 1.5 * 2.0 * 0.62
"""Fletches across the flow, lift slope and its loss by short span, in one."""
AFTER_DT = 4e-4
_FLEXING = 1
"""Elastic modes kept in flight."""
SMALL_M, LARGE_M = 0.12, 0.45

Size = Literal["none", "small", "medium", "large"]


@dataclass(frozen=True)
class BareShaft:
    """Where a bare shaft strikes beside a fletched arrow of the same set."""

    outward_m: float
    """+ to the side the arrow lies on: left for a right-handed finger release."""
    size: Size


def bare_against_fletched(
    shot: Shot, spine_lbf: float, diameter_m: float, *, distance_m: float = 18.0, clean: bool = True
) -> BareShaft:
    """Return how far a bare shaft strikes from a fletched arrow, on the mean of no aim at all.

    Both are bent round the bow and flown with crossflow drag in strips, lift of nose and feathers,
    and drag along. Raises `DomainError` for a shaft without a point: it tumbles. Direction only.

    Source: rigid flight with drag of a slanting shaft; direction only is trusted.

    >>> from lyrandis.core.example import rig
    >>> shot = rig().arrow.shooting.shot
    >>> strikes = [bare_against_fletched(shot, spine, 0.007).outward_m for spine in (45.0, 85.0)]
    >>> strikes == sorted(strikes)
    True
    """
    if shot.beam.tip < 1e-6:
        raise DomainError(
            "tumbles",
            "A bare shaft without a point tumbles.",
            "Give the arrow a point to compare bare with fletched.",
        )
    fletched, bare = _strikes(shot, spine_lbf, diameter_m, distance_m, clean)
    return BareShaft(bare - fletched, size_of(bare - fletched))


def size_of(metres: float) -> Size:
    """Return the word for a distance between bare and fletched at 18 m.

    Assumption: our own words for centimetres at 18 m.

    >>> [size_of(m) for m in (0.01, -0.1, 0.3, -0.6)]
    ['none', 'small', 'medium', 'large']
    """
    gap = abs(metres)
    if gap < SMALL_M / 3:
        return "none"
    if gap < SMALL_M:
        return "small"
    return "medium" if gap < LARGE_M else "large"


@lru_cache(maxsize=128)
def _strikes(
    shot: Shot, spine_lbf: float, diameter_m: float, distance_m: float, clean: bool
) -> tuple[float, float]:
    bare = replace(shot, beam=replace(shot.beam, fletching=0.0))
    return (
        _strike(shot, spine_lbf, diameter_m, distance_m, clean),
        _strike(bare, spine_lbf, diameter_m, distance_m, clean),
    )


def _strike(
    shot: Shot, spine_lbf: float, diameter_m: float, distance_m: float, clean: bool
) -> float:
    """Return where the tip is aside after a distance, from the line of the string [m]."""
    ei = np.array([[stiffness(spine_lbf)]])
    bent = bend((shot,), ei, releases=NOMINAL, clean=clean)
    return float(flown(shot, bent, ei[0], diameter_m, (distance_m,))[0].tip[0])


class Flown(NamedTuple):
    """Arrows after a distance, one to a column."""

    tip: Array
    """Aside from the line of the string [m]; + is outward."""
    lean: Array
    """Of the tail, of the rigid motion against its own path [rad]; + is stiff."""


def flown(
    shot: Shot, bent: Bent, ei: Array, diameter_m: float, distances_m: tuple[float, ...]
) -> list[Flown]:
    """Return every bent arrow of a shot after each distance, rising; `ei` is that of its columns.

    Two rigid modes and the first elastic one, in still air; a step is DT or less, so a distance is
    met to 2 cm. Source: rigid flight with drag of a slanting shaft.

    >>> from lyrandis.core.example import rig
    >>> shot, ei = rig().arrow.shooting.shot, np.array([[stiffness(55.0)]])
    >>> bent = bend((shot,), ei, releases=NOMINAL)
    >>> near, far = flown(shot, bent, ei[0], 0.007, (2.3, 18.0))
    >>> bool(abs(far.lean[0]) < abs(near.lean[0]) + 0.1)
    True
    """
    modes = modes_of(shot.beam)
    kept = 2 + _FLEXING
    air = _Air(shot.beam, diameter_m)
    phi, phi_s = modes.at(air.at)
    phi, phi_s = phi[:, :kept], phi_s[:, :kept]
    q, q_t = bent.passed.q[0, :kept].copy(), bent.passed.q_t[0, :kept].copy()
    w2 = modes.w2[:kept, None] * ei
    damp = 2 * shot.damping * np.sqrt(w2)
    dt = min(
        AFTER_DT, 1 / math.sqrt(float(w2.max()))
    )  # a short stiff shaft rings faster than DT sees
    speed, gone = bent.strokes[0].exit_speed, 0.0
    area = math.pi * diameter_m**2 / 4
    result = []
    for distance in distances_m:
        while gone < distance:
            across = phi @ q_t - speed * (phi_s @ q)
            q_t += dt * (phi.T @ air.force(across, speed) - w2 * q - damp * q_t)
            q += dt * q_t
            speed -= dt * 0.5 * AIR * AXIAL_DRAG * area * speed**2 / modes.mass
            gone += dt * speed
        lean = q[1] / math.sqrt(modes.inertia) - q_t[0] / math.sqrt(modes.mass) / speed
        result.append(Flown(modes.shapes[-1, :kept] @ q, lean))
    return result


class _Air:
    """The places along the shaft where air pushes across it, and how hard."""

    def __init__(self, beam: Beam, diameter: float) -> None:
        width = beam.length / STRIPS
        strips = (np.arange(STRIPS) + 0.5) * width
        feather = beam.fletching_from + beam.fletching_length / 2
        self.at: Array = np.concatenate([strips, [beam.length, feather]])
        self._strip = 0.5 * AIR * diameter * width
        nose = math.pi * diameter**2 / 4 * 2.0
        feathers = FEATHER_LIFT * FEATHER_HEIGHT * beam.fletching_length if beam.fletching else 0.0
        self._lift = 0.5 * AIR * np.array([nose, feathers])

    def force(self, across: Array, speed: float) -> Array:
        """Return the force at every place [N] for the speed across the shaft there, (places, N)."""
        strips = across[:STRIPS]
        drag = -self._strip * (CROSSFLOW * np.abs(strips) * strips + SKIN * speed * strips)
        return np.concatenate([drag, -self._lift[:, None] * speed * across[STRIPS:]])
