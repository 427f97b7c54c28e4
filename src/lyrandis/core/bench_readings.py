"""Readings of no stage: names, notes, what is taken back, and what is on the rig."""

from typing import Literal

from lyrandis.core.reading import (
    ANY_SUBJECT,
    BaseReading,
    EntryId,
    Name,
    Note,
    PartKind,
    SubjectId,
)


class Named(BaseReading):
    """Gives the subject its name."""

    of = ANY_SUBJECT
    kind: Literal["named"] = "named"
    name: Name


class Noted(BaseReading):
    """Words worth keeping."""

    of = ANY_SUBJECT
    settles = False
    kind: Literal["noted"] = "noted"
    text: Note


class Retraction(BaseReading):
    """Takes back an earlier entry; taking back a retraction puts that entry back."""

    of = ANY_SUBJECT
    settles = False
    kind: Literal["retraction"] = "retraction"
    entry_id: EntryId


class PutAway(BaseReading):
    """Puts a rig away from the switcher, or takes it out again."""

    of = frozenset({"rig"})
    kind: Literal["put_away"] = "put_away"
    away: bool = True


class PartFitted(BaseReading):
    """Names the part now on the rig; no id takes that kind of part off."""

    of = frozenset({"rig"})
    kind: Literal["part_fitted"] = "part_fitted"
    part: PartKind
    part_id: SubjectId | None


BenchReading = Named | Noted | Retraction | PutAway | PartFitted
