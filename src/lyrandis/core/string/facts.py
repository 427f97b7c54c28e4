"""What is in force of the string: how it is made, its hours on the bow, its braces and turns."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.effective import EffectiveReadings, Recorded, newest, when
from lyrandis.core.string.readings import (
    BraceHeight,
    BraceTried,
    StringBuild,
    StringSettled,
    StringStrung,
    StringTurned,
    StringTurns,
)
from lyrandis.core.string.silencers import moved_share
from lyrandis.core.string.words import StringMaterial, StringType

STRING_GR_PER_STRAND = 6.5
USUAL_STRING_MM = 60 * MM_PER_IN
"""Assumption: length of a string nobody measured, for where silencers sit on it."""


@dataclass(frozen=True)
class StringFacts:
    name: str | None = None
    builds: tuple[Recorded[StringBuild], ...] = ()
    fitted_at: datetime | None = None
    """When this string came onto the rig."""
    brace_height: Recorded[BraceHeight] | None = None
    braces: tuple[Recorded[BraceHeight], ...] = ()
    """Every brace read with this string on this bow."""
    turns: tuple[Recorded[StringTurns], ...] = ()
    """Counts, and what they came to when turns were put in or taken out since."""
    turned: tuple[Recorded[StringTurned], ...] = ()
    """Changes of a count nobody knows."""
    strung: tuple[Recorded[StringStrung], ...] = ()
    settled: Recorded[StringSettled] | None = None
    tried: tuple[Recorded[BraceTried], ...] = ()

    def part(self, name: str) -> Any:
        """Return the newest value told of one part of it."""
        return newest(self.builds, name)[0]

    @property
    def mass_gr(self) -> float | None:
        """Its mass, as last weighed."""
        mass: float | None = self.part("string_mass_gr")
        return mass

    @property
    def told_mass_gr(self) -> float | None:
        """Its mass where it is told, or follows from its strands; for every use of it.

        Assumption: 6.5 gr a strand, of 60 in with its share of the serving, where nobody weighed.

        >>> from lyrandis.core.example import setup
        >>> setup(["string 59 16 strands"]).string.told_mass_gr
        104.0
        """
        if self.mass_gr is not None:
            return self.mass_gr
        return None if self.strands is None else STRING_GR_PER_STRAND * self.strands

    @property
    def silencers_moving_gr(self) -> float:
        """What of the silencers' mass moves with the arrow; none told counts as none there.

        Source: `moved_share`.

        >>> from lyrandis.core.example import setup
        >>> setup(["string 60 16 strands", "silencers 24gr @ 15"]).string.silencers_moving_gr
        6.0
        """
        mass: float | None = self.part("silencers_gr")
        if not mass:
            return 0.0
        return round(mass * self.silencers_share, 3)

    @property
    def silencers_share(self) -> float:
        """How much of a grain of silencers moves with the arrow, at the place they sit.

        Source: `moved_share`.

        >>> from lyrandis.core.example import setup
        >>> setup(["string 60 16 strands", "silencers 24gr @ 15"]).string.silencers_share
        0.25
        """
        return moved_share(self.part("silencers_mm"), self._length_mm)

    @property
    def silencers_log(self) -> tuple[tuple[Recorded[StringBuild], float], ...]:
        """What was told of silencers, in order, as grains that move with the arrow."""
        mass: float | None = None
        place: float | None = None
        log = []
        for recorded in self.builds:
            told = recorded.reading
            if told.silencers_gr is None and told.silencers_mm is None:
                continue
            mass = told.silencers_gr if told.silencers_gr is not None else mass
            place = told.silencers_mm if told.silencers_mm is not None else place
            if mass is not None:
                log.append((recorded, moved_share(place, self._length_mm) * mass))
        return tuple(log)

    @property
    def _length_mm(self) -> float:
        length: float | None = self.part("string_length_mm")
        return length or USUAL_STRING_MM

    @property
    def strands(self) -> int | None:
        """Number of its strands, as last told."""
        strands: int | None = self.part("strands")
        return strands

    @property
    def material(self) -> StringMaterial | None:
        material: StringMaterial | None = self.part("material")
        return material

    @property
    def low_stretch(self) -> bool | None:
        """Whether its strands hardly stretch; None where nobody told what it is made of."""
        return None if self.material is None else self.material == "low_stretch"

    @property
    def kind(self) -> StringType | None:
        kind: StringType | None = self.part("string_type")
        return kind


def _newest_brace(readings: EffectiveReadings) -> Recorded[BraceHeight] | None:
    """Return the brace as it stands: as read last, or as it was last shot in a sweep."""
    read, tried = readings.last(BraceHeight), readings.last(BraceTried)
    if tried is None or (read is not None and when(read.entry) > when(tried.entry)):
        return read
    shot = tried.reading
    height = BraceHeight(brace_height_mm=shot.brace_height_mm, datum=shot.datum)
    return Recorded(height, tried.entry)


def _counted(
    readings: EffectiveReadings,
) -> tuple[tuple[Recorded[StringTurns], ...], tuple[Recorded[StringTurned], ...]]:
    """Return the turns in the string as they came, and changes of a count nobody knew."""
    told: list[Recorded[StringTurns] | Recorded[StringTurned]] = [
        *readings.all(StringTurns), *readings.all(StringTurned),
    ]  # fmt: skip
    told.sort(key=lambda recorded: when(recorded.entry))
    counts: list[Recorded[StringTurns]] = []
    unknown: list[Recorded[StringTurned]] = []
    for recorded in told:
        reading = recorded.reading
        if isinstance(reading, StringTurns):
            counts.append(Recorded(reading, recorded.entry))
        elif counts and counts[-1].reading.turns + reading.turns_by < 0:
            # more came out than were said to be in: the count was wrong, and is not known
            counts, unknown = [], [Recorded(reading, recorded.entry)]
        elif counts:
            now = counts[-1].reading.turns + reading.turns_by
            counts.append(Recorded(StringTurns(turns=now), recorded.entry))
        else:
            unknown.append(Recorded(reading, recorded.entry))
    return tuple(counts), tuple(unknown)


def facts(readings: EffectiveReadings) -> StringFacts:
    """Return what is in force of the string on this rig."""
    fitted = readings.last(PartFitted, "string")
    turns, turned = _counted(readings)
    return StringFacts(
        name=readings.names.get("string"),
        builds=readings.all(StringBuild),
        fitted_at=fitted.entry.happened_at if fitted else None,
        brace_height=_newest_brace(readings),
        braces=readings.all(BraceHeight),
        turns=turns,
        turned=turned,
        strung=readings.all(StringStrung),
        settled=readings.last(StringSettled),
        tried=readings.all(BraceTried),
    )
