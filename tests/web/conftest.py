"""The real thing in Debian's Chromium: a served bench, a browser, a page that watches itself."""

import os
import shutil
import socket
import subprocess
import sys
import threading
import time
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
import uvicorn
from playwright.sync_api import (
    Browser,
    BrowserContext,
    ConsoleMessage,
    Page,
    Request,
    expect,
    sync_playwright,
)

from lyrandis.api.app import STATIC, Settings, create_app, openapi_document
from tests.web.wire import UNFOLDED, Wire

_BROWSERS = ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium")
_FOUND = next((path for path in _BROWSERS if Path(path).exists()), _BROWSERS[-1])
CHROMIUM = os.environ.get("CHROMIUM", _FOUND)
CHROMIUM_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


LONGEST_WAIT_MS = 15_000
"""Nothing is as slow as that: three workers share two cores, and what waits is not what fails."""
expect.set_options(timeout=LONGEST_WAIT_MS)

LONGEST_START_S = 60
"""A process that loads beside three others on a slow machine takes ten seconds and more."""


def laid_out(folder: Path, copied: Path | None) -> Path:
    """Make a data folder, empty or with a copy of a database; return its path."""
    folder.mkdir(parents=True)
    if copied is not None:
        shutil.copy(copied, folder / "bench.sqlite3")
    return folder


class Server:
    """A served bench in a process of its own."""

    def __init__(self, folder: Path) -> None:
        self._command = [sys.executable, "-m", "lyrandis", "serve", "--data", str(folder)]
        self._command += ["--port", str(_free_port())]
        self.url = f"http://127.0.0.1:{self._command[self._command.index('--port') + 1]}"
        self.start()

    def start(self) -> None:
        self._process = subprocess.Popen(self._command, stdout=subprocess.DEVNULL)
        end = time.monotonic() + LONGEST_START_S
        while time.monotonic() < end and self._process.poll() is None:
            try:
                urllib.request.urlopen(f"{self.url}/api/rigs", timeout=10).close()
                return
            except OSError:
                time.sleep(0.05)
        self.kill()
        raise RuntimeError("the server did not start")

    def kill(self) -> None:
        self._process.kill()
        self._process.wait()


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
        return port


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    assert (STATIC / "index.html").is_file(), "build the page first: make test does"
    with sync_playwright() as playwright:
        found = playwright.chromium.launch(executable_path=CHROMIUM, args=CHROMIUM_FLAGS)
        yield found
        found.close()


class HereServer:
    """A bench served from a thread of the test itself: quick to start."""

    def __init__(self, folder: Path) -> None:
        database = folder / "bench.sqlite3"
        app = create_app(Settings(database=database, instrument_pace_s=0.01))
        config = uvicorn.Config(app, log_level="error", ws="none", lifespan="on")
        self._server = uvicorn.Server(config)
        listening = socket.socket()
        listening.bind(("127.0.0.1", 0))
        listening.listen(64)  # who comes before the server has started waits, and is not refused
        self.url = f"http://127.0.0.1:{listening.getsockname()[1]}"
        self._thread = threading.Thread(target=self._server.run, args=([listening],), daemon=True)
        self._thread.start()

    def stop(self) -> None:
        self._server.should_exit = True  # within a tenth of a second; nobody waits for it


@pytest.fixture
def demo(tmp_path: Path, demo_file: Path) -> Iterator[HereServer]:
    server = HereServer(laid_out(tmp_path / "demo", demo_file))
    yield server
    server.stop()


@pytest.fixture(scope="session")
def shared_demo(tmp_path_factory: pytest.TempPathFactory, demo_file: Path) -> Iterator[HereServer]:
    """A demo bench for tests that only look; its document is made beforehand, no page waits."""
    openapi_document()
    server = HereServer(laid_out(tmp_path_factory.mktemp("shared") / "demo", demo_file))
    yield server
    server.stop()


