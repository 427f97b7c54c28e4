"""The arrow's pages in the real browser: see it bend, close the gap, try, taper, the quiver."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.web.conftest import HereServer, Opener, text_of

MARRAM = "/rigs/marram-longbow/arrow"
TIDEWAY = "/rigs/tideway-recurve/arrow"


def cell(page: Page, label: str) -> str:
    label_ = page.locator("dt", has_text=re.compile(rf"^\s*{re.escape(label)}\s*$"))
    return " ".join(
        page.locator("dl > div").filter(has=label_).locator("dd").first.inner_text().split()
    )


def slide(page: Page, label: str, value: float) -> None:
    """Put a slider where a finger would."""
    page.get_by_label(label, exact=True).evaluate(
        """(slider, value) => { slider.value = value;
             slider.dispatchEvent(new Event('input', { bubbles: true })); }""",
        value,
    )


# match


def test_the_shot_is_drawn_and_scrubbed(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + MARRAM)
    instant = page.get_by_label("Instant of the shot")
    expect(instant).to_be_visible()
    shaft = page.locator("figure svg path[stroke-width='3.2']")
    before = shaft.get_attribute("d")
    instant.focus()
    page.keyboard.press("Home")
    expect(page.locator("#bend-says")).to_contain_text("touches the plate")
    expect(page.locator("figure svg text.strong").first).to_have_text("0.0\u00a0ms")
    assert shaft.get_attribute("d") != before
    page.keyboard.press("End")
    expect(page.locator("#bend-says")).to_contain_text("Clear of the bow.")
    expect(page.get_by_text("free of the string")).to_be_visible()


def test_contact_of_the_tail_is_marked(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + MARRAM)
    instant = page.get_by_label("Instant of the shot")
    expect(page.get_by_role("button", name=re.compile("^Yours"))).to_contain_text("tail slaps")
    pressed = []
    for frame in range(36, 50):
        instant.evaluate(
            "(s, v) => { s.value = v; s.dispatchEvent(new Event('input', {bubbles: true})); }",
            frame,
        )
        pressed.append("Presses on the plate" in text_of(page, "#bend-says"))
    assert any(pressed)
    page.get_by_role("button", name=re.compile("^Matched")).click()
    expect(page.get_by_role("button", name=re.compile("^Matched"))).to_have_attribute(
        "aria-pressed", "true"
    )
    expect(page.get_by_role("button", name=re.compile("^Matched"))).to_contain_text("tail clear")


_TWENTY_FRAMES = """async () => {
  for (let n = 0; n < 20; n++) await new Promise((done) => requestAnimationFrame(done));
}"""


def test_the_shot_plays_slowly_and_stops(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + MARRAM)
    page.emulate_media(reduced_motion="no-preference")
    instant = page.get_by_label("Instant of the shot")
    page.get_by_role("button", name="Play slowly").click()
    start = float(instant.input_value())
    page.wait_for_function(
        "start => Number(document.querySelector('input[type=range]').value) > start + 2", arg=start
    )
    page.get_by_role("button", name="Pause").click()
    stopped = instant.input_value()
    page.evaluate(_TWENTY_FRAMES)
    assert instant.input_value() == stopped


def test_who_wants_nothing_to_move_gets_stills(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + MARRAM)
    page.emulate_media(reduced_motion="reduce")
    stills = page.get_by_role("list", name="Stills of the shot")
    expect(stills.get_by_role("button")).to_have_count(6)
    expect(page.get_by_role("button", name="Play slowly")).to_have_count(0)
    stills.get_by_role("button").first.click()
    expect(page.locator("#bend-says")).to_contain_text("touches the plate")


def test_the_left_handers_arrow_lies_on_the_right(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + MARRAM)
    expect(page.get_by_text("right of the bow")).to_be_visible()
    page.goto(shared_demo.url + TIDEWAY)
    expect(page.get_by_text("left of the bow")).to_be_visible()
    page.goto(shared_demo.url + "/rigs/sandpiper-thumb-bow/arrow")
    expect(page.get_by_text("right of the bow")).to_be_visible()


def test_match_schools_and_ways_stand_together(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + MARRAM)
    expect(page.get_by_role("heading", name="Two schools")).to_be_visible()
    assert re.match(r"\d\d lb \(\d{3}\)", cell(page, "This rig wants"))
    assert cell(page, "Your shafts are").startswith("far too stiff")
    assert cell(page, "Tail at the plate").startswith("slaps")
    read = text_of(page, "main")
    assert re.search(r"Ways to close \d+ lb too stiff, easiest to undo first", read)
    assert "Point 75 gr heavier" in read
    assert re.search(r"Practice\s+\d+ lb \(\d+\) to \d+ lb", read)
    assert "Your own bare shafts outrank both" in read
    assert "a bare shaft strikes right of the fletched ones" in read
    assert "1.0 lb more weight" in read


def test_the_next_step_leads_to_the_ways(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + "/rigs/marram-longbow/archer")
    page.get_by_role("button", name="Close the gap in spine").first.click()
    expect(page).to_have_url(re.compile("/arrow/match$"))
    expect(page.get_by_text("Ways to close", exact=True)).to_be_in_viewport()


def test_a_rig_without_weight_says_what_the_shot_needs(own: HereServer, open_page: Opener) -> None:
    page = open_page(own.url)
    page.locator("#first-draw").fill("28")
    page.locator("#first-mark").fill("40")
    page.locator("#first-mass").fill("400")
    page.locator("#first-mass").press("Enter")
    page.get_by_role("button", name="Make it").click()
    expect(page).to_have_url(re.compile("/now$"))
    page.goto(page.url.replace("/now", "/arrow/match"))
    expect(page.get_by_role("heading", name="Two schools")).to_be_visible()
    expect(page.get_by_text(re.compile("Assumed: .*window"))).to_be_visible()


# build


def test_the_build_sheet_takes_spine_in_either_standard(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + TIDEWAY + "/build")
    field = page.get_by_label("Spine, on the label or gauge")
    expect(field).to_have_attribute("placeholder", re.compile(r"63.*\(500\)"))
    field.fill("500 lb")
    expect(page.locator("#problem-spine")).to_contain_text("No shaft is 500 lb stiff")
    expect(field).to_have_value("500 lb")
    page.get_by_role("button", name="spine 500?").click()
    expect(field).to_have_value("500")
    field.fill("600")
    field.press("Enter")
    expect(field).to_have_attribute("placeholder", re.compile(r"\(600\)"))
    page.get_by_label("Spine, by deflection").fill("1/2 in @ 26in 2lb")
    page.get_by_label("Spine, by deflection").press("Enter")
    expect(field).to_have_attribute("placeholder", re.compile(r"52"))


def test_parts_and_scale_are_compared_on_the_build_sheet(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/build")
    assert cell(page, "Unexplained").startswith("15 gr")
    assert cell(page, "Forward of the middle").startswith("10 %")
    page.get_by_label("Window, short of centre").fill("4mm")
    page.get_by_label("Window, short of centre").press("Enter")
    expect(page.get_by_label("Window, short of centre")).to_have_attribute(
        "placeholder", re.compile(r"4\.0\smm short of centre")
    )
    page.get_by_label("Side the arrow leans on").select_option("plunger")
    expect(page.locator("#jot-says")).to_contain_text("Recorded: Side the arrow leans on: plunger.")


# try


def test_trying_changes_the_numbers_and_records_only_when_told(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + TIDEWAY + "/try")
    expect(page.get_by_label("Point", exact=True)).to_be_visible()
    mass = cell(page, "Finished mass")
    logbook = text_of(page, "nav li:has-text('Logbook')")
    slide(page, "Point", 160)
    expect(page.locator("dl.numbers")).to_contain_text("402 gr")
    assert cell(page, "Finished mass") != mass
    assert "now 352 gr" in cell(page, "Finished mass")
    assert text_of(page, "nav li:has-text('Logbook')") == logbook
    page.get_by_role("button", name="Back to what is recorded").click()
    expect(page.locator("dl.numbers")).not_to_contain_text("402 gr")
    slide(page, "Point", 135)
    page.get_by_role("button", name="Record as done").click()
    expect(page.locator("#jot-says")).to_contain_text("Recorded: What was tried.")
    assert text_of(page, "nav li:has-text('Logbook')") != logbook
    expect(page.locator("aside")).to_contain_text("Parts changed since these arrows were weighed")


def test_a_shaft_tried_too_short_is_stopped_and_cannot_be_recorded(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + TIDEWAY + "/try")
    expect(page.get_by_label("Shaft length", exact=True)).to_be_visible()
    slide(page, "Shaft length", 1)
    expect(page.locator("main").get_by_role("alert")).to_contain_text("can fall behind the rest")
    expect(page.get_by_role("button", name="Record as done")).to_be_disabled()


def test_sliders_answer_the_arrow_keys(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + TIDEWAY + "/try")
    window = page.get_by_label("Side plate, off centre", exact=True)
    expect(window).to_have_attribute("aria-valuetext", re.compile(r"1\.0\smm past"))
    window.focus()
    page.keyboard.press("ArrowRight")
    expect(window).to_have_attribute("aria-valuetext", re.compile(r"0\.5\smm past"))


# taper


def test_a_taper_is_planned_logged_and_copied(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/taper")
    expect(page.get_by_text("The shaft barrelled")).to_be_visible()
    page.get_by_label("Tail taper: length, diameter at the end").fill("12in 6.5mm")
    page.get_by_label("Tail taper: length, diameter at the end").press("Enter")
    page.get_by_label("Head taper: length, diameter at the end").fill("12in 6.5mm")
    page.get_by_label("Head taper: length, diameter at the end").press("Enter")
    expect(page.locator("svg", has_text="6.5 mm").first).to_be_visible()
    page.get_by_role("group", name="Log this taper").get_by_role("button", name="clean").click()
    row = page.get_by_role("row").filter(has_text="tail 12 in to 6.5 mm")
    expect(row).to_contain_text("clean")
    row.get_by_role("button", name="copy to the set").click()
    expect(page.locator("#jot-says")).to_contain_text("Recorded: Set tapered: tail 12")
    page.get_by_role("link", name="Build", exact=True).click()
    expect(page.get_by_label("Tail taper: length, end")).to_have_attribute(
        "placeholder", re.compile(r"12\sin to 6\.5\smm")
    )


def test_a_taper_that_cannot_be_is_said_beside_its_field(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + MARRAM + "/taper")
    field = page.get_by_label("Tail taper: length, diameter at the end")
    field.fill("9in 12mm")
    field.press("Enter")
    expect(page.locator("#problem-taper-tail")).to_contain_text("is no taper of a 8.7 mm shaft")
    expect(field).to_have_value("9in 12mm")


def test_carbon_is_not_tapered(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + TIDEWAY)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.get_by_role("link", name="Taper", exact=True)).to_have_count(0)
    page.goto(shared_demo.url + TIDEWAY + "/taper")
    expect(page.get_by_text("Only wooden and cane shafts")).to_be_visible()


# quiver


def test_a_dozen_is_entered_by_keyboard(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/quiver")
    page.get_by_label("Finished mass").focus()
    for mass, spine in ((354, 61), (353, 62), (356, 63)):
        page.keyboard.type(f"{mass}")
        page.keyboard.press("Tab")
        page.keyboard.type(f"{spine}lb")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Finished mass")).to_have_value("")
        expect(page.get_by_label("Finished mass")).to_be_focused()
    rows = page.locator("table").first.get_by_role("row")
    expect(rows).to_have_count(7)
    expect(rows.last).to_contain_text("356 gr")
    page.keyboard.type("9000")
    page.keyboard.press("Enter")
    expect(page.locator("#problem-quiver")).to_contain_text("outside")
    expect(page.get_by_label("Finished mass")).to_have_value("9000")


def test_a_pasted_table_names_its_bad_rows_and_keeps_the_good_ones_only_when_asked(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + TIDEWAY + "/quiver")
    paste = page.get_by_label(re.compile("One arrow a row"))
    paste.fill("number;mass g;spine\n4;22,9;62lb\n5;23,0;500 lb\n6;abc;\n7;23,1;505\n")
    says = page.locator("#quiver-table-says")
    expect(says.get_by_role("table").last.get_by_role("row")).to_have_count(3)
    expect(says).to_contain_text("No shaft is 500 lb stiff")
    expect(says).to_contain_text("Nothing is recorded yet.")
    expect(page.locator("table").first.get_by_role("row")).to_have_count(4)
    page.get_by_role("button", name="Record only the 2 good arrows").click()
    expect(says).to_contain_text("2 arrows from a table recorded.")
    expect(page.locator("table").first.get_by_role("row")).to_have_count(6)
    expect(paste).to_have_value(re.compile("500 lb"))


def test_a_csv_file_is_opened_and_saved(
    demo: HereServer, open_page: Opener, tmp_path: Path
) -> None:
    page = open_page(demo.url + TIDEWAY + "/quiver")
    table = tmp_path / "dozen.csv"
    table.write_text("no,mass,spine\n10,355,505\n11,356,500\n", encoding="utf-8")
    page.get_by_label("Open a CSV file").set_input_files(table)
    page.get_by_role("button", name="Record 2 arrows").click()
    expect(page.locator("table").first.get_by_role("row")).to_have_count(6)
    with page.expect_download() as saved:
        page.get_by_role("link", name="Save as CSV").click()
    text = Path(saved.value.path()).read_text(encoding="utf-8")
    assert text.startswith("number,mass gr,spine lb")
    assert "\n11,356,63," in text


def test_a_cracked_arrow_stops_and_retiring_it_lets_go(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/quiver")
    page.get_by_role("button", name="cracked? arrow 3").click()
    expect(page.locator("main").get_by_role("alert")).to_contain_text("Arrow 3 is cracked.")
    page.get_by_role("button", name="Retire arrow 3").click()
    expect(page.locator("main").get_by_role("alert")).to_have_count(0)
    expect(page.get_by_role("row").filter(has_text="465 gr")).to_contain_text("cracked, retired")
    page.keyboard.press("Control+z")
    expect(page.locator("main").get_by_role("alert")).to_be_visible()


def test_all_are_looked_at_in_one_go(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + TIDEWAY + "/quiver")
    expect(page.locator("aside")).to_contain_text("None of the 3 numbered arrows")
    page.get_by_role("button", name="All 3 flexed, looked at, sound").click()
    expect(page.locator("aside")).not_to_contain_text("flexed and looked at yet")


@pytest.mark.parametrize("count", [3, 6])
def test_the_best_matched_are_chosen(
    shared_demo: HereServer, open_page: Opener, count: int
) -> None:
    page = open_page(shared_demo.url + MARRAM + "/quiver")
    page.get_by_role("button", name=f"{count} of 7").click()
    expect(page.get_by_text(re.compile("within .* and .* lb of spine"))).to_be_visible()
    left = page.get_by_role("table").filter(has_text="Left out")
    expect(left).to_contain_text("cracked")
    expect(left).to_contain_text("crooked, runs out 1.1 mm")
    expect(page.locator("[title=chosen]")).to_have_count(count)
