"""Other people's rigs on the page: off the hand, floor as schools, units as buttons, the order."""

import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from tests.web.wire import Wire

THUMB = "/rigs/sandpiper-thumb-bow"
TIDEWAY = "/rigs/tideway-recurve"


def opened(wire: Wire, path: str, **more: Any) -> Page:
    page = wire.open(path, **more)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    return page


def told(wire: Wire, rig: str, kind: str) -> list[dict[str, Any]]:
    answer = wire.client.get(f"/api/rigs/{rig}/entries", params={"after": 0}).json()
    return [row["reading"] for row in answer["entries"] if row["reading"]["kind"] == kind]


def until(page: Page, done: Callable[[], bool]) -> None:
    for _ in range(60):
        if done():
            return
        page.wait_for_timeout(50)
    raise AssertionError("it never came")


def test_the_hands_height_is_summed_up_and_drawn(wire: Wire) -> None:
    page = opened(wire, THUMB + "/nock")
    work = page.get_by_role("region", name="What it is read from")
    expect(work).to_contain_text("under the top of the hand")
    work.get_by_label("Hand at full draw").fill("1mm low")
    work.get_by_label("Hand at full draw").press("Enter")
    expect(work).to_contain_text(re.compile(r"1\.5\s?mm ± 1\.0\s?mm\s+over the hand"))
    expect(page.get_by_text("dashed: at full draw")).to_be_visible()
    work.get_by_label("The arrow lies on").select_option("rest")
    expect(work.get_by_label("Shelf under the rest")).to_be_visible()
    expect(work.get_by_label("Hand at full draw")).to_have_count(0)
    assert told(wire, "sandpiper-thumb-bow", "arrow_pass")[-1]["lies_on"] == "rest"


def test_a_lifting_quill_is_told_by_touch_and_stops_the_rig(wire: Wire) -> None:
    page = opened(wire, THUMB + "/arrow/quiver", width=390, height=844, has_touch=True)
    page.get_by_role("button", name=re.compile("^lifts.*arrow 2")).tap()
    expect(page.locator("main")).to_contain_text("Arrow 2 has a lifting quill")
    row = page.get_by_role("row", name=re.compile("^2"))
    expect(row).to_contain_text("lifts")
    row.get_by_role("button", name=re.compile("^bound")).tap()
    expect(page.locator("main")).not_to_contain_text("lifting quill")
    quills = [one["quill"] for one in told(wire, "sandpiper-thumb-bow", "numbered_arrow")]
    assert quills[-2:] == ["lifts", "bound"]


def test_schools_of_the_floor_stand_side_by_side(wire: Wire) -> None:
    page = opened(wire, THUMB + "/arrow/build")
    schools = page.get_by_role("region", name="Who asks for how heavy an arrow")
    expect(schools.get_by_role("row")).to_have_count(4)
    expect(schools.get_by_role("row", name=re.compile("^Mechanics"))).to_contain_text("binds here")
    schools.get_by_label("Limbs are made").select_option("natural")
    expect(schools.get_by_role("row", name=re.compile("^Limbs"))).to_contain_text("a fifth less")
    schools.get_by_label("Its length was measured").select_option("strung")
    expect(schools.get_by_role("row", name=re.compile("^Tip and size"))).to_contain_text("59 in")
    length = told(wire, "sandpiper-thumb-bow", "bow_length")[-1]
    assert (round(length["bow_length_mm"] / 25.4, 3), length["taken"]) == (56.0, "strung")


def test_newtons_and_kilograms_are_a_button_away(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/bow")
    weigh = page.get_by_label("Scale reads")
    expect(page.get_by_role("group", name="In which unit")).to_have_count(0)
    weigh.fill("170")
    page.get_by_label("with the string at").fill("28")
    units = page.get_by_role("group", name="In which unit")
    expect(units.get_by_role("button", name="lb")).to_have_attribute("aria-pressed", "true")
    units.get_by_role("button", name="N", exact=True).click()
    expect(weigh).to_have_value("170 N")
    expect(units.get_by_role("button", name="N", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    expect(page.locator("#scale-says")).to_contain_text("38.2 lb")
    units.get_by_role("button", name="kg").click()
    expect(weigh).to_have_value("170 kg")
    units.get_by_role("button", name="N", exact=True).click()
    weigh.press("Enter")
    until(page, lambda: bool(told(wire, "tideway-recurve", "bow_weighed")))
    weighed = told(wire, "tideway-recurve", "bow_weighed")[-1]
    assert abs(weighed["draw_weight_lbf"] - 38.22) < 0.01
    mark = page.get_by_label("Marked weight and draw")
    mark.fill("17.5 @ 28")
    page.get_by_role("group", name="In which unit").get_by_role("button", name="kg").click()
    expect(mark).to_have_value("17.5 kg @ 28")


def test_the_order_says_what_the_card_says(wire: Wire) -> None:
    """One source: where the card asks for something else first, the order's own comes then."""
    page = opened(wire, TIDEWAY + "/order")
    card = page.get_by_role("complementary", name="Next step and findings")
    expect(card).to_contain_text("Flex and look at every arrow")
    expect(page.locator("main header")).to_contain_text("First: Flex and look at every arrow.")
    expect(page.locator("main strong.next")).to_have_text("then")


def test_the_archers_circle_is_named_at_the_walk_back(wire: Wire) -> None:
    page = opened(wire, TIDEWAY + "/order")
    page.locator("#station-walk_back").click()
    circle = page.get_by_label("Level: all in a circle of")
    expect(circle).to_have_attribute("placeholder", re.compile(r"taken as .* at 30 m"))
    circle.fill("40cm @ 30m")
    circle.press("Enter")
    until(page, lambda: bool(told(wire, "tideway-recurve", "level_circle")))
    assert told(wire, "tideway-recurve", "level_circle")[-1]["circle_mm"] == 400.0


def test_a_change_of_turns_is_typed_as_one(wire: Wire) -> None:
    page = opened(wire, "/rigs/marram-longbow/string/turns")
    expect(page.locator("main")).to_contain_text("The next ten turns give")
    turns = page.get_by_label("Turns now")
    turns.fill("5 out")
    turns.press("Enter")
    expect(turns).to_have_attribute("placeholder", "39.5")
    assert told(wire, "marram-longbow", "string_turned") == [
        {"kind": "string_turned", "turns_by": -5.0}
    ]
