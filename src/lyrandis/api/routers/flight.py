"""The flight of a rig: the board of evidence; and how good its judgement is."""

from functools import cache
from importlib.resources import files

from fastapi import Response

from lyrandis.api.bounded import api_router
from lyrandis.api.long_work import LONG, LongWorkOf
from lyrandis.core.flight.board import board
from lyrandis.core.flight.proved import Proved
from lyrandis.core.flight.shapes import FlightBoard
from lyrandis.core.reading import SubjectId

router = api_router("flight")


@router.get("/rigs/{rig}/flight", response_model=FlightBoard, responses=LONG)
async def read_flight(work: LongWorkOf, rig: SubjectId) -> Response:
    """Return what the evidence says, the next test, the correction, and how it came out.

    The first time for a rig its curves are reckoned, which takes about half a second.
    """
    return await work.answer(rig, "flight", board)


@router.get("/flight-trials")
def read_flight_trials() -> Proved:
    """Return how good the judgement of flight is on virtual rigs, beside other ways to judge."""
    return _proved()


@cache
def _proved() -> Proved:
    written = files("lyrandis.core.flight").joinpath("proved.json").read_text(encoding="utf-8")
    return Proved.model_validate_json(written)
