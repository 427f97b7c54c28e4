"""From what is recorded to what the belief takes: readings signed and sized, changes as shifts."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import timedelta
from functools import lru_cache
from itertools import pairwise
from typing import Literal, NamedTuple

from lyrandis.core.arrow.bend import Shot
from lyrandis.core.arrow.closing import CHANGE_STEPS, MatchChange, Moves, moves_of
from lyrandis.core.arrow.practice import RigHabit
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.flight.belief import UPRIGHT_SD, Axis, new_axis
from lyrandis.core.flight.choose import FlightTest, Sitting, seen, surprising
from lyrandis.core.flight.curves import Curves, UprightCurves, as_practice_has_it
from lyrandis.core.flight.facts import Seen
from lyrandis.core.flight.likely import (
    CLEAR_M,
    FURTHEST_TAIL_M,
    NO_PUSH,
    Noise,
    Push,
    angle_class,
)
from lyrandis.core.flight.readings import (
    BareApart,
    ButtHits,
    Change,
    PlateMarked,
    SlapHeard,
    TailSeen,
    apart_of,
)
from lyrandis.core.flight.settle import NOCK_MM_PER_INDEX, corrected
from lyrandis.core.flight.shot_curves import curves_of, unfletched
from lyrandis.core.flight.words import AxisName, Means
from lyrandis.core.string.silencers import moved_share

SHORT_PER_MM, EXTRA_PER_MM = 0.5 / MM_PER_IN, -0.3 / (MM_PER_IN / 2)
"""Assumption: the sign of practice; the computed shot hardly moves with the draw."""
LEAST_SILENCERS_PER_GR, LEAST_PLATE_PER_MM = 0.15 / 20, 0.2 / 2
NEAREST_BARE_M, FURTHEST_BARE_M = 7.0, 40.0
USUAL_SILENCERS_SHARE = moved_share(None, 1.0)
FAR_BARE_M = 14.0
MANY = 5
LEAST_GROUP = 3
GROUP = "group"
GROUP_SHARE = 0.2
"""Assumption: a fletched group strikes beside its aim by a fifth of what a bare shaft would."""
GROUP_ARROWS = 0.06
"""Assumption: sight and aim are off by 12 cm at 18 m: as a bare shaft a group counts so little."""
MOST_COUNTED = 30
"""The newest readings count; older ones have been answered long since."""
SITTING = timedelta(hours=8)
LEAST_SHIFT = 0.05
PRIOR_DOF = 6.0
"""Assumption: what is taken of an archer's scatter is worth so many degrees of freedom."""
BARE_SCATTER_M = 18.0
"""Distance the scatter of one arrow is given for."""


@dataclass(frozen=True)
class CurvesAsked:
    """What a rig's curves and levers are computed from; the same rig asks the same."""

    shot: Shot
    habit: RigHabit
    weight_lbf: float
    matched_lbf: float
    """What the readings are counted from: the rig's match before any flight."""
    root_lbf: float
    """Where the curves have their shape from: the mechanics' own root, else the match."""
    diameter_m: float


@dataclass(frozen=True)
class Reckoned:
    """A rig's own curves, and what moves its match."""

    asked: CurvesAsked
    curves: Curves
    understood: bool
    """False where the computed contact is not believed: then bare and other shafts decide."""
    moves: Moves


_RECKONED: dict[CurvesAsked, Reckoned] = {}
_MOST_RECKONED = 32


def known(asked: CurvesAsked) -> Reckoned | None:
    """Return what was reckoned of a rig lately; None where it would have to be worked out.

    Source: `reckon`.

    >>> from lyrandis.core.example import rig
    >>> shooting = rig().arrow.shooting
    >>> known(CurvesAsked(shooting.shot, shooting.habit, 45.0, 1.0, 1.0, 0.007)) is None
    True
    """
    return _RECKONED.get(asked)


