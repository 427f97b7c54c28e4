"""Which test next: what each would tell, in bits, for its trouble; and when enough is known.

A test shows the tail, the bare shafts, a mark on the felt or a slap, as the bow is or with
something changed for it.
"""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from lyrandis.core.flight.belief import Axis, Plane
from lyrandis.core.flight.likely import (
    FURTHEST_TAIL_M,
    NO_PUSH,
    TAIL_CLASSES,
    Noise,
    Push,
    bare_likely,
    bare_mean,
    bare_null,
    bare_sd,
    mark_chance,
    slap_chance,
    tail_table,
)
from lyrandis.core.flight.words import CLASSES, Class, Doubtful, Pushed, Sees
from lyrandis.core.numeric import Array, normal_below

TROUBLE_MINUTES, ARROW_MINUTES = 4.0, 1.0
"""Assumption: what any test costs before it begins, and each arrow in strength and care."""
ENOUGH, KINDS, LEAST_BITS = 0.90, 2, 0.02
MOST_TESTS, MOST_TESTS_WITH_NOCK, MOST_REPEATS = 8, 10, 3
AGAIN_BITS = 0.05
"""From the third time on a test has to tell this much."""
ERRS_FROM = 0.5
"""Chance of a side from which nothing is tried that goes further to it."""
SAID_FROM, OFF_FROM, SURPRISING = 0.75, 0.5, 0.15
BARE_EDGES_M: Array = np.linspace(-1.2, 1.2, 25)
"""Borders of the bins of bare less fletched at 18 m; open at both ends."""


@dataclass(frozen=True)
class FlightTest:
    """One test: what is looked at, how far off, how many arrows, what is changed for it."""

    key: str
    sees: Sees
    minutes: float
    """Assumption: by hand, with the walk to the butt."""
    arrows: float = 3
    """Of bare shafts as many fletched ones; unlike numbers count as their harmonic mean."""
    distance_m: float = 2.3
    unfletched: bool = False
    """True where the tail is that of a bare shaft."""
    pushed: Pushed | None = None
    spine_push: Push = NO_PUSH
    upright_push: Push = NO_PUSH
    """A trial moves one plane; the other sees it as it is."""

    @property
    def kind(self) -> tuple[Sees, bool]:
        """What counts as one kind of evidence: with a trial or without."""
        return self.sees, self.pushed is not None

    @property
    def shot(self) -> float:
        """How many arrows are shot for it."""
        return 2 * self.arrows if self.sees == "bare" else self.arrows


PLAIN_TESTS = (
    FlightTest("tail", "tail", 3.0),
    FlightTest("tail_far", "tail", 3.0, distance_m=5.3),
    FlightTest("bare", "bare", 6.0, distance_m=18.0),
    FlightTest("bare_six", "bare", 9.0, arrows=6, distance_m=18.0),
    FlightTest("bare_near", "bare", 5.0, distance_m=10.0),
    FlightTest("mark", "mark", 4.0, arrows=6),
    FlightTest("slap", "slap", 2.0),
)
"""What can be looked at with nothing changed."""


def pushed_test(pushed: Pushed, push: Push) -> FlightTest:
    """Return a tail read again with something changed for it.

    Assumption: the minutes a trial adds.

    >>> pushed_test("draw_short", Push(0.5)).minutes
    6.0
    """
    adds = {
        "draw_short": 3.0, "draw_extra": 3.0, "silencers": 8.0, "plate": 6.0, "point": 6.0,
        "brace": 8.0, "other_shafts": 6.0, "nock": 6.0,
    }  # fmt: skip
    minutes = 3.0 + adds[pushed]
    if pushed == "nock":
        return FlightTest("nock_moved", "tail", minutes, pushed="nock", upright_push=push)
    return FlightTest(f"tail_{pushed}", "tail", minutes, pushed=pushed, spine_push=push)


