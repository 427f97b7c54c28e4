"""Answers that come late, out of order, refused or never: nothing typed is lost or changed."""

import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.web.conftest import text_of
from tests.web.wire import HOST, HeldRequest, Wire, until

MARRAM = "/rigs/marram-longbow"
TIDEWAY = "/rigs/tideway-recurve"


def jot(page: Page):  # type: ignore[no-untyped-def]
    return page.get_by_label("Jot", exact=True)


def opened(wire: Wire, path: str, **more: object) -> Page:
    page = wire.open(path, **more)  # type: ignore[arg-type]
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    return page


def caught(page: Page, held: list[HeldRequest]) -> HeldRequest:
    """Wait for the one request that is held back."""
    until(page, lambda: len(held) == 1)
    return held.pop()


def said(wire: Wire, rig: str = "marram-longbow") -> list[str]:
    """What stands in the log of a rig, newest last."""
    history = wire.client.get(f"/api/rigs/{rig}/entries").json()
    gone = history["taken_back"]
    return [
        entry["as_typed"] or entry["reading"]["kind"]
        for entry in sorted(history["entries"], key=lambda one: one["seq"])
        if entry["id"] not in gone and entry["reading"]["kind"] != "retraction"
    ]


# 1. text typed while a record is in flight


def test_what_is_typed_while_a_record_is_on_its_way_stays(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    jot(page).fill("arrow 31 531")
    page.keyboard.press("Enter")
    until(page, lambda: len(held) == 1)
    expect(page.locator("#jot-says")).to_contain_text("Recording:")
    page.keyboard.type("arrow 1")
    wire.let_go(held)
    expect(page.locator("#jot-says")).not_to_contain_text("Recording:")
    page.keyboard.type("2 532")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Recorded: Arrow 12: 532")
    assert said(wire)[-2:] == ["arrow 31 531", "arrow 12 532"]


def test_lines_typed_faster_than_they_are_recorded_keep_their_order(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    jot(page).focus()
    for line in ("brace 7 1/2", "brace 7 1/4", "brace 7"):
        page.keyboard.type(line)
        page.keyboard.press("Enter")
    until(page, lambda: len(held) == 1)
    expect(jot(page)).to_have_value("")
    wire.let_go(held)
    expect(page.locator("#jot-says")).to_contain_text(re.compile(r"Recorded: Brace height 7\sin"))
    assert said(wire)[-3:] == ["brace 7 1/2", "brace 7 1/4", "brace 7"]


def test_arrows_weighed_one_after_the_other_count_on(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/arrow/quiver")
    held = wire.hold("POST", "/api/(entries|quiver-tables)$")
    page.get_by_label("Finished mass").focus()
    for mass in ("340", "341", "342"):
        page.keyboard.type(mass)
        page.keyboard.press("Enter")
    expect(page.get_by_label("No.")).to_have_attribute("placeholder", "7")
    wire.let_go(held)
    rows = page.get_by_role("table").first.get_by_role("row")
    expect(rows).to_have_count(7)
    for number, mass in ((4, 340), (5, 341), (6, 342)):
        expect(rows.filter(has_text=f"{mass} gr")).to_contain_text(re.compile(f"^{number}"))


def test_a_retired_arrow_keeps_its_number(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/arrow/quiver")
    page.get_by_role("button", name=re.compile("^Retire arrow")).last.click()
    expect(page.get_by_role("button", name="Back into the set, arrow")).to_have_count(1)
    number = page.get_by_label("No.").get_attribute("placeholder")
    page.get_by_role("link", name="Build", exact=True).click()
    expect(page.get_by_label("Number", exact=True)).to_have_attribute("placeholder", number or "")
    highest = max(
        row["number"]
        for row in wire.client.get("/api/rigs/marram-longbow?page=arrow").json()["page"]["quiver"]
    )
    assert number == f"{highest + 1}"


def test_the_scale_form_takes_both_fields_at_once(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/bow")
    held = wire.hold("POST", "/api/entries$")
    page.get_by_label("Scale reads").fill("22")
    page.get_by_label("with the string at").fill("24")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Scale reads")).to_be_focused()
    page.keyboard.type("26")
    page.keyboard.press("Tab")
    page.keyboard.type("26")
    wire.let_go(held)
    expect(page.get_by_role("row").filter(has_text="22.0 lb")).to_be_visible()
    expect(page.get_by_label("Scale reads")).to_have_value("26")
    expect(page.get_by_label("with the string at")).to_have_value("26")
    page.keyboard.press("Enter")
    expect(page.get_by_role("row").filter(has_text="26.0 lb")).to_be_visible()
    assert said(wire, "tideway-recurve")[-2:] == ["scale 22 @ 24", "scale 26 @ 26"]


@pytest.mark.parametrize(
    ("path", "label", "typed", "recorded"),
    [
        ("/bow", "Brace height now", ("7 1/2", "7 1/4"), ["brace 7 1/2", "brace 7 1/4"]),
        ("/archer", "Reading", ("27 1/4", "27 3/8"), ["draw 27 1/4", "draw 27 3/8"]),
        ("/bow/energy", "Speed", ("150", "151"), ["speed 150", "speed 151"]),
        ("/logbook", "Note", ("one", "two"), ["noted", "noted"]),
    ],
)
def test_every_field_takes_the_next_while_the_last_is_on_its_way(
    wire: Wire, path: str, label: str, typed: tuple[str, str], recorded: list[str]
) -> None:
    page = opened(wire, MARRAM + path)
    held = wire.hold("POST", "/api/entries$")
    field = page.get_by_label(label, exact=True)
    for text in typed:
        field.fill(text)
        field.press("Enter")
        expect(field).to_have_value("")
    until(page, lambda: len(held) == 1)
    wire.let_go(held)
    until(page, lambda: said(wire)[-2:] == recorded)


def test_a_refused_line_comes_back_with_its_reason(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    caught(page, held).refuse(reason="The string is off.")
    expect(jot(page)).to_have_value("brace 7 1/2")
    expect(page.locator("#jot-says")).to_contain_text("The string is off.")


def test_a_refused_line_waits_beside_what_was_typed_since(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    until(page, lambda: len(held) == 1)
    page.keyboard.type("hook 5/8")
    held.pop().refuse(reason="The string is off.")
    expect(page.locator("#jot-says")).to_contain_text("Not recorded:")
    expect(jot(page)).to_have_value("hook 5/8")
    page.get_by_role("button", name="edit it").click()
    expect(jot(page)).to_have_value("brace 7 1/2")
    jot(page).press("Escape")
    expect(jot(page)).to_have_value("hook 5/8")  # what was typed since comes back


def test_a_line_whose_reading_was_refused_comes_back_when_it_was_not_read_before(
    wire: Wire,
) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/readings/parse")
    jot(page).fill("draw 66")
    page.keyboard.press("Enter")
    expect(jot(page)).to_have_value("")
    wire.let_go(held)
    expect(jot(page)).to_have_value("draw 66")
    expect(page.locator("#jot-says")).to_contain_text("outside what a draw length can be")


# 2. a slow reading of the line


def test_a_slow_parse_never_records_an_older_line(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    jot(page).fill("hook 1/2")
    expect(page.locator("#jot-says")).to_contain_text("Hook")
    held = wire.hold("POST", "/api/readings/parse")
    jot(page).fill("hook 3/4")
    page.keyboard.press("Enter")
    page.keyboard.type("h")
    wire.let_go(held)
    until(page, lambda: said(wire)[-1] == "hook 3/4")
    expect(jot(page)).to_have_value("h")


def test_answers_to_readings_out_of_order_show_the_newest(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/readings/parse")
    jot(page).fill("hook 1/2")
    until(page, lambda: len(held) == 1)
    jot(page).fill("hook 3/4")
    until(page, lambda: len(held) == 2)
    held[1].go()
    expect(page.locator("#jot-says")).to_contain_text(re.compile(r"Hook 3/4\sin"))
    held[0].go()
    page.evaluate("() => new Promise((done) => setTimeout(done, 50))")
    expect(page.locator("#jot-says")).to_contain_text(re.compile(r"Hook 3/4\sin"))


# 3. the wrong rig, and answers that are overtaken


def test_a_late_answer_of_another_rig_is_not_shown(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    page.get_by_label("Anchor").select_option("cheekbone")
    until(page, lambda: len(held) == 1)
    page.get_by_role("button", name="Change rig").click()
    page.get_by_role("link", name="Tideway recurve").click()
    expect(page.get_by_role("button", name="Change rig")).to_contain_text("Tideway recurve")
    expect(page.locator("main")).to_contain_text("Archer")
    wire.let_go(held)
    until(page, lambda: said(wire)[-1] == "anchor_chosen")
    expect(page.get_by_role("button", name="Change rig")).to_contain_text("Tideway recurve")
    before = len(said(wire))
    page.get_by_label("Anchor").select_option("under_chin")
    until(page, lambda: said(wire, "tideway-recurve")[-1] == "anchor_chosen")
    assert len(said(wire)) == before


def test_an_older_answer_does_not_overtake_a_newer_one(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow")
    held = wire.hold("GET", "/api/rigs/marram-longbow[?]")
    page.get_by_role("navigation").get_by_role("link", name="Archer").click()
    until(page, lambda: len(held) == 1)
    # the server answers it with what it knows now; the answer travels slowly
    slow = wire.client.get("/api/rigs/marram-longbow?page=archer")
    wire._holding.clear()
    jot(page).fill("draw 30")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Recorded: Draw 30")
    expect(page.locator("nav li").filter(has_text="Logbook")).to_contain_text("99 entries")
    held[0].route.fulfill(status=200, body=slow.content, content_type="application/json")
    page.evaluate("() => new Promise((done) => setTimeout(done, 80))")
    expect(page.locator("nav li").filter(has_text="Logbook")).to_contain_text("99 entries")


# 4 and 5. refusals stand beside what was refused


def test_a_refused_choice_says_so_and_shows_what_is_recorded(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    select = page.get_by_label("Anchor")
    recorded = select.input_value()
    held = wire.hold("POST", "/api/entries$")
    select.select_option("under_chin")
    until(page, lambda: len(held) == 1)
    expect(select).to_have_value("under_chin")
    held.pop().refuse(reason="The log is full.")
    expect(page.locator("#problem-anchor")).to_contain_text("The log is full.")
    expect(select).to_have_value(recorded)
    page.evaluate("() => window.dispatchEvent(new Event('focus'))")
    until(page, lambda: wire.asked[-1].startswith("GET /api/rigs/marram-longbow"))
    expect(page.locator("#problem-anchor")).to_contain_text("The log is full.")


def test_two_quick_choices_are_queued(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    select = page.get_by_label("Anchor")
    select.select_option("under_chin")
    select.select_option("cheekbone")
    until(page, lambda: len(held) == 1)
    wire.let_go(held)
    until(page, lambda: said(wire)[-2:] == ["anchor_chosen", "anchor_chosen"])
    expect(select).to_have_value("cheekbone")
    expect(page.locator("#problem-anchor")).to_have_count(0)


def test_keys_that_pass_over_choices_record_only_the_one_that_is_meant(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    select = page.get_by_label("Anchor")
    before = len(said(wire))
    select.focus()
    page.keyboard.press("Home")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("button", name="Record Anchor")).to_be_visible()
    assert len(said(wire)) == before
    meant = select.input_value()
    page.keyboard.press("Enter")
    until(page, lambda: len(said(wire)) == before + 1)
    expect(select).to_have_value(meant)
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Escape")
    expect(select).to_have_value(meant)


def test_a_choice_made_by_keys_is_recorded_by_leaving_with_tab(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    select = page.get_by_label("Anchor")
    before = len(said(wire))
    select.focus()
    page.keyboard.press("Home")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    meant = select.input_value()
    page.keyboard.press("Tab")
    until(page, lambda: len(said(wire)) == before + 1)
    expect(select).to_have_value(meant)


def test_a_choice_made_by_keys_and_left_otherwise_says_that_it_is_not_recorded(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    select = page.get_by_label("Anchor")
    before = len(said(wire))
    select.focus()
    page.keyboard.press("Home")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    jot(page).click()
    expect(page.get_by_text("Not recorded yet")).to_be_visible()
    assert len(said(wire)) == before
    page.get_by_role("button", name="Record Anchor").click()
    until(page, lambda: len(said(wire)) == before + 1)
    expect(page.get_by_text("Not recorded yet")).to_have_count(0)


def test_keys_act_only_on_the_rig_that_is_on_the_page(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    jot(page).fill("brace 7 1/4")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Recorded")
    page.get_by_role("link", name="Lyrandis").first.click()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    before = said(wire)
    for keys in ("Control+z", "Control+Shift+z", "2", "d"):
        page.keyboard.press(keys)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    assert "/rigs/" not in page.url
    assert said(wire) == before


# the hour


def newest(wire: Wire, rig: str = "marram-longbow") -> dict[str, str]:
    """The entry recorded last."""
    entries = wire.client.get(f"/api/rigs/{rig}/entries").json()["entries"]
    found: dict[str, str] = max(entries, key=lambda one: one["seq"])
    return found


def test_what_is_typed_offline_has_the_hour_it_was_typed(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    began = datetime.now(UTC)
    jot(page).fill("brace 7 1/4")
    page.keyboard.press("Enter")
    request = caught(page, held)
    arrived = datetime.now(UTC)
    request.go()
    expect(page.locator("#jot-says")).to_contain_text("Recorded")
    typed = datetime.fromisoformat(newest(wire)["happened_at"])
    assert began - timedelta(milliseconds=1) <= typed <= arrived
    assert typed < datetime.fromisoformat(newest(wire)["recorded_at"])
    taken = wire.hold("POST", "/api/retractions$")
    page.get_by_role("button", name="take back", exact=True).first.click()
    request = caught(page, taken)
    arrived = datetime.now(UTC)
    request.go()
    until(page, lambda: newest(wire)["reading"]["kind"] == "retraction")  # type: ignore[index]
    assert datetime.fromisoformat(newest(wire)["happened_at"]) <= arrived


def test_what_throws_on_its_way_is_sent_again(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("POST", "/api/entries$")
    jot(page).fill("brace 7 1/4")
    page.keyboard.press("Enter")
    request = caught(page, held)
    request.route.fulfill(status=201, json={"no": "entries"})
    again = caught(page, held)
    again.go()
    expect(page.locator("#jot-says")).to_contain_text("Recorded")
    assert said(wire).count("brace 7 1/4") == 1


def test_a_clock_before_the_newest_entry_is_told_before_anything_is_recorded(wire: Wire) -> None:
    now = "2027-01-05T09:00:00Z"
    check = {
        "now": "2026-01-01T09:00:00Z", "newest": now, "behind": True, "long_ago": False,
        "future_count": 7,
        "future": [{"id": "entry-0001", "subject": {"kind": "rig", "id": "marram-longbow"},
                    "says": {"template": "Note: hm", "figures": {}}, "happened_at": now}],
    }  # fmt: skip
    held = wire.hold("GET", "/api/clock$")
    page = opened(wire, MARRAM + "/archer")
    caught(page, held).route.fulfill(json=check)
    expect(page.get_by_role("alert")).to_contain_text("before the newest entry here")
    future = page.get_by_text("7 entries lie in the future")
    expect(future).to_contain_text("Note: hm (5 January 2027) and 6 more")


def test_marking_an_arrow_cracked_is_never_refused_in_silence(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/arrow/quiver")
    held = wire.hold("POST", "/api/entries$")
    page.get_by_role("button", name="cracked? arrow 3").click()
    caught(page, held).refuse(reason="The log is full.")
    expect(page.locator("#problem-quiver-list")).to_contain_text("The log is full.")


def test_a_refused_putting_away_is_said_beside_its_rig(wire: Wire) -> None:
    page = opened(wire, "/")
    held = wire.hold("POST", "/api/entries$")
    page.get_by_role("button", name="put away Tideway recurve").click()
    caught(page, held).refuse(reason="The log is full.")
    expect(page.locator("#problem-tideway-recurve")).to_contain_text("The log is full.")


def test_a_list_of_parts_that_cannot_be_fetched_is_said(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("GET", "/api/bows")
    page.get_by_role("button", name="change parts").first.click()
    caught(page, held).lose()
    expect(page.get_by_role("dialog")).to_contain_text("The list could not be fetched.")


def test_a_problem_of_a_plan_stays_with_the_end_it_is_about(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/arrow/taper")
    tail = page.get_by_label(re.compile("^Tail taper"))
    head = page.get_by_label(re.compile("^Head taper"))
    tail.fill("9 in nonsense")
    tail.press("Tab")
    expect(page.locator("#problem-taper-tail")).to_be_visible()
    head.fill("4in 5/16")
    head.press("Tab")
    until(page, lambda: any("head_taper" in one for one in wire.asked))
    expect(page.locator("#problem-taper-tail")).to_be_visible()
    expect(tail).to_have_attribute("aria-invalid", "true")
    expect(head).not_to_have_attribute("aria-invalid", "true")


def test_the_field_that_is_wrong_is_the_one_marked(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/bow")
    weight, draw = page.get_by_label("Scale reads"), page.get_by_label("with the string at")
    weight.fill("22")
    draw.fill("90")
    expect(page.locator("#problem-scale")).to_be_visible()
    expect(draw).to_have_attribute("aria-invalid", "true")
    expect(weight).not_to_have_attribute("aria-invalid", "true")
    draw.fill("26")
    weight.fill("2600")
    expect(weight).to_have_attribute("aria-invalid", "true")
    expect(draw).not_to_have_attribute("aria-invalid", "true")


# 6. undo


def test_a_batch_is_taken_back_by_one_request_and_put_back_whole(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/arrow/quiver")
    rows = "\n".join(f"{number},34{number % 10}" for number in range(10, 40))
    page.get_by_label(re.compile("One arrow a row")).fill(f"no,mass gr\n{rows}")
    page.get_by_role("button", name="Record 30 arrows").click()
    table = page.get_by_role("table").first.get_by_role("row")
    expect(table).to_have_count(34)
    wire.asked.clear()
    page.get_by_role("heading", level=1).click()
    page.keyboard.press("Control+z")
    expect(table).to_have_count(4)
    assert [one for one in wire.asked if one.startswith("POST")] == ["POST /api/retractions"]
    expect(page.get_by_text("Taken back: 30 arrows from a table")).to_have_count(1)
    page.get_by_role("button", name="Put back all").click()
    expect(table).to_have_count(34)
    page.keyboard.press("Control+z")
    expect(table).to_have_count(4)
    page.reload()
    expect(table).to_have_count(4)
    page.keyboard.press("Control+Shift+z")
    expect(table).to_have_count(34)


def test_what_could_not_be_taken_back_can_be_tried_again(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow")
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Recorded:")
    held = wire.hold("POST", "/api/retractions")
    page.keyboard.press("Control+z")
    caught(page, held).refuse(status=500, code="internal_error", reason="It stumbled.")
    expect(page.get_by_text("It stumbled.")).to_be_visible()
    wire.let_go(held)
    page.keyboard.press("Control+z")
    until(page, lambda: said(wire)[-1] != "brace 7 1/2")


def test_a_lost_answer_to_taking_back_takes_back_once(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow")
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Recorded:")
    held = wire.hold("POST", "/api/retractions")
    page.keyboard.press("Control+z")
    caught(page, held).lose_answer()
    wire.let_go(held)
    expect(page.get_by_text("Taken back: Brace height")).to_be_visible(timeout=6000)
    assert said(wire)[-1] != "brace 7 1/2"


def test_a_double_enter_leaves_one_entry_and_one_step(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow")
    before = len(said(wire))
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Recorded:")
    assert len(said(wire)) == before + 1
    page.keyboard.press("Control+z")
    until(page, lambda: len(said(wire)) == before)
    page.keyboard.press("Control+z")
    expect(page.get_by_text("Nothing left to take back here.")).to_be_visible()


# 7. drafts survive


def test_what_is_typed_survives_page_switches_and_reload(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow")
    jot(page).fill("draw 27 1/")
    page.get_by_label("Brace height now").fill("7 1/")
    page.get_by_label("Scale reads").fill("36")
    page.get_by_role("link", name="Condition").click()
    page.get_by_role("button", name="not right").first.click()
    page.reload()
    expect(jot(page)).to_have_value("draw 27 1/")
    expect(page.get_by_role("button", name="not right").first).to_have_attribute(
        "aria-pressed", "true"
    )
    page.get_by_role("navigation").get_by_role("link", name="Bow").click()
    expect(page.get_by_label("Brace height now")).to_have_value("7 1/")
    expect(page.get_by_label("Scale reads")).to_have_value("36")
    page.get_by_role("button", name="Change rig").click()
    page.get_by_role("link", name="Tideway recurve").click()
    expect(page.get_by_role("button", name="Change rig")).to_contain_text("Tideway recurve")
    expect(jot(page)).to_have_value("")  # each rig has its own


def test_what_was_sent_before_a_reload_is_recorded_after_it(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow")
    held = wire.hold("POST", "/api/entries$")
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    until(page, lambda: len(held) == 1)
    page.reload()
    held.pop(0)
    until(page, lambda: len(held) >= 1)
    wire.let_go(held)
    until(page, lambda: said(wire)[-1] == "brace 7 1/2")


def test_what_a_closed_window_could_not_send_is_sent_by_the_next(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow")
    wire.down = True
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Kept, and sent when it does")
    context = page.context
    page.close()
    wire.down = False
    later = context.new_page()
    later.goto(HOST + MARRAM + "/bow")
    until(later, lambda: said(wire)[-1] == "brace 7 1/2")
    expect(later.get_by_label("Brace height now")).to_have_attribute(
        "placeholder", re.compile(r"7\s1/2")
    )


# 9. days


def test_today_is_a_day_like_now_in_the_morning(wire: Wire) -> None:
    page = wire.open("/", timezone_id="Pacific/Honolulu")
    today = page.evaluate("() => new Date().toLocaleDateString('sv')")
    page.goto(page.url + "rigs/marram-longbow/bow")
    page.locator(".jot").get_by_role("button", name="for another day").click()
    page.locator("#jot-day").fill(today)
    jot(page).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text(re.compile(r"Recorded: Brace height 7\s1/2"))


@pytest.mark.parametrize(
    ("zone", "day"),
    [("Pacific/Kiritimati", "2 October 2026"), ("America/Anchorage", "1 October 2026")],
)
def test_days_in_a_sum_are_the_readers_days(wire: Wire, zone: str, day: str) -> None:
    draft = {
        "subject": {"kind": "bow", "id": "marram"},
        "reading": {"kind": "inspected", "failing": ["finish"]},
        "happened_at": "2026-10-01T22:00:00Z",
    }
    retold = {**draft, "reading": {"kind": "inspected", "failing": ["tips"]}}
    for one in (draft, retold):
        assert wire.client.post("/api/entries", json={"entries": [one]}).status_code == 201
    page = wire.open(MARRAM + "/bow/condition", timezone_id=zone)
    expect(page.locator("aside")).to_contain_text(f"a tip is cracked or loose, {day}")
    expect(page.locator("main")).to_contain_text(day)


@pytest.mark.parametrize("zone", ["Pacific/Kiritimati", "America/Anchorage"])
def test_days_are_the_readers_days(wire: Wire, zone: str) -> None:
    page = wire.open(MARRAM + "/logbook", timezone_id=zone)
    page.locator(".jot").get_by_role("button", name="for another day").click()
    page.locator("#jot-day").fill("2026-01-15")
    jot(page).fill("brace 7 1/8")
    page.keyboard.press("Enter")
    says = page.locator("#jot-says")
    expect(says).to_contain_text("for 15 January 2026")
    expect(says).to_contain_text(re.compile(r"Brace height 7\s5/8\sin of .* stands"))
    expect(page.get_by_role("region", name="15 January 2026")).to_contain_text("Brace height 7")
    assert "15 January 2026" in text_of(page)


# 8. a table is recorded as it stands in the box


def test_a_table_of_ones_own_is_mapped_and_what_is_left_aside_is_said(
    wire: Wire, tmp_path: Path
) -> None:
    page = opened(wire, TIDEWAY + "/arrow/quiver")
    table = tmp_path / "list.csv"
    table.write_bytes(
        "Stückliste\nPfeil;Gewicht;Eigner\n11;22,9;Öle\n12;23,1;club\n".encode("cp1252")
    )
    page.get_by_label("Open a CSV file").set_input_files(table)
    says = page.locator("#quiver-table-says")
    expect(says).to_contain_text("Say which column holds the arrows' numbers.")
    expect(says).to_contain_text("Öle")
    expect(says).to_contain_text("the line “Stückliste”")
    says.get_by_label("Column Pfeil holds").select_option("number")
    says.get_by_label("Column Gewicht holds").select_option("finished mass")
    expect(says).to_contain_text("Say in which unit the mass is: 22,9, 23,1.")
    says.get_by_label("Unit of Gewicht").select_option("grams")
    expect(says).to_contain_text("Left aside, not recorded: Eigner")
    page.get_by_role("button", name="Record 2 arrows").click()
    expect(page.get_by_role("table").first.get_by_role("row")).to_have_count(6)


def test_what_is_recorded_is_what_the_box_says_now(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/arrow/quiver")
    box = page.get_by_label(re.compile("One arrow a row"))
    box.fill("no,mass gr\n11,350")
    button = page.get_by_role("button", name=re.compile("^Record 1 arrow"))
    expect(button).to_be_visible()
    held = wire.hold("POST", "/api/quiver-tables")
    box.fill("no,mass gr\n11,360")
    expect(button).to_have_count(0)  # the older reading cannot be recorded any more
    until(page, lambda: len(held) == 1)
    wire.let_go(held)
    button.click()
    expect(page.get_by_role("row").filter(has_text="360 gr")).to_be_visible()


# 10. offline, and addresses


def test_a_page_whose_code_does_not_come_says_so_and_comes_by_itself(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    jot(page).fill("draw 27 1/")
    wire.down = True
    page.get_by_role("link", name="Logbook").click()
    expect(page.get_by_role("heading", name="This page did not come")).to_be_visible()
    wire.down = False
    expect(page.get_by_role("heading", name="Logbook")).to_be_visible()
    expect(jot(page)).to_have_value("draw 27 1/")


@pytest.mark.parametrize(
    ("path", "heading"),
    [
        ("/rigs", "Rigs"),
        ("/rigs/%E0%A4%A/bow", "No such rig"),
        ("/rigs/NOT%20A%20RIG/bow", "No such rig"),
        ("/rigs/marram-longbow/nowhere", "There is nothing at this address"),
    ],
)
def test_addresses_that_lead_nowhere_say_so(wire: Wire, path: str, heading: str) -> None:
    page = wire.open(path)
    expect(page.get_by_role("heading", name=heading, exact=True)).to_be_visible()
    if heading != "Rigs":
        page.get_by_role("link", name="All rigs", exact=True).click()
        expect(page.get_by_role("heading", name="Rigs", exact=True)).to_be_visible()


def test_the_list_of_rigs_comes_by_itself_when_the_network_does(wire: Wire) -> None:
    page = opened(wire, "/rules")
    wire.down = True
    page.get_by_role("link", name="Lyrandis").first.click()
    expect(page.get_by_role("alert")).to_contain_text("Lyrandis does not answer.")
    wire.down = False
    expect(page.get_by_role("link", name="Tideway recurve")).to_be_visible()


def test_nothing_happens_behind_the_keys(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("All words")
    page.keyboard.press("2")
    assert page.url.endswith("/archer")


def test_the_words_are_asked_for_once(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("GET", "/api/readings/words")
    page.get_by_role("button", name="Form").click()
    caught(page, held).refuse(status=500, code="internal_error", reason="It stumbled.")
    panel = page.get_by_role("region", name="Fill in a reading")
    expect(panel).to_contain_text("It stumbled.")
    page.evaluate("() => new Promise((done) => setTimeout(done, 300))")
    assert not held
    panel.get_by_role("button", name="Try again").click()
    wire.let_go(held)
    expect(panel).to_contain_text("draw length on a marked arrow")


def test_a_new_build_under_an_open_page_is_noticed(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    held = wire.hold("GET", "/api/rigs/marram-longbow")
    page.evaluate("() => window.dispatchEvent(new Event('focus'))")
    caught(page, held).route.fulfill(
        status=304, headers={"x-lyrandis-page": "/assets/index-new.js"}
    )
    expect(page.get_by_role("status")).to_contain_text("A newer Lyrandis was started")


# first run


def test_the_number_on_the_shaft_is_not_taken_for_a_mass(wire: Wire) -> None:
    page = opened(wire, "/new")
    page.locator("#first-draw").fill("26")
    page.get_by_text("hunting recurve").click()
    page.locator("#first-mark").fill("24")
    page.reload()  # what was answered is still there
    expect(page.locator("#first-mark")).to_have_value("24")
    page.locator("#first-mass").fill("700")
    expect(page.locator("#problem-mass")).to_contain_text(
        re.compile(r"would be 29\.2\sgr/lb: no usual arrow")
    )
    page.get_by_role("button", name="700 is the number on the shaft").click()
    expect(page.locator("#first-spine")).to_have_value("700")
    expect(page.locator("#first-mass")).to_have_value("")
    page.keyboard.press("Enter")
    held = wire.hold("POST", "/api/rigs$")
    page.get_by_role("button", name="Make it").click()
    caught(page, held).lose_answer()
    wire.let_go(held)
    page.get_by_role("button", name="Make it").click()
    expect(page).to_have_url(re.compile("/rigs/hunting-recurve/now"))
    assert len(wire.client.get("/api/rigs").json()) == 4
    values = wire.client.get("/api/rigs/hunting-recurve").json()["stages"][2]["values"]
    spine = next(value for value in values if value["key"] == "spine")
    assert round(31500 / spine["figure"]["value"]) == 700
    kinds = {e["reading"]["kind"] for e in
             wire.client.get("/api/rigs/hunting-recurve/entries").json()["entries"]}  # fmt: skip
    assert "arrow_mass" not in kinds


def test_a_mass_that_was_told_is_not_called_weighed(wire: Wire) -> None:
    page = opened(wire, "/new")
    page.locator("#first-mass").fill("430")
    page.get_by_label("told, not weighed").check()
    page.locator("#first-mass").press("Enter")
    page.get_by_role("button", name="Make it").click()
    expect(page).to_have_url(re.compile("/rigs/my-bow/now"))
    values = wire.client.get("/api/rigs/my-bow").json()["stages"][2]["values"]
    assert next(v for v in values if v["key"] == "arrow_mass")["origin"] == "told"
