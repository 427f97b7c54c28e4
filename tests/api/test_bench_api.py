"""Making rigs, recording, judging, taking back: over HTTP, as the page does."""

from datetime import UTC, datetime, timedelta
from typing import Any

from tests.api.conftest import Api

IN = 25.4
DRAW = {"kind": "draw_marked", "draw_length_mm": 28 * IN}


def entry(kind: str, subject: str, reading: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"subject": {"kind": kind, "id": subject}, "reading": reading, **more}


def value(assessment: Any, stage: int, key: str) -> Any:
    return next(v for v in assessment["stages"][stage]["values"] if v["key"] == key)


def make_rig(api: Api) -> Any:
    return api.post(
        "/rigs",
        {
            "name": "Shore rig",
            "archer": {"name": "Ann", "readings": [{"reading": DRAW}]},
            "bow": {
                "name": "Yew",
                "readings": [
                    {"reading": {"kind": "bow_mark", "draw_weight_lbf": 40}, "source": "told"}
                ],
            },
            "arrow_set": {
                "name": "Set A",
                "readings": [{"reading": {"kind": "arrow_mass", "arrow_mass_gr": 400}}],
            },
        },
    )


def test_a_new_rig_is_judged_at_once(api: Api) -> None:
    assessment = make_rig(api)
    assert assessment["rig"] == "shore-rig"
    assert [stage["mark"] for stage in assessment["stages"]] == [
        "settled", "estimated", "settled", "unset", "unset", "unset", "unset",
    ]  # fmt: skip
    assert value(assessment, 2, "gpp")["figure"]["unit"] == "gr/lbf"
    assert {finding["id"] for finding in assessment["findings"]} >= {"arrow-floor"}


def test_a_rig_can_share_parts_there_are(api: Api) -> None:
    make_rig(api)
    second = api.post("/rigs", {"name": "Second", "archer": "ann", "bow": "yew"})
    weighed = {"kind": "bow_weighed", "draw_weight_lbf": 39, "draw_length_mm": 28 * IN}
    api.post("/entries", {"entries": [entry("bow", "yew", weighed)]})
    for rig in ("shore-rig", second["rig"]):
        assert value(api.get(f"/rigs/{rig}"), 1, "draw_weight")["origin"] == "weighed"


def test_a_rig_with_a_bad_part_makes_nothing(api: Api) -> None:
    api.problem("/rigs", {"name": "Bad", "archer": {"name": "Ann"}, "bow": "no-bow"}, 422)
    assert api.get("/rigs") == []
    assert api.get("/archers") == []


def test_subjects_are_listed_and_created(api: Api) -> None:
    for plural in ("archers", "bows", "strings", "arrow-sets"):
        made = api.post(f"/{plural}", {"name": "First"})
        assert api.get(f"/{plural}") == [made]


def test_recording_returns_the_new_assessment(demo: Api) -> None:
    before = demo.get("/rigs/tideway-recurve")
    weighed = {"kind": "bow_weighed", "draw_weight_lbf": 38.8, "draw_length_mm": 28.75 * IN}
    answer = demo.post(
        "/entries",
        {
            "entries": [entry("bow", "tideway", weighed)],
            "rig": "tideway-recurve",
            "seen": before["revision"],
        },
    )
    after = answer["assessment"]
    assert after == demo.get("/rigs/tideway-recurve")
    assert before["stages"][1]["mark"] == "estimated"
    assert after["stages"][1]["mark"] == "settled"
    assert answer["entries"][0]["source"] == "weighed"


def test_retraction_restores_the_assessment(demo: Api) -> None:
    before = demo.settled("marram-longbow")
    hook = {"kind": "hook_depth", "hook_depth_mm": 25.4}
    made = demo.post(
        "/entries", {"entries": [entry("archer", "oda", hook)], "rig": "marram-longbow"}
    )
    assert made["assessment"]["stages"] != before["stages"]
    entry_id = made["entries"][0]["id"]
    demo.post(f"/entries/{entry_id}/retraction", {"rig": "marram-longbow"})
    after = demo.settled("marram-longbow")
    assert after["stages"] == before["stages"]
    history = demo.get("/rigs/marram-longbow/entries")
    retraction = history["entries"][-1]["id"]
    assert history["taken_back"] == {entry_id: retraction}
    assert entry_id in {one["id"] for one in history["entries"]}


