"""Archers, bows, strings and arrow sets: list and create."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from lyrandis.api.context import BenchOf
from lyrandis.core import entries as e
from lyrandis.store.bench import KnownSubject, NewPart

router = APIRouter(tags=["subjects"])


class SubjectOut(BaseModel):
    """A subject and what it is called now."""

    model_config = ConfigDict(from_attributes=True)

    id: str
    kind: e.SubjectKind
    name: str
    origin: str


class FirstReading(BaseModel):
    """A reading that a new subject starts with."""

    model_config = ConfigDict(extra="forbid")

    reading: e.Reading
    source: e.Source | None = None
    note: e.Note | None = None
    as_typed: Annotated[str, Field(max_length=400)] | None = None

    def on(self, subject: e.Subject) -> e.EntryDraft:
        return e.EntryDraft(
            subject=subject,
            reading=self.reading,
            source=self.source,
            note=self.note,
            as_typed=self.as_typed,
        )


class SubjectDraft(BaseModel):
    """A new subject and the readings it starts with."""

    model_config = ConfigDict(extra="forbid")

    name: e.Name
    readings: list[FirstReading] = []


def _fits(kind: e.SubjectKind) -> AfterValidator:
    """Check first readings against the kind of subject they are for."""

    def check(draft: SubjectDraft) -> SubjectDraft:
        for first in draft.readings:
            first.on(e.Subject(kind=kind, id="new"))
        return draft

    return AfterValidator(check)


ArcherDraft = Annotated[SubjectDraft, _fits("archer")]
BowDraft = Annotated[SubjectDraft, _fits("bow")]
StringDraft = Annotated[SubjectDraft, _fits("string")]
ArrowSetDraft = Annotated[SubjectDraft, _fits("arrow_set")]


def new_part(kind: e.SubjectKind, draft: SubjectDraft) -> NewPart:
    return NewPart(kind, draft.name, tuple(first.on for first in draft.readings))


def _list(bench: BenchOf, kind: e.SubjectKind) -> list[KnownSubject]:
    return bench.subjects(kind)


def _create(bench: BenchOf, kind: e.SubjectKind, draft: SubjectDraft) -> KnownSubject:
    [subject] = bench.make([new_part(kind, draft)])
    return KnownSubject(subject, kind, draft.name, "own")


@router.get("/archers", response_model=list[SubjectOut])
def list_archers(bench: BenchOf) -> list[KnownSubject]:
    """List the archers."""
    return _list(bench, "archer")


@router.post("/archers", response_model=SubjectOut, status_code=201)
def create_archer(bench: BenchOf, draft: ArcherDraft) -> KnownSubject:
    """Create an archer, with first readings."""
    return _create(bench, "archer", draft)


@router.get("/bows", response_model=list[SubjectOut])
def list_bows(bench: BenchOf) -> list[KnownSubject]:
    """List the bows."""
    return _list(bench, "bow")


@router.post("/bows", response_model=SubjectOut, status_code=201)
def create_bow(bench: BenchOf, draft: BowDraft) -> KnownSubject:
    """Create a bow, with first readings."""
    return _create(bench, "bow", draft)


@router.get("/strings", response_model=list[SubjectOut])
def list_strings(bench: BenchOf) -> list[KnownSubject]:
    """List the strings."""
    return _list(bench, "string")


@router.post("/strings", response_model=SubjectOut, status_code=201)
def create_string(bench: BenchOf, draft: StringDraft) -> KnownSubject:
    """Create a string, with first readings."""
    return _create(bench, "string", draft)


@router.get("/arrow-sets", response_model=list[SubjectOut])
def list_arrow_sets(bench: BenchOf) -> list[KnownSubject]:
    """List the arrow sets."""
    return _list(bench, "arrow_set")


@router.post("/arrow-sets", response_model=SubjectOut, status_code=201)
def create_arrow_set(bench: BenchOf, draft: ArrowSetDraft) -> KnownSubject:
    """Create an arrow set, with first readings."""
    return _create(bench, "arrow_set", draft)
