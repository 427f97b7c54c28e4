"""What is known of a rig now: six numbers, how sure each is, and what would make it surer.

What a measurement would do is not a rule of its own: it is entered as if it had been made and had
shown what is expected, and the rig is computed with it.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Literal

from lyrandis.core import entries as e
from lyrandis.core import judgement as j
from lyrandis.core.archer.readings import DrawMarked, DrawStated, HookDepth
from lyrandis.core.archer.stage import MARK_ARROW
from lyrandis.core.arrow.doubts import doubts as arrow_doubts
from lyrandis.core.arrow.judge_spine import from_flight
from lyrandis.core.arrow.mass import shaft_length
from lyrandis.core.arrow.readings import ArrowMassed
from lyrandis.core.arrow.stage import FLEX, LONG_ENOUGH
from lyrandis.core.assessment import judge, unchecked_of
from lyrandis.core.bow.judge_weight import WEIGH
from lyrandis.core.bow.readings import BowWeighed
from lyrandis.core.bow.stage import LOOK_OVER, whole_look_over
from lyrandis.core.computed import Computed, Reckoner, compute
from lyrandis.core.constants import MARKED_DRAW_MM, USUAL_GPP
from lyrandis.core.drawn import Drawn
from lyrandis.core.flight.evidence import reckon
from lyrandis.core.flight.rules import RECORD
from lyrandis.core.phrase import Figure, Phrase, gpp, gr, lbf, listed, mm, phrase, spine
from lyrandis.core.reading import AsideStep, BaseReading, Source, StageKey, Subject, SubjectKind
from lyrandis.core.setup import fold

WORTH_SAYING = 1.2
"""A ± that shrinks by less than this is not said to."""
KNOWN_WELL = 0.025
"""A ± that is no more than this share of its number needs no measurement."""
MOST_MEASUREMENTS = 3
_LONG_AGO = datetime(2026, 1, 1, tzinfo=UTC)

NumberKey = Literal["draw", "weight", "arrow", "gpp", "stack", "shaft"]


class Limit(Drawn):
    """A limit that a number must not pass."""

    name: str
    value: float
    side: Literal["above", "below"]
    """Where it is dangerous: above the limit or below it."""


class KnownNumber(Drawn):
    """One of the six numbers: its value, how sure it is, and the limit it must not touch."""

    key: NumberKey
    label: str
    stage: StageKey
    """Where it is worked on."""
    figure: Figure | None = None
    """The value with its ±, two standard deviations."""
    missing: Phrase | None = None
    """What is wanted for it, where there is none."""
    stands_on: Phrase = Phrase("")
    """Where it comes from."""
    assumed: bool = False
    """True where something nobody told stands in for it: it is recorded nowhere."""
    limit: Limit | None = None
    own: float | None = None
    """What the archer has, where the number is what is wanted."""
    after: float | None = None
    """Its ± once the measurements below are made."""


class Measurement(Drawn):
    """A measurement that would make numbers surer."""

    title: Phrase
    minutes: int
    gains: Phrase
    """What it does to which numbers."""
    action: j.Action


class EveningStep(Drawn):
    """One step of the first evening."""

    key: str
    name: str
    minutes: int
    state: Literal["done", "next", "to_do", "aside"]
    action: j.Action | None = None


class Known(Drawn):
    """What is known now."""

    numbers: tuple[KnownNumber, ...]
    measurements: tuple[Measurement, ...]
    evening: tuple[EveningStep, ...]
    minutes: int
    """What is left of the first evening."""


@dataclass(frozen=True)
class _Way:
    """A way to measure: the step that asks for it, and what it would record."""

    step: j.NextStep
    kind: SubjectKind
    reading: BaseReading


def known_of(log: Sequence[e.Entry], rig: str | None, reckoner: Reckoner = reckon) -> Known:
    """Return what is known of a rig from its log of entries, and what would sharpen it most.

    Lengths in mm, weights in lbf, masses in grains. Where nobody told a draw, the marked draw
    stands in for it, and is said to. Never raises.

    >>> from lyrandis.core.example import log
    >>> [row.figure.text() for row in known_of(log(), "example").numbers][:3]
    ['28 ± 1/4 in', '46.2 ± 1.6 lb', '400 ± 1 gr']
    """
    computed = compute(fold(log, rig=rig), reckoner)
    assumed = computed.archer.draw is None
    entries = with_draw(log, computed)
    now = compute(fold(entries, rig=rig), reckoner) if assumed else computed
    base = compute(fold(entries, rig=rig), lambda _: None)
    ways = _ways(now)
    gains = [(way, _gain(base, _with(entries, rig, [way], base))) for way in ways]
    worth = sorted(
        ((gain, way) for way, gain in gains if gain.size > math.log(WORTH_SAYING)),
        key=lambda one: -one[0].size,
    )[:MOST_MEASUREMENTS]
    after = _with(entries, rig, [way for _, way in worth], base) if worth else base
    steps = _evening(computed)
    return Known(
        numbers=numbers_of(now, assumed=assumed, left=_left(base, after)),
        measurements=tuple(
            Measurement(
                title=way.step.title,
                minutes=way.step.minutes,
                gains=gain.says,
                action=way.step.action,
            )
            for gain, way in worth
        ),
        evening=steps,
        minutes=sum(step.minutes for step in steps if step.state in ("next", "to_do")),
    )


# what is measured, as if it were


def with_draw(log: Sequence[e.Entry], c: Computed) -> list[e.Entry]:
    """Return a log with a draw in it: where nobody told one, as bows are marked for.

    Assumption: 28 in, good to two and a half, as any draw that is only supposed.

    >>> from lyrandis.core.example import log, rig
    >>> with_draw(log(["bow 62"]), rig(["bow 62"]))[-1].reading.say().text()
    'Draw said to be 28 in'
    """
    if c.archer.draw is not None:
        return list(log)
    supposed = DrawStated(draw_length_mm=MARKED_DRAW_MM)
    return [*log, _entry(log, c, "archer", supposed, "estimated")]


def _entry(
    log: Sequence[e.Entry],
    c: Computed,
    kind: SubjectKind,
    reading: BaseReading,
    source: Source | None = None,
) -> e.Entry:
    """Return a reading as if it were recorded after all others, on what is fitted."""
    at = max((entry.happened_at for entry in log), default=_LONG_AGO)
    seq = max((entry.seq for entry in log), default=0) + 1
    return e.Entry(
        id=f"supposed-{seq}",
        seq=seq,
        subject=Subject(kind=kind, id=c.setup.subject(kind)[0] or "nobody"),
        reading=reading,
        source=source or reading.by,
        happened_at=at,
        recorded_at=at,
    )


def _with(
    log: Sequence[e.Entry], rig: str | None, ways: Sequence[_Way], before: Computed
) -> Computed:
    """Compute a rig as if these had been measured, each showing what is expected."""
    entries = list(log)
    for way in ways:
        entries.append(_entry(entries, before, way.kind, way.reading))
    return compute(fold(entries, rig=rig), lambda _: None)


def _ways(c: Computed) -> list[_Way]:
    """Return the measurements that could be made now and were not set aside."""
    steps: dict[AsideStep, j.NextStep] = {}
    unchecked = (item.step for item in unchecked_of(c))
    for step in (*unchecked, *(doubt.step for doubt in arrow_doubts(c))):
        if step is not None and step.aside is not None:
            steps.setdefault(step.aside, step)
    made: list[_Way] = []
    for aside, (kind, expected) in _EXPECTED.items():
        step = steps.get(aside)
        if step is None or aside in c.setup.order.aside:
            continue
        try:
            reading = expected(c)
        except ValueError:  # what is expected lies outside what can be recorded
            continue
        if reading is not None:
            made.append(_Way(step, kind, reading))
    return made


def _weighed(c: Computed) -> BaseReading | None:
    weight = c.bow.weight
    if weight is None:
        return None
    return BowWeighed(draw_weight_lbf=weight.weight.value, draw_length_mm=weight.at_mm)


def _marked(c: Computed) -> BaseReading | None:
    draw = c.archer.draw
    return DrawMarked(draw_length_mm=draw.length.value) if draw else None


def _mass(c: Computed) -> BaseReading | None:
    if c.arrow.finished is not None:
        return ArrowMassed(arrow_mass_gr=c.arrow.finished.mass.value)
    weight = c.bow.weight
    return ArrowMassed(arrow_mass_gr=USUAL_GPP * weight.weight.value) if weight else None


_EXPECTED: dict[AsideStep, tuple[SubjectKind, Callable[[Computed], BaseReading | None]]] = {
    "scale": ("bow", _weighed),
    "draw": ("archer", _marked),
    "arrow_mass": ("arrow_set", _mass),
    "hook": ("archer", lambda c: HookDepth(hook_depth_mm=c.archer.hook.value)),
}


# how sure


@dataclass(frozen=True)
class _Gain:
    """What a measurement does."""

    size: float
    """Sum of ln(± before / ± after) over the numbers."""
    says: Phrase


_NAMES: dict[NumberKey, str] = {
    "draw": "draw", "weight": "weight", "arrow": "arrow", "gpp": "grains per pound",
    "stack": "stack", "shaft": "shaft",
}  # fmt: skip


def _spread(c: Computed) -> dict[NumberKey, Figure]:
    """Return the numbers there are, with their ±."""
    found: dict[NumberKey, Figure | None] = {
        "draw": _draw(c), "weight": _weight(c), "arrow": _arrow(c), "gpp": _gpp(c),
        "stack": _stack(c), "shaft": _shaft(c),
    }  # fmt: skip
    return {key: figure for key, figure in found.items() if figure is not None}


def _draw(c: Computed) -> Figure | None:
    draw = c.archer.draw
    return mm(draw.length.value, draw.length.plus_minus) if draw else None


def _weight(c: Computed) -> Figure | None:
    weight = c.bow.weight
    return lbf(weight.weight.value, weight.weight.plus_minus) if weight else None


def _arrow(c: Computed) -> Figure | None:
    finished = c.arrow.finished
    return gr(finished.mass.value, finished.mass.plus_minus) if finished else None


def _gpp(c: Computed) -> Figure | None:
    return gpp(c.arrow.gpp.value, c.arrow.gpp.plus_minus) if c.arrow.gpp else None


def _stack(c: Computed) -> Figure | None:
    margin = c.bow.stack_margin_mm
    return mm(margin.value, margin.plus_minus) if margin and c.bow.weight else None


def _shaft(c: Computed) -> Figure | None:
    if c.match is None or c.arrow.shooting is None:
        return None
    return spine(c.match.matched, (c.match.high - c.match.low) / 2)


def _gain(before: Computed, after: Computed) -> _Gain:
    """Return what a measurement does to the ± of each number, the most first."""
    was, will = _spread(before), _spread(after)
    fresh = [key for key in will if key not in was]
    shrunk = sorted(
        (
            (math.log((was[key].plus_minus or 0) / (will[key].plus_minus or 1)), key)
            for key in was
            if key in will and was[key].plus_minus and will[key].plus_minus
        ),
        reverse=True,
    )
    worth = [
        (size, key)
        for size, key in shrunk
        if size > math.log(WORTH_SAYING) and not _sharp(was[key])
    ]
    said = sum(size for size, _ in worth) + len(fresh)
    if not worth:
        names = listed([_NAMES[key] for key in fresh])
        return _Gain(said, phrase(f"gives {names}" if fresh else ""))
    first = worth[0][1]
    others = [_NAMES[key] for _, key in worth[1:]] + [_NAMES[key] for key in fresh]
    more = f", and with it {listed(others)}" if others else ""
    unit = was[first].unit
    return _Gain(
        said,
        phrase(
            f"{_NAMES[first]} ± {{before}} to ± {{after}}{more}",
            before=_as_spread(unit, was[first].plus_minus or 0.0),
            after=_as_spread(unit, will[first].plus_minus or 0.0),
        ),
    )


def _sharp(figure: Figure) -> bool:
    """Return whether a number is known well enough."""
    spread = figure.plus_minus or 0.0
    return spread <= KNOWN_WELL * abs(figure.value)


def _as_spread(unit: str, plus_minus: float) -> Figure:
    """Return a ± as a figure of its own; a spine's in pounds, without thousandths."""
    return Figure(value=plus_minus, unit="lbf" if unit == "spine" else unit)  # type: ignore[arg-type]


