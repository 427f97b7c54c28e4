"""Long logs, long recordings, odd requests, a stop in the middle of work."""

import json
import signal
import statistics
import tempfile
import time
from contextlib import suppress
from datetime import UTC, datetime
from http.client import HTTPException
from pathlib import Path
from threading import Thread

import numpy as np
from fastapi.testclient import TestClient
from tests.api.conftest import HOST
from tests.api.fuzz import fuzz
from tools.bench.material import RIG, many_marks
from tools.bench.rows import Row, Times, once, timed
from tools.bench.served import Served

from lyrandis.api.app import Settings, create_app
from lyrandis.cli import settle_memory
from lyrandis.core import entries as e
from lyrandis.core.assessment import judge
from lyrandis.core.bench_readings import Noted
from lyrandis.core.computed import compute
from lyrandis.core.reading import Subject
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import drafts
from lyrandis.sounds.reading import wav_of
from lyrandis.store.bench import Bench
from lyrandis.store.database import open_database


def bench_stop() -> list[Row]:
    """Time Ctrl+C while heavy questions are being answered."""
    with tempfile.TemporaryDirectory() as folder:
        served = Served(Path(folder))

        def heavy(first: int) -> None:
            with suppress(OSError, HTTPException):
                for grains in range(first, first + 60):
                    served.get(f"/api/rigs/{RIG}/arrow-trial?point_gr={grains}")

        working = [Thread(target=heavy, args=(first,)) for first in (60, 160, 260)]
        for one in working:
            one.start()
        time.sleep(0.5)
        start = time.perf_counter()
        served.process.send_signal(signal.SIGINT)
        served.process.wait()
        stopped = time.perf_counter() - start
        for one in working:
            one.join()
    return [Row("Ctrl+C beside heavy questions", stopped, 2, "s", "until the process is gone")]


ODD_REQUESTS = 15_000


def bench_fuzz() -> list[Row]:
    """Send odd requests to an app in this process, afresh every 500; count what made it stumble."""
    stumbles = 0
    with tempfile.TemporaryDirectory() as folder:
        for seed in range(ODD_REQUESTS // 500):
            database = Path(folder) / f"{seed}.sqlite3"
            app = create_app(Settings(database=database, demo=True))
            with TestClient(app, base_url=HOST, raise_server_exceptions=False) as client:
                try:
                    fuzz(client, 500, 100 + seed)
                except AssertionError as stumbled:
                    print(stumbled)
                    stumbles += 1
    how = f"{ODD_REQUESTS} seeded requests made from the API's document"
    return [Row("odd requests that make it stumble", stumbles, 1, "", how)]


def bench_logs() -> list[Row]:
    """Time a note on rigs with seasons of crawls, and batches in the store."""

    def note(entries_: list[e.Entry]) -> Times:
        rig = Subject(kind="rig", id="tideway-recurve")
        number = iter(range(1000))

        def once() -> None:
            draft = e.EntryDraft(subject=rig, reading=Noted(text=f"one more {next(number)}"))
            more = as_entries([draft], now=datetime(2026, 12, 2, tzinfo=UTC), after=len(entries_))
            judge(compute(fold([*entries_, *more], rig=rig.id, ordered=True)))

        return timed(once, 12)

    settle_memory()
    two, four = note(many_marks(2000)), note(many_marks(4000))
    long = note(many_marks(2500, 17_500))
    median = statistics.median
    times = median(four.at_reference()) / median(two.at_reference())
    with tempfile.TemporaryDirectory() as folder:
        bench = Bench(open_database(Path(folder) / "bench.sqlite3"), lambda: datetime.now(UTC))
        bench.load(drafts(), origin="demo")
        on = Subject(kind="rig", id=RIG)
        batch = [e.EntryDraft(subject=on, reading=Noted(text=f"n {n}")) for n in range(500)]
        kept: list[e.Entry] = []
        recording = once(lambda: kept.extend(bench.record(batch, seen=0)))
        taking = once(lambda: bench.retract(*(e.Taking(entry_id=one.id) for one in kept)))
    return [
        Row("a note on 4,000 crawls over 2,000", times, 3, "times",
            f"medians: {median(two):.0f} and {median(four):.0f} ms"),
        Row("a note at 20,000 entries, median", median(long), 100, "ms",
            "2,500 of them crawls, two sets of arrows; fold, compute and judge",
            paced=median(long.at_reference())),
        Row("500 entries in one batch", recording / 1000, 2, "s", "our own limit"),
        Row("500 retractions of one subject", taking / 1000, 2, "s", "our own limit"),
    ]  # fmt: skip


def bench_long_recording() -> list[Row]:
    """Bring three minutes of stereo to a server of its own, and listen to them."""
    with tempfile.TemporaryDirectory() as folder:
        served = Served(Path(folder))
        try:
            rng = np.random.default_rng(1)
            sound = (rng.normal(size=(48_000 * 178, 2)) * 1e-3).astype("f4")
            ring = 0.3 * np.sin(600 * np.arange(12_000) / 48_000) * np.exp(-np.arange(12_000) / 6e3)
            for take in range(20):
                sound[48_000 * (2 + 8 * take) :][:12_000, 0] += ring.astype("f4")
            raw = wav_of(sound, 48_000)
            before = served.cpu_s()
            kept_ = json.loads(served.post_bytes("/api/sounds", raw))
            bringing = served.cpu_s() - before
            body = {"what": "pluck"}
            hear = f"/api/rigs/{RIG}/sounds/{kept_['mark']}/hear"
            while "share" in served.post(hear, body):
                pass
            memory = served.memory_mb()
        finally:
            served.stop()
    return [
        Row("bringing a recording of 34 MB, processor", bringing, 0.5, "s", "joined once"),
        Row("memory, three minutes of stereo heard", memory, 300, "MB", "178 s at 48 kHz, VmHWM"),
    ]  # fmt: skip
