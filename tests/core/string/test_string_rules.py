"""The string judged: by table on both sides of every threshold, and what cannot be recorded."""

from typing import Any

import pytest

from lyrandis.core import entries as e
from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.computed import Computed, compute
from lyrandis.core.errors import DomainError
from lyrandis.core.jot import Listener, parse
from lyrandis.core.setup import fold
from lyrandis.core.string.advice import next_order, turns_to
from lyrandis.core.string.page import StringPage, page
from lyrandis.core.string.readings import BraceHeight
from tests.entries import draft, entries

RIG = ("hand right", "hold split", "draw 28", "hook 1/2", "family hunting recurve", "bow 60",
       "riser 17", "scale 45 @ 28 1/2", "arrow 1 430gr")  # fmt: skip
IN = 25.4


def computed(*said: Any) -> Computed:
    return compute(fold(entries(*RIG, *said)))


def judged(*said: Any) -> Assessment:
    return assess(fold(entries(*RIG, *said)))


def severity(name: str, *said: Any) -> str | None:
    return next((f.severity for f in judged(*said).findings if f.id == name), None)


TABLE = [
    # told length against both ways to reckon it: 56 in by habit
    ("string-length", ("string 56 16 strands",), None),
    ("string-length", ("string 56 3/4",), None),
    ("string-length", ("string 57",), "watch"),
    ("string-length", ("string 55 5/16",), None),
    ("string-length", ("string 55",), "watch"),
    # turns to the inch of a 56 in string
    ("string-turns", ("string 56", "stringtype twisted", "turns 0"), "stop"),
    ("string-turns", ("string 56", "stringtype endless", "turns 0"), "good"),
    ("string-turns", ("string 56", "stringtype twisted", "turns 8"), "watch"),
    ("string-turns", ("string 56", "stringtype twisted", "turns 8.5"), "good"),
    ("string-turns", ("string 56", "stringtype twisted", "turns 42"), "good"),
    ("string-turns", ("string 56", "stringtype twisted", "turns 42.5"), "watch"),
    ("string-turns", ("string 56", "stringtype twisted", "turns 56"), "watch"),
    ("string-turns", ("string 56", "stringtype twisted", "turns 56.5"), "mend"),
    # strength: 13 polyester strands are the least with the factor
    ("string-strands", ("fibre polyester", "string 56 16 strands"), "good"),
    ("string-strands", ("fibre polyester", "string 56 10 strands"), "watch"),
    ("string-strands", ("fibre polyester", "string 56 7 strands"), "mend"),
    ("string-strands", ("fibre polyester", "string 56 4 strands"), "stop"),
    ("string-strands", ("fibre linen", "string 56 16 strands"), None),
    # low stretch
    ("string-fibre", ("fibre low-stretch",), None),
    ("string-fibre", ("family selfbow", "fibre low-stretch"), "watch"),
    ("string-fibre", ("family short rigid tip", "fibre low-stretch"), "watch"),
    ("string-fibre", ("family selfbow", "fibre polyester"), None),
    # the quiet brace
    ("brace-quiet", ("tried 7 3/4 sound 3",), None),
    ("brace-quiet", ("tried 7 3/4 sound 3", "tried 7 1/4 sound 5"), "watch"),
]  # fmt: skip


@pytest.mark.parametrize(("name", "said", "expected"), TABLE)
def test_the_string_is_judged(name: str, said: tuple[str, ...], expected: str | None) -> None:
    assert severity(name, *said) == expected


def test_a_string_without_turns_is_not_shot() -> None:
    found = judged("string 56", "stringtype twisted", "turns 0")
    assert found.may_shoot.answer == "no"
    assert "comes apart" in found.may_shoot.because[0].text()


def test_where_turns_cannot_do_it_a_string_of_another_length_is_ordered() -> None:
    said = ("fibre polyester", "string 58 16 strands", "stringtype twisted", "turns 30",
            "bracerange 7 1/2 to 8 1/4", "brace 6 5/8 grip")  # fmt: skip
    found = next(f for f in judged(*said).findings if f.id == "string-turns")
    assert found.severity == "mend"
    assert "wrong length" in found.sentence.text()
    near = judged(*said[:-1], "brace 7 3/8 grip")
    assert next(f for f in near.findings if f.id == "string-turns").severity == "good"


