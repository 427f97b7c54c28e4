"""What is in force of what was heard: recordings as numbers, and shafts that were tapped."""

from dataclasses import dataclass

from lyrandis.core.listen.readings import ShaftTapped, SoundHeard
from lyrandis.core.pile import Pile, Recorded, when


@dataclass(frozen=True)
class ListenFacts:
    heard: tuple[Recorded[SoundHeard], ...] = ()
    """Recordings made with this bow, in order, each as it was last listened to."""
    tapped: tuple[Recorded[ShaftTapped], ...] = ()
    """Shafts of the arrows on the rig, each as it was last tapped."""


def facts(pile: Pile) -> ListenFacts:
    """Return what is in force of what was heard."""
    heard = sorted(pile.keyed(SoundHeard), key=lambda one: when(one.entry))
    tapped = sorted(pile.keyed(ShaftTapped), key=lambda one: one.reading.arrow_number)
    return ListenFacts(tuple(heard), tuple(tapped))
