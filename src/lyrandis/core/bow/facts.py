"""What is in force of the bow: its kind, lengths, weights, limits, condition and speeds."""

from dataclasses import dataclass

from lyrandis.core.bow.readings import (
    ArrowMinimum,
    ArrowSpeed,
    BowFamily,
    BowLength,
    BowMadeAs,
    BowMark,
    BowWeighed,
    BraceRange,
    DrawLimit,
    Inspected,
    LimbPair,
    PutTogether,
    RiserLength,
)
from lyrandis.core.pile import Pile, Recorded


@dataclass(frozen=True)
class BowFacts:
    name: str | None = None
    family: Recorded[BowFamily] | None = None
    length: Recorded[BowLength] | None = None
    riser_length: Recorded[RiserLength] | None = None
    mark: Recorded[BowMark] | None = None
    weighed: tuple[Recorded[BowWeighed], ...] = ()
    draw_limit: Recorded[DrawLimit] | None = None
    arrow_minimum: Recorded[ArrowMinimum] | None = None
    brace_range: Recorded[BraceRange] | None = None
    limb_pair: Recorded[LimbPair] | None = None
    inspections: tuple[Recorded[Inspected], ...] = ()
    made: Recorded[BowMadeAs] | None = None
    together: tuple[Recorded[PutTogether], ...] = ()
    speeds: tuple[Recorded[ArrowSpeed], ...] = ()


def facts(pile: Pile) -> BowFacts:
    """Return what is in force of the bow on this rig."""
    return BowFacts(
        name=pile.names.get("bow"),
        family=pile.last(BowFamily),
        length=pile.last(BowLength),
        riser_length=pile.last(RiserLength),
        mark=pile.last(BowMark),
        weighed=pile.all(BowWeighed),
        draw_limit=pile.last(DrawLimit),
        arrow_minimum=pile.last(ArrowMinimum),
        brace_range=pile.last(BraceRange),
        limb_pair=pile.merged(LimbPair),
        inspections=pile.all(Inspected),
        made=pile.last(BowMadeAs),
        together=pile.all(PutTogether),
        speeds=pile.all(ArrowSpeed),
    )
