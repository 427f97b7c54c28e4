"""Measure speed and memory, print the table and write it to docs/BENCH.md.

Every number is of this machine, the production build, and a database on disk.
"""

import gzip
import json
import os
import platform
import signal
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from http.client import HTTPException
from pathlib import Path
from threading import Event, Thread
from typing import Any

import numpy as np
from fastapi.testclient import TestClient
from playwright.sync_api import Browser, Page, sync_playwright

from lyrandis.api.app import Settings, create_app
from lyrandis.cli import settle_memory
from lyrandis.core import entries as e
from lyrandis.core.archer.readings import DrawMarked
from lyrandis.core.arrow.after import _strikes
from lyrandis.core.arrow.beam import modes_of
from lyrandis.core.arrow.closing import moves_of
from lyrandis.core.arrow.match import match_spine
from lyrandis.core.arrow.quiver import QuiverArrow, best_matched
from lyrandis.core.arrow.readings import ArrowMassed
from lyrandis.core.arrow.show import _recorded, shot_drawing
from lyrandis.core.arrow.spine_board import spine_board
from lyrandis.core.assessment import assess, judge
from lyrandis.core.bench_readings import Noted
from lyrandis.core.bow.board import Wish
from lyrandis.core.bow.choosing import _family_board, choosing_board
from lyrandis.core.bow.likeness import likeness_of
from lyrandis.core.bow.moving_mass import moving_mass
from lyrandis.core.bow.readings import BowWeighed
from lyrandis.core.bow.statics import SEGMENTS, BowShape, solve_curve
from lyrandis.core.bow.weight import draw_weight_at
from lyrandis.core.computed import compute
from lyrandis.core.crawls.fit import FitMark, Prior, fit_crawls, next_distance, odd_one
from lyrandis.core.crawls.readings import CrawlMark
from lyrandis.core.effective import in_order
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.belief import new_axis
from lyrandis.core.flight.board import board
from lyrandis.core.flight.choose import PLAIN_TESTS, Sitting, ranked, seen
from lyrandis.core.flight.curves import SPINE_EXAMPLE
from lyrandis.core.flight.likely import NOISE
from lyrandis.core.flight.proved import Proved
from lyrandis.core.flight.shot_curves import curves_of, unfletched
from lyrandis.core.jot import parse
from lyrandis.core.listen.hear import PLAIN_SERIES, StringVoice, as_take, hear
from lyrandis.core.order.doubt import states_of
from lyrandis.core.reading import Subject, SubjectKind
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.core.string.readings import BraceHeight
from lyrandis.core.string.settling import fit_settling
from lyrandis.core.string.sweep import Height, sweep
from lyrandis.demo.scenario import drafts
from lyrandis.sounds.reading import wav_of
from lyrandis.store.bench import Bench
from lyrandis.store.database import open_database

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
from tests.api.conftest import HOST
from tests.api.fuzz import fuzz
from tests.core.crawls.archers import named
from tests.core.crawls.archers import tried as walked
from tests.core.flight.trials import TESTS
from tests.core.listen.signals import r1
from tests.core.listen.test_blind import FAULTS
from tests.core.listen.test_blind import trial as blind
from tests.core.listen.test_shot_time import tried as heard_shots
from tests.core.listen.test_tap import tried as heard_taps
from tests.core.string.archers import by_ear, by_the_model, creep, readings_of, within
from tests.entries import entries
from tools.prove_flight import proved

ODD_REQUESTS = 15_000

ROOT = Path(__file__).resolve().parents[1]
_BROWSERS = ("/usr/bin/chromium", "/usr/bin/chromium-headless-shell")
_FOUND = next((path for path in _BROWSERS if Path(path).exists()), _BROWSERS[0])
CHROMIUM = os.environ.get("CHROMIUM", _FOUND)
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-sync"]
RIG = "marram-longbow"
NOW = datetime(2026, 3, 1, tzinfo=UTC)


