"""Putting a bow together step by step, and the parts by name."""

import pytest

from lyrandis.core.bow.assembly import assembly_of
from lyrandis.core.computed import compute
from lyrandis.core.setup import fold
from lyrandis.core.terms import TERMS
from tests.entries import entries


@pytest.mark.parametrize(
    ("said", "made", "told", "steps"),
    [
        ((), "one_piece", False, 7),
        (("family target recurve",), "take_down", False, 9),
        (("kit full",), "take_down", False, 9),
        (("kit full", "made one-piece"), "one_piece", True, 7),
        (("made take-down",), "take_down", True, 9),
    ],
)
def test_the_list_fits_the_bow(said: tuple[str, ...], made: str, told: bool, steps: int) -> None:
    found = assembly_of(compute(fold(entries(*said))))
    assert (found.made, found.told, len(found.steps)) == (made, told, steps)


def test_a_step_is_done_since_it_was_last_said() -> None:
    found = assembly_of(compute(fold(entries("together larger loop", "together all"))))
    assert all(step.done_at is not None for step in found.steps)
    one = assembly_of(compute(fold(entries("together larger loop"))))
    assert [step.step for step in one.steps if step.done_at] == ["larger_loop"]
    orders = [step.step for step in one.steps]
    assert orders.index("with_stringer") < orders.index("twang_listened")


def test_the_word_nock_is_told_apart_four_times() -> None:
    assert len({term.key for term in TERMS}) == len(TERMS)
    said = " ".join(f"{term.word} {term.means}" for term in TERMS)
    for words in ("One of four things called nock", "second thing", "third thing", "the fourth"):
        assert words in said
