"""Remembering: the same answer as without, for what is asked lately and no more."""

from datetime import timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.archer.draw import draw_of
from lyrandis.core.arrow.quiver import quiver_of
from lyrandis.core.assessment import judge
from lyrandis.core.computed import compute
from lyrandis.core.memo import KEPT, memo_by_equality
from lyrandis.core.setup import fold
from tests.entries import entries


@given(st.lists(st.integers(0, KEPT + 2), max_size=40))
def test_what_is_remembered_is_what_would_be_worked_out(asked: list[int]) -> None:
    worked: list[int] = []

    def work(of: tuple[int, ...], *, by: int) -> list[int]:
        worked.append(of[0])
        return [of[0] * by]

    remember = memo_by_equality(work)
    for one in asked:
        assert remember((one,), by=3) == [3 * one]
    assert len(worked) >= len(set(asked))
    lately = set(asked[-1:])
    before = len(worked)
    for one in lately:
        remember((one,), by=3)
    assert len(worked) == before, "what was asked last is not worked out again"


def test_no_more_is_kept_than_some_rigs_in_turn() -> None:
    worked: list[int] = []
    remember = memo_by_equality(lambda one: worked.append(one))
    for one in [*range(KEPT + 1), 0]:
        remember(one)
    assert worked == [*range(KEPT + 1), 0]


def test_one_reading_more_is_not_answered_from_memory() -> None:
    lines = ["draw 28", "scale 40 @ 28", "arrow 1 spine 50lb", "arrow 1 400gr"]
    before = fold(entries(*lines))
    after = fold(entries(*lines, "draw 29", "arrow 2 410gr"))
    assert len(quiver_of(before.arrows)) == 1
    assert len(quiver_of(after.arrows)) == 2
    first, last = draw_of(before.archer), draw_of(after.archer)
    assert first is not None
    assert last is not None
    assert last.length.value - first.length.value == pytest.approx(12.7)


def test_a_rig_is_judged_the_same_with_nothing_remembered() -> None:
    lines = ["draw 28", "scale 40 @ 28", "brace 7 1/2", "turns 20", "brace 7 1/4", "arrow 1 400gr"]
    warm = entries(*lines)
    first = judge(compute(fold(warm)))
    later = [one.model_copy(update={"happened_at": one.happened_at + timedelta(days=1)})
             for one in warm]  # fmt: skip
    judge(compute(fold(later)))
    again = judge(compute(fold(warm)))
    assert again == first
