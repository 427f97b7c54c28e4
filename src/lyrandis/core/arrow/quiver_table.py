"""A dozen arrows at once: a pasted or imported table read into entries, and written back."""

import csv
import io
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from pydantic import ValidationError

from lyrandis.core.arrow.jots import PLAIN_WORDS, WORDS
from lyrandis.core.arrow.quiver import QuiverArrow
from lyrandis.core.arrow.readings import ArrowMassed, NumberedArrow
from lyrandis.core.arrow.table_columns import (
    ColumnAs,
    ColumnName,
    Layout,
    TableColumn,
    laid_out,
)
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError, in_words
from lyrandis.core.hearing.asking import answer
from lyrandis.core.hearing.hear import Ear, Table
from lyrandis.core.units import UnitSet

_ROWS = tuple(row for row in WORDS if row.word == "arrow" and row.reads is None)
_EAR = Ear(Table(_ROWS, (frozenset(PLAIN_WORDS.split()),) * len(_ROWS)))
"""Hears what a cell says of one arrow."""
STATES = ("sound", "cracked", "retired", "back")
_BARE = re.compile(r"[-+−]?\d{1,6}(?:[.,]\d{1,6})?")
_FORMULA = re.compile(r"'*[=+\-@\t\r]")
"""How a cell begins that a spreadsheet would take for a formula: it gets an apostrophe before."""


class BadRow(Drawn):
    """A row that cannot be read, and what to do about it."""

    row: int
    """As counted in the text, the first line being 1."""
    column: str | None
    text: str
    reason: str
    instruction: str


class QuiverTable(Drawn):
    """What a table would record, and how it was understood."""

    columns: tuple[TableColumn, ...]
    titles: tuple[str, ...]
    """Lines above the heading, which are left aside."""
    unanswered: str | None
    """What must be said of the columns before anything can be recorded."""
    readings: tuple[ArrowMassed | NumberedArrow, ...]
    arrows: tuple[int, ...]
    """Numbers read without a fault."""
    bad: tuple[BadRow, ...]


@dataclass(frozen=True)
class _Cell:
    column: ColumnName
    text: str
    unit: str | None


def read_quiver_table(
    text: str, columns: Sequence[ColumnAs] | None = None, units: UnitSet = "inch"
) -> QuiverTable:
    """Read a pasted or imported table: one arrow a row, in columns, headed or in our own order.

    Tab, semicolon or comma between cells; units as on the jot line, or behind a column's name.
    `columns` is what the archer says each column holds, from the left. Never records anything.
    Raises `DomainError` for an empty or far too long text; a row that cannot be read is named, and
    the others stand.

    >>> table = read_quiver_table("No;Mass g\\n1;30,2\\n2;30,4")
    >>> table.arrows, round(table.readings[0].arrow_mass_gr, 1)
    ((1, 2), 466.1)
    """
    layout = laid_out(text, columns)
    unanswered = _unanswered(layout)
    readings: list[ArrowMassed | NumberedArrow] = []
    numbers: list[int] = []
    bad: list[BadRow] = []
    for line, cells in layout.body if unanswered is None else ():
        try:
            number, result = _arrow(line, _told(layout, cells), set(numbers))
        except _Bad as fault:
            bad.append(fault.row(units))
            continue
        numbers.append(number)
        readings += result
    return QuiverTable(
        columns=layout.columns,
        titles=layout.titles,
        unanswered=unanswered,
        readings=tuple(readings),
        arrows=tuple(numbers),
        bad=tuple(bad),
    )


def _unanswered(layout: Layout) -> str | None:
    names = [column.name for column in layout.columns if column.name]
    if "number" not in names:
        return "Say which column holds the arrows' numbers."
    for name in names:
        if names.count(name) > 1:
            return f"Two columns are taken for the {name}: leave one aside."
    if len(names) == 1:
        return "Say what one more column holds, such as the mass."
    wanted = next((column for column in layout.columns if column.unit_wanted), None)
    if wanted is not None:
        return f"Say in which unit the {wanted.name} is: {', '.join(wanted.cells)}."
    return None


