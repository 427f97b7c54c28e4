"""How likely a reading is at every cell of a belief: tails, bare shafts, marks, slaps.

Tails in degrees by seven classes; bare shafts in metres; + reads stiff (upright: nock low).
"""

import math
from typing import NamedTuple

import numpy as np

from lyrandis.core.flight.belief import CONTACTS, GAINS, PUSH_GAINS, ZEROS, Plane
from lyrandis.core.flight.curves import Contact
from lyrandis.core.flight.words import Care
from lyrandis.core.numeric import Array, normal_below

BORDERS: Array = np.array([-5.0, -2.5, -1.0, 1.0, 2.5, 5.0])
"""Between strong, clear and slight weak, straight, slight, clear and strong stiff [deg]."""
TAIL_CLASSES = len(BORDERS) + 1
RELEASE_DEG, SHARED_DEG = 0.7, 0.5
"""Scatter of the release in a tail, measured; what one end shares, Assumption."""
SHARED_BARE_M = 0.04
MARK_AT, SLAP_AT, STEEPNESS = 0.005, 0.012, 2.5
"""Impulses at which half the archers find a mark, and hear a slap [N s]. Assumption."""
HEARD_ANYWAY, HEARD_WHEN_STRUCK = 0.12, 0.5
RHO_WEIGHTS = (0.25, 0.5, 0.25)
RHOS: dict[float, tuple[float, float, float]] = {
    1.0: (0.6, 0.66, 0.8), 1.5: (0.8, 0.85, 0.98), 2.3: (1.0, 1.0, 1.0), 3.0: (0.81, 0.96, 1.09),
    4.0: (0.37, 0.76, 1.07), 5.3: (-0.2, 0.2, 0.6), 6.0: (-0.43, 0.04, 0.63),
}  # fmt: skip
"""How much of the tail at 2.3 m shows at other distances, by three lifts of the feathers."""
CLEAR_M = (2.0, 3.5)
"""Where a tail says most."""
FURTHEST_TAIL_M = 6.0


class Noise(NamedTuple):
    """How well an archer sees and shoots."""

    eye_deg: float
    scatter_m: float
    """Of one arrow at 18 m."""
    lapse: float
    missed: float
    false: float


NOISE: dict[Care, Noise] = {
    "steady": Noise(0.7, 0.05, 0.01, 0.10, 0.03),
    "ordinary": Noise(1.2, 0.10, 0.03, 0.20, 0.05),
    "beginning": Noise(2.2, 0.20, 0.08, 0.40, 0.10),
}
"""Assumption: to be replaced by what archers record."""


class Push(NamedTuple):
    """What was changed for a reading, in index; exact, or by a gain nobody knows."""

    by: float = 0.0
    exact: bool = False


NO_PUSH = Push()


def _grid(plane: Plane, push: Push) -> tuple[Array, Contact]:
    """Return index and contact over (x, k, h): a push adds its own gain."""
    gains = np.ones(1) if push.exact or push.by == 0 else PUSH_GAINS
    x = plane.x[:, None, None] + push.by * gains[None, None, :]
    ways = Contact(*(part[None, :, None] for part in CONTACTS))
    return np.broadcast_to(x, (len(plane.x), len(CONTACTS.way), len(gains))), ways


def rhos(distance_m: float) -> tuple[float, float, float]:
    """Return how much of a tail shows at a distance, three ways the feathers may lift.

    Source: the computed flight with lift 0.6, 1 and 1.6 times; linear between.

    >>> rhos(2.8), rhos(5.3)
    ((1.0, 1.0, 1.0), (-0.2, 0.2, 0.6))
    """
    low, high = CLEAR_M
    if low <= distance_m <= high:
        return 1.0, 1.0, 1.0
    places = sorted(RHOS)
    return tuple(  # type: ignore[return-value]
        float(np.interp(distance_m, places, [RHOS[at][i] for at in places])) for i in range(3)
    )


def tail_table(
    plane: Plane, noise: Noise, arrows: float, distance_m: float = 2.3, push: Push = NO_PUSH
) -> Array:
    """Return the chance of each of the seven tail classes, over the grid: (7, x, k, g, dt, 1, h).

    Source: normal readings cut at the classes' borders; a lapse is any class.

    >>> from lyrandis.core.flight.belief import Plane
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> table = tail_table(Plane("spine", SPINE_EXAMPLE), NOISE["ordinary"], 3)
    >>> bool(np.allclose(table.sum(axis=0), 1.0))
    True
    """
    x, k = _grid(plane, push)
    tail = plane.curves.tail(x, k)[:, :, None, None, None, :]
    gain, zero = GAINS[None, None, :, None, None, None], ZEROS[None, None, None, :, None, None]
    reads = gain * tail + plane.curves.tail_zero * zero
    three = rhos(distance_m)
    ways = [(1.0, three[0])] if three[0] == three[2] else list(zip(RHO_WEIGHTS, three, strict=True))
    table = sum(
        (weight * _cut(rho * reads, _tail_sd(noise, arrows, rho)) for weight, rho in ways),
        np.zeros((TAIL_CLASSES, *reads.shape)),
    )
    result: Array = (1 - noise.lapse) * table + noise.lapse / TAIL_CLASSES
    return result


