"""What the field helper carries: the table as a grid that it can learn on, far from the server.

The helper keeps (dtheta, P), the posterior's move and covariance, beside the crawls c and their
slopes J at every metre. A shot at d moves them by one linear step, y = c_shot - (c + J dtheta),
S = J P J^T + sd^2, dtheta += P J^T y/S, P -= P J^T J P/S: within a few tenths of a millimetre of
what the fit makes of the same shots once they are home (measured in the tests).
"""

import math

import numpy as np

from lyrandis.core.archer.words import ANCHOR_WORDS, HOLD_WORDS, Anchor, Hand, Hold
from lyrandis.core.computed import Computed
from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.fit import FLOOR_MM, FLOOR_SHARE_BEYOND, slopes
from lyrandis.core.crawls.marks import (
    FINGER_READ,
    GROUP_AT_20_M,
    GUESSED_SHARE,
    STITCH_READ,
    TRUSTED_HIT_MM,
)
from lyrandis.core.crawls.notation import FEEL_PARTS, STITCH_PARTS
from lyrandis.core.crawls.numbers import CrawlNumbers
from lyrandis.core.crawls.ranges import ends_m, miss
from lyrandis.core.crawls.sight import NEAREST_M
from lyrandis.core.crawls.words import (
    FEEL_SD_MM,
    STRUCK_SD,
    STRUCK_SDS,
    DistanceUnit,
    Notation,
    Struck,
)
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError

FURTHEST_CARRIED_M = 90
MOST_SHOT_IDS = 400
ANOTHER_M = 5.0
"""The helper says what it costs when the mark stands this much further off."""


class FieldPoint(Drawn):
    """The crawl at one distance, and how it moves with what is believed."""

    distance_m: float
    crawl_mm: float
    steep: tuple[float, float, float, float]
    """By (ln v', h', ln k, q), as `fit.slopes`."""
    further_mm: float | None
    """Where it strikes when the mark stands 5 m (or yd) further off than was thought, - low."""


class FieldStep(Drawn):
    """How the archer counts a crawl, and how well."""

    notation: Notation
    mm: float
    parts: int
    """Parts of a step that are said: half stitches, quarter fingers."""
    read_sd_mm: float
    """One standard deviation of a count read off the tab."""
    sd_mm: float
    """Of the step itself, growing with the count."""


class FieldTable(Drawn):
    """A table of crawls to be carried to the range."""

    rig: str
    name: str
    arrow_set: str | None
    arrows: str
    anchor: Anchor
    hold: Hold
    held: str
    hand: Hand
    unit: DistanceUnit
    steps: tuple[FieldStep, ...]
    """The archer's own notation first."""
    marks: int
    """Crawls the table stands on already."""
    mark_ids: tuple[str, ...]
    """Every crawl it has heard of: a shot that is among them is home."""
    points: tuple[FieldPoint, ...]
    covariance: tuple[tuple[float, ...], ...]
    scale: float
    factor: float
    """Half of a band in standard deviations."""
    floor_mm: float
    floor_share: float
    """Beyond point-on no band is narrower than this share of the crawl."""
    tip_mm: float
    kappa: float
    group_mm: float
    """One standard deviation of an arrow's height at 20 m, growing with distance."""
    trusted_mm: float
    """A hit further off than this says less."""
    struck_sds: dict[Struck, float]
    struck_sd: float
    guessed_share: float


def field_table(c: Computed) -> FieldTable:
    """Return what the field helper carries of a rig's table.

    Raises `DomainError` where there is no table yet.
    Source: `fit.slopes`, `ranges.miss`.

    >>> from lyrandis.core.example import rig
    >>> found = field_table(rig())
    >>> [point.distance_m for point in found.points[:2]], found.steps[0].notation, found.marks
    ([2.0, 3.0], 'mm', 0)
    """
    crawls = c.crawls
    fit, own, tip = crawls.marks.fit, crawls.table.own_sight, crawls.basis.tip_mm
    if fit is None or own is None or tip is None:
        raise DomainError(
            "nothing_to_shoot",
            "There is no table of crawls to take along yet.",
            f"Enter {', and '.join(crawls.basis.lacks) or 'what the crawls need'} first.",
        )
    per = M_PER_YD if crawls.basis.unit == "yd" else 1.0
    last = int(ends_m(own, FURTHEST_CARRIED_M))
    distances = [float(number) for number in range(math.ceil(NEAREST_M), last + 1)]
    steep = slopes(np.array(distances), fit.sight)
    points = []
    for row, moves in zip(fit.table(distances), steep.tolist(), strict=True):
        off = miss(own, row.distance_m, ANOTHER_M * per)
        points.append(
            FieldPoint(
                distance_m=row.distance_m,
                crawl_mm=round(row.crawl_mm, 3),
                steep=tuple(round(move, 4) for move in moves),
                further_mm=round(off.further_mm, 1) if off else None,
            )
        )
    hand = c.setup.archer.hand
    return FieldTable(
        rig=c.setup.rig or "",
        name=c.setup.name or "this rig",
        arrow_set=c.setup.fitted.arrow_set,
        arrows=c.setup.arrows.name or "arrows",
        anchor=crawls.basis.anchor,
        hold=crawls.basis.hold,
        held=f"{ANCHOR_WORDS[crawls.basis.anchor]}, {HOLD_WORDS[crawls.basis.hold]}",
        hand=hand.reading.hand if hand else "right",
        unit=crawls.basis.unit,
        steps=_steps(crawls),
        marks=len(crawls.marks.counting),
        mark_ids=tuple(line.recorded.entry.id for line in crawls.lines[-MOST_SHOT_IDS:]),
        points=tuple(points),
        covariance=tuple(tuple(row) for row in fit.covariance.tolist()),
        scale=fit.scale,
        factor=fit.factor,
        floor_mm=FLOOR_MM,
        floor_share=FLOOR_SHARE_BEYOND,
        tip_mm=tip,
        kappa=crawls.basis.kappa.value,
        group_mm=GROUP_AT_20_M,
        trusted_mm=TRUSTED_HIT_MM,
        struck_sds=STRUCK_SDS,
        struck_sd=STRUCK_SD,
        guessed_share=GUESSED_SHARE,
    )


def _steps(crawls: CrawlNumbers) -> tuple[FieldStep, ...]:
    """Return how crawls are counted, the archer's own notation first."""
    repeat = crawls.basis.repeat_mm
    known = [
        FieldStep(notation="mm", mm=1.0, parts=1, read_sd_mm=repeat, sd_mm=0.0),
        FieldStep(
            notation="fingers",
            mm=crawls.basis.finger.value,
            parts=FEEL_PARTS,
            read_sd_mm=math.hypot(FINGER_READ * crawls.basis.finger.value, FEEL_SD_MM),
            sd_mm=crawls.basis.finger.sd,
        ),
    ]
    if crawls.basis.stitch is not None:
        known.append(
            FieldStep(
                notation="stitches",
                mm=crawls.basis.stitch.value,
                parts=STITCH_PARTS,
                read_sd_mm=math.hypot(STITCH_READ * crawls.basis.stitch.value, repeat),
                sd_mm=crawls.basis.stitch.sd,
            )
        )
    return tuple(sorted(known, key=lambda step: step.notation != crawls.basis.notation))