def reckon(asked: CurvesAsked) -> Reckoned:
    """Return a rig's curves and what moves its match; heavy, half a second, so kept.

    Source: `curves_of`, `moves_of`.

    >>> from lyrandis.core.example import rig
    >>> shooting = rig().arrow.shooting
    >>> match = rig().match
    >>> found = reckon(
    ...     CurvesAsked(shooting.shot, shooting.habit, 45.0, match.matched, match.matched, 0.007)
    ... )
    >>> len(found.curves.index), known(found.asked) is found
    (18, True)
    """
    result = _RECKONED.get(asked)
    if result is None:
        shot = asked.shot
        own = curves_of(shot, unfletched(shot), asked.root_lbf, asked.diameter_m)
        result = Reckoned(
            asked,
            as_practice_has_it(own),
            own.understood,
            moves_of(shot, asked.habit, asked.weight_lbf),
        )
        while len(_RECKONED) >= _MOST_RECKONED:
            _RECKONED.pop(next(iter(_RECKONED)), None)
        _RECKONED[asked] = result
    return result


class Hands(NamedTuple):
    """Which side is which for this archer."""

    outward_is_left: bool

    def stiff_tail(self, right: float) -> float:
        """Return how stiff a tail reads that points `right`: the inner side is stiff.

        Source: the nock kicks to the inner side of a stiff shaft.

        >>> Hands(True).stiff_tail(2.0), Hands(False).stiff_tail(2.0)
        (2.0, -2.0)
        """
        return right if self.outward_is_left else -right

    def stiff_bare(self, right: float) -> float:
        """Return how stiff bare shafts read that strike `right`: the outer side is stiff.

        Source: as `stiff_tail`.

        >>> Hands(True).stiff_bare(2.0)
        -2.0
        """
        return -self.stiff_tail(right)


def sensitivity(reckoned: Reckoned, change: MatchChange, amount: float) -> float:
    """Return the shift of the index for a change of the rig [SI; weight lb], + reads stiffer.

    -10 ln(match after / match before), the match moving in proportion to the step computed.
    Source: differences of computed matches.

    >>> from lyrandis.core.example import rig
    >>> from lyrandis.core.flight.basis import asked_of
    >>> c = rig()
    >>> asked = asked_of(c.arrow)
    >>> sensitivity(reckon(asked), "length", -0.0254) > 0.5
    True
    """
    matched = reckoned.asked.matched_lbf
    moves = {lever.change: lever.pounds for lever in reckoned.moves.sensitivities}
    pounds = moves[change] * amount / CHANGE_STEPS[change]
    return -10 * math.log(max(matched + pounds, 1.0) / matched)


def point_shift(reckoned: Reckoned, before_gr: float, after_gr: float) -> float | None:
    """Return the shift of the index for another point and insert [gr]; None off the curve.

    Source: the computed match over the point's mass, linear between.

    >>> from lyrandis.core.example import rig
    >>> from lyrandis.core.flight.basis import asked_of
    >>> c = rig()
    >>> asked = asked_of(c.arrow)
    >>> point_shift(reckon(asked), 100.0, 125.0) < 0
    True
    """
    before, after = (_between(reckoned.moves.points, mass) for mass in (before_gr, after_gr))
    if before is None or after is None:
        return None
    return -10 * math.log(after / before)


def _between(known: Sequence[tuple[float, float]], at: float) -> float | None:
    for (low, item), (high, two) in pairwise(known):
        if low <= at <= high:
            return item + (two - item) * (at - low) / (high - low)
    return None


def push_of(
    reckoned: Reckoned,
    change: Change,
    own_lbf: float | None,
    tip_gr: float,
    silencers_share: float = USUAL_SILENCERS_SHARE,
) -> Push:
    """Return what a trial does to the index of the spine; nothing where it moves the nock.

    `silencers_share`: how much of a grain of silencers moves with the arrow, at its place.

    Raise ValueError for other shafts where the own spine is not known.
    Source: this rig's sensitivities, never below what practice sees; draws by practice.

    >>> from lyrandis.core.example import rig
    >>> from lyrandis.core.flight.basis import asked_of
    >>> c = rig()
    >>> asked = asked_of(c.arrow)
    >>> round(push_of(reckon(asked), Change(what="draw_short", amount=25.4), 60.0, 110.0).by, 2)
    0.5
    """
    by = change.amount
    match change.what:
        case "draw_short":
            return Push(SHORT_PER_MM * by)
        case "draw_extra":
            return Push(EXTRA_PER_MM * by)
        case "silencers":
            result = sensitivity(reckoned, "string", silencers_share * by * KG_PER_GRAIN)
            return Push(_at_least(result, LEAST_SILENCERS_PER_GR * by))
        case "plate":
            result = sensitivity(reckoned, "window", by / 1000)
            return Push(_at_least(result, LEAST_PLATE_PER_MM * by))
        case "brace":
            return Push(sensitivity(reckoned, "brace", by / 1000))
        case "point":
            return Push(point_shift(reckoned, tip_gr, tip_gr + by) or 0.0)
        case "other_shafts":
            if own_lbf is None:
                raise ValueError("the own spine is not known")
            return Push(10 * math.log(by / own_lbf), exact=True)
        case "nock":
            return NO_PUSH