def test_history_says_each_entry_in_words(demo: Api) -> None:
    history = demo.get("/rigs/marram-longbow/entries")
    assert all(history["says"][one["id"]]["template"] for one in history["entries"])
    assert history["names"]["oda"] == "Oda"


def test_what_if_judges_without_storing(demo: Api) -> None:
    before = demo.settled("sandpiper-thumb-bow")
    heavier = {"kind": "arrow_mass", "arrow_mass_gr": 700, "arrow_number": 1}
    heavier2 = {"kind": "arrow_mass", "arrow_mass_gr": 702, "arrow_number": 2}
    tried = demo.post(
        "/assessments",
        {
            "rig": "sandpiper-thumb-bow",
            "entries": [entry("arrow_set", "reed-set", one) for one in (heavier, heavier2)],
        },
        200,
    )
    assert before["findings"][0]["severity"] == "stop"
    assert all(finding["severity"] != "stop" for finding in tried["findings"])
    assert demo.get("/rigs/sandpiper-thumb-bow") == before


def test_a_bare_list_of_entries_can_be_judged(api: Api) -> None:
    mark = {"kind": "bow_mark", "draw_weight_lbf": 40}
    assessment = api.post(
        "/assessments", {"entries": [entry("archer", "a", DRAW), entry("bow", "b", mark)]}, 200
    )
    assert [stage["mark"] for stage in assessment["stages"]] == [
        "settled", "estimated", "unset", "unset", "unset", "unset", "unset",
    ]  # fmt: skip


def test_an_exported_history_judges_the_same(demo: Api) -> None:
    history = demo.get("/rigs/marram-longbow/entries")
    body = {"entries": history["entries"]}
    assert (
        demo.post("/assessments", body, 200)["findings"]
        == demo.settled("marram-longbow")["findings"]
    )


def test_a_rig_can_be_judged_as_it_stood(demo: Api) -> None:
    then = demo.get("/rigs/marram-longbow", params={"as_of": "2026-01-11T00:00:00Z"})
    assert [stage["mark"] for stage in then["stages"]] == [
        "estimated", "estimated", "unset", "unset", "unset", "unset", "unset",
    ]  # fmt: skip


def test_parse_hands_back_a_draft_ready_to_record(demo: Api) -> None:
    parsed = demo.post("/readings/parse", {"text": "scale 36.2 @ 27", "rig": "marram-longbow"}, 200)
    assert parsed["draft"]["subject"] == {"kind": "bow", "id": "marram"}
    assert parsed["subject_name"] == "Marram"
    assert parsed["source"] == "weighed"
    demo.post("/entries", {"entries": [parsed["draft"]]})


def test_a_bare_number_is_asked_with_the_stages_own_word_first(demo: Api) -> None:
    asked = demo.problem("/readings/parse", {"text": "27⅜", "stage": "archer"}, 422)
    assert asked["code"] == "which_quantity"
    assert asked["guesses"][0]["text"] == "draw 27⅜"
    parsed = demo.post("/readings/parse", {"text": asked["guesses"][0]["text"]}, 200)
    assert parsed["reading"] == {"kind": "draw_marked", "draw_length_mm": 695.325, "datum": "trade"}
    assert parsed["draft"] is None


def test_put_away_is_history_and_shows_in_the_list(demo: Api) -> None:
    away = entry("rig", "tideway-recurve", {"kind": "put_away"})
    demo.post("/entries", {"entries": [away]})
    assert [rig["id"] for rig in demo.get("/rigs") if rig["put_away"]] == ["tideway-recurve"]


def test_the_demo_comes_onto_a_bench_once(api: Api) -> None:
    assert len(api.post("/demo")) == 3
    assert api.problem("/demo", None, 409)["code"] == "demo_already_there"


def test_back_dated_entries_keep_both_instants(api: Api) -> None:
    make_rig(api)
    happened = (datetime.now(UTC) - timedelta(days=9)).isoformat()
    [made] = api.post(
        "/entries", {"entries": [entry("archer", "ann", DRAW, happened_at=happened)]}
    )["entries"]
    assert datetime.fromisoformat(made["happened_at"]) == datetime.fromisoformat(happened)
    assert made["recorded_at"] > made["happened_at"]


def test_the_rulebook_holds_every_rule_a_finding_cites(demo: Api) -> None:
    rules = {rule["id"] for rule in demo.get("/rules")}
    for rig in demo.get("/rigs"):
        for finding in demo.get(f"/rigs/{rig['id']}")["findings"]:
            assert finding["rule"] in rules
