"""What a bench learns from a line it refused."""

import pytest

from lyrandis.core.errors import DomainError
from lyrandis.core.hearing.taught import Taught, learn, with_taught
from lyrandis.core.jot import EAR, ROWS, TABLE, Listener, parse

LINES = [
    ("fizzle 7 1/2 grip", "brace 7 1/2 grip", {"datum": "grip"}),
    ("the middle piece is 17", "riser 17", {}),
    ("I hold it flatwise", "hold split", {"hold": "split"}),
    ("my hidden anchor", "anchor chin", {"anchor": "chin"}),
    ("dart tip 125 grains", "point 125 grains", {}),
]


def taught_by(line: str, meant: str, told: dict[str, str]) -> Taught | None:
    jotted = parse(meant)
    row = next(r for r in ROWS if r.word == jotted.word and r.kind == jotted.reading.kind)
    return learn(EAR, line, row, jotted.reading, told)


@pytest.mark.parametrize(("line", "meant", "told"), LINES)
def test_a_line_taught_once_reads_as_it_was_meant(
    line: str, meant: str, told: dict[str, str]
) -> None:
    with pytest.raises(DomainError):
        parse(line)
    taught = taught_by(line, meant, told)
    assert taught is not None
    table = with_taught(TABLE, (taught,))
    assert (
        parse(line, to=Listener(table=table, brace_datum="pivot")).reading == parse(meant).reading
    )


def test_other_numbers_are_understood_too() -> None:
    taught = taught_by(*LINES[0])
    assert taught is not None
    table = with_taught(TABLE, (taught,))
    other = parse("my fizzle is 8 1/4 to the back", to=Listener(table=table)).reading
    assert other == parse("brace 8 1/4 back").reading


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("riser off 17", "riser 17"),  # a word that turns the line is never learnt away
        ("not riser 17", "riser 17"),
        ("riser 17 62", "riser 17"),  # nor is a number
        ("17", "riser 17"),
    ],
)
def test_what_would_turn_other_lines_is_not_learnt(line: str, meant: str) -> None:
    assert taught_by(line, meant, {}) is None


def test_a_phrase_of_the_table_is_not_taken_from_its_row() -> None:
    assert taught_by("point 17", "riser 17", {}) is None


def test_a_bench_that_learnt_reads_everything_else_as_before() -> None:
    learnt = [taught_by(*line) for line in LINES]
    table = with_taught(TABLE, tuple(one for one in learnt if one is not None))
    for row in ROWS:
        if row.records and row.reads is None:
            to = Listener(table=table, brace_datum="pivot")
            assert parse(row.example, to=to).reading == parse(row.example).reading


def test_what_fits_no_row_any_more_says_nothing() -> None:
    old = (Taught("gizmo", "gone: gone {x}"), Taught("gizmo", ROWS[0].key, "no_such_choice", "x"))
    table = with_taught(TABLE, old)
    with pytest.raises(DomainError):
        parse("gizmo 17", to=Listener(table=table))
