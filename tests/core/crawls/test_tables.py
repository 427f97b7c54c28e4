"""Several tables of one archer: another set begins from the eye of the old one; which is stale."""

import math
from dataclasses import replace

import numpy as np
import pytest

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.crawls.fit import CrawlFit, Prior, fit_crawls
from lyrandis.core.crawls.table import EYE_KEPT_SD_MM, SPEED_KEPT_SD
from lyrandis.core.crawls.tables_board import TableLine, tables_board
from lyrandis.core.estimate import Estimate
from tests.core.crawls.archers import TABLE_M, Walker, walker
from tests.core.crawls.test_crawl_stage import GOOD, rig
from tests.entries import draft

NEW = ("material carbon", "shaft 29 1/2 7gpi", "point 100gr", "diameter 7mm", "arrow 1 350gr")


def put_on(arrow_set: str, day: float) -> e.EntryDraft:
    return draft(PartFitted(part="arrow_set", part_id=arrow_set), on="rig", days=day)


def new_set(*said: str, after: int = 100) -> list[e.EntryDraft]:
    """Another set put on, told of, and what was done with it."""
    told = [draft(line, days=after + 1 + i, subject="set-b") for i, line in enumerate(NEW)]
    done = [draft(line, days=after + 20 + i) for i, line in enumerate(said)]
    return [put_on("set-b", after), *told, *done]


def tables(*said: str | e.EntryDraft) -> list[TableLine]:
    return list(tables_board(rig(*said)).tables)


# what the old set told


def next_set(one: Walker, rng: np.random.Generator) -> Walker:
    """The same archer and bow with other arrows: what the mechanics miss, they miss again."""
    speed, tip = one.speed * rng.uniform(0.93, 1.07), one.tip_mm + rng.uniform(-40, 40)
    missed = one.prior.speed.value / one.speed
    told = speed * missed * math.exp(rng.normal(0, SPEED_KEPT_SD))
    prior = one.prior._replace(speed=Estimate(told, told * 0.058), tip_mm=tip + rng.normal(0, 4.0))
    return replace(one, speed=speed, tip_mm=tip, prior=prior,
                   drag=0.0017 * math.exp(rng.normal(0, 0.25)),
                   eye_mm=one.eye_mm + rng.normal(0, EYE_KEPT_SD_MM))  # fmt: skip


def begun(old: CrawlFit, new: Walker) -> Prior:
    """The prior of new arrows as the rig's numbers make it from the old ones' fit."""
    kept = old.scale**2 * old.covariance[:2, :2]
    speed = new.prior.speed.value * math.exp(old.theta[0]) / old.prior.speed.value
    share = math.hypot(math.sqrt(kept[0][0]), SPEED_KEPT_SD)
    eye = math.hypot(math.sqrt(kept[1][1]), EYE_KEPT_SD_MM / new.kappa)
    return new.prior._replace(
        speed=Estimate(speed, speed * share), eye=Estimate(old.theta[1], eye), together=kept[0][1]
    )


@pytest.mark.parametrize(("marks", "at_most", "share"), [((30.0,), 4.7, 0.75), ((), 7.2, 0.3)])
def test_one_mark_with_new_arrows_is_enough_where_the_old_set_told_eye_and_speed(
    marks: tuple[float, ...], at_most: float, share: float
) -> None:
    rng = np.random.default_rng(31)
    held, plain, kept = [], [], []
    for _ in range(200):
        old = walker(rng)
        before = old.fit(old.marks([5.0, 15.0, 25.0, 35.0, 45.0], rng))
        new = next_set(old, rng)
        made = new.marks(marks, rng)
        truth = np.array([new.crawl(d) for d in TABLE_M])
        rows = fit_crawls(begun(before, new), made, told=True).table(TABLE_M)
        plain.append(np.median([row.half_mm for row in new.fit(made).table(TABLE_M)]))
        kept.append(np.median([row.half_mm for row in rows]))
        held.append([abs(r.crawl_mm - t) <= r.half_mm for r, t in zip(rows, truth, strict=True)])
    assert 0.93 <= float(np.mean(held)) <= 0.985
    assert float(np.median(kept)) < min(at_most, share * float(np.median(plain)))