def outcomes(axis: Axis, test: FlightTest, noise: Noise) -> Array:
    """Return how likely each outcome of a test is in each class, (outcomes, 4), and sum to one.

    Tails: the seven classes. Marks and slaps: none, some. Bare shafts: bins of 10 cm at 18 m.
    Source: the likelihoods summed over the grid; bare means are binned, then blurred by their sd.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> table = outcomes(new_axis("spine", SPINE_EXAMPLE, 5.0), PLAIN_TESTS[0], NOISE["ordinary"])
    >>> [round(one, 3) for one in table.sum(axis=1).tolist()]
    [0.158, 0.074, 0.036, 0.06, 0.096, 0.253, 0.321]
    """
    push = test.spine_push if axis.name == "spine" else test.upright_push
    by_cell = axis.class_of_cell()
    if test.sees == "bare":
        return _bare_outcomes(axis, test, noise, push, by_cell)
    if test.sees == "tail":
        table = _tails(axis, test, noise, push)
    else:
        mark = test.sees == "mark"
        some = mark_chance(axis.plane, noise, push) if mark else slap_chance(axis.plane, push)
        table = np.stack([1 - some, some])
    p = _summed(axis.p, table.shape[1:])
    over = np.einsum("oxkgdbh,xkgdbh->oxk", table, p, optimize=True)
    result: Array = np.einsum("oxk,xkc->oc", over, by_cell)
    return result


def _tails(axis: Axis, test: FlightTest, noise: Noise, push: Push) -> Array:
    """Return the tails' table; what groups say of the scatter is not in it, so it is kept."""
    plane = axis.plane.unfletched if test.unfletched else axis.plane
    eye = noise._replace(scatter_m=0.0)
    return kept_tail_table(plane, eye, test.arrows, test.distance_m, push)


@lru_cache(maxsize=24)
def kept_tail_table(
    plane: Plane, noise: Noise, arrows: float, distance_m: float, push: Push
) -> Array:
    """Return `tail_table`, kept: it does not depend on what is believed. Not to be written to.

    Source: `tail_table`.

    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> plane = Plane("spine", SPINE_EXAMPLE)
    >>> kept_tail_table(plane, NOISE["ordinary"], 3, 2.3, NO_PUSH).shape
    (7, 45, 10, 3, 3, 1, 1)
    """
    table = tail_table(plane, noise, arrows, distance_m, push)
    table.setflags(write=False)
    return table


def _summed(p: Array, shape: tuple[int, ...]) -> Array:
    """Sum the grid over what a table does not tell apart."""
    alike = tuple(i for i, size in enumerate(shape) if size == 1)
    result: Array = p.sum(axis=alike, keepdims=True)
    return result


def _bare_outcomes(axis: Axis, test: FlightTest, noise: Noise, push: Push, by_cell: Array) -> Array:
    mean = bare_mean(axis.plane, test.distance_m, push)
    edges = BARE_EDGES_M * test.distance_m / 18.0
    weight = _summed(axis.p, mean.shape)[..., None] * by_cell[:, :, None, None, None, None, :]
    bins = np.digitize(np.broadcast_to(mean, weight.shape[:-1]), edges).ravel()
    held = np.stack(
        [np.bincount(bins, item.ravel(), len(edges) + 1) for item in np.moveaxis(weight, -1, 0)],
        axis=1,
    )
    step = edges[1] - edges[0]
    centres = np.append(edges - step / 2, edges[-1] + step / 2)
    sd = bare_sd(noise, test.distance_m, test.arrows)
    below = normal_below((edges[None, :] - centres[:, None]) / sd)
    ends = np.zeros((len(centres), 1))
    blur = np.diff(np.concatenate([ends, below, ends + 1], axis=1), axis=1)
    result: Array = blur.T @ held
    return result


