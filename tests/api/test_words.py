"""The words of the jot line over HTTP: forms, questions, refused lines and what they taught."""

import pytest

from tests.api.conftest import Api

RIG = "tideway-recurve"
RISER = "riser: riser {riser_length_mm}"


def parse(api: Api, status: int = 200, **line: object) -> dict[str, object]:
    body = {"text": "", "rig": RIG, **line}
    if status != 200:
        return api.problem("/readings/parse", body, status)
    found: dict[str, object] = api.post("/readings/parse", body, 200)
    return found


def test_every_word_has_a_form_and_an_example_in_the_readers_units(demo: Api) -> None:
    for units in ("inch", "centimetre", "metric"):
        words = demo.get(f"/readings/words?units={units}")
        assert len(words) > 120
        assert len({word["key"] for word in words}) == len(words)
        for word in words:
            for field in word["fields"]:
                assert (field["takes"] == "choice") == bool(field["options"])
    [riser] = [word for word in demo.get("/readings/words?units=metric") if word["key"] == RISER]
    assert riser["example"] == "riser 43cm"
    assert "handle" in riser["names"]


def test_a_form_makes_the_line_and_the_reading(demo: Api) -> None:
    parsed = parse(demo, row=RISER, fields={"riser_length_mm": "17 in"})
    assert parsed["line"] == "riser 17 in"
    assert parsed["draft"]["as_typed"] == "riser 17 in"  # type: ignore[index]
    assert parse(demo, 422, row="no: such {row}", fields={})["code"] == "unknown_word"


def test_a_form_of_a_change_without_its_way_records_no_total(demo: Api) -> None:
    words = demo.get("/readings/words")
    [change] = [one for one in words if one["word"] == "point" and "heavier" in one["example"]]
    refused = parse(demo, 422, row=change["key"], fields={"amount": "25gr"})
    assert refused["code"] == "missing_slot"
    whole = parse(demo, row=change["key"], fields={"amount": "25gr", "_way": "heavier"})
    assert whole["reading"]["kind"] == "changed"  # type: ignore[index]


def test_a_change_shows_its_sum(demo: Api) -> None:
    summed = parse(demo, text="point 25gr heavier")["sum"]
    assert summed["template"] == "{before} + {by} = {after}"  # type: ignore[index]
    assert parse(demo, text="point 125gr")["sum"] is None


@pytest.mark.parametrize("stage", ["archer", "bow", "arrow", "string", "nock", "flight", "crawls"])
def test_examples_of_a_stage_are_what_the_rig_lacks(demo: Api, stage: str) -> None:
    asked = f"/readings/examples?rig={RIG}&stage={stage}"
    lines = demo.get(asked)
    assert 1 <= len(lines) <= 3
    first = demo.post("/readings/parse", {"text": lines[0], "rig": RIG}, 200)
    demo.post("/entries", {"entries": [first["draft"]]})
    assert lines[0] not in demo.get(asked)


def test_a_refused_line_is_kept_taught_and_understood(demo: Api) -> None:
    assert parse(demo, 422, text="fizzle 17")["code"] == "unknown_word"
    assert demo.post("/readings/own/refused", {"line": "fizzle 17"}, 200) == {"keep": True}
    meant = {"line": "fizzle 17", "row": RISER, "fields": {"riser_length_mm": "17"}, "rig": RIG}
    learnt = demo.post("/readings/own/taught", meant, 200)
    assert learnt == {"line": "riser 17", "phrase": "fizzle", "stands_for": "riser"}
    assert parse(demo, text="fizzle is 19")["reading"]["riser_length_mm"] == 482.6  # type: ignore[index]
    own = demo.get("/readings/own")
    assert own["refused"] == []
    [word] = own["taught"]
    assert (word["phrase"], word["word"], word["fits"]) == ("fizzle", "riser", True)
    assert demo.client.delete(f"/api/readings/own/taught/{word['id']}").status_code == 204
    assert parse(demo, 422, text="fizzle is 19")["code"] == "unknown_word"


def test_a_wording_that_says_too_little_is_recorded_and_not_learnt(demo: Api) -> None:
    meant = {"line": "off it 17", "row": RISER, "fields": {"riser_length_mm": "17"}}
    assert demo.post("/readings/own/taught", meant, 200)["phrase"] is None
    assert demo.get("/readings/own")["taught"] == []


def test_one_switch_and_one_wipe(demo: Api) -> None:
    demo.post("/readings/own/refused", {"line": "wobble 3"}, 200)
    demo.client.put("/api/readings/own/keeps", json={"keep": False})
    assert demo.post("/readings/own/refused", {"line": "wobble 4"}, 200) == {"keep": False}
    own = demo.get("/readings/own")
    assert (own["keeps"], [one["line"] for one in own["refused"]]) == (False, ["wobble 3"])
    assert demo.client.delete("/api/readings/own/refused").status_code == 204
    assert demo.get("/readings/own")["refused"] == []
