"""The served string: reference notes, and another way to the same: a chain of masses."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.partials import ServedString, partials_hz, shape, tension_of

GR = 6.479891e-5


def string(tip_g: float = 45.0, serving_gr: float = 18.0, mass_gr: float = 110.0) -> ServedString:
    return ServedString(1.36, 1.47, mass_gr * GR, serving_gr * GR, 0.18, tip_g / 1000)


def test_the_notes_of_a_served_string_on_real_tips() -> None:
    wanted = [95.404, 220.632, 295.087, 422.139, 513.689, 607.310, 733.071, 807.865, 935.963]
    assert partials_hz(string(), 370.0, 9) == pytest.approx(wanted, rel=0.0005)


@pytest.mark.parametrize(
    ("tip", "first"), [(20.0, 98.612), (35.0, 96.157), (60.0, 94.735), (90.0, 94.056)]
)
def test_heavier_tips_lower_the_note(tip: float, first: float) -> None:
    assert partials_hz(string(tip), 370.0, 1)[0] == pytest.approx(first, rel=0.0005)


@pytest.mark.parametrize(("serving", "first"), [(10.0, 99.288), (14.0, 97.312), (22.0, 93.567)])
def test_a_heavier_serving_lowers_the_note(serving: float, first: float) -> None:
    assert partials_hz(string(serving_gr=serving), 370.0, 1)[0] == pytest.approx(first, rel=0.0005)


def test_without_serving_on_fixed_ends_the_series_is_plain() -> None:
    plain = ServedString(1.36, 1.47, 110 * GR, 0.0, 0.0, 1e9)
    exact = math.sqrt(370.0 / plain.bare_kg_m) / (2 * 1.36)
    assert partials_hz(plain, 370.0, 6) == pytest.approx(exact * np.arange(1, 7), rel=1e-5)


def chain(told: ServedString, tension: float, count: int = 240) -> np.ndarray:
    """Notes of the same string as masses on springs: nothing shared with the code."""
    dx = told.free_m / count
    at = (np.arange(count) + 0.5) * dx
    inside = np.abs(at - told.free_m / 2) < told.serving_m / 2
    mass = np.where(inside, told.served_kg_m, told.bare_kg_m) * dx
    mass = np.r_[told.tip_kg, mass, told.tip_kg]
    gaps = np.r_[dx / 2, np.full(count - 1, dx), dx / 2]
    stiff = np.zeros((count + 2, count + 2))
    for i, gap in enumerate(gaps):
        stiff[i : i + 2, i : i + 2] += tension / gap * np.array([[1, -1], [-1, 1]])
    root = 1 / np.sqrt(mass)
    found = np.linalg.eigvalsh(root[:, None] * stiff * root)
    return np.sqrt(np.maximum(found, 0)) / (2 * np.pi)


def test_a_chain_of_masses_sounds_the_same() -> None:
    notes = chain(string(), 370.0)
    notes = notes[notes > 50][:8]  # two slow ones are the tips swinging as a whole
    cents = 1200 * np.log2(partials_hz(string(), 370.0, 8) / notes)
    assert np.abs(cents).max() < 3


@given(st.floats(150, 600), st.floats(150, 600))
def test_all_notes_go_with_the_root_of_the_tension(one: float, other: float) -> None:
    ratio = partials_hz(string(), one, 5) / partials_hz(string(), other, 5)
    assert ratio == pytest.approx([math.sqrt(one / other)] * 5)


@given(st.floats(150, 600), st.floats(80, 160), st.floats(10, 24))
def test_the_note_gives_the_tension_back(tension: float, mass: float, serving: float) -> None:
    told = string(50.0, serving, mass)
    note = Estimate(float(partials_hz(told, tension, 1)[0]), 0.05)
    found = tension_of(told, note, mass_share=0.01, free_share=0.004)
    assert found.value == pytest.approx(tension, rel=1e-6)
    assert 0.05 < found.sd / found.value < 0.06


def test_a_guessed_mass_makes_the_tension_as_vague_as_it_is() -> None:
    note = Estimate(95.4, 0.05)
    weighed = tension_of(string(), note, mass_share=0.009, free_share=0.004)
    guessed = tension_of(string(), note, mass_share=0.073, free_share=0.004, serving_known=False)
    assert weighed.plus_minus / weighed.value == pytest.approx(0.102, abs=0.01)
    assert guessed.sd > 1.6 * weighed.sd


def test_the_series_depends_on_the_rig_alone() -> None:
    assert shape(string()) == shape(string())
    assert len(shape(string(), 9)) == 9
