"""Archers, bows, strings and arrow sets: list and create."""

from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf
from lyrandis.api.problems import CONFLICT
from lyrandis.core import entries as e
from lyrandis.core.reading import Name, Note, Source, Subject, SubjectId, SubjectKind
from lyrandis.store.bench import KnownSubject, NewPart

router = api_router("subjects")


class SubjectOut(BaseModel):
    """A subject and what it is called now."""

    model_config = ConfigDict(from_attributes=True)

    id: str
    kind: SubjectKind
    name: str
    origin: str


class FirstReading(BaseModel):
    """A reading that a new subject starts with."""

    model_config = ConfigDict(extra="forbid")

    reading: e.Reading
    source: Source | None = None
    note: Note | None = None
    as_typed: Annotated[str, Field(max_length=400)] | None = None

    def on(self, subject: Subject) -> e.EntryDraft:
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

    name: Name
    alike: bool = False
    """Named so although another of the kind is called the same."""
    readings: list[FirstReading] = []


class PartDraft(SubjectDraft):
    """A part of a new rig: a new one, or one there is with something to add to it."""

    same_as: SubjectId | None = None
    """The one there is: it keeps its own name."""


def _fits(kind: SubjectKind) -> AfterValidator:
    """Check first readings against the kind of subject they are for."""

    def check(draft: SubjectDraft) -> SubjectDraft:
        for first in draft.readings:
            first.on(Subject(kind=kind, id="new"))
        return draft

    return AfterValidator(check)


ArcherDraft = Annotated[PartDraft, _fits("archer")]
BowDraft = Annotated[PartDraft, _fits("bow")]
StringDraft = Annotated[PartDraft, _fits("string")]
ArrowSetDraft = Annotated[PartDraft, _fits("arrow_set")]


def new_part(kind: SubjectKind, draft: SubjectDraft) -> NewPart:
    return NewPart(
        kind,
        draft.name,
        tuple(first.on for first in draft.readings),
        draft.alike,
        getattr(draft, "same_as", None),
    )


def _offer(kind: SubjectKind, plural: str, words: str) -> None:
    """Add the routes that list and create one kind of subject."""
    draft_type: Any = Annotated[SubjectDraft, _fits(kind)]

    def list_subjects(bench: BenchOf) -> list[KnownSubject]:
        return bench.subjects(kind)

    def create_subject(bench: BenchOf, draft: draft_type) -> KnownSubject:
        [subject] = bench.make([new_part(kind, draft)])
        return KnownSubject(subject, kind, draft.name, "own")

    name = plural.replace("-", "_")
    router.add_api_route(
        f"/{plural}",
        list_subjects,
        response_model=list[SubjectOut],
        name=f"list_{name}",
        description=f"List the {words}.",
    )
    router.add_api_route(
        f"/{plural}",
        create_subject,
        methods=["POST"],
        response_model=SubjectOut,
        status_code=201,
        responses=CONFLICT,
        name=f"create_{name.removesuffix('s')}",
        description=f"Create one of the {words}, with first readings.",
    )


_offer("archer", "archers", "archers")
_offer("bow", "bows", "bows")
_offer("string", "strings", "strings")
_offer("arrow_set", "arrow-sets", "arrow sets")
