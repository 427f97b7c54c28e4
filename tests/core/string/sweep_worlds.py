"""Bows whose noise over brace is not one even valley, and archers whose ears drift in an evening.

One valley skewed, one on a slope, a flat floor, two dips, and a quiet spot outside the range the
maker allows. Sizes are invented.
"""

import math
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.string.sweep import Height, Quiet, sweep
from tests.core.string.archers import Archer, by_care, curvature_of

Kind = Literal["one", "sloped", "flat", "two", "outside"]
KINDS: tuple[Kind, ...] = ("one", "sloped", "flat", "two", "outside")
AS_GOOD_DB = 0.5
"""Nobody hears a difference as small as this."""
NEAR_IN = 1 / 8


@dataclass(frozen=True)
class AnyBow:
    """A bow that is as loud at each brace as its world makes it [in, dB]."""

    kind: Kind
    low: float
    high: float
    quiet: float
    curvature: tuple[float, float]
    slope: float = 0.0
    floor: float = 0.0
    """Half the width of a flat floor."""
    other: float = 0.0
    deeper: float = 0.0
    """How much louder the other dip is."""

    def noise(self, brace: float) -> float:
        first = self._valley(brace, self.quiet)
        if self.kind == "two":
            first = min(first, self._valley(brace, self.other) + self.deeper)
        return first + self.slope * (brace - self.low)

    def _valley(self, brace: float, at: float) -> float:
        off = brace - at
        c = self.curvature[0] if off < 0 else self.curvature[1]
        off = max(abs(off) - self.floor, 0.0)
        return 8 * (1 - math.exp(-c * off * off / 8))

    def best(self) -> list[float]:
        """Every brace inside the limits that is as quiet as any."""
        braces = np.arange(self.low, self.high + 1e-9, 1 / 128).tolist()
        noise = [self.noise(brace) for brace in braces]
        # a dip that nobody hears to be louder is as good
        dips = [self.quiet, self.other] if self.kind == "two" else []
        dips = [dip for dip in dips if self.noise(dip) <= min(noise) + AS_GOOD_DB]
        return dips + [b for b, level in zip(braces, noise, strict=True)
                if level <= min(noise) + 1e-6]  # fmt: skip


def any_bow(kind: Kind, world: np.random.Generator) -> AnyBow:
    low = world.uniform(6.5, 8.0)
    high = low + world.uniform(0.75, 1.25)
    curvature = curvature_of(world)
    quiet = world.uniform(low, high)
    if kind == "sloped":
        return AnyBow(kind, low, high, quiet, curvature, slope=world.uniform(1.5, 4.0)
                      * world.choice([-1.0, 1.0]))  # fmt: skip
    if kind == "flat":
        return AnyBow(kind, low, high, quiet, curvature, floor=world.uniform(0.1, 0.3))
    if kind == "two":
        apart = world.uniform(0.45, 0.7)
        first = world.uniform(low, max(high - apart, low + 0.05))
        spots = world.permutation([first, min(first + apart, high)]).tolist()
        steep = 3 * curvature[0], 3 * curvature[1]
        return AnyBow(kind, low, high, spots[0], steep, other=spots[1],
                      deeper=world.uniform(0.0, 1.0))  # fmt: skip
    if kind == "outside":
        past = world.uniform(0.1, 0.5)
        return AnyBow(kind, low, high, low - past if world.random() < 0.5 else high + past,
                      curvature)  # fmt: skip
    return AnyBow(kind, low, high, quiet, curvature)


@dataclass
class Tiring(Archer):
    """Somebody whose sound and ratings drift from height to height, as an evening goes."""

    def __post_init__(self) -> None:
        super().__post_init__()
        self.drift_db = self.world.normal(0.0, 0.25)
        self.drift_points = self.world.normal(0.0, 0.2)
        self.shot = 0

    def shoot(self, brace: float) -> Height:
        told = super().shoot(brace)
        up, points = self.drift_db * self.shot, self.drift_points * self.shot
        self.shot += 1

        def later(ratings: tuple[float, ...]) -> tuple[float, ...]:
            return tuple(min(max(float(round(rating + points)), 0.0), 10.0) for rating in ratings)

        return told._replace(sound=later(told.sound), shock=later(told.shock),
                             takes_db=tuple(take + up for take in told.takes_db))  # fmt: skip


class Swept(NamedTuple):
    """What came of one sweep."""

    said: float
    came: bool
    two: bool
    flat: bool
    flat_true: bool
    """Nothing on a floor called flat is more than a decibel louder than the least."""
    heights: int


def swept(kind: Kind, seed: int, *, sound: bool = True) -> Swept:
    """Sweep as the page proposes, and hold what it says against the bow."""
    world = np.random.default_rng((seed, KINDS.index(kind)))
    bow = any_bow(kind, world)
    archer = Tiring(bow, by_care(seed), world, sound)  # type: ignore[arg-type]
    limits = bow.low * MM_PER_IN, bow.high * MM_PER_IN
    heights = [archer.shoot(world.uniform(bow.low, bow.high))]
    while (found := sweep(tuple(heights), limits)).next_mm is not None:
        heights.append(archer.shoot(found.next_mm / MM_PER_IN))
    spots = spots_said(found)
    best = np.array(bow.best())
    came = any(float(np.abs(best - spot).min()) <= NEAR_IN + 1e-9 for spot in spots)
    return Swept(found.near, came, len(spots) > 1, found.floor_mm is not None,
                 level_floor(bow, found), len(heights))  # fmt: skip


def level_floor(bow: AnyBow, found: Quiet) -> bool:
    """Whether a floor that is called flat is flat."""
    if found.floor_mm is None:
        return True
    least = min(bow.noise(brace) for brace in bow.best())
    ends = (end / MM_PER_IN for end in found.floor_mm)
    return all(bow.noise(end) <= least + 1.0 for end in ends)


def spots_said(found: Quiet) -> list[float]:
    """The quiet spots a page would name [in]."""
    return [spot / MM_PER_IN for spot in found.spots_mm]
