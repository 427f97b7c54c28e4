"""Recording entries and taking them back."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.context import BenchOf, as_json
from lyrandis.api.problems import CONFLICT, NOT_FOUND
from lyrandis.api.routers.rigs import assessment_of
from lyrandis.core import entries as e
from lyrandis.core.assessment import Assessment
from lyrandis.store.bench import Bench

router = APIRouter(tags=["entries"])


class EntriesDraft(BaseModel):
    """Entries to record, all or none."""

    model_config = ConfigDict(extra="forbid")

    entries: Annotated[list[e.EntryDraft], Field(min_length=1, max_length=500)]
    rig: e.SubjectId | None = None
    """Whose assessment to return; a rig's own entries name it anyway."""
    seen: int | None = None
    """The revision the writer was looking at; guards against writing over something newer."""


class RetractionDraft(BaseModel):
    model_config = ConfigDict(extra="forbid")

    rig: e.SubjectId | None = None


class Recorded(BaseModel):
    """What was recorded, and the assessment that follows."""

    entries: list[e.Entry]
    assessment: Assessment | None


def _answer(bench: Bench, entries: list[e.Entry], rig: str | None) -> Response:
    rig = rig or next((s.subject.id for s in entries if s.subject.kind == "rig"), None)
    assessment = assessment_of(bench, rig) if rig else None
    return as_json(Recorded(entries=entries, assessment=assessment), 201)


@router.post(
    "/entries", status_code=201, response_model=Recorded, responses={**NOT_FOUND, **CONFLICT}
)
def create_entries(bench: BenchOf, draft: EntriesDraft) -> Response:
    """Record one or several entries, all or nothing."""
    if draft.rig is not None:
        bench.check_rig(draft.rig)
    return _answer(bench, bench.record(draft.entries, seen=draft.seen), draft.rig)


@router.post(
    "/entries/{entry_id}/retraction",
    status_code=201,
    response_model=Recorded,
    responses={**NOT_FOUND, **CONFLICT},
)
def retract_entry(
    bench: BenchOf, entry_id: e.EntryId, draft: RetractionDraft | None = None
) -> Response:
    """Take an entry back. Taking back a retraction puts its entry back."""
    rig = draft.rig if draft else None
    if rig is not None:
        bench.check_rig(rig)
    return _answer(bench, [bench.retract(entry_id)], rig)
