"""Refused lines and taught words: kept on this machine, wiped when asked."""

from pathlib import Path

import pytest

from lyrandis.core.hearing.taught import Taught
from lyrandis.store import own_words
from lyrandis.store.database import open_database
from lyrandis.store.own_words import OwnWords
from tests.store.conftest import Clock

FIZZLE = Taught("fizzle", "riser: riser {riser_length_mm}")


@pytest.fixture
def own(database: Path, clock: Clock) -> OwnWords:
    return OwnWords(open_database(database), clock)


def test_a_line_is_kept_once_and_counted(own: OwnWords) -> None:
    assert own.keep("fizzle 17")
    assert own.keep("wobble 3")
    assert own.keep("fizzle 17")
    assert {one.line: one.times for one in own.refused()} == {"fizzle 17": 2, "wobble 3": 1}


def test_nothing_is_kept_where_it_was_switched_off_and_what_was_kept_stays(own: OwnWords) -> None:
    own.keep("fizzle 17")
    own.keep_or_not(False)
    assert not own.keep("wobble 3")
    assert [one.line for one in own.refused()] == ["fizzle 17"]
    own.keep_or_not(True)
    assert own.keep("wobble 3")


def test_one_line_or_all_are_wiped(own: OwnWords) -> None:
    for line in ("a 1", "b 2", "c 3"):
        own.keep(line)
    own.wipe(own.refused()[0].id)
    assert len(own.refused()) == 2
    own.wipe()
    assert own.refused() == []


def test_the_oldest_line_goes_where_too_many_are_kept(
    own: OwnWords, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(own_words, "MOST_REFUSED", 3)
    for number in range(5):
        own.keep(f"line {number}")
    assert len(own.refused()) == 3
    assert "line 4" in {one.line for one in own.refused()}


def test_a_taught_line_is_refused_no_more_and_can_be_taken_away(own: OwnWords) -> None:
    own.keep("fizzle 17")
    own.teach(FIZZLE, "fizzle 17")
    assert own.refused() == []
    assert own.taught() == (FIZZLE,)
    [word] = own.words()
    own.unteach(word.id)
    assert own.taught() == ()


def test_what_was_learnt_is_there_after_the_program_was_ended(database: Path, clock: Clock) -> None:
    engine = open_database(database)
    OwnWords(engine, clock).teach(FIZZLE, "fizzle 17")
    engine.dispose()
    assert OwnWords(open_database(database), clock).taught() == (FIZZLE,)
