"""What a newcomer meets: words that open, findings that belong, folds that remember, metric."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.web.wire import Wire

MARRAM = "/rigs/marram-longbow"
TIDEWAY = "/rigs/tideway-recurve"
THUMB = "/rigs/sandpiper-thumb-bow"
FOLDED = "localStorage.setItem('lyrandis.folds', 'closed')"


def folded(wire: Wire, path: str, **more: object) -> Page:
    """Open a page as it is met first, with everything folded that begins folded."""
    page = wire.open("/words", **more)  # type: ignore[arg-type]
    page.evaluate(FOLDED)
    page.goto(page.url.replace("/words", path))
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    return page


def test_a_page_opens_its_own_findings_and_counts_the_others(wire: Wire) -> None:
    page = folded(wire, f"{MARRAM}/arrow/match")
    aside = page.get_by_role("complementary", name="Next step and findings")
    expect(aside.get_by_role("heading", name="On this page")).to_be_visible()
    found = wire.client.get(f"/api{MARRAM}").json()
    own = [f for f in found["findings"] if "arrow" in f["homes"] and f["severity"] == "mend"]
    shown = aside.locator("li[data-finding]")
    for finding in own:
        expect(aside.locator(f"li[data-finding='{finding['id']}']")).to_be_visible()
    assert shown.count() <= len(own) + 3
    others = aside.get_by_role("button", name=re.compile("elsewhere"))
    expect(others).to_contain_text(re.compile(r"Bow \d+"))
    page.get_by_role("heading", level=1).click()
    page.keyboard.press("f")
    page.keyboard.press("e")
    expect(others).to_have_attribute("aria-expanded", "true")
    page.keyboard.press("s")
    expect(shown.first.get_by_role("button", name="hide the sum")).to_be_visible()


def test_a_stop_of_another_page_stands_over_the_findings_of_every_page(wire: Wire) -> None:
    for path in ("nock/height", "archer", "order", "logbook"):
        page = folded(wire, f"{THUMB}/{path}")
        dangers = page.get_by_role("list", name="Dangers")
        expect(dangers).to_contain_text("Stop, on Arrow:")
        expect(dangers.get_by_role("button", name="Weigh a heavier arrow")).to_be_visible()


def test_on_a_first_evening_three_things_are_enough(wire: Wire) -> None:
    page = folded(wire, "/new")
    page.locator("#first-draw").fill("27 3/8")
    page.locator("#first-mark").fill("44")
    page.locator("#first-mass").fill("431gr")
    page.locator("#first-mass").press("Enter")
    page.get_by_role("button", name="Make it").click()
    expect(page).to_have_url(re.compile("/now$"))
    aside = page.get_by_role("complementary", name="Next step and findings")
    expect(aside).to_contain_text("wait until these stand")
    assert 1 <= aside.locator("li[data-finding]").count() <= 3


def test_a_word_of_the_trade_opens_by_key_and_by_touch(wire: Wire) -> None:
    page = folded(wire, f"{TIDEWAY}/bow/bench")
    page.get_by_role("heading", level=1).click()
    page.keyboard.press("w")
    word = page.locator("[data-term]:focus")
    expect(word).to_have_count(1)
    page.keyboard.press("Enter")
    box = page.locator("#term")
    expect(box).to_be_visible()
    page.keyboard.press("Escape")
    expect(box).to_have_count(0)
    expect(word).to_have_count(1)
    phone = folded(wire, f"{TIDEWAY}/bow/bench", width=390, height=844, has_touch=True)
    phone.locator("main [data-term]").first.tap()
    edges = phone.locator("#term").bounding_box()
    assert edges is not None
    assert edges["x"] >= 0
    assert edges["x"] + edges["width"] <= 390


def test_a_fold_opens_for_what_is_asked_inside_it_and_remembers(wire: Wire) -> None:
    page = folded(wire, f"{TIDEWAY}/archer")
    expect(page.get_by_label("Anchor")).to_be_hidden()
    page.locator("summary").filter(has_text="How you shoot").click()
    expect(page.get_by_label("Anchor")).to_be_visible()
    page.reload()
    expect(page.get_by_label("Anchor")).to_be_visible()
    page = folded(wire, f"{MARRAM}/archer")
    aside = page.get_by_role("complementary", name="Next step and findings")
    aside.get_by_role("button", name=re.compile("elsewhere")).click()
    line = aside.get_by_role("button", name=re.compile("far too stiff"))
    line.click()
    aside.get_by_role("button", name="Close the gap in spine").click()
    expect(page.get_by_text("Point 75 gr heavier")).to_be_visible()


@pytest.mark.parametrize(("old", "own"), [
    ("bow", "bow/bench"), ("arrow", "arrow/match"), ("flight", "flight/evidence"), ("", "now"),
])  # fmt: skip
def test_an_older_address_leads_to_the_tabs_own(wire: Wire, old: str, own: str) -> None:
    page = folded(wire, f"{MARRAM}/{old}".rstrip("/"))
    expect(page).to_have_url(re.compile(f"{own}$"))


INCHES = re.compile(r"\d\s?(?:in|inch|inches|gr|fps)\b(?!/)|[½¼¾⅛]|\binch(?:es)?\b|\bper inch\b")


@pytest.mark.parametrize("path", [
    "now", "archer", "bow/bench", "bow/energy", "arrow/match", "arrow/build", "string/sheet",
    "string/turns", "string/brace", "nock/height", "flight/evidence",
])  # fmt: skip
def test_a_metric_reader_meets_no_inches(wire: Wire, path: str) -> None:
    page = wire.open("/words")
    page.evaluate("localStorage.setItem('lyrandis.units', 'metric')")
    page.goto(page.url.replace("/words", f"{MARRAM}/{path}"))
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    said = page.evaluate(
        """() => [...document.querySelectorAll('main *, aside *, nav *')].flatMap((node) => [
             node.getAttribute('placeholder'), node.getAttribute('aria-label'),
             ...[...node.childNodes].filter((n) => n.nodeType === 3).map((n) => n.textContent),
           ]).filter(Boolean)"""
    )
    assert [text for text in said if INCHES.search(text)] == []
