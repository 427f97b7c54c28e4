"""The layout of a pasted table: its rows, its heading, and what each column holds."""

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, StringConstraints

from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError

ColumnName = Literal["number", "mass", "spine", "straight", "turn", "state", "remark", "quill"]
_SPELLINGS: dict[ColumnName, tuple[str, ...]] = {
    "number": ("number", "no", "nr", "#", "arrow", "arrow number", "arrow no", "shaft", "id"),
    "mass": ("mass", "weight", "grains", "gr", "g", "grams", "finished mass", "total"),
    "spine": ("spine", "static spine"),
    "straight": ("straight", "straightness", "run-out", "runout", "run out"),
    "turn": ("turn", "turned", "nock turn", "nock"),
    "state": ("state", "looked", "condition"),
    "remark": ("remark", "remarks", "note", "notes", "comment"),
    "quill": ("quill", "quills", "quill ends", "feathers"),
}
"""Column names understood; a unit may stand behind the name: `mass g`."""
ORDER: tuple[ColumnName, ...] = tuple(_SPELLINGS)
UNITS: dict[ColumnName, tuple[str, ...]] = {
    "mass": ("gr", "g", "oz"),
    "spine": ("lb", "thousandths"),
    "straight": ("mm", "in"),
}
"""Units a column may be in; the first is what our own tables are written in."""
_ASKED_BELOW: dict[ColumnName, float] = {"mass": 80.0, "spine": 200.0}
"""Bare numbers below it could be in another unit than the usual one: then it is asked, once."""

MOST_CELL_ROWS = 200
LONGEST_CELL = 200
"""Longer cells are no reading of an arrow; checked before any pattern runs over them."""
_MOST_TITLE_LINES = 10
_DELIMITERS = "\t;,"
_BARE = re.compile(r"\d{1,6}(?:[.,]\d{1,6})?")

CellRow = tuple[int, list[str]]
"""A line as counted in the text, the first being 1, and its cells."""


