"""The choosing board over HTTP: for the rig, for what is tried, and what is refused."""

import pytest

from tests.api.conftest import Api

IN = 25.4


def test_the_board_is_for_the_rig(demo: Api) -> None:
    board = demo.client.get("/api/rigs/marram-longbow/choosing-board").json()
    assert board["hold"] == "three_under"
    assert board["purpose"] == "woods"
    assert board["draw_mm"] == pytest.approx(27.375 * IN, abs=0.1)
    assert board["families"][0]["family"] == "reflex_deflex_longbow"
    assert all(len(family["rows"]) == 13 for family in board["families"])
    assert len(board["families"]) == 4


def test_what_is_tried_goes_before_what_is_recorded_and_records_nothing(demo: Api) -> None:
    before = demo.client.get("/api/rigs/marram-longbow").json()["entry_count"]
    asked = {"draw_mm": 762, "hold": "thumb", "hold_lbf": 50, "families": ["selfbow"]}
    board = demo.client.get("/api/rigs/marram-longbow/choosing-board", params=asked).json()
    assert (board["draw_mm"], board["hold"], board["hold_lbf"]) == (762, "thumb", 50)
    assert [family["family"] for family in board["families"]] == ["selfbow"]
    assert demo.client.get("/api/rigs/marram-longbow").json()["entry_count"] == before


@pytest.mark.parametrize(
    ("asked", "status", "code", "field"),
    [
        ({"draw_mm": 9}, 422, "out_of_range", "draw_mm"),
        ({"hold_lbf": -3}, 422, "out_of_range", "hold_lbf"),
        ({"purpose": "moon"}, 422, None, "purpose"),
        ({"brace": 3}, 422, None, "brace"),
    ],
)
def test_what_cannot_be_asked_is_said_with_its_field(
    demo: Api, asked: dict[str, object], status: int, code: str | None, field: str
) -> None:
    answer = demo.client.get("/api/rigs/marram-longbow/choosing-board", params=asked)  # type: ignore[arg-type]
    problem = answer.json()
    assert answer.status_code == status
    assert answer.headers["content-type"] == "application/problem+json"
    assert field in problem["path"]
    assert problem["instruction"]
    assert code is None or problem["code"] == code


def test_a_rig_without_a_draw_is_asked_for_one(demo: Api) -> None:
    rig = demo.client.post("/api/rigs", json={"name": "Bare"}).json()["rig"]
    answer = demo.client.get(f"/api/rigs/{rig}/choosing-board")
    assert answer.status_code == 422
    assert answer.json()["code"] == "no_draw"
    assert (
        demo.client.get(f"/api/rigs/{rig}/choosing-board", params={"draw_mm": 700}).status_code
        == 200
    )


def test_an_unknown_rig_is_not_found(demo: Api) -> None:
    assert demo.client.get("/api/rigs/nowhere/choosing-board").status_code == 404


def test_the_bow_is_sent_whole_for_the_page_to_interpolate(demo: Api) -> None:
    bench = demo.get("/rigs/sandpiper-thumb-bow?page=bow")["page"]["bench"]
    draws = [pose["draw_mm"] for pose in bench["poses"]]
    assert draws == sorted(draws)
    assert len(draws) > 20
    assert bench["rigid_tip"]
    assert all(len(pose["limb"]) == len(bench["unstrung"]) for pose in bench["poses"])
    weights = [pose["weight_lbf"] for pose in bench["poses"]]
    assert weights == sorted(weights)
    assert weights[0] == pytest.approx(0, abs=1e-6)