REFERENCE_PACE_S = 0.25
"""What the loop of additions takes on this machine in an ordinary spell."""
_TIMES = frozenset({"ms", "s"})


@dataclass
class Row:
    """One measured number against its limit."""

    what: str
    measured: float
    limit: float
    unit: str
    how: str
    least: bool = False
    """True when the limit is to be reached, not kept under."""
    pace_s: float = REFERENCE_PACE_S
    """What the loop of additions took meanwhile, on the average."""
    paced: float | None = None
    """The figure at the reference pace, where every run has a pace of its own."""

    @property
    def at_reference(self) -> float:
        """The figure at the reference pace: times only; sizes do not depend on it."""
        if self.paced is not None:
            return self.paced
        share = REFERENCE_PACE_S / self.pace_s
        return self.measured * share if self.unit in _TIMES else self.measured

    @property
    def kept(self) -> bool:
        said = self.at_reference
        return said >= self.limit if self.least else said < self.limit


def paced(measure: Callable[[], list[Row]]) -> list[Row]:
    """Run the loop of additions before, behind and while rows are measured: their mean pace."""
    _PACES[:] = [pace()]
    rows = measure()
    _PACES.append(pace())
    for row in rows:
        row.pace_s = statistics.mean(_PACES)
    return rows


_PACES: list[float] = []
"""Paces since the present rows began."""


def many_drafts(count: int = 500) -> list[e.EntryDraft]:
    """The demo's longbow with its history grown to `count` entries."""
    found = [d for d in drafts() if d.subject.id in _LONGBOW]
    number = 0
    while len(found) < count:
        number += 1
        readings: list[tuple[SubjectKind, str, Any]] = [
            ("archer", "oda", DrawMarked(draw_length_mm=695.0 + number % 7)),
            ("bow", "marram", BowWeighed(draw_weight_lbf=40 + number % 5, draw_length_mm=690.0)),
            (
                "arrow_set",
                "ash-set-b",
                ArrowMassed(arrow_mass_gr=468.0, arrow_number=1 + (number - 1) % 200),
            ),
            ("rig", RIG, BraceHeight(brace_height_mm=190.0 + number % 3)),
        ]
        for kind, subject, reading in readings:
            found.append(
                e.EntryDraft(
                    subject=Subject(kind=kind, id=subject),
                    reading=reading,
                    happened_at=NOW - timedelta(days=20, minutes=-number),
                )
            )
    return found[:count]


_LONGBOW = {"oda", "marram", "marram-string-16", "ash-set-b", RIG}


class Times(list[float]):
    """The milliseconds of each run, with what the loop of additions took just before it [s]."""

    def __init__(self) -> None:
        self.paces: list[float] = []

    def run(self, what: Callable[[], Any]) -> None:
        self.paces.append(50 * pace(100_000))
        self.append(_once(what))

    def at_reference(self) -> list[float]:
        """A shared machine halves its pace for a second, then has it back: run by run."""
        return [ms * REFERENCE_PACE_S / now for ms, now in zip(self, self.paces, strict=True)]


def p95(times: list[float]) -> float:
    return statistics.quantiles(times, n=20)[-1]


def slowest(what: str, times: Times, limit: float, how: str) -> Row:
    """Return a row of the p95 of some questions to the server, which has a pace of its own."""
    return Row(f"{what}, p95", p95(times), limit, "ms", how)


def timed(run: Callable[[], Any], times: int) -> Times:
    """Return the milliseconds of each run, after a few to warm up."""
    for _ in range(5):
        run()
    found = Times()
    for _ in range(times):
        found.run(run)
    _PACES.extend(found.paces)
    return found


