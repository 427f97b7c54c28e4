"""What a rule was tried on and what came of it: the bench's own table, that no rule types figures.

`make worlds` (tools/try_worlds.py) shoots the trials and writes `tried.json` beside this file; a
test shoots some of them again.
"""

from collections.abc import Sequence
from functools import cache
from importlib.resources import files
from typing import Literal, NamedTuple

from pydantic import BaseModel, ConfigDict

TRIED = "tried.json"
TriedSubject = Literal["settling", "sweep", "speed", "tap", "takes", "naming", "recording"]


class TriedRow(BaseModel):
    """What came of one subject in one world."""

    model_config = ConfigDict(frozen=True)

    subject: TriedSubject
    world: str
    """What it was shot on, in words; the first of a subject is the engine's own."""
    times: int
    figures: dict[str, float]
    """Shares from 0 to 1, hours, by name."""


class TriedTable(BaseModel):
    """The whole table."""

    model_config = ConfigDict(frozen=True)

    rows: tuple[TriedRow, ...]

    def of(self, subject: TriedSubject) -> tuple[TriedRow, ...]:
        """Return the rows of a subject. Source: definition.

        >>> TriedTable(rows=()).of("tap")
        ()
        """
        return tuple(row for row in self.rows if row.subject == subject)


class Span(NamedTuple):
    """The least and the most of a figure over some worlds."""

    least: float
    most: float

    def percent(self) -> str:
        """Return it in per cent, one figure where both are the same. Source: definition.

        >>> Span(0.02, 0.071).percent(), Span(0.9, 0.9).percent()
        ('2 to 7 %', '90 %')
        """
        low, high = (f"{100 * share:.0f}" for share in self)
        return f"{low} %" if low == high else f"{low} to {high} %"


@cache
def tried() -> TriedTable:
    """Return the table that ships. Source: `make worlds`.

    >>> len(tried().of("settling")) > 5
    True
    """
    written = files("lyrandis.core").joinpath(TRIED).read_text(encoding="utf-8")
    return TriedTable.model_validate_json(written)


def span_of(rows: Sequence[TriedRow], figure: str) -> Span:
    """Return the least and the most of a figure over rows. Source: definition.

    >>> rows = [TriedRow(subject="tap", world=w, times=5, figures={"off": x})
    ...         for w, x in (("a", 0.2), ("b", 0.4))]
    >>> span_of(rows, "off")
    Span(least=0.2, most=0.4)
    """
    told = [row.figures[figure] for row in rows]
    return Span(min(told), max(told))


def share_of(
    subject: TriedSubject, figure: str, *, among: str = "", but: tuple[str, ...] = ()
) -> str:
    """Return a figure over the worlds of a subject, in per cent, from the least to the most.

    `among` and `but` are parts of the worlds' names. Source: `tried`.

    >>> share_of("settling", "early").endswith("%")
    True
    """
    rows = [
        row
        for row in tried().of(subject)
        if figure in row.figures
        and among in row.world
        and not any(part in row.world for part in but)
    ]
    return span_of(rows, figure).percent()


def times_of(subject: TriedSubject) -> int:
    """Return how often each world of a subject was tried at least. Source: `tried`.

    >>> times_of("settling") >= 20
    True
    """
    return min(row.times for row in tried().of(subject))