def _at_least(found: float, least: float) -> float:
    """Return a shift in the direction of `least`, and never smaller than it."""
    return math.copysign(max(abs(least), found * math.copysign(1.0, least)), least)


def upright_push(change: Change) -> Push:
    """Return what a trial does to the index of the nock: exact, and nothing unless it moves it.

    Source: the index's step of 2 mm, + is lower.

    >>> upright_push(Change(what="nock", amount=3.0))
    Push(by=-1.5, exact=True)
    """
    if change.what != "nock":
        return NO_PUSH
    return Push(-change.amount / NOCK_MM_PER_INDEX, exact=True)


@dataclass(frozen=True)
class Saw:
    """A reading as the belief takes it: + reads stiff, and nock low; None where not looked at."""

    test: FlightTest
    spine: float | None = None
    upright: float | None = None


@dataclass(frozen=True)
class Shifted:
    """A change of the rig as the belief takes it."""

    axis: AxisName
    by: float
    means: Means


SittingStep = Saw | Shifted
NotCounted = Literal[
    "swings", "too_near", "too_far", "one_kind", "no_spine", "feathers", "walk_back", "older",
    "bare_tail_far", "waits", "anew",
]  # fmt: skip
NOT_COUNTED_WORDS: dict[NotCounted, str] = {
    "swings": "from 6 m on a healthy tail swings over, so it says neither",
    "too_near": "so near bare shafts have not parted yet",
    "too_far": "so far the model does not carry",
    "one_kind": "bare alone, or fewer than three fletched, say nothing of the match",
    "no_spine": "the shafts' own spine is not told, so the step to the others is not known",
    "feathers": "feathers are not in the mechanics",
    "walk_back": "drift over distance is not in the mechanics",
    "older": "older than the thirty readings that count",
    "bare_tail_far": "without feathers a tail is read from 2 to 3.5 m only",
    "anew": "from before you began anew",
    "waits": "kept; it is weighed once the rig is told well enough",
}
"""Why a reading is kept but does not count."""


@dataclass(frozen=True)
class View:
    """What readings are looked at with: the rig's curves, the archer's hands and arrow."""

    reckoned: Reckoned
    hands: Hands
    own_lbf: float | None
    length_mm: float
    tip_gr: float
    silencers_share: float = USUAL_SILENCERS_SHARE
    """How much of a grain of silencers moves with the arrow."""


def saw(view: View, reading: Seen) -> Saw | NotCounted:
    """Return a reading as the belief takes it, or why it does not count.

    Source: docs/MECHANICS.md, the flight.

    >>> from lyrandis.core.example import rig
    >>> from lyrandis.core.flight.basis import asked_of
    >>> c = rig()
    >>> asked = asked_of(c.arrow)
    >>> view = View(reckon(asked), Hands(True), 60.0, 750.0, 110.0)
    >>> saw(view, TailSeen(across=-2, distance_m=2.3)).spine
    1.0
    >>> saw(view, TailSeen(across=-2, distance_m=8.0))
    'swings'
    """
    if isinstance(reading, TailSeen):
        return _tail(view, reading)
    if isinstance(reading, BareApart):
        arrows = 2 / (1 / reading.bare + 1 / reading.fletched)
        return _bare(view, reading, reading.right_mm, reading.up_mm, arrows)
    if isinstance(reading, ButtHits):
        apart = apart_of(reading.hits)
        if apart is None:
            return _group(view, reading)
        return _bare(view, reading, apart.right_mm, apart.up_mm, apart.arrows)
    if isinstance(reading, PlateMarked):
        return _pushed(view, FlightTest("mark", "mark", 4.0, arrows=6), reading.trial,
                       float(reading.mark), None)  # fmt: skip
    if isinstance(reading, SlapHeard):
        test = FlightTest("slap", "slap", 2.0)
        heard = float(reading.heard)
        return _pushed(view, test, reading.trial, heard, heard)
    return "feathers" if reading.kind == "feathers_seen" else "walk_back"


