"""The look-over before stringing: what stands, since when, and what has to be cleared."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal, get_args

from lyrandis.core.bow.readings import Inspected
from lyrandis.core.bow.words import InspectionItem
from lyrandis.core.pile import Recorded

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
    found: dict[InspectionItem, Looked] = {}
    for recorded in inspections:
        reading, at = recorded.reading, recorded.entry.happened_at
        for item in reading.good:
            found[item] = Looked(item, True, at, recorded)
        for item in reading.failing:
            found[item] = Looked(item, False, at, recorded)
    return found
