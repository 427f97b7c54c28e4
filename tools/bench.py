"""Measure speed and memory, print the table and write it to docs/BENCH.md.

Every number is of this machine, the production build, and a database on disk.
"""

import gzip
import json
import os
import platform
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, sync_playwright

from lyrandis.cli import settle_memory
from lyrandis.core import entries as e
from lyrandis.core.arrow.after import _strikes
from lyrandis.core.arrow.beam import modes_of
from lyrandis.core.arrow.closing import moves_of
from lyrandis.core.arrow.match import match_spine
from lyrandis.core.arrow.quiver import QuiverArrow, best_matched
from lyrandis.core.arrow.show import _recorded, shot_drawing
from lyrandis.core.arrow.spine_board import spine_board
from lyrandis.core.assessment import assess
from lyrandis.core.bow.board import Wish
from lyrandis.core.bow.choosing import _family_board, choosing_board
from lyrandis.core.bow.likeness import likeness_of
from lyrandis.core.bow.moving_mass import moving_mass
from lyrandis.core.bow.statics import SEGMENTS, BowShape, solve_curve
from lyrandis.core.bow.weight import draw_weight_at
from lyrandis.core.computed import compute
from lyrandis.core.estimate import Estimate
from lyrandis.core.jot import parse
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import drafts
from lyrandis.store.bench import Bench
from lyrandis.store.database import open_database

ROOT = Path(__file__).resolve().parents[1]
CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium")
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-sync"]
RIG = "marram-longbow"
NOW = datetime(2026, 3, 1, tzinfo=UTC)


@dataclass(frozen=True)
class Row:
    """One measured number against its limit."""

    what: str
    measured: float
    limit: float
    unit: str
    how: str
    least: bool = False
    """True when the limit is to be reached, not kept under."""

    @property
    def kept(self) -> bool:
        return self.measured >= self.limit if self.least else self.measured < self.limit


def many_drafts(count: int = 500) -> list[e.EntryDraft]:
    """The demo's longbow with its history grown to `count` entries."""
    found = [d for d in drafts() if d.subject.id in _LONGBOW]
    number = 0
    while len(found) < count:
        number += 1
        readings: list[tuple[e.SubjectKind, str, Any]] = [
            ("archer", "oda", e.DrawMarked(draw_length_mm=695.0 + number % 7)),
            ("bow", "marram", e.BowWeighed(draw_weight_lbf=40 + number % 5, draw_length_mm=690.0)),
            ("arrow_set", "ash-set-b", e.ArrowMassed(arrow_mass_gr=468.0, arrow_number=number)),
            ("rig", RIG, e.BraceHeight(brace_height_mm=190.0 + number % 3)),
        ]
        for kind, subject, reading in readings:
            found.append(
                e.EntryDraft(
                    subject=e.Subject(kind=kind, id=subject),
                    reading=reading,
                    happened_at=NOW - timedelta(days=20, minutes=-number),
                )
            )
    return found[:count]


_LONGBOW = {"oda", "marram", "marram-string-16", "ash-set-b", RIG}


def p95(times: list[float]) -> float:
    return statistics.quantiles(times, n=20)[-1]


def timed(run: Callable[[], Any], times: int) -> list[float]:
    """Return the milliseconds of each run, after a few to warm up."""
    for _ in range(5):
        run()
    found = []
    for _ in range(times):
        start = time.perf_counter()
        run()
        found.append((time.perf_counter() - start) * 1000)
    return found


def bench_core() -> list[Row]:
    entries = as_entries(many_drafts(), now=NOW)
    settle_memory()  # as the server does
    judging = timed(lambda: assess(fold(entries, rig=RIG)), 200)
    how = f"fold and assess, 500 entries, 200 runs (median {statistics.median(judging):.1f} ms)"
    return [
        Row("assess a rig, p95", p95(judging), 25, "ms", how),
        *bench_mechanics(),
        *bench_arrow(),
    ]


