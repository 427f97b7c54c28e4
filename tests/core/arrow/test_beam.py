"""The beam against theory: frequencies, buckling, static bending, masses."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.arrow.beam import Beam, assemble, modes_of, static_deflection
from lyrandis.core.arrow.spine import (
    THOUSANDTHS_LOAD_N,
    THOUSANDTHS_SPAN_M,
    WOOD_LOAD_N,
    WOOD_SPAN_M,
    pounds,
    stiffness,
    stiffness_from_deflection,
    thousandths,
)
from lyrandis.core.arrow.taper import fill, taper_profile

L, MASS, EI = 0.75, 0.03, 5.0
PLAIN = Beam(length=L, mass_per_length=MASS, tip=0.0, nock=0.0)


def lowest(stiff: Any, other: Any, free: list[int]) -> list[float]:
    """Eigenvalues of (stiff, other) with only the degrees `free` left free, smallest first."""
    at = np.ix_(free, free)
    values = np.linalg.eigvals(np.linalg.solve(stiff[at], other[at]))
    found = [1 / value.real for value in values if value.real > 1e-12]
    return sorted(found)


def pinned(nodes: int) -> list[int]:
    """All degrees of freedom but the two ends' deflections."""
    return [i for i in range(2 * nodes) if i not in (0, 2 * nodes - 2)]


def clamped_tail(nodes: int) -> list[int]:
    return list(range(2, 2 * nodes))


@pytest.mark.parametrize(("mode", "beta_l"), [(0, 4.73004), (1, 7.85320), (2, 10.99561)])
def test_free_free_frequencies_are_those_of_theory(mode: int, beta_l: float) -> None:
    w2 = modes_of(PLAIN).w2[2 + mode]
    assert (w2 * MASS) ** 0.25 * L == pytest.approx(beta_l, rel=2e-4)


@pytest.mark.parametrize("mode", [1, 2, 3])
def test_pinned_frequencies_are_n_pi(mode: int) -> None:
    m = assemble(PLAIN)
    w2 = lowest(m.stiffness, m.mass, pinned(len(m.nodes)))[mode - 1]
    assert (w2 * MASS) ** 0.25 * L == pytest.approx(mode * math.pi, rel=2e-4)


def test_a_column_under_a_load_at_its_tip_buckles_at_eulers_load() -> None:
    column = Beam(length=L, mass_per_length=1e-9, tip=1.0, nock=0.0)
    m = assemble(column)
    load = lowest(m.stiffness, m.geometric, pinned(len(m.nodes)))[0]
    assert load == pytest.approx(math.pi**2 / L**2, rel=1e-4)


@pytest.mark.parametrize(
    ("held", "factor"), [(pinned, 18.57), (clamped_tail, 7.837)], ids=["pinned", "cantilever"]
)
def test_a_self_accelerated_column_buckles_at_the_known_load(held: Any, factor: float) -> None:
    m = assemble(PLAIN)
    acceleration = lowest(m.stiffness, m.geometric, held(len(m.nodes)))[0]
    assert acceleration * MASS * L**3 == pytest.approx(factor, rel=1e-3)


@pytest.mark.parametrize(
    ("load", "span"), [(THOUSANDTHS_LOAD_N, THOUSANDTHS_SPAN_M), (WOOD_LOAD_N, WOOD_SPAN_M)]
)
def test_static_bending_of_a_parallel_shaft_is_exact(load: float, span: float) -> None:
    bent = static_deflection(PLAIN, EI, load, span)
    assert stiffness_from_deflection(load, span, bent) == pytest.approx(EI, rel=1e-10)


