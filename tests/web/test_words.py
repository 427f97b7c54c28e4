"""The jot line asks and is taught, and every word has a form, in a real browser."""

import re

from playwright.sync_api import Page, expect

from tests.web.conftest import HereServer, Opener

STRING = "/rigs/tideway-recurve/string"
NOCK = "/rigs/tideway-recurve/nock"


def jot(page: Page, line: str) -> None:
    page.locator("#jot").fill(line)


def says(page: Page, words: str) -> None:
    expect(page.locator("#jot-says")).to_contain_text(words)


def test_a_line_that_lacks_a_datum_is_answered_by_one_key(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + NOCK)
    jot(page, "nock height 6mm")
    says(page, "A nock height is read in three ways")
    says(page, "↓ answers")
    page.keyboard.press("ArrowDown")
    expect(page.locator("#jot")).to_have_value("lift 6mm")
    says(page, "Nock height 6.0 mm")
    page.keyboard.press("ArrowDown")
    expect(page.locator("#jot")).to_have_value("locator 6mm over")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowUp")
    expect(page.locator("#jot")).to_have_value("nock height 6mm")
    says(page, "A nock height is read in three ways")
    page.keyboard.press("ArrowDown")
    says(page, "Nock height 6.0 mm")
    page.keyboard.press("Enter")
    says(page, "Recorded")


def test_a_refused_line_is_taught_and_understood_the_second_time(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + STRING)
    jot(page, "fizzle 17")
    says(page, "“fizzle” is not a word the jot line knows.")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="What did you mean?").click()
    expect(page.get_by_role("heading", name="What did you mean by “fizzle 17”?")).to_be_visible()
    page.get_by_label("What is it about?").fill("handle")
    page.get_by_role("button", name="riser riser length").click()
    expect(page.get_by_role("textbox", name="riser length")).to_have_value("17")
    page.get_by_role("button", name="Record and remember").click()
    expect(page.get_by_text("“fizzle” is understood from now on")).to_be_visible()
    says(page, "Recorded: Riser 17 in")
    jot(page, "my fizzle is 19")
    says(page, "Riser 19 in")
    page.goto(demo.url + "/words")
    own = page.get_by_role("region", name="This bench's own words")
    expect(own).to_contain_text("“fizzle”")
    own.get_by_role("button", name="take away fizzle").click()
    expect(own).to_contain_text("None yet")
    page.goto(demo.url + STRING)
    jot(page, "my fizzle is 19")
    says(page, "“fizzle”")


def test_what_was_refused_is_kept_here_switched_off_and_wiped(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + STRING)
    jot(page, "wobble 3")
    says(page, "“wobble” is not a word")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="What did you mean?")).to_be_visible()
    page.goto(demo.url + "/words")
    own = page.get_by_role("region", name="This bench's own words")
    expect(own).to_contain_text("wobble 3")
    own.get_by_role("button", name="Wipe them all").click()
    own.get_by_role("button", name="Wipe all 1, for good").click()
    expect(own).to_contain_text("None is kept.")
    own.get_by_role("checkbox").uncheck()
    page.goto(demo.url + STRING)
    jot(page, "wobble 3")
    says(page, "“wobble” is not a word")
    page.keyboard.press("Enter")
    page.goto(demo.url + "/words")
    expect(page.get_by_role("region", name="This bench's own words")).to_contain_text(
        "None is kept."
    )


def test_any_reading_is_filled_in_by_its_form_with_a_thumb(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + NOCK, width=390, height=844)
    page.get_by_role("button", name="Form").click()
    page.get_by_label("What is it about?").fill("tiller")
    page.get_by_role("button", name=re.compile("^tiller upper and lower gap")).click()
    page.get_by_role("textbox", name="upper gap").fill("181mm")
    page.get_by_role("textbox", name="lower gap").fill("177mm")
    form = page.get_by_role("form", name=re.compile("^upper and lower gap"))
    expect(form.get_by_role("button", name="Record")).to_be_disabled()
    page.get_by_role("combobox", name="place").select_option("fade")
    expect(form).to_contain_text("upper 181.0 mm, lower 177.0 mm")
    form.get_by_role("button", name="Record").click()
    says(page, "Recorded: Tiller gaps")


def test_a_change_shows_what_it_makes_of_the_whole(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + "/rigs/tideway-recurve/arrow")
    jot(page, "point 25gr heavier")
    says(page, "Point 25 gr heavier")
    says(page, "+ 25 gr =")


def test_of_several_readings_one_is_recorded_and_the_rest_stays(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + "/rigs/tideway-recurve/archer")
    jot(page, "draw 27 1/2, hold split, hook 1/2")
    says(page, "That is 3 readings.")
    page.keyboard.press("ArrowDown")
    says(page, "Draw 27 1/2 in")
    page.keyboard.press("Enter")
    expect(page.locator("#jot")).to_have_value("hold split, hook 1/2")
    says(page, "That is 2 readings.")
    page.get_by_role("button", name="hook 1/2?").click()
    says(page, "Hook 1/2 in")
    page.keyboard.press("Enter")
    expect(page.locator("#jot")).to_have_value("hold split")


def test_the_empty_line_shows_what_this_rig_lacks_in_the_readers_units(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + "/rigs/tideway-recurve/bow")
    line = page.locator("#jot")
    line.focus()
    expect(line).to_have_attribute("placeholder", re.compile(r"^e\.g\. .*limbs \d+ \d+"))
    page.keyboard.press("Escape")
    page.keyboard.press("u")
    line.focus()
    expect(line).to_have_attribute("placeholder", re.compile(r"^e\.g\. scale .* at [\d.]+cm"))


def test_the_words_are_found_by_what_people_call_them(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + "/words")
    page.get_by_label("Search the words").fill("fistmele")
    expect(page.locator("main")).to_contain_text("brace 7 5/8 grip")
    expect(page.locator("main")).not_to_contain_text("riser 17")
    page.get_by_label("Search the words").fill("gobbledygook")
    expect(page.locator("main")).to_contain_text("No word of the table is called “gobbledygook”")
