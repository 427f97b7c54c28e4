"""The numbers of the string: its gain, turns, settling and quiet spot. Lengths in mm."""

from dataclasses import dataclass

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.bow.statics import BowShape
from lyrandis.core.estimate import Estimate
from lyrandis.core.lazy import lazy
from lyrandis.core.string.braces import (
    SettlingLog,
    brace_read_to_pivot,
    settling_log,
    turned_braces,
    turned_by,
    usual_limits,
)
from lyrandis.core.string.facts import StringFacts
from lyrandis.core.string.length import StringLength, gain_of, own_gain, string_length
from lyrandis.core.string.settling import Settling, fit_settling
from lyrandis.core.string.strands import diameter_of
from lyrandis.core.string.sweep import Height, Quiet, sweep
from lyrandis.core.string.turns import Bundle, inferred_turns, pairs_of


@dataclass(frozen=True)
class StringNumbers:
    """What follows from the string's facts; reckoned when it is asked for."""

    facts: StringFacts
    grips: ArcherFacts
    bow: BowFacts
    shape: BowShape
    brace_doubted: bool = False
    """True where the brace as read is so far off that nothing is ordered or judged from it."""

    @property
    def sure_brace(self) -> Estimate | None:
        """The brace to reckon from; None where none was read that can be believed."""
        return None if self.brace_doubted else self.brace

    @lazy
    def brace(self) -> Estimate | None:
        """The brace as last read, to the deepest part of the grip."""
        read = self.facts.brace_height
        if read is None:
            return None
        return brace_read_to_pivot(read.reading.brace_height_mm, read.reading.datum, self.grips)

    @lazy
    def limits(self) -> tuple[float, float]:
        """Brace heights the maker allows, else half an inch round the kind's usual one."""
        told = self.bow.brace_range
        if told is not None:
            return told.reading.low_mm, told.reading.high_mm
        return usual_limits(FAMILIES[self.shape.family].brace_in)

    @property
    def limits_told(self) -> bool:
        return self.bow.brace_range is not None

    @lazy
    def length(self) -> StringLength:
        """How long the string should be."""
        return string_length(self.shape)

    @lazy
    def length_mm(self) -> float:
        """How long it is: told, else as the computed bow has it."""
        told: float | None = self.facts.part("string_length_mm")
        return told or self.length.computed_mm or self.length.rule_mm

    @lazy
    def diameter(self) -> Estimate | None:
        """Thickness of the bundle, measured or reckoned."""
        return diameter_of(self.facts.material, self.facts.strands, self.facts.part("bundle_mm"))

    @lazy
    def inferred_turns(self) -> Estimate | None:
        """Turns in the string by what a change of them did to its brace; None where counted."""
        if self.facts.turns or self.diameter is None or self.model_gain is None:
            return None
        changes = turned_by(self.facts, self.grips)
        return inferred_turns(changes, self.length_mm, self.diameter, self.model_gain)

    @lazy
    def bundle(self) -> Bundle | None:
        """The string for its turns, counted or inferred; None while they or it are unknown."""
        if self.diameter is None:
            return None
        if self.facts.turns:
            turns = self.facts.turns[-1].reading.turns
        elif self.inferred_turns is not None:
            turns = self.inferred_turns.value
        else:
            return None
        return Bundle(self.length_mm, self.diameter, turns, self.facts.kind or "twisted")

    @lazy
    def model_gain(self) -> Estimate | None:
        """Brace per length of string, of the computed bow."""
        return gain_of(self.shape)

    @lazy
    def pairs(self) -> int:
        """Own changes of turns that say something of the gain."""
        return len(self._pairs)

    @lazy
    def _pairs(self):  # type: ignore[no-untyped-def]
        if self.diameter is None:
            return ()
        braces = turned_braces(self.facts, self.grips)
        return pairs_of(braces, self.length_mm, self.diameter.value)

    @lazy
    def gain(self) -> Estimate | None:
        """The same, drawn to the archer's own changes of turns."""
        return None if self.model_gain is None else own_gain(self.model_gain, self._pairs)

    @lazy
    def log(self) -> SettlingLog:
        return settling_log(self.facts, self.grips)

    @lazy
    def settling(self) -> Settling | None:
        """The creep fitted to the brace readings; None without any that have hours."""
        if not self.log.readings:
            return None
        return fit_settling(self.log.readings, self.facts.material)

    @lazy
    def settled(self) -> bool | None:
        """Whether it has settled: as told or as fitted, what is newer; None where nobody knows."""
        told = self.facts.settled
        if told is not None and (self.settling is None or self._told_last):
            return told.reading.settled
        return None if self.settling is None else self.settling.is_settled

    @property
    def _told_last(self) -> bool:
        told = self.facts.settled
        newest = self.facts.braces[-1].entry.happened_at if self.facts.braces else None
        return told is not None and (newest is None or told.entry.happened_at >= newest)

    @lazy
    def heights(self) -> tuple[Height, ...]:
        """The heights that were shot, brought to the pivot.

        Recorded levels compare only within one session: those of the newest one count.
        """
        comparable = self._comparable
        return tuple(
            Height(
                brace_read_to_pivot(
                    trial.reading.brace_height_mm, trial.reading.datum, self.grips
                ).value,
                trial.reading.sound,
                trial.reading.shock,
                trial.reading.takes_db if trial.entry.id in comparable else (),
            )
            for trial in self.facts.tried
        )

    @lazy
    def _comparable(self) -> frozenset[str]:
        """Entries of heights recorded with the same phone, place and gain as the newest."""
        result: list[str] = []
        for trial in self.facts.tried:
            if not trial.reading.takes_db:
                continue
            if trial.reading.ear is None or not trial.reading.ear.same_place:
                result = []
            result.append(trial.entry.id)
        return frozenset(result)

    @lazy
    def quiet(self) -> Quiet | None:
        """The quiet spot as far as it is known; None before a height was shot."""
        return sweep(self.heights, self.limits) if self.heights else None


def numbers(
    facts: StringFacts,
    *,
    archer_facts: ArcherFacts,
    bow_facts: BowFacts,
    likeness: Likeness,
    brace_doubted: bool = False,
) -> StringNumbers:
    """Return the string's numbers."""
    return StringNumbers(facts, archer_facts.grips, bow_facts, likeness.shape, brace_doubted)
