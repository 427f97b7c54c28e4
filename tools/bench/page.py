"""The page in a real browser."""

import gzip
import os
import statistics
import time
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright
from tools.bench.material import RIG
from tools.bench.rows import Row, p95
from tools.bench.served import Served

_BROWSERS = ("/usr/bin/chromium", "/usr/bin/chromium-headless-shell")


_FOUND = next((path for path in _BROWSERS if Path(path).exists()), _BROWSERS[0])


CHROMIUM = os.environ.get("CHROMIUM", _FOUND)


FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-sync"]


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
        walk(served)
        planning = plan_to_numbers(browser, f"{served.url}/rigs/{RIG}/crawls/plan")
        browser.close()
    weight = sum(len(gzip.compress(served.get(url.removeprefix(served.url)))) for url in scripts)
    how = f"new context each, 8 visits (slowest {max(seen):.2f} s)"
    slid = f"in the browser, 500 entries, 40 places (median {statistics.median(sliding):.0f} ms)"
    return [
        Row("rig page JavaScript, gzip", weight / 1000, 180, "kB", f"{len(scripts)} files"),
        Row("rig page, to findings visible, median", statistics.median(seen), 1.0, "s", how),
        Row("frames while dragging the string", drag, 50, "/s", "2 s of dragging", least=True),
        Row("what-if slider to updated numbers, p95", p95(sliding), 70, "ms", slid),
        Row("crawls' planning slider to what it needs, p95", p95(planning), 60, "ms",
            f"in the browser, 40 places (median {statistics.median(planning):.0f} ms)"),
    ]  # fmt: skip


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
    mass = """[...document.querySelectorAll('dl.numbers > div')]
                .find((div) => div.textContent.includes('Finished mass'))"""
    found = moved_to_text(page, "try-point_gr", mass, [30 + 5 * run for run in range(42)])
    page.close()
    return found


def walk(served: Served) -> None:
    """Let the rig's archer walk the string: three crawls."""
    marks = [{"kind": "crawl_mark", "distance_m": at, "crawl_mm": crawl}
             for at, crawl in ((10.0, 50.0), (20.0, 33.0), (30.0, 14.0))]  # fmt: skip
    subject = {"kind": "rig", "id": RIG}
    served.post("/api/entries", {"entries": [{"subject": subject, "reading": m} for m in marks]})


def plan_to_numbers(browser: Browser, url: str) -> list[float]:
    """Return the milliseconds from moving the wished point-on to what it needs."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(url)
    page.get_by_role("slider", name="Point-on at").wait_for()
    page.wait_for_timeout(500)
    needs = "document.querySelector('#needs-title').closest('section').querySelector('ul')"
    found = moved_to_text(page, "wished", needs, [30 + run // 6 + run % 2 * 8 for run in range(42)])
    page.close()
    return found


def moved_to_text(page: Page, slider: str, where: str, values: list[int]) -> list[float]:
    """Return the milliseconds from each value of a slider to a new text, the first two left out."""
    found: list[float] = page.evaluate(
        f"""async (values) => {{
             const slider = document.getElementById('{slider}');
             const text = () => ({where})?.textContent;
             const times = [];
             for (const value of values) {{
               const before = text();
               const start = performance.now();
               slider.value = value;
               slider.dispatchEvent(new Event('input', {{ bubbles: true }}));
               while (text() === before) {{
                 if (performance.now() - start > 3000) throw new Error(`${{value}}: no answer`);
                 await new Promise((done) => setTimeout(done, 1));
               }}
               times.push(performance.now() - start);
               await new Promise((done) => setTimeout(done, 60));
             }}
             return times.slice(2);
           }}""",
        values,
    )
    return found
