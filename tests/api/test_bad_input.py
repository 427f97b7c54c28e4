"""Bad input: a problem that names the field and says what to do, and nothing recorded."""

import json
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from tests.api.conftest import Api

IN = 25.4


def body(reading: Any, kind: str = "archer", subject: str = "oda", **more: Any) -> dict[str, Any]:
    return {"entries": [{"subject": {"kind": kind, "id": subject}, "reading": reading, **more}]}


def draw(length: Any) -> dict[str, Any]:
    return {"kind": "draw_marked", "draw_length_mm": length}


FUTURE = (datetime.now(UTC) + timedelta(days=2)).isoformat()


@pytest.mark.parametrize(
    ("sent", "status", "code", "field"),
    [
        (body(draw("long")), 422, "not_a_number", "draw_length_mm"),
        (body(draw(66 * IN)), 422, "out_of_range", "draw_length_mm"),
        (body(draw(-700)), 422, "out_of_range", "draw_length_mm"),
        (body(draw(0)), 422, "out_of_range", "draw_length_mm"),
        (body(draw(None)), 422, "not_a_number", "draw_length_mm"),
        (body({"kind": "draw_marked"}), 422, "missing_field", "draw_length_mm"),
        (body({"kind": "wand_length"}), 422, "unknown_kind", "reading"),
        (body({}), 422, "unknown_kind", "reading"),
        (body({**draw(700), "colour": "red"}), 422, "unknown_field", "colour"),
        (
            body({"kind": "bow_length", "bow_length_mm": 27 * IN}, "bow", "marram"),
            422,
            "out_of_range",
            "bow_length_mm",
        ),
        (
            body({"kind": "bow_mark", "draw_weight_lbf": 900}, "bow", "marram"),
            422,
            "out_of_range",
            "draw_weight_lbf",
        ),
        (body({"kind": "bow_length", "bow_length_mm": 1600}), 422, "wrong_subject", "subject"),
        (
            body({"kind": "arrow_minimum"}, "bow", "marram"),
            422,
            "one_needed",
            "grains_per_pound",
        ),
        (body(draw(700), happened_at=FUTURE), 422, "in_the_future", "happened_at"),
        (body(draw(700), happened_at="2026-01-10T10:00:00"), 422, "no_time_zone", "happened_at"),
        (
            body(draw(700), happened_at="0001-01-01T00:00:00+14:00"),
            422,
            "too_long_ago",
            "happened_at",
        ),
        (body(draw(700), source="dreamt"), 422, "unknown_choice", "source"),
        (body(draw(700), subject="nobody"), 404, "no_such_subject", "subject"),
        (body(draw(700), subject="No Body"), 422, "invalid", "id"),
        ({"entries": []}, 422, "too_few", "entries"),
        ({}, 422, "missing_field", "entries"),
        ([], 422, "invalid", None),
        ({**body(draw(700)), "rig": "no-rig"}, 404, "no_such_subject", "subject"),
    ],
)
def test_bad_entries_are_refused_beside_their_field(
    demo: Api, sent: Any, status: int, code: str, field: str | None
) -> None:
    before = demo.get("/rigs/marram-longbow")
    problem = demo.problem("/entries", sent, status)
    assert (problem["code"], problem["field"]) == (code, field)
    assert demo.get("/rigs/marram-longbow") == before


def test_a_wrong_unit_is_offered_back(demo: Api) -> None:
    problem = demo.problem("/entries", body(draw(66 * IN)), 422)
    assert "Did you mean a bow length of 66 in?" in [g["says"] for g in problem["guesses"]]


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e999"])
def test_numbers_that_are_none_are_refused(demo: Api, number: str) -> None:
    text = json.dumps(body(draw(0.125))).replace("0.125", number)
    answer = demo.client.post(
        "/api/entries", content=text, headers={"content-type": "application/json"}
    )
    assert answer.status_code == 422
    assert answer.json()["code"] == "not_a_number"


def test_broken_json_is_a_problem(demo: Api) -> None:
    answer = demo.client.post(
        "/api/entries", content='{"entries": [', headers={"content-type": "application/json"}
    )
    assert answer.status_code == 422
    assert answer.json()["code"] == "bad_json"


def test_ten_megabytes_are_refused(demo: Api) -> None:
    big = body(draw(700), note="x" * 10_000_000)
    assert demo.problem("/entries", big, 413)["code"] == "body_too_large"


def test_ten_megabytes_without_a_length_are_refused(demo: Api) -> None:
    def pieces():  # type: ignore[no-untyped-def]
        for _ in range(100):
            yield b"x" * 100_000

    answer = demo.client.post(
        "/api/entries", content=pieces(), headers={"content-type": "application/json"}
    )
    assert answer.status_code == 413


def test_a_second_retraction_is_a_conflict(demo: Api) -> None:
    [made] = demo.post("/entries", body(draw(700)))["entries"]
    demo.post(f"/entries/{made['id']}/retraction")
    problem = demo.problem(f"/entries/{made['id']}/retraction", None, 409)
    assert problem["code"] == "already_retracted"


def test_taking_back_what_is_not_there_is_a_problem(demo: Api) -> None:
    assert demo.problem("/entries/no-such-entry/retraction", None, 404)["code"] == "no_such_entry"


