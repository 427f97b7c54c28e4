"""The order of work of a rig."""

from fastapi import Response

from lyrandis.api.bounded import api_router
from lyrandis.api.context import RigsOf, as_json
from lyrandis.api.problems import NOT_FOUND
from lyrandis.core.order.page import WorkOrder, work_order
from lyrandis.core.reading import SubjectId

router = api_router("judging")


@router.get("/rigs/{rig}/order", response_model=WorkOrder, responses=NOT_FOUND)
def read_order(rigs: RigsOf, rig: SubjectId) -> Response:
    """Return every setting in order of work: how it stands, and what it rests on."""
    return as_json(rigs.answer(rig, "order", work_order))
