"""The table of crawls: what marks make of the prior, its rows, and what does not fit."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.basis import CrawlBasis
from lyrandis.core.crawls.fit import (
    LEAST_OTHERS,
    LEFT_OUT_Z,
    CrawlFit,
    FitRow,
    NextDistance,
    Prior,
    fit_crawls,
    next_distance,
    odd_one,
    were_yards,
)
from lyrandis.core.crawls.marks import MarkLine, swapped_pair
from lyrandis.core.crawls.ranges import ends_m, own
from lyrandis.core.crawls.sight import Sight
from lyrandis.core.estimate import Estimate
from lyrandis.core.memo import memo_by_equality

EYE_KEPT_SD_MM = 2.0
"""Assumption: what another set's nocks and points move the eye's height by."""
SPEED_KEPT_SD = 0.012
"""Assumption: how far two sets differ from what the bow's mechanics say of their speeds' ratio."""
USUAL_TABLE = (5.0, 50.0, 5.0)
MOST_ROWS = 120
APART_SDS = 2.5
"""From here the marks' speed and the bow's are said to disagree."""
MOST_SHARE_ALONE = 0.15
"""A speed that marks alone leave more open than this share is not said."""

_next = memo_by_equality(next_distance)
_yards = memo_by_equality(were_yards)
_swapped = memo_by_equality(swapped_pair)


@memo_by_equality
def _rows(fit: CrawlFit, distances_m: tuple[float, ...]) -> tuple[FitRow, ...]:
    return fit.table(distances_m)


@dataclass(frozen=True)
class MarksFit:
    """What the marks make of the prior; nothing while the rig is not known."""

    prior: Prior | None = None
    """What is believed of the table before any mark of these arrows, in seen quantities."""
    whole: CrawlFit | None = None
    """The fit of all marks that may count."""
    odd: MarkLine | None = None
    """The mark that does not fit the others, if there is one."""
    odd_z: float = 0.0
    dropped: MarkLine | None = None
    """The same where enough others remain to leave it out; said, and one tap counts it."""
    fit: CrawlFit | None = None
    """The table's fit: every mark that counts, what is dropped left out."""
    counting: tuple[MarkLine, ...] = ()
    """The marks the table stands on."""


def prior_begun_from(rig: Prior | None, old: CrawlFit | None, kappa: Estimate) -> Prior | None:
    """Return what is believed before any mark of these arrows: by the rig, and by other arrows.

    Marks with other arrows tell the eye, and how much faster or slower this bow shoots than its
    mechanics say: v' = v'_rig v'_old/v'_old before its marks, variances of both kept.
    Source: the old set's joint posterior of speed and eye.

    >>> from lyrandis.core.example import WALKED, rig
    >>> crawls = rig(WALKED).crawls
    >>> before = crawls.basis.rig_prior
    >>> after = prior_begun_from(before, crawls.marks.fit, crawls.basis.kappa)
    >>> [round(one.eye.value) for one in (before, after)], after.eye.sd < before.eye.sd
    ([68, 64], True)
    """
    if rig is None or old is None:
        return rig
    kept = old.scale**2 * old.covariance[:2, :2]
    share = math.sqrt(float(kept[0][0]) + SPEED_KEPT_SD**2)
    speed = rig.speed.value * math.exp(old.theta[0]) / old.prior.speed.value
    eye_sd = math.sqrt(float(kept[1][1]) + (EYE_KEPT_SD_MM / kappa.value) ** 2)
    return rig._replace(
        speed=Estimate(speed, speed * share),
        eye=Estimate(float(old.theta[1]), eye_sd),
        together=float(kept[0][1]),
    )


@memo_by_equality
def fit_marks(basis: CrawlBasis, prior: Prior | None, lines: Sequence[MarkLine]) -> MarksFit:
    """Return what the marks make of the prior, and the one that does not fit.

    Left out by itself is one mark at most, past `LEFT_OUT_Z` sds, where `LEAST_OTHERS` remain and
    nobody said that it counts. Without a prior nothing is fitted. Source: `odd_one`.

    >>> from lyrandis.core.example import WALKED, rig
    >>> crawls = rig(WALKED).crawls
    >>> found = fit_marks(crawls.basis, crawls.basis.rig_prior, crawls.lines)
    >>> len(found.counting), found.odd
    (3, None)
    """
    able = tuple(line for line in lines if line.why_not is None and line.mark is not None)
    if prior is None:
        return MarksFit(counting=able)
    whole = fit_crawls(prior, _marks(able), told=basis.told)
    number = odd_one(whole)
    if number is None:
        return MarksFit(prior, whole, fit=whole, counting=able)
    odd, odd_z = able[number], whole.residuals[number].z
    kept = {item.reading.mark for item in basis.facts.counted if item.reading.counted}
    if (
        abs(odd_z) <= LEFT_OUT_Z
        or odd.recorded.entry.id in kept
        or len(whole.marks) - 1 < LEAST_OTHERS
    ):
        return MarksFit(prior, whole, odd, odd_z, fit=whole, counting=able)
    counting = tuple(line for line in able if line is not odd)
    fit = fit_crawls(prior, _marks(counting), told=basis.told)
    return MarksFit(prior, whole, odd, odd_z, odd, fit, counting)


def _marks(lines: Sequence[MarkLine]) -> tuple:  # type: ignore[type-arg]
    return tuple(line.mark for line in lines)


