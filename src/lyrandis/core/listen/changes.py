"""What was changed on the rig between two recordings, from the entries alone."""

from collections.abc import Sequence
from typing import NamedTuple

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.arrow.readings import ArrowBuild
from lyrandis.core.bow.readings import PutTogether
from lyrandis.core.effective import EffectiveReadings, when
from lyrandis.core.entries import Entry
from lyrandis.core.flight.readings import TrialSet
from lyrandis.core.nock.readings import CentreShot, LimbBolts, NockHeight, RiserWeight
from lyrandis.core.phrase import Phrase, mm, phrase
from lyrandis.core.reading import BaseReading, Fitted
from lyrandis.core.string.braces import brace_read_to_pivot
from lyrandis.core.string.readings import BraceHeight, BraceTried, StringBuild, StringTurns

SAME_BRACE_MM = 1.0
"""Braces nearer than this are one."""
SET: tuple[type[BaseReading], ...] = (
    StringTurns, StringBuild, NockHeight, CentreShot, RiserWeight, LimbBolts, ArrowBuild,
    PutTogether, TrialSet,
)  # fmt: skip
"""Readings that set something one may hear."""
_PARTS = (("arrow_set", "other arrows"), ("string", "another string"), ("archer", "another archer"))


class SoundChange(NamedTuple):
    """One thing that was changed, and of what kind."""

    says: Phrase
    of: str


def _brace(readings: EffectiveReadings, grips: ArcherFacts, before: Entry) -> float | None:
    """Return the brace that stood when a recording was made [mm], whatever string was on."""
    told = [
        *readings.all(BraceHeight), *readings.all(BraceTried),
        *(other for other in readings.others
          if isinstance(other.reading, BraceHeight | BraceTried)),
    ]  # fmt: skip
    earlier = [recorded for recorded in told if when(recorded.entry) <= when(before)]
    if not earlier:
        return None
    last = max(earlier, key=lambda item: when(item.entry)).reading
    assert isinstance(last, BraceHeight | BraceTried)
    return brace_read_to_pivot(last.brace_height_mm, last.datum, grips).value


def changes(
    readings: EffectiveReadings, grips: ArcherFacts, before: Entry, after: Entry
) -> tuple[SoundChange, ...]:
    """Return what was set otherwise when the later of two recordings was made.

    Source: the entries between the two; a brace counts from a millimetre on.

    >>> from lyrandis.core.example import setup
    >>> told = setup()
    >>> entry = told.bow.length.entry
    >>> changes(told.effective, told.archer.grips, entry, entry)
    ()
    """
    result: list[SoundChange] = []
    then, now = before.fitted or Fitted(), after.fitted or Fitted()
    for part, words in _PARTS:
        if getattr(then, part) != getattr(now, part):
            result.append(SoundChange(phrase(words), part))
    one, other = (_brace(readings, grips, entry) for entry in (before, after))
    if one is not None and other is not None and abs(other - one) >= SAME_BRACE_MM:
        says = phrase("brace {before} to {after}", before=mm(one), after=mm(other))
        result.append(SoundChange(says, "brace"))
    result += _set_between(readings, before, after)
    return tuple(result)


def _set_between(readings: EffectiveReadings, before: Entry, after: Entry) -> Sequence[SoundChange]:
    newest: dict[str, SoundChange] = {}
    for kind in SET:
        for recorded in readings.all(kind):
            if when(before) < when(recorded.entry) < when(after):
                said = recorded.reading.say()
                says = Phrase(said.template[0].lower() + said.template[1:], said.figures)
                newest[recorded.reading.kind] = SoundChange(says, recorded.reading.kind)
    return list(newest.values())
