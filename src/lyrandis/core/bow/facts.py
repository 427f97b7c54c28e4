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
    LimbsMadeOf,
    PutTogether,
    RiserLength,
    StackFelt,
)
from lyrandis.core.effective import EffectiveReadings, Recorded


@dataclass(frozen=True)
class BowFacts:
    name: str | None = None
    family: Recorded[BowFamily] | None = None
    length: Recorded[BowLength] | None = None
    riser_length: Recorded[RiserLength] | None = None
    mark: Recorded[BowMark] | None = None
    weighed: tuple[Recorded[BowWeighed], ...] = ()
    draw_limit: Recorded[DrawLimit] | None = None
    stack_felt: Recorded[StackFelt] | None = None
    arrow_minimum: Recorded[ArrowMinimum] | None = None
    brace_range: Recorded[BraceRange] | None = None
    limb_pair: Recorded[LimbPair] | None = None
    inspections: tuple[Recorded[Inspected], ...] = ()
    made: Recorded[BowMadeAs] | None = None
    limbs_made: Recorded[LimbsMadeOf] | None = None
    together: tuple[Recorded[PutTogether], ...] = ()
    speeds: tuple[Recorded[ArrowSpeed], ...] = ()


def facts(readings: EffectiveReadings) -> BowFacts:
    """Return what is in force of the bow on this rig."""
    return BowFacts(
        name=readings.names.get("bow"),
        family=readings.last(BowFamily),
        length=readings.last(BowLength),
        riser_length=readings.last(RiserLength),
        mark=readings.last(BowMark),
        weighed=readings.all(BowWeighed),
        draw_limit=readings.last(DrawLimit),
        stack_felt=readings.last(StackFelt),
        arrow_minimum=readings.last(ArrowMinimum),
        brace_range=readings.last(BraceRange),
        limb_pair=readings.merged(LimbPair),
        inspections=readings.all(Inspected),
        made=readings.last(BowMadeAs),
        limbs_made=readings.last(LimbsMadeOf),
        together=readings.all(PutTogether),
        speeds=readings.all(ArrowSpeed),
    )
