"""The tab strip and the pocket card at true size, in millimetres."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.crawls.notation import FEEL_PARTS, STITCH_PARTS, in_figures
from lyrandis.core.crawls.numbers import CrawlNumbers
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.crawls.sheet import (
    SMALL_MM,
    Box,
    Dot,
    InkStroke,
    Shape,
    Sheet,
    TextAnchor,
    Words,
)
from lyrandis.core.errors import DomainError

WIDTH_MM, STRING_AT_MM, NOCK_AT_MM = 63.5, 20.0, 16.0
PIXELS_MM = 12 * MM_PER_IN / 96
"""Sizes are whole dots of a browser, which else would round and scale what it prints."""
TICK_MM, COLUMN_MM = 11.0, 13.0
CLOSE_MM = 3.3
"""Labels nearer than this stand in two columns."""
RULER_MM = 50.0
BEYOND_MM = 5.0
ROW_MM, CARD_MM = 5.2, (85.6, 54.0)
"""Rows of the card, and the size of a bank card."""
MOST_CARD_ROWS = 16


class Tick(NamedTuple):
    """One distance on the strip."""

    label: str
    crawl_mm: float
    half_mm: float


def strip(
    ticks: Sequence[Tick], *, title: str, stitch_mm: float | None = None, mirrored: bool = False
) -> Sheet:
    """Return the strip for the tab, with a ruler to measure.

    The string runs down from the nock; every crawl is where the top of the hook stands. `mirrored`
    is for a left-handed tab. Crawls above the nock are left out.
    Source: definition; the ruler is 50 mm from end to end.

    >>> drawn = strip([Tick("20 m", 34.0, 2.0)], title="Bram")
    >>> drawn.width, [one.y1 for one in drawn.shapes if getattr(one, "kind", "") == "crawl"]
    (63.5, [50.0])
    """
    shown = sorted((tick for tick in ticks if tick.crawl_mm >= 0), key=lambda item: item.crawl_mm)
    deepest = max((item.crawl_mm for item in shown), default=0.0)
    end = NOCK_AT_MM + deepest + BEYOND_MM

    def x(at: float) -> float:
        return WIDTH_MM - at if mirrored else at

    ahead: TextAnchor = "end" if mirrored else "start"
    shapes: list[Shape] = [
        Words(3, 5, title, bold=True),
        InkStroke(x(STRING_AT_MM), NOCK_AT_MM - 3, x(STRING_AT_MM), end, "string"),
        InkStroke(x(STRING_AT_MM - 3), NOCK_AT_MM, x(STRING_AT_MM + 5), NOCK_AT_MM, "nock"),
        Words(x(STRING_AT_MM + 6), NOCK_AT_MM - 1.2, "underside of the nock", ahead, SMALL_MM,
              soft=True),
    ]  # fmt: skip
    column, before = 0, -99.0
    for item in shown:
        y = NOCK_AT_MM + item.crawl_mm
        column = 1 - column if item.crawl_mm - before < CLOSE_MM else 0
        before = item.crawl_mm
        reach = STRING_AT_MM + TICK_MM + COLUMN_MM * column
        left = min(x(STRING_AT_MM + 1), x(STRING_AT_MM + 4))
        shapes += [
            Box(left, y - item.half_mm, 3, 2 * item.half_mm, filled=True),
            InkStroke(x(STRING_AT_MM), y, x(reach), y, "crawl"),
            Words(x(reach + 1), y + 1, item.label, ahead),
        ]
    if stitch_mm:
        behind: TextAnchor = "start" if mirrored else "end"
        for number in range(int((deepest + BEYOND_MM) / stitch_mm) + 1):
            y, fifth = NOCK_AT_MM + number * stitch_mm, number % 5 == 0
            shapes.append(Dot(x(STRING_AT_MM - 5), y, 0.55 if fifth else 0.35))
            if fifth:
                shapes.append(
                    Words(x(STRING_AT_MM - 7), y + 0.9, str(number), behind, SMALL_MM, soft=True)
                )
    height = math.ceil((end + 17.0) / PIXELS_MM) * PIXELS_MM
    return Sheet(WIDTH_MM, height, (*shapes, *_ruler(end + 9)))


def _ruler(y: float) -> list[Shape]:
    left = (WIDTH_MM - RULER_MM) / 2
    ends = [left + 10 * centimetre for centimetre in range(6)]
    return [
        InkStroke(left, y, left + RULER_MM, y, "ruler"),
        *(InkStroke(at, y - 1.5, at, y + 1.5, "centimetre") for at in ends),
        Words(WIDTH_MM / 2, y + 5, "measure this: 50 mm", "middle", SMALL_MM),
    ]


def card(rows: Sequence[tuple[str, str, str]], *, title: str, head: tuple[str, str]) -> Sheet:
    """Return the pocket card, the size of a bank card: distance, mm, and the notation.

    Source: definition.

    >>> card([("20 m", "34", "1 3/4")], title="Bram", head=("mm", "f")).width
    85.6
    """
    width, height = CARD_MM
    shown = list(rows[:MOST_CARD_ROWS])
    half = (len(shown) + 1) // 2
    shapes: list[Shape] = [
        Box(0.2, 0.2, width - 0.4, height - 0.4, filled=False, round=3),
        Words(4, 6, title, bold=True),
    ]
    for column, group in enumerate((shown[:half], shown[half:])):
        left = 4 + column * width / 2
        for at, words in ((16.0, head[0]), (36.0, head[1])):
            shapes.append(Words(left + at, 11, words, "end", SMALL_MM, soft=True))
        for number, (where, crawl, noted) in enumerate(group):
            y = 16 + number * ROW_MM
            shapes += [
                Words(left, y, where, bold=True),
                Words(left + 16, y, crawl, "end"),
                Words(left + 36, y, noted, "end"),
            ]
    return Sheet(width, height, tuple(shapes))


def strip_of(c: Computed) -> Sheet:
    """Return the strip of a rig's table. Raises `DomainError` where there is none yet.

    Source: `strip`.

    >>> from lyrandis.core.example import rig
    >>> strip_of(rig(["draw 28"]))
    Traceback (most recent call last):
    ...
    lyrandis.core.errors.DomainError: There is no table of crawls yet.
    """
    crawls = _known(c)
    ticks = [
        Tick(said_distance(row.distance_m, crawls.basis.unit), row.crawl_mm, row.half_mm)
        for row in crawls.table.rows
    ]
    hand = c.setup.archer.hand
    return strip(
        ticks,
        title=_title(c),
        stitch_mm=crawls.basis.stitch.value if crawls.basis.stitch else None,
        mirrored=hand is not None and hand.reading.hand == "left",
    )


def card_of(c: Computed) -> Sheet:
    """Return the pocket card of a rig's table. Raises `DomainError` where there is none yet.

    Source: `card`.

    >>> from lyrandis.core.example import rig
    >>> card_of(rig()).height
    54.0
    """
    crawls = _known(c)
    by, step, parts = "fingers", crawls.basis.finger, FEEL_PARTS
    if crawls.basis.stitch is not None and crawls.basis.notation == "stitches":
        by, step, parts = "stitches", crawls.basis.stitch, STITCH_PARTS
    rows = []
    for row in crawls.table.rows:
        if row.crawl_mm < 0:
            continue
        noted = in_figures(round(row.crawl_mm / step.value * parts) / parts)
        rows.append(
            (said_distance(row.distance_m, crawls.basis.unit), f"{row.crawl_mm:.0f}", noted)
        )
    return card(rows, title=_title(c), head=("mm", by))


def _known(c: Computed) -> CrawlNumbers:
    if not c.crawls.table.rows:
        raise DomainError(
            "nothing_to_shoot",
            "There is no table of crawls yet.",
            f"Enter {', and '.join(c.crawls.basis.lacks) or 'what the crawls need'} first.",
        )
    return c.crawls


def _title(c: Computed) -> str:
    on = c.crawls.marks.fit.point_on if c.crawls.marks.fit else None
    where = f", point-on {said_distance(round(on.value), 'm')}" if on else ""
    name = c.setup.name or "Crawls"
    return f"{name}{where if c.crawls.basis.unit == 'm' else ''}"