def bench_mechanics() -> list[Row]:
    """Time the bow's mechanics with nothing kept from before."""
    shape = BowShape("hunting_recurve", 62 * 25.4, 17 * 25.4, 8 * 25.4)
    curve = timed(lambda: solve_curve.__wrapped__(shape, SEGMENTS), 60)
    drafts = [_bow("family hunting recurve"), _bow("bow 62"), _bow("riser 17")]
    drafts += [_bow(f"scale {18 + 2.2 * n} @ {18 + n}") for n in range(0, 16, 2)]
    setup = fold(as_entries(drafts, now=NOW))
    likeness, at = likeness_of(setup.bow, None), Estimate(28 * 25.4, 3.0)
    fit = timed(
        lambda: draw_weight_at(
            setup.bow, setup.archer, at=at, hook=Estimate(14.0, 3.0), likeness=likeness
        ),
        60,
    )
    wish = Wish(711.2, 14.0, "split", "woods", 40.0)

    def cold() -> None:
        for kept in (solve_curve, moving_mass, _family_board):
            kept.cache_clear()
        choosing_board(wish)

    boards = timed(cold, 10)
    kept = timed(lambda: choosing_board(wish), 60)
    median = statistics.median
    return [
        Row(
            "draw curve, 40 pieces, median", median(curve), 8, "ms", "brace to 35 in, nothing kept"
        ),
        Row("fit to 8 weighed points, median", median(fit), 60, "ms", "curve known, 60 runs"),
        Row("choosing board, cold, median", median(boards), 400, "ms", "13 lengths x 4 families"),
        Row("choosing board, kept, median", median(kept), 5, "ms", "the same again"),
    ]


def bench_arrow() -> list[Row]:
    """Time the arrow's mechanics with nothing kept from before."""
    c = compute(fold(as_entries(drafts(), now=NOW), rig=RIG))
    assert c.arrow.shooting is not None
    shooting = c.arrow.shooting
    match_spine(shooting.shot, shooting.own_lbf)

    def shot() -> None:
        for kept in (_recorded, modes_of):
            kept.cache_clear()
        shot_drawing(shooting, hold="split", outward_is_left=True)

    def match() -> None:
        for kept in (match_spine, modes_of):
            kept.cache_clear()
        match_spine(shooting.shot, shooting.own_lbf)

    def board() -> None:
        for kept in (moves_of, _strikes):
            kept.cache_clear()
        spine_board(c)

    quiver = tuple(QuiverArrow(n, 440 + n * 37 % 41, 48 + n * 53 % 13) for n in range(1, 25))
    drawn = shot_drawing(shooting, hold="split", outward_is_left=True)
    assert drawn is not None
    size = len(gzip.compress(drawn.model_dump_json().encode())) / 1000
    median = statistics.median
    return [
        Row("animated shot, median", median(timed(shot, 30)), 60, "ms", "4 arrows, side view too"),
        Row("match with 9-release band, median", median(timed(match, 30)), 150, "ms",
            "28 spines x 9 releases, and clearance"),
        Row("board of schools, moves and ways, median", median(timed(board, 8)), 1500, "ms",
            "some 30 matches and 4 flights; our own limit"),
        Row("animation payload, gzip", size, 60, "kB", f"{len(drawn.times_ms)} frames"),
        Row("best 12 of 24, median", median(timed(lambda: best_matched(quiver, 12), 60)), 500,
            "ms", "exact, mass and spine"),
    ]  # fmt: skip


def _bow(said: str) -> e.EntryDraft:
    jotted = parse(said)
    return e.EntryDraft(
        subject=e.Subject(kind="bow", id="bow"), reading=jotted.reading, happened_at=NOW
    )


