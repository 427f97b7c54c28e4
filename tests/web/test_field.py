"""The field helper in the real browser: crawl, shots, a network that goes, and the way home."""

import gzip
import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from lyrandis.api.app import STATIC
from tests.web.conftest import HereServer, Opener, text_of
from tests.web.test_accessibility import violations
from tests.web.wire import Wire, until

RIG = "tideway-recurve"
HELPER = f"/field/{RIG}"


def shown(page: Page) -> float:
    """The crawl in mm under the large figure."""
    found = re.search(r"(\d+) ± \d+ mm", text_of(page, "main"))
    assert found
    return float(found[1])


def go_to(page: Page, distance: int) -> None:
    page.get_by_role("button", name=re.compile(r"^\d+ m$")).click()
    page.get_by_role("spinbutton", name="Distance").fill(str(distance))
    page.keyboard.press("Enter")
    expect(page.get_by_role("slider", name="Distance")).to_have_attribute(
        "aria-valuenow", str(distance)
    )


def strike(page: Page, way: str) -> None:
    page.get_by_role("button", name=re.compile(f"^{way}")).click()


def marks_of(wire: Wire) -> list[str]:
    entries = wire.client.get(f"/api/rigs/{RIG}/entries", params={"after": 0}).json()["entries"]
    return [one["id"] for one in entries if one["reading"]["kind"] == "crawl_mark"]


def phone(wire: Wire) -> Page:
    page = wire.open(HELPER, width=390, height=844, service_workers="block")
    expect(page.get_by_text("Where did it strike?")).to_be_visible()
    return page


def test_a_shot_is_one_tap_and_is_recorded_as_it_was_shot(wire: Wire) -> None:
    page = phone(wire)
    go_to(page, 27)
    expect(page.get_by_text("stitches down")).to_be_visible()
    strike(page, "High")
    expect(page.get_by_text("Target 1: 27 m, 4 stitches, high. Kept.")).to_be_visible()
    expect(page.get_by_text("target 2")).to_be_visible()
    until(page, lambda: len(marks_of(wire)) == 10)
    last = wire.client.get(f"/api/rigs/{RIG}/entries", params={"after": 0}).json()["entries"][-1]
    assert last["reading"] == {
        "kind": "crawl_mark", "distance_m": 27.0, "unit": "m", "crawl_mm": None, "fingers": None,
        "stitches": 4.0, "sure": "ordinary", "high_mm": None, "struck": "high", "arrows": 1,
        "guessed": True,
    }  # fmt: skip
    page.get_by_role("button", name="take back").click()
    until(page, lambda: "POST /api/retractions" in wire.asked)
    expect(page.get_by_text("target 1")).to_be_visible()


def test_a_round_without_a_network_is_kept_learns_and_comes_home_once(wire: Wire) -> None:
    page = phone(wire)
    go_to(page, 35)
    page.get_by_role("button", name="Guessed distance").click()
    before = shown(page)
    wire.down = True
    # so little that the odd crawl at 25 m stays out: only the bench could take it in again
    for presses in (3, 0):
        page.get_by_role("button", name="how many cm").click()
        for _ in range(presses):
            page.get_by_role("button", name="More").click()
        strike(page, "High")
    expect(page.get_by_text("2 shots kept here")).to_be_visible()
    learned = shown(page)
    assert learned > before, "high asks for more crawl, network or not"
    assert len(marks_of(wire)) == 9
    wire.down = False
    lost = wire.hold("POST", "field-shots")
    until(page, lambda: len(lost) == 1)
    lost[0].lose_answer()
    lost.clear()
    wire.let_go(lost)
    until(page, lambda: len(marks_of(wire)) == 11)
    expect(page.get_by_text("kept here")).to_have_count(0, timeout=10_000)
    assert len(marks_of(wire)) == 11, "an answer that was lost records nothing twice"
    assert abs(shown(page) - learned) <= 1, "the helper learned what the bench makes of it"


def test_what_was_logged_outlives_a_page_that_is_closed(wire: Wire) -> None:
    page = phone(wire)
    wire.down = True
    strike(page, "Low")
    expect(page.get_by_text("1 shot kept here")).to_be_visible()
    wire.down = False
    held = wire.hold("POST", "field-shots")
    page.reload()
    until(page, lambda: len(held) == 1)
    expect(page.get_by_text("Target 1: 20 m, 7 stitches, low. Kept.")).to_be_visible()
    wire.let_go(held)
    until(page, lambda: len(marks_of(wire)) == 10)


