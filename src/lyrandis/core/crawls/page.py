"""What the crawls' pages draw: the table, the chart, the marks, and what another mark would do."""

from datetime import datetime
from typing import Literal

import numpy as np

from lyrandis.core.archer.words import ANCHOR_WORDS, HOLD_WORDS
from lyrandis.core.computed import Computed
from lyrandis.core.crawls.fit import CrawlFit, FitRow, slopes
from lyrandis.core.crawls.marks import WHY_NOT_WORDS, MarkLine
from lyrandis.core.crawls.notation import (
    FEEL_PARTS,
    STITCH_PARTS,
    fingers,
    in_figures,
    in_steps,
)
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.crawls.sight import high_per_mm
from lyrandis.core.crawls.words import DistanceUnit, Notation
from lyrandis.core.drawn import Drawn
from lyrandis.core.phrase import Figure, Phrase, gap, mm
from lyrandis.core.stage_spec import Page

CURVE_FROM_M, CURVE_STEP_M = 4.0, 2.0
MOST_MARKS = 60


class CrawlRow(Drawn):
    """One distance of the table."""

    distance_m: float
    says: str
    """The distance, in the archer's unit."""
    crawl_mm: float
    half_mm: float
    after_mm: float | None
    """Half of the band after the proposed mark."""
    fingers: str
    """In words, to the quarter."""
    fingers_short: str
    fingers_high_mm: float
    """Where a crawl rounded to a quarter finger strikes, + high."""
    stitches_short: str | None
    stitches_high_mm: float | None
    beyond: bool
    """Beyond point-on: the hook would stand above the nock."""


class CurvePoint(Drawn):
    distance_m: float
    crawl_mm: float
    half_mm: float
    after_mm: float | None


class CrawlSeen(Drawn):
    """A mark, and how it stands against the table."""

    entry_id: str
    says: Phrase
    where: str
    told: Phrase
    """The crawl as it was told, and where it struck."""
    plain: bool
    """True where it was told in mm and struck."""
    distance_m: float
    crawl_mm: float | None
    sd_mm: float | None
    off_mm: float | None
    """+ deeper than the table has it."""
    counts: bool
    odd: bool
    why_not: str | None
    at: datetime


class NextMark(Drawn):
    distance_m: float
    says: str
    crawl_mm: float
    before_mm: float
    after_mm: float


class LinearSchool(Drawn):
    """So many millimetres for every ten metres."""

    at_0_mm: float
    per_10_m: float
    leaves: tuple[str, ...]
    """Distances of the table where it lies outside the band."""


class OwnMeasures(Drawn):
    """What was measured of hand, tab, face and arrow; None where nobody did."""

    finger: Figure | None
    ten_stitches: Figure | None
    eye: Figure | None
    reach: Figure | None
    repeats: Figure | None
    table: str
    """The distances the table is wanted for."""


class CrawlsPage(Page):
    """What the crawls' pages draw."""

    stage: Literal["crawls"] = "crawls"
    lacks: tuple[str, ...]
    unit: DistanceUnit
    notation: Notation
    finger_mm: float
    finger_measured: bool
    stitch_mm: float | None
    held: str
    """Anchor and hold the table is of."""
    anchor_assumed: bool
    point_on_m: float | None
    point_on_half_m: float | None
    rows: tuple[CrawlRow, ...]
    curve: tuple[CurvePoint, ...]
    marks: tuple[CrawlSeen, ...]
    next: NextMark | None
    linear: LinearSchool | None
    ask_yards: bool
    elsewhere: int
    """Marks made on this rig with other parts."""
    own: OwnMeasures


def page(c: Computed) -> CrawlsPage:
    """Return what the crawls' pages draw."""
    crawls = c.crawls
    fit = crawls.marks.fit
    on = fit.point_on if fit else None
    return CrawlsPage(
        lacks=crawls.basis.lacks,
        unit=crawls.basis.unit,
        notation=crawls.basis.notation,
        finger_mm=crawls.basis.finger.value,
        finger_measured=crawls.basis.facts.finger is not None,
        stitch_mm=crawls.basis.stitch.value if crawls.basis.stitch else None,
        held=f"{ANCHOR_WORDS[crawls.basis.anchor].capitalize()}, {HOLD_WORDS[crawls.basis.hold]}.",
        anchor_assumed=c.setup.archer.anchor is None,
        point_on_m=on.value if on else None,
        point_on_half_m=fit.factor * on.sd if fit and on else None,
        rows=_rows(c, fit) if fit else (),
        curve=_curve(c, fit) if fit else (),
        marks=tuple(_seen(c, line) for line in crawls.lines[-MOST_MARKS:]),
        next=_next(c, fit) if fit else None,
        linear=_linear(c),
        ask_yards=crawls.checks.ask_yards and crawls.marks.odd is None,
        elsewhere=len(crawls.basis.facts.elsewhere),
        own=_own(c),
    )


def _own(c: Computed) -> OwnMeasures:
    facts, unit = c.crawls.basis.facts, c.crawls.basis.unit
    habit = facts.habit
    first, last = c.crawls.table.distances_m[0], c.crawls.table.distances_m[-1]
    step = c.crawls.table.distances_m[1] - first if len(c.crawls.table.distances_m) > 1 else 0.0
    said = (said_distance(item, unit).replace(" ", "") for item in (first, last, step))
    return OwnMeasures(
        finger=gap(facts.finger.reading.width_mm) if facts.finger else None,
        ten_stitches=gap(facts.tab.reading.ten_mm) if facts.tab else None,
        eye=gap(facts.eye.reading.eye_mm) if facts.eye else None,
        reach=mm(facts.reach.reading.reach_mm) if facts.reach else None,
        repeats=gap(habit.repeat_mm) if habit and habit.repeat_mm is not None else None,
        table="{} to {} every {}".format(*said),
    )


