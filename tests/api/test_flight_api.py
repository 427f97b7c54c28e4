"""The flight over the API: the board, curves off the request's thread, trials in jots."""

from threading import Event
from typing import Any

import pytest

from lyrandis.api import curves as module
from lyrandis.core.flight.evidence import reckon
from tests.api.conftest import Api
from tests.api.test_bench_api import entry

RIG = "marram-longbow"


def jot(api: Api, line: str, rig: str = RIG) -> Any:
    parsed = api.post("/readings/parse", {"text": line, "rig": rig}, 200)
    return api.post("/entries", {"entries": [parsed["draft"]], "rig": rig, "page": "flight"})


def test_the_board_says_what_it_could_be_and_what_to_shoot_next(demo: Api) -> None:
    board = demo.get(f"/rigs/{RIG}/flight")
    assert board["sentence"]["template"] == "Too stiff, probably: {chance}"
    said = board["sentence"]["figures"]["chance"]["value"] / 100
    bars = {one["key"]: one["chance"] for one in board["causes"]}
    assert bars["stiff"] + bars["false_weak"] == pytest.approx(said)
    assert sum(bars.values()) == pytest.approx(1, abs=1e-6)
    assert sum(one["leads"] for one in board["causes"]) == 1
    assert sum(one["chance"] for one in board["outcomes"]) == pytest.approx(1, abs=0.03)
    assert [row["entry_id"] is None for row in board["ledger"]] == [True, *[False] * 4]
    assert board["ledger"][1]["says"]["template"].startswith("Lift"), "heights shot count too"
    assert board["next"]["minutes"] > 0
    assert len(board["schools"]) == 5


def test_a_rig_without_a_shot_says_what_is_missing(demo: Api) -> None:
    rig = demo.post("/rigs", {"name": "Bare rig"})["rig"]
    problem = demo.get(f"/rigs/{rig}/flight", 422)
    assert problem["code"] == "nothing_to_shoot"
    assert "weight" in problem["instruction"]


def test_curves_are_reckoned_off_the_requests_thread(
    demo: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    begun, go = Event(), Event()

    def slow(asked: Any) -> Any:
        begun.set()
        go.wait(10)
        return reckon(asked)

    monkeypatch.setattr(module, "reckon", slow)
    monkeypatch.setattr(module, "known", lambda _: None)
    monkeypatch.setattr(module, "QUIET_S", 600)
    first = demo.get(f"/rigs/{RIG}", params={"page": "flight"})
    assert first["reckoning"]
    assert first["page"]["waiting"]
    assert first["stages"][5]["detail"]["template"] == "being reckoned"
    demo.get(f"/rigs/{RIG}")
    assert not begun.is_set(), "nothing is begun while readings may still come in"
    monkeypatch.setattr(module, "QUIET_S", 0.02)
    while not begun.wait(0.01):
        demo.get(f"/rigs/{RIG}")
    # something else is recorded meanwhile: the answer does not wait
    made = jot(demo, "tail right 2 @ 2.5m")
    assert made["assessment"]["reckoning"]
    listed = {one["id"]: one for one in demo.get("/rigs")}
    assert listed[RIG]["reckoning"]
    assert not listed["tideway-recurve"]["reckoning"]
    go.set()
    after = demo.settled(RIG)
    assert after["stages"][5]["detail"]["template"] == "3 readings"


def test_an_answer_made_while_curves_were_reckoned_is_not_taken_for_the_last(demo: Api) -> None:
    first = demo.client.get(f"/api/rigs/{RIG}")
    demo.settled(RIG)
    again = demo.client.get(f"/api/rigs/{RIG}", headers={"if-none-match": first.headers["etag"]})
    assert again.status_code == (200 if first.json().get("reckoning") else 304)
    last = demo.client.get(f"/api/rigs/{RIG}", headers={"if-none-match": again.headers["etag"]})
    assert last.status_code == 304


def test_what_is_seen_in_a_trial_is_recorded_with_it(demo: Api) -> None:
    jot(demo, "trial draw short 1in")
    parsed = demo.post("/readings/parse", {"text": "tail left 2 @ 2.5m", "rig": RIG}, 200)
    assert parsed["reading"]["trial"] == {"what": "draw_short", "amount": 25.4}
    assert "drawn {by} short" in parsed["says"]["template"]
    said = demo.post("/readings/parse", {"text": "tail left 2 @ 2.5m plate 2mm out", "rig": RIG},
                     200)  # fmt: skip
    assert said["reading"]["trial"]["what"] == "plate", "what is said outranks what is on"
    jot(demo, "trial back")
    after = demo.post("/readings/parse", {"text": "tail left 2 @ 2.5m", "rig": RIG}, 200)
    assert after["reading"]["trial"] is None


def test_doing_a_correction_records_the_setting_and_undoing_it_is_exact(demo: Api) -> None:
    # the demo's longbow with its bare shafts told, tuned away from a high nock
    for line in ("bareset yes", "tail straight high 1 @ 2.3m", "bare 15cm low @ 18m",
                 "bare 15cm low @ 18m"):  # fmt: skip
        jot(demo, line)
    before = demo.get(f"/rigs/{RIG}/flight")
    levers = before["correction"]["levers"]
    nock = next(one for one in levers if one["key"] == "nock")
    made = demo.post(
        "/entries", {"entries": [entry("rig", RIG, nock["records"][0]["reading"])], "rig": RIG}
    )  # fmt: skip
    after = demo.get(f"/rigs/{RIG}/flight")
    assert after["expected_now"] is not None
    assert after["ledger"][-1]["changed"]
    demo.post(f"/entries/{made['entries'][0]['id']}/retraction", {"rig": RIG})
    back = demo.get(f"/rigs/{RIG}/flight")
    assert [one["chance"] for one in back["causes"]] == [one["chance"] for one in before["causes"]]


@pytest.mark.parametrize(
    ("reading", "code"),
    [
        ({"kind": "tail_seen", "across": 1, "distance_m": 0}, "out_of_range"),
        ({"kind": "tail_seen", "across": 1, "distance_m": 500}, "out_of_range"),
        ({"kind": "tail_seen", "across": 1}, "missing_field"),
        ({"kind": "tail_seen", "distance_m": 2.3}, "nothing_given"),
        ({"kind": "tail_seen", "across": 9, "distance_m": 2.3}, "out_of_range"),
        ({"kind": "tail_seen", "across_mm": 900, "distance_m": 2.3}, "out_of_range"),
        ({"kind": "tail_seen", "across": 1, "across_mm": 3, "distance_m": 2.3}, "twice"),
        ({"kind": "butt_hits", "hits": [], "distance_m": 18}, "too_few"),
        ({"kind": "bare_apart", "distance_m": 18}, "nothing_given"),
        ({"kind": "trial_set", "trial": {"what": "draw_extra", "amount": 90}}, "out_of_range"),
        ({"kind": "walked_back", "marks": [{"distance_m": 10, "right_mm": 0}] * 2}, "too_few"),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_is_recorded(
    demo: Api, reading: dict[str, Any], code: str
) -> None:
    count = len(demo.get(f"/rigs/{RIG}/entries")["entries"])
    problem = demo.problem("/entries", {"entries": [entry("rig", RIG, reading)]}, 422)
    assert problem["code"] == code
    assert len(demo.get(f"/rigs/{RIG}/entries")["entries"]) == count


def test_the_trials_of_its_own_judgement_are_told(api: Api) -> None:
    proved = api.get("/flight-trials")
    assert proved["ways"][0]["key"] == "lyrandis"
    assert len(proved["kinds"]) == 4
