"""Crawls in the real browser: the table, the chart's handle, marks, what does not fit, units."""

import re

import pypdfium2 as pdfium
import pytest
from playwright.sync_api import Page, expect

from tests.web.conftest import HereServer, Opener

CRAWLS = "/rigs/tideway-recurve/crawls"


def row(page: Page, at: str) -> str:
    found = page.get_by_role("row").filter(has=page.get_by_role("rowheader", name=at, exact=True))
    return found.first.inner_text().replace("\t", " ").replace("\n", " ")


def record(page: Page, distance: str, crawl: str, off: str = "") -> None:
    page.get_by_label("Distance", exact=True).fill(distance)
    page.get_by_label("Crawl", exact=True).fill(crawl)
    page.get_by_label("It struck").fill(off)
    page.get_by_role("button", name="Record", exact=True).click()


def test_the_table_names_what_does_not_fit_and_a_tap_counts_it(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + CRAWLS)
    expect(page.get_by_text("5 crawls count, one does not fit")).to_be_visible()
    before = row(page, "30 m")
    expect(page.get_by_role("cell", name="7.4 mm deeper")).to_be_visible()
    page.get_by_role("button", name="count it").click()
    expect(page.get_by_text("6 crawls count, one does not fit")).to_be_visible()
    assert row(page, "30 m") != before
    page.get_by_role("button", name="leave it out").click()
    expect(page.get_by_text("5 crawls count; 3 more with other parts.")).to_be_visible()
    expect(page.get_by_text("left out by you")).to_be_visible()
    assert row(page, "30 m") == before


def test_a_crawl_is_recorded_in_the_archers_own_notation_and_narrows_the_table(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + CRAWLS)
    expect(page.get_by_label("Crawl", exact=True)).to_have_attribute("placeholder", "e.g. 11")
    record(page, "35", "1/2")
    expect(page.get_by_text("6 crawls count, one does not fit")).to_be_visible()
    expect(page.get_by_role("cell", name="0.5 stitches", exact=True)).to_be_visible()
    expect(page.get_by_label("Distance", exact=True)).to_be_focused()
    record(page, "10m", "40mm", "8cm high")
    high = page.get_by_role("cell", name=re.compile(r"^40.0 mm: .* high"))
    expect(high.first).to_be_visible()


def test_a_bad_crawl_is_refused_beside_its_field_and_kept(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + CRAWLS)
    record(page, "500m", "34mm")
    expect(page.locator("#problem-crawl")).to_contain_text("no distance for a crawl")
    expect(page.get_by_label("Distance", exact=True)).to_have_value("500m")
    record(page, "20m", "340mm")
    expect(page.locator("#problem-crawl")).to_contain_text("outside what a crawl can be")
    expect(page.get_by_label("Crawl", exact=True)).to_have_value("340mm")


def test_the_handle_asks_the_table_by_keys(shared_demo: HereServer, look: Opener) -> None:
    page = look(shared_demo.url + CRAWLS)
    handle = page.get_by_role("slider", name="Distance to ask the table")
    expect(handle).to_have_attribute("aria-valuetext", re.compile(r"^20 m: 2\d ± \d mm$"))
    handle.focus()
    page.keyboard.press("ArrowRight")
    expect(handle).to_have_attribute("aria-valuenow", "21")
    page.keyboard.press("Shift+ArrowRight")
    expect(handle).to_have_attribute("aria-valuenow", "26")
    page.keyboard.press("Home")
    expect(handle).to_have_attribute("aria-valuenow", "4")
    page.keyboard.press("Escape")
    expect(handle).to_have_attribute("aria-valuenow", "20")


def test_one_tap_turns_the_set_into_yards_and_taking_it_back_is_exact(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + CRAWLS)
    before = row(page, "20 m")
    page.get_by_role("button", name="these were all yards").click()
    expect(page.get_by_role("rowheader", name="28 yd", exact=True)).to_be_visible()
    expect(page.get_by_role("button", name="these were all metres")).to_be_visible()
    page.get_by_role("button", name="these were all metres").click()
    expect(page.get_by_role("rowheader", name="28 m", exact=True)).to_be_visible()
    assert row(page, "20 m") == before