class Served:
    """The server in a process of its own over a database with 500 entries of one rig."""

    def __init__(self, folder: Path) -> None:
        bench = Bench(open_database(folder / "bench.sqlite3"), lambda: datetime.now(UTC))
        bench.load(many_drafts(), origin="demo")
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{port}"
        command = [sys.executable, "-m", "lyrandis", "serve", "--data", str(folder)]
        start = time.perf_counter()
        self.process = subprocess.Popen([*command, "--port", str(port)], stdout=subprocess.DEVNULL)
        while True:
            try:
                self.get("/api/rigs")
                break
            except OSError:
                time.sleep(0.01)
        self.start_s = time.perf_counter() - start

    def get(self, path: str) -> bytes:
        with urllib.request.urlopen(self.url + path, timeout=10) as answer:
            body: bytes = answer.read()
            return body

    def post(self, path: str, body: Any) -> Any:
        request = urllib.request.Request(
            self.url + path,
            json.dumps(body).encode(),
            {"content-type": "application/json", "host": self.url.removeprefix("http://")},
        )
        with urllib.request.urlopen(request, timeout=10) as answer:
            return json.load(answer)

    def memory_mb(self) -> float:
        for line in Path(f"/proc/{self.process.pid}/status").read_text().splitlines():
            if line.startswith("VmHWM"):
                return int(line.split()[1]) / 1024
        raise RuntimeError("no memory reading")


def bench_server(served: Served) -> list[Row]:
    reading = {"kind": "draw_marked", "draw_length_mm": 695.0}
    entry = {"subject": {"kind": "archer", "id": "oda"}, "reading": reading}
    seen = json.loads(served.get(f"/api/rigs/{RIG}"))["revision"]
    body = {"entries": [entry], "rig": RIG, "seen": seen}
    posting = timed(lambda: served.post("/api/entries", body), 120)
    how = (
        f"500 entries and growing, over HTTP, 120 runs (median {statistics.median(posting):.0f} ms)"
    )
    return [
        Row("start to first answer", served.start_s, 3, "s", "process start, already set up"),
        Row("POST /api/entries to new assessment, p95", p95(posting), 40, "ms", how),
        Row("process memory, highest", served.memory_mb(), 150, "MB", "VmHWM after the above"),
    ]


def bench_page(served: Served) -> list[Row]:
    """Load the rig page as a first visit: sum of scripts, and time until findings are visible."""
    seen: list[float] = []
    scripts: set[str] = set()
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        for run in range(9):
            context = browser.new_context(viewport={"width": 1280, "height": 800})
            page = context.new_page()
            page.on(
                "request", lambda r: scripts.add(r.url) if r.resource_type == "script" else None
            )
            start = time.perf_counter()
            page.goto(f"{served.url}/rigs/{RIG}/bow", wait_until="commit")
            page.locator("aside li").first.wait_for()
            if run:
                seen.append(time.perf_counter() - start)
            page.wait_for_timeout(300)
            context.close()
        drag = frames_while_dragging(browser, f"{served.url}/rigs/{RIG}/bow")
        sliding = slider_to_numbers(browser, f"{served.url}/rigs/{RIG}/arrow/try")
        browser.close()
    weight = sum(len(gzip.compress(served.get(url.removeprefix(served.url)))) for url in scripts)
    how = f"new context each, 8 visits (slowest {max(seen):.2f} s)"
    slid = f"in the browser, 500 entries, 40 places (median {statistics.median(sliding):.0f} ms)"
    return [
        Row("rig page JavaScript, gzip", weight / 1000, 180, "kB", f"{len(scripts)} files"),
        Row("rig page, to findings visible, median", statistics.median(seen), 1.0, "s", how),
        Row("frames while dragging the string", drag, 50, "/s", "2 s of dragging", least=True),
        Row("what-if slider to updated numbers, p95", p95(sliding), 120, "ms", slid),
    ]


