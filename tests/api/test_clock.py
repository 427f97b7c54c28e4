"""The bench's clock beside the record."""

from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from lyrandis.api.app import Settings, create_app
from lyrandis.core.clock import check_clock
from tests.api.conftest import HOST

NOON = datetime(2026, 5, 1, 12, 0, tzinfo=UTC)


@pytest.mark.parametrize(
    ("ahead", "behind", "long_ago"),
    [
        (timedelta(minutes=4), False, False),
        (timedelta(minutes=6), True, False),
        (timedelta(hours=-23), False, False),
        (timedelta(hours=-25), False, True),
    ],
)
def test_a_clock_is_held_against_the_newest_entry(
    ahead: timedelta, behind: bool, long_ago: bool
) -> None:
    found = check_clock(NOON, NOON + ahead, (), 0)
    assert (found.behind, found.long_ago) == (behind, long_ago)
    assert not check_clock(NOON, None, (), 0).behind


def client_at(folder: Path, now: datetime) -> TestClient:
    settings = Settings(folder / "bench.sqlite3", clock=lambda: now, static=folder / "static")
    return TestClient(create_app(settings), base_url=HOST)


def test_what_lies_in_the_future_is_named_until_it_is_taken_back(tmp_path: Path) -> None:
    with client_at(tmp_path, NOON) as client:
        rig = client.post("/api/rigs", json={"name": "My rig"}).json()["rig"]
        assert client.get("/api/clock").json()["future_count"] == 0
    slipped = NOON + timedelta(days=400)
    with client_at(tmp_path, slipped) as client:
        assert client.get("/api/clock").json()["long_ago"]
        note = {"subject": {"kind": "rig", "id": rig}, "reading": {"kind": "noted", "text": "hm"}}
        sent = client.post("/api/entries", json={"entries": [note, note]}).json()["entries"]
    with client_at(tmp_path, NOON + timedelta(hours=1)) as client:
        found = client.get("/api/clock").json()
        assert found["behind"]
        assert found["future_count"] == 2
        assert {one["id"] for one in found["future"]} == {one["id"] for one in sent}
        assert found["future"][0]["says"]["template"] == "Note: hm"
        taken = {"entries": [{"entry_id": sent[0]["id"]}]}
        assert client.post("/api/retractions", json=taken).status_code == 201
        assert client.get("/api/clock").json()["future_count"] == 1


def test_the_demos_own_age_is_no_news(tmp_path: Path, demo_file: Path) -> None:
    (tmp_path / "bench.sqlite3").write_bytes(demo_file.read_bytes())
    with client_at(tmp_path, datetime.now(UTC) + timedelta(days=30)) as client:
        assert client.get("/api/clock").json()["newest"] is None
