"""A server in a process of its own, asked over HTTP."""

import json
import os
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from threading import Event, Thread
from typing import Any, Self

from tools.bench.material import RIG, many_drafts
from tools.bench.rows import Row, Times, once, slowest, timed

from lyrandis.store.bench import Bench
from lyrandis.store.database import open_database


class Served:
    """The server in a process of its own over a database with 500 entries of one rig."""

    def __init__(self, folder: Path, count: int = 500) -> None:
        bench = Bench(open_database(folder / "bench.sqlite3"), lambda: datetime.now(UTC))
        bench.load(many_drafts(count), origin="demo")
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
        """Ask as the page does: again while an answer is not there yet."""
        while True:
            with urllib.request.urlopen(self.url + path, timeout=10) as answer:
                body: bytes = answer.read()
                if answer.status != 202:
                    return body

    def post(self, path: str, body: Any) -> Any:
        return json.loads(self.post_raw(path, body))

    def tag(self, path: str) -> str:
        with urllib.request.urlopen(self.url + path, timeout=10) as answer:
            tag: str = answer.headers["etag"]
            return tag

    def unchanged(self, path: str, tag: str) -> None:
        """Ask with a tag that still holds."""
        request = urllib.request.Request(self.url + path, headers={"if-none-match": tag})
        try:
            urllib.request.urlopen(request, timeout=10)
        except urllib.error.HTTPError as answer:
            if answer.code == 304:
                return
        raise RuntimeError("the tag does not hold")

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.stop()

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait()

    def post_raw(self, path: str, body: Any) -> bytes:
        request = urllib.request.Request(
            self.url + path,
            json.dumps(body).encode(),
            {"content-type": "application/json", "host": self.url.removeprefix("http://")},
        )
        with urllib.request.urlopen(request, timeout=10) as answer:
            answered: bytes = answer.read()
            return answered

    def post_bytes(self, path: str, raw: bytes) -> bytes:
        request = urllib.request.Request(self.url + path, raw, {"content-type": "audio/wav"})
        with urllib.request.urlopen(request, timeout=60) as answer:
            answered: bytes = answer.read()
            return answered

    def cpu_s(self) -> float:
        """Seconds of the processor the process has taken."""
        told = Path(f"/proc/{self.process.pid}/stat").read_text().rsplit(")", 1)[1].split()
        return (int(told[11]) + int(told[12])) / os.sysconf("SC_CLK_TCK")

    def memory_mb(self) -> float:
        for line in Path(f"/proc/{self.process.pid}/status").read_text().splitlines():
            if line.startswith("VmHWM"):
                return int(line.split()[1]) / 1024
        raise RuntimeError("no memory reading")


def bench_start(served: Served) -> list[Row]:
    """Time the very first questions of a process."""
    first = once(lambda: served.get(f"/api/rigs/{RIG}?page=bow"))
    return [
        Row(
            "start to first answer",
            served.start_s,
            1.6,
            "s",
            "process start, already set up",
            why="loading is all of it: some 340 shapes of readings and answers and 240 values are "
            "built as their modules load (1.3 s), the web framework, the database's library and "
            "numpy take the rest. Building the shapes only when they are first asked for was tried "
            "and saves a twentieth.",
        ),
        Row(
            "first judgement of a rig after start", first, 150, "ms", "500 entries, bow's page too"
        ),
    ]


def bench_posting(served: Served) -> list[Row]:
    """Time recording, with the assessment and the page that follow."""
    posting, size, page = post_many(served)
    how = (
        f"500 entries and growing, bow's page too, over HTTP, 120 runs (median "
        f"{statistics.median(posting):.0f} ms)"
    )
    return [
        slowest(
            "POST /api/entries to new assessment",
            posting,
            30,
            how,
            "five of its 120 records move the mean draw past the step to which the shot's inputs "
            "are rounded: the match is computed anew (some 60 ms more), and that is just where "
            "the p95 lies. The others take 21 to 26 ms, the median.",
        ),
        Row(
            "its answer, the page apart", size, 40, "kB", f"500 entries; the bow's page {page:.0f}"
        ),
    ]


def post_many(served: Served) -> tuple[Times, float, float]:
    """Return the times of recording a draw, and the kB of the answer and of the page in it."""
    reading = {"kind": "draw_marked", "draw_length_mm": 695.0}
    entry = {"subject": {"kind": "archer", "id": "oda"}, "reading": reading}
    seen = json.loads(served.get(f"/api/rigs/{RIG}"))["revision"]
    body = {"entries": [entry], "rig": RIG, "seen": seen, "page": "bow"}
    posting = timed(lambda: served.post("/api/entries", body), 120)
    whole = len(served.post_raw("/api/entries", body)) / 1000
    without = len(served.post_raw("/api/entries", {**body, "page": None})) / 1000
    return posting, without, whole - without


