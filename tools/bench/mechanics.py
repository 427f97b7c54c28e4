"""Speed of the core: judging a rig, and the mechanics with nothing kept from before."""

import gzip
import statistics

from tests.entries import entries
from tools.bench.material import NOW, RIG, bow_said, many_drafts
from tools.bench.rows import Row, p95, timed

from lyrandis.cli import settle_memory
from lyrandis.core.arrow.after import _strikes
from lyrandis.core.arrow.beam import modes_of
from lyrandis.core.arrow.closing import moves_of
from lyrandis.core.arrow.match import match_spine
from lyrandis.core.arrow.matched import match_of
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
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import drafts


def bench_core() -> list[Row]:
    entries = as_entries(many_drafts(), now=NOW)
    settle_memory()  # as the server does
    judging = timed(lambda: assess(fold(entries, rig=RIG, ordered=True)), 200)
    how = f"fold and assess, 500 entries, 200 runs (median {statistics.median(judging):.1f} ms)"
    many = as_entries(many_drafts(5000), now=NOW)
    growing = timed(lambda: assess(fold(many, rig=RIG, ordered=True)), 40)
    times = statistics.median(growing) / statistics.median(judging)
    return [
        Row("assess a rig, p95", p95(judging), 9, "ms", how, paced=p95(judging.at_reference()),
            why="p95 was 8.7, 10.5 and 11.9 ms at the reference pace on the morning of 1 December "
            "and is 14.0 since the match asks both schools. An assessment makes some 140 values "
            "and findings, checked each, and 210 figures; reading the log anew is a fifth of it."),
        Row("assess 5,000 entries over assess 500", times, 10, "times",
            f"medians; it grows with the log (median {statistics.median(growing):.1f} ms)"),
    ]  # fmt: skip


def bench_mechanics() -> list[Row]:
    """Time the bow's mechanics with nothing kept from before."""
    shape = BowShape("hunting_recurve", 62 * 25.4, 17 * 25.4, 8 * 25.4)
    curve = timed(lambda: solve_curve.__wrapped__(shape, SEGMENTS), 60)
    drafts = [bow_said("family hunting recurve"), bow_said("bow 62"), bow_said("riser 17")]
    drafts += [bow_said(f"scale {18 + 2.2 * n} @ {18 + n}") for n in range(0, 16, 2)]
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
    match_of(shooting.shot, shooting.habit, shooting.own_lbf)

    def shot() -> None:
        for kept in (_recorded, modes_of):
            kept.cache_clear()
        shot_drawing(shooting, lift_mm=3.0, lift_read=True, outward_is_left=True)

    def match() -> None:
        for kept in (match_of, match_spine, modes_of):
            kept.cache_clear()
        match_of(shooting.shot, shooting.habit, shooting.own_lbf)

    def board() -> None:
        for kept in (moves_of, _strikes):
            kept.cache_clear()
        spine_board(c)

    quiver = tuple(QuiverArrow(n, 440 + n * 37 % 41, 48 + n * 53 % 13) for n in range(1, 25))
    many = tuple(QuiverArrow(n, 400 + n * 37 % 97, 45 + n * 53 % 29) for n in range(1, 201))
    drawn = shot_drawing(shooting, lift_mm=3.0, lift_read=True, outward_is_left=True)
    size = len(gzip.compress(drawn.model_dump_json().encode())) / 1000
    median = statistics.median
    return [
        Row("animated shot, median", median(timed(shot, 30)), 60, "ms", "4 arrows, side view too"),
        Row("match of both schools, median", median(timed(match, 30)), 150, "ms",
            "34 spines x 9 releases, practice, and clearance"),
        Row("board of schools, moves and ways, median", median(timed(board, 8)), 1500, "ms",
            "some 30 matches and 4 flights; our own limit"),
        Row("animation payload, gzip", size, 60, "kB", f"{len(drawn.times_ms)} frames"),
        Row("best 12 of 24, median", median(timed(lambda: best_matched(quiver, 12), 60)), 500,
            "ms", "exact, mass and spine"),
        Row("best 100 of 200, median", median(timed(lambda: best_matched(many, 100), 3)), 2000,
            "ms", "exact; more are refused"),
    ]  # fmt: skip


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
