"""What is in force of the flight: what was seen with these parts, in order, and the trial on."""

from dataclasses import dataclass
from typing import TypeVar, cast

from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.effective import At, EffectiveReadings, Recorded, when
from lyrandis.core.flight.readings import (
    BareApart,
    ButtHits,
    Change,
    FeathersSeen,
    FlightKit,
    MatchSource,
    PlateMarked,
    RigTuned,
    ShotCare,
    SittingEnded,
    SlapHeard,
    TailSeen,
    TrialSet,
    WalkedBack,
)
from lyrandis.core.reading import BaseReading

SEEN = (TailSeen, ButtHits, BareApart, PlateMarked, SlapHeard, FeathersSeen, WalkedBack)
Seen = TailSeen | ButtHits | BareApart | PlateMarked | SlapHeard | FeathersSeen | WalkedBack


R = TypeVar("R", bound=BaseReading)


@dataclass(frozen=True)
class FlightFacts:
    seen: tuple[Recorded[Seen], ...] = ()
    """All that was seen with the parts that are on the rig, in order."""
    elsewhere: int = 0
    """How often something was seen with parts that are no longer on it."""
    trial_set: Recorded[TrialSet] | None = None
    care: Recorded[ShotCare] | None = None
    kit: FlightKit | None = None
    source: Recorded[MatchSource] | None = None
    tunings: tuple[tuple[str | None, Recorded[RigTuned]], ...] = ()
    """What was kept of tunings, each with the arrow set it was made with."""
    sittings_ended: tuple[At, ...] = ()
    """When the archer said to go on another day."""
    anew: At | None = None
    """When they began anew: what was seen before counts no more."""

    @property
    def trial(self) -> Change | None:
        """What is changed for a trial just now."""
        return self.trial_set.reading.trial if self.trial_set else None


def with_trial(reading: R, trial: Change | None) -> R:
    """Return a reading as it is seen while a trial is on: with what was changed for it.

    Source: definition.

    >>> with_trial(SlapHeard(heard=True), Change(what="plate", amount=1.0)).trial.what
    'plate'
    """
    if trial is None or getattr(reading, "trial", trial) is not None:
        return reading
    if not isinstance(reading, SEEN):
        return reading
    return cast(R, reading.model_copy(update={"trial": trial}))


def _set_of(readings: EffectiveReadings, tuned: Recorded[RigTuned]) -> str | None:
    """Return the arrow set that was on the rig when it was tuned."""
    if tuned.entry.fitted is not None:
        return tuned.entry.fitted.arrow_set
    before = [
        recorded.reading.part_id
        for recorded in readings.all(PartFitted)
        if recorded.reading.part == "arrow_set" and when(recorded.entry) < when(tuned.entry)
    ]
    return before[-1] if before else None


def facts(readings: EffectiveReadings) -> FlightFacts:
    """Return what is in force of the flight on this rig."""
    seen: list[Recorded[BaseReading]] = [
        recorded for kind in SEEN for recorded in readings.all(kind)
    ]
    kit = readings.merged(FlightKit)
    return FlightFacts(
        seen=tuple(sorted(seen, key=lambda sighting: when(sighting.entry))),  # type: ignore[arg-type]
        elsewhere=sum(isinstance(other.reading, SEEN) for other in readings.others),
        trial_set=readings.last(TrialSet),
        care=readings.last(ShotCare),
        kit=kit.reading if kit else None,
        source=readings.last(MatchSource),
        tunings=tuple(
            (_set_of(readings, recorded), recorded) for recorded in readings.all(RigTuned)
        ),
        anew=max(
            (when(ended.entry) for ended in readings.all(SittingEnded) if ended.reading.anew),
            default=None,
        ),
        sittings_ended=tuple(when(ended.entry) for ended in readings.all(SittingEnded)),
    )


def first_that_counts(facts: FlightFacts) -> At | None:
    """Return when something was seen first that may count: since the archer last began anew.

    Source: definition.

    >>> first_that_counts(FlightFacts()) is None
    True
    """
    seen = (when(recorded.entry) for recorded in facts.seen)
    return next((at for at in seen if facts.anew is None or at > facts.anew), None)