def test_two_windows_editing_one_thing_are_told(demo: Api) -> None:
    seen = demo.get("/rigs/marram-longbow")["revision"]
    brace = {"kind": "brace_height", "brace_height_mm": 190.0}
    mine = {**body(brace, "rig", "marram-longbow"), "seen": seen}
    demo.post("/entries", mine)
    problem = demo.problem("/entries", mine, 409)
    assert (problem["code"], problem["field"]) == ("changed_meanwhile", "brace_height")


@pytest.mark.parametrize(
    ("text", "code"),
    [("xyzzy 3", "unknown_word"), ("draw 66", "out_of_range"), ("", "empty"), ("note", "empty")],
)
def test_a_jot_line_that_cannot_be_read_is_a_problem(demo: Api, text: str, code: str) -> None:
    assert demo.problem("/readings/parse", {"text": text}, 422)["code"] == code


def test_a_reading_on_a_part_that_is_not_there_makes_and_fits_it_once(api: Api) -> None:
    api.post("/rigs", {"name": "Bare"})
    parsed = api.post("/readings/parse", {"text": "arrow 431", "rig": "bare"}, 200)
    draft = {**parsed["draft"], "id": "sent-once-0001"}
    assert (draft["subject"]["id"], parsed["subject_name"]) == ("new-part", "new arrows")
    sent = {"entries": [draft], "rig": "bare"}
    first = api.post("/entries", sent)
    assert [entry["reading"]["kind"] for entry in first["entries"]] == ["part_fitted", "arrow_mass"]
    api.post("/entries", sent)  # sent again it is no second set
    [made] = [part for part in api.get("/parts") if part["kind"] == "arrow_set"]
    assert made["name"] == "Arrows 1"
    other = api.post("/readings/parse", {"text": "arrow 1 430", "rig": "bare"}, 200)["draft"]
    assert other["subject"]["id"] == made["id"]
    waiting = {**draft, "id": "sent-once-0002"}  # typed before the set was there, sent after
    again = api.post("/entries", {"entries": [waiting], "rig": "bare"})
    assert [entry["subject"]["id"] for entry in again["entries"]] == [made["id"]]


@pytest.mark.parametrize("path", ["/nothing", "/rigs/no-such-rig", "/rigs/marram"])
def test_unknown_addresses_are_problems(demo: Api, path: str) -> None:
    answer = demo.client.get(f"/api{path}")
    assert answer.status_code == 404
    assert answer.headers["content-type"] == "application/problem+json"


@pytest.mark.parametrize("as_of", ["2026-01-10T10:00:00", "yesterday"])
def test_an_instant_without_a_zone_or_sense_is_a_problem(demo: Api, as_of: str) -> None:
    problem = demo.get("/rigs/marram-longbow", 422, params={"as_of": as_of})
    assert problem["field"] == "as_of"


def test_a_what_if_in_the_future_is_refused(demo: Api) -> None:
    problem = demo.problem("/assessments", body(draw(700), happened_at=FUTURE), 422)
    assert problem["code"] == "in_the_future"


@pytest.mark.parametrize(
    ("path", "sent", "code"),
    [
        ("/rigs", {"name": "   "}, "empty"),
        ("/rigs", {"name": "x" * 61}, "too_much"),
        ("/rigs", {}, "missing_field"),
        ("/rigs", {"name": "Rig", "colour": "red"}, "unknown_field"),
        ("/archers", {"name": "Ann", "readings": [{"reading": {"kind": "nope"}}]}, "unknown_kind"),
        (
            "/archers",
            {
                "name": "Ann",
                "readings": [{"reading": {"kind": "bow_length", "bow_length_mm": 1600}}],
            },
            "wrong_subject",
        ),
        ("/assessments", {"entries": "all"}, "invalid"),
        ("/assessments", {"entries": [], "rig": "no-rig"}, "no_such_subject"),
        ("/readings/parse", {"text": "x" * 401}, "too_much"),
        ("/readings/parse", {"text": "draw 27", "stage": "moon"}, "unknown_choice"),
        ("/readings/parse", {}, "missing_field"),
    ],
)
def test_other_bad_bodies_are_problems_too(api: Api, path: str, sent: Any, code: str) -> None:
    status = 404 if code == "no_such_subject" else 422
    assert api.problem(path, sent, status)["code"] == code
    assert api.get("/rigs") == api.get("/archers") == []


def test_a_wrong_method_is_a_problem(demo: Api) -> None:
    answer = demo.client.delete("/api/rigs")
    assert answer.status_code == 405
    assert answer.headers["content-type"] == "application/problem+json"
    assert answer.json()["code"] == "method_not_allowed"


def test_an_unexpected_failure_is_a_problem_without_its_insides(
    demo: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fail(*_args: object) -> None:
        raise RuntimeError("secret detail")

    monkeypatch.setattr("lyrandis.api.rig_cache.compute", fail)
    answer = demo.client.get("/api/rigs/marram-longbow")
    assert answer.status_code == 500
    assert answer.json()["code"] == "internal_error"
    assert "secret" not in answer.text