def bench_core() -> list[Row]:
    entries = as_entries(many_drafts(), now=NOW)
    settle_memory()  # as the server does
    judging = timed(lambda: assess(fold(entries, rig=RIG, ordered=True)), 200)
    how = f"fold and assess, 500 entries, 200 runs (median {statistics.median(judging):.1f} ms)"
    many = as_entries(many_drafts(5000), now=NOW)
    growing = timed(lambda: assess(fold(many, rig=RIG, ordered=True)), 40)
    times = statistics.median(growing) / statistics.median(judging)
    return [
        Row("assess a rig, p95", p95(judging), 9, "ms", how, paced=p95(judging.at_reference())),
        Row("assess 5,000 entries over assess 500", times, 10, "times",
            f"medians; it grows with the log (median {statistics.median(growing):.1f} ms)"),
    ]  # fmt: skip


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
    many = tuple(QuiverArrow(n, 400 + n * 37 % 97, 45 + n * 53 % 29) for n in range(1, 201))
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
        Row("best 100 of 200, median", median(timed(lambda: best_matched(many, 100), 3)), 2000,
            "ms", "exact; more are refused"),
    ]  # fmt: skip


def bench_string() -> list[Row]:
    """Sweep the brace with simulated archers, and time settling and doubt."""
    both, near_both, told = within(200, 7, sound=True, way=by_the_model)
    rated, near_rated, _ = within(200, 7, sound=False, way=by_the_model)
    ear, _, _ = within(200, 7, sound=False, way=by_ear)
    how = "200 simulated archers, a third each kind, ordinary, careless; at most 6 heights"
    world = np.random.default_rng(11)
    readings = readings_of(creep("stretched", world), world)[:9]
    c = compute(fold(as_entries(many_drafts(), now=NOW), rig=RIG))
    events = c.order.events
    settle = timed(lambda: fit_settling.__wrapped__(readings).is_settled, 40)
    heights = tuple(Height(190.0 + 3 * n, (4.0, 3.0), (3.0,)) for n in range(5))
    swept = timed(lambda: sweep.__wrapped__(heights, (177.8, 203.2)), 40)
    doubt = timed(lambda: states_of(events, c.order.kind), 200)
    median = statistics.median
    return [
        Row("quiet brace within 1/8 in, sound and ratings", 100 * both, 75, "%",
            f"{how}; it said {100 * told:.0f} %", least=True),
        Row("the same within 3/16 in", 100 * near_both, 90, "%", how, least=True),
        Row("quiet brace within 1/8 in, ratings alone", 100 * rated, 65, "%",
            f"within 3/16 in {100 * near_rated:.0f} %", least=True),
        Row("step a quarter inch and listen", 100 * ear, 40, "%", "beside it, same archers",
            least=True),
        Row("settling of 9 readings, median", median(settle), 15, "ms", "nothing kept; own limit"),
        Row("sweep of 5 heights, median", median(swept), 15, "ms", "nothing kept; own limit"),
        Row("doubt, p95", p95(doubt), 1, "ms", f"{len(events)} events of 500 entries"),
    ]  # fmt: skip


def _of(share: float | None) -> float:
    return 100 * share if share is not None else float("nan")


