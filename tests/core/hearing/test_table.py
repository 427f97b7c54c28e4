"""The table holds together: each row says itself in every order, by its form, in all units."""

import random
from collections.abc import Iterator
from contextlib import suppress

import pytest

from lyrandis.core.errors import DomainError
from lyrandis.core.hearing.forms import form_of, line_from_form
from lyrandis.core.hearing.plain_words import DENIALS, FILLER, HEDGES, IDIOMS, TURNING
from lyrandis.core.hearing.table import Word, spellings_of
from lyrandis.core.jot import EAR, ROWS, TABLE, Jotted, Listener, example_of, parse
from lyrandis.core.reading import BaseReading
from lyrandis.core.units import UNIT_SETS
from tests.core.hearing.test_lines import PARTS, SPOKEN, heard

SHOWN = tuple(row for row in ROWS if row.records)
HEARD = tuple(row for row in SHOWN if row.reads is None)
CHANGES = (
    "{} +4", "{} -4", "4 more {}", "added 4 {}", "took 4 {} out", "put 4 {} in", "{} on 4",
    "{} not 4", "{} off", "no {}",
)  # fmt: skip
TURNED = (
    "no", "not", "none", "off", "out", "in", "on", "up", "down", "more", "less", "added", "took",
    "extra", "higher", "lower", "heavier", "lighter", "over", "under", "before",
)  # fmt: skip
"""Words put in every place of every line."""


def reading(line: str, units: str = "inch", datum: str | None = "pivot") -> BaseReading | None:
    try:
        listener = Listener(None, units, None, PARTS, datum)  # type: ignore[arg-type]
        return parse(line, to=listener).reading
    except DomainError:
        return None


def test_nothing_that_turns_a_line_is_filler() -> None:
    assert not FILLER & TURNING
    assert not HEDGES & TURNING
    assert not FILLER & DENIALS


@pytest.mark.parametrize("row", SHOWN, ids=lambda row: f"{row.word}: {row.example}")
def test_every_example_reads_as_its_own_word_in_every_unit_set(row: Word) -> None:
    for units in UNIT_SETS:
        example = example_of(row, units)
        jotted = parse(example, to=Listener(None, units, None, PARTS, "pivot"))
        assert (jotted.word, jotted.reading.kind) == (row.word, row.kind), example
        assert row.subject == jotted.subject
        assert row.subject in jotted.reading.of


@pytest.mark.parametrize("row", HEARD, ids=lambda row: f"{row.word}: {row.example}")
def test_a_canonical_sentence_reads_as_itself(row: Word) -> None:
    for units in UNIT_SETS:
        fit = Listener(None, units, None, (), "pivot").ear.hear(example_of(row, units)).taken
        assert fit is not None
        assert fit.reading is not None
        assert reading(fit.sentence(), units) == fit.reading, fit.sentence()


def pieces_of(row: Word) -> dict[str, str]:
    """What the row's example says, by the fields of its form."""
    fit = EAR.hear(row.example).taken
    assert fit is not None
    names = {field.name for field in form_of(fit.word)}
    return {name: text for name, text in fit.texts.items() if name in names}


@pytest.mark.parametrize("row", HEARD, ids=lambda row: f"{row.word}: {row.example}")
def test_form_typed_order_and_free_order_make_the_same_reading(row: Word) -> None:
    typed = parse(row.example).reading
    told = pieces_of(row)
    assert {field.name for field in form_of(row) if field.needed} <= told.keys()
    assert reading(line_from_form(row, told)) == typed
    for line in free_orders(line_from_form(row, told)):
        assert reading(line) == typed, line


def free_orders(line: str) -> Iterator[str]:
    """The same said the other way round: what it is called behind, or “my … is …”."""
    words = line.split()
    named = next((at for at, word in enumerate(words) if word[0].isdigit()), 1)
    named += words[0] == "arrow" and len(words) > 2 and words[1].isdigit()  # arrow 4 is its name
    head, rest = " ".join(words[:named]), " ".join(words[named:])
    if rest:
        yield f"{rest} {head}"
        yield f"my {head} is {rest}"


def test_every_kind_that_is_typed_has_a_form() -> None:
    for row in SHOWN:
        names = [field.name for field in form_of(row)]
        assert len(names) == len(set(names)), row.say
        for field in form_of(row):
            assert field.label
            assert field.options or field.takes != "choice", (row.word, field.name)


def names() -> list[str]:
    return sorted({name for row in TABLE.words for name in (row.word, *spellings_of(row.names))})


