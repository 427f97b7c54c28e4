"""Rigs: list, create, judge, and their history."""

from collections.abc import Sequence
from typing import Annotated

from fastapi import Header, Query, Response
from pydantic import AwareDatetime, BaseModel, ConfigDict

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf, RigsOf, as_json
from lyrandis.api.problems import CONFLICT, NOT_FOUND, NOT_MODIFIED
from lyrandis.api.rig_cache import Judged, assessment_json
from lyrandis.api.routers.subjects import (
    ArcherDraft,
    ArrowSetDraft,
    BowDraft,
    StringDraft,
    new_part,
)
from lyrandis.core import entries as e
from lyrandis.core.assessment import Assessment
from lyrandis.core.bench_readings import Retraction
from lyrandis.core.computed import compute
from lyrandis.core.effective import retracted_ids
from lyrandis.core.judgement import Finding, Mark, Value
from lyrandis.core.known import Known
from lyrandis.core.phrase import Phrase, plain
from lyrandis.core.reading import EntryId, Name, PartKind, StageKey, SubjectId
from lyrandis.core.setup import fold
from lyrandis.store.bench import Bench, NewPart

router = api_router("rigs")


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

    name: Name
    alike: bool = False
    """Named so although another rig is called the same."""
    archer: SubjectId | ArcherDraft | None = None
    bow: SubjectId | BowDraft | None = None
    string: SubjectId | StringDraft | None = None
    arrow_set: SubjectId | ArrowSetDraft | None = None
    request: EntryId | None = None
    """Sent again with the same one, the rig is made once."""


class StageLine(BaseModel):
    """A stage in one line: its live value and its mark."""

    key: StageKey
    name: str
    mark: Mark
    stop: bool
    headline: Value
    detail: Phrase | None


class RigSummary(RigOut):
    """A rig at a glance: how it stands, the gravest finding, and what is next."""

    stages: list[StageLine]
    first: Finding | None
    next_title: Phrase
    reckoning: bool
    """True while something of it is still being worked out: ask again in a moment."""


class History(BaseModel):
    """Entries that bear on a rig, in order of recording or all in order, with their words."""

    rig: str
    revision: int
    """Order number of the newest entry: ask for what is newer with `after`."""
    entries: list[e.Entry]
    says: dict[str, Phrase]
    taken_back: dict[str, str | None]
    """Entries that are taken back, and by which retraction."""
    names: dict[str, str]
    aside: list[str]
    """Ids of entries that cannot be read: kept as they are, and left out of everything."""


@router.get("/rigs")
def list_rigs(bench: BenchOf, rigs: RigsOf) -> list[RigSummary]:
    """List the rigs with the names of their parts, each at a glance."""
    return [_summary(rig, rigs.assessment(rig.id)) for rig in named_rigs(bench)]


def _summary(rig: RigOut, assessment: Assessment) -> RigSummary:
    step = assessment.next_step
    return RigSummary(
        **dict(rig),
        stages=[
            StageLine(
                key=stage.key,
                name=stage.name,
                mark=stage.mark,
                stop=stage.stop,
                headline=stage.live.model_copy(update={"entries": (), "because": ()}),
                detail=stage.detail,
            )
            for stage in assessment.stages
        ],
        first=next(iter(assessment.findings), None),
        next_title=Phrase(plain(step.action.label)) if step.finding else step.title,
        reckoning=assessment.reckoning,
    )


def named_rigs(bench: Bench) -> list[RigOut]:
    """Return the rigs with the names of their parts."""
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


@router.post("/rigs", status_code=201, response_model=Judged, responses={**NOT_FOUND, **CONFLICT})
def create_rig(bench: BenchOf, rigs: RigsOf, draft: RigDraft) -> Response:
    """Create a rig and those of its parts that are new, all or nothing; return its assessment."""
    parts: dict[PartKind, str | NewPart] = {}
    for kind in ("archer", "bow", "string", "arrow_set"):
        part = getattr(draft, kind)
        if part is not None:
            parts[kind] = part if isinstance(part, str) else new_part(kind, part)
    rig = bench.make_rig(draft.name, parts, draft.request, alike=draft.alike)
    return as_json(rigs.judged(rig, None), 201)


@router.get("/rigs/{rig}", response_model=Judged, responses={**NOT_FOUND, **NOT_MODIFIED})
def read_rig(
    bench: BenchOf,
    rigs: RigsOf,
    rig: SubjectId,
    page: StageKey | None = None,
    as_of: AwareDatetime | None = None,
    if_none_match: Annotated[str | None, Header()] = None,
) -> Response:
    """Judge a rig as it is now, or as it stood at an instant, with the geometry of one page.

    Asked again with the tag it gave, it answers 304 while nothing was recorded.
    """
    if as_of is not None:
        computed = compute(fold(bench.entries_of_rig(rig), rig=rig, as_of=as_of))
        return as_json(assessment_json(computed, page))
    tag = rigs.tag(rig, page)
    if if_none_match == tag:
        return Response(status_code=304, headers={"etag": tag})
    answer = as_json(rigs.judged(rig, page))
    answer.headers["etag"] = tag
    return answer


@router.get("/rigs/{rig}/known", response_model=Known, responses=NOT_FOUND)
def read_known(rigs: RigsOf, rig: SubjectId) -> Response:
    """Return six numbers of a rig, how sure each is, and what would make it surer."""
    return as_json(rigs.known(rig))


@router.get("/rigs/{rig}/entries", responses=NOT_FOUND)
def read_rig_entries(
    bench: BenchOf, rig: SubjectId, after: Annotated[int, Query(ge=0, le=2**53)] = 0
) -> History:
    """Return the entries of a rig and of the parts it ever had, all or those newer than `after`.

    What is taken back is always named whole, for an older entry can be taken back by a newer one.
    """
    log = bench.log_of_rig(rig)
    gone = retracted_ids(log.entries)
    wanted = [entry for entry in log.entries if entry.seq > after]
    return History(
        rig=rig,
        revision=log.revision,
        entries=wanted,
        says={entry.id: entry.reading.say() for entry in wanted},
        taken_back={entry_id: _taker(log.entries, entry_id, gone) for entry_id in gone},
        names={subject.id: subject.name for subject in bench.subjects()},
        aside=[row.id for row in log.aside],
    )


def _taker(entries: Sequence[e.Entry], entry_id: str, gone: frozenset[str]) -> str | None:
    """Return the standing retraction that took an entry back."""
    takers = (
        entry.id
        for entry in entries
        if isinstance(entry.reading, Retraction)
        and entry.reading.entry_id == entry_id
        and entry.id not in gone
    )
    return next(takers, None)
