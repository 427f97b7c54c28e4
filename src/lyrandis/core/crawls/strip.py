"""The tab strip and the pocket card as drawings at true size: one unit of the drawing is 1 mm."""

from collections.abc import Sequence
from html import escape
from typing import NamedTuple

from lyrandis.core.computed import Computed
from lyrandis.core.crawls.notation import in_figures
from lyrandis.core.crawls.numbers import CrawlNumbers
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.errors import DomainError

WIDTH_MM, STRING_AT_MM, NOCK_AT_MM = 62.0, 20.0, 16.0
TICK_MM, LABEL_MM = 11.0, 2.9
CLOSE_MM = 3.3
"""Labels nearer than this stand in two columns."""
RULER_MM = 50.0
BEYOND_MM = 5.0
ROW_MM, CARD_MM = 5.2, (85.6, 54.0)
"""Rows of the card, and the size of a bank card."""
MOST_CARD_ROWS = 16
_STYLE = (
    "text{font:2.9px sans-serif;fill:#111}line{stroke:#111;stroke-width:.25}"
    ".thin{stroke-width:.15;stroke:#555}.soft{fill:#555}.small{font-size:2.4px}"
    ".bold{font-weight:bold}.band{fill:#bbb;opacity:.5}.stitch{fill:#111}"
)


class Tick(NamedTuple):
    """One distance on the strip."""

    label: str
    crawl_mm: float
    half_mm: float


def strip_svg(
    ticks: Sequence[Tick], *, title: str, stitch_mm: float | None = None, mirrored: bool = False
) -> str:
    """Return the strip for the tab as SVG, one unit a millimetre, with a ruler to measure.

    The string runs down from the nock; every crawl is where the top of the hook stands. `mirrored`
    is for a left-handed tab. Crawls above the nock are left out.
    Source: definition; the ruler is 50 mm from end to end.

    >>> drawn = strip_svg([Tick("20 m", 34.0, 2.0)], title="Bram")
    >>> 'width="62.0mm"' in drawn, 'y1="50.0"' in drawn
    (True, True)
    """
    shown = sorted((one for one in ticks if one.crawl_mm >= 0), key=lambda one: one.crawl_mm)
    deepest = max((one.crawl_mm for one in shown), default=0.0)
    end = NOCK_AT_MM + deepest + BEYOND_MM
    height = end + 20.0

    def x(at: float) -> float:
        return round(WIDTH_MM - at if mirrored else at, 3)

    anchor = "end" if mirrored else "start"
    parts = [
        _open(WIDTH_MM, height),
        f'<text x="3" y="5" class="bold">{escape(title)}</text>',
        f'<line class="string" x1="{x(STRING_AT_MM)}" y1="{NOCK_AT_MM - 3}" '
        f'x2="{x(STRING_AT_MM)}" y2="{end:.3f}"/>',
        _line(x(STRING_AT_MM - 3), NOCK_AT_MM, x(STRING_AT_MM + 5), "nock"),
        f'<text x="{x(STRING_AT_MM + 6)}" y="{NOCK_AT_MM - 1.2}" text-anchor="{anchor}" '
        'class="soft small">underside of the nock</text>',
    ]
    column, before = 0, -99.0
    for one in shown:
        y = NOCK_AT_MM + one.crawl_mm
        column = 1 - column if one.crawl_mm - before < CLOSE_MM else 0
        before = one.crawl_mm
        reach = STRING_AT_MM + TICK_MM + 13 * column
        top = min(x(STRING_AT_MM + 1), x(STRING_AT_MM + 4))
        parts += [
            f'<rect class="band" x="{top}" y="{y - one.half_mm:.3f}" width="3" '
            f'height="{2 * one.half_mm:.3f}"/>',
            _line(x(STRING_AT_MM), y, x(reach), "crawl"),
            f'<text x="{x(reach + 1)}" y="{y + 1:.3f}" text-anchor="{anchor}">'
            f"{escape(one.label)}</text>",
        ]
    if stitch_mm:
        count = int((deepest + BEYOND_MM) / stitch_mm)
        for number in range(count + 1):
            y = NOCK_AT_MM + number * stitch_mm
            size = 0.55 if number % 5 == 0 else 0.35
            parts.append(
                f'<circle class="stitch" cx="{x(STRING_AT_MM - 5)}" cy="{y:.3f}" r="{size}"/>'
            )
            if number % 5 == 0:
                parts.append(
                    f'<text x="{x(STRING_AT_MM - 7)}" y="{y + 0.9:.3f}" class="soft small" '
                    f'text-anchor="{"start" if mirrored else "end"}">{number}</text>'
                )
    parts += [*_ruler(end + 9), "</svg>"]
    return "".join(parts)


