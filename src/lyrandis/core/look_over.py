"""How a part was found when it was last looked over, and which stage says so."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from lyrandis.core.drawn import Drawn
from lyrandis.core.entries import Entry
from lyrandis.core.phrase import Phrase, day, phrase
from lyrandis.core.reading import PartKind

Found = Literal["sound", "failing", "partly", "not_looked"]


class LookOver(Drawn):
    """How a part was found when it was last looked over."""

    found: Found
    at: datetime | None
    says: Phrase


@dataclass(frozen=True, slots=True)
class LooksOver:
    """What a stage looks over: the part, the readings that tell of it, and what they come to."""

    part: PartKind
    kinds: tuple[str, ...]
    found: Callable[[Sequence[Entry]], LookOver]
    """Of the standing entries of those kinds of one part, in order."""


def looked_over_as(*, failing: str, looked: int, of: int, at: datetime | None) -> LookOver:
    """Return the look-over of `of` things, `looked` of them looked at, in one line.

    Source: what fails is said before what nobody has looked at.

    >>> looked_over_as(failing="", looked=0, of=9, at=None).says.text()
    'not looked over yet'
    """
    if at is None:
        return LookOver(found="not_looked", at=None, says=phrase("not looked over yet"))
    if failing:
        return LookOver(found="failing", at=at, says=phrase(f"{failing}, {{day}}", day=day(at)))
    if looked < of:
        said = f"{looked} of {of} looked at, {{day}}"
        return LookOver(found="partly", at=at, says=phrase(said, day=day(at)))
    return LookOver(found="sound", at=at, says=phrase("found sound, {day}", day=day(at)))
