"""Asking again: what is kept, what is new, what is unchanged."""

import threading
from collections import Counter
from pathlib import Path
from typing import Any

import pytest

from lyrandis.core import entries as e
from lyrandis.core.arrow.match import match_spine
from lyrandis.core.assessment import assess
from lyrandis.core.bow.statics import solve_curve
from lyrandis.core.setup import fold
from tests.api.conftest import Api, open_api

MARRAM = "/rigs/marram-longbow"
ARCHER = {"kind": "archer", "id": "oda"}


def tag_of(api: Api, path: str) -> str:
    answer = api.client.get(f"/api{path}")
    assert answer.status_code == 200
    return str(answer.headers["etag"])


def post(api: Api, reading: dict[str, Any], **more: Any) -> Any:
    entry = {"subject": ARCHER, "reading": reading, **more}
    return api.client.post("/api/entries", json={"entries": [entry], "rig": "marram-longbow"})


def without_nulls(value: Any) -> Any:
    """The same without fields that are null, which an assessment leaves out."""
    if isinstance(value, dict):
        return {key: without_nulls(one) for key, one in value.items() if one is not None}
    return [without_nulls(one) for one in value] if isinstance(value, list) else value


def test_nothing_new_is_answered_by_304_without_a_body(demo: Api) -> None:
    tag = tag_of(demo, MARRAM)
    answer = demo.client.get(f"/api{MARRAM}", headers={"if-none-match": tag})
    assert (answer.status_code, answer.content) == (304, b"")
    assert answer.headers["etag"] == tag


def test_a_recorded_entry_ends_the_tag_and_brings_the_next(demo: Api) -> None:
    tag = tag_of(demo, MARRAM)
    recorded = post(demo, {"kind": "draw_marked", "draw_length_mm": 696.0})
    answer = demo.client.get(f"/api{MARRAM}", headers={"if-none-match": tag})
    assert answer.status_code == 200
    assert recorded.headers["etag"] == answer.headers["etag"] != tag


def test_a_tag_holds_for_its_page_and_its_rig_only(demo: Api) -> None:
    tag = tag_of(demo, f"{MARRAM}?page=bow")
    for path in (f"{MARRAM}?page=arrow", MARRAM, "/rigs/tideway-recurve?page=bow"):
        assert demo.client.get(f"/api{path}", headers={"if-none-match": tag}).status_code == 200


def test_rigs_that_share_all_their_parts_have_tags_of_their_own(api: Api) -> None:
    parts = {"archer": {"name": "Ann"}, "bow": {"name": "Yew"}}
    api.post("/rigs", {"name": "One", **parts})
    api.post("/rigs", {"name": "Two", "archer": "ann", "bow": "yew"})
    reading = {"kind": "draw_marked", "draw_length_mm": 700.0}
    api.post("/entries", {"entries": [{"subject": {"kind": "archer", "id": "ann"},
                                       "reading": reading}]})  # fmt: skip
    one, two = api.get("/rigs/one"), api.get("/rigs/two")
    assert (one["revision"], one["entry_count"]) == (two["revision"], two["entry_count"])
    tag = tag_of(api, "/rigs/one")
    assert api.client.get("/api/rigs/two", headers={"if-none-match": tag}).status_code == 200


def test_an_entry_of_another_rigs_part_leaves_the_tag(demo: Api) -> None:
    tag = tag_of(demo, "/rigs/tideway-recurve")
    post(demo, {"kind": "draw_marked", "draw_length_mm": 696.0})
    answer = demo.client.get("/api/rigs/tideway-recurve", headers={"if-none-match": tag})
    assert answer.status_code == 304


def test_a_tag_of_another_run_does_not_hold(demo: Api, tmp_path: Path, demo_file: Path) -> None:
    tag = tag_of(demo, MARRAM)
    other = tmp_path / "again"
    other.mkdir()
    with open_api(other, demo_file) as client:
        answer = client.get(f"/api{MARRAM}", headers={"if-none-match": tag})
        assert answer.status_code == 200


@pytest.mark.parametrize("page", ["archer", "bow", "arrow"])
def test_the_page_asked_for_comes_along(demo: Api, page: str) -> None:
    assert demo.get(f"{MARRAM}?page={page}")["page"]["stage"] == page
    body = {"entries": [{"subject": ARCHER, "reading": {"kind": "hand_chosen", "hand": "left"}}]}
    answer = demo.post("/entries", {**body, "rig": "marram-longbow", "page": page})
    assert answer["assessment"]["page"]["stage"] == page


def test_no_page_is_sent_unless_asked(demo: Api) -> None:
    assert demo.get(MARRAM).get("page") is None
    assert demo.problem("/entries", {"entries": [], "page": "nowhere"}, 422)["code"] == "too_few"


def test_what_is_taken_back_is_seen_at_once(demo: Api) -> None:
    before = demo.get(MARRAM)
    entry = post(demo, {"kind": "draw_marked", "draw_length_mm": 760.0}).json()["entries"][0]["id"]
    assert demo.get(MARRAM)["stages"] != before["stages"]
    demo.post(f"/entries/{entry}/retraction", {"rig": "marram-longbow"})
    assert demo.get(MARRAM)["stages"] == before["stages"]