def _open(width: float, height: float) -> str:
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height:.3f}mm" '
        f'viewBox="0 0 {width} {height:.3f}"><style>{_STYLE}</style>'
    )


def _line(x1: float, y: float, x2: float, kind: str) -> str:
    return f'<line class="{kind}" x1="{x1}" y1="{round(y, 3)}" x2="{x2}" y2="{round(y, 3)}"/>'


def _ruler(y: float) -> list[str]:
    left = (WIDTH_MM - RULER_MM) / 2
    parts = [_line(left, y, left + RULER_MM, "ruler")]
    for centimetre in range(6):
        at = left + 10 * centimetre
        parts.append(f'<line x1="{at}" y1="{y - 1.5:.3f}" x2="{at}" y2="{y + 1.5:.3f}"/>')
    parts.append(
        f'<text x="{WIDTH_MM / 2}" y="{y + 5:.3f}" text-anchor="middle" class="small">'
        "measure this: 50 mm</text>"
    )
    return parts


def card_svg(rows: Sequence[tuple[str, str, str]], *, title: str, head: tuple[str, str]) -> str:
    """Return the pocket card as SVG, the size of a bank card: distance, mm, and the notation.

    Source: definition.

    >>> 'width="85.6mm"' in card_svg([("20 m", "34", "1 3/4")], title="Bram", head=("mm", "f"))
    True
    """
    width, height = CARD_MM
    shown = list(rows[:MOST_CARD_ROWS])
    half = (len(shown) + 1) // 2
    parts = [
        _open(width, height),
        f'<rect x="0.2" y="0.2" width="{width - 0.4}" height="{height - 0.4}" rx="3" '
        'fill="none" stroke="#555" stroke-width=".2"/>',
        f'<text x="4" y="6" class="bold">{escape(title)}</text>',
    ]
    for column, group in enumerate((shown[:half], shown[half:])):
        left = 4 + column * width / 2
        for at, words in ((16.0, head[0]), (36.0, head[1])):
            parts.append(f'<text x="{left + at}" y="11" text-anchor="end" class="soft small">'
                         f"{escape(words)}</text>")  # fmt: skip
        for number, (where, crawl, noted) in enumerate(group):
            y = 16 + number * ROW_MM
            parts += [
                f'<text x="{left}" y="{y:.2f}" class="bold">{escape(where)}</text>',
                f'<text x="{left + 16}" y="{y:.2f}" text-anchor="end">{escape(crawl)}</text>',
                f'<text x="{left + 36}" y="{y:.2f}" text-anchor="end">{escape(noted)}</text>',
            ]
    return "".join([*parts, "</svg>"])


def strip_of(c: Computed) -> str:
    """Return the strip of a rig's table. Raises `DomainError` where there is none yet.

    >>> from lyrandis.core.example import rig
    >>> strip_of(rig(["draw 28"]))
    Traceback (most recent call last):
    ...
    lyrandis.core.errors.DomainError: There is no table of crawls yet.
    """
    crawls = _known(c)
    ticks = [
        Tick(said_distance(row.distance_m, crawls.unit), row.crawl_mm, row.half_mm)
        for row in crawls.rows
    ]
    hand = c.setup.archer.hand
    return strip_svg(
        ticks,
        title=_title(c),
        stitch_mm=crawls.stitch.value if crawls.stitch else None,
        mirrored=hand is not None and hand.reading.hand == "left",
    )


def card_of(c: Computed) -> str:
    """Return the pocket card of a rig's table. Raises `DomainError` where there is none yet.

    >>> from lyrandis.core.example import rig
    >>> "20 m" in card_of(rig())
    True
    """
    crawls = _known(c)
    by, step, parts = "fingers", crawls.finger, 4
    if crawls.stitch is not None and crawls.notation == "stitches":
        by, step, parts = "stitches", crawls.stitch, 2
    rows = []
    for row in crawls.rows:
        if row.crawl_mm < 0:
            continue
        noted = in_figures(round(row.crawl_mm / step.value * parts) / parts)
        rows.append((said_distance(row.distance_m, crawls.unit), f"{row.crawl_mm:.0f}", noted))
    return card_svg(rows, title=_title(c), head=("mm", by))


def _known(c: Computed) -> CrawlNumbers:
    if not c.crawls.rows:
        raise DomainError(
            "nothing_to_shoot",
            "There is no table of crawls yet.",
            f"Enter {', and '.join(c.crawls.lacks) or 'what the crawls need'} first.",
        )
    return c.crawls


def _title(c: Computed) -> str:
    on = c.crawls.fit.point_on if c.crawls.fit else None
    where = f", point-on {said_distance(round(on.value), 'm')}" if on else ""
    name = c.setup.name or "Crawls"
    return f"{name}{where if c.crawls.unit == 'm' else ''}"
