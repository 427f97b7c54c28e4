"""Names that tell apart, the parts list, a rig from an existing bow, and saved logbooks."""

import copy
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.conftest import Api, open_api
from tests.api.test_bench_api import DRAW, entry, make_rig

MARRAM = "/rigs/marram-longbow"


def named(name: str, **more: Any) -> dict[str, Any]:
    return {"kind": "named", "name": name, **more}


def saved(api: Api, rig: str) -> Any:
    """A logbook as the page saves it."""
    return api.get(f"/rigs/{rig}/entries")


def brought(api: Api, file: Any, **more: Any) -> Any:
    return api.post("/logbooks", {"entries": file["entries"], "rig": file["rig"], **more})


def bring_refused(api: Api, file: Any, status: int) -> Any:
    return api.problem("/logbooks", {"entries": file["entries"], "rig": file["rig"]}, status)


@pytest.fixture(name="other")
def another_bench(tmp_path_factory: pytest.TempPathFactory) -> Any:
    with open_api(tmp_path_factory.mktemp("other")) as client:
        yield Api(client)


# names


@pytest.mark.parametrize(
    ("path", "name", "says"),
    [
        ("/archers", "ann", "There is an archer called “Ann” already."),
        ("/bows", " Yew ", "There is a bow called “Yew” already."),
        ("/arrow-sets", "set  A", "There is an arrow set called “Set A” already."),
    ],
)
def test_an_equal_name_is_questioned_and_can_be_meant(
    api: Api, path: str, name: str, says: str
) -> None:
    make_rig(api)
    problem = api.problem(path, {"name": name}, 409)
    assert (problem["code"], problem["reason"]) == ("name_taken", says)
    assert problem["field"] == "name"
    assert len(api.get(path)) == 1
    made = api.post(path, {"name": name, "alike": True})
    assert len(api.get(path)) == 2
    assert made["name"] == name.strip()


def test_an_equal_name_of_another_kind_is_no_question(api: Api) -> None:
    make_rig(api)
    assert api.post("/bows", {"name": "Ann"})["name"] == "Ann"


def test_a_rig_of_an_equal_name_makes_none_of_its_parts(api: Api) -> None:
    make_rig(api)
    problem = api.problem("/rigs", {"name": "shore rig", "archer": {"name": "Bo"}}, 409)
    assert problem["code"] == "name_taken"
    assert [one["name"] for one in api.get("/archers")] == ["Ann"]
    api.post("/rigs", {"name": "shore rig", "alike": True, "archer": {"name": "Bo"}})
    assert [one["name"] for one in api.get("/rigs")] == ["Shore rig", "shore rig"]


@pytest.mark.parametrize(
    ("kind", "subject"),
    [("archer", "ann"), ("bow", "yew"), ("arrow_set", "set-a"), ("rig", "shore-rig")],
)
def test_everything_can_be_renamed_and_back(api: Api, kind: str, subject: str) -> None:
    make_rig(api)
    before = {"rig": "Shore rig", "archer": "Ann", "bow": "Yew", "arrow_set": "Set A"}[kind]
    answer = api.post(
        "/entries", {"entries": [entry(kind, subject, named("Marsh"))], "rig": "shore-rig"}
    )
    seen = answer["assessment"]
    names = {"rig": seen["name"], **{one["part"]: one.get("name") for one in seen["fitted"]}}
    assert names[kind] == "Marsh"
    taken = {"entries": [{"entry_id": answer["entries"][0]["id"]}], "rig": "shore-rig"}
    seen = api.post("/retractions", taken)["assessment"]
    names = {"rig": seen["name"], **{one["part"]: one.get("name") for one in seen["fitted"]}}
    assert names[kind] == before


def test_its_own_name_again_is_no_question_and_anothers_is(api: Api) -> None:
    make_rig(api)
    api.post("/bows", {"name": "Ash"})
    api.post("/entries", {"entries": [entry("bow", "yew", named("YEW"))]})
    problem = api.problem("/entries", {"entries": [entry("bow", "yew", named("ash"))]}, 409)
    assert problem["code"] == "name_taken"
    api.post("/entries", {"entries": [entry("bow", "yew", named("ash", alike=True))]})
    assert [one["name"] for one in api.get("/bows")] == ["ash", "Ash"]


