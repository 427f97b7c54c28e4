"""The choosing board of a rig: bow lengths side by side, by school and by mechanics."""

from typing import Annotated

from fastapi import APIRouter, Query, Response

from lyrandis.api.context import DeskOf, as_json
from lyrandis.api.problems import NOT_FOUND
from lyrandis.core import entries as e
from lyrandis.core.bow.board import Asking, ChoosingBoard
from lyrandis.core.bow.choosing import choosing_board, families_for, wish_of

router = APIRouter(tags=["choosing"])


@router.get("/rigs/{rig}/choosing-board", response_model=ChoosingBoard, responses=NOT_FOUND)
def read_choosing_board(
    desk: DeskOf, rig: e.SubjectId, asked: Annotated[Asking, Query()]
) -> Response:
    """Compare bow lengths for the archer of a rig, or for what is asked instead."""
    computed = desk.computed(rig)
    families = asked.families or families_for(computed)
    return as_json(choosing_board(wish_of(computed, asked=asked), families))
