"""What is recorded by ear: takes of pluck and shot as numbers, and the ring of tapped shafts.

The numbers stay when the recording is forgotten.
"""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.arrow.readings import ArrowNumber
from lyrandis.core.by_ear import SoundMark
from lyrandis.core.errors import DomainError
from lyrandis.core.listen.words import WHAT_WORDS, TappedState, Trouble, What
from lyrandis.core.phrase import Phrase, hertz, phrase
from lyrandis.core.quantities import Quantity
from lyrandis.core.reading import BaseReading, Frozen

MOST_TAKES, MOST_TAPS = 24, 12
MOST_TIMES = 24
OCTAVES = 6
CELLS = 25

Level = Annotated[float, Quantity("level")]
Ms = Annotated[tuple[int, ...], Field(max_length=MOST_TIMES)]
SoundName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
TakeNumber = Annotated[int, Quantity("take_number")]


class TakeHeard(Frozen):
    """One pluck or shot as numbers. Levels in dB under full scale, times in s or ms."""

    at_s: Annotated[float, Quantity("recorded_second")]
    level_db: Level
    """A-weighted energy."""
    peak_db: Level
    snr_db: Level
    centroid_hz: Annotated[float, Quantity("sound_pitch")]
    ring_s: Annotated[tuple[float | None, ...], Field(min_length=OCTAVES, max_length=OCTAVES)]
    """Time to fall by 60 dB in the octaves of 125 to 4000 Hz; None where it was not measurable."""
    cells_db: Annotated[tuple[Level, ...], Field(min_length=CELLS, max_length=CELLS)]
    """Five bands by five windows, band by band."""
    rep: Annotated[float, Quantity("sound_share")]
    unrep: Annotated[float, Quantity("sound_share")]
    excess_db: Annotated[float, Quantity("excess")]
    bursts: Annotated[int, Quantity("sound_count")]
    spread_ms: Annotated[float, Quantity("spread_ms")]
    crest_db: float
    sync: Annotated[float, Quantity("likeness")]
    slap: Annotated[float, Quantity("likeness")]
    spikes_ms: Ms = ()
    bursts_ms: Annotated[tuple[int, ...], Field(max_length=MOST_TIMES)] = ()
    blow_s: float | None = None
    """When the arrow struck, after the onset."""


class PartialHeard(Frozen):
    """One of the string's partials."""

    number: Annotated[int, Quantity("partial_number")]
    hz: Annotated[float, Quantity("partial")]


class MovedOnset(Frozen):
    """A take whose onset was put elsewhere by hand."""

    take: TakeNumber
    at_s: Annotated[float, Quantity("recorded_second")]


class SoundHeard(BaseReading):
    """A recording of plucks, shots or reference knocks, listened to.

    Recorded anew with the same mark when a take is struck out or put back. It is of the bow; what
    else was on the rig then stands in its entry.
    """

    of = frozenset({"rig"})
    by = "measured"
    keyed_by = ("mark",)
    needs = frozenset({"bow"})
    kind: Literal["sound_heard"] = "sound_heard"
    mark: SoundMark
    name: SoundName
    what: What
    same_place: bool = False
    """Phone, place and gain as at the recording before."""
    seconds: Annotated[float, Quantity("recording_length")]
    rate_hz: Annotated[float, Quantity("sample_rate")]
    lossy: bool = False
    """Turned into WAV from a compressed file: fine for levels, a little less for rattles."""
    takes: Annotated[tuple[TakeHeard, ...], Field(min_length=1, max_length=MOST_TAKES)]
    struck: Annotated[tuple[TakeNumber, ...], Field(max_length=MOST_TAKES)] = ()
    """Takes that do not count."""
    moved: Annotated[tuple[MovedOnset, ...], Field(max_length=MOST_TAKES)] = ()
    added: Annotated[
        tuple[Annotated[float, Quantity("recorded_second")], ...], Field(max_length=MOST_TAKES)
    ] = ()
    """Where takes were added by hand; they are the last ones."""
    note_hz: Annotated[float, Quantity("string_note")] | None = None
    note_half_hz: Annotated[float, Quantity("note_doubt")] | None = None
    partials: Annotated[tuple[PartialHeard, ...], Field(max_length=16)] = ()
    """The string's partials that stood out."""
    second: Annotated[float, Quantity("second_pitch")] = 0.0
    """How strongly a second pitch is heard."""
    second_ratio: Annotated[float, Quantity("pitch_ratio")] = 1.0
    line_db: float = 0.0
    """How far one high note stands out of what rings with it."""
    troubles: tuple[Trouble, ...] = ()

    @model_validator(mode="after")
    def _takes_are_there(self) -> "SoundHeard":
        named = {*self.struck, *(item.take for item in self.moved)}
        if named and max(named) > len(self.takes):
            raise DomainError(
                "out_of_range",
                f"There is no take {max(named)}: the recording has {len(self.takes)}.",
                "Name one of its takes.",
                "struck",
            )
        return self

    @property
    def counting(self) -> tuple[TakeHeard, ...]:
        """The takes that are not struck out."""
        gone = frozenset(self.struck)
        return tuple(take for number, take in enumerate(self.takes, 1) if number not in gone)

    def say(self) -> Phrase:
        count = len(self.counting)
        what = WHAT_WORDS[self.what]
        plural = what if count == 1 else "shots" if self.what == "shot" else f"{what}s"
        left = f", {len(self.struck)} struck out" if self.struck else ""
        if self.note_hz is not None and self.what == "pluck":
            return phrase(f"Heard {count} {plural}{left}, note {{note}}", note=hertz(self.note_hz))
        return phrase(f"Heard {count} {plural}{left}")


class TapHeard(Frozen):
    """One tap: the lowest note it asks for, of the beam as it was."""

    at_s: Annotated[float, Quantity("recorded_second")]
    ring_hz: Annotated[float, Quantity("shaft_ring")]
    half_hz: Annotated[float, Quantity("ring_doubt")]
    lines: Annotated[int, Quantity("ring_lines")]
    quarter: bool = False
    """Tapped after the shaft was turned a quarter."""


class ShaftTapped(BaseReading):
    """A numbered shaft that was tapped and rang: its own lowest note, tap by tap."""

    of = frozenset({"arrow_set"})
    by = "measured"
    keyed_by = ("arrow_number",)
    kind: Literal["shaft_tapped"] = "shaft_tapped"
    arrow_number: ArrowNumber
    state: TappedState = "bare"
    mass_gr: q.ArrowMassGr | None = None
    """What it weighs as it was tapped, where it was weighed."""
    mark: SoundMark
    taps: Annotated[tuple[TapHeard, ...], Field(min_length=1, max_length=MOST_TAPS)]

    @property
    def ring_hz(self) -> float:
        """The mean of its taps."""
        return sum(tap.ring_hz for tap in self.taps) / len(self.taps)

    def say(self) -> Phrase:
        count = len(self.taps)
        taps = "one tap" if count == 1 else f"{count} taps"
        ring = hertz(self.ring_hz)
        return phrase(f"Shaft {self.arrow_number} rings at {{ring}}, {taps}", ring=ring)


ListenReading = SoundHeard | ShaftTapped
