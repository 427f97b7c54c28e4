"""Words of this bench's own: a refused line, what it meant, and the phrase learnt from it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from lyrandis.core.hearing.hear import Ear, Table
from lyrandis.core.hearing.items import Item, items_of, words_of
from lyrandis.core.hearing.matching import Matching
from lyrandis.core.hearing.plain_words import FILLER, HEDGES, TURNING
from lyrandis.core.hearing.table import Word
from lyrandis.core.hearing.writing import SPOKEN_UNITS
from lyrandis.core.reading import BaseReading

LONGEST_PHRASE = 4
"""Words of a phrase that is learnt."""


@dataclass(frozen=True, slots=True)
class Taught:
    """A phrase that stands for a row's name, or for a value of one of its choices."""

    phrase: str
    row: str
    """The row's key."""
    choice: str | None = None
    said: str | None = None
    """How we say the value it stands for."""


def learn(
    ear: Ear, line: str, row: Word, meant: BaseReading, told: dict[str, str]
) -> Taught | None:
    """Return what makes a refused line read as what was meant by it; None where nothing does.

    A phrase is learnt that no row says yet and that turns nothing: as a name of the row, else as
    one of the choices told in its form. The whole line must then read as what was meant.

    >>> from lyrandis.core.jot import EAR, ROWS, parse
    >>> row = next(row for row in ROWS if row.word == "riser")
    >>> learn(EAR, "middle bit 17", row, parse("riser 17").reading, {})
    Taught(phrase='middle', row='riser: riser {riser_length_mm}', choice=None, said=None)
    """
    items = items_of(line)
    at = next((n for n, other in enumerate(ear.table.words) if other.key == row.key), None)
    if at is None:
        return None
    known = {spelling.words for other in ear.table.words for spelling in other.spelled}
    for phrase in _phrases(items, known):
        for taught in _ways(phrase, row, told):
            fit = Matching(_with(row, taught), items, ear.units, ear.brace_datum).fit(
                ear.table.subjects[at]
            )
            if fit is None or not fit.fits or fit.questions or fit.reading != meant:
                continue
            if _reads(ear, line, taught, meant):
                return taught
    return None


def _reads(ear: Ear, line: str, taught: Taught, meant: BaseReading) -> bool:
    taken = replace(ear, table=with_taught(ear.table, (taught,))).hear(line).taken
    return taken is not None and taken.reading == meant


def _phrases(items: Sequence[Item], known: set[tuple[str, ...]]) -> Iterator[str]:
    """Yield runs of words that may be learnt, the longest first."""
    for length in range(LONGEST_PHRASE, 0, -1):
        for start in range(len(items) - length + 1):
            run = items[start : start + length]
            words = tuple(item.word for item in run)
            if all(map(_is_word, run)) and words not in known:
                yield " ".join(words)


def _is_word(item: Item) -> bool:
    plain = item.amount is None and item.word.isalpha()
    return plain and not any(
        item.word in group for group in (FILLER, HEDGES, TURNING, SPOKEN_UNITS)
    )


def _ways(phrase: str, row: Word, told: dict[str, str]) -> Iterator[Taught]:
    yield Taught(phrase, row.key)
    for choice, ways in row.own_words.items():
        if told.get(choice) in ways.values():
            yield Taught(phrase, row.key, choice, told[choice])


def _with(row: Word, taught: Taught) -> Word:
    """Return a row that knows one phrase more."""
    if taught.choice is None:
        return replace(row, names=f"{row.names}; {taught.phrase}")
    values: dict[Any, str] = dict(row.choices[taught.choice])
    for value, own in row.own_words[taught.choice].items():
        if own == taught.said:
            values[value] = f"{values[value]}; {taught.phrase}"
    return replace(row, choices={**row.choices, taught.choice: values})


@lru_cache(maxsize=16)
def with_taught(table: Table, taught: tuple[Taught, ...]) -> Table:
    """Return a table that knows what this bench was taught; what fits no row any more is left out.

    >>> from lyrandis.core.jot import EAR, TABLE
    >>> known = with_taught(TABLE, (Taught("fizzle", "riser: riser {riser_length_mm}"),))
    >>> Ear(known).hear("fizzle 17").taken.reading.riser_length_mm
    431.8
    """
    rows = {row.key: row for row in table.words if row.records}
    for one in taught:
        row = rows.get(one.row)
        known = row is not None and (one.choice is None or one.choice in row.choices)
        if row is not None and known and words_of(one.phrase):
            rows[one.row] = _with(row, one)
    words = tuple(rows.get(row.key, row) if row.records else row for row in table.words)
    return Table(words, table.subjects)
