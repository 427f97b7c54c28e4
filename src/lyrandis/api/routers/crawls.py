"""The crawls of a rig: what a wrong guess of the distance costs, and planning of point-on."""

from typing import Annotated

from fastapi import Query, Response
from fastapi.concurrency import run_in_threadpool

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf, RigsOf
from lyrandis.api.long_work import LONG, LongWorkOf
from lyrandis.api.paper import pdf_of
from lyrandis.api.problems import NOT_FOUND
from lyrandis.api.rig_cache import RigCache
from lyrandis.core.computed import Computed
from lyrandis.core.crawls.plan_board import WISHED_M, PlanBoard, plan_board
from lyrandis.core.crawls.range_board import RangeBoard, range_board
from lyrandis.core.crawls.sheet import Sheet, svg_of
from lyrandis.core.crawls.strip import card_of, strip_of
from lyrandis.core.crawls.tables_board import TablesBoard, tables_board
from lyrandis.core.reading import SubjectId
from lyrandis.store.bench import Bench

router = api_router("crawls")

Wished = Annotated[float, Query(ge=10, le=100, description="point-on that is wished for [m]")]


@router.get("/rigs/{rig}/crawl-ranges", response_model=RangeBoard, responses=LONG)
async def read_crawl_ranges(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return where arrows strike when the distance was guessed wrong, and on slopes."""
    return await work.answer(rig, "crawl-ranges", range_board)


@router.get("/rigs/{rig}/crawl-plan", response_model=PlanBoard, responses=LONG)
async def read_crawl_plan(
    work: LongWorkOf, bench: BenchOf, rigs: RigsOf, rig: SubjectId, wished_m: Wished = WISHED_M
) -> Response:
    """Return where point-on lies with other anchors, arrows and bows, and what one needs."""
    others = await run_in_threadpool(_other_rigs, bench, rigs, rig)
    key = ("crawl-plan", wished_m, *((c.setup.rig, c.setup.revision) for c in others))
    return await work.answer(rig, key, lambda c: plan_board(c, wished_m, others), slot="crawl-plan")


def _other_rigs(bench: Bench, rigs: RigCache, rig: str) -> list[Computed]:
    """Return the numbers of the other rigs the same archer shoots, those put away left out."""
    archer = rigs.computed(rig).setup.fitted.archer
    if archer is None:
        return []
    return [
        rigs.computed(other.id)
        for other, fitted, away in bench.rigs_as_fitted()
        if other.id != rig and fitted.archer == archer and not away
    ]


@router.get("/rigs/{rig}/crawl-tables", response_model=TablesBoard, responses=LONG)
async def read_crawl_tables(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return the tables of every arrow set, anchor and hold that crawls were shot with."""
    return await work.answer(rig, "crawl-tables", tables_board)


_SVG: dict[int | str, dict[str, object]] = {
    200: {"content": {"image/svg+xml": {}}, "description": "a drawing at true size, 1 unit 1 mm"},
    **NOT_FOUND,
}


@router.get("/rigs/{rig}/crawl-strip.svg", response_class=Response, responses=_SVG)
async def read_crawl_strip(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return the strip for the tab at true size, with a ruler of 50 mm to measure."""
    return await work.file(rig, "strip", lambda c: _svg(strip_of(c), f"{rig}-strip"))


@router.get("/rigs/{rig}/crawl-card.svg", response_class=Response, responses=_SVG)
async def read_crawl_card(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return the pocket card at true size."""
    return await work.file(rig, "card", lambda c: _svg(card_of(c), f"{rig}-card"))


_PDF: dict[int | str, dict[str, object]] = {
    200: {
        "content": {"application/pdf": {}},
        "description": "strip and card on one page",
    },
    **NOT_FOUND,
}


@router.get("/rigs/{rig}/crawl-strip.pdf", response_class=Response, responses=_PDF)
async def read_crawl_paper(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return strip and card on one page at true size, for paper."""

    def make(c: Computed) -> Response:
        headers = {"content-disposition": f'attachment; filename="{rig}-crawls.pdf"'}
        paper = pdf_of((strip_of(c), card_of(c)), title=c.setup.name or rig)
        return Response(paper, media_type="application/pdf", headers=headers)

    return await work.file(rig, "paper", make)


def _svg(drawn: Sheet, name: str) -> Response:
    headers = {"content-disposition": f'inline; filename="{name}.svg"'}
    return Response(svg_of(drawn), media_type="image/svg+xml", headers=headers)
