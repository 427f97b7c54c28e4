"""Many virtual rigs of four kinds of bow, shot and judged in several ways: for tests and bench."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from functools import cache
from statistics import median

import numpy as np

from lyrandis.core.arrow.match import match_spine
from lyrandis.core.flight.belief import new_axis
from lyrandis.core.flight.choose import (
    PLAIN_TESTS,
    FlightTest,
    Sitting,
    after,
    pushed_test,
    ranked,
    surest,
    verdict,
)
from lyrandis.core.flight.curves import Contact, Curves, as_practice_has_it
from lyrandis.core.flight.likely import NOISE, Noise, Push
from lyrandis.core.flight.shot_curves import curves_of, unfletched
from lyrandis.core.flight.virtual import VirtualRig, a_rig
from lyrandis.core.flight.words import Care
from tests.core.arrow.shots import LONGBOW, RECURVE

KINDS = ("longbow", "plate", "plunger", "thumb")
_CASES = {
    "longbow": LONGBOW,
    "plate": RECURVE,
    "plunger": RECURVE.but(plunger=True),
    "thumb": RECURVE.but(weight_lbf=51, offset_mm=12.5, bow_in=56, gr_per_in=10.5, diameter_mm=8.0),
}
TESTS = (
    *PLAIN_TESTS,
    pushed_test("draw_short", Push(0.5)),
    pushed_test("draw_extra", Push(-0.3)),
    pushed_test("silencers", Push(0.4)),
    pushed_test("plate", Push(0.3)),
    pushed_test("other_shafts", Push(-2.0, exact=True)),
)
FIXED = tuple(PLAIN_TESTS[i] for i in (0, 1, 2, 5, 2, 0, 2, 0))
"""Tail, five metres, bare shafts, felt, and again."""
World = Callable[[VirtualRig], VirtualRig]
Way = Callable[[Sitting, Noise, np.random.Generator], FlightTest | None]


@cache
def curves_of_kind(kind: str) -> Curves:
    """Return the curves of a kind of bow, as the application reckons them."""
    case = _CASES[kind]
    matched = match_spine(case.shot).matched or 50.0
    own = curves_of(case.shot, unfletched(case.shot), matched, case.diameter_mm / 1000)
    return as_practice_has_it(own)


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
    arrows: list[float] = field(default_factory=list)

    def of_false_weak(self, best: str) -> float:
        """Share of the false weak rigs that were called so."""
        called = [b for b, t in zip(self.best, self.truth, strict=True) if t == "false_weak"]
        return called.count(best) / len(called) if called else float("nan")

    @property
    def false_weak(self) -> int:
        return self.truth.count("false_weak")

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


def best_test(sitting: Sitting, noise: Noise, _: np.random.Generator) -> FlightTest | None:
    """The test worth most for its trouble: what the application offers."""
    worth = ranked(sitting, TESTS, noise)
    return worth[0].test if worth else None


def random_test(sitting: Sitting, noise: Noise, rng: np.random.Generator) -> FlightTest | None:
    """Any test at all, while one is worth shooting."""
    worth = ranked(sitting, TESTS, noise)
    return worth[int(rng.integers(len(worth)))].test if worth else None


def fixed_test(sitting: Sitting, noise: Noise, _: np.random.Generator) -> FlightTest | None:
    """Always the same order, while a test is worth shooting."""
    done = len(sitting.done)
    return FIXED[done] if done < len(FIXED) and ranked(sitting, TESTS, noise) else None


def play(
    rig: VirtualRig, model: float, noise: Noise, rng: np.random.Generator, way: Way,
    curves: Curves,
) -> Sitting:  # fmt: skip
    """Shoot until enough is known."""
    sitting = Sitting({"spine": new_axis("spine", curves, model)})
    while (test := way(sitting, noise, rng)) is not None:
        reading = rig.shoot(test, test.spine_push, rng)
        sitting = after(sitting, test, {"spine": reading}, noise)
    return sitting


def arrows_of(test: FlightTest) -> float:
    return {"bare": 2 * test.arrows, "slap": 3}.get(test.sees, test.arrows)


def trial(
    rigs: int,
    care: Care = "ordinary",
    believed: Care | None = None,
    world: World | None = None,
    *,
    way: Way = best_test,
    kinds: Sequence[str] = KINDS,
    error: float = 1.0,
    shown: Curves | None = None,
    span: tuple[float, float] = (-4.0, 9.0),
) -> Trial:
    """Shoot this many rigs, of the kinds in turn.

    The archer may be another than believed, the world than assumed, the model's error wider, and
    the curves that the engine reads by those of another bow (`shown`).
    """
    found = Trial()
    for seed in range(rigs):
        rng = np.random.default_rng(seed)
        curves = curves_of_kind(kinds[seed % len(kinds)])
        model = rng.uniform(*span)
        rig = a_rig(curves, NOISE[care], model, rng, error)
        rig = world(rig) if world else rig
        sitting = play(rig, model, NOISE[believed or care], rng, way, shown or curves)
        axis = sitting.axes["spine"]
        best, chance = surest(axis)
        found.right.append(best == rig.truth)
        found.near.append(best in rig.near())
        found.chance.append(chance)
        found.said.append(verdict(axis) == best)
        found.truth.append(rig.truth)
        found.best.append(best)
        found.tests.append(len(sitting.done))
        found.arrows.append(sum(map(arrows_of, sitting.done)))
    return found


def rule_of_thumb(rigs: int, tests: Sequence[FlightTest], care: Care = "ordinary") -> Trial:
    """Believe the tail as it points: the sum of these tests' sides decides."""
    found = Trial()
    for seed in range(rigs):
        rng = np.random.default_rng(seed)
        curves = curves_of_kind(KINDS[seed % len(KINDS)])
        rig = a_rig(curves, NOISE[care], rng.uniform(-4, 9), rng)
        side = 0.0
        for test in tests:
            reading = rig.shoot(test, test.spine_push, rng)
            side += np.sign(reading - 3) if test.sees == "tail" else np.sign(reading)
        best = "tuned" if side == 0 else "weak" if side < 0 else "stiff"
        found.right.append(best == rig.truth)
        found.near.append(best in rig.near())
        found.truth.append(rig.truth)
        found.best.append(best)
        found.tests.append(len(tests))
    return found


