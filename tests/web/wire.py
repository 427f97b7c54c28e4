"""Chromium's requests answered in the test's own process: late, out of order, refused, lost."""

import re
import shutil
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient
from playwright.sync_api import Browser, Page, Route

from lyrandis.api.app import Settings, create_app

UNFOLDED = (
    "localStorage.setItem('lyrandis.folds', localStorage.getItem('lyrandis.folds') ?? 'open')"
)
"""A reader who has every fold open from the first: what folds hide is tested apart."""

HOST = "http://127.0.0.1:8080"
_KEPT_HEADERS = ("content-type", "if-none-match", "origin", "sec-fetch-site", "x-lyrandis-units")


_PAGE: dict[str, dict[str, Any]] = {}
"""The page's own files, which are the same for every test."""


@dataclass
class HeldRequest:
    """A request that waits to be let go."""

    route: Route
    answer: Callable[[Route], None]
    path: str

    def go(self) -> None:
        """Let the server have it now, and answer."""
        self.answer(self.route)

    def refuse(self, status: int = 422, code: str = "invalid", reason: str = "Not so.") -> None:
        problem = {
            "type": "about:blank", "title": "refused", "status": status, "code": code,
            "reason": reason, "instruction": "Do it another way.", "guesses": [],
        }  # fmt: skip
        self.route.fulfill(status=status, json=problem, content_type="application/problem+json")

    def lose(self) -> None:
        """Neither the server nor the page hear of it again."""
        self.route.abort()

    def lose_answer(self) -> None:
        """The server does it, the page never hears of it."""
        self.answer(_Deaf(self.route))  # type: ignore[arg-type]
        self.route.abort()


class _Deaf:
    """A route that is asked but not answered."""

    def __init__(self, route: Route) -> None:
        self.request = route.request

    def fulfill(self, **_: Any) -> None:
        pass


class Wire:
    """A browser window wired to a bench in this process, with a hand on every request."""

    def __init__(self, browser: Browser, folder: Path, copied: Path | None = None) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        if copied is not None:
            shutil.copy(copied, folder / "bench.sqlite3")
        self._app = create_app(Settings(database=folder / "bench.sqlite3"))
        client = TestClient(self._app, base_url=HOST, raise_server_exceptions=False)
        self.client = client.__enter__()  # one event loop for all requests, until `close`
        self._browser = browser
        self._contexts: list[Any] = []
        self._holding: list[tuple[str, re.Pattern[str], list[HeldRequest]]] = []
        self.down = False
        """True while nothing answers."""
        self.asked: list[str] = []
        """Every request so far, as `GET /api/rigs`."""
        self.troubles: list[str] = []

    def open(self, path: str = "/", *, width: int = 1280, height: int = 800, **more: Any) -> Page:
        context = self._browser.new_context(
            viewport={"width": width, "height": height}, reduced_motion="reduce", **more
        )
        self._contexts.append(context)
        context.set_default_timeout(15_000)
        context.add_init_script(UNFOLDED)
        context.route("**/*", self._meet)
        page = context.new_page()
        page.on("pageerror", lambda error: self.troubles.append(str(error)))
        page.goto(HOST + path)
        return page

    def hold(self, method: str, path: str) -> list[HeldRequest]:
        """Hold back requests whose path matches from now on; return the list they come into."""
        held: list[HeldRequest] = []
        self._holding.append((method, re.compile(path), held))
        return held

    def let_go(self, held: list[HeldRequest], *, newest_first: bool = False) -> None:
        """Hold no more, not even what is asked anew, and let go what is held."""
        self._holding = [one for one in self._holding if one[2] is not held]
        for request in reversed(held) if newest_first else held:
            request.go()
        held.clear()

    def close(self) -> None:
        for context in self._contexts:
            context.close()
        self.client.__exit__(None, None, None)

    def _meet(self, route: Route) -> None:
        request = route.request
        path = request.url.removeprefix(HOST)
        self.asked.append(f"{request.method} {path}")
        if self.down:
            route.abort("connectionrefused")
            return
        for method, pattern, held in self._holding:
            if request.method == method and pattern.search(path):
                held.append(HeldRequest(route, self._answer, path))
                return
        self._answer(route)

    def _answer(self, route: Route) -> None:
        request = route.request
        path = request.url.removeprefix(HOST)
        page = request.method == "GET" and not path.startswith("/api")
        if page and path in _PAGE:
            route.fulfill(**_PAGE[path])
            return
        headers = {name: value for name, value in request.headers.items() if name in _KEPT_HEADERS}
        answer = self.client.request(
            request.method,
            path,
            headers=headers,
            content=request.post_data_buffer,
        )
        fulfilled = {
            "status": answer.status_code,
            "headers": {k: v for k, v in answer.headers.items() if k != "content-encoding"},
            "body": answer.content,
        }
        if page:
            _PAGE[path] = fulfilled
        route.fulfill(**fulfilled)


def until(page: Page, true: Callable[[], bool]) -> None:
    """Let the page go on until something is true in the test."""
    for _ in range(600):
        if true():
            return
        page.evaluate("() => new Promise((done) => requestAnimationFrame(() => done()))")
    raise AssertionError("it did not come to that")
