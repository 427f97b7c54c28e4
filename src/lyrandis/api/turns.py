"""Heavy questions take turns: nobody else waits for them, and what nobody reads is not computed.

One at a time: two would only share the one processor. While they wait they hold no thread, so a
light question always finds one.
"""

from collections.abc import Callable
from typing import Annotated

from anyio import Lock
from fastapi import Depends, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from lyrandis.api.context import as_json
from lyrandis.api.desk import Desk
from lyrandis.core.computed import Computed


class Turns:
    """The heavy questions of one request, in turn with everybody else's."""

    def __init__(self, request: Request) -> None:
        self._request = request
        self._desk: Desk = request.app.state.desk
        self._turn: Lock = request.app.state.turn

    async def take(self, make: Callable[[], BaseModel | bytes | Response]) -> Response:
        """Answer with what `make` computes, when it is this request's turn."""
        async with self._turn:
            if await self._nobody_waits():
                return Response(status_code=204)
            made = await run_in_threadpool(make)
        return made if isinstance(made, Response) else as_json(made)

    async def answer(
        self, rig: str, key: object, make: Callable[[Computed], BaseModel]
    ) -> Response:
        """Answer about a rig, made once for each revision and key; what is known needs no turn."""
        known = await run_in_threadpool(self._desk.known, rig, key)
        if known is not None:
            return as_json(known)
        return await self.take(lambda: self._desk.answer(rig, key, make))

    async def _nobody_waits(self) -> bool:
        """Return whether the client has gone: the question was given up or overtaken."""
        # the first look takes the empty body off the line, the second sees what came behind it
        return await self._request.is_disconnected() or await self._request.is_disconnected()


TurnsOf = Annotated[Turns, Depends(Turns)]
