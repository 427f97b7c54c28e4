"""Where the arrow's nock goes on the string: a height to begin at, and what moves it. In mm.

The canonical height is the lift: underside of the arrow at the string above the line from rest or
shelf square to the string. No honest mechanics gives the best height, the upright shot is not
calibrated: a start by hold is a place to begin searching, and flight finds it.
"""

import math
from collections.abc import Sequence
from typing import NamedTuple

from lyrandis.core.archer.words import Hold
from lyrandis.core.effective import At, Recorded, when
from lyrandis.core.estimate import Estimate
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.nock.words import NockDatum, NockFlight

START_MM: dict[Hold, tuple[float, float, float]] = {
    "split": (3.0, 1.0, 5.0),
    "three_under": (4.0, 2.0, 6.0),
    "thumb": (0.5, 0.0, 1.0),
}
"""Assumption: lift to begin with, and the band to search in, by the trade's habit."""
HEIGHT_PER_CRAWL = 0.13
"""Assumption: lift wanted per mm of crawl: an arrow's width for a deep one of 60 mm."""
NOCK_OVER_SHAFT_MM = 0.5
"""Assumption: an arrow's nock is this much wider than its shaft where nobody measured it."""
USUAL_SHAFT_MM = 7.0
READING_SD_MM = 0.3
"""Assumption: one reading of a bow square at the string."""
WORTH_TWO_MM = 1.0
"""Two nocks are offered where they take this much off the mean error of the height."""


class HeightStart(NamedTuple):
    """Where to begin searching."""

    lift_mm: float
    low_mm: float
    high_mm: float


def start_lift(hold: Hold, crawl_mm: float, nock_mm: float) -> HeightStart:
    """Return the lift to begin with for a hold and the crawl it is set for.

    A crawl asks for 0.13 mm a mm more, at most an arrow's width.
    Assumption: figures of the trade's habit (docs/MECHANICS.md).

    >>> start_lift("split", 0.0, 8.0)
    HeightStart(lift_mm=3.0, low_mm=1.0, high_mm=5.0)
    >>> start_lift("three_under", 30.0, 6.5).lift_mm
    7.9
    """
    start, low, high = START_MM[hold]
    more = min(HEIGHT_PER_CRAWL * crawl_mm, nock_mm)
    return HeightStart(start + more, low + more, high + more)


def nock_diameter(shaft_mm: float | None, measured_mm: float | None) -> Estimate:
    """Return the outside diameter of the arrow's nock, measured or from its shaft.

    Assumption: half a millimetre over the shaft where nobody measured.

    >>> nock_diameter(7.5, None).value
    8.0
    """
    if measured_mm is not None:
        return Estimate(measured_mm, 0.05)
    if shaft_mm is not None:
        return Estimate(shaft_mm + NOCK_OVER_SHAFT_MM, 0.3)
    return Estimate(USUAL_SHAFT_MM + NOCK_OVER_SHAFT_MM, 0.8)


def lift_of(height_mm: float, datum: NockDatum, nock: Estimate) -> Estimate:
    """Return the lift from a height and where it was read.

    Source: geometry: a locator above the arrow stands a nock's diameter over its underside.

    >>> lift_of(11.0, "locator_over", Estimate(8.0, 0.0)).value
    3.0
    """
    if datum == "locator_over":
        return Estimate(height_mm - nock.value, math.hypot(READING_SD_MM, nock.sd))
    return Estimate(height_mm, READING_SD_MM)


def lift_told_at(
    heights: Sequence[Recorded[NockHeight]], nock: Estimate, at: At
) -> Estimate | None:
    """Return the lift that was told last at an instant, else the first told after it.

    Source: `lift_of`.

    >>> from datetime import UTC, datetime
    >>> lift_told_at((), Estimate(8.0, 0.0), (datetime(2020, 1, 1, tzinfo=UTC), 0)) is None
    True
    """
    if not heights:
        return None
    before = [height for height in heights if when(height.entry) <= at]
    told = (before[-1] if before else heights[0]).reading
    return lift_of(told.height_mm, told.datum, nock)


def locator_of(lift_mm: float, nock_mm: float) -> float:
    """Return the height of the lower edge of a locator above the arrow.

    Source: as `lift_of`.

    >>> locator_of(3.0, 8.0)
    11.0
    """
    return lift_mm + nock_mm


