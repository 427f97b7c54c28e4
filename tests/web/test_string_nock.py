"""String, nock and the order of work in the real browser."""

import re

from playwright.sync_api import Page, expect

from tests.web.conftest import HereServer, Opener, text_of

MARRAM = "/rigs/marram-longbow"
TIDEWAY = "/rigs/tideway-recurve"


def entries(page: Page) -> str:
    return text_of(page, "nav li:has-text('Logbook')")


def shots(page: Page) -> list[str]:
    return page.get_by_role("region", name="Heights tried").locator("tbody tr").all_inner_texts()


# the brace sweep


def test_a_height_is_tried_from_the_proposal_to_the_record_by_keyboard(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/string/brace")
    handle = page.get_by_role("slider", name="Brace to try")
    expect(handle).to_have_attribute("aria-valuetext", re.compile(r"7\s3/4\sin"))
    handle.focus()
    page.keyboard.press("ArrowLeft")
    expect(handle).to_have_attribute("aria-valuetext", re.compile(r"7\s11/16\sin"))
    expect(page.get_by_text("another height")).to_be_visible()
    page.keyboard.press("Escape")
    expect(handle).to_have_attribute("aria-valuetext", re.compile(r"7\s3/4\sin"))
    page.keyboard.press("Enter")
    expect(page.get_by_label("Sound, three shots")).to_be_focused()
    page.keyboard.type("3 2 3")
    page.keyboard.press("Tab")
    page.keyboard.type("2 2 2")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Heights tried").locator("tbody tr")).to_have_count(4)
    assert any(re.search(r"7\s3/4\sin", row) and "2.7" in row for row in shots(page))
    expect(page.get_by_label("Sound, three shots")).to_have_value("")


def test_the_handle_is_dragged_and_what_lies_outside_is_warned_of(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + MARRAM + "/string/brace")
    handle = page.get_by_role("slider", name="Brace to try")
    box = handle.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 9, box["y"] + 9)
    page.mouse.down()
    page.mouse.move(box["x"] + 80, box["y"] + 9, steps=4)
    page.mouse.up()
    expect(page.get_by_text("Outside the maker's range")).to_be_visible()
    page.get_by_role("button", name="back to the proposal").click()
    expect(page.get_by_text("Outside the maker's range")).to_have_count(0)


