"""What the order of work is read from: everything that was set, checked or moved, in order."""

from dataclasses import dataclass

from lyrandis.core.archer.readings import AnchorChosen, HoldChosen
from lyrandis.core.arrow.readings import ArrowMassed
from lyrandis.core.bench_readings import Changed, PartFitted
from lyrandis.core.effective import EffectiveReadings, Recorded, when
from lyrandis.core.nock.readings import (
    CentreShot,
    LimbsInLine,
    NockHeight,
    RiserSide,
    RiserWeight,
    TillerGaps,
    TillerTold,
)
from lyrandis.core.order.readings import (
    LevelCircle,
    OrderHabit,
    SettingChecked,
    SettingFound,
    SettingMoved,
    StepSetAside,
)
from lyrandis.core.order.words import Node
from lyrandis.core.reading import AsideStep, BaseReading
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
    circle: Recorded[LevelCircle] | None = None
    aside: frozenset[AsideStep] = frozenset()
    """Steps that are set aside for now."""
    holds: tuple[Recorded[HoldChosen], ...] = ()
    anchors: tuple[Recorded[AnchorChosen], ...] = ()
    grips: tuple[Recorded[RiserSide], ...] = ()
    masses: tuple[Recorded[ArrowMassed], ...] = ()
    tillers: tuple[Recorded[TillerGaps] | Recorded[TillerTold], ...] = ()
    in_line: tuple[Recorded[LimbsInLine], ...] = ()
    centres: tuple[Recorded[CentreShot], ...] = ()
    weights: tuple[Recorded[RiserWeight], ...] = ()
    heights: tuple[Recorded[NockHeight], ...] = ()
    brace_datum: BraceDatum | None = None
    """Where the brace was read to last on this rig, with whatever string."""
    others: tuple[Recorded[BaseReading], ...] = ()
    """The rig's readings made with parts that are no longer on it."""


def _brace_datum(readings: EffectiveReadings) -> BraceDatum | None:
    read = [*readings.others, *readings.all(BraceHeight), *readings.all(BraceTried)]
    said = [
        (when(row.entry), row.reading.datum)
        for row in read
        if isinstance(row.reading, BraceHeight | BraceTried)
    ]
    return max(said)[1] if said else None


_NODE_OF: dict[str, Node] = {
    "brace": "brace", "nock": "nock", "bolts": "weight_rough", "point": "arrows",
    "silencers": "silencers", "riser_weight": "riser_weights",
}  # fmt: skip


def _moved(readings: EffectiveReadings) -> tuple[Recorded[SettingMoved], ...]:
    """What was moved and not measured: also what was changed and nobody knew what it was before."""
    changed = [
        Recorded(SettingMoved(setting=_NODE_OF[item.reading.what]), item.entry)
        for item in readings.all(Changed)
    ]
    return (*readings.all(SettingMoved), *changed)


def facts(readings: EffectiveReadings) -> OrderFacts:
    """Return what is in force of the order of work."""
    return OrderFacts(
        fitted=readings.all(PartFitted),
        checked=readings.all(SettingChecked),
        moved=_moved(readings),
        found=readings.all(SettingFound),
        habit=readings.last(OrderHabit),
        circle=readings.last(LevelCircle),
        aside=frozenset(
            one.reading.step for one in readings.keyed(StepSetAside) if one.reading.aside
        ),
        holds=readings.all(HoldChosen),
        anchors=readings.all(AnchorChosen),
        grips=readings.all(RiserSide),
        masses=readings.all(ArrowMassed),
        tillers=tuple(
            sorted(
                (*readings.all(TillerGaps), *readings.all(TillerTold)),
                key=lambda item: when(item.entry),
            )
        ),
        in_line=readings.all(LimbsInLine),
        centres=readings.all(CentreShot),
        weights=readings.all(RiserWeight),
        heights=readings.all(NockHeight),
        brace_datum=_brace_datum(readings),
        others=tuple(readings.others),
    )
