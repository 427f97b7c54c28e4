"""Parts and names, a rig from a bow there is, saved logbooks, and a bow nothing matches."""

import json
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

from tests.web.test_held import caught
from tests.web.test_users import opened
from tests.web.wire import Wire

MARRAM = "/rigs/marram-longbow"


def line(page: Page, name: str) -> Any:
    return page.locator("li").filter(has_text=name)


def parts_of(wire: Wire, kind: str) -> list[str]:
    return [one["name"] for one in wire.client.get("/api/parts").json() if one["kind"] == kind]


# names


def test_a_bow_is_renamed_and_an_equal_name_is_questioned(wire: Wire) -> None:
    page = opened(wire, "/parts")
    page.get_by_role("button", name="rename Marram", exact=True).click()
    field = page.get_by_label("New name of Marram")
    expect(field).to_be_focused()
    field.fill("tideway ")
    page.keyboard.press("Enter")
    problem = page.locator("#problem-name-marram-longbow, [id^=problem-name-]").first
    expect(problem).to_contain_text("There is a bow called “Tideway” already.")
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(field).to_have_value("tideway ")
    field.fill("Marram of the dunes")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="rename Marram of the dunes")).to_be_focused()
    assert "Marram of the dunes" in parts_of(wire, "bow")
    page.get_by_role("button", name="rename Marram of the dunes").click()
    page.get_by_label("New name of").fill("Tideway")
    page.get_by_role("button", name="Rename", exact=True).click()
    page.get_by_role("button", name="Name it so all the same").click()
    expect(page.get_by_role("button", name="rename Tideway", exact=True)).to_have_count(2)
    assert parts_of(wire, "bow").count("Tideway") == 2


def test_a_renaming_over_a_lost_answer_is_recorded_once(wire: Wire) -> None:
    page = opened(wire, "/parts")
    page.get_by_role("button", name="rename Oda", exact=True).click()
    page.get_by_label("New name of Oda").fill("Oda B")
    held = wire.hold("POST", "/api/entries")
    page.keyboard.press("Enter")
    caught(page, held).lose_answer()
    wire.let_go(held)
    expect(page.locator("[id^=problem-name-]")).to_contain_text("Lyrandis does not answer.")
    expect(page.get_by_label("New name of Oda")).to_have_value("Oda B")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="rename Oda B")).to_be_visible()
    log = wire.client.get(f"/api{MARRAM}/entries").json()["entries"]
    assert sum(one["reading"].get("name") == "Oda B" for one in log) == 1


def test_escape_leaves_a_name_as_it_is(wire: Wire) -> None:
    page = opened(wire, "/parts")
    page.get_by_role("button", name="rename Oda", exact=True).click()
    page.get_by_label("New name of Oda").fill("Somebody else")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="rename Oda", exact=True)).to_be_focused()
    assert "Oda" in parts_of(wire, "archer")


def test_a_rig_and_a_new_part_of_an_equal_name_are_questioned(wire: Wire) -> None:
    page = opened(wire, MARRAM + "/archer")
    page.get_by_role("button", name="change parts").first.click()
    page.get_by_label("This rig is called").fill("tideway recurve")
    page.get_by_role("button", name="Rename").click()
    expect(page.locator("#problem-rename")).to_contain_text("There is a rig called")
    page.get_by_role("button", name="Name it so all the same").click()
    expect(page.get_by_role("dialog")).to_contain_text("Parts on tideway recurve")
    page.locator("#make-bow").fill("Marram")
    page.keyboard.press("Enter")
    expect(page.locator("#problem-fit-bow")).to_contain_text("There is a bow called “Marram”")
    page.get_by_role("button", name="Name it so all the same").click()
    expect(page.locator("#make-bow")).to_have_value("")
    assert parts_of(wire, "bow").count("Marram") == 2


# a rig from a bow there is


def test_a_loan_bow_goes_to_another_archer_in_two_fields(wire: Wire) -> None:
    page = opened(wire, "/parts", width=390, height=844)
    line(page, "Marram longbow").get_by_role("link", name="new rig with Marram").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Who shoots which bow?")
    expect(page.get_by_label("Bow")).to_have_value("marram")
    page.get_by_label("Archer").fill("Wim")
    expect(page.locator("#from-archer-says")).to_contain_text("New: the draw is asked for next.")
    page.get_by_role("button", name="Make the rig").click()
    expect(page).to_have_url(re.compile("/rigs/wim-marram/archer"))
    page.goto(page.url.replace("/rigs/wim-marram/archer", "/parts"))
    expect(line(page, "Polyester, 16 strands")).to_contain_text("Wim: Marram Wim")
    expect(page.locator("main")).to_contain_text("Oda")


