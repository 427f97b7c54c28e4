"""Many virtual rigs, shot until enough is known: for the tests and the bench."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from statistics import median

import numpy as np

from lyrandis.core.flight.belief import new_axis
from lyrandis.core.flight.choose import (
    PLAIN_TESTS,
    Sitting,
    after,
    pushed_test,
    ranked,
    surest,
    verdict,
)
from lyrandis.core.flight.curves import SPINE_EXAMPLE
from lyrandis.core.flight.likely import NO_PUSH, NOISE, Noise, Push
from lyrandis.core.flight.virtual import VirtualRig, a_rig
from lyrandis.core.flight.words import Care

TESTS = (
    *PLAIN_TESTS,
    pushed_test("draw_short", Push(0.5)),
    pushed_test("draw_extra", Push(-0.3)),
    pushed_test("other_shafts", Push(-2.0, exact=True)),
)
World = Callable[[VirtualRig], VirtualRig]


@dataclass
class Trial:
    """What came out, as shares of the rigs."""

    right: list[bool] = field(default_factory=list)
    near: list[bool] = field(default_factory=list)
    """Right, or the class of a shaft 3 % off."""
    chance: list[float] = field(default_factory=list)
    truth: list[str] = field(default_factory=list)
    best: list[str] = field(default_factory=list)
    said: list[bool] = field(default_factory=list)
    tests: list[int] = field(default_factory=list)
    first: list[bool] = field(default_factory=list)
    """Believing the first tail."""

    def of_false_weak(self, best: str) -> float:
        """Share of the false weak rigs that were called so."""
        called = [b for b, t in zip(self.best, self.truth, strict=True) if t == "false_weak"]
        return called.count(best) / len(called)

    def said_right(self) -> float:
        """Share of what was said, near, of all that was said."""
        return mean([near for near, said in zip(self.near, self.said, strict=True) if said])

    def reliability(self, low: float, high: float) -> tuple[float, float, int]:
        """Return what was said on average between two chances, what came true, and how often."""
        both = zip(self.chance, self.right, strict=True)
        found = [(c, r) for c, r in both if low <= c < high]
        return mean([c for c, _ in found]), mean([r for _, r in found]), len(found)

    @property
    def median_tests(self) -> float:
        return median(self.tests)


def mean(found: Sequence[float]) -> float:
    return sum(found) / len(found) if found else float("nan")


def play(rig: VirtualRig, model: float, noise: Noise, rng: np.random.Generator) -> Sitting:
    """Shoot the test worth most until enough is known."""
    sitting = Sitting({"spine": new_axis("spine", SPINE_EXAMPLE, model)})
    while worth := ranked(sitting, TESTS, noise):
        test = worth[0].test
        reading = rig.shoot(test, test.spine_push, rng)
        sitting = after(sitting, test, {"spine": reading}, noise)
    return sitting


def trial(
    rigs: int, care: Care = "ordinary", believed: Care | None = None, world: World | None = None
) -> Trial:
    """Shoot this many rigs; the archer may be another than believed, the world than assumed."""
    found = Trial()
    for seed in range(rigs):
        rng = np.random.default_rng(seed)
        model = rng.uniform(-4, 9)
        rig = a_rig(SPINE_EXAMPLE, NOISE[care], model, rng)
        rig = world(rig) if world else rig
        sitting = play(rig, model, NOISE[believed or care], rng)
        best, chance = surest(sitting.axes["spine"])
        found.right.append(best == rig.truth)
        found.near.append(best in rig.near())
        found.chance.append(chance)
        found.said.append(verdict(sitting.axes["spine"]) == best)
        found.truth.append(rig.truth)
        found.best.append(best)
        found.tests.append(len(sitting.done))
        tail = rig.shoot(PLAIN_TESTS[0], NO_PUSH, rng)
        first = "tuned" if tail == 3 else "weak" if tail < 3 else "stiff"
        found.first.append(first == rig.truth)
    return found
