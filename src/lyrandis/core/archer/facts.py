"""What is in force of the archer: draw readings, hook, hold and habits."""

from dataclasses import dataclass

from lyrandis.core.archer.readings import (
    AnchorChosen,
    ArmSpan,
    ArmTape,
    DrawMarked,
    DrawOnScale,
    DrawStated,
    GripDepth,
    HandChosen,
    HoldChosen,
    HookDepth,
    PurposeChosen,
    WeightWished,
)
from lyrandis.core.effective import EffectiveReadings, Recorded


@dataclass(frozen=True)
class ArcherFacts:
    name: str | None = None
    marked: tuple[Recorded[DrawMarked], ...] = ()
    on_scale: tuple[Recorded[DrawOnScale], ...] = ()
    stated: tuple[Recorded[DrawStated], ...] = ()
    arm_tapes: tuple[Recorded[ArmTape], ...] = ()
    arm_spans: tuple[Recorded[ArmSpan], ...] = ()
    hook_depth: Recorded[HookDepth] | None = None
    hold: Recorded[HoldChosen] | None = None
    anchor: Recorded[AnchorChosen] | None = None
    hand: Recorded[HandChosen] | None = None
    purpose: Recorded[PurposeChosen] | None = None
    wished_weight: Recorded[WeightWished] | None = None
    back_depth: Recorded[GripDepth] | None = None
    """Pivot to back, of the bow on the rig: readings of draw are converted with it."""
    belly_depth: Recorded[GripDepth] | None = None
    plunger_depth: Recorded[GripDepth] | None = None

    @property
    def grips(self) -> "ArcherFacts":
        """The grip's depths alone: all that readings of draw and brace are converted with."""
        return ArcherFacts(
            back_depth=self.back_depth,
            belly_depth=self.belly_depth,
            plunger_depth=self.plunger_depth,
        )


def facts(readings: EffectiveReadings) -> ArcherFacts:
    """Return what is in force of the archer on this rig."""
    return ArcherFacts(
        name=readings.names.get("archer"),
        marked=readings.all(DrawMarked),
        on_scale=readings.all(DrawOnScale),
        stated=readings.all(DrawStated),
        arm_tapes=readings.all(ArmTape),
        arm_spans=readings.all(ArmSpan),
        hook_depth=readings.last(HookDepth),
        hold=readings.last(HoldChosen),
        anchor=readings.last(AnchorChosen),
        hand=readings.last(HandChosen),
        purpose=readings.last(PurposeChosen),
        wished_weight=readings.last(WeightWished),
        back_depth=readings.last(GripDepth, "back"),
        belly_depth=readings.last(GripDepth, "belly"),
        plunger_depth=readings.last(GripDepth, "plunger"),
    )