def test_an_archer_who_is_here_is_taken_and_the_same_rig_is_questioned(wire: Wire) -> None:
    page = opened(wire, "/new/from-bow")
    page.get_by_label("Bow").select_option("Tideway")
    page.get_by_label("Archer").fill("oda")
    expect(page.locator("#from-archer-says")).to_contain_text("Here already")
    page.reload()  # what was chosen is still there
    expect(page.get_by_label("Archer")).to_have_value("oda")
    expect(page.get_by_label("Bow")).to_have_value("tideway")
    page.get_by_role("button", name="Make the rig").click()
    expect(page).to_have_url(re.compile("/rigs/oda-tideway/archer"))
    assert parts_of(wire, "archer") == ["Oda", "Bram", "Ilse"]
    rig = wire.client.get("/api/rigs/oda-tideway").json()
    draw = next(v for v in rig["stages"][0]["values"] if v["key"] == "draw_length")
    assert draw["figure"]["value"] > 600
    page = opened(wire, "/new/from-bow?bow=tideway")
    page.get_by_label("Archer").fill("Oda")
    page.get_by_role("button", name="Make the rig").click()
    expect(page.locator("#problem-from-bow")).to_contain_text("There is a rig called")
    page.get_by_role("button", name="Name it so all the same").click()
    expect(page).to_have_url(re.compile("/rigs/oda-tideway-2/archer"))


# first run


def named(page: Page, name: str = "") -> None:
    page.locator("#first-draw").press("Enter")
    page.get_by_label("Your name, if you like").fill(name)
    page.get_by_role("button", name="Make it").click()


def test_a_second_first_run_asks_who_it_is_and_numbers_what_nobody_named(wire: Wire) -> None:
    for _ in range(2):
        page = opened(wire, "/new")
        named(page)
        expect(page).to_have_url(re.compile("/now$"))
    assert parts_of(wire, "archer")[3:] == ["Archer", "Archer 2"]
    names = [rig["name"] for rig in wire.client.get("/api/rigs").json()]
    assert names[3:] == ["My bow", "My bow 2"]
    page = opened(wire, "/new")
    page.locator("#first-draw").fill("28")
    named(page, "oda")
    expect(page.locator("#problem-name")).to_contain_text("There is an archer called “Oda”")
    page.get_by_role("button", name="Yes, the same").click()
    expect(page).to_have_url(re.compile("/now$"))
    assert parts_of(wire, "archer")[3:] == ["Archer", "Archer 2"]
    log = wire.client.get(f"/api{MARRAM}/entries").json()
    assert any(one["as_typed"] == "draw said 28" for one in log["entries"])


def test_another_archer_of_the_same_name_is_another(wire: Wire) -> None:
    page = opened(wire, "/new")
    named(page, "Oda")
    page.get_by_role("button", name="No, another one").click()
    expect(page).to_have_url(re.compile("/now$"))
    assert parts_of(wire, "archer").count("Oda") == 2


# saved logbooks


def test_a_logbook_goes_out_and_comes_in_on_another_bench(
    wire: Wire, own: Any, open_page: Any, tmp_path: Path
) -> None:
    page = opened(wire, MARRAM + "/logbook")
    with page.expect_download() as download:
        page.get_by_role("button", name="Save as a file").click()
    path = tmp_path / "saved.json"
    download.value.save_as(path)
    count = len(json.loads(path.read_text())["entries"])
    page = open_page(own.url + "/")
    page.get_by_label("Open a logbook file").set_input_files(path)
    aside = page.get_by_role("complementary")
    expect(aside).to_contain_text(f"saved.json. {count} entries to record.")
    expect(aside).to_contain_text("New on this bench: Oda, Marram")
    page.get_by_role("button", name="Bring it in").click()
    expect(page).to_have_url(re.compile(f"{MARRAM}/logbook"))
    expect(page.locator("main")).to_contain_text("Marram longbow")
    page.goto(own.url + "/")
    page.get_by_label("Open a logbook file").set_input_files(path)
    expect(page.locator("main")).to_contain_text(
        f"Nothing in it is new, {count} entries here already."
    )
    expect(page.get_by_role("button", name="Bring it in")).to_have_count(0)
    expect(page.get_by_role("link", name="Open its logbook")).to_be_visible()


