"""What is in force of what was heard: recordings as numbers, and shafts that were tapped."""

from dataclasses import dataclass

from lyrandis.core.effective import EffectiveReadings, Recorded, when
from lyrandis.core.listen.readings import ShaftTapped, SoundHeard


@dataclass(frozen=True)
class ListenFacts:
    heard: tuple[Recorded[SoundHeard], ...] = ()
    """Recordings made with this bow, in order, each as it was last listened to."""
    tapped: tuple[Recorded[ShaftTapped], ...] = ()
    """Shafts of the arrows on the rig, each as it was last tapped."""


def facts(readings: EffectiveReadings) -> ListenFacts:
    """Return what is in force of what was heard."""
    heard = sorted(readings.keyed(SoundHeard), key=lambda recorded: when(recorded.entry))
    tapped = sorted(readings.keyed(ShaftTapped), key=lambda recorded: recorded.reading.arrow_number)
    return ListenFacts(tuple(heard), tuple(tapped))