def model_alone(rigs: int) -> Trial:
    """Believe the computed match, no shot."""
    found = Trial()
    for seed in range(rigs):
        rng = np.random.default_rng(seed)
        curves = curves_of_kind(KINDS[seed % len(KINDS)])
        model = rng.uniform(-4, 9)
        rig = a_rig(curves, NOISE["ordinary"], model, rng)
        best, _ = surest(new_axis("spine", curves, model))
        found.right.append(best == rig.truth)
        found.near.append(best in rig.near())
        found.truth.append(rig.truth)
        found.best.append(best)
        found.tests.append(0)
    return found


def _shifted(by: Contact, more: float) -> Contact:
    return Contact(by.way, by.shift + more)


def _noisier(times: float) -> World:
    def noisy(rig: VirtualRig) -> VirtualRig:
        care = rig.care
        wide = care._replace(eye_deg=times * care.eye_deg, scatter_m=times * care.scatter_m)
        return replace(rig, care=wide)

    return noisy


WORLDS: dict[str, World] = {
    "readings x 0.7": lambda rig: replace(rig, gain=0.7 * rig.gain),
    "readings x 1.4": lambda rig: replace(rig, gain=1.4 * rig.gain),
    "pushes x 0.7": lambda rig: replace(rig, push_gain=0.7 * rig.push_gain),
    "pushes x 1.4": lambda rig: replace(rig, push_gain=1.4 * rig.push_gain),
    "contact 2 earlier": lambda rig: replace(rig, by=_shifted(rig.by, -2.0)),
    "contact 2 later": lambda rig: replace(rig, by=_shifted(rig.by, 2.0)),
    "noise x 1.5": _noisier(1.5),
    "noise x 2": _noisier(2.0),
    "one in ten is wrong": lambda rig: replace(rig, care=rig.care._replace(lapse=0.1)),
}
FOUR_AT_ONCE: World = lambda rig: _noisier(1.5)(  # noqa: E731
    replace(rig, gain=0.7 * rig.gain, by=_shifted(rig.by, -2.0))
)