def bench_questions(served: Served) -> list[Row]:
    """Time what is asked again and again: keystrokes, focus, boards that were made before."""
    typed = {"text": "draw 27 3/8", "rig": RIG, "stage": "archer"}
    beside = while_reckoning(
        served, lambda: served.post("/api/readings/parse", typed), point_gr=105
    )
    parsing = timed(lambda: served.post("/api/readings/parse", typed), 200)
    boards = {
        "spine board": f"/api/rigs/{RIG}/spine-board",
        "taper plan": f"/api/rigs/{RIG}/taper-plan?tail_taper_mm=200&tail_diameter_mm=7",
    }
    rows = [
        slowest("parse of a keystroke", parsing, 4, "over HTTP, 500 entries",
                "reading the line takes 0.1 ms and finding the rig as it is now 0.4; a route that "
                "does nothing takes 2.0 to 2.3 of the rest, the bench's own client in it."),
        slowest("the same while curves are reckoned", beside, 20,
                f"{len(beside)} keystrokes; our own limit",
                "10, 10, 19 and 27 ms in runs on 1 December: the curves have a processor."),
    ]  # fmt: skip
    for name, path in boards.items():
        first = once(lambda path=path: served.get(path))  # type: ignore[misc]
        again = timed(lambda path=path: served.get(path), 40)  # type: ignore[misc]
        rows.append(slowest(f"{name}, the second time", again, 5, f"first {first:.0f} ms"))
    spoken = {**typed, "text": "my draw length is 27 and a half"}
    hearing = timed(lambda: served.post("/api/readings/parse", spoken), 100)
    rows.append(slowest("a line in any order", hearing, 12, "our own limit"))
    tag = served.tag(f"/api/rigs/{RIG}?page=bow")
    focus = timed(lambda: served.unchanged(f"/api/rigs/{RIG}?page=bow", tag), 100)
    rows.append(slowest("focus of the window", focus, 5, "answered by 304"))
    home = timed(lambda: served.get("/api/rigs"), 40)
    rows.append(slowest("home, its one question", home, 25, "one rig, our own limit"))
    return rows


def bench_other_rig(served: Served) -> list[Row]:
    """Time recording on one rig while another one's curves are worked out."""
    other = json.loads(served.post_raw("/api/rigs", {"name": "Another rig"}))["rig"]
    note = {"subject": {"kind": "rig", "id": other}, "reading": {"kind": "noted", "text": "quiet"}}
    body = {"entries": [note], "rig": other, "page": "bow"}
    beside = while_reckoning(served, lambda: served.post("/api/entries", body), point_gr=115)
    how = f"{len(beside)} records over HTTP"
    return [slowest("POST beside another rig's curves", beside, 60, how)]


def while_reckoning(served: Served, ask: Callable[[], Any], *, point_gr: int) -> Times:
    """Return the milliseconds of a question asked over and over until a rig's curves are there.

    `point_gr` is a point no rig had before: curves that are known would be there at once.
    """
    path = f"/api/rigs/{RIG}"
    while json.loads(served.get(path)).get("reckoning"):
        time.sleep(0.25)
    lighter = {"kind": "arrow_build", "point_gr": point_gr}
    entry = {"subject": {"kind": "arrow_set", "id": "ash-set-b"}, "reading": lighter}
    served.post("/api/entries", {"entries": [entry], "rig": RIG})
    time.sleep(0.25)
    found = Times()
    while json.loads(served.get(path)).get("reckoning"):
        for _ in range(5):
            found.run(ask)
    return found


def bench_beside(served: Served) -> list[Row]:
    """Time a light question while the heaviest one after the other are being answered."""
    done = Event()

    def heavy() -> None:
        for grains in range(60, 300):
            if done.is_set():
                return
            served.get(f"/api/rigs/{RIG}/arrow-trial?point_gr={grains}")

    working = Thread(target=heavy)
    working.start()
    light = timed(lambda: served.get("/api/rigs"), 60)
    done.set()
    working.join()
    return [Row("light question beside heavy ones, worst", max(light), 100, "ms", "GET /api/rigs")]


def bench_memory(served: Served) -> list[Row]:
    return [Row("process memory, highest", served.memory_mb(), 150, "MB", "VmHWM after the above")]


def bench_growth(usual_ms: float) -> list[Row]:
    """Time recording on a rig with ten times the entries."""
    with tempfile.TemporaryDirectory() as folder:
        served = Served(Path(folder), 5000)
        try:
            posting, size, _ = post_many(served)
        finally:
            served.stop()
    median = statistics.median(posting.at_reference())
    how = f"medians at the reference pace: {median:.0f} ms; answer {size:.0f} kB"
    return [Row("POST with 5,000 entries over 500", median / usual_ms, 3, "times", how)]
