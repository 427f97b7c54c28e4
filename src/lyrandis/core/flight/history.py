"""What was seen of the flight and what was changed on the rig, in order, as steps of the belief."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Any, NamedTuple

from lyrandis.core.arrow.facts import OtherShafts
from lyrandis.core.effective import At, Recorded, when
from lyrandis.core.flight.basis import Upstream
from lyrandis.core.flight.changes import RigChange, other_shafts_of, spine_at
from lyrandis.core.flight.choose import FlightTest
from lyrandis.core.flight.evidence import (
    LEAST_SHIFT,
    MOST_COUNTED,
    NotCounted,
    Reckoned,
    Saw,
    Shifted,
    SittingStep,
    View,
    point_shift,
    saw,
    sensitivity,
    upright_push,
)
from lyrandis.core.flight.facts import FlightFacts, Seen, first_that_counts
from lyrandis.core.flight.likely import Push
from lyrandis.core.flight.readings import Change
from lyrandis.core.nock.height import lift_of
from lyrandis.core.nock.readings import NockShot

MOVED_NOCK_MM = 0.5
"""A nock read again within this stands where it stood."""
MOST_MOVED_NOCK_MM = 20.0
HEIGHT_BARE_M = {"bare_level": 0.0, "bare_high": 0.12, "bare_low": -0.12}
HEIGHT_ARROWS = 1.0
"""Assumption: a height said to shoot its bare shaft high or low, without a number, means 12 cm."""


class LogLine(NamedTuple):
    """One thing in order: what was seen or changed, and how the belief takes it."""

    at: At
    step: SittingStep | None
    seen: Recorded[Seen] | Recorded[NockShot] | None = None
    why_not: NotCounted | None = None
    entry_id: str | None = None
    """The entry of a change."""


def flight_log(
    facts: FlightFacts,
    upstream: Upstream,
    view: View | None,
    changes: Sequence[RigChange],
    *,
    waits: bool,
) -> tuple[LogLine, ...]:
    """Return all that was seen and changed, in order; empty while the curves are not there.

    Where something has to be told first, `waits`, what was seen is there and not weighed.

    The newest readings count; older ones have been answered long since.
    """
    if view is None:
        return (
            tuple(LogLine(when(recorded.entry), None, recorded, "waits") for recorded in facts.seen)
            if waits
            else ()
        )
    first = first_that_counts(facts)
    others = other_shafts_of(upstream.arrows, first) if first else ()
    lines = [
        LogLine(when(recorded.entry), None, recorded, "anew")
        if first is None or when(recorded.entry) < first
        else _seen(view, others, recorded)
        for recorded in facts.seen
    ]
    if first is not None:
        lines += [_height_shot(upstream, shot) for shot in upstream.nock.facts.shots]
    counted = [line.at for line in lines if line.step is not None and line.seen is not None]
    if first is not None:
        lines += _changes(upstream, view.reckoned, first, changes)
    lines.sort(key=lambda line: line.at)
    if len(counted) > MOST_COUNTED:
        first = counted[-MOST_COUNTED]
        lines = [
            line if line.at >= first or line.step is None or isinstance(line.step, Shifted)
            else line._replace(step=None, why_not="older" if line.seen else None)
            for line in lines
        ]  # fmt: skip
    return tuple(lines)


def _seen(view: View, others: Sequence[OtherShafts], recorded: Recorded[Seen]) -> LogLine:
    at = when(recorded.entry)
    if view.own_lbf is not None and others:
        # a trial with other shafts is a step from those that were the archer's own then
        then = spine_at(view.own_lbf, others, at)
        view = replace(view, own_lbf=then)
    step = saw(view, recorded.reading)
    if isinstance(step, Saw):
        return LogLine(at, step, recorded)
    return LogLine(at, None, recorded, step)


def _height_shot(upstream: Upstream, shot: Recorded[NockShot]) -> LogLine:
    """Return a height shot on the nock's own page: it counts here as it does there."""
    at = when(shot.entry)
    stood = upstream.lift_at(at)
    lower = ((stood.value if stood else shot.reading.lift_mm) - shot.reading.lift_mm) / 2
    push = Push(lower, exact=True)
    flew = shot.reading.flew
    if flew in ("clean", "bounced"):
        test = FlightTest("height", "mark", 3.0, upright_push=push)
        step = Saw(test, None, float(flew == "bounced"))
    else:
        test = FlightTest("height_bare", "bare", 6.0, HEIGHT_ARROWS, 18.0, upright_push=push)
        step = Saw(test, None, HEIGHT_BARE_M[flew])
    return LogLine(at, step, shot)


def _changes(
    upstream: Upstream, reckoned: Reckoned, since: At, changes: Sequence[RigChange]
) -> list[LogLine]:
    """Return what was changed on the rig since, as shifts of an axis."""
    lines = [
        *_nock_moves(upstream, since),
        *(
            _changed(change.recorded, Shifted("spine", shift_of(reckoned, change), "lever"))
            for change in changes
        ),
        *_other_shafts(upstream, since),
    ]
    return [
        line
        for line in lines
        if isinstance(line.step, Shifted) and abs(line.step.by) >= LEAST_SHIFT
    ]


def shift_of(reckoned: Reckoned, change: RigChange) -> float:
    """Return what a change of the rig does to the index of its shaft, + reads stiffer.

    Source: this rig's own sensitivities; of points beyond their curve, its slope.

    >>> from lyrandis.core.example import rig
    >>> from lyrandis.core.flight.evidence import reckon
    >>> c = rig()
    >>> told = c.setup.arrows.builds[-1]
    >>> shift_of(reckon(c.flight.basis.asked), RigChange("length", told, -0.0254)) > 0.5
    True
    """
    if change.what == "point":
        by = point_shift(reckoned, change.before_gr, change.after_gr)
        if by is not None:
            return by
    return sensitivity(reckoned, change.what, change.amount)


def _nock_moves(upstream: Upstream, since: At) -> Iterator[LogLine]:
    lifts = [
        (
            height,
            lift_of(height.reading.height_mm, height.reading.datum, upstream.nock.arrow_nock).value,
        )
        for height in upstream.heights
    ]
    for (_, before), (recorded, after) in pairwise(lifts):
        moved = after - before
        if when(recorded.entry) > since and abs(moved) >= MOVED_NOCK_MM:
            amount = max(-MOST_MOVED_NOCK_MM, min(MOST_MOVED_NOCK_MM, moved))
            by = upright_push(Change(what="nock", amount=amount)).by
            yield _changed(recorded, Shifted("upright", by, "nock"))


def _other_shafts(upstream: Upstream, since: At) -> Iterator[LogLine]:
    for other in other_shafts_of(upstream.arrows, since):
        by = 10 * math.log(other.after_lbf / other.before_lbf)
        yield _changed(other.recorded, Shifted("spine", by, "shafts"))


def _changed(recorded: Recorded[Any], step: Shifted) -> LogLine:
    return LogLine(when(recorded.entry), step, entry_id=recorded.entry.id)
