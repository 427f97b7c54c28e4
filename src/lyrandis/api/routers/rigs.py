"""Rigs: list, create, judge, and their history."""

from fastapi import APIRouter, Response
from pydantic import AwareDatetime, BaseModel, ConfigDict

from lyrandis.api.context import BenchOf, as_json
from lyrandis.api.problems import NOT_FOUND
from lyrandis.api.routers.subjects import (
    ArcherDraft,
    ArrowSetDraft,
    BowDraft,
    StringDraft,
    new_part,
)
from lyrandis.core import entries as e
from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.phrase import Phrase
from lyrandis.core.pile import retracted_ids
from lyrandis.core.setup import fold
from lyrandis.store.bench import Bench, NewPart

router = APIRouter(tags=["rigs"])


class RigOut(BaseModel):
    """A rig for the switcher."""

    id: str
    name: str
    origin: str
    put_away: bool
    archer: str | None
    bow: str | None
    arrow_set: str | None


class RigDraft(BaseModel):
    """A new rig; each part is the id of one there is, or a new one."""

    model_config = ConfigDict(extra="forbid")

    name: e.Name
    archer: e.SubjectId | ArcherDraft | None = None
    bow: e.SubjectId | BowDraft | None = None
    string: e.SubjectId | StringDraft | None = None
    arrow_set: e.SubjectId | ArrowSetDraft | None = None


class History(BaseModel):
    """Every entry that bears on a rig, in order, with its words."""

    rig: str
    entries: list[e.Entry]
    says: dict[str, Phrase]
    taken_back: dict[str, str | None]
    """Entries that are taken back, and by which retraction."""
    names: dict[str, str]


@router.get("/rigs")
def list_rigs(bench: BenchOf) -> list[RigOut]:
    """List the rigs with the names of their parts."""
    names = {subject.id: subject.name for subject in bench.subjects()}
    return [
        RigOut(
            id=rig.id,
            name=rig.name,
            origin=rig.origin,
            put_away=away,
            archer=names.get(fitted.archer or ""),
            bow=names.get(fitted.bow or ""),
            arrow_set=names.get(fitted.arrow_set or ""),
        )
        for rig, fitted, away in bench.rigs_as_fitted()
    ]


@router.post("/rigs", status_code=201, response_model=Assessment, responses=NOT_FOUND)
def create_rig(bench: BenchOf, draft: RigDraft) -> Response:
    """Create a rig and those of its parts that are new, all or nothing; return its assessment."""
    parts: dict[e.PartKind, str | NewPart] = {}
    for kind in ("archer", "bow", "string", "arrow_set"):
        part = getattr(draft, kind)
        if part is not None:
            parts[kind] = part if isinstance(part, str) else new_part(kind, part)
    return as_json(assessment_of(bench, bench.make_rig(draft.name, parts)), 201)


@router.get("/rigs/{rig}", response_model=Assessment, responses=NOT_FOUND)
def read_rig(bench: BenchOf, rig: e.SubjectId, as_of: AwareDatetime | None = None) -> Response:
    """Judge a rig as it is now, or as it stood at an instant."""
    return as_json(assess(fold(bench.entries_of_rig(rig), rig=rig, as_of=as_of)))


@router.get("/rigs/{rig}/entries", responses=NOT_FOUND)
def read_rig_entries(bench: BenchOf, rig: e.SubjectId) -> History:
    """Return every entry of a rig and of the parts it ever had."""
    entries = bench.entries_of_rig(rig)
    gone = retracted_ids(entries)
    return History(
        rig=rig,
        entries=entries,
        says={entry.id: entry.reading.say() for entry in entries},
        taken_back={entry_id: _taker(entries, entry_id, gone) for entry_id in gone},
        names={subject.id: subject.name for subject in bench.subjects()},
    )


def _taker(entries: list[e.Entry], entry_id: str, gone: frozenset[str]) -> str | None:
    """Return the standing retraction that took an entry back."""
    takers = (
        entry.id
        for entry in entries
        if isinstance(entry.reading, e.Retraction)
        and entry.reading.entry_id == entry_id
        and entry.id not in gone
    )
    return next(takers, None)


def assessment_of(bench: Bench, rig: str) -> Assessment:
    return assess(fold(bench.entries_of_rig(rig), rig=rig))