def test_a_rig_nobody_walks_has_no_crawls_until_one_is_shot(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + "/rigs/marram-longbow/crawls")
    expect(page.get_by_text("Nobody walks the string of this rig yet.")).to_be_visible()
    expect(page.locator("nav li").filter(has_text="Crawls")).to_have_count(0)
    record(page, "20", "30")
    expect(page.locator("nav li").filter(has_text="Crawls")).to_be_visible()
    expect(page.get_by_text("1 crawl counts")).to_be_visible()
    expect(page.get_by_role("rowheader", name="20 m", exact=True).first).to_be_visible()


def test_a_wrong_guess_is_shown_both_ways_and_the_circle_moves_by_keys(
    shared_demo: HereServer, look: Opener
) -> None:
    page = look(shared_demo.url + CRAWLS + "/range")
    expect(page.get_by_text("where you aim")).to_be_visible()
    nearer, further = (
        page.get_by_role("row").filter(has_text=f"5 m {way}, cm") for way in ("nearer", "further")
    )
    high, low = (
        [int(cell) for cell in one.get_by_role("cell").all_inner_texts()]
        for one in (nearer, further)
    )
    assert all(b > a for a, b in zip(high, low, strict=True)), "the further side costs more"
    circle = page.get_by_role("slider", name="Circle, half across")
    expect(page.get_by_text("inside a circle 30 cm across to")).to_be_visible()
    circle.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_text("inside a circle 40 cm across to")).to_be_visible()
    guess = page.get_by_label("Your guess of the distance is wrong by")
    guess.focus()
    page.keyboard.press("Home")
    expect(page.get_by_role("row").filter(has_text="1 m further, cm low")).to_be_visible()


def test_slopes_ask_for_more_crawl_up_and_down(shared_demo: HereServer, look: Opener) -> None:
    page = look(shared_demo.url + CRAWLS + "/range")
    at30 = page.get_by_role("row").filter(has_text="30° down").inner_text()
    page.get_by_role("combobox").select_option("50")
    expect(page.get_by_role("row").filter(has_text="30° down")).not_to_have_text(at30)
    for way in ("30° up", "20° up", "30° down"):
        assert "mm" in page.get_by_role("row").filter(has_text=way).inner_text()


def test_anchors_and_arrows_stand_side_by_side_and_a_wish_says_what_it_needs(
    shared_demo: HereServer, look: Opener
) -> None:
    page = look(shared_demo.url + CRAWLS + "/plan")
    ons = [
        int(re.search(r"(\d+) m\b", row(page, name)).group(1))  # type: ignore[union-attr]
        for name in ("Cheekbone, now", "Corner of the mouth", "Under the chin")
    ]
    assert ons == sorted(ons)
    assert ons[0] == 36
    before = page.get_by_text("over yours").inner_text()
    page.get_by_role("slider", name="Point-on at").fill("40")
    expect(page.get_by_text("Point-on at 40 m needs one of these")).to_be_visible()
    expect(page.get_by_text(before)).to_have_count(0)
    expect(page.get_by_text("over yours")).to_be_visible()


def test_the_strip_stands_on_the_page_and_on_paper_at_true_size(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + CRAWLS + "/strip")
    strip = page.get_by_alt_text("Every crawl down the string, at true size")
    expect(strip).to_be_visible()
    page.wait_for_function("() => [...document.images].every((one) => one.naturalWidth > 0)")
    size = strip.evaluate("(image) => [image.width, image.height]")
    assert size[0] == 240, "63.5 mm"
    page.emulate_media(media="print")
    printed = strip.evaluate("(image) => image.getBoundingClientRect().width")
    assert printed == 240
    expect(page.get_by_role("heading", name="Crawls", exact=True)).not_to_be_visible()
    with pdfium.PdfDocument(page.pdf(format="A4")) as paper:
        assert len(paper) == 1
        level = [
            (right - left) * 25.4 / 72 - 0.5  # without the pen's breadth at both ends
            for one in paper[0].get_objects(max_depth=8)
            if one.type == pdfium.raw.FPDF_PAGEOBJ_PATH
            for left, bottom, right, top in [one.get_bounds()]
            if (top - bottom) * 25.4 / 72 < 0.6
        ]
    assert max(level) == pytest.approx(50.0, abs=0.03), "printed by the browser, measured again"


