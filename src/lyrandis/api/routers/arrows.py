"""The arrow of a rig: the computed shot, its match, what is tried, tapers, and the quiver."""

from typing import Annotated

from fastapi import Query, Request, Response
from pydantic import BaseModel, ConfigDict, Field, RootModel

from lyrandis.api.bounded import api_router
from lyrandis.api.context import RigsOf
from lyrandis.api.long_work import LONG, LongWorkOf
from lyrandis.api.problems import NOT_FOUND, units_of
from lyrandis.core.arrow.quiver import MatchedSet, best_matched, quiver_of
from lyrandis.core.arrow.quiver_table import QuiverTable, read_quiver_table, write_quiver_table
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.arrow.show import ShotDrawing, shot_drawing
from lyrandis.core.arrow.spine_board import SpineBoard, shot_of, spine_board
from lyrandis.core.arrow.table_columns import ColumnAs
from lyrandis.core.arrow.taper_plan import TaperAsked, TaperPlan, plan_taper
from lyrandis.core.arrow.trial import Trial, Tried, trial
from lyrandis.core.computed import Computed
from lyrandis.core.reading import SubjectId

router = api_router("arrows")

MatchedAnswer = RootModel[MatchedSet]


class TableText(BaseModel):
    """A pasted or imported table of arrows, and what its columns hold where that was said."""

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=60_000)]
    columns: Annotated[list[ColumnAs], Field(max_length=60)] | None = None


@router.get("/rigs/{rig}/shot", response_model=ShotDrawing, responses=LONG)
async def read_shot(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return the arrow bending round the bow, from release to clear of it."""
    return await work.answer(rig, "shot", _shot)


def _shot(c: Computed) -> ShotDrawing:
    shooting, _ = shot_of(c)
    lift = c.nock.lift
    return shot_drawing(
        shooting,
        lift_mm=c.nock.start.lift_mm if lift is None else lift.value,
        lift_read=lift is not None,
        outward_is_left=outward_is_left(c.setup.archer),
    )


@router.get("/rigs/{rig}/spine-board", response_model=SpineBoard, responses=LONG)
async def read_spine_board(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return both schools of spine, what moves the match, and ways to close a gap."""
    return await work.answer(rig, "spine-board", spine_board)


@router.get("/rigs/{rig}/arrow-trial", response_model=Trial, responses=LONG)
async def try_arrow(work: LongWorkOf, rig: SubjectId, tried: Annotated[Tried, Query()]) -> Response:
    """Compute what an arrow or a setting that is not recorded would do."""
    return await work.answer(rig, tried, lambda c: trial(c, tried), slot="trial")


@router.get("/rigs/{rig}/taper-plan", response_model=TaperPlan, responses=LONG)
async def read_taper_plan(
    work: LongWorkOf, rig: SubjectId, asked: Annotated[TaperAsked, Query()]
) -> Response:
    """Compute what a taper makes of the shafts, beside the tapers that were shot."""
    return await work.answer(rig, asked, lambda c: _plan(c, asked), slot="taper")


def _plan(c: Computed, asked: TaperAsked) -> TaperPlan:
    return plan_taper(c.arrow.sheet, c.arrow.shooting, asked, c.setup.arrows.tapers)


@router.get("/rigs/{rig}/matched-set", response_model=MatchedSet, responses=LONG)
async def read_matched_set(
    work: LongWorkOf, rig: SubjectId, count: Annotated[int, Query(ge=2, le=200)]
) -> Response:
    """Choose the arrows that belong together: least spread of mass and spine."""
    return await work.answer(
        rig,
        ("matched-set", count),
        lambda c: MatchedAnswer(best_matched(quiver_of(c.setup.arrows), count)),
    )


@router.get("/rigs/{rig}/quiver.csv", response_class=Response, responses=NOT_FOUND)
def read_quiver_table_of(rigs: RigsOf, rig: SubjectId) -> Response:
    """Return the quiver as comma-separated text."""
    return Response(
        write_quiver_table(quiver_of(rigs.computed(rig).setup.arrows)),
        media_type="text/csv; charset=utf-8",
        headers={"content-disposition": f'attachment; filename="{rig}-quiver.csv"'},
    )


@router.post("/quiver-tables")
def parse_quiver_table(request: Request, table: TableText) -> QuiverTable:
    """Read a table of arrows without recording it; bad rows are named."""
    return read_quiver_table(table.text, table.columns, units_of(request))
