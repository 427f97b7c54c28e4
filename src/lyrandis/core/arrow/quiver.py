"""The quiver: every numbered arrow as it is known, and the best matched k of them.

Masses in grains, spines in pounds of the wood scale, small lengths in mm.
"""

import math
from bisect import insort
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Literal

from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.readings import ArrowMassed, NumberedArrow
from lyrandis.core.arrow.words import Quill
from lyrandis.core.effective import Recorded
from lyrandis.core.entries import Entry
from lyrandis.core.errors import DomainError
from lyrandis.core.look_over import LookOver, looked_over_as
from lyrandis.core.memo import memo_by_equality
from lyrandis.core.phrase import counted

MASS_STEP_GR = 5.0
SPINE_STEP_LBF = 2.0
"""Convention: five grains apart count as much as two pounds of spine apart."""
MOST_MATCHED = 200
"""Arrows that are chosen from at the most: more would keep others waiting."""
CROOKED_MM = 0.8
"""Run-out past which an arrow is left out of a matched set. Convention."""

MOST_NAMED = 6
"""Cracked arrows named in one line."""
Safety = Literal["sound", "cracked", "not_looked"]
OutBecause = Literal[
    "cracked", "retired", "quill_lifts", "not_weighed", "no_spine", "crooked", "too_heavy",
    "too_light", "too_stiff", "too_weak", "not_needed",
]  # fmt: skip


@dataclass
class QuiverArrow:
    """One numbered arrow."""

    number: int
    mass_gr: float | None = None
    spine_lbf: float | None = None
    straight_mm: float | None = None
    nock_turn_deg: float | None = None
    safety: Safety = "not_looked"
    quill: Quill | None = None
    """How its feathers' front ends were found; None where no finger ran over them."""
    retired: bool = False
    remark: str | None = None
    entries: list[str] = field(default_factory=list)
    looked_at: datetime | None = None
    """When it was last flexed and looked at."""

    @property
    def out_of_use(self) -> bool:
        return self.retired or self.safety == "cracked"


@memo_by_equality
def quiver_of(arrows: ArrowFacts) -> tuple[QuiverArrow, ...]:
    """Return the numbered arrows in order, each with the newest that is known of it.

    Source: the newest reading of each arrow stands.

    >>> from lyrandis.core.example import setup
    >>> [one.mass_gr for one in quiver_of(setup(["arrow 2 404gr", "arrow 1 400gr"]).arrows)]
    [400.0, 404.0]
    """
    result: dict[int, QuiverArrow] = {}

    def arrow(number: int) -> QuiverArrow:
        one = result.get(number)
        if one is None:
            one = result[number] = QuiverArrow(number)
        return one

    for mass in arrows.masses:
        if mass.reading.arrow_number is not None:
            one = arrow(mass.reading.arrow_number)
            one.mass_gr = mass.reading.arrow_mass_gr
            one.entries.append(mass.entry.id)
    for recorded in arrows.numbered:
        reading = recorded.reading
        one = arrow(reading.arrow_number)
        one.entries.append(recorded.entry.id)
        _tell(one, reading, recorded.entry.happened_at)
    return tuple(result[number] for number in sorted(result))


def look_over_arrows(entries: Sequence[Entry]) -> LookOver:
    """Return how a set's arrows were last found, from its standing readings in order.

    Retired ones are left out.

    Source: as `quiver_of`.

    >>> look_over_arrows([]).found
    'not_looked'
    """
    facts = ArrowFacts(
        masses=tuple(
            Recorded(entry.reading, entry)
            for entry in entries
            if isinstance(entry.reading, ArrowMassed)
        ),
        numbered=tuple(
            Recorded(entry.reading, entry)
            for entry in entries
            if isinstance(entry.reading, NumberedArrow)
        ),
    )
    arrows = [arrow for arrow in quiver_of(facts) if not arrow.retired]
    cracked = [str(arrow.number) for arrow in arrows if arrow.safety == "cracked"]
    more = f" and {len(cracked) - MOST_NAMED} more" if len(cracked) > MOST_NAMED else ""
    return looked_over_as(
        failing=f"cracked: {', '.join(cracked[:MOST_NAMED])}{more}" if cracked else "",
        looked=sum(arrow.looked_at is not None for arrow in arrows),
        of=len(arrows),
        at=max((arrow.looked_at for arrow in arrows if arrow.looked_at), default=None),
    )


