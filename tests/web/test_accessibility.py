"""axe finds nothing, on every view, light and dark, wide and narrow."""

from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.web.conftest import AXE, HereServer, Opener

VIEWS = [
    "/",
    "/new",
    "/new/from-bow",
    "/parts",
    "/rules",
    "/words",
    "/api-reference",
    "/rigs/marram-longbow/archer",
    "/rigs/marram-longbow/bow",
    "/rigs/tideway-recurve/bow/choose",
    "/rigs/marram-longbow/bow/energy",
    "/rigs/sandpiper-thumb-bow/bow/condition",
    "/rigs/sandpiper-thumb-bow/arrow",
    "/rigs/marram-longbow/arrow/build",
    "/rigs/marram-longbow/arrow/try",
    "/rigs/marram-longbow/arrow/taper",
    "/rigs/marram-longbow/arrow/quiver",
    "/rigs/marram-longbow/string",
    "/rigs/marram-longbow/string/settling",
    "/rigs/marram-longbow/string/turns",
    "/rigs/marram-longbow/string/brace",
    "/rigs/marram-longbow/nock",
    "/rigs/tideway-recurve/nock/tiller",
    "/rigs/tideway-recurve/nock/alignment",
    "/rigs/tideway-recurve/nock/weights",
    "/rigs/marram-longbow/flight",
    "/rigs/marram-longbow/flight/record",
    "/rigs/marram-longbow/flight/correct",
    "/rigs/marram-longbow/flight/schools",
    "/rigs/marram-longbow/flight/proved",
    "/rigs/tideway-recurve/crawls",
    "/rigs/tideway-recurve/crawls/range",
    "/rigs/tideway-recurve/crawls/plan",
    "/rigs/tideway-recurve/crawls/compare",
    "/rigs/tideway-recurve/crawls/strip",
    "/rigs/tideway-recurve/crawls/field",
    "/rigs/tideway-recurve/listen",
    "/rigs/tideway-recurve/listen/what",
    "/rigs/tideway-recurve/listen/speed",
    "/rigs/tideway-recurve/listen/taps",
    "/rigs/tideway-recurve/listen/recordings",
    "/rigs/tideway-recurve/order",
    "/rigs/tideway-recurve/instruments",
    "/rigs/marram-longbow/logbook",
]


def violations(page: Page) -> list[Any]:
    # evaluated by the debugger, so the page's own policy stays strict
    if not page.evaluate("'axe' in window"):
        page.evaluate(f"{AXE.read_text(encoding='utf-8')}; undefined")
    found: list[Any] = page.evaluate(
        """async () => {
             const { violations } = await axe.run(document, {
               runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice'],
               resultTypes: ['violations'],  // what passes need not be written out
             });
             return violations.flatMap((one) =>
               one.nodes.map((node) => [one.id, node.target, node.failureSummary]));
           }"""
    )
    return found


SCROLLS = ("/rigs/tideway-recurve/crawls", "/rigs/tideway-recurve/bow/choose", "/api-reference")
"""Views with a wide table that scrolls by itself."""


def check_nothing_is_cut_off(page: Page) -> None:
    for width in (360, 390, 768, 1024, 1280, 1920):
        page.set_viewport_size({"width": width, "height": 844})
        page.evaluate("() => new Promise((done) => requestAnimationFrame(() => done()))")
        sideways = page.evaluate(
            """(page) => {
                 const main = document.querySelector('main').getBoundingClientRect().right;
                 const end = window.innerWidth < page ? window.innerWidth : main;
                 return [...document.querySelectorAll('main *')].filter((node) =>
                   node.getBoundingClientRect().right > end + 1).length
                   + Math.max(0, document.documentElement.scrollWidth - window.innerWidth);
               }""",
            1280,  # from there on nothing runs under the findings either
        )
        assert sideways == 0, f"cut off sideways at {width}"


@pytest.mark.parametrize("view", VIEWS)
def test_axe_finds_nothing_and_nothing_is_cut_off(
    shared_demo: HereServer, look: Opener, view: str
) -> None:
    """One test, for the page is loaded once."""
    page = look(shared_demo.url + view)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    assert violations(page) == [], "wide and light"
    if not view.startswith(SCROLLS):
        check_nothing_is_cut_off(page)
    page.set_viewport_size({"width": 390, "height": 844})
    page.evaluate("document.documentElement.dataset.mode = 'dark'")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    assert violations(page) == [], "on a phone, dark"


@pytest.mark.parametrize("dark", [False, True], ids=["light", "dark"])
def test_axe_finds_nothing_in_open_parts(
    shared_demo: HereServer, open_page: Opener, dark: bool
) -> None:
    page = open_page(shared_demo.url + "/rigs/tideway-recurve/bow", dark=dark)
    page.get_by_role("button", name="show the sum").first.click()
    page.get_by_label("Jot", exact=True).fill("draw 66")
    expect(page.locator("#jot-says")).to_contain_text("outside")
    page.get_by_label("Length, nock to nock").fill("27")
    expect(page.locator("#problem-bow")).to_be_visible()
    assert violations(page) == []
    page.get_by_role("button", name="Form").click()
    page.get_by_label("What is it about?").fill("tiller")
    page.get_by_role("button", name="tiller upper and lower gap").click()
    expect(page.get_by_role("textbox", name="upper gap")).to_be_visible()
    assert violations(page) == []
    page.get_by_role("button", name="Keys and words").click()
    expect(page.get_by_role("dialog")).to_contain_text("The jot line")
    assert violations(page) == []
    page.get_by_role("dialog").get_by_role("button", name="Close").click()
    page.get_by_role("button", name="change parts").first.click()
    expect(page.get_by_role("dialog").get_by_label("Bow", exact=True)).to_be_visible()
    assert violations(page) == []
