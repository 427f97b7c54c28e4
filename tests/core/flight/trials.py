"""Many virtual rigs of four kinds of bow, shot and judged in several ways: for tests and bench."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from functools import cache
from statistics import median

import numpy as np

from lyrandis.core.arrow.match import match_spine
from lyrandis.core.flight.belief import Axis, new_axis
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
from lyrandis.core.flight.curves import NEVER, Curves, UprightCurves
from lyrandis.core.flight.likely import NOISE, Noise, Push
from lyrandis.core.flight.settle import corrected, tuned, wanted
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
LEVERS = {"longbow": 0.8, "plate": 0.8, "plunger": 0.8, "thumb": 2.0}
"""What the reversible levers give together, either way [index]."""
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
ROUND, ROUND_ENOUGH, MOST_LOOP, MOST_ROUNDS = 4, 0.85, 18, 12
World = Callable[[VirtualRig], VirtualRig]
Way = Callable[[Sitting, Noise, np.random.Generator], FlightTest | None]


@cache
def curves_of_kind(kind: str) -> Curves:
    """Return the curves of a kind of bow, as the application reckons them."""
    case = _CASES[kind]
    matched = match_spine(case.shot).matched or 50.0
    return curves_of(case.shot, unfletched(case.shot), matched, case.diameter_mm / 1000)


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


@dataclass
class Loop:
    """What closed loops came to: how far off, how many arrows, whether it was said."""

    spine: list[float] = field(default_factory=list)
    nock_mm: list[float] = field(default_factory=list)
    done: list[bool] = field(default_factory=list)
    arrows: list[float] = field(default_factory=list)
    tests: list[int] = field(default_factory=list)

    def within(self, index: float, nock_mm: float = math.inf) -> float:
        """Share of the rigs that ended within so much of both."""
        return mean([
            abs(x) <= index and abs(h) <= nock_mm
            for x, h in zip(self.spine, self.nock_mm, strict=True)
        ])  # fmt: skip


def nock_rig(care: Noise, rng: np.random.Generator) -> VirtualRig:
    """Draw how far the nock stands too low, in steps of 2 mm."""
    wide = rng.random() < 0.05
    shift = NEVER if rng.random() < 0.2 else 1.5 * rng.standard_normal()
    return VirtualRig(
        UprightCurves(), care, (4.0 if wide else 2.0) * rng.standard_normal(), shift,
        float(np.exp(0.35 * rng.standard_normal())), 0.4 * rng.standard_normal(),
        0.4 * rng.standard_normal(), 1.0, rng.random(),
    )  # fmt: skip


def loop(
    rigs: int, care: Care = "ordinary", *, nock: bool = False, world: World | None = None
) -> Loop:
    """Test, correct and test again, until tuned is said or eighteen tests are shot."""
    found = Loop()
    for seed in range(rigs):
        rng = np.random.default_rng(10_000 + seed)
        kind = KINDS[seed % len(KINDS)]
        curves, noise = curves_of_kind(kind), NOISE[care]
        model = rng.uniform(-4, 9)
        rig = a_rig(curves, noise, model, rng)
        rig = world(rig) if world else rig
        rigs_of = {"spine": rig}
        axes = {"spine": new_axis("spine", curves, model)}
        if nock:
            rigs_of["upright"] = nock_rig(noise, rng)
            axes["upright"] = new_axis("upright", UprightCurves())
        tests: list[FlightTest] = []
        for _ in range(MOST_ROUNDS):
            if len(tests) > MOST_LOOP or all(map(tuned, axes.values())):
                break
            axes, shot = _round(axes, rigs_of, noise, rng)
            tests += shot
            if not shot and not _due(axes):
                break
            axes, rigs_of = _correct(axes, rigs_of, LEVERS[kind], rng)
        found.spine.append(rigs_of["spine"].index)
        found.nock_mm.append(2 * rigs_of["upright"].index if nock else 0.0)
        found.done.append(all(map(tuned, axes.values())))
        found.arrows.append(sum(map(arrows_of, tests)))
        found.tests.append(len(tests))
    return found


def _due(axes: dict[str, Axis]) -> bool:
    return any(wanted(axis) is not None for axis in axes.values())


def _round(
    axes: dict[str, Axis], rigs: dict[str, VirtualRig], noise: Noise, rng: np.random.Generator
) -> tuple[dict[str, Axis], list[FlightTest]]:
    """Shoot at most four tests, fewer where enough is known."""
    sitting = Sitting(axes)
    while len(sitting.done) < ROUND:
        if sitting.done and all(surest(axis)[1] >= ROUND_ENOUGH for axis in sitting.axes.values()):
            break
        test = best_test(sitting, noise, rng)
        if test is None:
            break
        pushes = {"spine": test.spine_push, "upright": test.upright_push}
        seen = {
            name: rig.shoot(test, pushes[name], rng)
            for name, rig in rigs.items()
            if not (name == "upright" and test.sees in ("mark", "slap"))
        }
        sitting = after(sitting, test, seen, noise)
    return dict(sitting.axes), list(sitting.done)


def _correct(
    axes: dict[str, Axis], rigs: dict[str, VirtualRig], levers: float, rng: np.random.Generator
) -> tuple[dict[str, Axis], dict[str, VirtualRig]]:
    """Move the nock where it is due, then the shaft; what really happens is not quite as said."""
    axes, rigs = dict(axes), dict(rigs)
    if "upright" in axes and not tuned(axes["upright"]):
        by = wanted(axes["upright"])
        if by is not None:
            truth = rigs["upright"].index + by * (1 + 0.1 * rng.standard_normal())
            rigs["upright"] = rigs["upright"].at(truth)
            axes["upright"] = corrected(axes["upright"], by, "nock")
    by = wanted(axes["spine"]) if not tuned(axes["spine"]) else None
    if by is None:
        return axes, rigs
    rig = rigs["spine"]
    if abs(by) <= 1.5 and levers >= 0.6 * abs(by):
        by = math.copysign(min(abs(by), levers), by)
        really = by * rig.push_gain * (1 + 0.15 * rng.standard_normal())
        axes["spine"] = corrected(axes["spine"], by, "lever")
    else:
        by = max(-4.0, min(4.0, by))
        really = by * (1 + 0.1 * rng.standard_normal()) + 0.4 * rng.standard_normal()
        axes["spine"] = corrected(axes["spine"], by, "shafts")
    rigs["spine"] = rig.at(rig.index + really)
    return axes, rigs


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
    "contact 2 earlier": lambda rig: replace(rig, shift=rig.shift - 2),
    "contact 2 later": lambda rig: replace(rig, shift=rig.shift + 2),
    "noise x 1.5": _noisier(1.5),
    "noise x 2": _noisier(2.0),
    "one in ten is wrong": lambda rig: replace(rig, care=rig.care._replace(lapse=0.1)),
}
FOUR_AT_ONCE: World = lambda rig: _noisier(1.5)(  # noqa: E731
    replace(rig, gain=0.7 * rig.gain, shift=rig.shift - 2)
)
