"""The order of work, and the brace's datum, over HTTP."""

from tests.api.conftest import Api

TIDEWAY = "/rigs/tideway-recurve"
NOCK = {"kind": "setting_checked", "setting": "nock"}


def on_rig(reading: dict[str, object]) -> dict[str, object]:
    return {"entries": [{"subject": {"kind": "rig", "id": "tideway-recurve"}, "reading": reading}]}


def mark(api: Api, node: str) -> str:
    stations = api.get(f"{TIDEWAY}/order")["stations"]
    found: str = next(one["mark"] for one in stations if one["node"] == node)
    return found


def test_the_order_of_a_rig_is_read(demo: Api) -> None:
    order = demo.get(f"{TIDEWAY}/order")
    assert order["kit"] == "full"
    assert [one["node"] for one in order["stations"]][4:7] == ["string", "settled", "weight_rough"]
    assert mark(demo, "nock") == "direct"
    demo.get("/rigs/no-such-rig/order", 404)


def test_a_check_clears_and_a_moved_setting_wants_a_reading(demo: Api) -> None:
    demo.post("/entries", on_rig(NOCK))
    assert mark(demo, "nock") == "settled"
    moved = demo.post("/entries", on_rig({"kind": "setting_moved", "setting": "nock"}))
    refused = demo.problem("/entries", on_rig(NOCK), 409)
    assert refused["code"] == "measure_it"
    assert "Measure the nock height" in refused["instruction"]
    demo.post(f"/entries/{moved['entries'][0]['id']}/retraction")
    assert mark(demo, "nock") == "settled"


def test_checking_on_an_unknown_rig_is_said(demo: Api) -> None:
    draft = {"entries": [{"subject": {"kind": "rig", "id": "nowhere"}, "reading": NOCK}]}
    assert demo.problem("/entries", draft, 404)["code"] == "no_such_subject"


def test_the_datum_of_brace_is_that_of_the_rig(demo: Api) -> None:
    line = {"text": "brace 9 1/4", "rig": None}
    asked = demo.problem("/readings/parse", line, 422)
    assert asked["code"] == "which_datum"
    assert len(asked["guesses"]) == 3
    known = demo.post("/readings/parse", {**line, "rig": "tideway-recurve"}, 200)
    assert known["reading"]["datum"] == "pivot"
    demo.post("/entries", on_rig({"kind": "brace_height", "brace_height_mm": 240, "datum": "back"}))
    again = demo.post("/readings/parse", {**line, "rig": "tideway-recurve"}, 200)
    assert again["reading"]["datum"] == "back"


def test_pages_of_string_and_nock_are_asked_for_apart(demo: Api) -> None:
    for stage, part in (("string", "valley"), ("nock", "side")):
        found = demo.get(TIDEWAY, params={"page": stage})
        assert found["page"]["stage"] == stage
        assert part in found["page"]