def _tail_sd(noise: Noise, arrows: float, rho: float) -> float:
    return math.sqrt((noise.eye_deg**2 + (RELEASE_DEG * rho) ** 2) / arrows + SHARED_DEG**2)


def _cut(mean: Array, sd: float) -> Array:
    """Return the chance of every class for readings about a mean."""
    below = normal_below((BORDERS[:, None, None, None, None, None, None] - mean[None]) / sd)
    ends = [np.zeros((1, *mean.shape)), below, np.ones((1, *mean.shape))]
    result: Array = np.diff(np.concatenate(ends), axis=0)
    return result


def angle_class(degrees: float) -> int:
    """Return which of the seven classes an angle of the tail falls in, + reads stiff.

    Source: the classes' borders.

    >>> [angle_class(angle) for angle in (-6.0, -1.0, 0.0, 1.1, 9.0)]
    [0, 3, 3, 4, 6]
    """
    return int(np.searchsorted(BORDERS, degrees, side="right" if degrees < 0 else "left"))


def bare_mean(plane: Plane, distance_m: float, push: Push = NO_PUSH) -> Array:
    """Return where bare less fletched would be over the grid [m], (x, k, g, 1, db, h).

    g B(x, k) + s db, s the curve's step about nought.
    Source: the computed shot; gain and zero are Assumption.

    >>> from lyrandis.core.flight.belief import Plane
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> bare_mean(Plane("spine", SPINE_EXAMPLE), 18.0).shape
    (45, 10, 3, 1, 3, 1)
    """
    x, k = _grid(plane, push)
    bare = plane.curves.bare(x, k, distance_m)[:, :, None, None, None, :]
    gain, zero = GAINS[None, None, :, None, None, None], ZEROS[None, None, None, None, :, None]
    result: Array = gain * bare + plane.curves.bare_zero(distance_m) * zero
    return result


def bare_likely(
    plane: Plane,
    noise: Noise,
    gap_m: float,
    distance_m: float,
    arrows: float = 3,
    push: Push = NO_PUSH,
) -> Array:
    """Return how likely bare less fletched is over the grid, (x, k, g, 1, db, h).

    Source: normal, with a few flyers four times as wide.

    >>> from lyrandis.core.flight.belief import Plane
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> found = bare_likely(Plane("spine", SPINE_EXAMPLE), NOISE["ordinary"], 0.05, 18.0)
    >>> bool((found > 0).all())
    True
    """
    off = gap_m - bare_mean(plane, distance_m, push)
    sd = bare_sd(noise, distance_m, arrows)
    flyers = noise.lapse + 0.02
    result: Array = (1 - flyers) * np.exp(-0.5 * (off / sd) ** 2) / sd
    return result + flyers * np.exp(-0.5 * (off / (4 * sd)) ** 2) / (4 * sd)


def bare_sd(noise: Noise, distance_m: float, arrows: float) -> float:
    """Return the sd of bare less fletched, as many arrows of each [m].

    Source: two means, and what one end shares.

    >>> round(bare_sd(NOISE["ordinary"], 18.0, 3), 3)
    0.091
    """
    share = distance_m / 18.0
    return math.sqrt(2 * (noise.scatter_m * share) ** 2 / arrows + (SHARED_BARE_M * share) ** 2)


def bare_null(gap_m: float, distance_m: float) -> float:
    """Return how likely a gap is where something else changed.

    Assumption: half a metre wide at 18 m.

    >>> bare_null(0.0, 18.0)
    2.0
    """
    wide = 0.5 * distance_m / 18.0
    return math.exp(-0.5 * (gap_m / wide) ** 2) / wide


def mark_chance(plane: Plane, noise: Noise, push: Push = NO_PUSH) -> Array:
    """Return the chance of a mark on the felt after six shots, (x, k, 1, 1, 1, h).

    Source: logistic in the logarithm of the impulse; the figures are Assumption.

    >>> from lyrandis.core.flight.belief import Plane
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> found = mark_chance(Plane("spine", SPINE_EXAMPLE), NOISE["ordinary"])
    >>> round(float(found.min()), 2)
    0.05
    """
    x, k = _grid(plane, push)
    share = _logistic(plane.curves.strike(x, k), MARK_AT)
    return (noise.false + (1 - noise.missed - noise.false) * share)[:, :, None, None, None, :]


def slap_chance(plane: Plane, push: Push = NO_PUSH) -> Array:
    """Return the chance that a slap is heard; brace and nock fit slap too.

    Assumption: as `mark_chance`.

    >>> from lyrandis.core.flight.belief import Plane
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> round(float(slap_chance(Plane("spine", SPINE_EXAMPLE)).min()), 2)
    0.12
    """
    x, k = _grid(plane, push)
    share = _logistic(plane.curves.strike(x, k), SLAP_AT)
    return (HEARD_ANYWAY + HEARD_WHEN_STRUCK * share)[:, :, None, None, None, :]


def _logistic(impulse: Array, half: float) -> Array:
    result: Array = 1 / (1 + (half / impulse) ** STEEPNESS)
    return result
