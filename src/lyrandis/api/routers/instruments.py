"""Instruments over HTTP: which there are, and a reading as it settles (server-sent events)."""

import json
from collections.abc import AsyncIterator, Iterator
from typing import Annotated

from anyio import sleep, to_thread
from fastapi import Query, Request
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.bounded import api_router
from lyrandis.api.context import RigsOf
from lyrandis.api.problems import NOT_FOUND
from lyrandis.core.reading import SubjectId
from lyrandis.core.units import Unit
from lyrandis.instruments.bench import truth_of
from lyrandis.instruments.instrument import MAKES, InstrumentFault, InstrumentKind
from lyrandis.instruments.session import Failed, Sample, SessionStep, Taken, take_reading
from lyrandis.instruments.simulated import Simulated

router = api_router("instruments")


class InstrumentOut(BaseModel):
    """An instrument that can be read."""

    kind: InstrumentKind
    name: str
    measures: str
    unit: Unit
    resolution: float
    simulated: bool


class ReadingAsked(BaseModel):
    """What is laid on the instrument."""

    model_config = ConfigDict(extra="forbid")

    draw_length_mm: Annotated[float, Field(gt=0, le=1100)] | None = None
    """How far the string is drawn on the bow scale."""
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0
    """Which one of several simulated things: arrows differ."""
    fault: InstrumentFault | None = None
    """A fault to be tried."""


@router.get("/instruments")
def list_instruments() -> list[InstrumentOut]:
    """List the instruments; those that ship with Lyrandis are simulated."""
    return [
        InstrumentOut(
            kind=kind, name=make.name, measures=make.measures, unit=make.unit,
            resolution=make.resolution, simulated=True,
        )
        for kind, make in MAKES.items()
    ]  # fmt: skip


@router.get(
    "/rigs/{rig}/instruments/{kind}",
    response_class=StreamingResponse,
    responses={**NOT_FOUND, 200: {"content": {"text/event-stream": {}}}},
)
async def read_instrument(
    request: Request,
    rigs: RigsOf,
    rig: SubjectId,
    kind: InstrumentKind,
    asked: Annotated[ReadingAsked, Query()],
) -> StreamingResponse:
    """Stream a simulated reading as it settles: events `sample`, then one `taken` or `failed`."""
    computed = await to_thread.run_sync(rigs.computed, rig)
    truth = truth_of(kind, computed, asked.draw_length_mm, asked.seed)
    instrument = Simulated(kind, truth, seed=asked.seed, fault=asked.fault)
    pace: float = request.app.state.settings.instrument_pace_s
    return StreamingResponse(
        _events(request, take_reading(instrument), pace),
        media_type="text/event-stream",
        headers={"cache-control": "no-store"},
    )


async def _events(
    request: Request, steps: Iterator[SessionStep], pace: float
) -> AsyncIterator[str]:
    for step in steps:
        if await request.is_disconnected():
            return
        yield said_of(step)
        if isinstance(step, Sample):
            await sleep(pace)


def said_of(step: SessionStep) -> str:
    """Return one step as a server-sent event.

    >>> said_of(Taken(431.2, 0.1))
    'event: taken\\ndata: {"value": 431.2, "plus_minus": 0.1}\\n\\n'
    """
    names = {Sample: "sample", Taken: "taken", Failed: "failed"}
    return f"event: {names[type(step)]}\ndata: {json.dumps(step._asdict())}\n\n"
