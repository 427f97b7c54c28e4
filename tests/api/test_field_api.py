"""The field helper over HTTP: the table, the file that is taken along, shots coming home once."""

import re
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from tests.api.conftest import Api, open_api
from tests.api.test_crawls_api import RIG, jot_on
from tests.field_text import field_text

SHOTS = f"/rigs/{RIG}/field-shots"


def head(table: dict[str, str]) -> str:
    return f"of {RIG} with {table['arrow_set']} held {table['anchor']} {table['hold']}"


def line(name: str = "8f3c1a2b4d", said: str = "crawl guessed 27m 4 stitches high 1 arrow") -> str:
    at = (datetime.now(UTC) - timedelta(minutes=5)).replace(microsecond=0)
    return f"{at.isoformat().replace('+00:00', 'Z')} {name} {said}"


def states(found: dict) -> list[str]:  # type: ignore[type-arg]
    return [one["state"] for one in found["lines"]]


def test_looking_records_nothing_and_recording_records_once(demo: Api) -> None:
    text = field_text(head(demo.get(f"/rigs/{RIG}/field-table")), line(), line("9f3c1a2b4d"))
    before = demo.get(f"/rigs/{RIG}")["entry_count"]
    looked = demo.post(SHOTS, {"text": text}, 200)
    assert (states(looked), looked["recorded"]) == (["new", "new"], [])
    assert demo.get(f"/rigs/{RIG}")["entry_count"] == before
    recorded = demo.post(SHOTS, {"text": text, "record": True}, 200)
    assert recorded["recorded"] == ["8f3c1a2b4d", "9f3c1a2b4d"]
    again = demo.post(SHOTS, {"text": text, "record": True}, 200)
    assert (states(again), again["recorded"]) == (["here", "here"], [])
    assert demo.get(f"/rigs/{RIG}")["entry_count"] == before + 2
    page = demo.get(f"/rigs/{RIG}", params={"page": "crawls"})["page"]
    assert sum(mark["distance_m"] == 27 and mark["counts"] for mark in page["marks"]) == 2


def test_a_text_that_was_cut_says_so_and_records_what_is_whole(demo: Api) -> None:
    text = field_text(head(demo.get(f"/rigs/{RIG}/field-table")), line(), line("9f3c1a2b4d"))
    cut = text[: text.rindex(" 4 stitches")]
    answer = demo.post(SHOTS, {"text": cut, "record": True, "also": ["9f3c1a2b4d"]}, 200)
    assert (states(answer), answer["recorded"]) == (["new", "bad"], ["8f3c1a2b4d"])
    assert answer["more"] is True
    again = demo.post(SHOTS, {"text": text, "record": True}, 200)
    assert (states(again), again["recorded"], again["more"]) == (
        ["here", "new"], ["9f3c1a2b4d"], False,
    )  # fmt: skip


def test_shots_of_other_arrows_wait_for_a_choice(demo: Api) -> None:
    table = demo.get(f"/rigs/{RIG}/field-table")
    text = field_text(head({**table, "anchor": "corner"}), line())
    waiting = demo.post(SHOTS, {"text": text, "record": True}, 200)
    assert (states(waiting), waiting["recorded"]) == (["differs"], [])
    chosen = demo.post(SHOTS, {"text": text, "record": True, "also": ["8f3c1a2b4d"]}, 200)
    assert chosen["recorded"] == ["8f3c1a2b4d"]


def test_the_table_learns_from_the_shots_that_came_home(demo: Api) -> None:
    table = demo.get(f"/rigs/{RIG}/field-table")
    said = "crawl 35m 3mm 10cm high 6 arrows"
    demo.post(SHOTS, {"text": field_text(head(table), line(said=said)), "record": True}, 200)
    after = demo.get(f"/rigs/{RIG}/field-table")
    at = [one["distance_m"] for one in table["points"]].index(35)
    assert after["points"][at]["crawl_mm"] > table["points"][at]["crawl_mm"]
    assert after["marks"] == table["marks"] + 1


