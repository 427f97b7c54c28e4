"""What the order of work is read from: everything that was set, checked or moved, in order."""

from dataclasses import dataclass

from lyrandis.core.archer.readings import AnchorChosen, HoldChosen
from lyrandis.core.arrow.readings import ArrowMassed
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.nock.readings import (
    CentreShot,
    LimbsInLine,
    NockHeight,
    RiserSide,
    RiserWeight,
    TillerGaps,
)
from lyrandis.core.order.readings import OrderHabit, SettingChecked, SettingFound, SettingMoved
from lyrandis.core.pile import Pile, Recorded, when
from lyrandis.core.reading import BaseReading
from lyrandis.core.string.readings import BraceHeight, BraceTried
from lyrandis.core.string.words import BraceDatum


@dataclass(frozen=True)
class OrderFacts:
    fitted: tuple[Recorded[PartFitted], ...] = ()
    """Every part that was put on the rig, in order."""
    checked: tuple[Recorded[SettingChecked], ...] = ()
    moved: tuple[Recorded[SettingMoved], ...] = ()
    found: tuple[Recorded[SettingFound], ...] = ()
    habit: Recorded[OrderHabit] | None = None
    holds: tuple[Recorded[HoldChosen], ...] = ()
    anchors: tuple[Recorded[AnchorChosen], ...] = ()
    grips: tuple[Recorded[RiserSide], ...] = ()
    masses: tuple[Recorded[ArrowMassed], ...] = ()
    tillers: tuple[Recorded[TillerGaps], ...] = ()
    in_line: tuple[Recorded[LimbsInLine], ...] = ()
    centres: tuple[Recorded[CentreShot], ...] = ()
    weights: tuple[Recorded[RiserWeight], ...] = ()
    heights: tuple[Recorded[NockHeight], ...] = ()
    brace_datum: BraceDatum | None = None
    """Where the brace was read to last on this rig, with whatever string."""
    others: tuple[Recorded[BaseReading], ...] = ()
    """The rig's readings made with parts that are no longer on it."""


def _brace_datum(pile: Pile) -> BraceDatum | None:
    read = [*pile.others, *pile.all(BraceHeight), *pile.all(BraceTried)]
    said = [
        (when(one.entry), one.reading.datum)
        for one in read
        if isinstance(one.reading, BraceHeight | BraceTried)
    ]
    return max(said)[1] if said else None


def facts(pile: Pile) -> OrderFacts:
    """Return what is in force of the order of work."""
    return OrderFacts(
        fitted=pile.all(PartFitted),
        checked=pile.all(SettingChecked),
        moved=pile.all(SettingMoved),
        found=pile.all(SettingFound),
        habit=pile.last(OrderHabit),
        holds=pile.all(HoldChosen),
        anchors=pile.all(AnchorChosen),
        grips=pile.all(RiserSide),
        masses=pile.all(ArrowMassed),
        tillers=pile.all(TillerGaps),
        in_line=pile.all(LimbsInLine),
        centres=pile.all(CentreShot),
        weights=pile.all(RiserWeight),
        heights=pile.all(NockHeight),
        brace_datum=_brace_datum(pile),
        others=tuple(pile.others),
    )