class HeightShot(NamedTuple):
    """A lift that was shot, and what the flight said."""

    lift_mm: float
    flew: NockFlight


class FlownHeight(NamedTuple):
    """A lift whose bare shafts were seen on the flight's pages."""

    lift_mm: float
    flew: NockFlight
    entry_id: str


class Schools(NamedTuple):
    """What the schools make of the heights shot; None where they have nothing to go by yet."""

    clean: tuple[float, float] | None
    """Low as clean: between the highest that bounced and the lowest over it that flew clean."""
    bare: tuple[float, float] | None
    """Bare shaft level: between the highest whose bare shaft went high and the lowest low."""


def schools_of(shots: Sequence[HeightShot]) -> Schools:
    """Return the bands of lift that each school would set.

    A bare shaft high over the fletched means the nock is too low.
    Source: schools of the trade.

    >>> shots = [HeightShot(4, "bounced"), HeightShot(5, "clean"), HeightShot(7, "bare_level")]
    >>> schools_of(shots)
    Schools(clean=(4, 5), bare=(7, 7))
    """
    said: dict[float, NockFlight] = {}
    for shot in shots:
        # bare shafts say nothing of bouncing; of the rest what was said of a height last stands
        if shot.flew in ("clean", "bounced"):
            said[round(shot.lift_mm, 1)] = shot.flew
    bounced = max((lift for lift, flew in said.items() if flew == "bounced"), default=None)
    flown = [
        lift
        for lift, flew in said.items()
        if flew == "clean" and (bounced is None or lift > bounced)
    ]
    clean = None
    if flown:
        lowest = min(flown)
        clean = (lowest if bounced is None else bounced, lowest)
    level = [s.lift_mm for s in shots if s.flew == "bare_level"]
    if level:
        return Schools(clean, (min(level), max(level)))
    high = max((s.lift_mm for s in shots if s.flew == "bare_high"), default=None)
    low = min((s.lift_mm for s in shots if s.flew == "bare_low"), default=None)
    bare = (high, low) if high is not None and low is not None and high < low else None
    return Schools(clean, bare)


class CrawlShare(NamedTuple):
    """A crawl and how often it is shot."""

    crawl_mm: float
    shots: float


class NockPlan(NamedTuple):
    """For which crawls nocks are set, and what height error is left [mm, rms]."""

    crawls_mm: tuple[float, ...]
    error_mm: float


def one_nock(crawls: Sequence[CrawlShare]) -> NockPlan:
    """Return the crawl one nock is best set for: the mean by shots.

    Source: least squares of the height error 0.13 (c - c_set).

    >>> one_nock([CrawlShare(0, 1), CrawlShare(40, 3)]).crawls_mm
    (30.0,)
    """
    total = sum(crawl.shots for crawl in crawls)
    mean = sum(crawl.shots * crawl.crawl_mm for crawl in crawls) / total
    square = sum(crawl.shots * (crawl.crawl_mm - mean) ** 2 for crawl in crawls) / total
    return NockPlan((mean,), HEIGHT_PER_CRAWL * math.sqrt(square))


def two_nocks(crawls: Sequence[CrawlShare]) -> NockPlan | None:
    """Return the two crawls two nocks are best set for, where that is worth it, else None.

    Every cut of the crawls in order is tried; worth it from 1 mm of height less error on.
    Source: least squares in one dimension, all cuts.

    >>> two_nocks([CrawlShare(0, 1), CrawlShare(10, 1), CrawlShare(50, 1), CrawlShare(60, 1)])
    NockPlan(crawls_mm=(5.0, 55.0), error_mm=0.65)
    """
    ordered = sorted(crawls)
    total = sum(item.shots for item in ordered)
    best: NockPlan | None = None
    for cut in range(1, len(ordered)):
        sides = (ordered[:cut], ordered[cut:])
        plans = [one_nock(side) for side in sides]
        weights = [sum(item.shots for item in side) / total for side in sides]
        square = sum(w * p.error_mm**2 for w, p in zip(weights, plans, strict=True))
        error = math.sqrt(square)
        if best is None or error < best.error_mm:
            best = NockPlan((plans[0].crawls_mm[0], plans[1].crawls_mm[0]), error)
    if best is None or one_nock(crawls).error_mm - best.error_mm < WORTH_TWO_MM:
        return None
    return best