def frames_while_dragging(browser: Browser, url: str) -> float:
    """Return frames per second while the string is dragged up and down by the mouse."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(url)
    handle = page.get_by_role("slider", name="String").locator("circle").nth(1)
    handle.wait_for()
    page.wait_for_timeout(1500)
    box = handle.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.evaluate(
        """() => { window.drawn = []; let last = '';
             const each = () => { const now = document.querySelector('[role=slider]').ariaValueText;
               window.drawn.push([performance.now(), now !== last]); last = now;
               requestAnimationFrame(each); };
             requestAnimationFrame(each); }"""
    )
    start, step = time.perf_counter(), 0
    while time.perf_counter() - start < 2:
        step += 1
        page.mouse.move(x, y - 130 * abs((step % 120) / 60 - 1))
    frames = page.evaluate("window.drawn")
    page.mouse.up()
    page.close()
    moved = sum(1 for _, changed in frames if changed)
    assert moved > 30, "the string did not follow the mouse"
    return float((len(frames) - 1) / (frames[-1][0] - frames[0][0]) * 1000)


def slider_to_numbers(browser: Browser, url: str) -> list[float]:
    """Return the milliseconds from moving a slider to the new mass on the page."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(url)
    page.get_by_label("Point", exact=True).wait_for()
    page.wait_for_timeout(500)
    found: list[float] = page.evaluate(
        """async () => {
             const slider = document.getElementById('try-point_gr');
             const cell = [...document.querySelectorAll('dl.numbers > div')]
               .find((div) => div.textContent.includes('Finished mass'));
             const times = [];
             for (let run = 0; run < 42; run += 1) {
               const before = cell.textContent;
               const start = performance.now();
               slider.value = 30 + 5 * run;
               slider.dispatchEvent(new Event('input', { bubbles: true }));
               while (cell.textContent === before) {
                 await new Promise((done) => setTimeout(done, 1));
               }
               times.push(performance.now() - start);
               await new Promise((done) => setTimeout(done, 60));
             }
             return times.slice(2);
           }"""
    )
    page.close()
    return found


def machine() -> str:
    model = next(
        (
            line.split(":")[1].strip()
            for line in Path("/proc/cpuinfo").read_text().splitlines()
            if line.startswith("model name")
        ),
        platform.machine(),
    )
    memory = os.sysconf("SC_PAGE_SIZE") * os.sysconf("SC_PHYS_PAGES") / 2**30
    return (
        f"{model}, {os.cpu_count()} cores, {memory:.0f} GiB, {platform.system()}, "
        f"Python {platform.python_version()}"
    )


def pace() -> float:
    """Return the seconds a fixed loop takes now: a shared machine is not always equally fast."""
    start = time.perf_counter()
    total = 0
    for number in range(5_000_000):
        total += number
    return time.perf_counter() - start


def table(rows: list[Row]) -> str:
    lines = ["| what | measured | limit | kept | how |", "| --- | --- | --- | --- | --- |"]
    for row in rows:
        places = 2 if row.unit == "s" else 1
        lines.append(
            f"| {row.what} | {row.measured:.{places}f} {row.unit} | {row.limit:g} {row.unit} "
            f"| {'yes' if row.kept else 'NO'} | {row.how} |"
        )
    return "\n".join(lines)


def main() -> int:
    paces = [pace()]
    rows = bench_core()
    with tempfile.TemporaryDirectory() as folder:
        served = Served(Path(folder))
        try:
            rows += bench_page(served) + bench_server(served)
        finally:
            served.process.terminate()
            served.process.wait()
    paces.append(pace())
    text = table(rows)
    how_fast = (
        f"A loop of 5 million additions took {paces[0]:.2f} s before and {paces[1]:.2f} s after."
    )
    print(f"{text}\n\n{how_fast}")
    today = datetime.now(UTC).date().isoformat()
    (ROOT / "docs" / "BENCH.md").write_text(
        f"# Bench\n\nWritten by `make bench` on {today}: {machine()}.\n{how_fast}\n\n{text}\n",
        encoding="utf-8",
    )
    return 0 if all(row.kept for row in rows) else 1


if __name__ == "__main__":
    sys.exit(main())
