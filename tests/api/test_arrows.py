"""The arrow over HTTP: the shot, the match, trying, tapers, the quiver; and what is refused."""

import gzip
from typing import Any

import pytest

from tests.api.conftest import Api

IN = 25.4
MARRAM = "/rigs/marram-longbow"
ARROWS = {"kind": "arrow_set", "id": "ash-set-b"}


def arrow_finding(assessment: Any, name: str) -> Any:
    return next((f for f in assessment["findings"] if f["id"] == name), None)


def record(demo: Api, *readings: dict[str, Any]) -> Any:
    entries = [{"subject": ARROWS, "reading": reading} for reading in readings]
    return demo.post("/entries", {"entries": entries, "rig": "marram-longbow", "page": "arrow"})[
        "assessment"
    ]


def test_the_shot_is_small_and_whole(demo: Api) -> None:
    answer = demo.client.get(f"/api{MARRAM}/shot")
    assert answer.status_code == 200
    assert len(gzip.compress(answer.content)) < 60_000
    shot = answer.json()
    assert [arrow["which"] for arrow in shot["arrows"]] == ["own", "matched", "weak", "stiff"]
    assert shot["outward_is_left"] is False  # a left-handed archer
    assert shot["arrows"][0]["clearance"] == "slap"
    assert shot["arrows"][1]["word"] == "matched"
    assert shot["assumed"] == []
    assert shot["nock_mm"][shot["pass_frame"]] >= 0 > shot["nock_mm"][shot["pass_frame"] - 1]


def test_the_board_lays_both_schools_side_by_side(demo: Api) -> None:
    board = demo.get(f"{MARRAM}/spine-board")
    assert board["low_lbf"] < board["matched_lbf"] < board["high_lbf"]
    terms = board["practice_terms"]
    assert terms[0]["name"] == "draw weight"
    wants = board["practice"]["wants_lbf"]
    assert sum(term["pounds"] for term in terms) == pytest.approx(wants)
    assert board["mechanics"]["low_lbf"] < board["mechanics"]["high_lbf"]
    assert {way["undo"] for way in board["ways"]} >= {"easy", "new"}
    # by what was seen of its flight, not by the computed shot
    assert board["bare"] == {"size": "medium", "side": "right"}


def test_trying_moves_the_numbers_and_records_nothing(demo: Api) -> None:
    before = demo.get(MARRAM)["entry_count"]
    plain = demo.get(f"{MARRAM}/arrow-trial")
    tried = demo.get(f"{MARRAM}/arrow-trial", params={"point_gr": 175, "window_mm": 5})
    assert plain["tried"] == plain["now"] == tried["now"]
    assert tried["tried"]["mass_gr"] == pytest.approx(plain["now"]["mass_gr"] + 50, abs=0.1)
    assert tried["tried"]["matched_lbf"] > plain["now"]["matched_lbf"]
    assert demo.get(MARRAM)["entry_count"] == before


def test_a_taper_is_planned_beside_what_was_shot(demo: Api) -> None:
    asked = {"tail_taper_mm": 10 * IN, "tail_diameter_mm": 7.0}
    plan = demo.get(f"{MARRAM}/taper-plan", params=asked)
    assert plan["kind"] == "tail"
    assert [one["flew"] for one in plan["tried"]] == ["weak", "stiff"]
    assert plan["planned"]["mass_gr"] < plan["parallel"]["mass_gr"]


def test_copying_a_taper_to_the_set_changes_the_set(demo: Api) -> None:
    after = record(demo, {"kind": "arrow_build", "tail_taper_mm": 254.0, "tail_diameter_mm": 7.0})
    assert len(after["page"]["arrow"]["profile"]) == 3
    assert arrow_finding(after, "arrow-changed")["severity"] == "watch"


def test_the_best_matched_are_chosen_and_the_rest_explained(demo: Api) -> None:
    found = demo.get(f"{MARRAM}/matched-set", params={"count": 4})
    assert len(found["chosen"]) == 4
    assert found["spine_spread_lbf"] <= 3
    why = {out["number"]: out["because"] for out in found["out"]}
    assert why[8] == "cracked"
    assert why[7] == "crooked"
    assert why[4] in ("too_heavy", "too_stiff")


def test_the_quiver_goes_out_as_a_table_and_comes_back(demo: Api) -> None:
    answer = demo.client.get(f"/api{MARRAM}/quiver.csv")
    assert answer.headers["content-type"].startswith("text/csv")
    assert "marram-longbow-quiver.csv" in answer.headers["content-disposition"]
    table = demo.post("/quiver-tables", {"text": answer.text}, status=200)
    assert table["bad"] == []
    assert table["arrows"] == [1, 2, 3, 4, 5, 6, 7, 8]
    quiver = record(demo, *table["readings"])["page"]["quiver"]
    assert quiver[3]["mass_gr"] == pytest.approx(479)
    assert quiver[7]["retired"] is True


def test_a_dozen_pasted_is_recorded_in_one_go(demo: Api) -> None:
    rows = "number,mass gr,spine lb\n" + "\n".join(
        f"{n},{460 + n},{52 + n % 3}" for n in range(20, 32)
    )
    table = demo.post("/quiver-tables", {"text": rows}, status=200)
    assert table["arrows"] == list(range(20, 32))
    quiver = record(demo, *table["readings"])["page"]["quiver"]
    assert len(quiver) == 20
    assert quiver[-1] == {
        "number": 31, "mass_gr": 491.0, "spine_lbf": 53.0, "straight_mm": None,
        "nock_turn_deg": None, "safety": "not_looked", "quill": None, "retired": False,
        "remark": None, "looked_at": None,
    }  # fmt: skip


