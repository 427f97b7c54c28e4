"""The numbers of what was heard: sessions, before and after, what it points to, tension, shafts."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Literal, NamedTuple

import numpy as np

from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.arrow.numbers import ArrowNumbers
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.bow.readings import ArrowSpeed
from lyrandis.core.effective import Recorded, when
from lyrandis.core.estimate import Estimate
from lyrandis.core.lazy import lazy
from lyrandis.core.listen.changes import SoundChange, changes
from lyrandis.core.listen.compare import (
    BRIGHT_LN,
    LEAST_TAKES,
    RING_LN,
    Compared,
    compared,
    middle,
)
from lyrandis.core.listen.facts import ListenFacts
from lyrandis.core.listen.features import OCTAVES_HZ
from lyrandis.core.listen.naming import Odds, Pointed, point
from lyrandis.core.listen.pitch import StringNote, note_change
from lyrandis.core.listen.quality import PLUCK_SHOT_DB, may
from lyrandis.core.listen.readings import SoundHeard, TakeHeard
from lyrandis.core.listen.shafts import TappedSet, tapped_set
from lyrandis.core.listen.voice import BracedString, braced_string, left_in_bow_j
from lyrandis.core.listen.words import Fault, What
from lyrandis.core.string.numbers import StringNumbers

if TYPE_CHECKING:
    from lyrandis.core.setup import Setup

KNOCK_DB = 1.0
"""Assumption: one reference knock to the next, one standard deviation."""
FLOOR_ODDS, OVER_FLOOR_ODDS, OUTSIDE_ODDS, LAST_ODDS = 4.0, 0.25, 3.0, 2.0
"""Assumption, not measured: what the rig's own facts make of a fault beforehand."""
LAST_BRACE_ODDS = 3.0
TENSION_SD, TENSION_MEND_SD = 2.0, 3.0
"""From so many standard deviations on, the note and the statics disagree, or must be mended."""

HeardSound = Recorded[SoundHeard]
_ByKind = dict[What, HeardSound]
Levels = Literal["session", "reference", "gain", "no"]


CONCERNS: dict[What, frozenset[Fault]] = {
    "pluck": frozenset({"rattle", "slack"}),
    "shot": frozenset({"rattle", "brace", "arrow"}),
}
"""Faults that a recording of a kind would show again."""


class Ring(NamedTuple):
    """How long an octave rings [s], before and after; a side is None where it is not measurable."""

    octave_hz: float
    before_s: float | None
    after_s: float | None
    change: Compared | None
    """Of the logs."""


@dataclass(frozen=True)
class Pair:
    """Two recordings of one kind, beside each other."""

    before: HeardSound
    after: HeardSound
    how: Levels
    """By what right levels are compared: one session, a reference knock, or not at all."""
    level: Compared | None
    few: bool
    """Too few takes on a side to compare anything."""
    rings: tuple[Ring, ...]
    bright: Compared | None
    """Of the logs of the centroids."""
    note: StringNote | None
    """How many times higher the string's note is."""
    changed: tuple[SoundChange, ...]


class Tension(NamedTuple):
    """The string's tension by its note, and by the statics [N]."""

    heard: HeardSound
    note: StringNote
    by_note: Estimate
    by_statics: Estimate | None

    @property
    def apart(self) -> float | None:
        """How far the two lie apart, in standard deviations of both."""
        if self.by_statics is None:
            return None
        both = math.hypot(self.by_note.sd, self.by_statics.sd)
        return (self.by_note.value - self.by_statics.value) / both