def bench_judgement(found: Proved) -> list[Row]:
    """Virtual rigs of four kinds, shot and judged; what the page "How good is it?" shows."""
    ways = {one.key: one for one in found.ways}
    ours = ways["lyrandis"]
    how = f"{ours.rigs} virtual rigs, four kinds of bow, noise not the engine's"
    said = "; ".join(f"said {w.said:.2f} came true {w.came:.2f} ({w.times})" for w in found.words)
    kinds = "; ".join(f"{k.name} {100 * k.right:.0f}" for k in found.kinds)
    rows = [
        Row("cause found by virtual rigs", _of(ours.right), 93, "%",
            f"{how}; {kinds}; steady {_of(ways['steady'].right):.0f}, beginning "
            f"{_of(ways['beginning'].right):.0f} %", least=True),
        Row("or that of a shaft 3 % off", _of(ours.near), 96, "%", how, least=True),
        Row("right of what is said", _of(ours.said_right), 96, "%", said, least=True),
        Row("false weak found", _of(ours.found), 90, "%", f"of {ours.false_weak}", least=True),
        Row("false weak called weak", _of(ours.called_weak), 1, "%", f"of {ours.false_weak}"),
        Row("tests until enough is known, median", ours.tests, 4, "", f"{ours.arrows:g} arrows"),
    ]  # fmt: skip
    rows += [
        Row(ways[key].name, _of(ways[key].right), least, "%", "beside it", least=True)
        for key, least in (("first", 50), ("rule", 50), ("model", 50), ("random", 80),
                           ("fixed", 80), ("near_match", 75))
    ]  # fmt: skip
    rows += [
        Row(f"world: {one.name}", _of(one.right), _of(one.least_right), "%",
            f"said over 90 %: {one.sure:.2f}, came true {one.came:.2f}; false weak "
            f"{_of(one.found):.0f} %", least=True)
        for one in found.worlds
    ]  # fmt: skip
    limits = {"the shaft alone, ordinary": 90, "shaft and nock, ordinary": 88}
    for one in found.loops:
        share = one.spine if one.both is None else one.both
        rows.append(
            Row(f"closed loop: {one.name}", _of(share), limits.get(one.name, 70), "%",
                f"{'within a tenth' if one.both is None else 'within 13 % and 3 mm'}; median "
                f"{one.arrows:g} arrows, {one.tests:g} tests; said of {_of(one.done):.0f} %",
                least=True)
        )  # fmt: skip
    return rows


def bench_flight() -> list[Row]:
    """Shoot virtual rigs until enough is known, and time one reading and the choice of the next."""
    axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    noise = NOISE["ordinary"]
    update = timed(lambda: seen(axis, PLAIN_TESTS[0], 1, noise), 100)
    choice = timed(lambda: ranked(Sitting({"spine": axis}), TESTS, noise), 40)
    c = compute(fold(as_entries(many_drafts(), now=NOW), rig=RIG))
    shooting, match = c.arrow.shooting, c.arrow.model
    assert shooting is not None
    assert match is not None
    assert match.matched is not None
    shot, matched = shooting.shot, match.matched
    curves = timed(lambda: curves_of.__wrapped__(shot, unfletched(shot), matched, 0.0087), 5)
    boards = timed(lambda: board(c), 10)
    return [
        *bench_judgement(proved()),
        Row("curves of a new rig, median", statistics.median(curves), 700, "ms",
            "18 spines, 9 releases, struck and clean, bare and fletched; off the request's thread"),
        Row("one reading weighed, median", statistics.median(update), 5, "ms", "one axis"),
        Row("next test chosen, median", statistics.median(choice), 60, "ms", "12 tests; kept"),
        Row("board of evidence, median", statistics.median(boards), 60, "ms",
            "demo rig, curves kept; our own limit"),
    ]  # fmt: skip


def bench_crawls() -> list[Row]:
    """Let made-up archers make marks and hold every band against the truth; time one table."""
    marks = [FitMark(10, 50.0), FitMark(20, 36.5), FitMark(30, 22.0), FitMark(40, 8.0)]
    prior = Prior(Estimate(52.0, 3.0), Estimate(68.0, 10.0), Estimate(0.0017, 0.25), 780.0)

    def whole() -> None:
        fit = fit_crawls(prior, marks)
        fit.table(range(5, 61))
        next_distance(fit, range(5, 55, 5))
        odd_one(fit)

    took = timed(whole, 60)
    rows = [
        Row("crawls: fit, 56 rows, bands, next mark, median", statistics.median(took), 15, "ms",
            "four marks", paced=statistics.median(took.at_reference())),
    ]  # fmt: skip
    for count in (1, 2, 4, 8):
        found, other = walked(500, count, count), walked(500, count, 50 + count, richer=True)
        rows.append(
            Row(f"crawls: bands hold the truth, {count} marks", 100 * found.share, 93, "%",
                f"500 made-up archers, ± 2 mm; by distance {100 * found.covered.min():.0f} to "
                f"{100 * found.covered.max():.0f} %; in a richer world {100 * other.share:.1f} %; "
                f"off by {found.off_mm:.1f} mm, median", least=True)
        )  # fmt: skip
    best = walked(500, [5.0, 45.0], 9)
    careless = walked(500, 6, 10, repeat_mm=4.0, told=False)
    return [
        *rows,
        Row("crawls: table off by, two best distances", best.off_mm, 2, "mm",
            "median of 5 to 50 m"),
        Row("crawls: named where one is 4 sd off, of 8", 100 * named(400, 8, 4.0), 85, "%",
            "90 asked; false alarms one table in ten", least=True),
        Row("crawls: named where one is 5 sd off, of 5", 100 * named(400, 5, 5.0), 85, "%",
            "90 asked", least=True),
        Row("crawls: bands of an archer twice as careless", 100 * careless.share, 80, "%",
            "six marks, ± 4 mm, told nothing", least=True),
    ]  # fmt: skip


