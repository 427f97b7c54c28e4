"""What a person does, in the real page, reading what a person reads."""

import re
from pathlib import Path

from playwright.sync_api import Page, Route, expect

from tests.web.conftest import HereServer, Opener, Server, text_of

MARRAM = "/rigs/marram-longbow"


def jot(page: Page, text: str) -> None:
    page.get_by_label("Jot", exact=True).fill(text)


def rail(page: Page, stage: str) -> str:
    return text_of(page, f"nav li:has-text('{stage}')")


def toast_gone(page: Page) -> None:
    """Close toasts, so that they stand before nothing."""
    for button in page.get_by_role("button", name="Close", exact=True).all():
        if button.is_visible():
            button.click()


# 1. the demo


def test_the_demo_opens_with_three_judged_rigs(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url)
    expect(page.locator("li h2")).to_have_count(3)
    expect(page.get_by_text("Stop.")).to_be_visible()
    expect(page.get_by_text("this rig wants").first).to_be_visible()
    read = text_of(page)
    assert "Marram longbow" in read
    assert "The lightest arrow, 469 gr, on 51.3 lb is 9.1 ± 0.2 gr/lb: too far under" in read
    page.get_by_role("link", name="Tideway recurve").click()
    expect(page).to_have_url(re.compile("/rigs/tideway-recurve/now"))
    expect(page.get_by_role("heading", name="What we know now")).to_be_visible()


# 2. the first run


def make(page: Page, name: str = "") -> None:
    """Send the first run off and give the archer a name."""
    page.keyboard.press("Enter")
    page.get_by_label("Your name, if you like").fill(name)
    page.get_by_role("button", name="Make it").click()


def test_three_answers_on_one_page_lead_to_a_first_result(
    own: HereServer, open_page: Opener
) -> None:
    page = open_page(own.url)
    draw = page.locator("#first-draw")
    expect(draw).to_be_focused()
    draw.fill("27⅜")
    page.get_by_label("marked on an arrow").check()
    page.get_by_text("longbow", exact=True).click()
    page.locator("#first-mark").fill("45")
    page.locator("#first-length").fill("66")
    page.locator("#first-mass").fill("27.9g")
    card = page.get_by_role("complementary").locator("section.card")
    expect(card).to_contain_text(re.compile(r"4\d\.\d\s±\s\d\.\d\slb on your fingers"))
    expect(card).to_contain_text("before it stacks")
    make(page, "Ann")
    expect(page).to_have_url(re.compile("/rigs/straight-longbow/now"))
    numbers = page.get_by_role("list", name="Six numbers")
    expect(numbers.get_by_role("listitem")).to_have_count(6)
    expect(numbers).to_contain_text("431 gr")
    expect(numbers).to_contain_text("marked on an arrow")
    expect(page.locator("main")).to_contain_text(re.compile(r"first evening: \d+ minutes"))
    assert "431 gr" in rail(page, "Arrow")


def test_what_nobody_answers_is_said_to_be_assumed_and_recorded_nowhere(
    own: HereServer, open_page: Opener
) -> None:
    page = open_page(own.url)
    expect(page.get_by_text("28 in, assumed")).to_be_visible()
    make(page)
    expect(page).to_have_url(re.compile("/rigs/my-bow/now"))
    expect(page.get_by_role("list", name="Six numbers")).to_contain_text("assumed, nobody told it")
    told = page.request.get(f"{own.url}/api/rigs/my-bow/entries").json()["entries"]
    assert {one["reading"]["kind"] for one in told} == {"named", "part_fitted"}


def test_a_bad_answer_is_said_beside_its_field_and_kept(own: HereServer, open_page: Opener) -> None:
    page = open_page(own.url)
    field = page.locator("#first-draw")
    field.fill("66")
    expect(page.locator("#problem-draw")).to_contain_text("outside what a draw length can be")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(field).to_be_focused()
    expect(field).to_have_value("66")
    expect(field).to_have_attribute("aria-invalid", "true")


def test_the_drawing_answers_while_one_types_and_is_drawn_by_its_handle(
    own: HereServer, open_page: Opener
) -> None:
    page = open_page(own.url)
    handle = page.get_by_role("slider", name="Draw length")
    page.locator("#first-draw").fill("27 3/8")
    expect(handle).to_have_attribute("aria-valuetext", re.compile(r"27\s3/8\sin"))
    page.get_by_text("grip itself").click()
    expect(handle).to_have_attribute("aria-valuetext", re.compile(r"29\s1/8\sin"))
    handle.focus()
    page.keyboard.press("Shift+ArrowRight")  # the string goes an inch toward the bow
    expect(page.locator("#first-draw")).to_have_value("26 3/8")
    page.get_by_text("not sure").first.click()
    expect(page.locator("#heard-draw")).to_contain_text(re.compile("known to ± 1\\s(1/2|5/8)"))