def _tail(view: View, reading: TailSeen) -> Saw | NotCounted:
    far = reading.distance_m
    if far > FURTHEST_TAIL_M:
        return "swings"
    low, high = CLEAR_M
    near = low <= far <= high
    if reading.bare and not near:
        return "bare_tail_far"
    test = FlightTest(
        "tail" if near else "tail_far", "tail", 3.0, reading.arrows, far, unfletched=reading.bare
    )
    across = _class(view, reading.across, reading.across_mm, view.hands.stiff_tail(1.0))
    return _pushed(view, test, reading.trial, across, _class(view, reading.up, reading.up_mm, -1.0))


def _class(view: View, grade: int | None, off_mm: float | None, sign: float) -> float | None:
    """Return the class of a tail, 0 to 6, + reads stiff."""
    if grade is not None:
        return 3 + sign * grade
    if off_mm is None:
        return None
    share = max(-1.0, min(1.0, sign * off_mm / view.length_mm))
    return float(angle_class(math.degrees(math.asin(share))))


def _bare(
    view: View,
    reading: BareApart | ButtHits,
    right_mm: float | None,
    up_mm: float | None,
    arrows: float,
) -> Saw | NotCounted:
    far = reading.distance_m
    if far < NEAREST_BARE_M:
        return "too_near"
    if far > FURTHEST_BARE_M:
        return "too_far"
    key = "bare_near" if far < FAR_BARE_M else "bare_six" if arrows >= MANY else "bare"
    test = FlightTest(key, "bare", 6.0, arrows, far)
    across = None if right_mm is None else view.hands.stiff_bare(right_mm) / 1000
    return _pushed(view, test, reading.trial, across, None if up_mm is None else up_mm / 1000)


def _group(view: View, reading: ButtHits) -> Saw | NotCounted:
    """Return what one fletched group beside its aim says: a little, for the aim may be off too."""
    if len(reading.hits) < LEAST_GROUP or any(hit.bare for hit in reading.hits):
        return "one_kind"
    if reading.distance_m < NEAREST_BARE_M:
        return "too_near"
    if reading.distance_m > FURTHEST_BARE_M:
        return "too_far"
    right = sum(hit.right_mm for hit in reading.hits) / len(reading.hits)
    # a fletched group shows GROUP_SHARE of what a bare shaft would: that much more is doubted
    as_bare = view.hands.stiff_bare(right) / 1000 / GROUP_SHARE
    test = FlightTest(GROUP, "bare", 4.0, GROUP_ARROWS, reading.distance_m)
    return _pushed(view, test, reading.trial, as_bare, None)


def _pushed(
    view: View, test: FlightTest, trial: Change | None, spine: float | None, upright: float | None
) -> Saw | NotCounted:
    if trial is None:
        return Saw(test, spine, upright)
    try:
        push = push_of(view.reckoned, trial, view.own_lbf, view.tip_gr, view.silencers_share)
    except ValueError:
        return "no_spine"
    key = "nock_moved" if trial.what == "nock" else f"{test.key}_{trial.what}"
    pushed = replace(
        test, key=key, pushed=trial.what, spine_push=push, upright_push=upright_push(trial)
    )
    return Saw(pushed, spine, upright)