def bench_listen() -> list[Row]:
    """Time ten seconds of sound; listen to bows of the second synthesiser, blind."""
    whole = np.repeat(r1(48_000.0, 10.0)[:, None], 2, axis=1)

    def listen() -> None:
        heard = hear(whole, 48_000.0, "pluck", StringVoice(PLAIN_SERIES, 100.0))
        for one in heard.features:
            as_take(one)

    took = timed(listen, 12)
    each, seed = 25, 3000
    numbers = range(seed * len(FAULTS), (seed + each) * len(FAULTS))
    with ProcessPoolExecutor(2) as pool:
        found = list(pool.map(blind, numbers, chunksize=4))
    named = {kind: [one.fault for told, one, _ in found if told == kind] for kind in FAULTS}
    spoken = [told == "slack" for told, one, _ in found if one.fault == "slack"]
    share = {kind: 100 * sum(one == kind for one in faults) / each
             for kind, faults in named.items()}  # fmt: skip
    healthy = 100 * named["none"].count(None) / each
    false = 100 * sum(kind.count("rattle") for kind in (named["none"], named["brace"])) / each / 2
    shots, taps = heard_shots(200, 10, 21), heard_taps(150, 20, 22)[0]
    off, rung = np.abs(shots), np.abs(taps)
    how = f"{each} bows each of another synthesiser, 20 dB, five takes, gain control off"
    return [
        Row("sound: ten seconds listened to, median", statistics.median(took), 500, "ms",
            "48 kHz, two channels, four takes", paced=statistics.median(took.at_reference())),
        Row("sound: takes all found", 100 * sum(ok for *_, ok in found) / len(found), 100, "%",
            how, least=True),
        Row("sound: loose part named", share["rattle"], 95, "%", how, least=True),
        Row("sound: loose part invented", false, 5, "%", "healthy bows, and brace off"),
        Row("sound: nothing named on a healthy bow", healthy, 95, "%", how, least=True),
        Row("sound: brace off named", share["brace"], 85, "%", how, least=True),
        Row("sound: slack strand, right when it speaks", 100 * sum(spoken) / max(len(spoken), 1),
            90, "%", f"it speaks of {share['slack']:.0f} % of them", least=True),
        Row("speed by ear off by, median", 100 * float(np.median(off)), 1, "%",
            "200 made-up shots, strike 10 dB over the room"),
        Row("speed by ear off by, 95 %", 100 * float(np.percentile(off, 95)), 2.5, "%", "the same"),
        Row("speed by ear off by over 5 %", 100 * float((off > 0.05).mean()), 3, "%", "the same"),
        Row("stiffness by tap off by, median", 100 * float(np.median(rung)), 1, "%",
            "150 made-up taps, 20 dB"),
        Row("stiffness by tap off by, 95 %", 100 * float(np.percentile(rung, 95)), 2, "%",
            "the same"),
    ]  # fmt: skip