@dataclass(frozen=True)
class ListenNumbers:
    """Reckoned when it is asked for."""

    setup: "Setup"
    facts: ListenFacts
    archer: ArcherNumbers
    bow: BowNumbers
    string: StringNumbers
    arrow: ArrowNumbers

    @lazy
    def braced(self) -> BracedString | None:
        """The rig's string as it stands braced."""
        return braced_string(self.setup.string, self.string, self.bow, self.archer.drawn_to.value)

    @lazy
    def left_j(self) -> float | None:
        """What the arrow leaves in the bow."""
        return left_in_bow_j(self.bow, self.arrow)

    @lazy
    def sessions(self) -> dict[str, int]:
        """The session of each recording, by its mark: phone, place and gain as before, or anew."""
        result: dict[str, int] = {}
        session = 0
        for item in self.facts.heard:
            if not item.reading.same_place:
                session += 1
            result[item.reading.mark] = session
        return result

    def of(self, what: What) -> tuple[HeardSound, ...]:
        """Return the recordings of a kind that have takes left."""
        return tuple(
            item for item in self.facts.heard if item.reading.what == what and item.reading.counting
        )

    def heard(self, mark: str) -> HeardSound | None:
        """Return the recording with a mark."""
        return next((item for item in self.facts.heard if item.reading.mark == mark), None)

    def newest_pair(self, what: What) -> tuple[HeardSound, HeardSound] | None:
        """Return the newest recording of a kind and the one before it."""
        told = self.of(what)
        return (told[-2], told[-1]) if len(told) > 1 else None

    @lazy
    def pair(self) -> Pair | None:
        """The newest recording beside the one of its kind before."""
        last = [item for item in self.facts.heard if item.reading.what != "reference"]
        for item in reversed(last):
            result = self.newest_pair(item.reading.what)
            if result is not None and result[1] is item:
                return self.beside(*result)
        return None

    @lazy
    def shots(self) -> Pair | None:
        """The newest shot beside the one before."""
        result = self.newest_pair("shot")
        return self.beside(*result) if result else None

    def beside(self, before: HeardSound, after: HeardSound) -> Pair:
        """Return two recordings compared."""
        how, beside = self._levels(before, after)
        one, other = before.reading, after.reading
        few = min(len(one.counting), len(other.counting)) < LEAST_TAKES or not (
            may(one.troubles, "comparison") and may(other.troubles, "comparison")
        )
        level = None
        if how in ("session", "reference") and not few:
            level = compared(_of(one, "level_db"), _of(other, "level_db"), beside=beside)
            if how == "reference":
                level = _less(level, self._knock(before, after))
        return Pair(
            before=before,
            after=after,
            how=how,
            level=level,
            few=few,
            rings=tuple(_ring(one, other, at) for at in range(len(OCTAVES_HZ))),
            bright=None if few else compared(
                np.log(_of(one, "centroid_hz")).tolist(),
                np.log(_of(other, "centroid_hz")).tolist(),
                BRIGHT_LN,
            ),
            note=_note_change(one, other),
            changed=changes(
                self.setup.effective, self.setup.archer.grips, before.entry, after.entry
            ),
        )  # fmt: skip

    def _levels(self, before: HeardSound, after: HeardSound) -> tuple[Levels, float]:
        if not (may(before.reading.troubles, "levels") and may(after.reading.troubles, "levels")):
            return "gain", 0.0
        if self.gain_rides(before) or self.gain_rides(after):
            return "gain", 0.0
        first, last = (self.sessions[item.reading.mark] for item in (before, after))
        if first == last:
            return "session", 0.0
        knocks = [self._knocks(session) for session in (first, last)]
        if all(knocks):
            return "reference", KNOCK_DB * sum(1 / len(knock) for knock in knocks) ** 0.5
        return "no", 0.0

    def gain_rides(self, one: HeardSound) -> bool:
        """Return whether a phone adjusted its gain: heard in it, or all of a session as loud."""
        if "gain_rides" in one.reading.troubles:
            return True
        session = self.sessions[one.reading.mark]
        sides: dict[What, list[float]] = {"pluck": [], "shot": []}
        for other in self.facts.heard:
            if self.sessions[other.reading.mark] == session and other.reading.what in sides:
                sides[other.reading.what] += _of(other.reading, "level_db")
        if not sides["pluck"] or not sides["shot"]:
            return False
        apart = abs(float(np.median(sides["shot"])) - float(np.median(sides["pluck"])))
        return apart < PLUCK_SHOT_DB

    def _knocks(self, session: int) -> list[float]:
        return [
            level
            for item in self.of("reference")
            if self.sessions[item.reading.mark] == session
            for level in _of(item.reading, "level_db")
        ]

    def _knock(self, before: HeardSound, after: HeardSound) -> float:
        """Return how much louder the knock is in the later session."""
        first, last = (self._knocks(self.sessions[item.reading.mark]) for item in (before, after))
        return middle(last) - middle(first)

    @lazy
    def pointed(self) -> Pointed | None:
        """What the newest takes point to, against this bow's own earlier ones."""
        result = self._point(*self._now_and_before, self.odds)
        if result is not None and result.fault == "arrow" and not self.too_light:
            return replace(result, fault="contact")
        if result is not None and result.fault is None and self._blind:
            return replace(result, enough=False, blind=True)
        return result

    @property
    def _blind(self) -> bool:
        """True where a phone's own gain hides what would be found, before or now."""
        now, before = self._now_and_before
        return any(self.gain_rides(item) for item in (*now.values(), *before.values()))

    @property
    def too_light(self) -> bool:
        """True where the mechanics find the arrow under its floor: the sound only agrees."""
        gpp = self.arrow.gpp
        return gpp is not None and gpp.value < self.arrow.floor.grains_per_pound

    def _point(self, now: _ByKind, before: _ByKind, odds: Odds) -> Pointed | None:
        shot, shot_before = now.get("shot"), before.get("shot")
        levels = shot is not None and shot_before is not None
        return point(
            pluck=_reading(now.get("pluck"), "note"),
            pluck_before=_reading(before.get("pluck"), "note"),
            shot=_reading(shot, "comparison"),
            shot_before=_reading(shot_before, "comparison"),
            levels=levels and self._levels(shot_before, shot)[0] == "session",  # type: ignore[arg-type]
            odds=odds,
        )

    @lazy
    def _now_and_before(self) -> tuple[_ByKind, _ByKind]:
        """The newest pluck and shot, and what each is held against.

        That is the one before it in its session, unless that one pointed to a fault itself: a
        fault recorded twice is no less a fault.
        """
        now: _ByKind = {}
        before: _ByKind = {}
        fault: Fault | None = None
        for item in self.facts.heard:
            what = item.reading.what
            if what not in CONCERNS or not item.reading.counting:
                continue
            # a second pitch with nothing to hold it against may be the limbs' own
            new_one = fault not in CONCERNS[what] or (fault == "slack" and what not in before)
            if what in now and new_one:
                before[what] = now[what]
            if what in before and not self._comparable(before[what], item):
                del before[what]
            now[what] = item
            result = self._point(now, before, Odds())
            fault = result.fault if result else None
        return now, before

    def _comparable(self, before: HeardSound, after: HeardSound) -> bool:
        """Return whether one may be held against another: one session, shots with one arrow set."""
        first, last = (self.sessions[item.reading.mark] for item in (before, after))
        if first != last:
            return False
        then, now = before.entry.fitted, after.entry.fitted
        shot = after.reading.what == "shot"
        return not shot or then is None or now is None or then.arrow_set == now.arrow_set

    @lazy
    def odds(self) -> Odds:
        """What the rig's own facts make of each fault beforehand."""
        factors: dict[Fault, float] = {}
        because: list[str] = []

        def told(fault: Fault, factor: float, why: str) -> None:
            factors[fault] = factors.get(fault, 1.0) * factor
            because.append(why)

        floor, gpp = self.arrow.floor.grains_per_pound, self.arrow.gpp
        if self.too_light:
            told("arrow", FLOOR_ODDS, "the arrow is under its floor")
        elif gpp is not None and gpp.value > floor + 1:
            told("arrow", OVER_FLOOR_ODDS, "the arrow is a grain per pound over its floor")
        brace = self.string.brace
        low, high = self.string.limits
        if brace is not None and not low - 1 <= brace.value <= high + 1:
            told("brace", OUTSIDE_ODDS, "the brace is outside its range")
        pair = self.shots or self.pair
        for change in pair.changed if pair else ():
            if change.of == "brace":
                told("brace", LAST_BRACE_ODDS, "the brace was changed last")
            elif change.of in ("string", "string_turns"):
                told("slack", LAST_ODDS, "the string was renewed or twisted last")
            elif change.of in ("riser_weight", "put_together", "string_build"):
                told("rattle", LAST_ODDS, "parts were fitted last")
        return Odds(factors, tuple(because))

    @lazy
    def tension(self) -> Tension | None:
        """The string's tension by its newest pluck, where it was heard with this very string."""
        fitted = self.setup.fitted.string
        for item in reversed(self.of("pluck")):
            note = note_in(item.reading)
            if note is None or self.braced is None:
                continue
            if item.entry.fitted is not None and item.entry.fitted.string != fitted:
                continue
            if self._braced_otherwise(item):
                return None
            by_note = self.braced.tension_by(note)
            return Tension(item, note, by_note, self.braced.tension)
        return None

    def _braced_otherwise(self, one: HeardSound) -> bool:
        """Return whether the brace was set otherwise since a recording."""
        read = self.setup.string.brace_height
        if read is None or when(read.entry) < when(one.entry):
            return False
        found = changes(self.setup.effective, self.setup.archer.grips, one.entry, read.entry)
        return any(change.of == "brace" for change in found)

    @lazy
    def shafts(self) -> TappedSet | None:
        """The shafts of this set that were tapped."""
        return tapped_set(self.setup.arrows, self.arrow.sheet, self.facts.tapped)

    @lazy
    def speeds(self) -> tuple[Recorded[ArrowSpeed], ...]:
        """Speeds by ear."""
        return tuple(speed for speed in self.setup.bow.speeds if speed.reading.ear is not None)


