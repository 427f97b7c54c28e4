"""Made-up archers who fly whole evenings by the page's own next step, until it says to keep.

Nothing is decided here: `under_way`, `left_changed` and `test_asked` say what is done, and what the
step records is what is recorded. The truth is another world's: curves of another bow of the kind
mixed in, contact by another gate, readings by an archer of their own.
"""

import math
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from datetime import timedelta
from functools import lru_cache
from typing import Any, Literal

import numpy as np

from lyrandis.core.arrow.readings import ArrowBuild
from lyrandis.core.computed import Computed, compute
from lyrandis.core.entries import Entry
from lyrandis.core.flight.choose import PLAIN_TESTS, FlightTest
from lyrandis.core.flight.correct import levers_of
from lyrandis.core.flight.curves import (
    GATE_OPENS,
    GATE_WIDTH,
    NEVER,
    ONSET_FROM,
    Contact,
    Curves,
    Touch,
    UprightCurves,
    contact,
)
from lyrandis.core.flight.evidence import Reckoned, push_of, reckon, upright_push
from lyrandis.core.flight.likely import NO_PUSH, NOISE, Noise, Push
from lyrandis.core.flight.plan import left_changed, test_asked, under_way
from lyrandis.core.flight.readings import (
    BareApart,
    Change,
    FlightKit,
    PlateMarked,
    RigTuned,
    ShotCare,
    SittingEnded,
    SlapHeard,
    TailSeen,
    TrialSet,
)
from lyrandis.core.flight.virtual import VirtualRig, a_contact
from lyrandis.core.flight.words import Care
from lyrandis.core.judgement import NextStep, Recordable
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.numeric import Array
from lyrandis.core.reading import BaseReading
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from tests.core.population.rigs import Rig, rig_of
from tests.entries import NOW, draft, entries

Trouble = Literal["heavy tails", "drift", "alike within a sitting", "slips"]
TROUBLES: tuple[Trouble, ...] = ("heavy tails", "drift", "alike within a sitting", "slips")
"""What an archer's readings suffer from, one kind each."""
DRIFT_INDEX, ALIKE_INDEX, SLIP = 0.08, 0.4, 0.05
"""A reading more each test, of all in one sitting, and how often the side is recorded wrong."""
MOST_STEPS = 90
ENDED = ("tuned", "near")


@dataclass(frozen=True)
class OtherGate(Curves):
    """A truth whose contact begins elsewhere, and slower, than the engine believes."""

    shifted: float = 0.0

    def _gate(self, x: Array, shift: Array) -> Array:
        opens = np.maximum(self.onset + self.shifted + shift, ONSET_FROM) + GATE_OPENS
        result: Array = 1.0 / (1.0 + np.exp(-np.clip((x - opens) / (2 * GATE_WIDTH), -60.0, 60.0)))
        return result


@dataclass(frozen=True)
class World:
    """Where evenings are flown."""

    name: str
    of_bench: bool = False
    """True for the engine's own curves and gate: the friendly world."""
    troubled: bool = True
    index: tuple[float, float] = (-4.0, 8.0)
    """Between which model indices shafts are drawn."""
    truth: tuple[float, float] | None = None
    """Between which true ones, where it is the truth that is drawn."""
    looks_up: bool = False
    newcomer: bool = False
    """True where it is told as a newcomer tells it, and where its plate stands is left open."""
    zeros: float = 0.4
    gain: float = 0.35


@dataclass
class Evening:
    """What came of one archer's evening."""

    seed: int
    kind: str
    began: float
    truth: str
    named: str | None = None
    """The first cause that was said, or corrected by."""
    end: str = "none"
    index: float = 0.0
    nock_mm: float = 0.0
    said: float = 0.0
    within: float = 0.0
    arrows: float = 0.0
    minutes: float = 0.0
    steps: int = 0
    empty: int = 0
    corrections: int = 0
    days: int = 1
    far_weak_called_tuned: bool = False
    trouble: str = ""
    trace: list[str] = field(default_factory=list)


@lru_cache(maxsize=256)
def reckoned_of(seed: int) -> tuple[Rig, Computed, Reckoned]:
    """Return an ordinary rig of the population, computed, with its curves."""
    rig = rig_of(seed)
    c = compute(fold(entries(*rig.lines())))
    asked = c.flight.basis.asked
    assert asked is not None
    return rig, c, reckon(asked)


