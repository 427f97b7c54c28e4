"""Recording entries and taking them back."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from lyrandis.api.context import BenchOf, DeskOf, as_json
from lyrandis.api.desk import Desk, Judged
from lyrandis.api.problems import CONFLICT, NOT_FOUND
from lyrandis.core import entries as e
from lyrandis.core.reading import StageKey

router = APIRouter(tags=["entries"])


class EntriesDraft(BaseModel):
    """Entries to record, all or none."""

    model_config = ConfigDict(extra="forbid")

    entries: Annotated[list[e.EntryDraft], Field(min_length=1, max_length=500)]
    rig: e.SubjectId | None = None
    """Whose assessment to return; a rig's own entries name it anyway."""
    seen: int | None = None
    """The revision the writer was looking at; guards against writing over something newer."""
    page: StageKey | None = None
    """Stage whose geometry to return with the assessment."""


class RetractionDraft(BaseModel):
    model_config = ConfigDict(extra="forbid")

    rig: e.SubjectId | None = None
    page: StageKey | None = None


class Recorded(BaseModel):
    """What was recorded, and the assessment that follows."""

    entries: list[e.Entry]
    assessment: Judged | None


_ENTRIES = TypeAdapter(list[e.Entry])


def _answer(desk: Desk, entries: list[e.Entry], rig: str | None, page: StageKey | None) -> Response:
    rig = rig or next((s.subject.id for s in entries if s.subject.kind == "rig"), None)
    tag = desk.tag(rig, page) if rig else None
    assessment = desk.judged(rig, page) if rig else b"null"
    recorded = _ENTRIES.dump_json(entries)
    answer = as_json(b'{"entries":%b,"assessment":%b}' % (recorded, assessment), 201)
    if tag:
        answer.headers["etag"] = tag
    return answer


@router.post(
    "/entries", status_code=201, response_model=Recorded, responses={**NOT_FOUND, **CONFLICT}
)
def create_entries(bench: BenchOf, desk: DeskOf, draft: EntriesDraft) -> Response:
    """Record one or several entries, all or nothing."""
    if draft.rig is not None:
        bench.check_rig(draft.rig)
    return _answer(desk, bench.record(draft.entries, seen=draft.seen), draft.rig, draft.page)


@router.post(
    "/entries/{entry_id}/retraction",
    status_code=201,
    response_model=Recorded,
    responses={**NOT_FOUND, **CONFLICT},
)
def retract_entry(
    bench: BenchOf, desk: DeskOf, entry_id: e.EntryId, draft: RetractionDraft | None = None
) -> Response:
    """Take an entry back. Taking back a retraction puts its entry back."""
    rig = draft.rig if draft else None
    if rig is not None:
        bench.check_rig(rig)
    return _answer(desk, [bench.retract(entry_id)], rig, draft.page if draft else None)
