"""Made-up bows on a scale: their kind often told wrongly, half of them with a wall at the end."""

from typing import NamedTuple

import numpy as np
from numpy.random import Generator

from lyrandis.core.bow.hermite import Hermite
from lyrandis.core.bow.likeness import likeness_of
from lyrandis.core.bow.statics import BowShape, draw_curve
from lyrandis.core.bow.weight import DrawWeight, draw_weight_at
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate
from lyrandis.core.setup import fold
from tests.entries import entries

KINDS: dict[Family, tuple[str, float, float, float]] = {
    "hunting_recurve": ("hunting recurve", 60, 15.6, 7.75),
    "target_recurve": ("target recurve", 66, 25, 8.75),
    "reflex_deflex_longbow": ("reflex deflex longbow", 62, 15, 7),
    "straight_longbow": ("straight longbow", 68, 9, 6.75),
    "selfbow": ("selfbow", 66, 8, 6),
}
"""What is said of a kind, its usual length, riser and brace [in]."""


class Weighed(NamedTuple):
    """What the bench made of one bow's readings."""

    found: DrawWeight
    truth_lbf: float

    @property
    def off_lbf(self) -> float:
        return self.found.weight.value - self.truth_lbf

    @property
    def holds(self) -> bool:
        """True where the truth lies inside the ±."""
        return abs(self.off_lbf) <= self.found.weight.plus_minus


def weighed(seed: int, count: int, *, at_full_draw: bool) -> Weighed | None:
    """Weigh a made-up bow at some draws within 8 in of the hook; None where it cannot be drawn so.

    The truth is another bow than the one told: another kind in one of five, lengths and brace off,
    a tilt of its own, a wall in half of them. Readings are good to .3 lb and .1 in, read to 1/2 lb.
    """
    world = np.random.default_rng(seed)
    kind = list(KINDS)[int(world.integers(len(KINDS)))]
    said, length, _, brace = KINDS[kind]
    hook_in = float(world.uniform(26, 29))
    true = _true_bow(world, kind, hook_in)
    if true is None:
        return None
    draws = np.sort(hook_in - world.uniform(0.3, 8.0, count))
    if at_full_draw:
        draws[-1] = hook_in
    lines = [f"family {said}", f"bow {length + round(float(world.normal(0, 0.7)))}"]
    for draw in draws:
        at, read = draw + world.normal(0, 0.1), round(2 * draw_of(true, draw, world)) / 2
        lines.append(f"scale {read} @ {at:.2f}")
    setup = fold(entries(*lines))
    found = draw_weight_at(
        setup.bow,
        setup.archer,
        at=Estimate(hook_in * MM_PER_IN, 0.0),
        hook=Estimate(0.0, 0.0),
        likeness=likeness_of(setup.bow, brace * MM_PER_IN),
    )
    return None if found is None else Weighed(found, true.weight(hook_in))


class _Bow(NamedTuple):
    curve: Hermite
    scale: float
    tilt: float
    hook_in: float
    wall_in: float | None
    stiff: float

    def weight(self, draw_in: float) -> float:
        force = self.curve.at(draw_in * MM_PER_IN - TRADE_OFFSET_MM)
        lbf = self.scale * force * float(np.exp(self.tilt * (draw_in - self.hook_in)))
        if self.wall_in is not None and draw_in > self.wall_in:
            lbf *= 1 + self.stiff * (draw_in - self.wall_in) ** 2
        return lbf


def draw_of(bow: _Bow, draw_in: float, world: Generator) -> float:
    return bow.weight(draw_in) + float(world.normal(0, 0.3))


def _true_bow(world: Generator, told: Family, hook_in: float) -> _Bow | None:
    kind = told
    if world.random() < 0.2:
        kind = list(KINDS)[int(world.integers(len(KINDS)))]
    _, length, riser, brace = KINDS[kind]
    shape = BowShape(
        kind,
        (length + float(world.normal(0, 1.0))) * MM_PER_IN,
        riser * MM_PER_IN,
        (brace + float(world.normal(0, 0.3))) * MM_PER_IN,
    )
    curve = draw_curve(shape).force
    if curve.x[-1] < hook_in * MM_PER_IN - TRADE_OFFSET_MM:
        return None
    lbf = float(world.uniform(25, 60))
    scale = lbf / curve.at(hook_in * MM_PER_IN - TRADE_OFFSET_MM)
    wall = hook_in - float(world.uniform(0.5, 3.0)) if world.random() < 0.5 else None
    return _Bow(
        curve,
        scale,
        float(world.normal(0, 0.0055)),
        hook_in,
        wall,
        float(world.uniform(0.005, 0.015)),
    )