def _reading(one: HeardSound | None, what: Literal["note", "comparison"]) -> SoundHeard | None:
    if one is None or not may(one.reading.troubles, what):
        return None
    return one.reading


def note_in(heard: SoundHeard) -> StringNote | None:
    """Return the note a recording was heard with.

    Source: as it is recorded.

    >>> from lyrandis.core.example import sound
    >>> note_in(sound(1, "pluck", note_hz=92.0, note_half_hz=0.2)).sd, note_in(sound())
    (0.1, None)
    """
    if heard.note_hz is None or heard.note_half_hz is None:
        return None
    partials = tuple((partial.number, partial.hz) for partial in heard.partials)
    return StringNote(heard.note_hz, heard.note_half_hz / 2, partials)


def _note_change(before: SoundHeard, after: SoundHeard) -> StringNote | None:
    one, other = note_in(before), note_in(after)
    return note_change(one, other) if one and other else None


def _of(heard: SoundHeard, name: str) -> list[float]:
    return [getattr(take, name) for take in heard.counting]


def rings_of(takes: Sequence[TakeHeard], octave: int) -> list[float]:
    """Return an octave's ring times that were measurable.

    Source: definition.

    >>> from lyrandis.core.example import take
    >>> rings_of([take(ring_s=0.4), take(ring_s=0.3)], 1)
    [0.4, 0.3]
    """
    return [ring for take in takes if (ring := take.ring_s[octave]) is not None]


def _ring(before: SoundHeard, after: SoundHeard, octave: int) -> Ring:
    first, last = rings_of(before.counting, octave), rings_of(after.counting, octave)
    change = None
    if min(len(first), len(last)) >= LEAST_TAKES:
        change = compared(np.log(first).tolist(), np.log(last).tolist(), RING_LN)
    return Ring(
        OCTAVES_HZ[octave],
        float(np.median(first)) if first else None,
        float(np.median(last)) if last else None,
        change,
    )


def _less(level: Compared, knock_db: float) -> Compared:
    return Compared(level.change_db - knock_db, level.half_db, level.error_db, level.freedom)


def numbers(
    facts: ListenFacts,
    *,
    setup: "Setup",
    archer: ArcherNumbers,
    bow: BowNumbers,
    string: StringNumbers,
    arrow: ArrowNumbers,
) -> ListenNumbers:
    """Return the numbers of what was heard."""
    return ListenNumbers(setup, facts, archer, bow, string, arrow)