# the six rows


def _left(before: Computed, after: Computed) -> dict[NumberKey, tuple[Figure, float]]:
    """Return the ± that measurements leave, beside what they take it off; where they do."""
    was, will = _spread(before), _spread(after)
    result: dict[NumberKey, tuple[Figure, float]] = {}
    for key in was.keys() & will.keys():
        was_pm, pm = was[key].plus_minus or 0.0, will[key].plus_minus or 0.0
        if was_pm > WORTH_SAYING * pm > 0:
            result[key] = was[key], pm
    return result


def numbers_of(
    c: Computed, *, assumed: bool, left: Mapping[NumberKey, tuple[Figure, float]] | None = None
) -> tuple[KnownNumber, ...]:
    """Return the six numbers of a rig; `left` says what measurements leave of each ±.

    >>> from lyrandis.core.example import rig
    >>> [row.key for row in numbers_of(rig(["mark 45"]), assumed=False) if row.figure]
    ['weight']
    """
    now = _spread(c)

    def row(key: NumberKey, label: str, stage: StageKey, wants: str, **more: object) -> KnownNumber:
        figure = now.get(key)
        told = {"figure": figure} if figure is not None else {"missing": phrase(wants)}
        before, after = (left or {}).get(key, (None, None))
        then = after if before == figure else None
        return KnownNumber.model_validate(
            {"key": key, "label": label, "stage": stage, "after": then, **told, **more}
        )

    limit = c.setup.bow.draw_limit
    own = c.arrow.shooting.own_lbf if c.arrow.shooting else None
    floor = c.arrow.floor.grains_per_pound
    return (
        row("draw", "Your draw", "archer", "measure it", stands_on=_of_draw(c, assumed),
            assumed=assumed,
            limit=_limit("limit", limit.reading.draw_length_mm, "above") if limit else None),
        row("weight", "On your fingers", "bow", "wants the bow's mark or a scale",
            stands_on=_of_weight(c)),
        row("arrow", "Arrow", "arrow", "wants an arrow on a scale", stands_on=_of_arrow(c)),
        row("gpp", "Grains per pound", "arrow", "wants weight and arrow",
            stands_on=phrase("arrow by weight"), limit=_limit("floor", floor, "below")),
        row("stack", "Room before stack", "bow", "wants the bow", stands_on=_of_stack(c),
            limit=_limit("stack", 0.0, "below")),
        row("shaft", "Shaft it wants", "arrow", "wants the bow's weight", stands_on=_of_shaft(c),
            own=own),
    )  # fmt: skip


