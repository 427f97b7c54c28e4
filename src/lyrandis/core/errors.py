"""What the core says when something cannot be so."""

from dataclasses import dataclass
from typing import Literal

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
    "one_needed",
    "both_needed",
    "twice",
    "wrong_order",
    "missing_diameter",
    "nothing_fitted",
    "empty",
    "unknown_word",
    "unknown_choice",
    "missing_choice",
    "missing_number",
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
    "too_long",
    "not_a_table",
    "no_numbers",
    "database_newer",
    "not_a_database",
    "no_free_port",
]
"""What went wrong, for programs. Status and words of each stand in one table, `api/problems.py`."""


@dataclass(frozen=True)
class Guess:
    """Another reading of what was typed, offered back."""

    text: str
    """The jot line that would record it."""
    says: str
    """The question put to the archer."""


class DomainError(ValueError):
    """A value or request the trade does not allow, with what to do about it.

    A `ValueError`, so that Pydantic carries it out of a validator untouched.
    """

    def __init__(
        self,
        code: Code,
        reason: str,
        instruction: str,
        field: str | None = None,
        *,
        guesses: tuple[Guess, ...] = (),
        span: tuple[int, int] | None = None,
    ) -> None:
        super().__init__(reason)
        self.code = code
        self.reason = reason
        self.instruction = instruction
        self.field = field
        self.guesses = guesses
        self.span = span
