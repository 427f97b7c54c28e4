"""Take docs/screenshots afresh from the demo data."""

import sys
import tempfile
import threading
from pathlib import Path

import uvicorn
from playwright.sync_api import Page, expect, sync_playwright

from lyrandis.api.app import Settings, create_app

ROOT = Path(__file__).resolve().parents[1]
OUT = ROOT / "docs" / "screenshots"
_BROWSERS = ("/usr/bin/chromium", "/usr/bin/chromium-headless-shell")
CHROMIUM = next((path for path in _BROWSERS if Path(path).exists()), _BROWSERS[0])
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-sync"]
PORT = 18931
WIDE, PHONE = (1280, 800), (390, 844)


def jot(page: Page) -> None:
    page.get_by_label("Jot", exact=True).fill("tail right 2 @ 3 paces")
    page.get_by_text("Tail clearly right").wait_for()


def by_form(page: Page) -> None:
    """A line that is asked about, and the form of a word above it."""
    page.get_by_role("button", name="Form").click()
    page.get_by_label("What is it about?").fill("tiller")
    page.get_by_role("button", name="tiller upper and lower gap").click()
    page.get_by_role("textbox", name="upper gap").fill("181mm")
    page.get_by_role("textbox", name="lower gap").fill("177mm")
    page.get_by_role("combobox", name="place").select_option("fade")
    page.get_by_text("upper 181.0 mm").wait_for()
    page.get_by_label("Jot", exact=True).fill("nock height 6mm")
    page.get_by_role("button", name="lift 6mm?").wait_for()


def answer_draw(page: Page) -> None:
    page.locator("#first-draw").fill("27 3/8")
    page.get_by_text("reflex-deflex").click()
    page.locator("#first-mark").fill("44 @ 28")
    page.get_by_text("on your fingers").first.wait_for()


def anew(page: Page) -> None:
    """Load it again: rows that moved while it was reckoned leave marks in the picture."""
    page.reload()
    page.get_by_role("heading", level=1).wait_for()
    expect(page.get_by_text("being reckoned")).to_have_count(0)


def moving(page: Page) -> None:
    page.emulate_media(reduced_motion="no-preference")


def choose(page: Page) -> None:
    page.get_by_role("button", name="6 of 7").click()
    page.get_by_text("of spine").first.wait_for()
    page.locator("main").evaluate("(main) => main.scrollTo(0, 0)")


def at_nock(page: Page) -> None:
    page.locator("#station-nock").click()


def drag_nock(page: Page) -> None:
    box = page.get_by_role("slider", name="The nock, left and right").bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 13, box["y"] + 13)
    page.mouse.down()
    page.mouse.move(box["x"] + 105, box["y"] - 6, steps=4)


def log_a_shot(page: Page) -> None:
    for _ in range(7):
        page.get_by_label("One m further").click()
    page.get_by_role("button", name="High").click()
    page.get_by_text("Kept.").wait_for()


def with_waves(page: Page) -> None:
    page.locator("path.wave").first.wait_for()


VIEWS = (
    ("rigs", "/", WIDE, False, anew),
    ("first-run", "/new", WIDE, False, answer_draw),
    ("listen", "/rigs/tideway-recurve/listen", WIDE, False, with_waves),
    ("listen-taps", "/rigs/tideway-recurve/listen/taps", (1280, 1000), True, None),
    ("bow", "/rigs/marram-longbow/bow", WIDE, False, None),
    ("bow-dark", "/rigs/sandpiper-thumb-bow/bow", WIDE, True, None),
    ("jot-form", "/rigs/tideway-recurve/nock", WIDE, False, by_form),
    ("arrow", "/rigs/marram-longbow/arrow", WIDE, False, moving),
    ("now", "/rigs/tideway-recurve/now", WIDE, False, None),
    ("arrow-quiver", "/rigs/marram-longbow/arrow/quiver", WIDE, True, choose),
    ("arrow-stop", "/rigs/sandpiper-thumb-bow/arrow/build", WIDE, False, None),
    ("crawls", "/rigs/tideway-recurve/crawls", WIDE, False, None),
    ("string-brace", "/rigs/marram-longbow/string/brace", WIDE, False, None),
    ("nock", "/rigs/tideway-recurve/nock", WIDE, False, None),
    ("order-dark", "/rigs/tideway-recurve/order", (1280, 1000), True, at_nock),
    ("phone-field", "/field/tideway-recurve", PHONE, False, log_a_shot),
    ("flight", "/rigs/marram-longbow/flight", WIDE, False, jot),
    ("flight-record", "/rigs/marram-longbow/flight/record", WIDE, True, drag_nock),
    ("phone-flight", "/rigs/marram-longbow/flight/record", PHONE, False, None),
)


def main() -> int:
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Settings(database=Path(folder) / "bench.sqlite3", demo=True))
        server = uvicorn.Server(uvicorn.Config(app, port=PORT, log_level="error"))
        threading.Thread(target=server.run, daemon=True).start()
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            for name, path, (width, height), dark, act in VIEWS:
                context = browser.new_context(
                    viewport={"width": width, "height": height},
                    color_scheme="dark" if dark else "light",
                    reduced_motion="reduce",
                )
                page = context.new_page()
                page.goto(f"http://127.0.0.1:{PORT}{path}")
                page.get_by_role("heading", level=1).wait_for()
                page.wait_for_function("() => !document.querySelector('[aria-busy=true]')")
                expect(page.get_by_text("being reckoned")).to_have_count(0)
                if act:
                    act(page)
                page.wait_for_timeout(500)
                page.screenshot(path=OUT / f"{name}.png")
                context.close()
            browser.close()
        server.should_exit = True
    return 0


if __name__ == "__main__":
    sys.exit(main())