def test_a_shot_taken_back_after_its_answer_was_lost_does_not_stand(wire: Wire) -> None:
    page = phone(wire)
    sent = wire.hold("POST", "field-shots")
    strike(page, "High")
    until(page, lambda: len(sent) == 1)
    page.get_by_role("button", name="take back").click()
    expect(page.get_by_text("target 1")).to_be_visible()
    sent.pop().lose_answer()
    wire.let_go(sent)
    until(page, lambda: "POST /api/retractions" in wire.asked)
    says = wire.client.get(f"/api/rigs/{RIG}/entries", params={"after": 0}).json()
    assert len(marks_of(wire)) == 10
    assert marks_of(wire)[-1] in says["taken_back"]


def test_a_second_window_of_the_same_round_stands_aside(wire: Wire) -> None:
    page = phone(wire)
    other = page.context.new_page()
    other.goto(page.url)
    expect(other.get_by_text("open in another window here")).to_be_visible()
    page.close()
    other.reload()
    expect(other.get_by_text("Where did it strike?")).to_be_visible()


def test_shots_with_other_arrows_wait_for_a_choice_and_block_nothing(wire: Wire) -> None:
    page = phone(wire)
    anchor = {"subject": {"kind": "archer", "id": "bram"},
              "reading": {"kind": "anchor_chosen", "anchor": "corner"}}  # fmt: skip
    assert wire.client.post("/api/entries", json={"entries": [anchor]}).status_code == 201
    strike(page, "Fine")
    expect(page.get_by_text("1 shot differs.")).to_be_visible()
    expect(page.get_by_text("corner of the mouth, three under")).to_be_visible()
    strike(page, "Fine")
    until(page, lambda: len(marks_of(wire)) == 10)
    page.get_by_role("button", name="choose").click()
    expect(page.get_by_text("Anchor: corner of the mouth").first).to_be_visible()
    assert len(marks_of(wire)) == 10, "the second was shot by the table of the new anchor"
    wire.down = True
    page.get_by_role("button", name="Record it all the same").click()
    page.get_by_role("button", name="Back to the target").click()
    expect(page.get_by_text("1 shot kept here")).to_be_visible()
    wire.down = False
    until(page, lambda: len(marks_of(wire)) == 11)
    expect(page.get_by_text("differ")).to_have_count(0)


def test_beyond_point_on_the_aim_goes_over_and_the_figure_says_where_it_fell(wire: Wire) -> None:
    page = phone(wire)
    go_to(page, 45)
    over = int(re.search(r"aim (\d+) cm over", text_of(page, "main"))[1])  # type: ignore[index]
    assert over > 10
    strike(page, "High")
    expect(page.get_by_text("Aimed over the mark: say how many cm.")).to_be_visible()
    strike(page, "High")
    until(page, lambda: len(marks_of(wire)) == 10)
    last = wire.client.get(f"/api/rigs/{RIG}/entries", params={"after": 0}).json()["entries"][-1]
    assert last["reading"]["stitches"] == 0
    assert last["reading"]["high_mm"] == pytest.approx(100 - 10 * over, abs=6)


def test_the_tape_moves_by_hand_and_keys_and_ends_where_the_table_does(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + HELPER, width=390, height=844)
    tape = page.get_by_role("slider", name="Distance")
    tape.focus()
    for key, value in (("ArrowRight", 21), ("Shift+ArrowRight", 26), ("PageDown", 21),
                       ("Home", 2)):  # fmt: skip
        page.keyboard.press(key)
        expect(tape).to_have_attribute("aria-valuenow", str(value))
    box = tape.bounding_box()
    assert box
    page.mouse.move(box["x"] + 300, box["y"] + 10)
    page.mouse.down()
    page.mouse.move(box["x"] + 165, box["y"] + 10, steps=4)
    page.mouse.up()
    expect(tape).to_have_attribute("aria-valuenow", "12")
    page.keyboard.press("End")
    page.get_by_label("One m further").click()
    expect(page.get_by_text(re.compile(r"The table goes from 2 to \d+ m\."))).to_be_visible()