def _bow(said: str) -> e.EntryDraft:
    jotted = parse(said)
    return e.EntryDraft(
        subject=Subject(kind="bow", id="bow"), reading=jotted.reading, happened_at=NOW
    )


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
    first = _once(lambda: served.get(f"/api/rigs/{RIG}?page=bow"))
    return [
        Row("start to first answer", served.start_s, 1.6, "s", "process start, already set up"),
        Row(
            "first judgement of a rig after start", first, 150, "ms", "500 entries, bow's page too"
        ),
    ]


def bench_posting(served: Served) -> list[Row]:
    """Time recording, with the assessment and the page that follow."""
    posting, size, page = _post_many(served)
    how = (
        f"500 entries and growing, bow's page too, over HTTP, 120 runs (median "
        f"{statistics.median(posting):.0f} ms)"
    )
    return [
        slowest("POST /api/entries to new assessment", posting, 30, how),
        Row(
            "its answer, the page apart", size, 40, "kB", f"500 entries; the bow's page {page:.0f}"
        ),
    ]


def _post_many(served: Served) -> tuple[Times, float, float]:
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
    beside = _while_reckoning(
        served, lambda: served.post("/api/readings/parse", typed), point_gr=105
    )
    parsing = timed(lambda: served.post("/api/readings/parse", typed), 200)
    boards = {
        "spine board": f"/api/rigs/{RIG}/spine-board",
        "taper plan": f"/api/rigs/{RIG}/taper-plan?tail_taper_mm=200&tail_diameter_mm=7",
    }
    rows = [
        slowest("parse of a keystroke", parsing, 4, "over HTTP, 500 entries"),
        slowest("the same while curves are reckoned", beside, 20,
                f"{len(beside)} keystrokes; our own limit"),
    ]  # fmt: skip
    for name, path in boards.items():
        first = _once(lambda path=path: served.get(path))  # type: ignore[misc]
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
    beside = _while_reckoning(served, lambda: served.post("/api/entries", body), point_gr=115)
    how = f"{len(beside)} records over HTTP"
    return [slowest("POST beside another rig's curves", beside, 60, how)]


def _while_reckoning(served: Served, ask: Callable[[], Any], *, point_gr: int) -> Times:
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


def bench_numbered() -> list[Row]:
    """Judge many numbered arrows: twice as many take twice as long."""
    bow = ["draw 28", "scale 40 @ 28"]

    def took(count: int) -> float:
        told = [f"arrow {n % 999 + 1} spine {50 + n % 9}lb" for n in range(count)]
        told += [f"arrow {n % 999 + 1} {400 + n % 30}gr" for n in range(count)]
        setup_ = fold(entries(*bow, *told))
        assess(setup_)
        return statistics.median(timed(lambda: assess(setup_), 5))

    few, many = took(500), took(2000)
    how = f"{few:.0f} ms for 500 readings, {many:.0f} ms for 2,000"
    return [Row("2,000 numbered arrows over 500", many / few, 6, "times", how)]


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


def bench_memory(served: Served) -> list[Row]:
    return [Row("process memory, highest", served.memory_mb(), 150, "MB", "VmHWM after the above")]