def test_a_new_set_begins_where_the_old_one_ended_with_its_own_speed() -> None:
    old, new = rig(*GOOD), rig(*GOOD, *new_set())
    assert old.crawls.before is None
    prior, own = new.crawls.marks.prior, new.crawls.basis.rig_prior
    assert prior is not None
    assert prior.eye.value == pytest.approx(old.crawls.marks.fit.theta[1])
    assert prior.eye.sd < own.eye.sd / 2
    faster = math.exp(old.crawls.marks.fit.theta[0]) / old.crawls.marks.prior.speed.value
    assert prior.speed.value == pytest.approx(own.speed.value * faster)
    assert own.speed.value > old.crawls.marks.prior.speed.value * 1.02, "a lighter arrow"
    assert new.crawls.table.half_mm < 0.5 * rig(*new_set("usualcrawl 22mm")).crawls.table.half_mm


@pytest.mark.parametrize("moved", ["anchor cheekbone", "hold split"])
def test_an_eye_of_another_anchor_or_hold_is_not_kept(moved: str) -> None:
    assert rig(*GOOD, *new_set(), draft(moved, days=150)).crawls.before is None


def test_another_bow_keeps_no_eye() -> None:
    other = draft(PartFitted(part="bow", part_id="other"), on="rig", days=99)
    assert rig(*GOOD, other, *new_set()).crawls.others == ()


# side by side


def test_every_set_and_anchor_that_was_crawled_with_has_its_table() -> None:
    found = tables(*GOOD, *new_set("crawl 20m 30mm", "anchor cheekbone", "crawl 20m 20mm"))
    assert [(one.arrow_set, one.anchor, one.stands, one.marks) for one in found] == [
        ("set-b", "cheekbone", True, 1),
        ("set-b", "corner", False, 1),
        ("set-a", "corner", False, len(GOOD)),
    ]
    standing, old = found[0], found[2]
    assert all(cell is None or cell.deeper_mm is None for cell in standing.cells)
    assert old.cells[1].deeper_mm == pytest.approx(
        old.cells[1].crawl_mm - standing.cells[1].crawl_mm
    )
    assert [one.last is not None for one in found] == [True] * 3


def test_putting_the_old_set_back_makes_its_table_the_standing_one() -> None:
    back = tables(*GOOD, *new_set("crawl 20m 30mm"), put_on("set-a", 160))
    assert (back[0].arrow_set, back[0].stands, back[0].marks) == ("set-a", True, len(GOOD))
    assert back[1].arrow_set == "set-b"


def test_a_table_is_stale_by_what_moved_since_and_not_by_its_own_arrows_or_anchor() -> None:
    fresh = tables(*GOOD, *new_set("crawl 20m 30mm"))
    assert [one.since for one in fresh] == [None, None]
    moved = tables(*GOOD, *new_set("brace 8 1/2 grip", "crawl 20m 30mm"))
    assert moved[0].since is None, "shot after the brace was moved"
    assert moved[1].since is not None
    assert "brace" in moved[1].since.text()
    held = tables(*GOOD, draft("anchor cheekbone", days=90), draft("crawl 20m 20mm", days=91))
    assert [one.since for one in held] == [None, None]
    standing = tables(*GOOD, draft("brace 8 1/2 grip", days=90))
    assert "brace" in standing[0].since.text()


def test_a_rig_nobody_crawled_has_one_table_from_the_rig_alone() -> None:
    [only] = tables("usualcrawl 22mm")
    assert (only.stands, only.marks, only.last, only.since) == (True, 0, None, None)
    assert only.half_mm > 5
