"""Marks as they are taken: how deep, how far, and why not where one does not count."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.archer.readings import AnchorChosen, HoldChosen
from lyrandis.core.archer.words import Anchor, Hold
from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.basis import CrawlBasis, meant_unit, stitch_of
from lyrandis.core.crawls.fit import FitMark, Prior
from lyrandis.core.crawls.notation import from_steps
from lyrandis.core.crawls.plan import DEEPEST_MM
from lyrandis.core.crawls.readings import CrawlMark
from lyrandis.core.crawls.sight import MM, Sight, crawls_mm, high_per_mm
from lyrandis.core.crawls.words import (
    FEEL_SD_MM,
    STRUCK_SD,
    STRUCK_SDS,
    SURE_SD_MM,
    DistanceUnit,
)
from lyrandis.core.effective import At, Recorded, Timeline, when
from lyrandis.core.estimate import Estimate
from lyrandis.core.memo import memo_by_equality

GUESSED_SHARE = 0.1
"""Assumption: a guessed distance is good to a tenth, one standard deviation."""
GROUP_AT_20_M = 80.0
"""Assumption: one standard deviation of an arrow's height at 20 m [mm], growing with distance."""
TRUSTED_HIT_MM = 400.0
FINGER_READ, STITCH_READ = 0.125, 0.25
"""One standard deviation of a count by feel, and of one read off a tab."""

WhyNot = Literal["other_anchor", "no_tab", "left_out", "off", "too_deep"]
WHY_NOT_WORDS: dict[WhyNot, str] = {
    "other_anchor": "made with another anchor or hold",
    "no_tab": "counts once the tab's stitches are measured",
    "left_out": "left out by you",
    "off": "does not fit the others",
    "too_deep": "deeper than a hand reaches",
}


class MarkLine(NamedTuple):
    """A mark as it is taken: how deep, how far, and why not where it does not count."""

    recorded: Recorded[CrawlMark]
    distance_m: float
    unit: DistanceUnit
    crawl: Estimate | None
    why_not: WhyNot | None = None

    @property
    def mark(self) -> FitMark | None:
        if self.crawl is None:
            return None
        return FitMark(self.distance_m, self.crawl.value, self.crawl.sd)


@dataclass(frozen=True)
class Holding:
    """Anchor and hold as they were told over time, and as they are now."""

    anchors: tuple[Recorded[AnchorChosen], ...]
    holds: tuple[Recorded[HoldChosen], ...]

    def over_time(self, anchor: Anchor, hold: Hold) -> "HeldOverTime":
        """Return how it was held at any instant, `anchor` and `hold` where nothing was told.

        Source: definition.

        >>> from datetime import UTC, datetime
        >>> held = Holding((), ()).over_time("corner", "split")
        >>> held.at((datetime(2026, 1, 10, tzinfo=UTC), 1))
        ('corner', 'split')
        """
        return HeldOverTime(Timeline(self.anchors), Timeline(self.holds), anchor, hold)


class HeldOverTime(NamedTuple):
    """How the string was held at any instant."""

    anchors: Timeline[AnchorChosen]
    holds: Timeline[HoldChosen]
    anchor: Anchor
    hold: Hold

    def at(self, at: At) -> tuple[Anchor, Hold]:
        """Return what was told last until an instant. Source: definition; see `over_time`.

        >>> from datetime import UTC, datetime
        >>> held = Holding((), ()).over_time("cheekbone", "three_under")
        >>> held.at((datetime(2026, 1, 10, tzinfo=UTC), 1))[1]
        'three_under'
        """
        anchor, hold = self.anchors.at(at), self.holds.at(at)
        return (
            anchor.reading.anchor if anchor else self.anchor,
            hold.reading.hold if hold else self.hold,
        )


@memo_by_equality
def mark_lines(basis: CrawlBasis, holding: Holding, prior: Prior | None) -> tuple[MarkLine, ...]:
    """Return every mark of one set of arrows, as it is taken, in the order of the readings.

    Where the arrows struck off, the crawl is the one that would have struck: c + y/(dy/dc).
    Source: `high_per_mm`; the sizes of a count by feel and of a group are Assumption.

    >>> from lyrandis.core.example import WALKED, rig
    >>> crawls = rig((*WALKED, "anchor cheek", "crawl 25m 31mm")).crawls
    >>> [(line.distance_m, line.why_not) for line in crawls.lines if line.why_not is None]
    [(25.0, None)]
    """
    facts = basis.facts
    out = {item.reading.mark for item in facts.counted if not item.reading.counted}
    held = holding.over_time(basis.anchor, basis.hold)
    tabs = Timeline(facts.tabs)
    first_tab = facts.tabs[0] if facts.tabs else None
    lines = []
    for recorded in facts.marks:
        at = when(recorded.entry)
        reading, unit = recorded.reading, meant_unit(facts, recorded)
        distance = reading.distance_m
        if unit != reading.unit:
            distance *= M_PER_YD if unit == "yd" else 1 / M_PER_YD
        crawl = _crawl(basis, prior, reading, distance, stitch_of(tabs.at(at) or first_tab))
        why: WhyNot | None = None
        if recorded.entry.id in out:
            why = "left_out"
        elif held.at(at) != (basis.anchor, basis.hold):
            why = "other_anchor"
        elif crawl is None:
            why = "no_tab"
        elif crawl.value > DEEPEST_MM:
            why = "too_deep"
        lines.append(MarkLine(recorded, distance, unit, crawl, why))
    return tuple(lines)