def truths_of(seed: int) -> tuple[Curves, Curves]:
    """Return two bows' curves of this kind that read as practice has it: its own first, if so."""
    family, found = rig_of(seed).family, []
    for other in range(seed, seed + 2000):
        if rig_of(other).family != family:
            continue
        shot = reckoned_of(other)[2]
        if shot.understood:
            found.append(shot.curves)
        if len(found) == 2:
            return found[0], found[1]
    raise AssertionError(f"no two bows like {seed}")


def mixed(one: Curves, other: Curves, shifted: float) -> OtherGate:
    """Return curves halfway between two bows', with another gate."""

    def half(a: tuple[float, ...], b: tuple[float, ...]) -> tuple[float, ...]:
        return tuple((x + y) / 2 for x, y in zip(a, b, strict=True))

    return OtherGate(
        index=one.index,
        tail_clean=half(one.tail_clean, other.tail_clean),
        tail_struck=half(one.tail_struck, other.tail_struck),
        bare_m=one.bare_m,
        bare_clean=tuple(map(half, one.bare_clean, other.bare_clean)),
        bare_struck=tuple(map(half, one.bare_struck, other.bare_struck)),
        impulse=half(one.impulse, other.impulse),
        shifted=shifted,
    )


class Archer:
    """One archer with one rig of which we know the truth."""

    def __init__(self, seed: int, world: World) -> None:
        self.rng = rng = np.random.default_rng(500_000 + seed)
        self.world = world
        rig, c, reckoned = reckoned_of(seed)
        assert c.arrow.model is not None
        cares: tuple[Care, ...] = ("ordinary", "steady", "ordinary", "beginning")
        care: Care = "ordinary" if world.of_bench else cares[seed % 4]
        told: Care = care if rng.random() < 0.7 else "ordinary"
        self.trouble: Trouble | None = TROUBLES[seed // 4 % 4] if world.troubled else None
        model = rng.uniform(*world.index)
        error = (5.0 if rng.random() < 0.1 else 1.8) * rng.standard_normal()
        if world.truth is not None:
            # the truth is drawn; what the model says of it is off by its own error
            index = rng.uniform(*world.truth)
            model = index - error
        else:
            index = model + error
        own = c.arrow.model.matched * math.exp(model / 10)
        own = round(min(max(own, 16.0), 150.0), 1)
        model = 10 * math.log(own / c.arrow.model.matched)
        by: Contact
        if world.of_bench:
            by, truth = a_contact(rng), reckoned.curves
        else:
            touch = rng.random()
            by = NEVER if touch < 0.10 else contact(Touch.ALWAYS if touch < 0.15 else Touch.BOTH)
            truth = mixed(*truths_of(seed), 1.5 * rng.standard_normal())
        self.noise: Noise = NOISE[care]
        self.rig = VirtualRig(
            truth, self.noise, float(index), by,
            gain=float(np.exp(world.gain * rng.standard_normal())),
            tail_zero=world.zeros * rng.standard_normal(),
            bare_zero=world.zeros * rng.standard_normal(),
            push_gain=max(float(1 + 0.5 * rng.standard_normal()), 0.0), swing=rng.random(),
        )  # fmt: skip
        self.nock = VirtualRig(
            UprightCurves(), self.noise, 2.0 * rng.standard_normal(),
            gain=float(np.exp(0.35 * rng.standard_normal())),
            tail_zero=0.4 * rng.standard_normal(), bare_zero=0.4 * rng.standard_normal(),
        )  # fmt: skip
        self.own = own
        rng.standard_normal()  # nothing hangs on it: the proved evenings draw in this order
        other = math.exp(rng.choice((-1, 1)) * rng.uniform(0.1, 0.3))
        kit = FlightKit(
            bare_shafts=bool(rng.random() < 0.7) or world.of_bench,
            felt=bool(rng.random() < 0.7) or world.of_bench,
            other_shafts_lbf=min(max(round(own * other, 1), 16.0), 140.0)
            if rng.random() < 0.5 or world.of_bench
            else None,
        )
        told_of = rig.newcomer() if world.newcomer else rig.lines()
        lines = [line for line in told_of if not line.startswith("spine ")]
        if world.newcomer:
            lines.append("aside window")
        self.entries: list[Entry] = entries(
            *lines, f"spine {own} lb", "lift 3mm", kit, ShotCare(care=told)
        )
        self.at = NOW + timedelta(days=60)
        self.shots = 0
        self.sitting = 0.0
        self._new_sitting()

    def _new_sitting(self) -> None:
        alike = self.trouble == "alike within a sitting"
        self.sitting = ALIKE_INDEX * self.rng.standard_normal() if alike else 0.0
        self.shots = 0

    def computed(self) -> Computed:
        return compute(fold(self.entries))

    def record(self, reading: BaseReading, on: Any = None) -> None:
        """Record one reading, a few minutes later."""
        self.at += timedelta(minutes=3)
        subject = on or ("rig" if "rig" in reading.of else sorted(reading.of)[0])
        one = draft(reading, on=subject)
        one = one.model_copy(update={"happened_at": self.at})
        self.entries += as_entries([one], now=self.at, after=len(self.entries))

    def moved(self, rig: VirtualRig) -> VirtualRig:
        """Return the rig as it shoots now: what an evening adds to every reading."""
        drift = DRIFT_INDEX * self.shots if self.trouble == "drift" else 0.0
        return rig.at(rig.index + self.sitting + drift)

    def shoot(self, c: Computed, test: FlightTest, trial: Change | None) -> None:
        """Shoot a test and record what is seen, with the trial that is on."""
        view = c.flight.basis.view
        hands = c.flight.basis.hands
        push, up = NO_PUSH, NO_PUSH
        if trial is not None and view is not None:
            push = push_of(view.reckoned, trial, view.own_lbf, view.tip_gr, view.silencers_share)
            up = upright_push(trial)
        if trial is not None and trial.what == "other_shafts":
            push = Push(push.by + 0.4 * self.rng.standard_normal(), exact=True)
        read = self.moved(self.rig).shoot(test, push, self.rng)
        high = self.moved(self.nock).shoot(test, up, self.rng) if self.world.looks_up else None
        self.shots += 1
        if self.trouble == "slips" and self.rng.random() < SLIP:
            read = (
                6 - read
                if test.sees == "tail"
                else 1 - read
                if test.sees in ("mark", "slap")
                else -read
            )
        if test.sees == "tail":
            across = int(hands.stiff_tail(1.0) * (read - 3))
            self.record(TailSeen(
                across=across, up=None if high is None else int(3 - high),
                distance_m=test.distance_m, arrows=round(test.arrows), trial=trial,
            ))  # fmt: skip
        elif test.sees == "bare":
            right = hands.stiff_bare(1.0) * read * 1000
            self.record(BareApart(
                right_mm=max(-1900.0, min(1900.0, right)),
                up_mm=None if high is None else max(-1900.0, min(1900.0, high * 1000)),
                distance_m=test.distance_m, bare=round(test.arrows), fletched=round(test.arrows),
                trial=trial,
            ))  # fmt: skip
        elif test.sees == "mark":
            self.record(PlateMarked(mark=bool(read), trial=trial))
        else:
            self.record(SlapHeard(heard=bool(read), trial=trial))

    def do(self, c: Computed, records: Sequence[Recordable]) -> None:
        """Do what a step records, and record it: what it really does is not quite as said."""
        spine = [one for one in records
                 if one.reading.kind in ("string_build", "arrow_pass", "arrow_build")]  # fmt: skip
        if spine:
            lever = next(one for one in levers_of(c) if one.first)
            really = lever.by * self.rig.push_gain * (1 + 0.15 * self.rng.standard_normal())
            self.rig = self.rig.at(self.rig.index + really)
        for one in records:
            if isinstance(one.reading, NockHeight) and c.nock.lift is not None:
                up = one.reading.height_mm - c.nock.lift.value
                self.nock = self.nock.at(self.nock.index - up / 2)
            if isinstance(one.reading, SittingEnded):
                self.record(one.reading)
                self.at += timedelta(days=1)
                self._new_sitting()
                continue
            self.record(one.reading, one.subject)

    def get_shafts(self, c: Computed) -> None:
        """Get shafts of the spine the first lever names, in the next class that is sold."""
        lever = next(one for one in levers_of(c) if one.first)
        own = c.flight.basis.own_lbf
        assert own is not None
        wants = own * math.exp(lever.by / 10)
        sold = max(2.0 * round(wants / 2), 16.0)
        really = 10 * math.log(sold / own) + 0.4 * self.rng.standard_normal()
        self.rig = self.rig.at(self.rig.index + really)
        self.at += timedelta(days=3)
        self._new_sitting()
        self.record(ArrowBuild(spine_lbf=sold))


def step_of(c: Computed) -> NextStep | None:
    """The card's step, as the page's policy has it once other stages have nothing to say."""
    return left_changed(c) or under_way(c)


def fly(seed: int, world: World, *, trace: bool = False) -> Evening:
    """Fly one archer's evenings, from the first tail to the end."""
    archer = Archer(seed, world)
    out = Evening(seed, rig_of(seed).family, archer.rig.index, archer.rig.truth)
    out.trouble = archer.trouble or ""
    c = archer.computed()
    archer.shoot(c, PLAIN_TESTS[0], None)
    out.arrows += 3
    while out.steps < MOST_STEPS:
        out.steps += 1
        c = archer.computed()
        _named(out, c)
        step = step_of(c)
        if trace:
            spine = c.flight.belief.spine
            out.trace.append(
                f"{step.title.text() if step else None} | x {archer.rig.index:.1f} mean "
                f"{spine.mean if spine else 0:.1f} "
                + " ".join(f"{k} {v:.2f}" for k, v in (spine.chances() if spine else {}).items())
                + f" off {max(a.off for a in c.flight.belief.axes or ()):.2f}"
            )
        if step is None:
            out.empty += 1
            break
        out.minutes += step.minutes
        kept = [one.reading for one in step.action.records if isinstance(one.reading, RigTuned)]
        if kept:
            _ended(out, archer, c, kept[0])
            break
        _act(out, archer, c, step)
    return out


def _named(out: Evening, c: Computed) -> None:
    said = c.flight.verdict.said
    if out.named is None and said is not None and said.chance >= 0.75 and said.cause != "tuned":
        out.named = said.cause


def _ended(out: Evening, archer: Archer, c: Computed, kept: RigTuned) -> None:
    out.end = "tuned" if kept.tuned else "near"
    out.index, out.nock_mm = archer.rig.index, 2 * archer.nock.index
    spine = c.flight.belief.spine
    assert spine is not None
    out.said = spine.chances()["tuned"]
    out.within = c.flight.due.near.within if c.flight.due.near else 1.0
    out.far_weak_called_tuned = kept.tuned and archer.rig.index < 10 * math.log(0.75)


def _act(out: Evening, archer: Archer, c: Computed, step: NextStep) -> None:
    trial = c.flight.facts.trial
    if step.action.stage == "arrow":
        out.corrections += 1
        archer.get_shafts(c)
        return
    if step.action.records:
        changes = not isinstance(step.action.records[0].reading, TrialSet)
        out.corrections += changes
        out.days += any(isinstance(one.reading, SittingEnded) for one in step.action.records)
        archer.do(c, step.action.records)
        return
    test = PLAIN_TESTS[0] if trial is not None else test_asked(c)
    if test is None:
        out.empty += 1
        out.steps = MOST_STEPS
        return
    archer.shoot(c, test, trial)
    out.arrows += test.shot


BENCH = World("the bench's own world", of_bench=True, troubled=False)
POPULATION = World("the population")
HARSH = World("readings half as sure again", zeros=0.6, gain=0.5)
NEWCOMER = World("told as a newcomer tells it", newcomer=True)
FAR_WEAK = World("far too weak", truth=(-5.8, -2.9))
FALSE_WEAK = World("far too stiff", truth=(5.0, 9.0))
NOCK = World("nock looked at too", looks_up=True)


HABIT_LEVEL_M, HABIT_STEP, HABIT_ENDS = 0.05, 1.5, 12


def by_habit(seed: int, world: World) -> Evening:
    """Bare shafts until they join the others: other shafts a class weaker or stiffer each time.

    Beside the page: the habit of many, by the same archers with the same rigs.
    """
    archer = Archer(seed, world)
    out = Evening(seed, rig_of(seed).family, archer.rig.index, archer.rig.truth)
    bare = next(test for test in PLAIN_TESTS if test.key == "bare")
    for _ in range(HABIT_ENDS):
        gap = archer.moved(archer.rig).shoot(bare, NO_PUSH, archer.rng)
        out.arrows += bare.shot
        out.minutes += bare.minutes
        if abs(gap) <= HABIT_LEVEL_M:
            out.end = "tuned"
            break
        out.corrections += 1
        step = -math.copysign(HABIT_STEP, gap) + 0.4 * archer.rng.standard_normal()
        archer.rig = archer.rig.at(archer.rig.index + step)
    out.index = archer.rig.index
    return out


def _one(of: tuple[int, World, bool]) -> Evening:
    seed, world, habit = of
    return by_habit(seed, world) if habit else fly(seed, world)


def flown(
    seeds: Sequence[int], world: World, workers: int = 2, *, habit: bool = False
) -> list[Evening]:
    """Fly many evenings, by the page or by habit."""
    asked = [(seed, world, habit) for seed in seeds]
    if workers == 1:
        return [_one(one) for one in asked]
    with ProcessPoolExecutor(workers) as pool:
        return list(pool.map(_one, asked, chunksize=2))
