"""The flight in the real browser: seeing, weighing, trying, putting right."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.web.conftest import HereServer, Opener, text_of
from tests.web.wire import Wire, until

FLIGHT = "/rigs/marram-longbow/flight"
THUMB = "/rigs/sandpiper-thumb-bow/flight"


def seen(page: Page) -> list[str]:
    """What was seen, newest first, once the page stands."""
    expect(page.get_by_role("heading", name="Seen with these parts")).to_be_visible()
    return page.get_by_role("region", name="Seen with these parts").locator("li").all_inner_texts()


def reckoned(page: Page) -> None:
    expect(page.get_by_role("heading", name="The shaft")).to_be_visible()


def jot(page: Page, line: str) -> None:
    page.get_by_label("Jot", exact=True).fill(line)
    page.get_by_label("Jot", exact=True).press("Enter")
    expect(page.get_by_label("Jot", exact=True)).to_have_value("")


# recording


def test_the_nock_is_dragged_to_where_it_points_and_letting_go_records(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    before = len(seen(page))
    nock = page.get_by_role("slider", name="The nock, left and right")
    box = nock.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 96, y - 22, steps=5)
    expect(page.get_by_text("let go to record")).to_be_visible()
    page.mouse.up()
    expect(page.get_by_role("region", name="Seen with these parts").locator("li")).to_have_count(
        before + 1
    )
    assert re.search(r"Tail \d+ mm right and \d+ mm high: 3 arrows at 2.5 m", seen(page)[0])
    page.keyboard.press("Control+z")
    expect(page.get_by_role("region", name="Seen with these parts").locator("li")).to_have_count(
        before
    )


def test_the_dial_works_by_keyboard_and_by_a_tap(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    nock = page.get_by_role("slider", name="The nock, left and right")
    nock.focus()
    for _ in range(4):
        page.keyboard.press("Shift+ArrowLeft")
    page.keyboard.press("ArrowLeft")
    expect(nock).to_have_attribute("aria-valuetext", re.compile("41 ± .* left, level"))
    page.keyboard.press("Escape")
    expect(nock).to_have_attribute("aria-valuetext", re.compile("straight"))
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile("Tail 10 mm right and level")).first).to_be_visible()
    page.get_by_role("button", name="strong left").click()
    expect(page.get_by_text("Tail strongly left: 3 arrows at 2.5 m").first).to_be_visible()


def test_a_reading_without_its_distance_is_kept_and_asked_for(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    distance = page.get_by_role("region", name="Tail").get_by_label("Distance")
    distance.fill("500 m")
    page.get_by_role("button", name="clear right").click()
    expect(page.get_by_text("500 m is no distance to shoot from.").first).to_be_visible()
    expect(page.get_by_text("Kept: tail right 2.")).to_be_visible()
    distance.fill("3 paces")
    # what is kept stays offered once the distance reads well
    expect(page.get_by_text("500 m is no distance to shoot from.")).to_have_count(0)
    page.get_by_role("button", name="Record it now").click()
    expect(page.get_by_text("Tail clearly right: 3 arrows at 2.3 m").first).to_be_visible()
    distance.fill("9 m")
    expect(page.get_by_text("a healthy tail swings over")).to_be_visible()


def test_hits_are_put_on_the_butt_moved_and_recorded_together(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    face = page.get_by_role("application")
    face.scroll_into_view_if_needed()
    box = face.bounding_box()
    assert box is not None
    for dx, dy in ((0.5, 0.45), (0.55, 0.5), (0.45, 0.5)):
        page.mouse.click(box["x"] + dx * box["width"], box["y"] + dy * box["height"])
    page.get_by_label("Next hit is arrow").fill("12")
    page.mouse.click(box["x"] + 0.5 * box["width"], box["y"] + 0.4 * box["height"])
    expect(face.get_by_text("12", exact=True)).to_be_visible()
    page.keyboard.press("Backspace")
    page.get_by_role("region", name="Hits").get_by_role("button", name="bare").click()
    page.mouse.click(box["x"] + 0.25 * box["width"], box["y"] + 0.5 * box["height"])
    expect(page.get_by_text(re.compile("Bare .* left"))).to_be_visible()
    page.reload()
    expect(page.get_by_role("button", name="Record 4 hits")).to_be_visible()
    face = page.get_by_role("application")
    face.focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Backspace")
    page.get_by_role("button", name="Record 4 hits").click()
    expect(
        page.get_by_text(re.compile(r"1 bare and 3 fletched at 18 m: bare .* left")).first
    ).to_be_visible()
    expect(page.get_by_role("button", name="Record 4 hits")).to_have_count(0)


def test_hits_without_a_distance_are_kept(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    page.get_by_role("application").focus()
    page.keyboard.press("Enter")
    page.get_by_role("region", name="Hits").get_by_label("Distance").fill("")
    page.get_by_role("button", name="Record 1 hit").click()
    expect(page.get_by_text("The distance is missing, or its unit.").first).to_be_visible()
    expect(page.get_by_role("button", name="Record 1 hit")).to_be_visible()


def test_a_sign_is_one_tap_and_a_column_is_kept(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    page.get_by_role("button", name="mark", exact=True).click()
    expect(page.get_by_text("Mark on the side plate after 6 shots").first).to_be_visible()
    page.get_by_role("button", name="rubbed").click()
    expect(page.get_by_text("Feathers rubbed at the base").first).to_be_visible()
    page.get_by_role("button", name="Start a column").click()
    page.get_by_label("Each distance, and where it struck").fill("10m 0, 20m 2cm left")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Walk-back from 10 m to 20 m").first).to_be_visible()


def test_the_record_page_never_says_what_it_means(shared_demo: HereServer, look: Opener) -> None:
    page = look(shared_demo.url + FLIGHT + "/record")
    expect(page.get_by_role("heading", name="Seen with these parts")).to_be_visible()
    said = text_of(page, "#work").lower()
    assert not re.search(r"\b(weak|stiff)\b", said)


# evidence


def test_the_evidence_is_a_sentence_bars_and_what_each_reading_says(
    shared_demo: HereServer, look: Opener
) -> None:
    page = look(shared_demo.url + FLIGHT)
    reckoned(page)
    said = text_of(page)
    assert "Too stiff, probably: 89 %" in said
    assert "Its tail may strike as well, 40 %: weaker shafts are the cure either way." in said
    rows = page.get_by_role("region", name="The evening, row by row").locator("tbody tr")
    expect(rows).to_have_count(5)
    tail = " ".join(rows.nth(3).inner_text().split())
    assert "false weak: for" in tail
    assert re.search(r"\d\d:\d\d Tail 28 mm right: 3 arrows at 2.5 m", tail)
    expect(page.get_by_text("Or prove it first:")).to_be_visible()


def test_a_reading_is_taken_back_from_the_evidence(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + FLIGHT)
    reckoned(page)
    rows = page.get_by_role("region", name="The evening, row by row").locator("tbody tr")
    page.get_by_role("button", name="take back No mark on the side plate").click()
    expect(rows).to_have_count(4)
    page.get_by_role("button", name="take back Tail 28 mm right").click()
    expect(page.get_by_text("No shot seen yet").first).to_be_visible()
    expect(page.get_by_text("By the match your shafts are far too stiff")).to_be_visible()


def test_a_trial_is_begun_read_and_put_back(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + FLIGHT)
    reckoned(page)
    page.get_by_role("button", name=re.compile(r"Drawn .* extra")).click()
    expect(page.get_by_text("What you see is recorded with it.").first).to_be_visible()
    page.get_by_role("button", name="strong right").click()
    expect(
        page.get_by_text(re.compile(r"Tail strongly right.*drawn .* extra")).first
    ).to_be_visible()
    expect(page.get_by_role("heading", name="Back to your anchor")).to_be_visible()
    expect(page.get_by_text("Now put it back:")).to_be_visible()
    page.get_by_role("button", name="It is put back").click()
    expect(page.get_by_text("What you see is recorded with it.")).to_have_count(0)


def test_any_change_can_be_a_trial(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    page.get_by_label("Change something for a trial").fill("brace 1/4 down")
    page.keyboard.press("Enter")
    expect(page.get_by_text("What you see is recorded with it.").first).to_be_visible()
    assert "Brace 1/4 in lower. Then shoot three fletched arrows." in text_of(page)


def test_a_correction_is_offered_tried_and_compared(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + FLIGHT + "/correct")
    for line in ("tail right 2 @ 2.5m", "wear plate"):
        jot(page, line)
    expect(
        page.get_by_text(re.compile("(False weak|Too stiff), (probably|nearly certain)"))
    ).to_be_visible()
    assert "the tail at 2.3 m should stand" in text_of(page)
    page.get_by_role("button", name=re.compile("Try three")).click()
    expect(page.get_by_text(re.compile("Borrow three shafts of"))).to_be_visible()


def test_schools_stand_side_by_side_and_its_own_judgement_is_shown(
    shared_demo: HereServer, look: Opener
) -> None:
    page = look(shared_demo.url + FLIGHT + "/schools")
    for name in ("Close range, by the tail", "Bare shafts", "Walk-back", "Do not bare-shaft wood"):
        expect(page.get_by_role("heading", name=name)).to_be_visible()
    page.get_by_role("link", name="How good?").click()
    expect(page.get_by_text(re.compile(r"Of what is said, \d+ ± \d+.% is so"))).to_be_visible()
    expect(page.get_by_role("cell", name="believe the first tail")).to_be_visible()
    expect(
        page.get_by_role("cell", name=re.compile("^ordinary rigs, another world"))
    ).to_be_visible()
    page.get_by_text("Worlds that are not as assumed").click()
    expect(page.get_by_role("cell", name="noise x 2")).to_be_visible()


def test_the_thumb_bows_words_are_mirrored(shared_demo: HereServer, look: Opener) -> None:
    page = look(shared_demo.url + THUMB)
    expect(page.get_by_text("a weak shaft's tail points right")).to_be_visible()


@pytest.mark.parametrize("width", [1280, 390])
def test_a_rig_that_is_reckoned_comes_by_itself(
    demo: HereServer, open_page: Opener, width: int
) -> None:
    """On any page: what waits for the rig's curves is shown once they are there."""
    page = open_page(demo.url + "/rigs/marram-longbow/archer", width=width)
    expect(page.locator("nav a[href$='/flight/evidence']").first).to_contain_text("too stiff")
    page.goto(demo.url + FLIGHT)
    reckoned(page)


