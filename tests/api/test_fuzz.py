"""No request, however odd, makes the server stumble; `make bench` sends many more."""

from pathlib import Path

import pytest

from tests.api.conftest import open_api
from tests.api.fuzz import fuzz


@pytest.mark.parametrize("seed", [1])
def test_odd_requests_are_answered_in_words(tmp_path: Path, demo_file: Path, seed: int) -> None:
    with open_api(tmp_path, demo_file) as client:
        found = fuzz(client, 150, seed)
    assert sum(found.values()) == 150
    assert found[200] + found[201] > 15  # not everything is refused at the door
    assert found[422] > 20


@pytest.mark.parametrize(
    ("method", "path", "more", "status"),
    [
        ("GET", "/%00", {}, 404),
        ("GET", "/" + "a" * 300, {}, 404),
        ("GET", "/api/rigs", {"headers": {"sec-fetch-site": "cross-site"}}, 403),
        ("GET", "/api/rigs", {"headers": {"host": "127.0.0.1.evil"}}, 403),
        ("GET", "/api/rigs", {"headers": {"host": "[::1]evil"}}, 403),
        ("GET", "/", {"headers": {"sec-fetch-site": "cross-site"}}, 404),
        ("POST", "/api/demo", {"headers": {"origin": "http://["}}, 403),
        ("DELETE", "/api/rigs", {}, 405),
        (
            "POST",
            "/api/entries",
            {"json": {"entries": [{"subject": {"kind": "archer", "id": "oda"},
                                   "reading": {"kind": "draw_marked", "draw_length_mm": 700}}],
                      "seen": -(10**30)}},
            422,
        ),
        ("POST", "/api/readings/parse", {"json": {"text": "deflection 999999"}}, 422),
        ("POST", "/api/readings/parse", {"json": {"text": "spine 0"}}, 422),
    ],
)  # fmt: skip
def test_what_once_made_it_stumble_is_answered(  # type: ignore[no-untyped-def]
    tmp_path: Path, demo_file: Path, method: str, path: str, more: dict, status: int
) -> None:
    with open_api(tmp_path, demo_file) as client:
        answer = client.request(method, path, **more)
    assert answer.status_code == status
    assert answer.headers["content-type"] == "application/problem+json"