@pytest.mark.parametrize(("width", "height"), [(390, 844), (320, 568), (1280, 800)])
def test_nothing_is_cut_off_and_thumbs_find_the_buttons(
    shared_demo: HereServer, open_page: Opener, width: int, height: int
) -> None:
    page = open_page(shared_demo.url + HELPER, width=width, height=height)
    expect(page.get_by_text("Where did it strike?")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    assert violations(page) == []
    page.evaluate("document.documentElement.dataset.mode = 'dark'")
    assert violations(page) == []
    tops = [page.get_by_role("slider", name="Distance"), page.get_by_text("Where did it strike?")]
    boxes = [one.bounding_box() for one in tops]
    assert boxes[0]["y"] + boxes[0]["height"] <= boxes[1]["y"], "nothing lies over another"
    for name in ("High", "Fine", "Low"):
        box = page.get_by_role("button", name=re.compile(f"^{name}")).bounding_box()
        assert box
        assert min(box["width"], box["height"]) >= 80


def test_the_screen_is_kept_awake_or_it_is_said(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + HELPER, width=390, height=844)
    asked = "navigator.wakeLock.request = async () => { document.title = 'awake'; return {}; };"
    expect(page.get_by_text("screen will dim")).to_be_visible()
    page.add_init_script(asked)
    page.reload()
    page.wait_for_function("() => document.title === 'awake'")
    expect(page.get_by_text("screen will dim")).to_have_count(0)


def test_it_opens_without_the_bench_once_it_was_opened_with_it(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + HELPER, width=390, height=844)
    page.evaluate("() => navigator.serviceWorker.ready.then(() => {})")
    page.reload()
    expect(page.get_by_text("Where did it strike?")).to_be_visible()
    demo.stop()
    page.context.set_offline(True)
    page.reload()
    strike(page, "Fine")
    expect(page.get_by_text("1 shot kept here")).to_be_visible()
    page.context.set_offline(False)


# taken along, and back


def carried(wire: Wire, folder: Path) -> Path:
    answer = wire.client.get(f"/api/rigs/{RIG}/field-helper.html")
    path = folder / "lyrandis-field.html"
    path.write_bytes(answer.content)
    return path


def test_first_load_and_the_carried_file_are_small(wire: Wire, tmp_path: Path) -> None:
    assert carried(wire, tmp_path).stat().st_size < 250_000
    page = (STATIC / "field.html").read_text()
    files = re.findall(r'(?:src|href)="/(assets/[^"]+)"', page)
    fonts = [STATIC / name for name in STATIC.glob("assets/*-latin-wght*.woff2")]
    sent = [gzip.compress((STATIC / name).read_bytes()) for name in files]
    sent += [font.read_bytes() for font in fonts]
    sent.append(wire.client.get(f"/api/rigs/{RIG}/field-table").content)
    assert len(files) == 2
    assert sum(map(len, sent)) < 90_000


def test_a_file_on_a_phone_gives_its_shots_back_and_they_are_recorded_once(
    wire: Wire, open_page: Opener, tmp_path: Path
) -> None:
    helper = open_page(carried(wire, tmp_path).as_uri(), width=390, height=844)
    expect(helper.get_by_text("Taken along.")).to_be_visible()
    go_to(helper, 27)
    strike(helper, "High")
    strike(helper, "Fine")
    helper.get_by_role("button", name="take back").click()
    helper.reload()
    expect(helper.get_by_text("1 shot to give back")).to_be_visible()
    helper.get_by_role("button", name="Shots").click()
    text = helper.get_by_label("The shots as text").input_value()
    forget = helper.get_by_role("button", name="forget them here")
    expect(forget).to_have_count(0)
    with helper.expect_download() as saved:
        helper.get_by_role("button", name="Save file").click()
    assert Path(saved.value.path()).read_text() == text
    expect(forget).to_be_visible()

    page = wire.open(f"/rigs/{RIG}/crawls/field")
    page.get_by_label("Paste the helper's text").fill(text)
    expect(page.get_by_role("row", name=re.compile("At a guessed 27 m.* new"))).to_be_visible()
    assert len(marks_of(wire)) == 9, "looking records nothing"
    page.get_by_role("button", name="Record 1 shot").click()
    expect(page.get_by_text("1 shot recorded.")).to_be_visible()
    expect(page.get_by_role("button", name="Nothing new")).to_be_disabled()
    page.get_by_label("or choose its file").set_input_files(
        {"name": "shots.txt", "mimeType": "text/plain", "buffer": text.encode()}
    )
    expect(page.get_by_text("here already")).to_be_visible()
    assert len(marks_of(wire)) == 10
    page.get_by_label("Paste the helper's text").fill("no shots at all")
    expect(page.locator("#problem-field")).to_contain_text("No shot of the field helper")
    expect(page.get_by_label("Paste the helper's text")).to_have_value("no shots at all")
