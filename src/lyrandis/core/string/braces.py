"""Brace readings brought to one datum, with the hours and turns they were read at. In mm, hours."""

from bisect import bisect_right
from collections.abc import Sequence
from datetime import datetime
from itertools import pairwise
from operator import itemgetter
from typing import Any, NamedTuple

from lyrandis.core.archer.draw import BACK_DEPTH_IN, grip_depth
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.effective import Recorded, when
from lyrandis.core.estimate import Estimate
from lyrandis.core.memo import memo_by_equality
from lyrandis.core.string.facts import StringFacts
from lyrandis.core.string.readings import BraceHeight, StringStrung
from lyrandis.core.string.settling import SettlingReading
from lyrandis.core.string.turns import BRACE_READING_SD_MM, TurnedBrace, TurnedBy
from lyrandis.core.string.words import BraceDatum

PLUNGER_DEPTH_IN = (0.0, 0.12)
"""Assumption: the plunger's line stands over the pivot, 3 mm either way, where nobody measured."""


def brace_read_to_pivot(height_mm: float, datum: BraceDatum, grips: ArcherFacts) -> Estimate:
    """Return a brace height to the deepest part of the grip, with its sd [mm].

    Source: the trade's datums of brace, less the grip's depth to them.

    >>> brace_read_to_pivot(190.0, "pivot", ArcherFacts()).value
    190.0
    >>> round(brace_read_to_pivot(234.45, "back", ArcherFacts()).value, 2)
    190.0
    """
    if datum == "pivot":
        return Estimate(height_mm, BRACE_READING_SD_MM)
    told, assumed = (
        (grips.back_depth, BACK_DEPTH_IN)
        if datum == "back"
        else (grips.plunger_depth, PLUNGER_DEPTH_IN)
    )
    depth = grip_depth(told, assumed)
    return Estimate(height_mm - depth.value, (BRACE_READING_SD_MM**2 + depth.sd**2) ** 0.5)


class SettlingLog(NamedTuple):
    """Brace readings of a string by its hours strung."""

    readings: tuple[SettlingReading, ...]
    too_early: int
    """Readings taken before the string was strung, or at hours that run backwards."""


class OnTheBow(NamedTuple):
    """How long a string had been strung at some time [h]."""

    hours: float
    """In all."""
    since: float | None
    """Since it was last strung; None while it has never been unstrung."""


def hours_strung(strung: Sequence[Recorded[StringStrung]], at: datetime) -> OnTheBow | None:
    """Return how long a string had been strung at some time; None before it ever was.

    The clock stands while the bow is unstrung. Source: sum of the spells strung.

    >>> hours_strung((), datetime(2026, 1, 1)) is None
    True
    """
    total, since, spells = 0.0, None, 0
    for recorded in sorted(strung, key=lambda item: when(item.entry)):
        moment = recorded.entry.happened_at
        if moment > at:
            break
        if recorded.reading.strung:
            spells += since is None
            since = since or moment
        elif since is not None:
            total += (moment - since).total_seconds()
            since = None
    if not spells:
        return None
    now = (at - since).total_seconds() if since is not None else 0.0
    again = now / 3600 if spells > 1 and since is not None else None
    return OnTheBow((total + now) / 3600, again)


@memo_by_equality
def settling_log(facts: StringFacts, grips: ArcherFacts) -> SettlingLog:
    """Return the brace readings that tell of a string's settling, in order of hours strung.

    Those with hours of their own, and those the string's own clock gives hours to; each change of
    turns opens a segment. Source: the clock of `hours_strung`.

    >>> settling_log(StringFacts(), ArcherFacts()).readings
    ()
    """
    result: list[SettlingReading] = []
    early = 0
    for recorded in facts.braces:
        reading, at = recorded.reading, recorded.entry.happened_at
        hours = reading.hours_strung
        clock = hours_strung(facts.strung, at)
        if hours is None and not facts.strung:
            continue
        if hours is None and clock is not None:
            hours = clock.hours
        if hours is None or (result and hours < result[-1].hours):
            early += 1
            continue
        height = brace_read_to_pivot(reading.brace_height_mm, reading.datum, grips).value
        since = None if clock is None or clock.since is None else round(clock.since, 3)
        result.append(SettlingReading(round(hours, 3), height, _segment(facts, recorded), since))
    return SettlingLog(tuple(result), early)


def _segment(facts: StringFacts, brace: Recorded[BraceHeight]) -> int:
    before = [turn for turn in facts.turns if when(turn.entry) <= when(brace.entry)]
    moved = sum(a.reading.turns != b.reading.turns for a, b in pairwise(before))
    return moved + sum(when(turn.entry) <= when(brace.entry) for turn in facts.turned)


@memo_by_equality
def turned_braces(facts: StringFacts, grips: ArcherFacts) -> tuple[TurnedBrace, ...]:
    """Return every brace that was read or shot with a known number of turns, in order.

    Source: the newest turns told before each brace.

    >>> turned_braces(StringFacts(), ArcherFacts())
    ()
    """
    result: list[tuple[Any, TurnedBrace]] = []
    told = [(when(turn.entry), turn.reading.turns) for turn in facts.turns]
    if not told and not facts.tried:
        return ()
    for recorded in facts.braces:
        at = when(recorded.entry)
        before = bisect_right(told, at, key=itemgetter(0))
        if before:
            reading = recorded.reading
            height = brace_read_to_pivot(reading.brace_height_mm, reading.datum, grips).value
            result.append((at, TurnedBrace(told[before - 1][1], height)))
    for tried in facts.tried:
        if tried.reading.turns is not None:
            height = brace_read_to_pivot(
                tried.reading.brace_height_mm, tried.reading.datum, grips
            ).value
            result.append((when(tried.entry), TurnedBrace(tried.reading.turns, height)))
    if facts.tried:
        result.sort(key=itemgetter(0))
    return tuple(turned for _, turned in result)


@memo_by_equality
def turned_by(facts: StringFacts, grips: ArcherFacts) -> tuple[TurnedBy, ...]:
    """Return what changes of an unknown count did to the brace, in order.

    Each is of the two braces read next before and after, all turns between them together.
    Source: definition.

    >>> turned_by(StringFacts(), ArcherFacts())
    ()
    """
    result: list[TurnedBy] = []
    told = [(when(turn.entry), turn.reading.turns_by) for turn in facts.turned]
    first_count = when(facts.turns[0].entry) if facts.turns else None
    braces = [
        (when(read.entry), brace_read_to_pivot(
            read.reading.brace_height_mm, read.reading.datum, grips).value)
        for read in facts.braces
    ]  # fmt: skip
    for (before, low), (after, high) in pairwise(sorted(braces)):
        by = sum(turns for at, turns in told if before < at <= after)
        if by and (first_count is None or after <= first_count):
            since = sum(turns for at, turns in told if at > after)
            result.append(TurnedBy(by, high - low, since))
    return tuple(result)


def usual_limits(brace_in: float) -> tuple[float, float]:
    """Return brace heights to keep to where the maker gives none [mm].

    Assumption: half an inch round the kind's usual brace.

    >>> [round(x / 25.4, 2) for x in usual_limits(7.75)]
    [7.25, 8.25]
    """
    return (brace_in - 0.5) * MM_PER_IN, (brace_in + 0.5) * MM_PER_IN
