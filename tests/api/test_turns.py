"""Heavy questions take turns: light ones do not wait, and what nobody reads is not computed."""

import threading
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import anyio
import pytest
from fastapi import FastAPI

from lyrandis.api.routers import arrows
from tests.api.conftest import Api

TIDEWAY = "/rigs/tideway-recurve"


class Slow:
    """A spine board that waits until it is let go, and counts."""

    def __init__(self, monkeypatch: pytest.MonkeyPatch) -> None:
        self.begun, self.go = threading.Event(), threading.Event()
        self.computed = 0
        real = arrows.spine_board

        def slow(c: Any) -> Any:
            self.computed += 1
            self.begun.set()
            assert self.go.wait(20)
            return real(c)

        monkeypatch.setattr(arrows, "spine_board", slow)


@pytest.fixture
def slow(monkeypatch: pytest.MonkeyPatch) -> Iterator[Slow]:
    one = Slow(monkeypatch)
    yield one
    one.go.set()


def test_light_questions_do_not_wait_for_a_heavy_one(demo: Api, slow: Slow) -> None:
    with ThreadPoolExecutor(4) as others:
        board = others.submit(demo.get, f"{TIDEWAY}/spine-board")
        assert slow.begun.wait(20)
        trial = others.submit(demo.get, f"{TIDEWAY}/arrow-trial")
        demo.get("/rigs")
        demo.get(f"{TIDEWAY}?page=arrow")
        demo.post("/readings/parse", {"text": "draw 28", "rig": "tideway-recurve"}, 200)
        note = {"subject": {"kind": "rig", "id": "tideway-recurve"},
                "reading": {"kind": "noted", "text": "quiet"}}  # fmt: skip
        demo.post("/entries", {"entries": [note], "rig": "tideway-recurve"})
        assert not board.done()
        assert not trial.done(), "another heavy one waits for its turn"
        slow.go.set()
        assert board.result()["matched_lbf"]
        assert trial.result()["tried"]["matched_lbf"]


def test_many_heavy_ones_in_the_queue_hold_no_thread(demo: Api, slow: Slow) -> None:
    """More than the pool has threads: a light question still finds one."""
    with ThreadPoolExecutor(64) as others:
        board = others.submit(demo.get, f"{TIDEWAY}/spine-board")
        assert slow.begun.wait(20)
        asked = [others.submit(demo.get, f"{TIDEWAY}/shot") for _ in range(60)]
        demo.get("/rigs")
        assert not any(one.done() for one in asked)
        slow.go.set()
        assert board.result()
        assert len({str(one.result()["times_ms"]) for one in asked}) == 1


def test_the_same_question_asked_at_once_is_computed_once(demo: Api, slow: Slow) -> None:
    with ThreadPoolExecutor(8) as others:
        asked = [others.submit(demo.get, f"{TIDEWAY}/spine-board") for _ in range(8)]
        assert slow.begun.wait(20)
        slow.go.set()
        assert len({str(one.result()) for one in asked}) == 1
    assert slow.computed == 1


def test_what_is_known_needs_no_turn(demo: Api, slow: Slow) -> None:
    demo.get(f"{TIDEWAY}/shot")
    with ThreadPoolExecutor(2) as others:
        board = others.submit(demo.get, "/rigs/marram-longbow/spine-board")
        assert slow.begun.wait(20)
        demo.get(f"{TIDEWAY}/shot")
        assert not board.done()
        slow.go.set()
        board.result()


def test_a_question_whose_asker_has_gone_is_not_computed(demo: Api, slow: Slow) -> None:
    slow.go.set()
    app = demo.client.app
    assert isinstance(app, FastAPI)
    path = f"/api{TIDEWAY}/spine-board"
    scope = {"type": "http", "method": "GET", "path": path, "raw_path": path.encode(),
             "query_string": b"", "http_version": "1.1", "scheme": "http",
             "headers": [(b"host", b"127.0.0.1")]}  # fmt: skip

    def asked(gone: bool) -> None:
        messages = [{"type": "http.request", "body": b"", "more_body": False}]
        if gone:
            messages.append({"type": "http.disconnect"})

        async def receive() -> Any:
            if not messages:
                await anyio.sleep(60)
            return messages.pop(0)

        async def send(_: Any) -> None:
            pass

        portal = demo.client.portal
        assert portal is not None
        portal.call(app, scope, receive, send)

    asked(gone=True)
    assert slow.computed == 0
    asked(gone=False)
    assert slow.computed == 1