def test_a_cracked_arrow_stops_the_rig_and_retiring_it_lets_go(demo: Api) -> None:
    cracked = {"kind": "numbered_arrow", "arrow_number": 3, "state": "cracked"}
    after = record(demo, cracked)
    assert after["findings"][0]["id"] == "arrow-cracked"
    assert after["next_step"]["action"]["control"] == "quiver"
    gone = record(demo, {"kind": "numbered_arrow", "arrow_number": 3, "retired": True})
    assert arrow_finding(gone, "arrow-cracked") is None


def test_two_windows_may_say_different_things_of_one_arrow(demo: Api) -> None:
    seen = demo.get(MARRAM)["revision"]
    turn = {"kind": "numbered_arrow", "arrow_number": 3, "nock_turn_deg": 120.0}
    straight = {"kind": "numbered_arrow", "arrow_number": 3, "straight_mm": 0.3}

    def send(reading: dict[str, Any]) -> dict[str, Any]:
        entry = {"subject": ARROWS, "reading": reading}
        return {"entries": [entry], "rig": "marram-longbow", "seen": seen}

    demo.post("/entries", send(turn))
    demo.post("/entries", send(straight))
    problem = demo.problem("/entries", send({**turn, "nock_turn_deg": 90.0}), 409)
    assert problem["code"] == "changed_meanwhile"


@pytest.mark.parametrize(
    ("path", "asked", "field"),
    [
        ("arrow-trial", {"point_gr": -5}, "point_gr"),
        ("arrow-trial", {"shaft_length_mm": 3}, "shaft_length_mm"),
        ("arrow-trial", {"window_mm": 90}, "window_mm"),
        ("arrow-trial", {"brace_height_mm": 1}, "brace_height_mm"),
        ("arrow-trial", {"colour": "red"}, "colour"),
        ("taper-plan", {"tail_taper_mm": 200}, "tail_diameter_mm"),
        ("taper-plan", {"tail_taper_mm": 5000, "tail_diameter_mm": 7}, "tail_taper_mm"),
        ("taper-plan", {"head_taper_mm": "long"}, "head_taper_mm"),
        ("matched-set", {"count": 1}, "count"),
        ("matched-set", {"count": 50}, "count"),
    ],
)
def test_what_cannot_be_asked_is_said_with_its_field(
    demo: Api, path: str, asked: dict[str, Any], field: str
) -> None:
    problem = demo.get(f"{MARRAM}/{path}", 422, params=asked)
    assert problem["field"] == field
    assert problem["instruction"]


@pytest.mark.parametrize("path", ["shot", "spine-board", "arrow-trial"])
def test_without_draw_or_weight_there_is_nothing_to_shoot(api: Api, path: str) -> None:
    rig = api.post("/rigs", {"name": "Bare rig"})["rig"]
    problem = api.get(f"/rigs/{rig}/{path}", 422)
    assert problem["code"] == "nothing_to_shoot"
    assert "Enter the draw" in problem["instruction"]


@pytest.mark.parametrize(
    "path",
    ["shot", "spine-board", "arrow-trial", "taper-plan", "matched-set?count=3", "quiver.csv"],
)
def test_an_unknown_rig_is_a_problem(demo: Api, path: str) -> None:
    assert demo.get(f"/rigs/nobody/{path}", 404)["code"]


@pytest.mark.parametrize(
    ("text", "code"), [("", "empty"), ("1," + "9" * 12_000, "too_much"), ("x" * 70_000, None)]
)
def test_a_text_that_is_no_table_is_a_problem(api: Api, text: str, code: str | None) -> None:
    problem = api.problem("/quiver-tables", {"text": text}, 422)
    if code:
        assert problem["code"] == code


@pytest.mark.parametrize(
    ("text", "code", "guess"),
    [
        ("spine 500 lb", "wrong_standard", "spine 500"),
        ("spine 50", "which_unit", "spine 50lb"),
        ("spine 50 thou", "wrong_standard", "spine 50lb"),
        ("arrow 3 spine 500 lb", "wrong_standard", "arrow 3 spine 500"),
    ],
)
def test_a_spine_in_the_wrong_standard_is_questioned(
    demo: Api, text: str, code: str, guess: str
) -> None:
    problem = demo.problem("/readings/parse", {"text": text}, 422)
    assert problem["code"] == code
    assert problem["guesses"][0]["text"] == guess
    assert demo.post("/readings/parse", {"text": guess}, status=200)["reading"]["spine_lbf"]


@pytest.mark.parametrize(
    ("reading", "field"),
    [
        ({"kind": "numbered_arrow", "arrow_number": 3}, "arrow_number"),
        ({"kind": "numbered_arrow", "arrow_number": 0, "state": "sound"}, "arrow_number"),
        ({"kind": "numbered_arrow", "arrow_number": 3, "spine_lbf": 500}, "spine_lbf"),
        ({"kind": "taper_shot", "flew": "well"}, "flew"),
        ({"kind": "taper_shot", "flew": "weak", "tail_taper_mm": 200}, "tail_diameter_mm"),
        ({"kind": "arrow_build", "shaft_diameter_mm": 80}, "shaft_diameter_mm"),
    ],
)
def test_bad_arrows_are_refused_beside_their_field(
    demo: Api, reading: dict[str, Any], field: str
) -> None:
    body = {"entries": [{"subject": ARROWS, "reading": reading}]}
    assert demo.problem("/entries", body, 422)["field"] == field
