"""Routes whose JSON is read with bounds, and off the event loop where there is much of it."""

from collections.abc import Callable, Coroutine
from typing import Any

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.routing import APIRoute

from lyrandis.api.problems import RefusedBody
from lyrandis.core.errors import DomainError
from lyrandis.core.json_bounds import load_json

MUCH_BYTES = 100_000
"""From here reading takes long enough for others to notice."""


class _BoundedRequest(Request):
    async def json(self) -> Any:
        if not hasattr(self, "_json"):
            body = await self.body()
            try:
                if len(body) > MUCH_BYTES:
                    self._json = await run_in_threadpool(load_json, body)
                else:
                    self._json = load_json(body)
            except DomainError as error:
                raise RefusedBody(error) from None
        return self._json


class _BoundedRoute(APIRoute):
    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        handle = super().get_route_handler()

        async def bounded(request: Request) -> Response:
            return await handle(_BoundedRequest(request.scope, request.receive))

        return bounded


def api_router(tag: str) -> APIRouter:
    """Return a router of the API under one heading of its document."""
    return APIRouter(tags=[tag], route_class=_BoundedRoute)
