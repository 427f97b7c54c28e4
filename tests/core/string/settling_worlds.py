"""Strings that settle by laws that are not the model's, read as people read a brace.

Written from what strings do: a quick part that gives way while one waits and a slow one that takes
days, creep that goes with the logarithm of time or with a power of it, damp days, rules that are
read to a step, and bows that are unstrung overnight and give back a little. Sizes are invented.
"""

import math
from collections.abc import Callable, Iterator
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.string.settling import SettlingReading, fit_settling

Law = Literal["stretched", "two", "logarithm", "power"]
LAWS: tuple[Law, ...] = ("stretched", "two", "logarithm", "power")
SIXTEENTH_MM = MM_PER_IN / 16
STRUNG_THROUGH = (
    0.1, 0.5, 1, 2, 3, 4, 6, 8, 10, 12, 15, 18, 21, 24, 27, 30, 33, 36, 48, 72, 96, 120, 144,
)  # fmt: skip
"""Hours at which a bow that stays strung is read."""
EVENING_H = 3.0
EVENINGS = 30
AT_NIGHT_MM = 1.0
"""What a night unstrung gives back at most, gone again within an hour or two."""


class World(NamedTuple):
    """How a string is treated and read."""

    name: str
    law: Law
    step_mm: float = 0.0
    """What the rule is read to; nought: as fine as it comes."""
    damp_mm: float = 0.0
    """Every day lies so far up or down at most."""
    unstrung: bool = False
    """Strung for three hours an evening, read twice or three times in each."""


WORLDS = (
    World("stretched, its own law", "stretched"),
    World("two times", "two"),
    World("logarithm to 90 h", "logarithm"),
    World("power", "power"),
    World("two times, damp days", "two", damp_mm=1.0),
    World("its own law, damp days", "stretched", damp_mm=1.0),
    World("two times, to half a mm", "two", step_mm=0.5),
    World("two times, to 1/16 in", "two", step_mm=SIXTEENTH_MM),
    World("logarithm, to 1/16 in", "logarithm", step_mm=SIXTEENTH_MM),
    World("power, to 1/16 in", "power", step_mm=SIXTEENTH_MM),
    World("its own law, to 1/16 in", "stretched", step_mm=SIXTEENTH_MM),
    World("two times, evenings", "two", unstrung=True),
    World("its own law, evenings", "stretched", unstrung=True),
)


def creep_by(law: Law, world: np.random.Generator) -> Callable[[float], float]:
    """What is still to come after so many hours strung [mm]."""
    total = world.uniform(2.0, 12.0)
    if law == "two":
        fast, slow = world.uniform(0.5, 2.0), math.exp(world.uniform(math.log(8), math.log(40)))
        share = world.uniform(0.2, 0.7)
        return lambda t: total * ((1 - share) * math.exp(-t / fast) + share * math.exp(-t / slow))
    if law == "logarithm":
        whole = math.log(1 + 90 / 0.3)
        return lambda t: max(total * (1 - math.log(1 + min(t, 90.0) / 0.3) / whole), 0.0)
    if law == "power":
        start, power = world.uniform(0.3, 2.0), world.uniform(0.4, 1.0)
        return lambda t: total * (1 + t / start) ** -power
    tau, beta = math.exp(world.normal(math.log(4.0), 0.6)), world.uniform(0.5, 1.0)
    return lambda t: total * math.exp(-((t / tau) ** beta))


def read(
    of: World, left: Callable[[float], float], world: np.random.Generator
) -> Iterator[SettlingReading]:
    """One brace after another, as the string comes down."""
    damp: dict[int, float] = {}

    def height(hours: float, day: int, back: float = 0.0) -> float:
        off = damp.setdefault(day, world.uniform(-of.damp_mm, of.damp_mm))
        told = 195.0 + left(hours) + back + off + world.normal(0.0, 0.5)
        return round(told / of.step_mm) * of.step_mm if of.step_mm else told

    if not of.unstrung:
        for hours in STRUNG_THROUGH:
            yield SettlingReading(hours, height(hours, int((hours + 10) // 24)))
        return
    for evening in range(EVENINGS):
        back = world.uniform(0.0, AT_NIGHT_MM) if evening else 0.0
        within = (0.1, 1.0, 2.8) if evening < 4 else (0.1, 2.8)
        for since in within:
            hours = evening * EVENING_H + since
            yield SettlingReading(
                hours, height(hours, evening, back * math.exp(-since / 0.7)),
                since=since if evening else None,
            )  # fmt: skip


class Called(NamedTuple):
    """What came of one string."""

    hours: float | None
    """Strung when it was called settled; None where it never was."""
    left_mm: float

    @property
    def early(self) -> bool:
        return self.hours is not None and self.left_mm > SIXTEENTH_MM


def called(of: World, seed: int) -> Called:
    """Read a string until the rule calls it settled."""
    world = np.random.default_rng((seed, sum(map(ord, of.name))))
    left = creep_by(of.law, world)
    readings: list[SettlingReading] = []
    for one in read(of, left, world):
        readings.append(one)
        if len(readings) >= 4 and fit_settling.__wrapped__(tuple(readings)).is_settled:
            return Called(one.hours, left(one.hours))
    return Called(None, left(readings[-1].hours))
