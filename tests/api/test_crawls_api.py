"""Crawls over HTTP: what is recorded narrows the table; what a wrong guess costs; refusals."""

import pytest

from tests.api.conftest import Api
from tests.api.test_flight_api import entry, jot

RIG = "tideway-recurve"


def table(api: Api) -> dict[float, float]:
    page = api.get(f"/rigs/{RIG}", params={"page": "crawls"})["page"]
    return {row["distance_m"]: row["half_mm"] for row in page["rows"]}


def test_a_recorded_crawl_narrows_the_table_and_taking_it_back_is_exact(demo: Api) -> None:
    before = table(demo)
    made = demo.post(
        "/entries",
        {"entries": [entry("rig", RIG, {"kind": "crawl_mark", "distance_m": 35.0,
                                        "crawl_mm": 2.0})], "rig": RIG},
    )  # fmt: skip
    after = table(demo)
    assert after[35.0] < before[35.0] - 0.3
    demo.post(f"/entries/{made['entries'][0]['id']}/retraction", {"rig": RIG})
    assert table(demo) == before


def test_what_a_wrong_guess_costs_is_told_both_ways_and_in_the_archers_unit(demo: Api) -> None:
    found = demo.get(f"/rigs/{RIG}/crawl-ranges")
    five = found["guesses"][4]
    at = found["distances"].index(30.0)
    assert five["by"] == 5
    assert five["nearer_mm"][at] > 150
    assert five["further_mm"][at] < -five["nearer_mm"][at]
    assert five["nearer_mm"][0] is None, "five metres nearer than five is the archer"
    assert found["unit"] == "m"
    jot_on(demo, "crawlunits yards")
    yards = demo.get(f"/rigs/{RIG}/crawl-ranges")
    assert yards["unit"] == "yd"
    assert abs(yards["guesses"][4]["further_mm"][at]) < abs(five["further_mm"][at])


def jot_on(api: Api, text: str) -> None:
    parsed = api.post("/readings/parse", {"text": text, "rig": RIG}, 200)
    api.post("/entries", {"entries": [parsed["draft"]], "rig": RIG})


def test_a_rig_without_a_speed_says_what_is_missing(demo: Api) -> None:
    rig = demo.post("/rigs", {"name": "Bare rig"})["rig"]
    problem = demo.get(f"/rigs/{rig}/crawl-ranges", 422)
    assert problem["code"] == "nothing_to_shoot"
    assert "weight" in problem["instruction"]


@pytest.mark.parametrize(
    ("reading", "field"),
    [
        ({"distance_m": 0.0, "crawl_mm": 30.0}, "distance_m"),
        ({"distance_m": 900.0, "crawl_mm": 30.0}, "distance_m"),
        ({"distance_m": 20.0, "crawl_mm": 300.0}, "crawl_mm"),
        ({"distance_m": 20.0, "fingers": 12.0}, "fingers"),
        ({"distance_m": 20.0, "stitches": 900.0}, "stitches"),
        ({"distance_m": 20.0}, "crawl_mm"),
        ({"distance_m": 20.0, "crawl_mm": 30.0, "fingers": 1.0}, "crawl_mm"),
    ],
)
def test_a_bad_crawl_is_refused_at_its_field(
    demo: Api, reading: dict[str, float], field: str
) -> None:
    body = {"entries": [entry("rig", RIG, {"kind": "crawl_mark", **reading})], "rig": RIG}
    problem = demo.problem("/entries", body, 422)
    assert problem["field"].endswith(field)
    assert problem["instruction"]


def test_the_flights_rig_knows_no_crawls(demo: Api) -> None:
    made = jot(demo, "crawl 20m 30mm")
    assert "crawls" in {one["key"] for one in made["assessment"]["stages"]}


def test_a_plan_is_made_for_a_wished_point_on(demo: Api) -> None:
    near = demo.get(f"/rigs/{RIG}/crawl-plan", params={"wished_m": 30})
    far = demo.get(f"/rigs/{RIG}/crawl-plan", params={"wished_m": 45})
    assert near["wished_m"] == 30
    assert [line["key"] for line in near["anchors"]] == ["cheekbone", "corner", "under_chin"]
    assert near["needs"] != far["needs"]
    assert demo.get(f"/rigs/{RIG}/crawl-plan", 422, params={"wished_m": 500})["field"]


@pytest.mark.parametrize("what", ["strip", "card"])
def test_drawings_come_as_svg_at_true_size(demo: Api, what: str) -> None:
    answer = demo.client.get(f"/api/rigs/{RIG}/crawl-{what}.svg")
    assert answer.status_code == 200
    assert answer.headers["content-type"].startswith("image/svg+xml")
    assert f"{RIG}-{what}.svg" in answer.headers["content-disposition"]
    assert 'mm" viewBox="0 0 ' in answer.text
    rig = demo.post("/rigs", {"name": "Bare rig"})["rig"]
    assert demo.get(f"/rigs/{rig}/crawl-{what}.svg", 422)["code"] == "nothing_to_shoot"


def test_the_archers_other_bows_stand_in_the_plan_and_follow_what_is_recorded_of_them(
    demo: Api,
) -> None:
    assert demo.get(f"/rigs/{RIG}/crawl-plan")["bows"] == []
    made = demo.post("/rigs", {"name": "Bram's longbow", "archer": "bram", "bow": "marram",
                               "string": "marram-string-16", "arrow_set": "ash-set-b"})  # fmt: skip
    [own, other] = demo.get(f"/rigs/{RIG}/crawl-plan")["bows"]
    assert (own["now"], other["now"]) == (True, False)
    assert other["says"]["template"] == "Bram's longbow"
    demo.post("/entries", {"entries": [entry("arrow_set", "ash-set-b", {
        "kind": "arrow_mass", "arrow_mass_gr": 700.0, "arrow_number": 1})]})  # fmt: skip
    assert demo.get(f"/rigs/{RIG}/crawl-plan")["bows"][1]["point_on_m"] < other["point_on_m"]
    away = {"subject": {"kind": "rig", "id": made["rig"]}, "reading": {"kind": "put_away"}}
    demo.post("/entries", {"entries": [{**away, "reading": {"kind": "put_away", "away": True}}]})
    assert demo.get(f"/rigs/{RIG}/crawl-plan")["bows"] == []


def test_tables_of_other_arrows_stand_beside_and_one_tap_makes_them_stand(demo: Api) -> None:
    first = demo.get(f"/rigs/{RIG}/crawl-tables")["tables"]
    assert [(one["arrows"], one["stands"]) for one in first] == [
        ("Carbon, set A", True), ("Aluminium, set B", False),
    ]  # fmt: skip
    assert "brace" in first[1]["since"]["template"]
    fit = {"kind": "part_fitted", "part": "arrow_set", "part_id": "aluminium-set-b"}
    demo.post("/entries", {"entries": [entry("rig", RIG, fit)]})
    then = demo.get(f"/rigs/{RIG}/crawl-tables")["tables"]
    assert [(one["arrows"], one["stands"]) for one in then] == [
        ("Aluminium, set B", True), ("Carbon, set A", False),
    ]  # fmt: skip