def _crawl(
    basis: CrawlBasis,
    prior: Prior | None,
    reading: CrawlMark,
    distance_m: float,
    stitch: Estimate | None,
) -> Estimate | None:
    """Return the crawl that would have struck, with how well it is known [mm].

    `stitch` is that of the tab which was worn.
    """
    scale = SURE_SD_MM[reading.sure] / SURE_SD_MM["ordinary"]
    usual = scale * basis.repeat_mm
    if reading.crawl_mm is not None:
        crawl, sd = reading.crawl_mm, usual
    elif reading.fingers is not None:
        crawl, sd = from_steps(reading.fingers, basis.finger, FINGER_READ)
        sd = math.hypot(sd, scale * FEEL_SD_MM)
    elif stitch is not None and reading.stitches is not None:
        crawl, sd = from_steps(reading.stitches, stitch, STITCH_READ)
        sd = math.hypot(sd, usual)
    else:
        return None
    tip = basis.tip_mm
    if tip is None or distance_m <= tip / MM:
        return Estimate(crawl, sd)
    struck = _struck(reading, distance_m)
    if struck is not None:
        high = high_per_mm(distance_m, tip, basis.kappa.value)
        crawl += struck.value / high
        sd = math.hypot(sd, struck.sd / high)
    if reading.guessed and prior is not None:
        sd = math.hypot(sd, _per_metre(prior, distance_m) * GUESSED_SHARE * distance_m)
    return Estimate(crawl, sd)


def _struck(reading: CrawlMark, distance_m: float) -> Estimate | None:
    """Return where the arrows struck [mm], + high; None where the crawl was right."""
    group = GROUP_AT_20_M * distance_m / 20 / math.sqrt(reading.arrows)
    if reading.struck is not None:
        return Estimate(STRUCK_SDS[reading.struck] * group, STRUCK_SD * group)
    if reading.high_mm is None:
        return None
    if abs(reading.high_mm) > TRUSTED_HIT_MM:
        group = math.hypot(group, 0.25 * reading.high_mm)
    return Estimate(reading.high_mm, group)


def _per_metre(prior: Prior, distance_m: float) -> float:
    sight = Sight(prior.speed.value, prior.eye.value, prior.drag.value, prior.tip_mm)
    near, far = crawls_mm(np.array([distance_m - 0.5, distance_m + 0.5]), sight).tolist()
    return float(abs(far - near))


SWAPPED_SDS = 3.0
LEAST_APART_M = 2.0


def swapped_pair(counting: Sequence[MarkLine]) -> tuple[MarkLine, MarkLine] | None:
    """Return two marks of which the longer distance has the deeper crawl, beyond their doubt.

    c_far - c_near > 3 sqrt(sd_near^2 + sd_far^2), two metres apart at least. Source: geometry.

    >>> from lyrandis.core.example import RECURVE, rig
    >>> crawls = rig((*RECURVE, "hold under", "crawl 20m 14mm", "crawl 30m 40mm")).crawls
    >>> [line.distance_m for line in swapped_pair(crawls.lines)]
    [20.0, 30.0]
    """
    ordered = sorted(
        (line for line in counting if line.crawl is not None), key=lambda line: line.distance_m
    )
    if len(ordered) < 2:
        return None
    distance = np.array([line.distance_m for line in ordered])
    deep, sd = np.array([(line.crawl.value, line.crawl.sd) for line in ordered if line.crawl]).T
    # what is deeper than this by any mark further on is deeper by that mark's doubt alone
    beyond = np.maximum.accumulate((deep - SWAPPED_SDS * sd)[::-1])[::-1]
    for near, first in enumerate(np.searchsorted(distance, distance + LEAST_APART_M).tolist()):
        if first >= len(ordered) or beyond[first] <= deep[near]:
            continue
        over = deep[first:] - deep[near] > SWAPPED_SDS * np.hypot(sd[near], sd[first:])
        if over.any():
            return ordered[near], ordered[first + int(np.argmax(over))]
    return None
