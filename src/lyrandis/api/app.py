"""Making the app: routers, request guard, problems and the page."""

import re
from collections.abc import Callable
from contextlib import asynccontextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import cache
from pathlib import Path
from typing import Any

from fastapi import APIRouter, FastAPI
from fastapi.responses import FileResponse, Response
from fastapi.routing import APIRoute
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.routing import BaseRoute
from starlette.types import Receive, Scope, Send

from lyrandis import __version__
from lyrandis.api import problems
from lyrandis.api.carried import FIELD_PAGE
from lyrandis.api.curves import CurvesOfRigs
from lyrandis.api.request_guard import RequestGuard
from lyrandis.api.rig_cache import RigCache
from lyrandis.api.routers import (
    arrows,
    choosing,
    clock,
    crawls,
    demo,
    entries,
    field,
    first_runs,
    flight,
    instruments,
    judging,
    logbooks,
    parts,
    rigs,
    sounds,
    subjects,
    words,
    work,
)
from lyrandis.api.routers.demo import put_sounds
from lyrandis.api.worker import Worker
from lyrandis.demo.scenario import drafts
from lyrandis.sounds.recording_store import RecordingStore
from lyrandis.store.bench import Bench
from lyrandis.store.database import open_database
from lyrandis.store.own_words import OwnWords

STATIC = Path(__file__).resolve().parent.parent / "static"
_ROUTERS = (
    rigs.router,
    first_runs.router,
    parts.router,
    logbooks.router,
    clock.router,
    choosing.router,
    arrows.router,
    entries.router,
    judging.router,
    words.router,
    subjects.router,
    work.router,
    flight.router,
    crawls.router,
    field.router,
    instruments.router,
    sounds.router,
    demo.router,
)


def _now() -> datetime:
    return datetime.now(UTC)


@dataclass(frozen=True)
class Settings:
    """Where data is kept, and what time it is."""

    database: Path
    demo: bool = False
    clock: Callable[[], datetime] = _now
    static: Path = STATIC
    instrument_pace_s: float = 0.08
    """Between two values on a simulated display."""


def create_app(settings: Settings) -> FastAPI:
    """Return the app over the database of the settings, demo loaded when asked and not there."""
    engine = open_database(settings.database)
    bench = Bench(engine, settings.clock)
    recordings = RecordingStore(settings.database.parent / "sounds")
    recordings.sweep()
    worker = Worker()
    if settings.demo and bench.is_empty():
        bench.load(drafts(), origin="demo")
        put_sounds(recordings)

    @asynccontextmanager
    async def lifespan(_app: FastAPI) -> Any:
        yield
        worker.close()
        engine.dispose()

    app = _bare_app(lifespan, _page_built(settings.static))
    app.state.bench = bench
    app.state.own_words = OwnWords(engine, settings.clock)
    app.state.worker = worker
    app.state.rigs = RigCache(bench, CurvesOfRigs(worker))
    app.state.recordings = recordings
    app.state.settings = settings
    _serve_page(app, settings.static)
    return app


def _bare_app(lifespan: Any = None, page: str | None = None) -> FastAPI:
    app = FastAPI(
        title="Lyrandis",
        version=__version__,
        description="Entries in, assessments out. Lengths in mm, forces in lbf, masses in grains.",
        openapi_url="/api/openapi.json",
        docs_url=None,
        redoc_url=None,
        lifespan=lifespan,
    )
    app.router.routes.extend(_routes())
    app.openapi = openapi_document  # type: ignore[method-assign]
    problems.install(app)
    app.add_middleware(_PageGZip, minimum_size=500, compresslevel=6)
    app.add_middleware(RequestGuard, page=page)
    return app


@cache
def _routes() -> tuple[BaseRoute, ...]:
    """Return the routes of all routers, worked out once: they know nothing of an app."""
    api = APIRouter(prefix="/api")
    for router in _ROUTERS:
        api.include_router(router)
    whole = FastAPI(
        openapi_url=None,
        generate_unique_id_function=_operation_id,
        responses=problems.RESPONSES,
    )
    whole.include_router(api)
    return tuple(whole.router.routes)


def _page_built(static: Path) -> str | None:
    """Return the name of the script the page begins with; it changes with every build."""
    index = static / "index.html"
    found = re.search(r'src="(/assets/[^"]+[.]js)"', index.read_text()) if index.is_file() else None
    return found.group(1) if found else None


def _operation_id(route: APIRoute) -> str:
    return route.name


@cache
def openapi_document(*, examples: bool = True) -> dict[str, Any]:
    """Return the OpenAPI document without opening a database; made once, it takes a second."""
    return problems.documented(FastAPI.openapi(_bare_app()), examples=examples)


class _PageGZip(GZipMiddleware):
    """Compresses the page's files; the API answers on this machine only, as it is."""

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http" and scope["path"].startswith("/api"):
            await self.app(scope, receive, send)
        else:
            await super().__call__(scope, receive, send)


class _Assets(StaticFiles):
    """Built files carry a hash in their name: they may be kept for good."""

    def file_response(self, *args: Any, **kwargs: Any) -> Response:
        response = super().file_response(*args, **kwargs)
        response.headers["cache-control"] = "public, max-age=31536000, immutable"
        return response


def _file_at(static: Path, path: str) -> Path | None:
    """Return the page's own file at a path; None where there is none, or can be none."""
    try:
        wanted = (static / path).resolve()
        return wanted if path and wanted.is_relative_to(static) and wanted.is_file() else None
    except (OSError, ValueError):
        return None


def _serve_page(app: FastAPI, static: Path) -> None:
    if (static / "assets").is_dir():
        app.mount("/assets", _Assets(directory=static / "assets"))

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith(("api/", "assets/")) or path == "api":
            raise HTTPException(404)
        wanted = _file_at(static, path)
        if wanted is not None:
            return FileResponse(wanted)
        page = FIELD_PAGE if path.startswith("field/") else "index.html"
        index = static / page
        if not index.is_file():
            raise HTTPException(404)
        return FileResponse(index, headers={"cache-control": "no-cache"})
