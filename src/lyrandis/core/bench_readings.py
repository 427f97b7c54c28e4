"""Readings of no stage: names, notes, what is taken back, and what is on the rig."""

from collections.abc import Callable
from typing import Literal

from pydantic import ValidationInfo, model_validator

from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Figure, Phrase, count, gap, gr, mm, phrase, plain
from lyrandis.core.quantities import believable
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


ChangedWhat = Literal["brace", "nock", "bolts", "point", "silencers", "riser_weight"]
_CHANGES: dict[ChangedWhat, tuple[str, Callable[[float], Figure], str, str]] = {
    "brace": ("Brace", mm, "higher", "lower"),
    "nock": ("Nock", gap, "up", "down"),
    "bolts": ("Limb bolts", count, "further out", "further in"),
    "point": ("Point", gr, "heavier", "lighter"),
    "silencers": ("Silencers", gr, "heavier", "lighter"),
    "riser_weight": ("Weight on the riser", gr, "added", "taken off"),
}
"""What is called how, in which figure, and the words for both ways."""
_NEEDS: dict[ChangedWhat, frozenset[PartKind]] = {
    "brace": frozenset({"bow", "string"}), "nock": frozenset({"bow", "string"}),
    "riser_weight": frozenset({"bow"}),
}  # fmt: skip


class Changed(BaseReading):
    """A change of something, whatever it was before: never the total.

    `amount` in mm for brace and nock (+ up), turns for both limb bolts (+ out), grains for point,
    silencers together and weight on the riser. Turns of the string are `string_turned`.
    """

    of = frozenset({"rig", "bow", "string", "arrow_set"})
    by = "measured"
    settles = False
    kind: Literal["changed"] = "changed"
    what: ChangedWhat
    amount: float

    @model_validator(mode="after")
    def _some(self, info: ValidationInfo) -> "Changed":
        if self.amount == 0:
            raise DomainError(
                "nothing_given", "Nothing was changed.", "Give by how much.", "amount"
            )
        believable(f"{self.what}_by", self.amount, info.context)
        return self

    def needed(self) -> frozenset[PartKind]:
        return _NEEDS.get(self.what, self.needs)

    def changes(self) -> tuple[str, float]:
        return self.what, self.amount

    def say(self) -> Phrase:
        name, figure, more, less = _CHANGES[self.what]
        turns = ""
        if self.what == "bolts":
            turns = " turn" if abs(self.amount) <= 1 else " turns"
        way = more if self.amount > 0 else less
        return phrase(f"{name} {{by}}{turns} {way}", by=figure(abs(self.amount)))


BenchReading = Changed | Named | Noted | Retraction | PutAway | PartFitted
