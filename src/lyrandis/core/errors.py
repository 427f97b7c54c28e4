"""What the core says when something cannot be so."""

from dataclasses import dataclass


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
        code: str,
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