@pytest.mark.parametrize(("brace", "far"), [("3 1/2", True), ("6", False), ("11", True)])
def test_nothing_is_ordered_or_reckoned_from_a_brace_that_cannot_be(brace: str, far: bool) -> None:
    said = ("family straight longbow", "bow 68", "draw 28", "scale 45 @ 28 1/2",
            "fibre polyester", "string 65 14 strands", "turns 20", f"brace {brace}")  # fmt: skip
    c = computed(*said)
    assert (turns_to(c, 170.0) is None) is far
    assert (next_order(c, 170.0) is None) is far
    assert c.bow.likeness.shape.brace_height_mm == pytest.approx(6.75 * 25.4 if far else 6 * 25.4)
    assert (severity("brace-range", *said) == "mend") is far
    if far:
        strands = next(f for f in judged(*said).findings if f.id == "string-strands")
        assert strands.severity in ("good", "watch")


SETTLING = tuple(
    f"brace {height}mm grip after {hours}h"
    for hours, height in ((0.2, 195.5), (1, 192.0), (3, 190.0), (6, 188.8))
)
DONE = tuple(f"brace {height}mm grip after {hours}h" for hours, height in (
    (12, 187.8), (18, 187.4), (30, 187.3)))  # fmt: skip


def test_a_new_string_waits_and_what_rests_on_it_with_it() -> None:
    young = ("fibre polyester", "string 56 16 strands", *SETTLING, "lift 3mm")
    c = computed(*young)
    assert c.string.settled is False
    assert c.order.states["settled"].mark == "waits"
    assert c.order.states["brace"].mark == c.order.states["nock"].mark == "rests"
    found = judged(*young)
    assert severity("string-settling", *young) == "watch"
    stages = {stage.key: stage for stage in found.stages}
    assert stages["string"].mark == "waits"
    assert stages["string"].reason is not None
    assert stages["string"].reason.text().startswith("string settles, ")
    assert stages["nock"].mark == "rests"
    old = computed(*young, *DONE)
    assert old.string.settled is True
    assert old.order.states["nock"].mark == "settled"
    assert severity("string-settling", *young, *DONE) == "good"


def test_the_strings_own_clock_counts_only_while_it_is_strung() -> None:
    def at(hours: float, said: str) -> e.EntryDraft:
        return draft(said, days=30 + hours / 24)

    said = [
        at(-1, "brace 200mm grip"), at(0, "strung now"), at(1, "brace 195mm grip"),
        at(2, "unstrung now"), at(20, "strung now"), at(22, "brace 192mm grip"),
    ]  # fmt: skip
    log = computed("fibre polyester", *said).string.log
    assert [one.hours for one in log.readings] == [1.0, 4.0]
    assert log.too_early == 1


def test_told_as_settled_until_a_newer_reading_says_otherwise() -> None:
    assert computed("settled string").string.settled is True
    assert computed("settled not yet").string.settled is False
    assert computed("settled string", *SETTLING).string.settled is False
    assert computed(*SETTLING, "settled string").string.settled is True


def test_own_changes_of_turns_move_the_gain() -> None:
    told = ("fibre polyester", "string 56 16 strands", "turns 10", "brace 190mm grip")
    model = computed(*told).string
    own = computed(*told, "turns 40", "brace 208mm grip").string
    assert model.gain is not None
    assert own.gain is not None
    assert own.pairs == 1
    assert own.gain.value > 1.1 * model.gain.value
    assert own.gain.sd < model.gain.sd


def test_a_brace_that_was_shot_is_the_brace_that_stands() -> None:
    c = computed("brace 7 1/2 grip", "tried 7 3/4 grip sound 3")
    assert c.string.brace is not None
    assert c.string.brace.value == pytest.approx(7.75 * IN)
    back = computed("brace 7 1/2 grip", "tried 7 3/4 grip sound 3", "brace 7 5/8 grip")
    assert back.string.brace is not None
    assert back.string.brace.value == pytest.approx(7.625 * IN)


