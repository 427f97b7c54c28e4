"""The crawls of a rig: what a wrong guess of the distance costs."""

from fastapi import APIRouter, Response

from lyrandis.api.problems import NOT_FOUND
from lyrandis.api.turns import TurnsOf
from lyrandis.core import entries as e
from lyrandis.core.crawls.range_board import RangeBoard, range_board

router = APIRouter(tags=["crawls"])


@router.get("/rigs/{rig}/crawl-ranges", response_model=RangeBoard, responses=NOT_FOUND)
async def read_crawl_ranges(turns: TurnsOf, rig: e.SubjectId) -> Response:
    """Return where arrows strike when the distance was guessed wrong, and on slopes."""
    return await turns.answer(rig, "crawl-ranges", range_board)
