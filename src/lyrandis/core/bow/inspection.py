"""The look-over before stringing: what stands, since when, and what has to be cleared."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal, get_args

from lyrandis.core.bow.readings import Inspected
from lyrandis.core.bow.words import INSPECTION_WORDS, InspectionItem
from lyrandis.core.effective import Recorded
from lyrandis.core.entries import Entry
from lyrandis.core.look_over import LookOver, looked_over_as

ITEMS: tuple[InspectionItem, ...] = get_args(InspectionItem)
SEVERITY: dict[InspectionItem, Literal["stop", "mend", "watch"]] = {
    "limbs": "stop",
    "tips": "stop",
    "finish": "stop",
    "laminations": "stop",
    "string": "stop",
    "string_grooves": "stop",
    "right_way_up": "mend",
    "stringer": "mend",
    "twang": "watch",
}
"""What can let go at full draw is Stop until cleared; the rest is put right or listened to."""


@dataclass(frozen=True)
class Looked:
    """How an item was found when last looked at."""

    item: InspectionItem
    good: bool
    at: datetime
    recorded: Recorded[Inspected]


def looked_over(inspections: tuple[Recorded[Inspected], ...]) -> dict[InspectionItem, Looked]:
    """Return every item that was ever looked at, as it was last found."""
    result: dict[InspectionItem, Looked] = {}
    for recorded in inspections:
        reading, at = recorded.reading, recorded.entry.happened_at
        for item in reading.good:
            result[item] = Looked(item, True, at, recorded)
        for item in reading.failing:
            result[item] = Looked(item, False, at, recorded)
    return result


def look_over(entries: Sequence[Entry]) -> LookOver:
    """Return how a bow was last found, from its standing look-overs in order.

    What is only listened to is no failing.

    Source: as `looked_over`.

    >>> look_over([]).found
    'not_looked'
    """
    inspections = tuple(
        Recorded(entry.reading, entry) for entry in entries if isinstance(entry.reading, Inspected)
    )
    result = looked_over(inspections)
    failing = [
        result[item]
        for item in ITEMS
        if item in result and not result[item].good and SEVERITY[item] != "watch"
    ]
    newest = max((looked.at for looked in result.values()), default=None)
    return looked_over_as(
        failing="; ".join(INSPECTION_WORDS[looked.item][1] for looked in failing),
        looked=len(result),
        of=len(ITEMS),
        at=failing[0].at if failing else newest,
    )