def test_a_reading_held_back_on_the_wire_is_recorded_once(wire: Wire) -> None:
    page = wire.open(FLIGHT + "/record")
    before = len(seen(page))
    held = wire.hold("POST", "/api/entries")
    page.get_by_role("button", name="strong left").click()
    page.get_by_role("button", name="straight", exact=True).click()
    until(page, lambda: len(held) == 1)
    assert len(seen(page)) == before
    wire.let_go(held)
    expect(page.get_by_role("region", name="Seen with these parts").locator("li")).to_have_count(
        before + 2
    )


# by touch


def swipe(page: Page, start: tuple[float, float], end: tuple[float, float]) -> None:
    """Draw a finger over the page, as Chromium gets it from a phone."""
    session = page.context.new_cdp_session(page)

    def touch(kind: str, *points: tuple[float, float]) -> None:
        session.send(
            "Input.dispatchTouchEvent",
            {"type": kind, "touchPoints": [{"x": x, "y": y} for x, y in points]},
        )

    touch("touchStart", start)
    for share in (0.2, 0.4, 0.6, 0.8, 1.0):
        at = tuple(a + share * (b - a) for a, b in zip(start, end, strict=True))
        touch("touchMove", at)  # type: ignore[arg-type]
        page.wait_for_timeout(20)
    touch("touchEnd")
    session.detach()