def _limit(name: str, value: float, side: Literal["above", "below"]) -> Limit:
    return Limit(name=name, value=value, side=side)


_DRAW_WORDS = {
    "draw_marked": "marked on an arrow", "draw_on_scale": "read on the scale",
    "draw_stated": "told", "arm_tape": "fingertip to shoulder", "arm_span": "arm span",
}  # fmt: skip


def _of_draw(c: Computed, assumed: bool) -> Phrase:
    if assumed or c.archer.draw is None:
        return phrase("assumed, nobody told it")
    methods = list(dict.fromkeys(reading.method for reading in c.archer.draw.used))
    return phrase(", ".join(_DRAW_WORDS[method] for method in methods))


def _of_weight(c: Computed) -> Phrase:
    weight = c.bow.weight
    if weight is None:
        return phrase("")
    if weight.basis == "weighed":
        count = len(weight.points)
        return phrase(f"weighed at {count} draw{'s' * (count > 1)}")
    mark = weight.points[0]
    return phrase(
        "the mark, {weight} at {draw}", weight=lbf(mark.weight.value), draw=mm(mark.draw_mm)
    )


def _of_arrow(c: Computed) -> Phrase:
    finished = c.arrow.finished
    if finished is None:
        return phrase("")
    count = len(finished.weighed)
    if finished.basis == "weighed":
        return phrase(f"weighed, {count} arrow{'s' * (count > 1)}")
    return phrase("told" if count else "from its parts")


