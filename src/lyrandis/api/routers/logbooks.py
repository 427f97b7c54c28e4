"""Bringing a saved logbook in."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf
from lyrandis.api.problems import CONFLICT
from lyrandis.core.errors import DomainError
from lyrandis.core.logbook import MOST_ENTRIES, SavedEntry, in_order_of_recording, rig_of
from lyrandis.core.reading import SubjectId, SubjectKind

router = api_router("entries")


class LogbookDraft(BaseModel):
    """A saved logbook, and whether it is only looked at."""

    model_config = ConfigDict(extra="forbid")

    entries: Annotated[list[SavedEntry], Field(max_length=MOST_ENTRIES)]
    rig: SubjectId | None = None
    only_look: bool = False


class PartBrought(BaseModel):
    """An archer, bow, string, arrow set or rig of the file."""

    kind: SubjectKind
    id: str
    name: str
    new: bool
    alike: bool
    """It is new, and another of the kind is called the same here."""


class LogbookBrought(BaseModel):
    """What a saved logbook brings, or has brought."""

    rig: str | None
    """Id of the rig the file is about, as it is called here."""
    new: int
    already: int
    left_out: int
    """Entries that take back what is taken back here."""
    parts: list[PartBrought]


@router.post("/logbooks", status_code=201, responses=CONFLICT)
def bring_logbook_in(bench: BenchOf, file: LogbookDraft) -> LogbookBrought:
    """Record what is new in a saved logbook, all of it or nothing; what is here is not doubled.

    With `only_look` nothing is recorded: it says what would be.
    """
    if not file.entries:
        raise DomainError(
            "not_a_logbook",
            "There is no entry in this file.",
            "Choose a file saved from a logbook page.",
            "entries",
        )
    rig = rig_of(file.entries, file.rig)
    plan = bench.bring_in(in_order_of_recording(file.entries), only_look=file.only_look)
    return LogbookBrought(
        rig=rig and plan.ids[rig],
        new=len(plan.fresh),
        already=plan.already,
        left_out=plan.left_out,
        parts=[
            PartBrought(kind=one.kind, id=one.id, name=one.name, new=one.new, alike=one.alike)
            for one in plan.parts
        ],
    )