@pytest.fixture
def served(tmp_path: Path, demo_file: Path) -> Iterator[TestClient]:
    """The demo with a page that was built, as small as a page can be."""
    static = tmp_path / "static"
    (static / "assets").mkdir(parents=True)
    (static / "index.html").write_text("<html></html>")
    (static / "field-worker.js").write_text("self")
    (static / "field.html").write_text(
        '<html><head><link rel="icon" href="/mark.svg" type="image/svg+xml" />'
        '<script type="module" crossorigin src="/assets/field-1.js"></script>'
        '<link rel="stylesheet" crossorigin href="/assets/style-1.css"></head>'
        '<body><div id="field"></div></body></html>'
    )
    (static / "assets/field-1.js").write_text("const end = '</script>';")
    (static / "assets/style-1.css").write_text(
        "b{}@font-face{src:url(/assets/c-cyrillic-wght.woff2)}"
        "@font-face{src:url(/assets/c-latin-wght.woff2)}i{}"
    )
    (static / "assets/c-latin-wght.woff2").write_bytes(b"font")
    with open_api(tmp_path, demo_file) as client:
        yield client


def test_the_file_taken_along_holds_everything_and_reaches_nobody(served: TestClient) -> None:
    answer = served.get(f"/api/rigs/{RIG}/field-helper.html")
    assert answer.status_code == 200
    assert "attachment" in answer.headers["content-disposition"]
    page = answer.text
    assert '"rig":"tideway-recurve"' in page
    assert "url(data:font/woff2;base64,Zm9udA==)" in page
    assert "b{}@font-face" in page
    assert "}i{}" in page
    assert "cyrillic" not in page
    assert page.count("</script>") == 2, "its own code does not end the script"
    assert re.findall(r'(?:src|href)="[^"]*"', page) == []
    assert "default-src 'none'" in page, "its own policy forbids it the network"


def test_a_name_cannot_break_out_of_the_carried_file(served: TestClient) -> None:
    nasty = "</script><script>alert(1)</script>"
    named = {"subject": {"kind": "rig", "id": RIG}, "reading": {"kind": "named", "name": nasty}}
    assert served.post("/api/entries", json={"entries": [named]}).status_code == 201
    page = served.get(f"/api/rigs/{RIG}/field-helper.html").text
    assert nasty not in page
    assert page.count("<script") == 2


def test_without_a_built_page_there_is_nothing_to_take_along(demo: Api) -> None:
    assert demo.client.get(f"/api/rigs/{RIG}/field-helper.html").status_code == 404


@pytest.mark.parametrize(
    ("body", "code"),
    [
        ({"text": "hello"}, "not_field_shots"),
        ({"text": ""}, "not_field_shots"),
        ({"text": "x" * 100_001}, "too_much"),
        ({"text": "x", "other": 1}, "unknown_field"),
        ({}, "missing_field"),
    ],
)
def test_bad_text_is_refused_in_words(demo: Api, body: dict[str, object], code: str) -> None:
    assert demo.post(SHOTS, body, 422)["code"] == code


def test_a_rig_without_a_table_says_so_and_an_unknown_one_is_not_there(demo: Api) -> None:
    rig = demo.post("/rigs", {"name": "Bare rig"})["rig"]
    assert demo.get(f"/rigs/{rig}/field-table", 422)["code"] == "nothing_to_shoot"
    assert demo.get(f"/rigs/{rig}/field-helper.html", 422)["code"] == "nothing_to_shoot"
    assert demo.get("/rigs/nobody/field-table", 404)["code"] == "no_such_subject"
    assert demo.post("/rigs/nobody/field-shots", {"text": line()}, 404)["code"] == "no_such_subject"


def test_a_yard_table_is_carried_in_yards(demo: Api) -> None:
    jot_on(demo, "crawlunits yards")
    assert demo.get(f"/rigs/{RIG}/field-table")["unit"] == "yd"


def test_the_helpers_page_is_served_at_its_own_address(served: TestClient) -> None:
    assert 'id="field"' in served.get(f"/field/{RIG}").text
    assert 'id="field"' not in served.get("/fields").text
    worker = served.get("/field-worker.js")
    assert worker.headers["content-type"].startswith(("text/javascript", "application/javascript"))
