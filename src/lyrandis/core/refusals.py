"""What the validation's errors are in our words: its own never reach a person."""

from collections.abc import Sequence
from typing import Any, NamedTuple

from lyrandis.core.errors import Code, DomainError

_NOT_A_NUMBER: tuple[Code, str, str] = (
    "not_a_number", "This is not a number.", "Type a plain number.",
)  # fmt: skip
_WHOLE: tuple[Code, str, str] = (
    "not_a_number", "This is not a whole number.", "Give a whole number.",
)  # fmt: skip
_NO_TIME: tuple[Code, str, str] = (
    "no_time_zone", "This is no day and time.", "Give it like 2026-01-10T10:00:00Z.",
)  # fmt: skip
_WORDS_OF_TYPE: dict[str, tuple[Code, str, str]] = {
    "missing": ("missing_field", "Something is missing.", "Give it."),
    "extra_forbidden": ("unknown_field", "This is not known here.", "Leave it out."),
    "finite_number": ("not_a_number", "This is not a finite number.", "Type a plain number."),
    "float_type": _NOT_A_NUMBER,
    "float_parsing": _NOT_A_NUMBER,
    "int_type": _WHOLE,
    "int_parsing": _WHOLE,
    "int_parsing_size": _WHOLE,
    "int_from_float": _WHOLE,
    "bool_type": ("invalid", "This is neither yes nor no.", "Give true or false."),
    "bool_parsing": ("invalid", "This is neither yes nor no.", "Give true or false."),
    "string_type": ("invalid", "This is no text.", "Give it as text."),
    "string_too_short": ("empty", "Nothing is written here.", "Write a word or two."),
    "string_too_long": (
        "too_much", "This is longer than is kept here.", "Say it in {max_length} letters at most.",
    ),
    "string_pattern_mismatch": (
        "invalid", "This is no name of anything here.", "Choose one from the list.",
    ),
    "string_unicode": ("invalid", "This holds letters that cannot be read.", "Type it anew."),
    "literal_error": ("unknown_choice", "This is none of the choices.", "Choose {expected}."),
    "tuple_type": ("invalid", "This is no list.", "Give a list."),
    "list_type": ("invalid", "This is no list.", "Give a list."),
    "set_type": ("invalid", "This is no list.", "Give a list."),
    "too_short": ("too_few", "That is too few of them.", "Give at least {min_length}."),
    "too_long": ("too_many", "That is more than is taken here.", "Give at most {max_length}."),
    "greater_than": ("out_of_range", "This is too small.", "Give more than {gt:g}."),
    "greater_than_equal": ("out_of_range", "This is too small.", "Give {ge:g} or more."),
    "less_than": ("out_of_range", "This is too large.", "Give less than {lt:g}."),
    "less_than_equal": ("out_of_range", "This is too large.", "Give {le:g} or less."),
    "model_type": ("invalid", "This is not made up of named values.", "Give it as an object."),
    "model_attributes_type": (
        "invalid", "This is not made up of named values.", "Give it as an object.",
    ),
    "dict_type": ("invalid", "This is not made up of named values.", "Give it as an object."),
    "union_tag_invalid": (
        "unknown_kind",
        "There is no such kind of reading.",
        "Use one of the kinds listed in the API reference.",
    ),
    "union_tag_not_found": ("unknown_kind", "The reading has no kind.", "Say its kind."),
    "json_invalid": ("bad_json", "This cannot be read as JSON.", "Send valid JSON."),
    "json_type": ("bad_json", "This cannot be read as JSON.", "Send valid JSON."),
    "timezone_aware": (
        "no_time_zone",
        "The time has no time zone.",
        "Add one, e.g. 2026-01-10T10:00:00Z.",
    ),
    "datetime_type": _NO_TIME,
    "datetime_parsing": _NO_TIME,
    "datetime_from_date_parsing": _NO_TIME,
    "datetime_object_invalid": _NO_TIME,
    "date_type": ("invalid", "This is no day.", "Give it like 2026-01-10."),
    "date_parsing": ("invalid", "This is no day.", "Give it like 2026-01-10."),
    "date_from_datetime_parsing": ("invalid", "This is no day.", "Give it like 2026-01-10."),
    "date_from_datetime_inexact": ("invalid", "This is no day.", "Give it like 2026-01-10."),
}  # fmt: skip
_ANYTHING_ELSE: tuple[Code, str, str] = (
    "invalid", "This cannot be what is asked for here.", "See the API reference for what can be.",
)  # fmt: skip


class Refusal(NamedTuple):
    """What is wrong, and where: the field's name, and the way to it from the whole."""

    error: DomainError
    field: str | None
    path: str | None


def refusal_of(errors: Sequence[Any]) -> Refusal:
    """Return the refusal that the first of some validation errors is.

    >>> from pydantic import ValidationError
    >>> from lyrandis.core.bow.readings import BowLength
    >>> try:
    ...     BowLength(bow_length_mm="long")
    ... except ValidationError as caught:
    ...     refusal = refusal_of(caught.errors())
    >>> refusal.error.reason, refusal.field
    ('This is not a number.', 'bow_length_mm')
    """
    first = errors[0]
    places = [str(place) for place in first["loc"] if place != "body"]
    field = next((place for place in reversed(places) if not place.isdigit()), None)
    context = first.get("ctx", {})
    cause = context.get("error")
    if not isinstance(cause, DomainError):
        code, reason, instruction = _WORDS_OF_TYPE.get(first["type"], _ANYTHING_ELSE)
        cause = DomainError(code, reason, instruction.format(**context))
    return Refusal(cause, field, ".".join(places) or None)
