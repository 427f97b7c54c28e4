"""Tables of one archer and bow side by side: by arrow set, anchor and hold; which one stands."""

from datetime import datetime

from lyrandis.core.archer.words import ANCHOR_WORDS, HOLD_WORDS, Anchor, Hold
from lyrandis.core.computed import Computed, crawls_held
from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.marks import Holding
from lyrandis.core.crawls.numbers import CrawlNumbers
from lyrandis.core.crawls.ranges import ends_m
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.crawls.words import DistanceUnit
from lyrandis.core.drawn import Drawn
from lyrandis.core.effective import when
from lyrandis.core.phrase import Phrase

COMPARED = (10.0, 20.0, 30.0, 40.0, 50.0)
"""In the archer's unit."""


class TableCell(Drawn):
    """A crawl of one table."""

    crawl_mm: float
    half_mm: float
    deeper_mm: float | None
    """Than the table that stands has it; None for that one."""


class TableLine(Drawn):
    """One table: arrows, anchor and hold."""

    key: str
    arrow_set: str | None
    arrows: str
    anchor: Anchor
    hold: Hold
    held: str
    stands: bool
    """True for the table of what is fitted and how it is held now."""
    marks: int
    last: datetime | None
    """When its newest mark was shot."""
    half_mm: float | None
    point_on_m: float | None
    point_on_half_m: float | None
    cells: tuple[TableCell | None, ...]
    """At the distances that are compared; None beyond the table's end."""
    since: Phrase | None
    """Why it is in doubt: what moved since it was shot, its own arrows and holding apart."""
    begun_from: str | None
    """The arrows whose marks told eye and speed to begin with."""


class TablesBoard(Drawn):
    """Every table there is."""

    unit: DistanceUnit
    distances: tuple[str, ...]
    tables: tuple[TableLine, ...]


def tables_board(c: Computed) -> TablesBoard:
    """Return the tables of the archer's arrow sets, anchors and holds, the one that stands first.

    Source: `CrawlNumbers`; doubt by the order of work.

    >>> from lyrandis.core.example import rig
    >>> found = tables_board(rig())
    >>> [(line.stands, line.marks) for line in found.tables]
    [(True, 0)]
    """
    per = M_PER_YD if c.crawls.basis.unit == "yd" else 1.0
    distances = tuple(item * per for item in COMPARED)
    tables = [_line(c, item, distances, own=item is c.crawls) for item in _all(c)]
    return TablesBoard(
        unit=c.crawls.basis.unit,
        distances=tuple(said_distance(distance, c.crawls.basis.unit) for distance in distances),
        tables=tuple(tables),
    )


def _all(c: Computed) -> list[CrawlNumbers]:
    """Return the numbers of every table: the standing one, then those that have marks."""
    own = c.crawls
    holding = Holding(c.setup.order.anchors, c.setup.order.holds)
    over_time = holding.over_time(own.basis.anchor, own.basis.hold)
    result = [own]
    for number, arrows in enumerate((own, *own.others)):
        marks = arrows.basis.facts.marks
        for anchor, hold in dict.fromkeys(over_time.at(when(mark.entry)) for mark in marks):
            if number == 0 and (anchor, hold) == (own.basis.anchor, own.basis.hold):
                continue
            held = crawls_held(c, anchor, hold)
            result.append((held, *held.others)[number])
    return result


def _line(c: Computed, of: CrawlNumbers, distances: tuple[float, ...], *, own: bool) -> TableLine:
    on = of.marks.fit.point_on if of.marks.fit else None
    instants = [when(mark.recorded.entry) for mark in of.marks.counting]
    since = c.order.crawls_since(
        instants,
        other_arrows=of.basis.arrow_set != c.crawls.basis.arrow_set,
        other_holding=(of.basis.anchor, of.basis.hold)
        != (c.crawls.basis.anchor, c.crawls.basis.hold),
    )
    return TableLine(
        key=f"{of.basis.arrow_set or '-'}.{of.basis.anchor}.{of.basis.hold}",
        arrow_set=of.basis.arrow_set,
        arrows=of.basis.arrows or "arrows",
        anchor=of.basis.anchor,
        hold=of.basis.hold,
        held=f"{ANCHOR_WORDS[of.basis.anchor]}, {HOLD_WORDS[of.basis.hold]}",
        stands=own,
        marks=len(of.marks.counting),
        last=max(instants)[0] if instants else None,
        half_mm=of.table.half_mm,
        point_on_m=on.value if on else None,
        point_on_half_m=of.marks.fit.factor * on.sd if of.marks.fit and on else None,
        cells=tuple(_cell(c.crawls, of, distance, own=own) for distance in distances),
        since=since,
        begun_from=of.before.basis.arrows or "other arrows" if of.before else None,
    )


def _cell(
    standing: CrawlNumbers, of: CrawlNumbers, distance_m: float, *, own: bool
) -> TableCell | None:
    if (
        of.marks.fit is None
        or of.table.own_sight is None
        or ends_m(of.table.own_sight, distance_m) < distance_m
    ):
        return None
    row = of.marks.fit.table([distance_m])[0]
    apart = None
    if not own and standing.marks.fit is not None:
        apart = row.crawl_mm - standing.marks.fit.table([distance_m])[0].crawl_mm
    return TableCell(crawl_mm=row.crawl_mm, half_mm=row.half_mm, deeper_mm=apart)