def bits(axis: Axis, test: FlightTest, noise: Noise) -> float:
    """Return how much a test tells of the class: the mutual information [bit].

    I = sum P(o, c) log2(P(o, c) / (P(o) P(c))); the side plate tells nothing of the nock's height.
    Source: Shannon's mutual information.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    >>> [round(bits(axis, test, NOISE["ordinary"]), 2) for test in PLAIN_TESTS[:2]]
    [0.75, 0.14]
    """
    if test.sees == "mark" and axis.name == "upright":
        return 0.0
    joint = outcomes(axis, test, noise)
    apart = joint.sum(axis=1, keepdims=True) * joint.sum(axis=0, keepdims=True)
    there = joint > 0
    return max(float((joint[there] * np.log2(joint[there] / apart[there])).sum()), 0.0)


@dataclass(frozen=True)
class Worth:
    """What a test would tell, and what that is for its trouble."""

    test: FlightTest
    bits: float

    @property
    def per_minute(self) -> float:
        trouble = self.test.minutes + TROUBLE_MINUTES + ARROW_MINUTES * self.test.shot
        return self.bits / trouble


@dataclass(frozen=True)
class Sitting:
    """What is believed, and what was shot so far in one sitting."""

    axes: Mapping[str, Axis]
    """The axes that are asked, by name."""
    done: tuple[FlightTest, ...] = ()
    before: frozenset[tuple[Sees, bool]] = frozenset()
    """Kinds of evidence that were seen before it."""
    confirms: int = 0
    """Readings still wanted after a change before anything may be called tuned."""

    @property
    def kinds(self) -> frozenset[tuple[Sees, bool]]:
        return self.before | {test.kind for test in self.done}

    @property
    def most(self) -> int:
        """How many tests one sitting may have."""
        return MOST_TESTS_WITH_NOCK if "upright" in self.axes else MOST_TESTS


def surest(axis: Axis) -> tuple[Class, float]:
    """Return the likeliest class and its chance.

    Source: `Axis.chances`.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> surest(new_axis("spine", SPINE_EXAMPLE, 5.0))[0]
    'stiff'
    """
    chances = axis.chances()
    best = max(CLASSES, key=lambda name: chances[name])
    return best, chances[best]


def settled(axis: Axis) -> bool:
    """Tell whether the class of an axis is known well enough.

    Assumption: nine in ten.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> settled(new_axis("spine", SPINE_EXAMPLE, 5.0))
    False
    """
    return surest(axis)[1] >= ENOUGH


def ranked(sitting: Sitting, offered: Iterable[FlightTest], noise: Noise) -> list[Worth]:
    """Return the tests worth shooting, the best first; empty where enough is known.

    Only axes that are not settled count. Where all are and one kind of evidence was seen, the
    tests of another kind remain, for all axes.
    Assumption: the limits of a sitting.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> sitting = Sitting({"spine": new_axis("spine", SPINE_EXAMPLE, 5.0)})
    >>> [worth.test.key for worth in ranked(sitting, PLAIN_TESTS, NOISE["ordinary"])[:2]]
    ['tail', 'bare']
    """
    if len(sitting.done) >= sitting.most:
        return []
    open_axes = [axis for axis in sitting.axes.values() if not settled(axis)]
    alone = not open_axes and len(sitting.kinds) < KINDS
    confirming = not open_axes and not alone and sitting.confirms > 0
    if not open_axes and not alone and not confirming:
        return []
    times = Counter(test.key for test in sitting.done)
    result = [
        Worth(test, sum(bits(axis, test, noise) for axis in open_axes or sitting.axes.values()))
        for test in offered
        if times[test.key] < MOST_REPEATS
        and not (alone and test.kind in sitting.kinds)
        and not errs_further(sitting.axes.get("spine"), test)
    ]
    worth = [
        item
        for item in result
        if alone
        or confirming
        or item.bits >= (LEAST_BITS if times[item.test.key] < MOST_REPEATS - 1 else AGAIN_BITS)
    ]
    return sorted(worth, key=lambda item: (-item.per_minute, item.test.key))


def errs_further(axis: Axis | None, test: FlightTest) -> bool:
    """Tell whether a trial goes further to the side the shaft most likely errs to already.

    Assumption: from more likely than not.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    >>> [errs_further(axis, pushed_test("other_shafts", Push(by, True))) for by in (2.0, -2.0)]
    [True, False]
    """
    by = test.spine_push.by
    if axis is None or by == 0:
        return False
    chances = axis.chances()
    stiff = chances["stiff"] + chances["false_weak"]
    return (stiff if by > 0 else chances["weak"]) > ERRS_FROM