def phone(wire: Wire) -> Page:
    page = wire.open(FLIGHT + "/record", width=390, height=844, has_touch=True)
    expect(page.get_by_role("slider", name="The nock, left and right")).to_be_visible()
    return page


def test_a_swipe_over_the_dial_records_nothing_and_only_its_nock_is_grabbed(wire: Wire) -> None:
    """Seven swipes once stored seven false readings."""
    page = phone(wire)
    before = len(seen(page))
    nock = page.get_by_role("slider", name="The nock, left and right")
    nock.scroll_into_view_if_needed()
    box = nock.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    for side in (-110, 110):
        swipe(page, (x + side, y + 40), (x + side, y - 60))
    page.wait_for_timeout(300)
    assert len(seen(page)) == before
    expect(page.get_by_role("button", name=re.compile("^Record .*(left|right)"))).to_have_count(0)
    box = nock.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    swipe(page, (x + 12, y + 12), (x + 80, y + 12))
    record = page.get_by_role("button", name=re.compile("^Record .* right"))
    expect(record).to_be_visible()
    assert len(seen(page)) == before, "letting go by touch records nothing"
    page.wait_for_timeout(500)  # a tap while the page still glides only stops it
    record.tap()
    rows = page.get_by_role("region", name="Seen with these parts").locator("li")
    expect(rows).to_have_count(before + 1)
    expect(record).to_have_count(0)


def test_arrows_side_by_side_stay_apart_and_a_drag_moves_one(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + FLIGHT + "/record")
    face = page.get_by_role("application")
    face.scroll_into_view_if_needed()
    box = face.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["width"] / 3
    for off in (0, 6, 12):
        page.mouse.click(x + off, y)
    expect(page.get_by_role("button", name="Record 3 hits")).to_be_visible()
    expect(page.get_by_text("hit 3 of 3")).to_be_visible()
    page.get_by_role("button", name="closer").click()
    page.get_by_role("button", name="closer").click()
    expect(page.get_by_role("button", name="closer")).to_be_disabled()
    page.get_by_role("button", name="wider").click()
    page.get_by_role("button", name="wider").click()
    # from the last one along: it moves, and no fourth is put on
    page.mouse.move(x + 12, y)
    page.mouse.down()
    page.mouse.move(x + 60, y + 60, steps=4)
    page.mouse.up()
    expect(page.get_by_role("button", name="Record 3 hits")).to_be_visible()