def _tell(one: QuiverArrow, reading: NumberedArrow, at: datetime) -> None:
    for name in ("spine_lbf", "straight_mm", "nock_turn_deg", "remark", "retired", "quill"):
        value = getattr(reading, name)
        if value is not None:
            setattr(one, name, value)
    if reading.state is not None:
        one.safety = reading.state
        one.looked_at = at


@dataclass(frozen=True)
class Out:
    """An arrow left out of the matched set, and why."""

    number: int
    because: OutBecause
    by: float = 0.0
    """How far past the set's range, in its unit."""


@dataclass(frozen=True)
class MatchedSet:
    """The best matched arrows of the quiver."""

    chosen: tuple[int, ...]
    mass_spread_gr: float
    spine_spread_lbf: float | None
    by_spine: bool
    """False when too few spines are known, so that mass alone decided."""
    out: tuple[Out, ...]
    by_mass_alone: "MassAlone | None" = None
    """Beside it, where arrows without a spine were left out that match better by mass."""


@dataclass(frozen=True)
class MassAlone:
    """The best matched arrows where only mass is asked."""

    chosen: tuple[int, ...]
    mass_spread_gr: float


def best_matched(quiver: tuple[QuiverArrow, ...], count: int) -> MatchedSet:
    """Return the `count` arrows with the least spread, exactly.

    Least mass spread/5 gr + spine spread/2 lb, spread being most less least; of equals
    tried the one that scatters least about its middle stands. Every window of mass is tried with
    every window of spine inside it, so the spread is exact; cost n^2 times `count`, for up to
    `MOST_MATCHED` arrows. Raises `DomainError` when fewer arrows can be chosen from, or more.

    Source: exact search; the steps of spread are our convention.

    >>> arrows = tuple(QuiverArrow(i, m) for i, m in enumerate((450, 470, 452, 455), 1))
    >>> best_matched(arrows, 3).chosen
    (1, 3, 4)
    """
    usable, out = _usable(quiver)
    weighed = usable
    by_spine = sum(arrow.spine_lbf is not None for arrow in usable) >= max(count, 2)
    if by_spine:
        out += [Out(arrow.number, "no_spine") for arrow in usable if arrow.spine_lbf is None]
        usable = [arrow for arrow in usable if arrow.spine_lbf is not None]
    if not 2 <= count <= len(usable):
        raise DomainError(
            "too_few",
            f"{counted(len(usable), 'arrow')} to choose from, weighed, straight and sound: "
            f"{count} cannot be chosen.",
            "Ask for at least two and no more than there are, or weigh more arrows.",
            "count",
        )
    if len(usable) > MOST_MATCHED:
        raise DomainError(
            "too_many",
            f"{len(usable)} arrows are more than are matched at once.",
            f"Mark as retired what is not in use, down to {MOST_MATCHED}.",
            "count",
        )
    found = _as_set(_least_spread(usable, count, by_spine), usable, out, by_spine)
    if len(weighed) == len(usable) or len(weighed) > MOST_MATCHED:
        return found
    alone = _least_spread(weighed, count, by_spine=False)
    numbers = tuple(sorted(arrow.number for arrow in alone))
    masses = [_mass(arrow) for arrow in alone]
    if numbers == found.chosen:
        return found
    return replace(found, by_mass_alone=MassAlone(numbers, max(masses) - min(masses)))


def _usable(quiver: tuple[QuiverArrow, ...]) -> tuple[list[QuiverArrow], list[Out]]:
    usable, out = [], []
    for arrow in quiver:
        if arrow.safety == "cracked":
            out.append(Out(arrow.number, "cracked"))
        elif arrow.retired:
            out.append(Out(arrow.number, "retired"))
        elif arrow.quill == "lifts":
            out.append(Out(arrow.number, "quill_lifts"))
        elif arrow.mass_gr is None:
            out.append(Out(arrow.number, "not_weighed"))
        elif arrow.straight_mm is not None and arrow.straight_mm > CROOKED_MM:
            out.append(Out(arrow.number, "crooked", arrow.straight_mm))
        else:
            usable.append(arrow)
    return usable, out