def test_what_is_no_logbook_is_said_beside_the_button(wire: Wire, tmp_path: Path) -> None:
    page = opened(wire, "/")
    for name, text, says in [
        ("picture.json", "not JSON at all", "“picture.json” is no saved logbook."),
        ("other.json", '{"points": [1, 2]}', "“other.json” is no saved logbook."),
        ("empty.json", '{"entries": []}', "There is no entry in this file."),
        ("odd.json", '{"entries": [{"what": 1}]}', "is missing"),
    ]:
        path = tmp_path / name
        path.write_text(text)
        page.get_by_label("Open a logbook file").set_input_files(path)
        expect(page.locator("main")).to_contain_text(says)
        expect(page.get_by_role("button", name="Bring it in")).to_have_count(0)


# a bow so light that no shaft on sale is weak enough


def light_rig(wire: Wire, **build: Any) -> None:
    """A toy's weight on a child's draw: nothing on sale is weak enough."""
    draw = {"kind": "draw_marked", "draw_length_mm": 24 * 25.4}
    archer = [draw, {"kind": "hold_chosen", "hold": "split"}]
    bow = [
        {"kind": "bow_family", "family": "hunting_recurve"},
        {"kind": "bow_length", "bow_length_mm": 62 * 25.4},
        {"kind": "bow_weighed", "draw_weight_lbf": 10.5, "draw_length_mm": 24 * 25.4},
        {"kind": "arrow_pass", "window_mm": 2},
    ]
    shafts = {"kind": "arrow_build", "material": "carbon", "shaft_length_mm": 29 * 25.4,
              "shaft_gr_per_in": 5.0, "shaft_diameter_mm": 6.0, "point_gr": 80, "insert_gr": 12,
              "arrow_nock_gr": 8, "fletching_gr": 20, "wrap_gr": 0}  # fmt: skip

    def part(name: str, *readings: Any) -> Any:
        return {"name": name, "readings": [{"reading": reading} for reading in readings]}

    draft = {
        "name": "Shore child",
        "archer": part("Pim", *archer),
        "bow": part("Reed", *bow),
        "arrow_set": part("Reeds", shafts | build),
    }
    answer = wire.client.post("/api/rigs", json=draft)
    assert answer.status_code == 201, answer.text


def test_a_bow_so_light_has_a_match_by_practice(wire: Wire) -> None:
    light_rig(wire)
    page = opened(wire, "/rigs/shore-child/arrow")
    main = page.locator("main")
    expect(page.get_by_role("heading", name="Two schools, one number")).to_be_visible()
    expect(main).not_to_contain_text("Enter the draw")
    expect(page.get_by_role("row", name=re.compile("^Practice"))).to_contain_text("lb")
    expect(page.get_by_role("heading", name="What moves the match")).to_be_visible()
    expect(page.get_by_label("Instant of the shot")).to_be_visible()


def test_stiff_first_arrows_bend_too_and_cost_accuracy_only(wire: Wire) -> None:
    light_rig(wire, spine_lbf=30.0)
    page = opened(wire, "/rigs/shore-child/arrow")
    expect(page.get_by_label("Instant of the shot")).to_be_visible()
    expect(page.get_by_role("complementary", name="Next step and findings")).to_contain_text(
        "It costs accuracy only"
    )
    expect(page.get_by_text("Ways to close", exact=True)).to_be_visible()


def test_rating_a_brace_that_was_never_read_asks_for_it(wire: Wire) -> None:
    """What is only usual of the kind is never recorded as read."""
    light_rig(wire)
    page = opened(wire, "/rigs/shore-child/string/brace")
    work = page.get_by_role("region", name="Try next")
    expect(page.locator("main")).to_contain_text("Read the brace first")
    work.get_by_label("Sound, three shots").fill("3 4 3")
    work.get_by_role("button", name="Record").click()
    expect(work.locator("#tried-says")).to_contain_text("brace")
    expect(work.get_by_label("Brace it was shot at")).to_be_focused()
    kinds = [e["reading"]["kind"] for e in entries_of(wire)]
    assert "brace_tried" not in kinds
    work.get_by_label("Brace it was shot at").fill("7 3/8 grip")
    work.get_by_role("button", name="Record").click()
    expect(page.get_by_role("region", name="Heights tried")).to_contain_text(
        re.compile(r"7\s3/8\sin")
    )
    tried = next(e["reading"] for e in entries_of(wire) if e["reading"]["kind"] == "brace_tried")
    assert abs(tried["brace_height_mm"] - 7.375 * 25.4) < 0.1


def entries_of(wire: Wire) -> list[Any]:
    answer = wire.client.get("/api/rigs/shore-child/entries", params={"after": 0}).json()
    return list(answer["entries"])
