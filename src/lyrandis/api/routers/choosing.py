"""The choosing board of a rig: bow lengths side by side, by school and by mechanics."""

from typing import Annotated

from fastapi import Query, Response

from lyrandis.api.bounded import api_router
from lyrandis.api.long_work import LONG, LongWorkOf
from lyrandis.core.bow.board import Asking, ChoosingBoard
from lyrandis.core.bow.choosing import choosing_board, families_for, wish_of
from lyrandis.core.bow.drawing import Silhouette, silhouettes
from lyrandis.core.computed import Computed
from lyrandis.core.reading import SubjectId

router = api_router("choosing")


@router.get("/rigs/{rig}/choosing-board", response_model=ChoosingBoard, responses=LONG)
async def read_choosing_board(
    work: LongWorkOf, rig: SubjectId, asked: Annotated[Asking, Query()]
) -> Response:
    """Compare bow lengths for the archer of a rig, or for what is asked instead."""
    return await work.answer(rig, asked, lambda c: _board(c, asked), slot="choosing")


@router.get("/bow-kinds")
def list_bow_kinds() -> list[Silhouette]:
    """Return each kind of bow as it hangs unstrung."""
    return list(silhouettes())


def _board(c: Computed, asked: Asking) -> ChoosingBoard:
    return choosing_board(wish_of(c, asked=asked), asked.families or families_for(c))
