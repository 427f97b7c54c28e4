"""A dozen arrows at once: a pasted or imported table read into entries, and written back."""

import csv
import io
from collections.abc import Callable, Iterable
from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict, ValidationError

from lyrandis.core.arrow.jots import arrow
from lyrandis.core.arrow.quiver import QuiverArrow
from lyrandis.core.arrow.readings import ArrowMassed, NumberedArrow
from lyrandis.core.errors import DomainError
from lyrandis.core.spoken import Line

COLUMNS: dict[str, tuple[str, ...]] = {
    "number": ("number", "no", "nr", "#", "arrow"),
    "mass": ("mass", "weight", "grains", "gr", "g"),
    "spine": ("spine",),
    "straight": ("straight", "straightness", "run-out", "runout"),
    "turn": ("turn", "turned", "nock turn", "nock"),
    "state": ("state", "looked"),
    "remark": ("remark", "note", "notes"),
}
"""Column names understood; a unit may stand behind the name: `mass g`."""
STATES = ("sound", "cracked", "retired", "back")
ORDER = tuple(COLUMNS)
MOST_ROWS = 200
_DELIMITERS = "\t;,"


class BadRow(BaseModel):
    """A row that cannot be read, and what to do about it."""

    model_config = ConfigDict(frozen=True)

    row: int
    """As counted in the text, the first line being 1."""
    column: str | None
    text: str
    reason: str
    instruction: str


class QuiverTable(BaseModel):
    """What a table would record."""

    model_config = ConfigDict(frozen=True)

    readings: tuple[ArrowMassed | NumberedArrow, ...]
    arrows: tuple[int, ...]
    """Numbers read without a fault."""
    bad: tuple[BadRow, ...]


@dataclass(frozen=True)
class _Cell:
    column: str
    text: str
    unit: str


def read_quiver_table(text: str) -> QuiverTable:
    """Read a pasted or imported table: one arrow a row, in columns, headed or in our own order.

    Tab, semicolon or comma between cells; units as on the jot line, or behind a column's name.
    Never records anything. Raises `DomainError` for an empty or far too long text; a row that
    cannot be read is named, and the others stand.
    """
    rows = [row for row in _rows(text) if any(cell.strip() for cell in row[1])]
    if not rows:
        raise DomainError(
            "empty", "There is no row to read.", "Paste one arrow a row: number, mass, spine."
        )
    if len(rows) > MOST_ROWS:
        raise DomainError(
            "too_long", f"{len(rows)} rows are more than a quiver.", f"Give at most {MOST_ROWS}."
        )
    heads, body = _headed(rows)
    readings: list[ArrowMassed | NumberedArrow] = []
    numbers: list[int] = []
    bad: list[BadRow] = []
    for line, cells in body:
        try:
            number, found = _arrow(line, cells, heads, set(numbers))
        except _Bad as fault:
            bad.append(fault.row)
            continue
        numbers.append(number)
        readings += found
    return QuiverTable(readings=tuple(readings), arrows=tuple(numbers), bad=tuple(bad))


class _Bad(Exception):  # noqa: N818
    def __init__(self, row: BadRow) -> None:
        self.row = row


def _rows(text: str) -> list[tuple[int, list[str]]]:
    sample = text.strip("\ufeff\n ").splitlines()[:1] or [""]
    delimiter = next((mark for mark in _DELIMITERS if mark in sample[0]), ",")
    reader = csv.reader(io.StringIO(text.lstrip("\ufeff"), newline=""), delimiter=delimiter)
    try:
        return [(reader.line_num, row) for row in reader]
    except csv.Error as error:
        raise DomainError(
            "not_a_table", f"Line {reader.line_num}: {error}.", "Check the quotation marks there."
        ) from None


def _headed(
    rows: list[tuple[int, list[str]]],
) -> tuple[list[tuple[str, str]], list[tuple[int, list[str]]]]:
    """Return the columns with their units, and the rows below the heading."""
    first = rows[0][1]
    if any(cell.strip()[:1].isdecimal() for cell in first):
        return [(name, "") for name in ORDER], rows
    heads = [_column(cell) for cell in first]
    if "number" not in (name for name, _ in heads):
        raise DomainError(
            "no_numbers",
            "No column holds the arrows' numbers.",
            "Head one column “number”, or leave the heading out and start each row with it.",
        )
    return heads, rows[1:]