@dataclass(frozen=True)
class CrawlTable:
    """The table that is wanted, as far as it can be trusted."""

    own_sight: Sight | None
    """The arrow's own sight by the table: for where it strikes, not for where to hook."""
    distances_m: tuple[float, ...]
    rows: tuple[FitRow, ...]
    next: NextDistance | None
    """The distance whose mark would tell most."""
    half_mm: float | None
    """Half of the table's band, root mean square over the rows that are shot with a crawl."""


def crawl_table(basis: CrawlBasis, marks: MarksFit) -> CrawlTable:
    """Return the table of the distances that are wanted, as far as the arrow flies.

    Source: `CrawlFit.table`, `next_distance`.

    >>> from lyrandis.core.example import WALKED, rig
    >>> crawls = rig(WALKED).crawls
    >>> found = crawl_table(crawls.basis, crawls.marks)
    >>> [(row.distance_m, round(row.crawl_mm)) for row in found.rows[:3]]
    [(5.0, 56), (10.0, 48), (15.0, 41)]
    """
    fit = marks.fit
    sight = own(fit, basis.kappa.value) if fit else None
    distances = _distances_m(basis, sight)
    if fit is None:
        return CrawlTable(None, distances, (), None, None)
    rows = _rows(fit, distances)
    halves = [row.half_mm**2 for row in rows if row.crawl_mm >= 0]
    return CrawlTable(
        sight,
        distances,
        rows,
        _next(fit, distances, furthest_m=distances[-1]),
        math.sqrt(sum(halves) / len(halves)) if halves else None,
    )


def _distances_m(basis: CrawlBasis, sight: Sight | None) -> tuple[float, ...]:
    first, last, step = USUAL_TABLE
    habit = basis.facts.habit
    if habit is not None:
        per = M_PER_YD if habit.unit == "yd" else 1.0
        first, last, step = (usual * per for usual in (first, last, step))
        first, last = habit.from_m or first, habit.to_m or last
        step = habit.step_m or step
    if sight is not None:
        last = ends_m(sight, last)
    count = min(int((last - first) / step + 1e-6) + 1, MOST_ROWS)
    return tuple(first + number * step for number in range(max(count, 1)))


class MarkedSpeed(NamedTuple):
    """An arrow's speed as crawls have it [m/s]."""

    marks: int
    together: Estimate
    """With bow and chronograph."""
    alone: Estimate | None
    """By the marks alone; None where they hardly tell."""
    apart: bool
    """True where it lies off what bow and chronograph say beyond both doubts."""


@dataclass(frozen=True)
class CrawlChecks:
    """What is looked at before the table is used."""

    ask_yards: bool
    one_distance: bool
    """True while all marks stand at one distance."""
    swapped: tuple[MarkLine, MarkLine] | None
    """Two marks of which the longer distance has the deeper crawl, beyond their doubt."""
    speed_off: float | None
    """How far the marks' speed lies off what bow and chronograph say, in sds of both."""
    speed_by_marks: MarkedSpeed | None
    """What the marks say of the arrow's speed, with the bow's word and without it."""


def crawl_checks(basis: CrawlBasis, marks: MarksFit, table: CrawlTable) -> CrawlChecks:
    """Return what is to be looked at in a table and its marks.

    Source: `swapped_pair`, `were_yards`; the marks' own speed by precisions that add.

    >>> from lyrandis.core.example import WALKED, rig
    >>> crawls = rig(WALKED).crawls
    >>> found = crawl_checks(crawls.basis, crawls.marks, crawls.table)
    >>> found.swapped, found.ask_yards, round(found.speed_by_marks.together.value)
    (None, False, 55)
    """
    fit, counting = marks.fit, marks.counting
    off = _speed_off(basis.rig_prior, fit, len(counting))
    return CrawlChecks(
        ask_yards=fit is not None and basis.unit == "m" and _yards(fit),
        one_distance=len({round(line.distance_m) for line in counting}) == 1,
        swapped=_swapped(counting),
        speed_off=off,
        speed_by_marks=_speed_by_marks(basis, marks, table.own_sight, off),
    )


def _speed_off(rig: Prior | None, fit: CrawlFit | None, count: int) -> float | None:
    if fit is None or rig is None or count < 2:
        return None
    said = fit.theta[0] - math.log(rig.speed.value)
    before = rig.speed.sd / rig.speed.value
    after = math.sqrt(float(fit.covariance[0][0]))
    # of two that share the prior: the marks' own share of it
    apart = math.sqrt(max(before**2 - after**2, 1e-12))
    return float(said) / apart


def _speed_by_marks(
    basis: CrawlBasis, marks: MarksFit, sight: Sight | None, off: float | None
) -> MarkedSpeed | None:
    fit, prior, count = marks.fit, marks.prior, len(marks.counting)
    if fit is None or prior is None or sight is None or not count:
        return None
    before = prior.speed.sd / prior.speed.value
    after = math.sqrt(float(fit.covariance[0][0]))
    root = math.sqrt(basis.kappa.value)
    apart = off is not None and abs(off) >= APART_SDS
    together = Estimate(sight.speed_mps, sight.speed_mps * fit.scale * after)
    # precisions add: what the marks alone say is what they add to the prior
    weight = 1 / after**2 - 1 / before**2
    if weight * MOST_SHARE_ALONE**2 < 1:
        return MarkedSpeed(count, together, None, apart)
    log = (fit.theta[0] / after**2 - math.log(prior.speed.value) / before**2) / weight
    alone = math.exp(float(log)) / root
    by_marks = Estimate(alone, alone * fit.scale / math.sqrt(weight))
    return MarkedSpeed(count, together, by_marks, apart)
