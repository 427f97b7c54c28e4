"""Before and after: reference values, how often a change is told, and when it may not be."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.errors import DomainError
from lyrandis.core.listen.compare import compared, middle
from lyrandis.core.student import student_95

BEFORE, AFTER = [-40.1, -39.2, -40.8], [-43.0, -42.1, -43.6]


def test_three_against_three() -> None:
    found = compared(BEFORE, AFTER)
    assert found.change_db == pytest.approx(-2.867, abs=0.002)
    assert found.error_db == pytest.approx(0.941, abs=0.002)
    assert found.half_db == pytest.approx(2.306 * 0.941, abs=0.005)
    assert found.told_apart


def test_one_odd_take_hardly_moves_it() -> None:
    found = compared([*BEFORE, -39.9, -35.0], [*AFTER, -42.4, -42.9])
    assert found.error_db == pytest.approx(0.933, abs=0.003)
    assert found.change_db == pytest.approx(-3.229, abs=0.15)
    assert found.half_db / found.error_db == pytest.approx(2.179)


@pytest.mark.parametrize(
    ("freedom", "wanted"),
    [(8, 2.306), (10, 2.228), (12, 2.179), (14, 2.145), (20, 2.086), (30, 2.042), (60, 2.000)],
)
def test_students_t(freedom: int, wanted: float) -> None:
    assert student_95(freedom) == pytest.approx(wanted, abs=0.002)


@pytest.mark.parametrize("sides", [([], AFTER), (BEFORE[:2], AFTER), (BEFORE, AFTER[:2])])
def test_fewer_than_three_takes_are_not_compared(sides: tuple[list[float], list[float]]) -> None:
    with pytest.raises(DomainError, match="three at least"):
        compared(*sides)


def archers(count: int, takes: int, change: float, take_sd: float, session_sd: float) -> np.ndarray:
    rng = np.random.default_rng(5)
    told = []
    for _ in range(count):
        sides = [
            rng.normal(shift + rng.normal(0, session_sd), take_sd, takes) for shift in (0, change)
        ]
        found = compared(*(side.tolist() for side in sides))
        told.append((found.told_apart, abs(found.change_db - change) <= found.half_db))
    return np.array(told).mean(axis=0)


def test_an_ordinary_archer_is_hardly_told_a_change_that_is_none() -> None:
    false, covered = archers(800, 5, 0.0, 1.1, 0.4)
    assert false <= 0.05
    assert 0.93 <= covered <= 0.98


@pytest.mark.parametrize(("takes", "change"), [(3, 3.8), (5, 3.0), (8, 2.5)])
def test_a_change_of_that_size_is_told_four_times_in_five(takes: int, change: float) -> None:
    told, _ = archers(500, takes, change, 1.1, 0.4)
    assert told >= 0.8


@given(
    st.lists(st.floats(-60, -20), min_size=3, max_size=8),
    st.lists(st.floats(-60, -20), min_size=3, max_size=8),
    st.floats(-10, 10),
)
def test_gain_moves_nothing_and_swapping_turns_the_sign(
    one: list[float], other: list[float], gain: float
) -> None:
    plain = compared(one, other)
    louder = compared([v + gain for v in one], [v + gain for v in other])
    assert louder.change_db == pytest.approx(plain.change_db, abs=1e-6)
    assert compared(other, one).change_db == pytest.approx(-plain.change_db, abs=1e-9)


@given(st.lists(st.floats(-60, -20), min_size=1, max_size=9))
def test_the_middle_lies_among_the_takes(values: list[float]) -> None:
    assert min(values) - 1e-9 <= middle(values) <= max(values) + 1e-9
