"""What the core says when something cannot be so."""

from dataclasses import dataclass
from typing import Literal

from lyrandis.core.phrase import Phrase, plain
from lyrandis.core.units import UnitSet

Code = Literal[
    "no_such_subject",
    "no_such_entry",
    "no_such_part",
    "not_found",
    "method_not_allowed",
    "http_error",
    "internal_error",
    "already_retracted",
    "changed_meanwhile",
    "id_taken",
    "name_needed",
    "name_taken",
    "demo_already_there",
    "foreign_host",
    "foreign_site",
    "body_too_large",
    "not_json",
    "bad_json",
    "missing_field",
    "unknown_field",
    "unknown_kind",
    "no_time_zone",
    "invalid",
    "out_of_range",
    "not_a_number",
    "in_the_future",
    "too_long_ago",
    "wrong_subject",
    "nothing_given",
    "no_reading",
    "one_needed",
    "both_needed",
    "twice",
    "wrong_order",
    "unlike_places",
    "which_datum",
    "measure_it",
    "missing_diameter",
    "empty",
    "unknown_word",
    "unknown_choice",
    "missing_choice",
    "missing_slot",
    "which_unit",
    "two_readings",
    "which_quantity",
    "wrong_unit",
    "wrong_standard",
    "too_much",
    "not_bent",
    "brace_unreachable",
    "shape_does_not_hold",
    "limb_too_short",
    "riser_longer_than_bow",
    "draw_below_brace",
    "draw_beyond_curve",
    "no_draw",
    "nothing_to_shoot",
    "tumbles",
    "taper_too_long",
    "not_a_taper",
    "too_few",
    "too_many",
    "too_long",
    "not_a_table",
    "not_field_shots",
    "not_a_logbook",
    "database_newer",
    "not_a_database",
    "no_free_port",
    "not_a_sound",
    "sound_rate",
    "sound_too_long",
    "sound_too_short",
    "sound_forgotten",
    "no_takes",
    "broken_off",
    "bad_request",
    "too_slow",
    "locked",
    "busy",
    "file_gone",
    "disk_full",
    "folder_closed",
    "damaged",
    "not_ours",
    "not_readable",
]
"""What went wrong, for programs. Status and words of each stand in one table, `api/problems.py`."""


@dataclass(frozen=True)
class Guess:
    """Another reading of what was typed, offered back."""

    text: str
    """The jot line that would record it."""
    says: str | Phrase
    """The question put to the archer."""


@dataclass(frozen=True, slots=True)
class Understood:
    """A part of what was typed, and what it was taken for."""

    start: int
    end: int
    taken_for: str


class DomainError(ValueError):
    """A value or request the trade does not allow, with what to do about it.

    A `ValueError`, so that Pydantic carries it out of a validator untouched.
    """

    def __init__(
        self,
        code: Code,
        reason: str | Phrase,
        instruction: str | Phrase,
        field: str | None = None,
        *,
        guesses: tuple[Guess, ...] = (),
        span: tuple[int, int] | None = None,
        heard: tuple[Understood, ...] = (),
    ) -> None:
        super().__init__(in_words(reason))
        self.code = code
        self.says = (reason, instruction)
        """The same as sentences with figures, to be said in the reader's units."""
        self.field = field
        self.guesses = guesses
        self.span = span
        self.heard = heard
        """What each part of a typed line was taken for, as far as it was."""

    @property
    def reason(self) -> str:
        return in_words(self.says[0])

    @property
    def instruction(self) -> str:
        return in_words(self.says[1])

    def sentence(self) -> Phrase:
        """Return reason and instruction as one sentence with figures.

        >>> DomainError("no_draw", "The draw is not known.", "Enter it.").sentence().text()
        'The draw is not known. Enter it.'
        """
        both = [said if isinstance(said, Phrase) else Phrase(plain(said)) for said in self.says]
        return Phrase(
            " ".join(item.template for item in both),
            {name: figure for item in both for name, figure in item.figures.items()},
        )


def in_words(said: str | Phrase, units: UnitSet = "inch") -> str:
    """Return what was said, its figures in the given units.

    >>> from lyrandis.core.phrase import mm, phrase
    >>> in_words("Nothing."), in_words(phrase("Under {low}.", low=mm(254.0)), "metric")
    ('Nothing.', 'Under 25.4 cm.')
    """
    return said if isinstance(said, str) else said.text(units)