@pytest.fixture
def own(tmp_path: Path) -> Iterator[HereServer]:
    server = HereServer(laid_out(tmp_path / "own", None))
    yield server
    server.stop()


@pytest.fixture
def killable(tmp_path: Path, demo_file: Path) -> Iterator[Server]:
    """A demo bench in a process of its own, to be killed and started again."""
    server = Server(laid_out(tmp_path / "killable", demo_file))
    yield server
    server.kill()


@pytest.fixture
def wire(browser: Browser, tmp_path: Path, demo_file: Path) -> Iterator[Wire]:
    """A demo bench in this process, with a hand on every request of the browser."""
    wired = Wire(browser, tmp_path / "wired", demo_file)
    yield wired
    wired.close()
    assert wired.troubles == []


@pytest.fixture(scope="session", autouse=True)
def _warm(reckoned_demo: None) -> None:
    """No page waits for the demo's curves of flight."""


Opener = Callable[..., Page]


def watch(page: Page, url: str, troubles: list[str]) -> None:
    """Note script errors, policy violations and foreign requests of a page."""
    host = "/".join(url.split("/")[:3])

    def note_console(message: ConsoleMessage) -> None:
        if message.type == "error" and "Failed to load resource" not in message.text:
            troubles.append(message.text)

    def note_request(request: Request) -> None:
        if not request.url.startswith((host, "data:", "blob:")):
            troubles.append(f"foreign request {request.url}")

    page.on("console", note_console)
    page.on("pageerror", lambda error: troubles.append(str(error)))
    page.on("request", note_request)


@pytest.fixture(scope="session")
def warm_windows(browser: Browser) -> Iterator[dict[tuple[int, bool], BrowserContext]]:
    """Windows of pages that only look, by width and theme: their code is loaded once."""
    kept: dict[tuple[int, bool], BrowserContext] = {}
    yield kept
    for context in kept.values():
        context.close()


@pytest.fixture
def look(
    browser: Browser, warm_windows: dict[tuple[int, bool], BrowserContext]
) -> Iterator[Opener]:
    """Open a page that records and chooses nothing, in a window that is warm; watched alike."""
    troubles: list[str] = []
    pages: list[Page] = []

    def look_at(url: str, *, width: int = 1280, dark: bool = False) -> Page:
        if (width, dark) not in warm_windows:
            warm_windows[width, dark] = browser.new_context(
                viewport={"width": width, "height": 844},
                color_scheme="dark" if dark else "light",
                reduced_motion="reduce",
            )
            warm_windows[width, dark].set_default_timeout(LONGEST_WAIT_MS)
            warm_windows[width, dark].add_init_script(UNFOLDED)
        page = warm_windows[width, dark].new_page()
        pages.append(page)
        watch(page, url, troubles)
        page.goto(url)
        return page

    yield look_at
    for page in pages:
        page.close()
    assert troubles == []


@pytest.fixture
def open_page(browser: Browser) -> Iterator[Opener]:
    """Open a page; at the end, fail on script errors, policy violations and foreign requests."""
    troubles: list[str] = []
    contexts = []

    def open_(
        url: str, *, width: int = 1280, height: int = 800, dark: bool = False, still: bool = True
    ) -> Page:
        context = browser.new_context(
            viewport={"width": width, "height": height},
            color_scheme="dark" if dark else "light",
            reduced_motion="reduce" if still else "no-preference",
        )
        contexts.append(context)
        context.set_default_timeout(LONGEST_WAIT_MS)
        context.add_init_script(UNFOLDED)
        page = context.new_page()
        watch(page, url, troubles)
        page.goto(url)
        return page

    yield open_
    for context in contexts:
        context.close()
    assert troubles == []


def text_of(page: Page, selector: str = "main") -> str:
    """What a person reads, with every kind of space as a plain one."""
    return " ".join(page.locator(selector).first.inner_text().split())