def _column(head: str) -> tuple[str, str]:
    """Return the column a heading names and its unit; an unknown one is left aside."""
    words = head.strip().lower().replace("(", " ").replace(")", " ").split()
    for split in range(len(words), 0, -1):
        said = " ".join(words[:split])
        for name, spellings in COLUMNS.items():
            if said in spellings:
                unit = " ".join(words[split:]) or (said if said in ("g", "gr") else "")
                return name, unit
    return "", ""


def _arrow(
    line: int, cells: list[str], heads: list[tuple[str, str]], seen: set[int]
) -> tuple[int, list[ArrowMassed | NumberedArrow]]:
    told = [
        _Cell(name, cell.strip(), unit)
        for (name, unit), cell in zip(heads, cells, strict=False)
        if name and cell.strip()
    ]
    number = _number(line, told, seen)
    found: list[ArrowMassed | NumberedArrow] = []
    for cell in told:
        if cell.column != "number":
            found.append(_read(line, number, cell))
    if not found:
        raise _bad(line, None, f"{number}", "Nothing is said of this arrow.", "Give its mass.")
    return number, found


def _number(line: int, told: list[_Cell], seen: set[int]) -> int:
    said = next((cell.text for cell in told if cell.column == "number"), "")
    if not said.isdecimal() or not 1 <= int(said) <= 999:
        raise _bad(
            line,
            "number",
            said,
            f"“{said}” is no arrow's number.",
            "Give a whole number, 1 to 999.",
        )
    if int(said) in seen:
        raise _bad(
            line, "number", said, f"Arrow {said} stands in two rows.", "Keep one row an arrow."
        )
    return int(said)


def _bad(line: int, column: str | None, text: str, reason: str, instruction: str) -> _Bad:
    return _Bad(BadRow(row=line, column=column, text=text, reason=reason, instruction=instruction))


_SAID: dict[str, Callable[[str], str]] = {
    "mass": lambda said: said,
    "spine": lambda said: f"spine {said}",
    "straight": lambda said: f"straight {said}",
    "turn": lambda said: f"turned {said}",
    "state": lambda said: said,
    "remark": lambda said: f"remark {said}",
}


def _read(line: int, number: int, cell: _Cell) -> ArrowMassed | NumberedArrow:
    said = cell.text
    if cell.column == "state" and said.lower() not in STATES:
        states = ", ".join(STATES)
        raise _bad(line, cell.column, said, f"“{said}” is no state.", f"Give one of: {states}.")
    if cell.column == "mass" and not said[0].isdecimal():
        raise _bad(
            line, cell.column, said, f"“{said}” is not a number.", "Give the mass, as 431gr."
        )
    if cell.unit and said.replace(".", "", 1).replace(",", "", 1).isdecimal():
        said = f"{said}{cell.unit}"
    try:
        told = Line(f"{number} {_SAID[cell.column](said)}")
        reading = arrow(told)
        told.end()
    except DomainError as error:
        raise _bad(line, cell.column, cell.text, error.reason, error.instruction) from None
    except ValidationError:
        raise _bad(
            line, cell.column, cell.text, "This cannot be read.", "Shorten it or take it out."
        ) from None
    if not isinstance(reading, ArrowMassed | NumberedArrow):
        raise _bad(line, cell.column, cell.text, "This cannot be read.", "Check the column.")
    return reading


def write_quiver_table(quiver: Iterable[QuiverArrow]) -> str:
    """Return the quiver as comma-separated text that `read_quiver_table` reads back."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["number", "mass gr", "spine lb", "straight mm", "turn", "state", "remark"])
    for one in quiver:
        writer.writerow(
            [
                one.number,
                _plain(one.mass_gr),
                _plain(one.spine_lbf),
                _plain(one.straight_mm),
                _plain(one.nock_turn_deg),
                "retired" if one.retired else (one.safety if one.looked_at else ""),
                one.remark or "",
            ]
        )
    return out.getvalue()


def _plain(value: float | None) -> str:
    return "" if value is None else f"{round(value, 2):g}"
