"""Speed by ear, tried on bows of the third synthesiser: what is said, and what is true."""

from typing import NamedTuple

import numpy as np

from lyrandis.core.listen.brought import Sounded, speed_hearing
from lyrandis.core.listen.shot_time import Range
from tests.core.listen.third_bow import GRAVITY_DRAG, RATE, Butt, ThirdBow

NAMED = Sounded("0" * 16, "third", False)


class SpeedWorld(NamedTuple):
    """How shots at a butt are heard."""

    name: str
    butt: Butt = "stiff"
    coded: bool = False
    rides: bool = False
    over_db: float = 25.0
    newcomer: bool = False
    """The distance is paced, and the air is left as the page has it."""


SPEED_WORLDS = (
    SpeedWorld("stiff butt"),
    SpeedWorld("stiff butt, faint strike", over_db=12.0),
    SpeedWorld("stiff butt, coded", coded=True),
    SpeedWorld("stiff butt, gain rides", rides=True),
    SpeedWorld("stiff butt, both", coded=True, rides=True),
    SpeedWorld("soft butt", "soft"),
    SpeedWorld("soft butt, both", "soft", coded=True, rides=True),
    SpeedWorld("stiff butt, told as a newcomer tells it", newcomer=True),
    SpeedWorld("soft butt, told as a newcomer tells it", "soft", newcomer=True),
)


class SpeedHeard(NamedTuple):
    """One recording of three shots."""

    off: float | None
    """As a share of the true speed; None where no speed was said."""
    half: float

    @property
    def inside(self) -> bool:
        return self.off is not None and abs(self.off) <= self.half


def speed_heard(of: SpeedWorld, seed: int) -> SpeedHeard:
    """Listen to three shots as the page does, told the place a little wrong."""
    bow = ThirdBow(seed, of.butt, of.coded, of.rides, of.over_db)
    world = np.random.default_rng([seed, 9])
    made = bow.shots(3, float(world.choice([14.0, 18.0, 18.0, 25.0])))
    where = Range(
        made.butt_m + world.normal(0, 0.025), 0.75, 0.4, made.celsius + world.normal(0, 2)
    )
    if of.newcomer:
        where = Range(made.butt_m * (1 + world.normal(0, 0.02)), 0.75, taped=False)
    guess = made.speed_mps * float(np.exp(world.normal(0, 0.06)))
    found = speed_hearing(made.samples[:, None], RATE, where,
                          GRAVITY_DRAG * float(np.exp(world.normal(0, 0.2))), NAMED,
                          expected_mps=guess)  # fmt: skip
    if found.speed_mps is None or found.half_mps is None:
        return SpeedHeard(None, 0.0)
    return SpeedHeard(found.speed_mps / made.speed_mps - 1, found.half_mps / found.speed_mps)