def test_a_renaming_sent_twice_is_recorded_once(api: Api) -> None:
    make_rig(api)
    sent = {"entries": [entry("bow", "yew", named("Ash"), id="renaming-1")]}
    assert api.post("/entries", sent) == api.post("/entries", sent)


# the parts list


def part(api: Api, part_id: str) -> Any:
    return next(one for one in api.get("/parts") if one["id"] == part_id)


def test_the_parts_list_says_who_has_what(api: Api) -> None:
    make_rig(api)
    api.post("/rigs", {"name": "Second", "archer": {"name": "Bo"}, "bow": "yew"})
    api.post("/strings", {"name": "Spare string"})
    assert [(one["kind"], one["name"]) for one in api.get("/parts")] == [
        ("archer", "Ann"), ("bow", "Yew"), ("arrow_set", "Set A"), ("archer", "Bo"),
        ("string", "Spare string"),
    ]  # fmt: skip
    assert [(on["name"], on["archer"]) for on in part(api, "yew")["on"]] == [
        ("Shore rig", "Ann"),
        ("Second", "Bo"),
    ]
    assert part(api, "spare-string")["on"] == []
    assert part(api, "spare-string")["looked_over"] is None


def test_the_parts_list_says_how_a_bow_was_last_found(api: Api) -> None:
    make_rig(api)
    assert part(api, "yew")["looked_over"]["found"] == "not_looked"

    def inspect(at: str, **found: list[str]) -> Any:
        reading = {"kind": "inspected", **found}
        api.post("/entries", {"entries": [entry("bow", "yew", reading, happened_at=at)]})
        return part(api, "yew")["looked_over"]

    seen = inspect("2026-03-01T12:00:00Z", good=["limbs", "tips"])
    assert (seen["found"], seen["says"]["template"]) == ("partly", "2 of 9 looked at, {day}")
    every = ["limbs", "tips", "finish", "laminations", "string", "string_grooves",
             "right_way_up", "stringer"]  # fmt: skip
    seen = inspect("2026-03-02T12:00:00Z", good=every, failing=["twang"])
    assert seen["found"] == "sound"
    seen = inspect("2026-03-03T12:00:00Z", failing=["string"])
    assert seen["found"] == "failing"
    assert seen["says"]["template"] == "the string, a loop or its serving is worn, {day}"
    assert seen["at"].startswith("2026-03-03")
    assert inspect("2026-03-04T12:00:00Z", good=["string"])["found"] == "sound"


def test_the_parts_list_says_how_arrows_were_last_found(api: Api) -> None:
    make_rig(api)

    def tell(number: int, **told: Any) -> Any:
        reading = {"kind": "numbered_arrow", "arrow_number": number, **told}
        api.post("/entries", {"entries": [entry("arrow_set", "set-a", reading)]})
        return part(api, "set-a")["looked_over"]

    assert tell(1, straight_mm=0.2)["found"] == "not_looked"
    assert tell(2, state="sound")["says"]["template"] == "1 of 2 looked at, {day}"
    assert tell(1, state="sound")["found"] == "sound"
    seen = tell(1, state="cracked")
    assert (seen["found"], seen["says"]["template"]) == ("failing", "cracked: 1, {day}")
    assert tell(1, retired=True)["found"] == "sound", "a retired arrow is in nobody's hand"


# a new rig from a bow there is


def test_an_archer_there_is_takes_first_readings_and_keeps_the_name(api: Api) -> None:
    make_rig(api)
    shorter = {"reading": {**DRAW, "draw_length_mm": 700}}
    draft = {"name": "ann", "same_as": "ann", "readings": [shorter]}
    made = api.post("/rigs", {"name": "Second", "archer": draft, "bow": "yew"})
    assert [one["name"] for one in api.get("/archers")] == ["Ann"]
    draw = next(v for v in made["stages"][0]["values"] if v["key"] == "draw_length")
    assert draw["figure"]["value"] == pytest.approx((700 + DRAW["draw_length_mm"]) / 2)