def test_an_empty_bench_offers_the_demo_which_can_be_put_away(
    own: HereServer, open_page: Opener
) -> None:
    page = open_page(own.url)
    page.get_by_role("button", name="three rigs of a made-up club").click()
    expect(page.locator("li h2")).to_have_count(3)
    page.get_by_role("button", name="put away Tideway recurve").click()
    expect(page.get_by_role("heading", name="Put away")).to_be_visible()
    page.get_by_role("button", name="take out Tideway recurve").click()
    expect(page.get_by_role("link", name="Tideway recurve")).to_be_visible()


# 3. readings as they are spoken


def test_a_jotted_reading_is_shown_before_it_is_recorded_and_can_be_taken_back(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/bow")
    jot(page, "scale 45.9 @ 29")
    preview = page.locator("#jot-says")
    expect(preview).to_contain_text("Draw weight 45.9 lb with the hook at 29 in")
    expect(preview).to_contain_text("204 N")
    expect(preview).to_contain_text("for Marram")
    before = rail(page, "Logbook")
    assert "98 entries" in before
    page.keyboard.press("Enter")
    row = page.get_by_role("row").filter(has_text="45.9 lb")
    expect(row).to_be_visible()
    expect(page.get_by_label("Jot", exact=True)).to_have_value("")
    expect(preview).to_contain_text("Recorded: Draw weight 45.9 lb with the hook at 29 in.")
    page.keyboard.press("Control+z")
    expect(row).to_have_count(0)
    page.get_by_role("button", name="Put back").click()
    expect(row).to_be_visible()


AS_SPOKEN = {
    "draw 27 3/8": "Draw 27 3/8 in on a marked arrow",
    "draw 69.7cm": "Draw 27 7/16 in on a marked arrow",
    "full draw 27⅝": "Draw 27 5/8 in on a marked arrow",
    "arrow 4 431gr": "Arrow 4: 431 gr finished",
    "brace 7 1/2": "Brace height 7 1/2 in",
    "hold thumb": "Hold: thumb",
}


def test_readings_are_understood_as_spoken_and_stand_in_the_logbook(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/archer")
    for typed, recorded in AS_SPOKEN.items():
        jot(page, typed)
        expect(page.locator("#jot-says")).to_contain_text(recorded)
        page.keyboard.press("Enter")
        expect(page.get_by_label("Jot", exact=True)).to_have_value("")
    page.get_by_role("link", name="Logbook").click()
    expect(page.locator("main li").first).to_be_visible()
    for recorded in AS_SPOKEN.values():
        assert recorded in text_of(page, "main section")


def test_a_wrong_unit_is_questioned_and_the_guess_can_be_taken(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/archer")
    jot(page, "draw 66")
    expect(page.locator("#jot-says")).to_contain_text("66 in is outside what a draw length can be.")
    page.get_by_role("button", name="draw 66cm?").click()
    expect(page.locator("#jot-says")).to_contain_text("Draw 26 in on a marked arrow")
    expect(page.get_by_label("Jot", exact=True)).to_have_value("draw 66cm")


def test_each_stage_records_through_its_own_controls(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + "/rigs/tideway-recurve/archer")
    page.get_by_label("Measured to").select_option("back of the bow")
    page.get_by_label("Reading", exact=True).fill("28")
    expect(page.locator("#draw-says")).to_contain_text("to the back of the bow")
    page.get_by_role("button", name="Record", exact=True).click()
    expect(page.get_by_role("row")).to_have_count(4)
    page.get_by_label("Anchor").select_option("under the chin")
    expect(page.get_by_label("Anchor")).to_have_value("under_chin")
    page.keyboard.press("Escape")

    page.get_by_role("link", name="Bow", exact=False).first.click()
    page.get_by_label("Scale reads").fill("38.9")
    page.get_by_label("with the string at").fill("28 3/4")
    page.get_by_role("button", name="Record", exact=True).click()
    expect(page.get_by_role("row").filter(has_text="38.9 lb")).to_be_visible()
    page.get_by_label("Maker's longest draw").fill("30 1/2")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Maker's longest draw")).to_have_attribute(
        "placeholder", re.compile(r"30\s1/2\sin")
    )

    page.get_by_role("navigation").get_by_role("link", name="Arrow").click()
    page.get_by_role("link", name="Build", exact=True).click()
    page.get_by_label("Finished mass").fill("349gr")
    page.get_by_role("button", name="Record", exact=True).click()
    expect(page.get_by_role("row").filter(has_text="349 gr")).to_contain_text("4")


def test_bad_input_in_a_field_is_said_beside_it_and_kept(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/bow")
    field = page.get_by_label("Length, nock to nock")
    field.fill("27")
    expect(page.locator("#problem-bow")).to_contain_text(
        "27 in is outside what a bow length can be"
    )
    field.press("Enter")
    expect(field).to_have_value("27")
    expect(page.locator("#problem-bow")).to_contain_text("Did you mean a draw length of 27 in?")


def test_history_takes_back_and_puts_back(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/logbook")
    page.get_by_role("button", name="take back Maker's limit 30 in").click()
    expect(page.get_by_role("button", name="put back Maker's limit 30 in")).to_be_visible()
    page.get_by_role("link", name="Bow", exact=False).first.click()
    longest = page.get_by_label("Maker's longest draw")
    expect(longest).to_have_attribute("placeholder", "e.g. 30")
    page.go_back()
    page.get_by_role("button", name="put back Maker's limit 30 in").click()
    expect(page.get_by_role("button", name="take back Maker's limit 30 in")).to_be_visible()


def test_a_reading_can_be_written_up_for_an_earlier_day(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/logbook")
    page.locator(".jot").get_by_role("button", name="for another day").click()
    page.locator("#jot-day").fill("2026-01-15")
    jot(page, "brace 7 1/8")
    page.keyboard.press("Enter")
    section = page.get_by_role("region", name="15 January 2026")
    expect(section).to_contain_text(re.compile(r"Brace height 7\s1/8"))
    # written up late, it does not take the place of what was measured since
    page.get_by_role("navigation").get_by_role("link", name="Bow").click()
    expect(page.get_by_label("Brace height now")).to_have_attribute(
        "placeholder", re.compile(r"7\s5/8\sin")
    )
    page.locator(".jot").get_by_role("button", name="back to now").click()
    expect(page.locator("#jot-day")).to_have_count(0)


def test_a_rig_can_be_renamed(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/archer")
    page.get_by_role("button", name="change parts").first.click()
    page.get_by_label("This rig is called").fill("Shore longbow")
    page.get_by_role("button", name="Rename").click()
    expect(page.get_by_role("dialog")).to_contain_text("Parts on Shore longbow")


def test_habits_can_be_kept_for_one_rig_only(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/archer")
    page.get_by_label("changes here are for this rig only").check()
    page.get_by_label("Anchor").select_option("cheekbone")
    page.get_by_role("link", name="Logbook").click()
    row = page.get_by_role("listitem").filter(has_text="Anchor: cheekbone")
    expect(row).to_contain_text("Marram longbow")


def test_the_logbook_saves_a_file_that_the_command_line_judges(
    demo: HereServer, open_page: Opener, tmp_path: Path
) -> None:
    from lyrandis.cli import judge_text

    page = open_page(demo.url + "/rigs/sandpiper-thumb-bow/logbook")
    with page.expect_download() as download:
        page.get_by_role("button", name="Save as a file").click()
    path = tmp_path / "saved.json"
    download.value.save_as(path)
    assessment = judge_text(path.read_text())
    assert assessment.name == "Sandpiper thumb bow"
    assert assessment.findings[0].severity == "stop"


# 4 and 5. what is read on the stages


def test_the_bow_stage_says_weight_slope_and_the_mark_to_look_for(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + "/rigs/tideway-recurve/bow")
    expect(page.get_by_role("heading", name="Bow", exact=True)).to_be_visible()
    read = text_of(page)
    assert "Hunting recurve, marked 38.0 lb at 28 in." in read
    assert "Weight at your draw 39.5 lb ± 3.5, estimated" in read
    assert "Mark to look for 34.6 lb ± 0.5, by rule" in read


def test_a_finding_shows_its_sum_its_rule_and_leads_to_its_control(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + "/rigs/tideway-recurve/archer")
    finding = page.locator("aside li").filter(has_text="worked out from the mark")
    finding.get_by_role("button", name="show the sum").click()
    read = " ".join(finding.inner_text().split())
    assert "Mark: 38.0 lb with the string at 28 in." in read
    assert "Weight there 39.5 ± 3.5 lb." in read
    finding.get_by_role("button", name="Weigh the bow").click()
    expect(page).to_have_url(re.compile("/bow/bench$"))
    expect(page.get_by_label("Scale reads")).to_be_focused()
    own = page.locator("aside li").filter(has_text="worked out from the mark")
    own.get_by_role("button", name="show the sum").click()
    own.get_by_role("link", name="the rule").click()
    expect(page.locator("#weight-from-mark")).to_be_focused()
    assert "2.0 lb to 3.0 lb in 1 in on a 45.0 lb bow" in text_of(page, "#weight-from-mark")
    page.go_back()
    expect(page.get_by_role("heading", name="Bow", exact=True)).to_be_visible()


def test_stop_stands_on_every_stage(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + "/rigs/sandpiper-thumb-bow/archer")
    for stage in ("Archer", "Bow", "Arrow"):
        page.get_by_role("navigation").get_by_role("link", name=stage).click()
        alert = page.locator("main").get_by_role("alert")
        expect(alert).to_contain_text("Do not shoot it.")


def test_changing_parts_is_history(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/arrow")
    page.get_by_role("button", name="change parts").first.click()
    page.get_by_label("Arrows", exact=True).select_option("Carbon, set A")
    page.get_by_role("dialog").get_by_role("button", name="Close").click()
    expect(page.locator("#jot-says")).to_contain_text("Recorded: Arrows changed.")
    expect(page.locator("nav li").filter(has_text="Arrow")).to_contain_text("352")
    page.keyboard.press("Control+z")
    expect(page.locator("nav li").filter(has_text="Arrow")).to_contain_text("469")


def test_the_rig_switcher_leads_to_another_rig(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + MARRAM + "/bow/bench")
    page.get_by_role("button", name="Change rig").click()
    page.get_by_role("link", name="Tideway recurve").click()
    expect(page).to_have_url(re.compile("/rigs/tideway-recurve/bow/bench"))
    expect(page.get_by_role("button", name="Change rig")).to_contain_text("Tideway recurve")
    page.go_back()
    expect(page).to_have_url(re.compile("/rigs/marram-longbow/bow"))
    expect(page.get_by_role("button", name="Change rig")).to_contain_text("Marram longbow")


# 6. keyboard, phone, light and dark, left hand


def test_keys_move_between_stages_and_change_units(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url + MARRAM + "/archer")
    expect(page.get_by_role("heading", name="Archer", exact=True)).to_be_visible()
    for key, name in (("2", "Bow"), ("3", "Arrow"), ("9", "Logbook"), ("1", "Archer")):
        page.keyboard.press(key)
        expect(page.get_by_role("heading", name=name, exact=True)).to_be_visible()
        tab = {"Bow": "Bench · ", "Arrow": "Match · "}.get(name, "")
        expect(page).to_have_title(f"{tab}{name} · Marram longbow · Lyrandis")
    page.keyboard.press("u")
    expect(page.locator("nav li").filter(has_text="Archer")).to_contain_text("69.5")
    page.keyboard.press("j")
    expect(page.get_by_label("Jot", exact=True)).to_be_focused()
    page.keyboard.type("u2")
    expect(page.get_by_label("Jot", exact=True)).to_have_value("u2")
    page.keyboard.press("Escape")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("All words")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()


def test_a_reading_can_be_recorded_by_keyboard_alone(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + MARRAM + "/arrow/quiver")
    expect(page.get_by_role("heading", name="Arrow", exact=True)).to_be_visible()
    page.keyboard.press("j")
    page.keyboard.type("arrow 9 472gr")
    page.keyboard.press("Enter")
    expect(page.get_by_role("row").filter(has_text="472 gr")).to_be_visible()


def test_a_phone_shows_the_next_step_first_and_records(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + "/rigs/tideway-recurve/archer", width=390, height=844)
    button = page.get_by_role("button", name="Look the arrows over").first
    box = button.bounding_box()
    assert box is not None
    assert box["y"] < 200
    jot(page, "scale 39 @ 28 3/4")
    page.get_by_role("form", name="Jot line").get_by_role("button", name="Record").click()
    expect(page.locator("nav li").filter(has_text="Bow")).to_contain_text("38.9")


def test_theme_follows_the_system_until_chosen_and_is_kept(
    shared_demo: HereServer, open_page: Opener
) -> None:
    page = open_page(shared_demo.url, dark=True)
    html = page.locator("html")
    expect(html).to_have_attribute("data-mode", "dark")
    page.get_by_role("button", name="Light theme").click()
    expect(html).to_have_attribute("data-mode", "light")
    page.reload()
    expect(html).to_have_attribute("data-mode", "light")


def test_the_draw_drawing_is_mirrored_for_the_left_hand(
    shared_demo: HereServer, open_page: Opener
) -> None:
    hooks = {}
    for rig in ("marram-longbow", "tideway-recurve"):
        page = open_page(f"{shared_demo.url}/rigs/{rig}/archer")
        hook = page.locator("main svg circle.hook")
        expect(hook).to_be_visible()
        box = hook.bounding_box()
        frame = page.locator("main svg").first.bounding_box()
        assert box is not None
        assert frame is not None
        hooks[rig] = (box["x"] - frame["x"]) / frame["width"]
    assert hooks["marram-longbow"] > 0.6  # left-handed: string to the right
    assert hooks["tideway-recurve"] < 0.4


# trouble


def test_what_is_typed_survives_a_server_that_is_gone_and_back(
    killable: Server, open_page: Opener
) -> None:
    page = open_page(killable.url + MARRAM + "/archer")
    expect(page.get_by_role("heading", name="Archer", exact=True)).to_be_visible()
    killable.kill()
    jot(page, "draw 27 3/8")
    expect(page.locator("#jot-says")).to_contain_text("Lyrandis does not answer.")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Kept, and sent when it does: draw 27 3/8")
    page.keyboard.type("hook 5/8")
    killable.start()
    expect(page.locator("main").get_by_role("row")).to_have_count(6)
    expect(page.get_by_label("Jot", exact=True)).to_have_value("hook 5/8")
    killable.kill()
    killable.start()
    page.reload()
    expect(page.locator("main").get_by_role("row")).to_have_count(6)


def test_a_reading_whose_answer_was_lost_is_recorded_once(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + MARRAM + "/arrow/build")

    def lose_the_answer(route: Route) -> None:
        route.fetch()
        route.abort()

    page.route("**/api/entries", lose_the_answer, times=1)
    jot(page, "arrow 472gr")
    page.keyboard.press("Enter")
    expect(page.locator("#jot-says")).to_contain_text("Recorded: Arrow 472 gr finished.")
    expect(page.get_by_role("row").filter(has_text="472 gr")).to_have_count(1)


def test_two_windows_on_one_rig_are_told_and_lose_nothing(
    demo: HereServer, open_page: Opener
) -> None:
    one = open_page(demo.url + MARRAM + "/bow")
    two = open_page(demo.url + MARRAM + "/bow")
    for page in (one, two):
        expect(page.get_by_role("heading", name="Bow", exact=True)).to_be_visible()
    field = one.get_by_label("Brace height now")
    field.fill("7 1/2")
    field.press("Enter")
    expect(field).to_have_value("")
    other = two.get_by_label("Brace height now")
    other.fill("7 1/4")
    other.press("Enter")
    expect(two.locator("#problem-brace")).to_contain_text("in another window")
    expect(other).to_have_value("7 1/4")
    expect(other).to_have_attribute("placeholder", re.compile(r"7\s1/2"))
    other.press("Enter")
    expect(other).to_have_value("")
    expect(other).to_have_attribute("placeholder", re.compile(r"7\s1/4"))


def test_unknown_addresses_say_so(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(shared_demo.url + "/rigs/no-such-rig/bow")
    expect(page.get_by_role("heading", name="No such rig")).to_be_visible()
    page = open_page(shared_demo.url + "/nowhere")
    expect(page.get_by_role("heading", name="There is nothing at this address")).to_be_visible()


def test_the_api_page_documents_every_route(shared_demo: HereServer, open_page: Opener) -> None:
    from lyrandis.api.app import openapi_document

    page = open_page(shared_demo.url + "/api-reference")
    expect(page.get_by_role("heading", name="POST /api/entries", exact=True)).to_be_visible()
    read = text_of(page)
    for path in openapi_document()["paths"]:
        assert path in read


def test_an_archer_without_a_scale_is_asked_something_else_and_can_take_it_back(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + "/rigs/tideway-recurve/bow")
    card = page.locator("aside section").first
    expect(card).to_contain_text("Flex and look at every arrow")
    expect(card.get_by_role("button", name="Not now")).to_have_count(0)
    for number in (1, 2, 3):
        page.get_by_label("Jot", exact=True).fill(f"arrow {number} sound")
        page.keyboard.press("Enter")
        expect(page.locator("#jot-says")).to_contain_text(f"Recorded: Arrow {number}")
    expect(card).to_contain_text("Weigh the bow at")
    page.get_by_role("button", name="I have no scale").click()
    expect(page.locator("#jot-says")).to_contain_text("Set aside for now: Weigh the bow")
    expect(card).not_to_contain_text("Weigh the bow at")
    expect(page.locator("main")).to_contain_text("Not checked: the bow's weight")
    page.locator("#jot-says").get_by_role("button", name="take back").click()
    expect(card).to_contain_text("Weigh the bow at")