def test_a_change_is_never_a_total() -> None:
    totals = []
    for name in names():
        for change in CHANGES[:6]:
            found = reading(change.format(name), datum=None)
            if found is not None and found.changes() is None and found.total_of() is not None:
                totals.append((change.format(name), found))
    assert totals == []


def test_no_word_that_turns_a_line_is_left_out_of_it() -> None:
    """Wherever it is put: the line reads otherwise, is asked, or the word is one of the row's."""
    for line in SPOKEN:
        meant = heard(line)
        if not isinstance(meant, Jotted):
            continue
        words = line["text"].split()
        for turning in TURNED[SPOKEN.index(line) % 3 :: 3]:
            for at in range(len(words) + 1):
                text = " ".join([*words[:at], turning, *words[at:]])
                found = heard({**line, "text": text})
                if isinstance(found, Jotted) and found.reading == meant.reading:
                    assert accounted(text, turning, line), text


def accounted(text: str, turning: str, line: dict[str, str]) -> bool:
    """Whether every turning word of a line that is taken belongs to the row or to a number."""
    listener = Listener(None, line["units"], None, (), line.get("brace_datum"))  # type: ignore[arg-type]
    hearing = listener.ear.hear(text.replace(", Monday", "").replace("on 20 nov", ""))
    fit = hearing.taken
    if fit is None:
        return False
    for at, item in enumerate(hearing.items):
        if item.word == turning and fit.taken_for[at] is None and not _in_idiom(hearing, at):
            return False
    return True


def _in_idiom(hearing: object, at: int) -> bool:
    items = hearing.items  # type: ignore[attr-defined]
    before = items[at - 1].word if at else ""
    behind = items[at + 1].word if at + 1 < len(items) else ""
    return (before, items[at].word) in IDIOMS or (items[at].word, behind) in IDIOMS


def test_word_salad_is_hardly_ever_a_reading() -> None:
    world = random.Random(28)
    words = [word for line in SPOKEN for word in line["text"].split()]
    taken = 0
    for _ in range(1500):
        salad = [world.choice(words) for _ in range(world.randint(3, 6))]
        taken += reading(" ".join(salad), datum=None) is not None
    assert taken <= 30


def test_every_guess_is_taken_as_it_stands() -> None:
    asked = 0
    for line in SPOKEN:
        for text in (line["text"], f"{line['text']} elevated", line["text"].split()[0]):
            error = heard({**line, "text": text})
            if isinstance(error, DomainError):
                real = [guess for guess in error.guesses if not guess.text.startswith("note ")]
                assert len(real) <= 3
                for guess in real:
                    asked += 1
                    found = heard({**line, "text": guess.text})
                    assert isinstance(found, Jotted), f"{text}: {guess.text}"
    assert asked > 100


NUMBERS = (
    "0", "1", "28", "7 1/2", "1/2", "431gr", "9999999", "0.0001", "-3", "+4", "20m", "20yd", "38#",
    "500", "50-55", "38/40", "2 fingers", "11 stitches", "half", "a", "hundred", "3 arrows", "5ft",
    "1m78", "1/3", "0 thou", "0mm", "0m",
)  # fmt: skip
BETWEEN = ("and", ",", ";", "to", "at", "@", "not", "no", "/", "-", "in", "over", "?", "here")


def test_no_line_of_any_kind_fails_otherwise_than_in_our_words() -> None:
    world = random.Random(11)
    spoken = sorted({word for row in TABLE.words for one in row.spelled for word in one.words})
    for _ in range(4000):
        from_where = [world.choice((spoken, spoken, NUMBERS, BETWEEN)) for _ in range(6)]
        line = " ".join(world.choice(words) for words in from_where[: world.randint(1, 6)])
        units = world.choice(UNIT_SETS)
        with suppress(DomainError):
            parse(line, to=Listener(None, units, None, (), world.choice((None, "pivot"))))


@pytest.mark.parametrize(
    "line",
    ["9" * 390, "draw " + "9" * 350, "spine 0 thou", "spine " + "9" * 320, ", ; and", "½½ draw ⅜/0",
     "one hundred hundred hundred hundred hundred hundred draw", "' ' # # @ @", "-- 5 +5+5 turns"],
)  # fmt: skip
def test_what_is_no_line_at_all_is_refused_in_our_words(line: str) -> None:
    with pytest.raises(DomainError) as refused:
        parse(line)
    assert refused.value.reason
    assert refused.value.instruction