def test_a_part_that_is_not_of_the_kind_is_refused_and_nothing_is_made(api: Api) -> None:
    make_rig(api)
    wrong = {"name": "Yew", "same_as": "yew"}
    api.problem("/rigs", {"name": "Second", "archer": wrong}, 422)
    assert len(api.get("/rigs")) == 1


# saved logbooks


def test_a_saved_logbook_comes_in_whole_on_another_bench(demo: Api, other: Api) -> None:
    file = saved(demo, "marram-longbow")
    looked = brought(other, file, only_look=True)
    assert looked["new"] == len(file["entries"])
    assert other.get("/rigs") == []
    made = brought(other, file)
    assert made == looked
    assert made["rig"] == "marram-longbow"
    assert {one["kind"] for one in made["parts"]} == {"rig", "archer", "bow", "string", "arrow_set"}
    here, there = demo.get(MARRAM), other.get(MARRAM)
    for assessment in (here, there):
        for key in ("revision", "entry_count"):
            assessment.pop(key, None)
    assert there == here
    assert [rig["origin"] for rig in other.get("/rigs")] == ["own"]


def test_brought_in_again_only_what_is_new_is_recorded(demo: Api, other: Api) -> None:
    brought(other, saved(demo, "marram-longbow"))
    assert brought(other, saved(demo, "marram-longbow"))["new"] == 0
    note = {"kind": "noted", "text": "quiet today"}
    demo.post("/entries", {"entries": [entry("rig", "marram-longbow", note)]})
    again = brought(other, saved(demo, "marram-longbow"))
    assert again["new"] == 1
    assert not any(one["new"] for one in again["parts"])
    assert again["already"] == len(other.get(f"{MARRAM}/entries")["entries"]) - 1


def test_another_rig_of_the_same_id_is_not_mixed_with_this_one(api: Api, other: Api) -> None:
    make_rig(api)
    make_rig(other)
    api.post("/entries", {"entries": [entry("bow", "yew", named("Yew of the marsh"))]})
    made = brought(other, saved(api, "shore-rig"))
    assert made["rig"] == "shore-rig-2"
    assert [(rig["name"], rig["bow"]) for rig in other.get("/rigs")] == [
        ("Shore rig", "Yew"),
        ("Shore rig", "Yew of the marsh"),
    ]
    assert {one["kind"]: one["alike"] for one in made["parts"]} == {
        "rig": True, "archer": True, "bow": False, "arrow_set": True,
    }  # fmt: skip
    assert brought(other, saved(api, "shore-rig"))["new"] == 0, "known again under its new id"
    assert len(other.get("/rigs")) == 2


def test_a_new_id_is_none_that_the_file_has_itself(api: Api, other: Api) -> None:
    for bench in (api, other):
        bench.post("/bows", {"name": "Yew"})
    api.post("/bows", {"name": "Yew", "alike": True})
    file = {"rig": None, "entries": [
        entry("bow", bow, named("Yew", alike=True), id=f"naming-{bow}") for bow in ("yew", "yew-2")
    ]}  # fmt: skip
    made = brought(other, file)
    assert [one["id"] for one in made["parts"]] == ["yew-3", "yew-2"]
    assert [one["id"] for one in other.get("/bows")] == ["yew", "yew-2", "yew-3"]


def test_what_is_taken_back_in_both_is_taken_back_once(demo: Api, other: Api) -> None:
    brought(other, saved(demo, "marram-longbow"))
    last = saved(demo, "marram-longbow")["entries"][-1]["id"]
    for bench in (demo, other):
        bench.post("/retractions", {"entries": [{"entry_id": last}]})
    made = brought(other, saved(demo, "marram-longbow"))
    assert (made["new"], made["left_out"]) == (0, 1)
    assert set(saved(other, "marram-longbow")["taken_back"]) == set(
        saved(demo, "marram-longbow")["taken_back"]
    )