def learned(noise: Noise, ends: Iterable[ButtHits]) -> tuple[Noise, int]:
    """Return the noise with the archer's own scatter, and the degrees of freedom it rests on.

    s^2 = (6 s0^2 + sum of squares about each group's middle) / (6 + their degrees of freedom), at
    18 m, both ways across.
    Source: the scaled inverse chi-squared posterior of a variance; 6 is Assumption.

    >>> from lyrandis.core.flight.likely import NOISE
    >>> learned(NOISE["ordinary"], [])[1]
    0
    """
    squares, freedom = 0.0, 0
    for end in ends:
        share = BARE_SCATTER_M / end.distance_m
        for bare in (False, True):
            group = [hit for hit in end.hits if hit.bare == bare]
            if len(group) < 2:
                continue
            for name in ("right_mm", "up_mm"):
                values = [getattr(hit, name) / 1000 * share for hit in group]
                middle = sum(values) / len(values)
                squares += sum((value - middle) ** 2 for value in values)
                freedom += len(values) - 1
    if not freedom:
        return noise, 0
    variance = (PRIOR_DOF * noise.scatter_m**2 + squares) / (PRIOR_DOF + freedom)
    return noise._replace(scatter_m=round(math.sqrt(variance), 5)), freedom


class NockPrior(NamedTuple):
    """Where the nock is looked for before anything was seen, in steps of 2 mm too low."""

    centre: float = 0.0
    sd: float = UPRIGHT_SD


ANY_NOCK = NockPrior()


@dataclass(frozen=True)
class Start:
    """Where a belief begins."""

    curves: Curves
    noise: Noise
    centre: float
    sd: float
    wide: float
    nock: NockPrior = ANY_NOCK


@lru_cache(maxsize=16)
def believed(start: Start, steps: tuple[SittingStep, ...]) -> tuple[Axis, Axis]:
    """Return what is believed of spine and nock after so many steps, kept step by step.

    Source: `seen`, `corrected`.

    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.choose import PLAIN_TESTS
    >>> from lyrandis.core.flight.likely import NOISE
    >>> start = Start(SPINE_EXAMPLE, NOISE["ordinary"], 5.0, 1.8, 0.1)
    >>> spine, _ = believed(start, (Saw(PLAIN_TESTS[0], 1.0),))
    >>> round(spine.chances()["false_weak"], 2)
    0.78
    """
    if not steps:
        return (
            new_axis("spine", start.curves, start.centre, sd=start.sd, wide=start.wide),
            new_axis("upright", UprightCurves(), start.nock.centre, sd=start.nock.sd),
        )
    spine, upright = believed(start, steps[:-1])
    return stepped(spine, steps[-1], start.noise), stepped(upright, steps[-1], start.noise)


@lru_cache(maxsize=16)
def unexpected(start: Start, steps: tuple[SittingStep, ...]) -> bool:
    """Tell whether the last step is a reading that wants shooting once more.

    Source: `surprising`, by what was believed before it.

    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> from lyrandis.core.flight.choose import PLAIN_TESTS
    >>> from lyrandis.core.flight.likely import NOISE
    >>> start, bare = Start(SPINE_EXAMPLE, NOISE["steady"], 0.0, 1.8, 0.1), PLAIN_TESTS[2]
    >>> [unexpected(start, (Saw(bare, 0.0), Saw(bare, gap))) for gap in (0.1, 0.8)]
    [False, True]
    """
    last = steps[-1]
    if not isinstance(last, Saw):
        return False
    return any(
        reading is not None and surprising(axis, last.test, reading, start.noise)
        for axis, reading in zip(
            believed(start, steps[:-1]), (last.spine, last.upright), strict=True
        )
    )


def stepped(axis: Axis, step: SittingStep, noise: Noise) -> Axis:
    """Return the belief of one axis after one more step.

    Source: `seen`, `corrected`.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.likely import NOISE
    >>> axis = new_axis("upright", UprightCurves())
    >>> stepped(axis, Shifted("upright", -1.0, "nock"), NOISE["steady"]).mean < axis.mean
    True
    """
    if isinstance(step, Shifted):
        return corrected(axis, step.by, step.means) if step.axis == axis.name else axis
    reading = step.spine if axis.name == "spine" else step.upright
    return axis if reading is None else seen(axis, step.test, reading, noise)


def sitting_of(axes: tuple[Axis, Axis], done: Iterable[FlightTest], *, upright: bool) -> Sitting:
    """Return a sitting with the axes that are asked.

    Source: definition.

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> axes = new_axis("spine", SPINE_EXAMPLE), new_axis("upright", UprightCurves())
    >>> sorted(sitting_of(axes, (), upright=False).axes)
    ['spine']
    """
    asked = {"spine": axes[0], "upright": axes[1]} if upright else {"spine": axes[0]}
    return Sitting(asked, tuple(done))
