"""Listen in the real browser: bringing a sound, its takes, before and after, speed, taps, brace."""

import re
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest
from playwright.sync_api import Browser, Page, expect

from lyrandis.sounds.reading import wav_of
from tests.core.listen.signals import RATE, r1
from tests.web.conftest import CHROMIUM, CHROMIUM_FLAGS, HereServer, Opener, text_of
from tests.web.test_accessibility import check_nothing_is_cut_off, violations
from tests.web.wire import Wire, until

RIG = "/rigs/tideway-recurve/listen"
FILES = Path(__file__).parents[1] / "sounds" / "files"


@pytest.fixture(scope="module")
def takes(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Four takes in a WAV file."""
    path = tmp_path_factory.mktemp("sounds") / "my “takes” №1.wav"
    path.write_bytes(wav_of(r1(), round(RATE)))
    return path


def bring(page: Page, path: Path) -> None:
    page.get_by_label("Choose a file").set_input_files(path)


def simulate(page: Page) -> None:
    # one seed in some ten sounds as if the phone rode its gain, and then nothing may be recorded
    page.evaluate("Math.random = () => 0.5")
    page.get_by_text("simulated microphone").click()
    page.get_by_role("button", name="Let it record this rig").click()


def test_before_and_after_is_said_as_drawn(shared_demo: HereServer, look: Opener) -> None:
    page = look(shared_demo.url + RIG)
    expect(page.get_by_text("told apart, 4 against 4")).to_be_visible()
    said = text_of(page)
    assert "after is quieter by 3.2 ± 1.8 dB told apart, 4 against 4" in said
    assert "Between the two one thing changed: brace 8 in to 8 1/4 in." in said.replace("⁄", "/")
    expect(
        page.get_by_role("img", name=re.compile("3.2 ± 1.8 dB quieter, told apart"))
    ).to_be_visible()
    order = ("brace height", "slack strand", "strand count", "anything loose", "dampers",
             "arrow mass", "spine and contact")  # fmt: skip
    assert "Nothing stands out in the order to look." in said
    page.get_by_role("link", name="The whole list").click()
    expect(page.get_by_text("heard before, gone")).to_be_visible()
    listed = text_of(page)
    listed = listed[listed.index("In the order to look") :]
    places = [listed.index(name) for name in order]
    assert places == sorted(places)
    page.go_back()
    # the recordings of this bench are gone: the numbers stand without their waves
    expect(page.get_by_text("its numbers stay, its waves are gone")).to_be_visible()


def test_a_file_is_brought_listened_to_and_recorded(
    demo: HereServer, open_page: Opener, takes: Path
) -> None:
    page = open_page(demo.url + RIG)
    bring(page, takes)
    expect(page.get_by_text("4 shots found, not recorded yet")).to_be_visible()
    fresh = page.locator("section.new")
    fresh.get_by_role("button", name=re.compile("^Take 2")).click()
    fresh.get_by_role("button", name="strike out").nth(1).click()
    expect(fresh.get_by_role("button", name=re.compile("^Take 2.*struck out"))).to_be_visible()
    page.get_by_role("button", name="Record these numbers").click()
    expect(fresh).to_have_count(0)
    expect(page.get_by_text("levels do not compare: another phone or place")).to_be_visible()
    assert "not comparable" in text_of(page)
    struck = page.get_by_role("button", name=re.compile("^Take 2.*struck out"))
    expect(struck).to_have_count(1)
    # put back: heard anew, and undo is exact
    page.get_by_role("button", name="put back").click()
    expect(struck).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(struck).to_have_count(1)
    page.goto(demo.url + RIG + "/recordings")
    expect(page.get_by_role("table")).to_contain_text("my “takes” №1.wav")
    expect(page.get_by_role("table")).to_contain_text("3, 1 struck out")


def test_an_onset_is_moved_by_the_keys(demo: HereServer, open_page: Opener, takes: Path) -> None:
    page = open_page(demo.url + RIG)
    bring(page, takes)
    fresh = page.locator("section.new")
    fresh.get_by_role("button", name=re.compile("^Take 1")).click()
    onset = fresh.get_by_role("slider", name=re.compile("Onset of take 1"))
    onset.focus()
    page.keyboard.press("PageUp")
    expect(fresh.get_by_role("button", name=re.compile("^Take 1.*moved"))).to_be_visible()
    page.get_by_role("button", name="Record these numbers").click()
    expect(fresh).to_have_count(0)
    expect(page.get_by_role("button", name=re.compile("^Take 1.*moved"))).to_be_visible()


@pytest.mark.parametrize(
    ("name", "data", "says"),
    [("shots.m4a", b"no sound at all" * 90, "no sound this browser can read"),
     ("empty.wav", b"", "no sound this browser can read"),
     ("short.wav", wav_of(np.zeros(800), 8000), "lasts 0.1 s"),
     ("long.wav", wav_of(np.zeros(8000 * 600), 8000), "lasts 10.0 minutes")],
    ids=["no sound", "empty", "0.1 s", "10 minutes"],
)  # fmt: skip
def test_what_is_no_recording_is_refused_and_nothing_is_lost(
    demo: HereServer, open_page: Opener, tmp_path: Path, name: str, data: bytes, says: str
) -> None:
    path = tmp_path / name
    path.write_bytes(data)
    page = open_page(demo.url + RIG)
    bring(page, path)
    expect(page.get_by_text(says)).to_be_visible()
    expect(page.get_by_role("button", name="Record these numbers")).to_have_count(0)
    assert "after is quieter by" in text_of(page)


def test_more_than_fifty_megabytes_is_refused_before_it_is_sent(wire: Wire, tmp_path: Path) -> None:
    path = tmp_path / "huge.wav"
    with path.open("wb") as out:
        out.truncate(50_000_001)
    page = wire.open(RIG)
    bring(page, path)
    expect(page.get_by_text("has 50 MB, and 50 are taken")).to_be_visible()
    assert not any(asked.startswith("POST /api/sounds") for asked in wire.asked)


def test_what_phones_record_is_decoded_here_and_said_to_be_lossy(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(demo.url + RIG)
    bring(page, FILES / "renamed-ogg.wav")
    expect(page.get_by_text("from a compressed file")).to_be_visible()
    expect(page.get_by_role("button", name="Record these numbers")).to_be_disabled()


def test_only_the_last_question_counts(wire: Wire, takes: Path) -> None:
    page = wire.open(RIG)
    bring(page, takes)
    fresh = page.locator("section.new")
    expect(fresh).to_contain_text("4 shots found")
    held = wire.hold("POST", r"/hear$")
    fresh.get_by_role("button", name="strike out").nth(0).click()
    until(page, lambda: len(held) == 1)
    fresh.get_by_role("button", name="strike out").nth(0).click()
    until(page, lambda: len(held) == 2)
    wire.let_go(held, newest_first=True)
    page.get_by_role("button", name="Record these numbers").click()
    expect(page.get_by_role("button", name=re.compile("^Take [12].*struck out"))).to_have_count(2)


def test_a_fault_is_named_against_the_bows_own_before(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + RIG)
    page.get_by_text("simulated microphone").click()
    for what, fault in (("Pluck", "nothing"), ("Pluck", "a loose part")):
        page.get_by_role("button", name=what, exact=True).click()
        page.get_by_label("Hidden in the bow").select_option(label=fault)
        page.get_by_role("button", name="Let it record this rig").click()
        box = page.get_by_label("phone, place and gain as before")
        expect(box).to_be_visible()
        box.set_checked(True)
        page.get_by_role("button", name="Record these numbers").click()
        expect(page.locator("section.new")).to_have_count(0)
    expect(page.get_by_text("First to look at: anything loose")).to_be_visible()
    page.get_by_role("link", name="What is it?").click()
    row = page.get_by_role("row").filter(has_text="anything loose")
    expect(row).to_contain_text("heard")
    expect(row).to_contain_text("Tighten one part, pluck again")
    expect(page.locator(".verdict")).to_have_text("something loose")
    expect(page.get_by_text(re.compile("clicks while it rings, at"))).to_be_visible()
    assert violations(page) == []


def test_a_speed_is_heard_moved_and_recorded(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + RIG + "/speed")
    page.get_by_label("String to butt, m").fill("2")
    expect(page.get_by_text("Give 3 to 100 m")).to_be_visible()
    page.get_by_label("String to butt, m").fill("18")
    simulate(page)
    expect(page.get_by_role("heading", name="3 shots")).to_be_in_viewport()
    expect(page.get_by_role("region", name="3 shots")).to_be_focused()
    large = page.locator(".large")
    before = large.inner_text()
    expect(page.get_by_text("Measure the distance with a tape")).to_be_visible()
    page.get_by_role("button", name="tape", exact=True).click()
    expect(page.get_by_text("distance within 0.05 m")).to_be_visible()
    expect(large).not_to_have_text(before)
    before = large.inner_text()
    strike = page.get_by_role("slider", name=re.compile("Strike of shot 1"))
    strike.focus()
    for _ in range(6):
        page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("Enter")
    expect(large).not_to_have_text(before)
    expect(strike).to_be_focused()
    page.get_by_role("button", name="strike out").first.click()
    expect(page.get_by_role("button", name="put back")).to_be_visible()
    assert violations(page) == []
    page.get_by_role("button", name="Record this speed").click()
    expect(page.get_by_text("They count as a chronograph's readings do")).to_be_visible()
    page.goto(demo.url + "/rigs/tideway-recurve/bow/energy")
    expect(page.get_by_role("main")).to_contain_text("fps")


def test_a_dozen_is_tapped_and_the_set_chosen(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + RIG + "/taps")
    expect(page.get_by_text("4 of 8 lie within 1.5 lb")).to_be_visible()
    page.get_by_label("First shaft's number").fill("20")
    simulate(page)
    expect(page.get_by_text("12 taps, not recorded yet")).to_be_visible()
    page.get_by_label("same shaft").first.check()
    expect(page.get_by_role("button", name="Record 11 shafts")).to_be_visible()
    page.get_by_label("same shaft").first.uncheck()
    page.get_by_role("button", name="Record 12 shafts").click()
    expect(page.get_by_role("row", name=re.compile("^31 "))).to_be_visible()
    expect(page.get_by_label("First shaft's number")).to_have_value("32")
    said = page.get_by_text(re.compile(r"\d+ of 20 lie within"))
    before = said.inner_text()
    page.get_by_role("slider", name="Width of the set in pounds").focus()
    for _ in range(4):
        page.keyboard.press("PageUp")
    expect(said).not_to_have_text(before)
    mass = page.get_by_label("Mass of shaft 20 in grains")
    mass.fill("205")
    mass.press("Enter")
    expect(mass).to_have_count(0)
    assert violations(page) == []
    page.get_by_role("button", name="Write these spines into the quiver").click()
    expect(page.get_by_text("Their spines stand in the quiver.")).to_be_visible()


def test_a_height_of_the_sweep_is_recorded(demo: HereServer, open_page: Opener) -> None:
    page = open_page(demo.url + "/rigs/marram-longbow/string/brace")
    page.get_by_text("record the shots instead").click()
    simulate(page)
    page.get_by_role("button", name="Record this height").click()
    expect(page.get_by_role("table").first).to_contain_text(re.compile(r"\+\d\.\d dB"))
    expect(page.get_by_role("columnheader", name="Recorded")).to_be_visible()
    assert violations(page) == []
    check_nothing_is_cut_off(page)


def test_a_recording_is_forgotten_in_two_taps_and_its_numbers_stay(
    demo: HereServer, open_page: Opener, takes: Path
) -> None:
    page = open_page(demo.url + RIG)
    bring(page, takes)
    page.get_by_role("button", name="Record these numbers").click()
    expect(page.locator("section.new")).to_have_count(0)
    page.goto(demo.url + RIG + "/recordings")
    row = page.get_by_role("row").filter(has_text="№1.wav")
    row.get_by_role("button", name="forget").click()
    row.get_by_role("button", name="keep it").click()
    row.get_by_role("button", name="forget").click()
    row.get_by_role("button", name="Forget it for good").click()
    expect(row).to_contain_text("forgotten, numbers stay")
    expect(page.get_by_role("status").filter(has_text="is forgotten")).to_be_visible()
    page.goto(demo.url + RIG)
    expect(page.get_by_text("its numbers stay, its waves are gone")).to_be_visible()


# the browser's own microphone


@pytest.fixture(scope="module")
def microphone(
    browser: Browser, takes: Path, tmp_path_factory: pytest.TempPathFactory
) -> Iterator[Browser]:
    """A browser whose microphone plays a file."""
    plain = tmp_path_factory.mktemp("fake") / "takes.wav"
    plain.write_bytes(takes.read_bytes())
    flags = [
        *CHROMIUM_FLAGS,
        "--use-fake-ui-for-media-stream",
        "--use-fake-device-for-media-stream",
        f"--use-file-for-fake-audio-capture={plain}",
    ]
    found = browser.browser_type.launch(executable_path=CHROMIUM, args=flags)
    yield found
    found.close()


def test_the_browser_records_through_its_own_microphone(
    demo: HereServer, microphone: Browser
) -> None:
    context = microphone.new_context(permissions=["microphone"])
    context.set_default_timeout(12000)
    page = context.new_page()
    page.goto(demo.url + RIG)
    page.get_by_role("button", name="Open the microphone").click()
    expect(page.get_by_text(re.compile(r"room −?-?\d+ dB"))).to_be_visible()
    page.get_by_role("button", name="Record", exact=True).click()
    # as long as the page itself counts: the made-up tape behind the microphone has four shots
    expect(page.get_by_text(re.compile(r"^0:0[5-9]$"))).to_be_visible(timeout=12000)
    page.get_by_role("button", name="Stop recording").click()
    expect(page.get_by_text(re.compile(r"[234] shots found"))).to_be_visible()
    kept = page.request.get(f"{demo.url}/api/sounds").json()[-1]
    assert kept["name"] == "recorded here.wav"
    assert kept["format"] == "WAV"
    assert not kept["lossy"]
    assert kept["seconds"] > 4
    context.close()


def test_a_refused_microphone_is_said_and_files_still_come(
    demo: HereServer, open_page: Opener, takes: Path
) -> None:
    page = open_page(demo.url + RIG)
    page.evaluate(
        """() => { navigator.mediaDevices.getUserMedia = () =>
             Promise.reject(new DOMException('no', 'NotAllowedError')); }"""
    )
    page.get_by_role("button", name="Open the microphone").click()
    expect(page.get_by_role("alert")).to_contain_text("may not use the microphone")
    page.evaluate(
        """() => { navigator.mediaDevices.getUserMedia = () =>
             Promise.reject(new DOMException('no', 'NotFoundError')); }"""
    )
    page.get_by_role("button", name="Open the microphone").click()
    expect(page.get_by_role("alert")).to_contain_text("No microphone was found")
    bring(page, takes)
    expect(page.get_by_text("4 shots found")).to_be_visible()


def test_what_did_not_reach_the_bench_is_kept_and_sent_again(wire: Wire, takes: Path) -> None:
    page = wire.open(RIG)
    expect(page.get_by_role("button", name="Open the microphone")).to_be_visible()
    wire.down = True
    bring(page, takes)
    expect(page.get_by_text("is kept in this window until then")).to_be_visible()
    wire.down = False
    page.get_by_role("button", name="Send it again").click()
    expect(page.get_by_text("4 shots found")).to_be_visible()


def test_a_file_that_changes_while_it_is_read_is_said(
    demo: HereServer, open_page: Opener, takes: Path
) -> None:
    page = open_page(demo.url + RIG)
    page.evaluate(
        """() => { File.prototype.arrayBuffer = () =>
             Promise.reject(new DOMException('changed', 'NotReadableError')); }"""
    )
    bring(page, takes)
    expect(page.get_by_text("could not be read to its end")).to_be_visible()


def test_a_kept_recording_may_be_listened_to_later(
    demo: HereServer, open_page: Opener, takes: Path
) -> None:
    page = open_page(demo.url + RIG)
    bring(page, takes)
    expect(page.get_by_text("4 shots found")).to_be_visible()
    page.get_by_role("link", name="Recordings").click()
    page.get_by_label(re.compile("Listen to my .* as")).select_option("pluck")
    expect(page.get_by_text("4 plucks found, not recorded yet")).to_be_visible()
    page.get_by_role("link", name="Recordings").click()
    page.get_by_label(re.compile("Listen to my .* as")).select_option("taps")
    expect(page.get_by_text("4 taps, not recorded yet")).to_be_visible()


def test_the_kind_chosen_is_kept_and_the_result_is_shown(
    demo: HereServer, open_page: Opener, takes: Path
) -> None:
    page = open_page(demo.url + RIG)
    pages = page.get_by_role("navigation", name="The pages of Listen")
    shot = page.get_by_role("button", name="Shot", exact=True)
    pluck = page.get_by_role("button", name="Pluck", exact=True)
    for chosen in (pluck, shot):
        chosen.click()
        bring(page, takes)
        page.get_by_role("button", name="Record these numbers").click()
        expect(page.locator("section.new")).to_have_count(0)
        expect(chosen).to_have_attribute("aria-pressed", "true")
        expect(page.get_by_role("region", name="What was heard")).to_be_focused()
    pages.get_by_role("link", name="What is it?").click()
    # pressed on the tabs of a page that goes and let go on the next one's is no click
    expect(page).to_have_url(re.compile("/listen/what$"))
    pages.get_by_role("link", name="Before and after").click()
    expect(shot).to_have_attribute("aria-pressed", "true")


def test_not_these_forgets_the_file_too(demo: HereServer, open_page: Opener, takes: Path) -> None:
    page = open_page(demo.url + RIG)
    bring(page, takes)
    fresh = page.locator("section.new")
    expect(fresh).to_be_visible()
    before = len(page.request.get(f"{demo.url}/api/sounds").json())
    fresh.get_by_role("button", name="not these").click()
    expect(fresh).to_have_count(0)
    until(page, lambda: len(page.request.get(f"{demo.url}/api/sounds").json()) == before - 1)


def test_a_missed_take_is_put_in_by_key(
    demo: HereServer, open_page: Opener, tmp_path: Path
) -> None:
    samples = r1().copy()
    first, last = (round(at * RATE) for at in (3.75, 5.2))
    samples[first:last] *= 0.03
    path = tmp_path / "one faint.wav"
    path.write_bytes(wav_of(samples, round(RATE)))
    page = open_page(demo.url + RIG)
    bring(page, path)
    fresh = page.locator("section.new")
    expect(fresh.get_by_role("heading", name=re.compile("^3 "))).to_be_visible()
    place = fresh.get_by_role("slider", name=re.compile("A take is missing"))
    place.fill("3.8")
    fresh.get_by_role("button", name="Add a take at 3.80 s").click()
    expect(fresh.get_by_role("heading", name=re.compile("^4 "))).to_be_visible()
    assert violations(page) == []


def test_a_microphone_unplugged_while_it_records_keeps_what_was_heard(
    demo: HereServer, microphone: Browser
) -> None:
    context = microphone.new_context(permissions=["microphone"])
    context.add_init_script(
        "const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);"
        "navigator.mediaDevices.getUserMedia = async (wish) => (window.stream = await ask(wish));"
    )
    page = context.new_page()
    page.goto(demo.url + RIG)
    page.get_by_role("button", name="Open the microphone").click()
    page.get_by_role("button", name="Record", exact=True).click()
    page.wait_for_timeout(2500)
    page.evaluate("window.stream.getAudioTracks()[0].dispatchEvent(new Event('ended'))")
    expect(page.get_by_text("The microphone was unplugged.")).to_be_visible()
    expect(page.locator("section.new")).to_be_visible(timeout=15_000)
    context.close()