def test_what_was_taken_back_stays_taken_back(demo: Api, other: Api) -> None:
    last = saved(demo, "marram-longbow")["entries"][-1]["id"]
    demo.post("/retractions", {"entries": [{"entry_id": last}]})
    brought(other, saved(demo, "marram-longbow"))
    assert last in saved(other, "marram-longbow")["taken_back"]


def test_entries_written_by_hand_are_not_doubled(api: Api) -> None:
    file = {
        "rig": "hand-rig",
        "entries": [
            entry("rig", "hand-rig", named("By hand")),
            entry("rig", "hand-rig", {"kind": "part_fitted", "part": "bow", "part_id": "ash"}),
            entry("bow", "ash", {"kind": "bow_mark", "draw_weight_lbf": 40}),
            entry("bow", "ash", {"kind": "noted", "text": "creaks"}),
            entry("bow", "ash", {"kind": "noted", "text": "creaks"}),
        ],
    }
    assert brought(api, file)["new"] == 5
    assert brought(api, file)["new"] == 0
    assert value_of(api, "hand-rig", "draw_weight") == pytest.approx(40, abs=1)


def value_of(api: Api, rig: str, key: str) -> Any:
    values = [v for stage in api.get(f"/rigs/{rig}")["stages"] for v in stage["values"]]
    return next(v for v in values if v["key"] == key)["figure"]["value"]


def test_a_changed_file_is_refused_whole(demo: Api, other: Api) -> None:
    file = saved(demo, "marram-longbow")
    brought(other, file)
    before = saved(other, "marram-longbow")
    changed = copy.deepcopy(file)
    mark = next(one for one in changed["entries"] if one["reading"]["kind"] == "bow_mark")
    mark["reading"]["draw_weight_lbf"] = 99.0
    changed["entries"].append(
        {"subject": mark["subject"], "reading": {"kind": "noted", "text": "new"}}
    )
    problem = bring_refused(other, changed, 409)
    assert problem["code"] == "id_taken"
    assert "99.0 lb" in problem["reason"]
    assert saved(other, "marram-longbow") == before


def _twice(file: Any) -> None:
    file["entries"].append({**file["entries"][0], "reading": named("Other")})


def _two_kinds(file: Any) -> None:
    said = {"kind": "noted", "text": "x"}
    file["entries"].append(entry("archer", "marram-longbow", said))


def _unknown_target(file: Any) -> None:
    reading = {"kind": "retraction", "entry_id": "no-such-entry"}
    file["entries"].append(entry("rig", "marram-longbow", reading))


def _future(file: Any) -> None:
    said = {"kind": "noted", "text": "x"}
    file["entries"].append(entry("rig", "marram-longbow", said, happened_at="2199-01-01T12:00:00Z"))


@pytest.mark.parametrize(
    ("spoil", "status", "code"),
    [
        (_twice, 422, "twice"),
        (_two_kinds, 422, "wrong_subject"),
        (_unknown_target, 404, "no_such_entry"),
        (_future, 422, "in_the_future"),
        (lambda file: file["entries"].clear(), 422, "not_a_logbook"),
        (lambda file: file.update(rig="no-such-rig"), 404, "no_such_subject"),
    ],
)
def test_a_spoilt_file_is_refused_with_its_reason(
    demo: Api, other: Api, spoil: Any, status: int, code: str
) -> None:
    file = saved(demo, "marram-longbow")
    spoil(file)
    assert bring_refused(other, file, status)["code"] == code
    assert other.get("/rigs") == []
    assert other.get("/parts") == []


def test_a_long_logbook_is_taken_and_an_endless_one_is_not(api: Api) -> None:
    notes = ({"kind": "noted", "text": f"{n} " + "x" * 700} for n in range(2000))
    long = [entry("bow", "ash", note) for note in notes]
    assert api.post("/logbooks", {"entries": long})["new"] == 2000
    client: TestClient = api.client
    endless = client.post("/api/logbooks", content=b" " * 12_000_001,
                          headers={"content-type": "application/json"})  # fmt: skip
    assert endless.status_code == 413
    assert "12000 kB" in endless.json()["instruction"]