_SAME = 1e-9
"""Spreads closer than this are equal."""


def _by_spine(one: QuiverArrow) -> tuple[float, float]:
    return _spine(one), _mass(one)


def _mass(one: QuiverArrow) -> float:
    return one.mass_gr or 0.0


def _spine(one: QuiverArrow) -> float:
    return one.spine_lbf or 0.0


def _least_spread(usable: list[QuiverArrow], count: int, by_spine: bool) -> list[QuiverArrow]:
    """Try every lightest and heaviest arrow, and between them every run of neighbours in spine.

    A run counts where it holds both: any group of neighbours is such a run of its own ends.
    """
    by_mass = sorted(usable, key=_mass)
    best = (math.inf, math.inf)
    chosen: list[QuiverArrow] = []
    for low, lightest in enumerate(by_mass[: len(by_mass) - count + 1]):
        window = [lightest]
        for heaviest in by_mass[low + 1 :]:
            if (_mass(heaviest) - _mass(lightest)) / MASS_STEP_GR > best[0]:
                break
            insort(window, heaviest, key=_by_spine)
            for group in _runs(window, count, lightest, heaviest):
                ends = _spine(group[-1]) - _spine(group[0]) if by_spine else 0.0
                spread = (_mass(heaviest) - _mass(lightest)) / MASS_STEP_GR + ends / SPINE_STEP_LBF
                if spread > best[0] + _SAME:
                    continue
                score = _score(group, by_spine)
                if score < best:
                    best, chosen = score, group
    return chosen


def _runs(
    window: list[QuiverArrow], count: int, one: QuiverArrow, other: QuiverArrow
) -> Iterator[list[QuiverArrow]]:
    """Yield the runs of `count` neighbours that hold both arrows."""
    places = (window.index(one), window.index(other))
    first = max(0, max(places) - count + 1)
    for start in range(first, min(*places, len(window) - count) + 1):
        yield window[start : start + count]


def _score(group: list[QuiverArrow], by_spine: bool) -> tuple[float, float]:
    masses = [_mass(item) / MASS_STEP_GR for item in group]
    spines = [_spine(item) / SPINE_STEP_LBF for item in group] if by_spine else [0.0]
    spread = max(masses) - min(masses) + max(spines) - min(spines)
    return round(spread, 9), round(_scatter(masses) + _scatter(spines), 9)


def _scatter(values: list[float]) -> float:
    middle = sum(values) / len(values)
    return sum((value - middle) ** 2 for value in values)


def _as_set(
    chosen: list[QuiverArrow], usable: list[QuiverArrow], out: list[Out], by_spine: bool
) -> MatchedSet:
    masses, spines = [_mass(item) for item in chosen], [_spine(item) for item in chosen]
    numbers = {item.number for item in chosen}
    left = [
        _why_left(arrow, masses, spines, by_spine)
        for arrow in usable
        if arrow.number not in numbers
    ]
    return MatchedSet(
        chosen=tuple(sorted(numbers)),
        mass_spread_gr=max(masses) - min(masses),
        spine_spread_lbf=max(spines) - min(spines) if by_spine else None,
        by_spine=by_spine,
        out=tuple(sorted([*out, *left], key=lambda item: item.number)),
    )


def _why_left(one: QuiverArrow, masses: list[float], spines: list[float], by_spine: bool) -> Out:
    """Return the larger of the two ways in which an arrow lies outside the set."""
    ways: list[tuple[float, Out]] = [
        ((_mass(one) - max(masses)) / MASS_STEP_GR,
         Out(one.number, "too_heavy", _mass(one) - max(masses))),
        ((min(masses) - _mass(one)) / MASS_STEP_GR,
         Out(one.number, "too_light", min(masses) - _mass(one))),
    ]  # fmt: skip
    if by_spine:
        ways += [
            ((_spine(one) - max(spines)) / SPINE_STEP_LBF,
             Out(one.number, "too_stiff", _spine(one) - max(spines))),
            ((min(spines) - _spine(one)) / SPINE_STEP_LBF,
             Out(one.number, "too_weak", min(spines) - _spine(one))),
        ]  # fmt: skip
    worst, why = max(ways, key=lambda way: way[0])
    return why if worst > 0 else Out(one.number, "not_needed")
