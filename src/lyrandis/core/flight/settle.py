"""What to change, what that should do to the next reading, and what a tuning says of the rig."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import NamedTuple

from lyrandis.core.flight.belief import SPINE_SD, Axis
from lyrandis.core.flight.choose import PLAIN_TESTS, outcomes
from lyrandis.core.flight.likely import Noise, bare_mean, bare_sd
from lyrandis.core.flight.words import Class, Means
from lyrandis.core.numeric import Array

ACT_BELOW, ACT_OVER, ACT_LEAST, NOCK_OVER = 0.55, 0.9, 0.45, 0.3
TUNED_FROM = 0.80
"""Chance from which tuned is said; more than that never came true, so no more is ever said."""
NEAR_SHARE = 0.8
"""Of the belief lies within what is said where a rig is kept as near as it can be told."""
NOCK_MM_PER_INDEX = 2.0
LEVER_SD, SHAFTS_SD, EXACT_SD, LEAST_SD = 0.15, 0.4, 0.1, 0.05
LEAST_BAND, TRANSFER_SD = 0.05, 0.6
"""Assumption: how far a tuning carries, from day to day and from arrow to arrow."""
UNEXPECTED = 0.05


def wanted(axis: Axis) -> float | None:
    """Return the shift of the index to make, + stiffer (nock: lower); None where none is due.

    Spine: due while tuned is not likely enough or the mean lies off; the nock, which is free and
    exact, whenever its mean lies 0.6 mm off.
    Assumption: the limits, tried in closed loops on virtual rigs.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> round(wanted(new_axis("spine", SPINE_EXAMPLE, 2.0)), 1)
    -2.0
    """
    mean = axis.mean
    if axis.name == "upright":
        return -mean if abs(mean) > NOCK_OVER else None
    off = axis.chances()["tuned"] < ACT_BELOW or abs(mean) > ACT_OVER
    return -mean if off and abs(mean) > ACT_LEAST else None


def shown(cause: Class, chance: float) -> float:
    """Return a chance as it is said: of tuned never more than four in five.

    Source: closed loops on virtual rigs (docs/MECHANICS.md).

    >>> shown("tuned", 0.93), shown("weak", 0.93)
    (0.8, 0.93)
    """
    return min(chance, TUNED_FROM) if cause == "tuned" else chance


class Near(NamedTuple):
    """How near the match a shaft is known to be, where no more can be told."""

    within: float
    """Index within which four in five of the belief lie: tenths of stiffness."""
    chance: float
    """That it is within a tenth."""


def near_of(axis: Axis) -> Near:
    """Return how near the match a shaft is: the far end of the middle four fifths.

    Source: quantiles of the belief.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> round(near_of(new_axis("spine", SPINE_EXAMPLE, 0.0)).within, 1)
    2.6
    """
    low, high = axis.within(NEAR_SHARE)
    return Near(max(abs(low), abs(high)), shown("tuned", axis.chances()["tuned"]))


def tuned(axis: Axis) -> bool:
    """Tell whether an axis may be called tuned.

    Assumption: four in five.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> tuned(new_axis("spine", SPINE_EXAMPLE, 0.0))
    False
    """
    return axis.chances()["tuned"] >= TUNED_FROM


def corrected(axis: Axis, by: float, means: Means) -> Axis:
    """Return the belief after a correction of `by` index was made.

    A lever moves by its own unknown gain, sd 15 %; other shafts by sd 0.4 and 10 % (spines are
    known to 4 %); a nock by 10 %.
    Source: `Axis.moved`; the sds are Assumption.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> axis = new_axis("spine", SPINE_EXAMPLE, 2.0)
    >>> corrected(axis, -2.0, "shafts").mean < 0.5
    True
    """
    size = abs(by)
    spread = {
        "lever": LEVER_SD * size,
        "shafts": SHAFTS_SD + EXACT_SD * size,
        "nock": EXACT_SD * size,
    }
    return axis.moved(by, gains=means == "lever", sd=max(spread[means], LEAST_SD))


class Expected(NamedTuple):
    """What the next readings should be, said before they are shot."""

    tail: tuple[float, ...]
    """Chance of each of the seven classes of the tail, strong weak to strong stiff."""
    bare_m: float
    """Mean of bare less fletched, + reads stiff."""
    bare_sd_m: float

    @property
    def likeliest(self) -> int:
        return max(range(len(self.tail)), key=lambda i: self.tail[i])

    @property
    def unexpected(self) -> tuple[int, ...]:
        """Tail classes that would mean that something else is going on."""
        return tuple(i for i, chance in enumerate(self.tail) if chance < UNEXPECTED)


def expected(axis: Axis, noise: Noise, distance_m: float = 18.0, arrows: int = 3) -> Expected:
    """Return what the next tail and bare shafts should be.

    Source: the likelihoods summed over what is believed.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> found = expected(new_axis("spine", SPINE_EXAMPLE, 0.0), NOISE["steady"])
    >>> found.likeliest, round(sum(found.tail), 6)
    (3, 1.0)
    """
    tail = outcomes(axis, PLAIN_TESTS[0], noise).sum(axis=1)
    means = bare_mean(axis.plane, distance_m)
    alike = tuple(i for i, size in enumerate(means.shape) if size == 1)
    weight: Array = axis.p.sum(axis=alike, keepdims=True)
    mean = float((weight * means).sum())
    spread = float((weight * (means - mean) ** 2).sum())
    return Expected(
        tuple(tail.tolist()), mean, math.sqrt(spread + bare_sd(noise, distance_m, arrows) ** 2)
    )


@dataclass(frozen=True)
class Tuning:
    """What a finished tuning says of the rig's own match."""

    matched: float
    """In the unit of the shaft's own spine."""
    band: float
    """Relative: the match lies within it in nineteen of twenty."""
    offset: float
    """Index by which the model's match lies above the rig's own."""
    sd: float