def test_tables_stand_side_by_side_and_one_tap_shoots_another(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + CRAWLS + "/compare")
    old = page.get_by_role("row").filter(has_text="Aluminium, set B")
    expect(page.get_by_role("row").filter(has_text="Carbon, set A")).to_contain_text("stands now")
    expect(old).to_contain_text("in doubt: brace")
    expect(old).to_contain_text("−4")
    old.get_by_role("button", name="Shoot this one").click()
    expect(old).to_contain_text("stands now")
    expect(page.get_by_label("Fitted now").first).to_contain_text("Aluminium, set B")
    page.keyboard.press("Control+z")
    expect(page.get_by_role("row").filter(has_text="Carbon, set A")).to_contain_text("stands now")


def test_the_plan_says_which_nock_and_how_deep(shared_demo: HereServer, look: Opener) -> None:
    page = look(shared_demo.url + CRAWLS + "/plan")
    expect(page.get_by_text("Set for a crawl of 24 mm: begin at a lift of")).to_be_visible()
    expect(page.get_by_text("One nock is enough")).to_be_visible()
    expect(page.get_by_text("The table's deepest crawl is 45 mm.")).to_be_visible()


def test_the_energy_page_says_what_the_crawls_say_of_the_speed(
    shared_demo: HereServer, look: Opener
) -> None:
    page = look(shared_demo.url + "/rigs/tideway-recurve/bow/energy")
    expect(page.get_by_role("heading", name="What the crawls say")).to_be_visible()
    said = page.get_by_text("5 crawls alone").locator("xpath=following-sibling::dd[1]")
    expect(said).to_have_text(re.compile(r"\d+\s±\s\d+\sfps"))
    expect(page.get_by_text("Together, with 3 of other arrows")).to_be_visible()


def test_how_sure_and_how_far_are_chosen_and_recorded(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + CRAWLS)
    page.get_by_role("button", name="about", exact=True).click()
    page.get_by_role("button", name="guessed", exact=True).click()
    record(page, "33m", "4mm")
    seen = page.get_by_role("row").filter(has_text="33 m").filter(has_text="4.0 mm")
    expect(seen).to_contain_text("about")
    expect(page.get_by_role("button", name="guessed", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )


def test_what_rounding_costs_stands_beside_each_notation(
    shared_demo: HereServer, look: Opener
) -> None:
    page = look(shared_demo.url + CRAWLS + "/strip")
    costs = page.get_by_role("table").get_by_role("row").filter(has_text="20 m")
    expect(costs).to_contain_text(re.compile(r"one and a quarter fingers.*\d+ cm (high|low)"))
    expect(page.get_by_role("link", name="Save as PDF")).to_have_attribute(
        "href", re.compile("crawl-strip.pdf")
    )


def test_hand_tab_and_table_are_told_where_they_are_used(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + CRAWLS)
    page.get_by_label("A finger, across the tab").fill("three 60mm")
    page.keyboard.press("Enter")
    expect(page.get_by_label("A finger, across the tab")).to_have_attribute(
        "placeholder", re.compile("20.0")
    )
    expect(page.get_by_text("A finger is taken as")).to_have_count(0)
    page.get_by_label("Table, from, to and every").fill("10m to 30m every 10m")
    page.keyboard.press("Enter")
    expect(page.get_by_role("rowheader", name="35 m", exact=True)).to_have_count(0)
    assert "38" in row(page, "10 m")
    page.get_by_label("Table, from, to and every").fill("30 to nowhere")
    expect(page.locator("#problem-crawltable")).to_be_visible()
    expect(page.get_by_label("Table, from, to and every")).to_have_value("30 to nowhere")
