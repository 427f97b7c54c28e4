"""The field helper: the table it carries, the file that is taken along, and shots coming home."""

from datetime import UTC, datetime
from typing import Annotated

from fastapi import Request, Response
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.bounded import api_router
from lyrandis.api.carried import carried_page
from lyrandis.api.context import BenchOf, as_json
from lyrandis.api.long_work import LONG, LongWorkOf
from lyrandis.api.problems import CONFLICT, NOT_FOUND
from lyrandis.core.crawls.field import FieldTable, field_table
from lyrandis.core.field_shots import LONGEST_TEXT, ShotLine, read_shots, sort_shots
from lyrandis.core.reading import SubjectId

router = api_router("crawls")


class FieldText(BaseModel):
    """Shots of the field helper, as its file or its text holds them."""

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=LONGEST_TEXT)]
    record: bool = False
    """Record what is new; else only look."""
    also: Annotated[list[str], Field(max_length=500)] = []
    """Ids of shots that differ and are recorded all the same."""


class FieldShots(BaseModel):
    """What came back, line by line."""

    lines: list[ShotLine]
    recorded: list[str]
    """Ids that were recorded now."""
    more: bool
    """The text was cut at its end: more shots may have been meant."""


@router.get("/rigs/{rig}/field-table", response_model=FieldTable, responses=LONG)
async def read_field_table(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return the table the field helper carries: crawls of every metre, and how they would move."""
    return await work.answer(rig, "field-table", field_table)


_HTML: dict[int | str, dict[str, object]] = {
    200: {"content": {"text/html": {}}, "description": "one page with everything inside"},
    **NOT_FOUND,
}


@router.get("/rigs/{rig}/field-helper.html", response_class=Response, responses=_HTML)
async def read_field_helper(request: Request, work: LongWorkOf, rig: SubjectId) -> Response:
    """Return the field helper as one file with the table inside; it needs no server."""
    static = request.app.state.settings.static
    return await work.file(
        rig, "field-helper", lambda c: _helper(carried_page(static, field_table(c)))
    )


def _helper(page: str) -> Response:
    headers = {"content-disposition": 'attachment; filename="lyrandis-field.html"'}
    return Response(page, media_type="text/html", headers=headers)


@router.post(
    "/rigs/{rig}/field-shots", response_model=FieldShots, responses={**NOT_FOUND, **CONFLICT}
)
def bring_field_shots(bench: BenchOf, rig: SubjectId, text: FieldText) -> Response:
    """Look at shots that came back, or record those that are new, all or none of them."""
    bench.check_rig(rig)
    came = read_shots(text.text)
    shots = sort_shots(came.shots, bench.entries_of_rig(rig), rig=rig, now=datetime.now(UTC))
    drafts = [
        one.draft
        for one in shots
        if text.record
        and one.draft is not None
        and (one.shown.state == "new" or one.shown.id in text.also)
    ]
    recorded = [entry.id for entry in bench.record(drafts)]
    answer = FieldShots(lines=[one.shown for one in shots], recorded=recorded, more=came.more)
    return as_json(answer, 200)
