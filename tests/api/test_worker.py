"""Long work is done one after the other; light questions never wait for it."""

import threading
from collections.abc import Callable, Iterator
from concurrent.futures import CancelledError, ThreadPoolExecutor
from typing import Any

import pytest
from fastapi.testclient import TestClient

from lyrandis.api.routers import arrows
from lyrandis.api.worker import FORGOTTEN_S, MOST_KEPT, MOST_WAITING, Priority, Tell, Worker
from lyrandis.core.errors import DomainError
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
        assert not trial.done(), "another long one waits behind it"
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


def test_what_is_not_there_yet_says_how_far_it_has_come(demo: Api, slow: Slow) -> None:
    path = f"/api{TIDEWAY}/spine-board"
    answer = TestClient.request(demo.client, "GET", path)
    assert slow.begun.wait(20)
    assert (answer.status_code, answer.json()) == (202, {"share": 0.0})
    slow.go.set()
    assert demo.get(f"{TIDEWAY}/spine-board")["matched_lbf"]
    assert slow.computed == 1


def test_another_rigs_assessment_does_not_wait_for_a_board_or_a_recording(
    demo: Api, slow: Slow
) -> None:
    with ThreadPoolExecutor(2) as others:
        board = others.submit(demo.get, f"{TIDEWAY}/spine-board")
        assert slow.begun.wait(20)
        for rig in ("marram-longbow", "sandpiper-thumb-bow", "tideway-recurve"):
            note = {"subject": {"kind": "rig", "id": rig},
                    "reading": {"kind": "noted", "text": "quiet"}}  # fmt: skip
            demo.post("/entries", {"entries": [note], "rig": rig})
            demo.get(f"/rigs/{rig}?page=arrow")
        assert not board.done()
        slow.go.set()
        assert board.result()


# the worker itself


class Held:
    """Work that waits until it is let go, and what was worked out, in order."""

    def __init__(self) -> None:
        self.worker = Worker()
        self.begun, self.go = threading.Event(), threading.Event()
        self.done: list[object] = []
        self.first = self.worker.ask("first", self.hold)
        assert self.begun.wait(5)

    def hold(self, tell: Tell) -> str:
        self.begun.set()
        while not self.go.wait(0.005):
            tell(0.5)
        self.done.append("first")
        return "first"

    def work(self, name: object) -> Callable[[Tell], object]:
        def make(_: Tell) -> object:
            self.done.append(name)
            return name

        return make


@pytest.fixture
def held() -> Iterator[Held]:
    one = Held()
    yield one
    one.go.set()
    one.worker.close()


def test_what_is_looked_at_goes_before_what_is_listened_to(held: Held) -> None:
    jobs = [
        held.worker.ask(name, held.work(name), priority=priority)
        for name, priority in (("a sound", Priority.LISTENING), ("curves", Priority.CURVES),
                               ("a board", Priority.LOOKED_AT))
    ]  # fmt: skip
    held.go.set()
    assert [job.future.result(5) for job in jobs] == ["a sound", "curves", "a board"]
    assert held.done == ["first", "a board", "curves", "a sound"]


def test_the_newest_of_a_slot_takes_the_place_of_the_one_waiting(held: Held) -> None:
    slid = [held.worker.ask(("try", at), held.work(at), slot="try") for at in range(5)]
    held.go.set()
    assert slid[-1].future.result(5) == 4
    assert [job.future.cancelled() for job in slid] == [True] * 4 + [False]
    assert held.done == ["first", 4]


def test_what_nobody_asks_for_any_more_is_left_out(
    held: Held, monkeypatch: pytest.MonkeyPatch
) -> None:
    now = [1000.0]
    monkeypatch.setattr("lyrandis.api.worker.monotonic", lambda: now[0])
    forgotten = held.worker.ask("forgotten", held.work("forgotten"))
    wanted = held.worker.ask("wanted", held.work("wanted"))
    held.worker.ask("first", held.hold)
    now[0] += FORGOTTEN_S + 1
    held.worker.ask("wanted", held.work("wanted"))
    assert wanted.future.result(5) == "wanted", "the one being worked on gives up by itself"
    with pytest.raises(CancelledError):
        held.first.future.result(5)
    with pytest.raises(CancelledError):
        forgotten.future.result(5)
    assert held.done == ["wanted"]
    held.go.set()
    assert held.worker.ask("first", held.hold).future.result(5) == "first", (
        "asked again, begun again"
    )


def test_too_much_at_once_is_refused_in_words(held: Held) -> None:
    for number in range(MOST_WAITING):
        held.worker.ask(number, held.work(number))
    with pytest.raises(DomainError, match="too much to work out") as refused:
        held.worker.ask("more", held.work("more"))
    assert refused.value.code == "busy"
    held.worker.drop(0)
    assert held.worker.ask("more", held.work("more"))


def test_work_that_fails_tells_its_asker_and_is_tried_again(held: Held) -> None:
    def fails(_: Tell) -> None:
        raise DomainError("no_match", "None.", "Enter one.")

    job = held.worker.ask("failing", fails)
    held.go.set()
    with pytest.raises(DomainError):
        job.future.result(5)
    assert held.worker.known("failing") is None
    assert held.worker.ask("failing", held.work("now")).future.result(5) == "now"
    assert held.worker.known("failing") == "now"


def test_answers_are_kept_up_to_a_number(held: Held) -> None:
    held.go.set()
    for number in range(MOST_KEPT + 20):
        held.worker.ask(number, held.work(number)).future.result(5)
    assert held.worker.known(0) is None
    assert held.worker.known(MOST_KEPT + 19) == MOST_KEPT + 19