def likelihood(axis: Axis, test: FlightTest, reading: float, noise: Noise) -> tuple[Array, float]:
    """Return how likely a reading is over the grid, and where something else changed.

    Tails read a class 0 to 6, bare shafts metres bare less fletched, marks and slaps 0 and 1.
    Source: `tail_table`, `bare_likely`, `mark_chance`, `slap_chance`.
    Raise ValueError where a tail class or an answer is none of these, or a tail is seen too far.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    >>> likelihood(axis, PLAIN_TESTS[-1], 1, NOISE["ordinary"])[1]
    0.5
    """
    push = test.spine_push if axis.name == "spine" else test.upright_push
    if test.sees == "bare":
        far = test.distance_m
        likely = bare_likely(axis.plane, noise, reading, far, test.arrows, push)
        return likely, bare_null(reading, far)
    classes = TAIL_CLASSES if test.sees == "tail" else 2
    if reading not in range(classes):
        raise ValueError(f"{reading} is none of the {classes} things a {test.sees} can be")
    if test.sees == "tail":
        if test.distance_m > FURTHEST_TAIL_M:
            raise ValueError(f"a tail seen beyond {FURTHEST_TAIL_M:g} m tells neither side")
        table = _tails(axis, test, noise, push)
        return table[int(reading)], 1 / TAIL_CLASSES
    mark = test.sees == "mark"
    some = mark_chance(axis.plane, noise, push) if mark else slap_chance(axis.plane, push)
    return (some if reading else 1 - some), 0.5


def seen(axis: Axis, test: FlightTest, reading: float, noise: Noise) -> Axis:
    """Return the belief after a test read something, as `likelihood` takes it.

    Source: `Axis.seen` with the test's likelihood.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    >>> surest(seen(axis, PLAIN_TESTS[0], 1, NOISE["ordinary"]))[0]
    'false_weak'
    """
    return axis.seen(*likelihood(axis, test, reading, noise))


def surprising(axis: Axis, test: FlightTest, reading: float, noise: Noise) -> bool:
    """Tell whether a reading is so unlike what is believed that it wants shooting once more.

    Assumption: a seventh as likely as where something else changed.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> steady, bare = NOISE["steady"], PLAIN_TESTS[2]
    >>> axis = seen(new_axis("spine", SPINE_EXAMPLE, 0.0), bare, 0.0, steady)
    >>> [surprising(axis, bare, gap, steady) for gap in (0.1, 0.8)]
    [False, True]
    """
    likely, null = likelihood(axis, test, reading, noise)
    return float((axis.p * likely).sum()) < SURPRISING * null


def verdict(axis: Axis) -> Class | Doubtful:
    """Return what may be said of an axis: its class, or why none can be named.

    Assumption: a class is said from three in four; readings contradict once that is likelier
    than not.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> verdict(new_axis("spine", SPINE_EXAMPLE, 5.0))
    'unsure'
    """
    if axis.off > OFF_FROM:
        return "contradict"
    best, chance = surest(axis)
    return best if chance >= SAID_FROM else "unsure"


def after(
    sitting: Sitting, test: FlightTest, readings: Mapping[str, float], noise: Noise
) -> Sitting:
    """Return the sitting after a test that read these along the axes, by name.

    Source: `seen`, each axis by itself.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.likely import NOISE
    >>> sitting = Sitting({"spine": new_axis("spine", SPINE_EXAMPLE, 5.0)})
    >>> len(after(sitting, PLAIN_TESTS[0], {"spine": 1}, NOISE["ordinary"]).done)
    1
    """
    axes = {
        name: seen(axis, test, readings[name], noise) if name in readings else axis
        for name, axis in sitting.axes.items()
    }
    return replace(sitting, axes=axes, done=(*sitting.done, test))
