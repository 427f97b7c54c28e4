"""What was changed on a rig since something was seen of its flight: by how much, and when."""

import math
from collections.abc import Iterator, Sequence
from typing import Any, NamedTuple

from lyrandis.core.arrow.closing import MatchChange
from lyrandis.core.arrow.facts import ArrowFacts, OtherShafts
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.effective import At, Recorded, when
from lyrandis.core.string.facts import StringFacts

Telling = tuple[Recorded[Any], float]
"""A reading, and one number it tells."""


class RigChange(NamedTuple):
    """One thing that was set otherwise."""

    what: MatchChange
    recorded: Recorded[Any]
    amount: float
    """In SI units."""
    before_gr: float = 0.0
    """Of a point: what stood in front of the shaft before, and after."""
    after_gr: float = 0.0


def tellings(told: Sequence[Recorded[Any]], name: str) -> tuple[Telling, ...]:
    """Return what readings tell of one number, in order.

    Source: definition.

    >>> tellings((), "window_mm")
    ()
    """
    values = ((recorded, getattr(recorded.reading, name)) for recorded in told)
    return tuple((recorded, value) for recorded, value in values if value is not None)


def changes_of(arrows: ArrowFacts, string: StringFacts, since: At) -> tuple[RigChange, ...]:
    """Return what was set otherwise since an instant, kind by kind, each in order.

    What is told for the first time is no change, but for silencers: none were there.
    Source: definition.

    >>> from lyrandis.core.example import rig
    >>> from datetime import UTC, datetime
    >>> c = rig()
    >>> changes_of(c.setup.arrows, c.setup.string, (datetime(2020, 1, 1, tzinfo=UTC), 0))
    ()
    """
    found = (
        *_moved("window", 1e-3, tellings(arrows.passes, "window_mm")),
        *_moved("string", KG_PER_GRAIN, string.silencers_log, before=0.0),
        *_moved("brace", 1e-3, tellings(string.braces, "brace_height_mm")),
        *_moved("length", 1e-3, tellings(arrows.builds, "shaft_length_mm")),
        *_points(arrows),
    )
    return tuple(change for change in found if when(change.recorded.entry) > since)


def _moved(
    what: MatchChange, per: float, told: Sequence[Telling], before: float | None = None
) -> Iterator[RigChange]:
    last = before
    for recorded, value in told:
        if last is not None and value != last:
            yield RigChange(what, recorded, (value - last) * per)
        last = value


def _points(arrows: ArrowFacts) -> Iterator[RigChange]:
    """Return the changes of what stands in front of the shaft."""
    tip: dict[str, float] = {}
    for recorded in arrows.builds:
        before = tip.get("point_gr", 0.0) + tip.get("insert_gr", 0.0)
        parts = {name: getattr(recorded.reading, name) for name in ("point_gr", "insert_gr")}
        again = {k: v for k, v in parts.items() if v is not None and k in tip and tip[k] != v}
        tip |= {name: value for name, value in parts.items() if value is not None}
        after = tip.get("point_gr", 0.0) + tip.get("insert_gr", 0.0)
        if again:
            yield RigChange("point", recorded, (after - before) * KG_PER_GRAIN, before, after)


def other_shafts_of(arrows: ArrowFacts, since: At) -> tuple[OtherShafts, ...]:
    """Return other shafts put into the set since an instant.

    Source: `ArrowFacts.other_shafts`.

    >>> from lyrandis.core.example import rig
    >>> from datetime import UTC, datetime
    >>> other_shafts_of(rig().setup.arrows, (datetime(2020, 1, 1, tzinfo=UTC), 0))
    ()
    """
    return tuple(other for other in arrows.other_shafts if when(other.recorded.entry) > since)


def spine_at(own_lbf: float, others: Sequence[OtherShafts], at: At) -> float:
    """Return the spine of the shafts at an instant, from today's and what was put in since.

    Source: definition.

    >>> from datetime import UTC, datetime
    >>> spine_at(50.0, (), (datetime(2020, 1, 1, tzinfo=UTC), 0))
    50.0
    """
    return own_lbf * math.prod(
        other.before_lbf / other.after_lbf for other in others if when(other.recorded.entry) > at
    )
