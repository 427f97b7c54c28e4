"""Readings of no stage: names, notes, what is taken back, and what is on the rig."""

from typing import Literal

from lyrandis.core.phrase import Phrase, phrase, plain
from lyrandis.core.reading import (
    ANY_SUBJECT,
    BaseReading,
    EntryId,
    Name,
    Note,
    PartKind,
    SubjectId,
)

PART_WORDS: dict[PartKind, str] = {
    "archer": "archer",
    "bow": "bow",
    "string": "string",
    "arrow_set": "arrow set",
}


def same_name(one: str, other: str) -> bool:
    """Return whether two names read the same: case and spaces apart.

    >>> same_name("Marram  longbow", "marram Longbow"), same_name("Ann", "Anna")
    (True, False)
    """
    return one.casefold().split() == other.casefold().split()


class Named(BaseReading):
    """Gives the subject its name."""

    of = ANY_SUBJECT
    kind: Literal["named"] = "named"
    name: Name
    alike: bool = False
    """The archer knows that another of the kind is called the same."""

    def say(self) -> Phrase:
        return phrase(f"Named {plain(self.name)}")


class Noted(BaseReading):
    """Words worth keeping."""

    of = ANY_SUBJECT
    settles = False
    kind: Literal["noted"] = "noted"
    text: Note

    def say(self) -> Phrase:
        return phrase(f"Note: {plain(self.text)}")


class Retraction(BaseReading):
    """Takes back an earlier entry; taking back a retraction puts that entry back."""

    of = ANY_SUBJECT
    settles = False
    kind: Literal["retraction"] = "retraction"
    entry_id: EntryId

    def say(self) -> Phrase:
        return phrase("Took an entry back")


class PutAway(BaseReading):
    """Puts a rig away from the switcher, or takes it out again."""

    of = frozenset({"rig"})
    kind: Literal["put_away"] = "put_away"
    away: bool = True

    def say(self) -> Phrase:
        return phrase("Put away" if self.away else "Taken out again")


class PartFitted(BaseReading):
    """Names the part now on the rig; no id takes that kind of part off."""

    of = frozenset({"rig"})
    keyed_by = ("part",)
    kind: Literal["part_fitted"] = "part_fitted"
    part: PartKind
    part_id: SubjectId | None

    def say(self) -> Phrase:
        if self.part_id is None:
            return phrase(f"Took the {PART_WORDS[self.part]} off")
        return phrase(f"Fitted {PART_WORDS[self.part]} {self.part_id}")


BenchReading = Named | Noted | Retraction | PutAway | PartFitted