def tuning(axis: Axis, own: float, model: float) -> Tuning:
    """Return what the belief says of the match, the shaft's spine being `own`, the model's `model`.

    matched = own exp(-mean / 10); offset = 10 ln(model / matched); the band is half of where
    nineteen of twenty of the belief lie, for its ends are wide, and sd half of that.
    Source: the index's definition; the least band is Assumption.
    Raise ValueError where a spine is not above nought.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> found = tuning(new_axis("spine", SPINE_EXAMPLE, 1.0), 60.0, 54.3)
    >>> round(found.matched), round(found.offset, 1)
    (54, 0.0)
    """
    if own <= 0 or model <= 0:
        raise ValueError("a spine is above nought")
    matched = own * math.exp(-axis.mean / 10)
    low, high = axis.within()
    half = (high - low) / 2
    return Tuning(matched, max(half / 10, LEAST_BAND), 10 * math.log(model / matched), half / 2)


class RigPrior(NamedTuple):
    """Where a shaft's index is looked for, before anything was shot with it."""

    centre: float
    sd: float


def rig_prior(index: float, tunings: Iterable[Tuning], own_sd: float = SPINE_SD) -> RigPrior:
    """Return the prior of another shaft of model index `index` on a rig with these tunings.

    Offsets are weighed by 1 / (sd^2 + 0.6^2), the model's own N(0, own_sd^2) as one more.
    Source: the weighted mean of independent normal values; 0.6 is Assumption.

    >>> rig_prior(2.0, []) == RigPrior(2.0, 1.8)
    True
    >>> found = rig_prior(2.0, [Tuning(54.0, 0.1, 1.0, 0.5)])
    >>> round(found.centre, 2), round(found.sd, 2)
    (2.84, 0.72)
    """
    offsets = [(item.offset, 1 / (item.sd**2 + TRANSFER_SD**2)) for item in tunings]
    total = sum(weight for _, weight in offsets) + 1 / own_sd**2
    offset = sum(value * weight for value, weight in offsets) / total
    return RigPrior(index + offset, math.sqrt(1 / total))


def nock_move_mm(shift: float) -> float:
    """Return how far up the nock goes for a shift of the upright index (+ is lower) [mm].

    Source: the index's step of 2 mm.

    >>> nock_move_mm(-1.5)
    3.0
    """
    return -shift * NOCK_MM_PER_INDEX
