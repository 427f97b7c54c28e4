"""Three people and their afternoons: a beginner on a phone, a keyboard, a club's loan bows."""

import re

from playwright.sync_api import Page, expect

from tests.web.conftest import text_of
from tests.web.wire import Wire

MARRAM = "/rigs/marram-longbow"
TIDEWAY = "/rigs/tideway-recurve"


def opened(wire: Wire, path: str, **more: object) -> Page:
    page = wire.open(path, **more)  # type: ignore[arg-type]
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    return page


def test_a_beginner_with_a_borrowed_bow_learns_whether_she_may_shoot(wire: Wire) -> None:
    page = opened(wire, "/new", width=390, height=844)
    page.locator("#first-draw").fill("26")
    page.locator("#first-mark").fill("24")
    page.locator("#first-length").fill("5 ft 4")
    page.locator("#first-spine").fill("700")
    page.get_by_role("button", name="Make my bench").click()
    page.get_by_role("button", name="Make it").click()
    expect(page.locator("main")).to_contain_text("Not yet: the bow is not looked over")
    page.get_by_role("button", name="Begin the look-over").first.click()
    expect(page).to_have_url(re.compile("/bow/condition"))
    page.get_by_role("button", name="The rest is good").click()
    page.get_by_role("button", name=re.compile("^Record 9")).click()
    expect(page.locator("main")).to_contain_text("Nothing known against it.")
    expect(page.locator("main")).to_contain_text(
        re.compile(r"Not checked:\s+your draw,\s+which hand draws,\s+the bow's weight")
    )
    # nothing is cut off, and the jot line covers no field
    page.get_by_role("link", name="Bow", exact=False).first.click()
    last = page.get_by_label("Weight you wish to hold")
    last.focus()
    field, line = last.bounding_box(), page.locator(".jot").bounding_box()
    assert field is not None
    assert line is not None
    assert field["y"] + field["height"] <= line["y"] + 1
    assert (
        page.evaluate("() => getComputedStyle(document.querySelector('#jot')).fontSize") == "16px"
    )


def test_a_longbow_shooter_does_everything_by_keyboard(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    page.keyboard.press("Tab")
    expect(page.get_by_role("link", name="Skip to the work")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("#work")).to_be_focused()
    page.keyboard.press("2")
    expect(page.get_by_role("heading", name="Bow", exact=True)).to_be_focused()
    page.keyboard.press("j")
    page.keyboard.type("my brace height is 7 and a half")
    expect(page.locator("#jot-says")).to_contain_text("from “brace height”, “7 and a half”")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text(re.compile(r"Recorded: Brace height 7\s1/2"))
    expect(page.get_by_label("Jot", exact=True)).to_be_focused()
    page.keyboard.type("44 lb at 28")
    says = page.locator("#jot-says")
    expect(says.get_by_role("button", name="scale 44 lb at 28?")).to_be_visible()
    expect(says.get_by_role("button", name="mark 44 lb at 28?")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("?")
    page.get_by_label("single keys work outside of fields").uncheck()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()
    page.get_by_role("heading", level=1).click()
    page.keyboard.press("1")
    expect(page).to_have_url(re.compile("/bow/bench$"))


def test_a_club_officer_works_in_two_windows_over_a_network_that_goes(wire: Wire) -> None:
    one, two = opened(wire, TIDEWAY + "/arrow/quiver"), opened(wire, TIDEWAY + "/bow")
    wire.down = True
    for mass in ("340", "341"):
        one.get_by_label("Finished mass").fill(mass)
        one.get_by_label("Finished mass").press("Enter")
    expect(one.locator("main")).to_contain_text("Kept, and sent when it does: Arrow 4; Arrow 5")
    one.get_by_role("navigation").get_by_role("link", name="Arrow").focus()
    wire.down = False
    two.get_by_label("Jot", exact=True).fill("brace 8")
    two.get_by_label("Jot", exact=True).press("Enter")
    expect(two.locator("#jot-says")).to_contain_text("Recorded:")
    rows = one.get_by_role("table").first.get_by_role("row")
    expect(rows).to_have_count(6, timeout=8000)
    entries = wire.client.get("/api/rigs/tideway-recurve/entries").json()["entries"]
    numbered = [
        e["reading"]["arrow_number"]
        for e in entries
        if e["reading"]["kind"] == "arrow_mass" and e["subject"]["id"] == "carbon-set-a"
    ]
    assert sorted(numbered)[-2:] == [4, 5]


# what everybody meets


def test_only_the_work_scrolls_on_a_desk(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    for path in ("Bow", "Arrow", "Logbook"):
        page.get_by_role("navigation").get_by_role("link", name=path).click()
        expect(page.get_by_role("heading", name=path, exact=True)).to_be_visible()
        tall = page.evaluate("() => document.documentElement.scrollHeight - window.innerHeight")
        assert tall <= 0, path


def test_nothing_is_cut_off_on_the_smallest_phone(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/arrow/quiver", width=320, height=640)
    for path in ("Bow", "Arrow", "Logbook"):
        page.get_by_role("navigation").get_by_role("link", name=path).click()
        expect(page.get_by_role("heading", name=path, exact=True)).to_be_visible()
        sideways = page.evaluate(
            """() => [...document.querySelectorAll('main *')].filter((node) =>
                 node.getBoundingClientRect().right > window.innerWidth + 1 &&
                 !node.closest('.scroll')).length
                 + Math.max(0, document.documentElement.scrollWidth - window.innerWidth)"""
        )
        assert sideways == 0, path
    expect(page.locator(".jot").get_by_role("button", name="for another day")).to_be_visible()


def test_the_findings_are_one_touch_away_on_a_phone(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/bow", width=390, height=844)
    page.get_by_role("button", name=re.compile("findings to look at")).click()
    expect(page.get_by_role("heading", name="On this page")).to_be_in_viewport()


def test_each_thing_is_said_once(wire: Wire) -> None:
    page = opened(wire, "/rigs/sandpiper-thumb-bow/bow")
    found = wire.client.get("/api/rigs/sandpiper-thumb-bow").json()
    stop = next(one for one in found["findings"] if one["severity"] == "stop")
    words = stop["sentence"]["template"].split("{")[0].strip()
    read = text_of(page, ".frame")
    assert read.count(words) == 1
    # the card says what to do, the notice what it is, the line over the page why
    assert read.count(stop["title"]) == 1


def test_a_metric_reader_reads_and_types_metric(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/bow")
    page.keyboard.press("u")
    page.keyboard.press("u")
    field = page.get_by_label("Brace height now")
    field.fill("70")
    expect(page.locator("#problem-brace")).to_contain_text("70.0 cm is outside")
    expect(page.locator("#problem-brace")).not_to_contain_text(re.compile(r"\bin\b"))
    field.fill("19")
    field.press("Enter")
    expect(field).to_have_attribute("placeholder", re.compile(r"19\.0\scm"))