def many_marks(count: int, notes: int = 0) -> list[e.Entry]:
    """The demo's recurve with seasons of crawls, and notes between them."""
    rng = np.random.default_rng(1)
    at, rig = datetime(2026, 4, 1, tzinfo=UTC), Subject(kind="rig", id="tideway-recurve")
    found = list(drafts())
    for number in range(max(count, notes)):
        readings: list[Any] = []
        if number < count:
            far = float(rng.choice([10, 15, 18, 20, 25, 27, 30, 35, 40]))
            deep = max(0.0, 60 - 1.4 * far + float(rng.normal(0, 2)))
            readings.append(CrawlMark(distance_m=far, crawl_mm=deep))
        if number < notes:
            readings.append(Noted(text=f"note {number}"))
        found += [
            e.EntryDraft(subject=rig, reading=one, happened_at=at + timedelta(minutes=number))
            for one in readings
        ]
    return in_order(as_entries(found, now=datetime(2026, 12, 1, tzinfo=UTC)))


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
        recording = _once(lambda: kept.extend(bench.record(batch, seen=0)))
        taking = _once(lambda: bench.retract(*(e.Taking(entry_id=one.id) for one in kept)))
    return [
        Row("a note on 4,000 crawls over 2,000", times, 3, "times",
            f"medians: {median(two):.0f} and {median(four):.0f} ms"),
        Row("a note at 20,000 entries, median", median(long), 100, "ms",
            "2,500 of them crawls, two sets of arrows; fold, compute and judge",
            paced=median(long.at_reference())),
        Row("500 entries in one batch", recording / 1000, 2, "s", "our own limit"),
        Row("500 retractions of one subject", taking / 1000, 2, "s", "our own limit"),
    ]  # fmt: skip


kept: list[e.Entry] = []
"""What the batch recorded, to be taken back."""


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


def bench_growth(usual_ms: float) -> list[Row]:
    """Time recording on a rig with ten times the entries."""
    with tempfile.TemporaryDirectory() as folder:
        served = Served(Path(folder), 5000)
        try:
            posting, size, _ = _post_many(served)
        finally:
            served.stop()
    median = statistics.median(posting.at_reference())
    how = f"medians at the reference pace: {median:.0f} ms; answer {size:.0f} kB"
    return [Row("POST with 5,000 entries over 500", median / usual_ms, 3, "times", how)]


def _once(run: Callable[[], Any]) -> float:
    start = time.perf_counter()
    run()
    return (time.perf_counter() - start) * 1000


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


def pace(additions: int = 5_000_000) -> float:
    """Return the seconds a fixed loop takes now: a shared machine is not always equally fast."""
    start = time.perf_counter()
    total = 0
    for number in range(additions):
        total += number
    return time.perf_counter() - start


def table(rows: list[Row]) -> str:
    lines = [
        "| what | measured | at 0.25 s | limit | kept | how |",
        "| --- | --- | --- | --- | --- | --- |",
    ]
    for row in rows:
        places = 2 if row.unit == "s" else 1
        lines.append(
            f"| {row.what} | {row.measured:.{places}f} {row.unit} "
            f"| {row.at_reference:.{places}f} {row.unit} | {row.limit:g} {row.unit} "
            f"| {'yes' if row.kept else 'NO'} | {row.how} |"
        )
    return "\n".join(lines)


def main() -> int:
    rows = [
        row
        for part in (
            bench_core,
            bench_mechanics,
            bench_arrow,
            bench_string,
            bench_crawls,
            bench_listen,
            bench_flight,
        )
        for row in paced(part)
    ]
    with tempfile.TemporaryDirectory() as folder:
        served = Served(Path(folder))
        try:
            parts = (
                bench_start, bench_posting, bench_questions, bench_memory, bench_other_rig,
                bench_beside, bench_page,
            )  # fmt: skip
            rows += [row for part in parts for row in paced(lambda part=part: part(served))]  # type: ignore[misc]
            usual = statistics.median(_post_many(served)[0].at_reference())
        finally:
            served.stop()
    rows += paced(lambda: bench_growth(usual))
    rows += [row for part in (bench_logs, bench_long_recording) for row in paced(part)]
    rows += [row for part in (bench_numbered, bench_stop, bench_fuzz) for row in paced(part)]
    paces = [row.pace_s for row in rows]
    text = table(rows)
    how_fast = (
        "Around and within each group of rows a loop of 5 million additions was timed: "
        f"{min(paces):.2f} to {max(paces):.2f} s. Times are also given at the pace of "
        f"{REFERENCE_PACE_S} s, and it is those that are held against the limits."
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