def _of_stack(c: Computed) -> Phrase:
    if c.bow.stack.felt:
        return phrase("where you feel it")
    if c.bow.stack.read:
        return phrase("the curve your scale shows")
    length = c.setup.bow.length
    if length is None:
        return phrase("this kind of bow")
    return phrase("this kind of bow, {length}", length=mm(length.reading.back_mm))


def _of_shaft(c: Computed) -> Phrase:
    return phrase("your own flight" if from_flight(c) else "mechanics and practice")


# the first evening


@dataclass(frozen=True)
class _Station:
    """Something that is done on the first evening."""

    key: str
    name: str
    minutes: int
    """As long as it takes where nothing asks for it yet."""
    action: j.Action
    done: Callable[[Computed], bool]


def _flexed(c: Computed) -> bool:
    in_use = [arrow for arrow in c.arrow.quiver if not arrow.out_of_use]
    return bool(in_use) and all(arrow.safety != "not_looked" for arrow in in_use)


_EVENING: tuple[_Station, ...] = (
    _Station("look", "look the bow over", 4, LOOK_OVER.action,
             lambda c: whole_look_over(c.setup.bow)),
    _Station("mark", "mark an arrow", 5, MARK_ARROW,
             lambda c: c.archer.draw is not None and c.archer.draw.basis != "guess"),
    _Station("length", "measure the shafts", 2, LONG_ENOUGH.action,
             lambda c: shaft_length(c.setup.arrows) is not None),
    _Station("flex", "flex the arrows", 5, FLEX.action, _flexed),
    _Station("weigh", "weigh the bow", 5, WEIGH,
             lambda c: c.bow.weight is not None and c.bow.weight.basis == "weighed"),
    _Station("shoot", "shoot the first three", 3, RECORD, lambda c: bool(c.flight.facts.seen)),
)  # fmt: skip
"""What a coach does on the first evening, in his order."""


def _evening(c: Computed) -> tuple[EveningStep, ...]:
    """Return the first evening in a coach's order, and how far it has come."""
    asked = {item.step.action: item.step for item in unchecked_of(c) if item.step is not None}
    told = c.archer.draw is not None and c.bow.weight is not None
    first = judge(c).next_step
    steps = [
        EveningStep(
            key="answers",
            name="what you told",
            minutes=0 if told else 1,
            state="done" if told else "next",
            action=None if told else first.action,
        )
    ]
    for station in _EVENING:
        step = asked.get(station.action)
        done = station.done(c)
        aside = step is not None and step.aside in c.setup.order.aside
        here = told and station.action == first.action
        state = "aside" if aside else "next" if here else "to_do"
        steps.append(
            EveningStep(
                key=station.key,
                name=station.name,
                minutes=0 if done else step.minutes if step is not None else station.minutes,
                state="done" if done else state,
                action=None if done else station.action,
            )
        )
    return tuple(steps)
