"""The bow's condition as the page shows it: the look-over item by item, and the limbs."""

from datetime import datetime
from typing import Literal

from lyrandis.core.bow.inspection import ITEMS, SEVERITY, looked_over
from lyrandis.core.bow.limbs import mismatch_of
from lyrandis.core.bow.readings import LimbPair
from lyrandis.core.bow.words import INSPECTION_WORDS, InspectionItem
from lyrandis.core.computed import Computed
from lyrandis.core.drawn import Drawn


class InspectedItem(Drawn):
    """One item of the look-over, as it was last found."""

    item: InspectionItem
    good_words: str
    failing_words: str
    severity: Literal["stop", "mend", "watch"]
    """How failing it is judged."""
    good: bool | None
    """None when nobody has looked."""
    looked_at: datetime | None


class LimbMatch(Drawn):
    """The limbs as told, and how far apart they are."""

    told: LimbPair
    entry: str
    share: float
    apart_ms: float
    severity: Literal["good", "watch", "mend", "stop"]


class Condition(Drawn):
    """What the bow's condition page shows."""

    items: tuple[InspectedItem, ...]
    limbs: LimbMatch | None


def condition_of(c: Computed) -> Condition:
    """Return the look-over and the limbs of the bow."""
    result = looked_over(c.setup.bow.inspections)
    return Condition(
        items=tuple(
            InspectedItem(
                item=item,
                good_words=INSPECTION_WORDS[item][0],
                failing_words=INSPECTION_WORDS[item][1],
                severity=SEVERITY[item],
                good=result[item].good if item in result else None,
                looked_at=result[item].at if item in result else None,
            )
            for item in ITEMS
        ),
        limbs=_limbs(c),
    )


def _limbs(c: Computed) -> LimbMatch | None:
    pair = c.setup.bow.limb_pair
    if pair is None:
        return None
    result = mismatch_of(pair.reading)
    return LimbMatch(
        told=pair.reading,
        entry=pair.entry.id,
        share=abs(result.share),
        apart_ms=result.apart_ms,
        severity=result.severity,
    )