def _after(c: Computed, fit: CrawlFit, distances: list[float]) -> list[float | None]:
    """Return the half of each band once the proposed mark is shot."""
    result = c.crawls.table.next
    if result is None:
        return [None] * len(distances)
    at = slopes(np.array([result.distance_m]), fit.sight)
    covariance = fit.scale**2 * fit.covariance
    own = float((at @ covariance @ at.T)[0, 0])
    rows = slopes(np.array(distances), fit.sight)
    across = (rows @ covariance @ at.T)[:, 0]
    now = np.einsum("ij,jk,ik->i", rows, covariance, rows)
    after = np.sqrt(np.maximum(now - across**2 / (own + 4.0), 0.0) + 0.25)
    return [float(fit.factor * item) for item in after]


def _rows(c: Computed, fit: CrawlFit) -> tuple[CrawlRow, ...]:
    crawls, tip = c.crawls, c.crawls.basis.tip_mm or 780.0
    after = _after(c, fit, list(crawls.table.distances_m))
    stitch = crawls.basis.stitch
    result = []
    for row, then in zip(crawls.table.rows, after, strict=True):
        high = high_per_mm(row.distance_m, tip, crawls.basis.kappa.value)
        deep = row.crawl_mm
        by_finger = in_steps(deep, crawls.basis.finger.value, parts=FEEL_PARTS, high_per_mm=high)
        by_stitch = (
            in_steps(deep, stitch.value, parts=STITCH_PARTS, high_per_mm=high) if stitch else None
        )
        result.append(
            CrawlRow(
                distance_m=row.distance_m,
                says=said_distance(row.distance_m, crawls.basis.unit),
                crawl_mm=row.crawl_mm,
                half_mm=row.half_mm,
                after_mm=then,
                fingers=fingers(by_finger.steps),
                fingers_short=in_figures(by_finger.steps),
                fingers_high_mm=by_finger.high_mm,
                stitches_short=in_figures(by_stitch.steps) if by_stitch else None,
                stitches_high_mm=by_stitch.high_mm if by_stitch else None,
                beyond=row.crawl_mm < 0,
            )
        )
    return tuple(result)


def _curve(c: Computed, fit: CrawlFit) -> tuple[CurvePoint, ...]:
    last = max(c.crawls.table.distances_m[-1], *(line.distance_m for line in c.crawls.lines), 10.0)
    count = int((last - CURVE_FROM_M) / CURVE_STEP_M) + 1
    distances = [CURVE_FROM_M + number * CURVE_STEP_M for number in range(count)]
    if distances[-1] < last:
        distances.append(last)
    after = _after(c, fit, distances)
    return tuple(
        CurvePoint(distance_m=row.distance_m, crawl_mm=row.crawl_mm, half_mm=row.half_mm,
                   after_mm=then)
        for row, then in zip(fit.table(distances), after, strict=True)
    )  # fmt: skip


def _seen(c: Computed, line: MarkLine) -> CrawlSeen:
    crawls = c.crawls
    row: FitRow | None = None
    if crawls.marks.fit is not None and line.crawl is not None:
        row = crawls.marks.fit.table([line.distance_m])[0]
    dropped = line is crawls.marks.dropped
    why = line.why_not or ("off" if dropped else None)
    return CrawlSeen(
        entry_id=line.recorded.entry.id,
        says=line.recorded.reading.say(),
        where=said_distance(line.distance_m, line.unit),
        told=line.recorded.reading.told_as(),
        plain=line.recorded.reading.crawl_mm is not None and not line.recorded.reading.high_mm,
        distance_m=line.distance_m,
        crawl_mm=line.crawl.value if line.crawl else None,
        sd_mm=line.crawl.sd if line.crawl else None,
        off_mm=line.crawl.value - row.crawl_mm if line.crawl and row else None,
        counts=why is None,
        odd=line is crawls.marks.odd,
        why_not=WHY_NOT_WORDS[why] if why else None,
        at=line.recorded.entry.happened_at,
    )


def _next(c: Computed, fit: CrawlFit) -> NextMark | None:
    result = c.crawls.table.next
    if result is None:
        return None
    return NextMark(
        distance_m=result.distance_m,
        says=said_distance(result.distance_m, c.crawls.basis.unit),
        crawl_mm=fit.table([result.distance_m])[0].crawl_mm,
        before_mm=result.before_mm,
        after_mm=result.after_mm,
    )


def _linear(c: Computed) -> LinearSchool | None:
    """Return the straight line through the marks: the habit of so many fingers per ten metres."""
    points = [(mark.distance_m, mark.crawl.value) for mark in c.crawls.marks.counting if mark.crawl]
    if len({round(point[0], 1) for point in points}) < 2:
        return None
    far, deep = np.array(points, dtype=float).T
    slope, start = np.polyfit(far, deep, 1).tolist()
    leaves = tuple(
        said_distance(row.distance_m, c.crawls.basis.unit)
        for row in c.crawls.table.rows
        if abs(start + slope * row.distance_m - row.crawl_mm) > row.half_mm
    )
    return LinearSchool(
        at_0_mm=start,
        per_10_m=10 * slope,
        leaves=leaves,
    )
