"""Instruments over HTTP: the list, readings as they settle, faults, and twelve arrows."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from lyrandis.api.app import Settings, create_app
from tests.api.conftest import HOST

GRAIN = "/api/rigs/tideway-recurve/instruments/grain_scale"


@pytest.fixture
def bench(tmp_path: Path) -> Iterator[TestClient]:
    app = create_app(Settings(tmp_path / "bench.sqlite3", demo=True, instrument_pace_s=0.0))
    with TestClient(app, base_url=HOST) as client:
        yield client


def steps(client: TestClient, path: str, **asked: Any) -> list[tuple[str, dict[str, Any]]]:
    answer = client.get(path, params=asked)
    assert answer.status_code == 200
    assert answer.headers["content-type"].startswith("text/event-stream")
    found = []
    for event in answer.text.strip().split("\n\n"):
        name, data = event.split("\n")
        found.append((name.removeprefix("event: "), json.loads(data.removeprefix("data: "))))
    return found


def test_the_instruments_say_that_they_are_simulated(bench: TestClient) -> None:
    found = bench.get("/api/instruments").json()
    assert len(found) == 6
    assert all(one["simulated"] for one in found)


def test_a_reading_settles_and_comes_once(bench: TestClient) -> None:
    found = steps(bench, GRAIN, seed=3)
    names = [name for name, _ in found]
    assert names[-1] == "taken"
    assert names.count("taken") == 1
    assert set(names[:-1]) == {"sample"}
    assert found[-1][1]["value"] == pytest.approx(352, rel=0.04)


@pytest.mark.parametrize("fault", ["drift", "timeout", "unplugged", "low_battery", "nonsense"])
def test_a_fault_is_said_and_gives_no_reading(bench: TestClient, fault: str) -> None:
    name, said = steps(bench, GRAIN, seed=3, fault=fault)[-1]
    assert name == "failed"
    assert said["fault"] == fault
    assert said["instruction"]


def test_what_cannot_be_asked_is_said(bench: TestClient) -> None:
    assert bench.get("/api/rigs/nowhere/instruments/grain_scale").status_code == 404
    assert bench.get("/api/rigs/tideway-recurve/instruments/hammer").status_code == 422
    assert bench.get(GRAIN, params={"fault": "fire"}).status_code == 422
    assert bench.get(GRAIN, params={"seed": -1}).status_code == 422


def test_the_bow_scale_reads_at_the_draw_it_is_asked_for(bench: TestClient) -> None:
    path = "/api/rigs/tideway-recurve/instruments/bow_scale"
    low, high = (
        steps(bench, path, seed=1, draw_length_mm=draw)[-1][1]["value"] for draw in (600, 711)
    )
    assert low < high - 5