class ColumnAs(BaseModel):
    """What the archer says a column holds; without a name it is left aside."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: ColumnName | None = None
    unit: Annotated[str, StringConstraints(max_length=20)] | None = None


class TableColumn(Drawn):
    """A column as it is understood."""

    head: str
    """What stands over it; empty where nothing does."""
    cells: tuple[str, ...]
    """The first things that stand in it."""
    name: ColumnName | None
    unit: str | None
    units: tuple[str, ...]
    """Units to choose from."""
    unit_wanted: bool
    """True when its numbers could be in several units and none is given."""


@dataclass(frozen=True)
class Layout:
    """A table taken apart."""

    columns: tuple[TableColumn, ...]
    body: tuple[CellRow, ...]
    titles: tuple[str, ...]
    """Lines above the heading, which are left aside."""


def laid_out(text: str, columns: Sequence[ColumnAs] | None = None) -> Layout:
    """Take a table apart; `columns` is what the archer says each holds, from the left.

    Raises `DomainError` for an empty or far too long text, and for cells too long to be readings.
    """
    rows = [row for row in _rows(text) if any(cell.strip() for cell in row[1])]
    if not rows:
        raise DomainError(
            "empty", "There is no row to read.", "Paste one arrow a row: number, mass, spine."
        )
    at, begins = _heading(rows)
    head = [] if at is None else [cell.strip() for cell in rows[at][1]]
    body = rows[begins:]
    if len(body) > MOST_CELL_ROWS:
        raise DomainError(
            "too_long",
            f"{len(body)} rows are more than a quiver.",
            f"Give at most {MOST_CELL_ROWS}.",
        )
    width = max((len(cells) for _, cells in rows[begins if at is None else at :]), default=0)
    guessed: list[tuple[ColumnName | None, str | None]] = [(name, None) for name in ORDER]
    if columns is not None:
        guessed = [(column.name, column.unit) for column in columns]
    elif at is not None:
        guessed = [_column(cell) for cell in head]
    guessed += [(None, None)] * (width - len(guessed))
    return Layout(
        columns=tuple(
            _as_column(index, name, unit, head, body)
            for index, (name, unit) in enumerate(guessed[:width])
        ),
        body=tuple(body),
        titles=tuple(
            " ".join(filter(None, cells)).strip()
            for _, cells in rows[: begins if at is None else at]
        ),
    )


def _rows(text: str) -> list[CellRow]:
    text = text.lstrip("\ufeff")
    first, _, rest = text.partition("\n")
    skipped, said = 0, re.fullmatch(r"\s*\"?sep=(.)\"?\s*", first[:20], re.IGNORECASE)
    if said:
        text, skipped = rest, 1
    delimiter = said.group(1) if said else _delimiter(text)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    result: list[CellRow] = []
    try:
        for row in reader:
            line = reader.line_num + skipped
            if any(len(cell) > LONGEST_CELL for cell in row):
                raise DomainError(
                    "too_much",
                    f"Line {line} holds a cell too long for an arrow.",
                    f"Shorten it to {LONGEST_CELL} characters.",
                )
            result.append((line, row))
    except csv.Error as error:
        raise DomainError(
            "not_a_table",
            f"Line {reader.line_num + skipped}: {error}.",
            "Check the quotation marks there.",
        ) from None
    return result


def _delimiter(text: str) -> str:
    """Return what stands between cells: the mark most lines have most of.

    A comma may be a decimal's, so that it comes last of equals; a mark that lines have once beside
    many others stands in a remark.
    """
    lines = [line for line in text[:20_000].splitlines() if line.strip()][:12]
    usual = {mark: median(line.count(mark) for line in lines or [""]) for mark in _DELIMITERS}
    best = max(_DELIMITERS, key=lambda mark: usual[mark])
    if usual[best] > 0:
        return best
    return next((mark for mark in _DELIMITERS if any(mark in line for line in lines)), ",")


def _heading(rows: Sequence[CellRow]) -> tuple[int | None, int]:
    """Return which row is the heading, if any, and where the arrows begin."""
    for index, (_, cells) in enumerate(rows[:_MOST_TITLE_LINES]):
        told = [cell.strip() for cell in cells if cell.strip()]
        if told[0][0].isdecimal() and (len(told) > 1 or index == 0):
            return None, index
        known = [_column(cell)[0] for cell in told]
        below = rows[index + 1 : index + 2]
        over_arrows = len(told) > 1 and bool(below) and _begins_an_arrow(below[0][1])
        if "number" in known or len([name for name in known if name]) > 1 or over_arrows:
            return index, index + 1
    return (0, 1) if len(rows) > 1 else (None, 0)


def _begins_an_arrow(cells: Sequence[str]) -> bool:
    return any(cell.strip()[:1].isdecimal() for cell in cells)


def _column(head: str) -> tuple[ColumnName | None, str | None]:
    """Return the column a heading names and its unit; an unknown one is left aside."""
    words = re.sub(r"[()\[\],:]", " ", head.strip().lower()).split()
    for split in range(len(words), 0, -1):
        said = " ".join(words[:split]).rstrip(".")
        for name, spellings in _SPELLINGS.items():
            if said in spellings:
                unit = " ".join(words[split:]) or _unit_of(said)
                return name, unit
    return None, None


def _unit_of(said: str) -> str | None:
    return {"g": "g", "grams": "g", "gr": "gr", "grains": "gr"}.get(said)


def _as_column(
    index: int, name: ColumnName | None, unit: str | None, head: list[str], body: Sequence[CellRow]
) -> TableColumn:
    cells = [row[index].strip() for _, row in body if index < len(row) and row[index].strip()]
    return TableColumn(
        head=head[index] if index < len(head) else "",
        cells=tuple(cells[:3]),
        name=name,
        unit=unit,
        units=UNITS.get(name, ()) if name else (),
        unit_wanted=unit is None and name is not None and _unclear(name, cells),
    )


def _unclear(name: ColumnName, cells: Sequence[str]) -> bool:
    """Return True when bare numbers are too small for the usual unit."""
    bare = [float(cell.replace(",", ".")) for cell in cells if _BARE.fullmatch(cell)]
    below = _ASKED_BELOW.get(name)
    return below is not None and bool(bare) and sorted(bare)[len(bare) // 2] < below
