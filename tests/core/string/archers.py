"""Simulated archers who sweep the brace and wait for strings: a world that is not the model's own.

The valley may be skewed, takes have outliers, braces are set roughly; the ear that steps and
listens has the same world. Sizes are invented.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.string.sweep import Height, sweep

Generator = np.random.Generator


@dataclass(frozen=True)
class Care:
    """How carefully somebody works."""

    take_db: float
    height_db: float
    outliers: float
    set_to_in: float
    rating: float
    ear_db: float


CARES = {
    "kind": Care(0.7, 0.3, 0.00, 1 / 64, 0.7, 0.8),
    "ordinary": Care(1.1, 0.6, 0.05, 1 / 32, 1.2, 1.3),
    "careless": Care(1.8, 1.1, 0.12, 1 / 16, 2.0, 2.2),
}


@dataclass(frozen=True)
class Bow:
    """A bow with a quiet spot somewhere in its maker's range [in]."""

    low: float
    high: float
    quiet: float
    curvature: tuple[float, float]
    """Below and above the quiet spot [dB/in2]."""

    def noise(self, brace: float) -> float:
        off = brace - self.quiet
        c = self.curvature[0] if off < 0 else self.curvature[1]
        return 8 * (1 - math.exp(-c * off * off / 8))


def bow_of(world: Generator) -> Bow:
    low = world.uniform(6.5, 8.0)
    high = low + world.uniform(0.75, 1.25)
    curvature = curvature_of(world)
    return Bow(low, high, world.uniform(low, high), curvature)


def curvature_of(world: Generator) -> tuple[float, float]:
    """How steep a valley is on both sides [dB/in2]: 1.5 to 6 dB at half an inch, skewed."""
    at_half = world.uniform(1.5, 6.0)
    c = -8 * math.log(1 - at_half / 8) / 0.25
    skew = 1 + world.uniform(-1 / 3, 1 / 3)
    return c * skew, c / skew


def by_care(number: int) -> Care:
    """A third each kind, ordinary, careless."""
    return list(CARES.values())[number % 3]


@dataclass
class Archer:
    """Somebody at the butt who shoots a height, rates it and may record it."""

    bow: Bow
    care: Care
    world: Generator
    sound: bool
    """True when the shots are recorded as well."""

    def __post_init__(self) -> None:
        self.gains = self.world.uniform(0.4, 0.9), self.world.uniform(0.3, 0.8)
        self.zeros = self.world.uniform(1.0, 4.0), self.world.uniform(1.0, 4.0)

    def shoot(self, brace: float) -> Height:
        step = self.care.set_to_in
        at = brace + self.world.normal(0.0, step / 2)
        level = self.bow.noise(at)
        heard = level + self.world.normal(0.0, self.care.height_db)
        takes = []
        for _ in range(3):
            far = self.world.random() < self.care.outliers
            takes.append(heard + self.world.normal(0.0, 4 if far else 1) * self.care.take_db)
        rated = [
            min(max(round(zero + gain * level + self.world.normal(0.0, self.care.rating)), 0), 10)
            for gain, zero in zip(self.gains, self.zeros, strict=True)
        ]
        return Height(
            round(brace / step) * step * MM_PER_IN, (float(rated[0]),), (float(rated[1]),),
            tuple(takes) if self.sound else (),
        )  # fmt: skip


def by_the_model(archer: Archer) -> tuple[float, float]:
    """Sweep as the page proposes: brace found [in], and how sure it said it was to 1/8 in."""
    limits = archer.bow.low * MM_PER_IN, archer.bow.high * MM_PER_IN
    at = archer.world.uniform(archer.bow.low, archer.bow.high)
    heights = [archer.shoot(at)]
    while (found := sweep(tuple(heights), limits)).next_mm is not None:
        assert limits[0] - 1e-6 <= found.next_mm <= limits[1] + 1e-6
        heights.append(archer.shoot(found.next_mm / MM_PER_IN))
    return round(found.brace_mm / MM_PER_IN * 16) / 16, found.near


def by_ear(archer: Archer) -> tuple[float, float]:
    """Step a quarter inch, listen, go the other way when it is louder; stop where it is least."""
    ear = archer.care.ear_db
    at = archer.world.uniform(archer.bow.low, archer.bow.high)
    step = 0.25 if at < (archer.bow.low + archer.bow.high) / 2 else -0.25
    heard = archer.bow.noise(at) + archer.world.normal(0.0, ear)
    turned = False
    for _ in range(5):
        there = min(max(at + step, archer.bow.low), archer.bow.high)
        now = archer.bow.noise(there) + archer.world.normal(0.0, ear)
        if now < heard and there != at:
            at, heard = there, now
        elif turned:
            break
        else:
            step, turned = -step, True
    return at, 0.0


def within(
    count: int, seed: int, *, sound: bool, way: Callable[[Archer], tuple[float, float]]
) -> tuple[float, float, float]:
    """Share of archers within 1/8 and 3/16 in of the quiet spot, and how sure they were told."""
    offs, told = [], []
    for number in range(count):
        world = np.random.default_rng((seed, number))
        archer = Archer(bow_of(world), by_care(number), world, sound)
        found, near = way(archer)
        offs.append(abs(found - archer.bow.quiet))
        told.append(near)
    off = np.array(offs)
    return float((off <= 1 / 8).mean()), float((off <= 3 / 16).mean()), float(np.mean(told))