def test_static_bending_of_a_tapered_shaft_is_the_beam_integral() -> None:
    profile = taper_profile(1000 * L, 8.0, tail=(300.0, 6.0), head=(200.0, 7.0))
    beam = Beam(length=L, mass_per_length=MASS, tip=0.0, nock=0.0, profile=profile)
    start = (L - WOOD_SPAN_M) / 2
    s = np.linspace(start, start + WOOD_SPAN_M, 200_001)
    arm = np.minimum(s - start, start + WOOD_SPAN_M - s) / 2
    curve = arm**2 / (EI * beam.diameter_ratio(s) ** 4)
    fine = WOOD_LOAD_N * float(np.sum(curve[1:] + curve[:-1]) / 2 * (s[1] - s[0]))
    assert static_deflection(beam, EI, WOOD_LOAD_N, WOOD_SPAN_M) == pytest.approx(fine, rel=1e-6)


def test_both_standards_say_the_same_of_one_shaft() -> None:
    five_hundred = stiffness_from_deflection(THOUSANDTHS_LOAD_N, THOUSANDTHS_SPAN_M, 0.0127)
    assert five_hundred == pytest.approx(5.093, abs=5e-4)
    assert pounds(five_hundred) == pytest.approx(63.0, abs=0.01)
    assert stiffness(52.0) == pytest.approx(4.203, abs=5e-4)
    assert thousandths(63.0) == pytest.approx(500.0, abs=0.1)


def test_masses_balance_and_turning_are_those_of_the_parts() -> None:
    beam = Beam(
        length=0.7, mass_per_length=0.025, tip=0.008, nock=0.0006,
        fletching=0.002, fletching_from=0.025, fletching_length=0.1,
    )  # fmt: skip
    modes = modes_of(beam)
    shaft, feather = 0.025 * 0.7, 0.075
    total = shaft + 0.008 + 0.0006 + 0.002
    centre = (shaft * 0.35 + 0.008 * 0.7 + 0.002 * feather) / total
    assert modes.mass == pytest.approx(total)
    assert modes.centre == pytest.approx(centre)
    about = (
        shaft * (0.7**2 / 12 + (0.35 - centre) ** 2)
        + 0.008 * (0.7 - centre) ** 2
        + 0.0006 * centre**2
        + 0.002 * (0.1**2 / 12 + (feather - centre) ** 2)
    )
    assert modes.inertia == pytest.approx(about)


def test_modes_are_orthonormal_and_rigid_ones_exact() -> None:
    modes = modes_of(PLAIN)
    s = np.linspace(0.0, L, 2001)
    values, slopes = modes.at(s)
    weights = np.full(len(s), MASS * L / 2000)
    weights[[0, -1]] /= 2
    gram = (values.T * weights) @ values
    assert np.abs(gram - np.eye(8)).max() < 2e-3
    assert np.ptp(values[:, 0]) < 1e-12
    assert np.ptp(slopes[:, 1]) < 1e-9


def test_a_longer_taper_is_weaker_on_the_gauge_and_lighter() -> None:
    readings, fills = [], []
    for inches in (0, 3, 6, 9, 12):
        profile = taper_profile(762.0, 8.7, tail=(25.4 * inches, 7.0), head=None)
        beam = Beam(length=0.762, mass_per_length=MASS, tip=0.0, nock=0.0, profile=profile)
        readings.append(static_deflection(beam, EI, WOOD_LOAD_N, WOOD_SPAN_M))
        fills.append(fill(profile))
    assert readings == sorted(readings)
    assert fills == sorted(fills, reverse=True)
    assert fills[0] == 1.0


@given(
    tail=st.floats(0, 900), head=st.floats(0, 900), ends=st.floats(4.0, 8.7),
    length=st.floats(500, 900),
)  # fmt: skip
def test_any_taper_stays_on_the_shaft(tail: float, head: float, ends: float, length: float) -> None:
    profile = taper_profile(length, 8.7, tail=(tail, ends), head=(head, ends))
    places = [s for s, _ in profile]
    assert places == sorted(places)
    assert all(-1e-9 <= s <= length / 1000 + 1e-5 for s in places)
    assert 0.2 < fill(profile) <= 1.0 + 1e-9
