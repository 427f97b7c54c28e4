"""What was seen of the flight and what was changed on the rig, in order, as steps of the belief."""

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Any, NamedTuple

from lyrandis.core.arrow.closing import MatchChange
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.effective import At, Recorded, when
from lyrandis.core.flight.basis import Upstream
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
from lyrandis.core.flight.facts import FlightFacts, Seen
from lyrandis.core.flight.readings import Change
from lyrandis.core.nock.height import lift_of

MOVED_NOCK_MM = 0.5
"""A nock read again within this stands where it stood."""
MOST_MOVED_NOCK_MM = 20.0


class LogLine(NamedTuple):
    """One thing in order: what was seen or changed, and how the belief takes it."""

    at: At
    step: SittingStep | None
    seen: Recorded[Seen] | None = None
    why_not: NotCounted | None = None
    entry_id: str | None = None
    """The entry of a change."""


def flight_log(facts: FlightFacts, upstream: Upstream, view: View | None) -> tuple[LogLine, ...]:
    """Return all that was seen and changed, in order; empty while the curves are not there.

    The newest readings count; older ones have been answered long since.
    """
    if view is None:
        return ()
    lines = [_seen(view, recorded) for recorded in facts.seen]
    counted = [line.at for line in lines if line.step is not None]
    if counted:
        lines += _changes(upstream, view.reckoned, counted[0])
    lines.sort(key=lambda line: line.at)
    if len(counted) > MOST_COUNTED:
        first = counted[-MOST_COUNTED]
        lines = [
            line if line.at >= first or line.step is None
            else line._replace(step=None, why_not="older" if line.seen else None)
            for line in lines
        ]  # fmt: skip
    return tuple(lines)


def _seen(view: View, recorded: Recorded[Seen]) -> LogLine:
    step = saw(view, recorded.reading)
    at = when(recorded.entry)
    if isinstance(step, Saw):
        return LogLine(at, step, recorded)
    return LogLine(at, None, recorded, step)


def _changes(upstream: Upstream, reckoned: Reckoned, since: At) -> list[LogLine]:
    """Return what was changed on the rig since, as shifts of an axis."""
    lines = [
        *_nock_moves(upstream, since),
        *_point_changes(upstream, reckoned, since),
        *_length_changes(upstream, reckoned, since),
        *(line for moves in rig_changes(upstream, reckoned, since) for line in moves),
    ]
    return [
        line
        for line in lines
        if isinstance(line.step, Shifted) and abs(line.step.by) >= LEAST_SHIFT
    ]


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


def _point_changes(upstream: Upstream, reckoned: Reckoned, since: At) -> Iterator[LogLine]:
    """Return the changes of what stands in front of the shaft."""
    tip: dict[str, float] = {}
    for recorded in upstream.arrows.builds:
        before = tip.get("point_gr", 0.0) + tip.get("insert_gr", 0.0)
        parts = {name: getattr(recorded.reading, name) for name in ("point_gr", "insert_gr")}
        again = {k: v for k, v in parts.items() if v is not None and k in tip and tip[k] != v}
        tip |= {name: value for name, value in parts.items() if value is not None}
        after = tip.get("point_gr", 0.0) + tip.get("insert_gr", 0.0)
        by = point_shift(reckoned, before, after) if again else None
        if by and when(recorded.entry) > since:
            yield _changed(recorded, Shifted("spine", by, "lever"))


def _length_changes(upstream: Upstream, reckoned: Reckoned, since: At) -> list[LogLine]:
    return _moved(reckoned, since, upstream.arrows.builds, "shaft_length_mm", "length", 1e-3)


_OF_RIG: tuple[tuple[MatchChange, float], ...] = (
    ("window", 1e-3), ("string", KG_PER_GRAIN), ("brace", 1e-3),
)  # fmt: skip
"""What each of `Upstream.told_of_rig` changes, and its unit in the mechanics' own."""


_BEFORE = {"silencers_gr": 0.0}
"""Silencers nobody told of were not there: the first told are a change."""


def rig_changes(upstream: Upstream, reckoned: Reckoned, since: At) -> tuple[list[LogLine], ...]:
    """Return what plate, silencers and brace have each moved the shaft's index since."""
    return tuple(
        _moved(reckoned, since, told, name, change, per, _BEFORE.get(name))
        for (told, name), (change, per) in zip(upstream.told_of_rig(), _OF_RIG, strict=True)
    )


def _moved(
    reckoned: Reckoned,
    since: At,
    told: Sequence[Recorded[Any]],
    name: str,
    change: MatchChange,
    per: float,
    before: float | None = None,
) -> list[LogLine]:
    """Return the changes of one number after the other, as shifts of the shaft's index.

    `before` is what it was before anybody told it; None where the first telling is no change.
    """
    lines: list[LogLine] = []
    last = before
    for recorded in told:
        value = getattr(recorded.reading, name)
        if value is None:
            continue
        if last is not None and value != last and when(recorded.entry) > since:
            by = sensitivity(reckoned, change, (value - last) * per)
            lines.append(_changed(recorded, Shifted("spine", by, "lever")))
        last = value
    return lines


def _changed(recorded: Recorded[Any], step: Shifted) -> LogLine:
    return LogLine(when(recorded.entry), step, entry_id=recorded.entry.id)
