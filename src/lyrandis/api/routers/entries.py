"""Recording entries and taking them back."""

from itertools import takewhile
from typing import Annotated

from fastapi import Response
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, TypeAdapter

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf, RigsOf, as_json
from lyrandis.api.problems import CONFLICT, NOT_FOUND
from lyrandis.api.rig_cache import Judged, RigCache
from lyrandis.core import entries as e
from lyrandis.core.effective import in_force, overruling, when
from lyrandis.core.order.readings import SettingChecked
from lyrandis.core.phrase import Phrase
from lyrandis.core.reading import EntryId, StageKey, SubjectId
from lyrandis.store.bench import Bench

router = api_router("entries")


MOST_REVISIONS = 2**53
"""More entries than any bench will hold; a number the page can hold exactly."""


class EntriesDraft(BaseModel):
    """Entries to record, all or none."""

    model_config = ConfigDict(extra="forbid")

    entries: Annotated[list[e.EntryDraft], Field(min_length=1, max_length=500)]
    rig: SubjectId | None = None
    """Whose assessment to return; a rig's own entries name it anyway."""
    seen: Annotated[int, Field(ge=0, le=MOST_REVISIONS)] | None = None
    """The revision the writer was looking at; guards against writing over something newer."""
    page: StageKey | None = None
    """Stage whose geometry to return with the assessment."""


class RetractionDraft(BaseModel):
    model_config = ConfigDict(extra="forbid")

    rig: SubjectId | None = None
    page: StageKey | None = None


class RetractionsDraft(RetractionDraft):
    """Entries to take back, all or none."""

    entries: Annotated[list[e.Taking], Field(min_length=1, max_length=500)]


class Overruling(BaseModel):
    """What stands instead of a reading that is older than it."""

    says: Phrase
    happened_at: AwareDatetime


class RecordedEntries(BaseModel):
    """What was recorded, and the assessment that follows."""

    entries: list[e.Entry]
    overruled: dict[str, Overruling]
    """Entries written up late, whose topic a newer reading has settled since."""
    assessment: Judged | None


_ENTRIES = TypeAdapter(list[e.Entry])
_OVERRULED = TypeAdapter(dict[str, Overruling])


def _overruled(bench: Bench, rig: str | None, entries: list[e.Entry]) -> dict[str, Overruling]:
    late = [entry for entry in entries if entry.happened_at < entry.recorded_at]
    if rig is None or not late:
        return {}
    log = bench.entries_of_rig(rig)
    first = min(when(entry) for entry in late)
    # an entry is stamped when it is typed: nearly always nothing has happened since
    ids = {entry.id for entry in entries}
    since = takewhile(lambda entry: when(entry) > first, reversed(log))
    if all(entry.id in ids for entry in since) and len(late) == 1:
        return {}
    standing = in_force(log, ordered=True)
    newer = {entry.id: overruling(entry, standing) for entry in late}
    return {
        entry_id: Overruling(says=by.reading.say(), happened_at=by.happened_at)
        for entry_id, by in newer.items()
        if by is not None
    }


def _answer(
    bench: Bench, rigs: RigCache, entries: list[e.Entry], rig: str | None, page: StageKey | None
) -> Response:
    rig = rig or next((s.subject.id for s in entries if s.subject.kind == "rig"), None)
    tag = rigs.tag(rig, page) if rig else None
    answer = as_json(
        b'{"entries":%b,"overruled":%b,"assessment":%b}'
        % (
            _ENTRIES.dump_json(entries),
            _OVERRULED.dump_json(_overruled(bench, rig, entries)),
            rigs.judged(rig, page) if rig else b"null",
        ),
        201,
    )
    if tag:
        answer.headers["etag"] = tag
    return answer


def _require_known(bench: Bench, rigs: RigCache, drafts: list[e.EntryDraft]) -> None:
    """Refuse to say that a setting stands which was moved and not measured since."""
    for one in drafts:
        if isinstance(one.reading, SettingChecked):
            bench.check_rig(one.subject.id)
            rigs.computed(one.subject.id).order.require_known(one.reading.setting)


@router.post(
    "/entries", status_code=201, response_model=RecordedEntries, responses={**NOT_FOUND, **CONFLICT}
)
def create_entries(bench: BenchOf, rigs: RigsOf, draft: EntriesDraft) -> Response:
    """Record one or several entries, all or nothing."""
    if draft.rig is not None:
        bench.check_rig(draft.rig)
    _require_known(bench, rigs, draft.entries)
    entries = bench.record(draft.entries, seen=draft.seen, rig=draft.rig)
    return _answer(bench, rigs, entries, draft.rig, draft.page)


@router.post(
    "/retractions",
    status_code=201,
    response_model=RecordedEntries,
    responses={**NOT_FOUND, **CONFLICT},
)
def retract_entries(bench: BenchOf, rigs: RigsOf, draft: RetractionsDraft) -> Response:
    """Take entries back, all or none. Taking back a retraction puts its entry back."""
    if draft.rig is not None:
        bench.check_rig(draft.rig)
    return _answer(bench, rigs, bench.retract(*draft.entries), draft.rig, draft.page)


@router.post(
    "/entries/{entry_id}/retraction",
    status_code=201,
    response_model=RecordedEntries,
    responses={**NOT_FOUND, **CONFLICT},
)
def retract_entry(
    bench: BenchOf, rigs: RigsOf, entry_id: EntryId, draft: RetractionDraft | None = None
) -> Response:
    """Take one entry back. Taking back a retraction puts its entry back."""
    rig = draft.rig if draft else None
    if rig is not None:
        bench.check_rig(rig)
    taken = bench.retract(e.Taking(entry_id=entry_id))
    return _answer(bench, rigs, taken, rig, draft.page if draft else None)