def test_every_datum_of_brace_comes_to_the_pivot() -> None:
    for said, expected in (
        (("brace 8 grip",), 8.0), (("brace 9 3/4 back",), 8.0),
        (("brace 9 1/2 back", "grip 1 1/2 back"), 8.0), (("brace 8 plunger",), 8.0),
        (("brace 8 1/4 plunger", "grip 1/4 plunger"), 8.0),
    ):  # fmt: skip
        c = computed(*said)
        assert c.string.brace is not None
        assert c.string.brace.value == pytest.approx(expected * IN), said
        assert c.bow.likeness.shape.brace_height_mm == pytest.approx(expected * IN)


# the datum is asked for, never guessed


def test_a_brace_without_its_datum_is_asked_for_once() -> None:
    with pytest.raises(DomainError) as raised:
        parse("brace 7 5/8", to=Listener())
    assert raised.value.code == "which_datum"
    assert [guess.text for guess in raised.value.guesses] == [
        "brace 7 5/8 grip", "brace 7 5/8 back", "brace 7 5/8 plunger",
    ]  # fmt: skip
    for guess in raised.value.guesses:
        assert parse(guess.text, to=Listener()).word == "brace"
    known = parse("brace 9 1/4", to=Listener(brace_datum="back")).reading
    assert known == BraceHeight(brace_height_mm=9.25 * IN, datum="back")


BAD = [
    ("turns -300", "out_of_range"), ("turns 500", "out_of_range"), ("turns", "missing_slot"),
    ("tried 7 1/2 grip sound 11", "out_of_range"), ("tried 7 1/2 grip", "nothing_given"),
    ("tried 7 1/2 grip sound -1", "out_of_range"), ("brace 7 1/2 grip after", "too_much"),
    ("brace 40 grip", "out_of_range"), ("tiller 181mm 177mm", "which_datum"),
    ("tiller 181mm 177mm fade pocket", "twice"), ("nock 11mm", "which_quantity"),
    ("lift 80mm", "out_of_range"), ("bolts 40 2", "out_of_range"), ("bundle 9mm", "out_of_range"),
    ("flight level", "missing_choice"), ("flight bare shaft", "nothing_given"),
]  # fmt: skip


@pytest.mark.parametrize(("line", "code"), BAD)
def test_what_cannot_be_is_refused_in_words(line: str, code: str) -> None:
    with pytest.raises(DomainError) as raised:
        parse(line)
    assert raised.value.code == code
    assert raised.value.instruction


# the page


def drawn(*said: Any) -> StringPage:
    return page(computed(*said))


def test_the_page_of_a_bare_string_draws_without_readings() -> None:
    found = drawn()
    assert found.datum is None
    assert found.turns is None
    assert found.settling.curve is None
    assert found.valley.shots == ()
    assert found.valley.points == ()
    assert found.sheet.order


def test_the_valley_levels_each_channel_on_the_quiet_spot() -> None:
    shots = ("tried 7 3/8 grip sound 5 5 5 shock 8 8 8", "tried 7 3/4 grip sound 2 2 2 shock 5 5 5")
    found = drawn("bracerange 7 1/4 to 8 1/4", *shots).valley
    assert found.quiet_mm is not None
    first, second = found.shots
    assert first.sound_at == pytest.approx(first.shock_at)
    assert second.sound_at == pytest.approx(second.shock_at)
    assert first.sound_at is not None
    assert second.sound_at is not None
    assert first.sound_at - second.sound_at == pytest.approx(3.0)
    assert found.next_mm is not None
    assert found.low_mm <= found.next_mm <= found.high_mm


def test_the_order_text_asks_for_the_brace_that_was_found() -> None:
    told = ("fibre polyester", "string 56 16 strands", "stringtype twisted", "turns 20",
            "brace 7 3/4 grip")  # fmt: skip
    text = " ".join(line.text() for line in drawn(*told).sheet.order)
    for words in (
        "twisted bundles",
        "polyester",
        "16 strands",
        "56 in",
        "22.5 turns",
        "bow of 60 in",
    ):
        assert words in text
    assert drawn(*told).quarter is not None