def test_a_rating_of_eleven_is_refused_beside_its_field_and_stays(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/string/brace")
    page.get_by_label("Sound, three shots").fill("3 11 3")
    expect(page.locator("#tried-says")).to_contain_text("Rate from 0, still, to 10, harsh.")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Sound, three shots")).to_have_value("3 11 3")
    assert len(shots(page)) == 3


def test_where_brace_is_read_to_is_asked_once(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url)
    made = page.evaluate(
        """async () => {
             const part = (name) => ({ name, readings: [] });
             const rig = { name: 'Spare rig', archer: part('Wren'), bow: part('Spare'),
               string: part('Spare string') };
             const answer = await fetch('/api/rigs', { method: 'POST',
               headers: { 'content-type': 'application/json' }, body: JSON.stringify(rig) });
             return (await answer.json()).rig; }"""
    )
    page.goto(f"{demo.url}/rigs/{made}/string/brace")
    field = page.get_by_label("Brace height now")
    field.fill("9 1/4")
    expect(page.locator("#problem-brace-now")).to_contain_text("read to three places")
    page.get_by_role("button", name="brace 9 1/4 back?").click()
    expect(field).to_have_value(re.compile("9 1/4 back"))
    field.press("Enter")
    expect(field).to_have_attribute("placeholder", re.compile(r"7\s1/2"))
    # the next one is read to the same place
    field.fill("9 1/2")
    expect(page.get_by_text(re.compile("to the back")).first).to_be_visible()
    field.press("Enter")
    expect(field).to_have_attribute("placeholder", re.compile(r"7\s3/4"))


# settling and turns


def test_a_settling_reading_is_recorded_and_drawn(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/string/settling")
    drawn = page.get_by_role("img", name="Brace over hours strung").locator("circle")
    expect(drawn).to_have_count(7)
    page.get_by_label("Brace", exact=True).fill("7 3/8")
    page.get_by_label("after hours strung").fill("40")
    page.get_by_label("after hours strung").press("Enter")
    expect(drawn).to_have_count(8)
    expect(page.get_by_text("No longer moving that we can see.", exact=True)).to_be_visible()
    page.get_by_label("Brace", exact=True).fill("7 3/8")
    page.get_by_label("after hours strung").fill("52")
    page.get_by_label("after hours strung").press("Enter")
    expect(page.get_by_text("It has settled.")).to_be_visible()
    page.get_by_role("button", name="Strung now").click()
    expect(page.get_by_role("button", name="Unstrung now")).to_be_visible()


def test_turns_say_what_they_give_and_what_they_cannot(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/string/turns")
    rows = page.get_by_role("region", name="Turns for a brace").locator("tbody tr")
    expect(rows).to_have_count(4)
    page.get_by_label("Turns now").fill("3")
    page.get_by_label("Turns now").press("Enter")
    expect(rows.first).to_contain_text("untwisting to none does not do it")
    page.get_by_label("Turns now").fill("-300")
    expect(page.locator("#problem-turns")).to_contain_text("cannot be negative")


def test_the_string_is_drawn_with_its_turns_and_ordered(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + MARRAM + "/string")
    expect(page.get_by_role("img", name=re.compile("The string laid straight"))).to_be_visible()
    order = text_of(page, "section:has(#order-this) pre")
    assert "twisted bundles, polyester, 16 strands" in order
    page.get_by_role("button", name="Copy").click()
    expect(page.locator("section:has(#order-this) [role=status]")).not_to_be_empty()


# the nock


def test_the_locator_is_moved_recorded_and_fixed(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/nock")
    expect(page.locator("nav.rail")).to_contain_text("brace 1/4 in higher since")
    handle = page.get_by_role("slider", name="Lift of the arrow at the string")
    handle.focus()
    page.keyboard.press("ArrowUp")
    expect(handle).to_have_attribute("aria-valuetext", re.compile("7.0"))
    before = entries(page)
    page.get_by_role("button", name=re.compile("Record 7.0")).click()
    expect(page.locator("nav li").filter(has_text="Nock")).to_contain_text("7.0 mm")
    # measured anew, it no longer is in doubt
    expect(page.get_by_text("In doubt.")).to_have_count(0)
    assert entries(page) != before
    page.get_by_role("button", name="It is found: fix it").click()
    expect(page.get_by_text("Found and fixed.").first).to_be_visible()
    expect(handle).to_have_count(0)
    page.get_by_role("button", name="let it move again").click()
    expect(handle).to_be_visible()


def test_what_the_flight_said_is_recorded_in_one_press(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/nock")
    rows = page.get_by_role("region", name="Heights shot").locator("tbody tr")
    expect(rows).to_have_count(4)
    page.get_by_role("button", name="bare shaft above the fletched").click()
    expect(rows).to_have_count(5)
    expect(rows.last).to_contain_text(re.compile(r"6\.5.mm.*8.1/4.in", re.DOTALL))


def test_gaps_at_unlike_places_are_refused(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/nock/tiller")
    page.get_by_label("Jot", exact=True).fill("tiller 181mm 177mm fade pocket")
    expect(page.locator("#jot-says")).to_contain_text("said two ways at once")
    page.get_by_label("Upper gap").fill("179")
    page.get_by_label("Lower gap").fill("178")
    page.get_by_label("Lower gap").press("Enter")
    expect(page.get_by_role("img", name=re.compile(r"Tiller 1\.0"))).to_be_visible()


def test_a_weight_is_put_on_and_taken_off(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/nock/weights")
    for label, said in (
        ("Mass", "80g"), ("Up from the grip, or down", "190mm down"), ("Called", "lower insert"),
    ):  # fmt: skip
        page.get_by_label(label, exact=True).fill(said)
    page.get_by_label("Called").press("Enter")
    expect(page.get_by_role("cell", name="lower insert", exact=True)).to_be_visible()
    expect(page.get_by_text("wants a higher nock").first).to_be_visible()
    page.get_by_role("button", name="take off lower insert").click()
    expect(page.get_by_text("None told.")).to_be_visible()


# the order of work


def test_the_order_of_work_takes_its_three_honest_answers(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + TIDEWAY + "/order")
    nock = page.locator("li:has(#station-nock)")
    page.locator("#station-nock").click()
    expect(nock).to_contain_text("in doubt, brace 1/4 in higher since")
    page.get_by_role("button", name="Measured, still so").click()
    expect(nock).to_contain_text("settled")
    page.get_by_role("button", name="It was moved").click()
    expect(nock).to_contain_text("moved, not measured")
    page.get_by_role("button", name="Measured, still so").click()
    expect(page.locator("#problem-order")).to_contain_text("Measure the nock height")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(nock).to_contain_text("in doubt, brace 1/4 in higher since")
    page.get_by_role("button", name="Measure anew").click()
    expect(page.get_by_label("Lift, underside over square")).to_be_focused()


def test_the_stations_are_walked_by_keys_and_the_habit_is_kept(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + TIDEWAY + "/order")
    page.locator("#station-nock").focus()
    page.keyboard.press("Enter")
    page.keyboard.press("ArrowDown")
    expect(page.locator("#station-arrows")).to_be_focused()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowLeft")
    expect(page.locator("#station-brace")).to_be_focused()
    page.get_by_role("button", name="Short order").click()
    expect(page.get_by_role("button", name="Short order")).to_have_attribute("aria-pressed", "true")
    page.reload()
    expect(page.get_by_role("button", name="Short order")).to_have_attribute("aria-pressed", "true")


def test_a_setting_found_by_shooting_is_said_in_words(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/order")
    page.locator("#station-bare_final").click()
    page.get_by_label("How it came out").fill("level at 18 m")
    page.get_by_label("How it came out").press("Enter")
    expect(page.locator("li:has(#station-bare_final)")).to_contain_text("level at 18 m")


def test_the_left_hand_sees_the_nock_from_the_right(
    shared_demo: HereServer, open_page: Opener
) -> None:
    places = {}
    for rig in (MARRAM, TIDEWAY):
        page = open_page(shared_demo.url + rig + "/nock")
        handle = page.get_by_role("slider", name="Lift of the arrow at the string")
        expect(handle).to_be_visible()
        box, drawing = handle.bounding_box(), page.locator("main figure svg").bounding_box()
        assert box is not None
        assert drawing is not None
        places[rig] = (box["x"] - drawing["x"]) / drawing["width"]
    assert places[MARRAM] < 0.5 < places[TIDEWAY]


# instruments


def test_a_dozen_arrows_is_twelve_presses(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/instruments")
    expect(page.get_by_text("Simulated.", exact=True)).to_be_visible()
    take = page.get_by_role("button", name=re.compile("Take arrow"))
    take.focus()
    status = page.get_by_role("region", name=re.compile("Grain scale")).get_by_role("status")
    for number in range(1, 4):
        expect(take).to_have_text(f"Take arrow {number}")
        page.keyboard.press("Enter")
        page.keyboard.press("Enter")  # a second press while it settles does nothing
        expect(status).to_contain_text(f"Recorded, arrow {number}:", timeout=15_000)
    expect(page.locator("nav li").filter(has_text="Logbook")).to_contain_text("90 entries")
    page.goto(demo.url + TIDEWAY + "/logbook")
    # the demo's own recordings are simulated too
    expect(page.get_by_text("simulated")).to_have_count(3 + 12)


def test_an_instrument_at_fault_records_nothing(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/instruments")
    page.get_by_role("button", name="Bow scale").click()
    before = entries(page)
    for fault, words in (("unplugged", "was unplugged"), ("low_battery", "battery is low")):
        page.get_by_label("to be tried").select_option(fault)
        page.get_by_role("button", name="Take reading").click()
        expect(page.get_by_text(words)).to_be_visible()
    assert entries(page) == before
    page.get_by_label("to be tried").select_option("")
    page.get_by_role("button", name="Take reading").click()
    expect(page.get_by_text("Recorded:", exact=True)).to_be_visible(timeout=15_000)
    expect(page.locator("nav li").filter(has_text="Logbook")).to_contain_text("88 entries")


# names and assembly


def test_the_parts_are_named_on_the_drawing(shared_demo: HereServer, open_page: Opener) -> None:
    for path, word in (("/bow", "string groove, a nock of the bow"), ("/nock", "to nock")):
        page = open_page(shared_demo.url + MARRAM + path)
        page.get_by_role("button", name="name the parts").click()
        expect(page.get_by_role("term").filter(has_text=word)).to_be_visible()
        page.get_by_role("button", name="hide the names").click()
        expect(page.get_by_role("term").filter(has_text=word)).to_have_count(0)


def test_a_step_of_putting_it_together_is_recorded(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/bow/condition")
    page.get_by_role("button", name=re.compile("done.*strung with a stringer")).click()
    expect(page.get_by_role("button", name=re.compile("again.*stringer"))).to_be_visible()
    page.get_by_label("The bow is made").select_option("one_piece")
    expect(page.get_by_text("Bolts turned in")).to_have_count(0)


def test_the_strip_of_a_phone_shows_the_stage_that_is_open(
    shared_demo: HereServer, look: Opener
) -> None:
    page = look(shared_demo.url + MARRAM + "/nock", width=390)
    strip = page.get_by_role("navigation", name="Order of work")
    expect(strip.locator("ol [aria-current=page]")).to_be_in_viewport(ratio=1)
    expect(strip.get_by_text("free to move")).to_be_hidden()
    height = strip.bounding_box()
    assert height is not None
    assert height["height"] < 70, "one line of values"
    strip.get_by_role("link", name="Order of work").click()
    expect(page.get_by_role("heading", name="Order of work", level=1)).to_be_visible()
    expect(strip.locator("ol [aria-current=page]")).to_be_in_viewport(ratio=1)