class _Bad(Exception):  # noqa: N818
    def __init__(self, line: int, column: str | None, text: str, error: DomainError) -> None:
        self._where = (line, column, text)
        self._error = error

    def row(self, units: UnitSet) -> BadRow:
        line, column, text = self._where
        reason, instruction = (in_words(said, units) for said in self._error.says)
        return BadRow(row=line, column=column, text=text, reason=reason, instruction=instruction)


def _told(layout: Layout, cells: Sequence[str]) -> list[_Cell]:
    return [
        _Cell(column.name, cell.strip(), column.unit)
        for column, cell in zip(layout.columns, cells, strict=False)
        if column.name and cell.strip()
    ]


def _arrow(
    line: int, told: list[_Cell], seen: set[int]
) -> tuple[int, list[ArrowMassed | NumberedArrow]]:
    number = _number(line, told, seen)
    result = [
        reading
        for cell in told
        if cell.column != "number"
        for reading in _readings(line, number, cell)
    ]
    if not result:
        raise _bad(line, None, f"{number}", "Nothing is said of this arrow.", "Give its mass.")
    return number, result


def _number(line: int, told: list[_Cell], seen: set[int]) -> int:
    said = next((cell.text for cell in told if cell.column == "number"), "").lstrip("#")
    if not re.fullmatch(r"[0-9]{1,3}", said) or int(said) == 0:
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
    return _Bad(line, column, text, DomainError("invalid", reason, instruction))


def _readings(line: int, number: int, cell: _Cell) -> list[ArrowMassed | NumberedArrow]:
    try:
        if cell.column == "remark":
            return [NumberedArrow(arrow_number=number, remark=_no_formula(cell.text))]
        if cell.column == "state":
            return [_spoken(f"{number} {state}") for state in _states(line, cell.text)]
        if cell.column == "mass" and not cell.text[0].isdecimal():
            raise DomainError(
                "not_a_number", f"“{cell.text}” is not a number.", "Give the mass, as 431gr."
            )
        unit = cell.unit or ""
        said = cell.text
        if unit and unit != "thousandths" and _BARE.fullmatch(said):
            said = f"{said}{unit}"
        before = {"mass": "", "turn": "turned"}.get(cell.column, cell.column)
        return [_spoken(f"{number} {before} {said}")]
    except DomainError as error:
        raise _Bad(line, cell.column, cell.text, error) from None
    except ValidationError:
        raise _bad(
            line, cell.column, cell.text, "This cannot be read.", "Shorten it or take it out."
        ) from None


def _states(line: int, said: str) -> list[str]:
    states = re.findall(r"[^\s,;/+]+", said.lower().replace(" and ", " "))
    for state in states:
        if state not in STATES:
            known = ", ".join(STATES)
            raise _bad(line, "state", said, f"“{said}” is no state.", f"Give one of: {known}.")
    return states


def _spoken(said: str) -> ArrowMassed | NumberedArrow:
    hearing = _EAR.hear(f"arrow {said}")
    reading = None if hearing.taken is None else hearing.taken.reading
    if not isinstance(reading, ArrowMassed | NumberedArrow):
        raise answer(hearing)
    return reading


def write_quiver_table(quiver: Iterable[QuiverArrow]) -> str:
    """Return the quiver as comma-separated text that `read_quiver_table` reads back."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(
        ["number", "mass gr", "spine lb", "straight mm", "turn", "state", "remark", "quill"]
    )
    for item in quiver:
        writer.writerow(
            [
                item.number,
                _plain(item.mass_gr),
                _plain(item.spine_lbf),
                _plain(item.straight_mm),
                _plain(item.nock_turn_deg),
                _state(item),
                _guarded(item.remark or ""),
                item.quill or "",
            ]
        )
    return out.getvalue()


def _state(one: QuiverArrow) -> str:
    looked = one.safety if one.looked_at else ""
    return " ".join(filter(None, (looked, "retired" if one.retired else "")))


def _guarded(remark: str) -> str:
    return f"'{remark}" if _FORMULA.match(remark) else remark


def _no_formula(cell: str) -> str:
    return cell[1:] if cell.startswith("'") and _FORMULA.match(cell) else cell


def _plain(value: float | None) -> str:
    return "" if value is None else f"{round(value, 2):g}"