def test_a_part_that_comes_onto_the_rig_brings_its_own_past(demo: Api) -> None:
    demo.get(MARRAM)
    fitted = {"kind": "part_fitted", "part": "arrow_set", "part_id": "carbon-set-a"}
    rig = {"kind": "rig", "id": "marram-longbow"}
    after = demo.post("/entries", {"entries": [{"subject": rig, "reading": fitted}]})["assessment"]
    assert after["stages"][2]["values"][0]["figure"]["value"] == pytest.approx(352.0)


def test_an_answer_kept_is_the_answer_made_anew(demo: Api, tmp_path: Path, demo_file: Path) -> None:
    """Determinism that is not served from a cache: other process state, mechanics forgotten."""
    paths = [f"{MARRAM}?page={page}" for page in ("archer", "bow", "arrow")]
    paths += [f"{MARRAM}/shot", f"{MARRAM}/spine-board", f"{MARRAM}/choosing-board"]
    demo.settled("marram-longbow")
    first = [demo.get(path) for path in paths]
    again = [demo.get(path) for path in paths]
    for kept in (match_spine, solve_curve):
        kept.cache_clear()
    other = tmp_path / "other"
    other.mkdir()
    with open_api(other, demo_file) as client:
        Api(client).settled("marram-longbow")
        anew = [Api(client).get(path) for path in reversed(paths)][::-1]
    assert first == again == anew


def test_judging_does_not_depend_on_what_was_judged_before(demo: Api) -> None:
    history = demo.get(f"{MARRAM}/entries")["entries"]
    entries = [e.Entry.model_validate(entry) for entry in history]
    first = assess(fold(entries, rig="marram-longbow")).model_dump_json()
    assess(fold(entries[:40], rig="marram-longbow"))
    for kept in (match_spine, solve_curve):
        kept.cache_clear()
    assert assess(fold(entries[::-1], rig="marram-longbow")).model_dump_json() == first


def test_the_logbook_sends_only_what_is_new(demo: Api) -> None:
    whole = demo.get(f"{MARRAM}/entries")
    entry = post(demo, {"kind": "draw_marked", "draw_length_mm": 697.0}).json()["entries"][0]
    fresh = demo.get(f"{MARRAM}/entries?after={whole['revision']}")
    assert [one["id"] for one in fresh["entries"]] == [entry["id"]]
    assert list(fresh["says"]) == [entry["id"]]
    assert fresh["revision"] == entry["seq"]
    retraction = demo.post(f"/entries/{entry['id']}/retraction")["entries"][0]
    last = demo.get(f"{MARRAM}/entries?after={fresh['revision']}")
    assert [one["id"] for one in last["entries"]] == [retraction["id"]]
    assert last["taken_back"] == {**whole["taken_back"], entry["id"]: retraction["id"]}


def test_home_says_each_rig_at_a_glance(demo: Api) -> None:
    for rig in demo.get("/rigs"):
        demo.settled(rig["id"])
    for rig in without_nulls(demo.get("/rigs")):
        whole = demo.get(f"/rigs/{rig['id']}")
        assert rig["first"] == whole["findings"][0]
        step = whole["next_step"]
        act = {"template": step["action"]["label"], "figures": {}}
        assert rig["next_title"] == (act if "finding" in step else step["title"])
        for line, stage in zip(rig["stages"], whole["stages"], strict=True):
            live = next(v for v in stage["values"] if v["key"] == stage["headline"])
            told = [line[name] for name in ("key", "mark", "stop")]
            assert told == [stage[name] for name in ("key", "mark", "stop")]
            assert line["headline"].get("figure") == live.get("figure")


def test_home_of_an_empty_bench_is_empty(api: Api) -> None:
    assert api.get("/rigs") == []


def test_writers_at_the_same_time_are_recorded_once_each(demo: Api) -> None:
    """Six threads send the same forty entries, each in its own order, and ask in between."""
    ids = [f"written-{number:04d}" for number in range(40)]
    troubles: list[str] = []

    def write(start: int) -> None:
        for step in range(len(ids)):
            number = (start * 7 + step) % len(ids)
            reading = {"kind": "draw_marked", "draw_length_mm": 690.0 + number / 10}
            answer = post(demo, reading, id=ids[number])
            if answer.status_code != 201 or answer.json()["entries"][0]["id"] != ids[number]:
                troubles.append(answer.text)

    threads = [threading.Thread(target=write, args=(number,)) for number in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert troubles == []
    found = Counter(entry["id"] for entry in demo.get(f"{MARRAM}/entries")["entries"])
    assert [found[one] for one in ids] == [1] * len(ids)
    assert max(found.values()) == 1
    entries = [e.Entry.model_validate(x) for x in demo.get(f"{MARRAM}/entries")["entries"]]
    anew = assess(fold(entries, rig="marram-longbow"))
    shown = demo.get(MARRAM)
    assert shown["revision"] == anew.revision
    assert shown["stages"][0]["values"][0]["figure"] == {
        "value": pytest.approx(anew.stages[0].live.figure.value),  # type: ignore[union-attr]
        "unit": "mm",
        "plus_minus": pytest.approx(anew.stages[0].live.figure.plus_minus),  # type: ignore[union-attr]
    }


def test_ids_bound_what_an_answer_grows_by(demo: Api) -> None:
    before = len(demo.client.get(f"/api{MARRAM}").content)
    many = [
        {"subject": ARCHER, "reading": {"kind": "draw_marked", "draw_length_mm": 695.0 + n / 100}}
        for n in range(300)
    ]
    demo.post("/entries", {"entries": many})
    assert len(demo.client.get(f"/api{MARRAM}").content) < before + 3000
