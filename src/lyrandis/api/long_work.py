"""Questions that take long: answered at once where known, else with how far they have come."""

import asyncio
from collections.abc import Callable
from concurrent.futures import CancelledError
from typing import Annotated, Any

from fastapi import Depends, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from lyrandis.api.context import as_json
from lyrandis.api.problems import NOT_FOUND
from lyrandis.api.rig_cache import RigCache
from lyrandis.api.worker import Job, Priority, Tell, Worker
from lyrandis.core.computed import Computed

PATIENCE_S = 0.25
"""So long an answer is waited for before it is said how far it has come."""
OF_A_FILE_S = 60.0
"""A file that is saved cannot ask again: it is waited for."""


class NotYet(BaseModel):
    """It is being worked out: ask again."""

    share: float
    """How far it has come, 0 to 1."""


LONG: dict[int | str, dict[str, Any]] = {
    **NOT_FOUND,
    202: {"model": NotYet, "description": "It is being worked out: ask again"},
}
"""What a long question of a rig may be answered with, beside its answer."""


class LongWork:
    """The long questions of one request."""

    def __init__(self, request: Request) -> None:
        self._cache: RigCache = request.app.state.rigs
        self._worker: Worker = request.app.state.worker

    async def take(
        self,
        key: object,
        make: Callable[[Tell], BaseModel | bytes | Response],
        *,
        slot: object = None,
        priority: Priority = Priority.LOOKED_AT,
        patience_s: float = PATIENCE_S,
    ) -> Response:
        """Answer with what `make` works out, or that it is not there yet.

        It holds no thread while it waits, so a light question always finds one.
        """
        job = self._worker.ask(key, make, slot=slot, priority=priority)
        coming = asyncio.wrap_future(job.future)
        # who asks no more leaves a refusal that nobody takes: it is told when it is asked again
        coming.add_done_callback(lambda done: done.cancelled() or done.exception())
        try:
            made = await asyncio.wait_for(asyncio.shield(coming), patience_s)
        except (TimeoutError, CancelledError, asyncio.CancelledError):
            return _not_yet(job)
        return made if isinstance(made, Response) else as_json(made)

    async def answer(
        self,
        rig: str,
        key: object,
        make: Callable[[Computed], BaseModel],
        *,
        slot: object = None,
    ) -> Response:
        """Answer about a rig, worked out once for each revision and key."""
        shown = await run_in_threadpool(self._cache.shown, rig)
        of_rig = (shown.stamp, key)

        def work(_tell: Tell) -> bytes:
            return make(shown.computed).model_dump_json().encode()

        return await self.take(of_rig, work, slot=(rig, slot) if slot is not None else None)

    async def file(self, rig: str, name: str, make: Callable[[Computed], Response]) -> Response:
        """Answer with a file made of a rig: whoever saves it does not ask again."""
        shown = await run_in_threadpool(self._cache.shown, rig)
        key = (shown.stamp, "file", name)
        return await self.take(key, lambda _: make(shown.computed), patience_s=OF_A_FILE_S)


def _not_yet(job: Job) -> Response:
    return as_json(NotYet(share=min(job.share, 0.99)), 202)


async def _long_work(request: Request) -> LongWork:
    return LongWork(request)


LongWorkOf = Annotated[LongWork, Depends(_long_work)]
