"""Strings: gain, turns, strands, what a change of brace does, settling, and the sweep."""

import math
from collections import Counter
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.statics import BowShape, draw_curve
from lyrandis.core.bow.thrust import typical_thrust
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import MM_PER_IN, NEWTONS_PER_LBF
from lyrandis.core.estimate import Estimate
from lyrandis.core.string import strands as s
from lyrandis.core.string.advice import quiet_said
from lyrandis.core.string.brace_change import brace_change
from lyrandis.core.string.length import GainPair, gain_of, own_gain, string_length
from lyrandis.core.string.settling import SettlingReading, fit_settling, rule_step, sittings_of
from lyrandis.core.string.sweep import Height, sweep
from lyrandis.core.string.turns import (
    Bundle,
    TurnedBrace,
    brace_per_turn,
    next_string,
    pairs_of,
    shortening,
    turns_for,
    turns_word,
)
from tests.core.string.archers import by_ear, by_the_model, within
from tests.core.string.settling_worlds import WORLDS, World, called, creep_by, read
from tests.core.string.sweep_worlds import Kind, swept

IN = MM_PER_IN
AT_28 = 26.25 * IN


def shape(family: Family, length: float, brace: float, riser: float | None = None) -> BowShape:
    return BowShape(family, length * IN, (riser or FAMILIES[family].riser_in) * IN, brace * IN)


# A1: gain and length

GAINS: list[tuple[Family, float, float, float | None, tuple[float, ...], float]] = [
    ("selfbow", 66, 6, None, (1.884, 1.798, 1.719, 1.645, 1.577, 1.514, 1.455), -1.9),
    ("straight_longbow", 68, 6.75, 14, (1.538, 1.474, 1.414, 1.358, 1.306, 1.257, 1.211), -2.55),
    ("reflex_deflex_longbow", 62, 7, None, (1.320, 1.261, 1.206, 1.155, 1.108, 1.063, 1.021), -3.1),
    ("hunting_recurve", 60, 7.75, 17, (1.165, 1.129, 1.095, 1.063, 1.033, 1.004, 0.976), -3.8),
    ("target_recurve", 68, 8.75, None, (1.224, 1.184, 1.146, 1.111, 1.078, 1.046, 1.017), -3.4),
    ("short_rigid_tip", 54, 6.5, None, (1.101, 1.073, 1.129, 1.194, 1.270, 1.321, 1.259), -3.4),
    ("long_rigid_tip", 54, 6.5, None, (1.137, 1.335, 1.627, 1.753, 1.630, 1.526, 1.437), -3.8),
    ("large_rigid_tip", 58, 7, None, (0.880, 1.107, 1.507, 2.188, 1.971, 1.804, 1.670), -5.0),
]


@pytest.mark.parametrize(
    ("family", "length", "brace", "riser", "gains", "less"), GAINS, ids=[g[0] for g in GAINS]
)
def test_the_gain_of_brace_is_that_of_the_reference(
    family: Family, length: float, brace: float, riser: float | None,
    gains: tuple[float, ...], less: float,
) -> None:  # fmt: skip
    for step, expected in zip((-0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75), gains, strict=True):
        found = gain_of(shape(family, length, brace + step, riser), segments=160)
        assert found is not None
        assert found.value == pytest.approx(expected, rel=0.02)
    computed = string_length(shape(family, length, brace, riser)).computed_mm
    assert computed is not None
    assert computed / IN - length == pytest.approx(less, abs=0.12)


def test_the_gain_hardly_depends_on_the_pieces() -> None:
    for family, length, brace, riser, *_ in GAINS[:5]:
        coarse = gain_of(shape(family, length, brace, riser))
        fine = gain_of(shape(family, length, brace, riser), segments=160)
        assert coarse is not None
        assert fine is not None
        assert coarse.value == pytest.approx(fine.value, rel=0.01)


def test_ones_own_changes_outrank_the_model() -> None:
    model = Estimate(1.1, 0.11)
    none = own_gain(model, ())
    one = own_gain(model, (GainPair(8.0, 11.0, 0.7),))
    many = own_gain(model, (GainPair(8.0, 11.0, 0.7),) * 6)
    assert none.value == pytest.approx(model.value)
    assert none.sd == pytest.approx(model.sd)
    assert model.value < one.value < many.value < 11 / 8
    assert model.sd > one.sd > many.sd
    assert own_gain(model, (GainPair(8.0, -2.0, 0.7),)).value == pytest.approx(1.1)


# A2: turns


def test_ten_more_turns_shorten_as_the_reference_says() -> None:
    assert shortening(54 * IN, 0.1 * IN, 20, 10) / IN == pytest.approx(0.1371, abs=5e-5)
    rises = {
        ("hunting_recurve", 17.0, 7.75): 0.145,
        ("reflex_deflex_longbow", 15.0, 7.0): 0.149,
        ("straight_longbow", 14.0, 6.75): 0.154,
    }
    for (family, riser, brace), rise in rises.items():
        bow = shape(family, 60, brace, riser)  # type: ignore[arg-type]
        gain, length = gain_of(bow), string_length(bow).computed_mm
        assert gain is not None
        assert length is not None
        found = gain.value * shortening(length, 0.1 * IN, 20, 10) / IN
        assert found == pytest.approx(rise, rel=0.05)


@given(
    st.floats(0, 60), st.floats(-3, 12), st.floats(1.5, 3.0), st.floats(1200, 1700),
    st.floats(0.9, 2.0),
)  # fmt: skip
def test_turns_for_a_wish_give_the_wish(
    turns: float, wish: float, diameter: float, length: float, gain: float
) -> None:
    bundle = Bundle(length, Estimate(diameter, 0.1), turns, "twisted")
    wanted = turns_for(bundle, Estimate(gain, 0.1), wish)
    untwisted = gain * shortening(length, diameter, 0.0, turns)
    assert (wanted is None) == (wish < untwisted - 1e-9) or abs(wish - untwisted) < 1e-6
    if wanted is not None:
        assert gain * shortening(length, diameter, wanted, turns) == pytest.approx(wish, abs=1e-6)


def test_a_turn_does_more_the_more_there_are() -> None:
    steps = [
        brace_per_turn(Bundle(1500, Estimate(2.2, 0.2), n, "twisted"), Estimate(1.1, 0.1))
        for n in range(0, 50, 5)
    ]
    assert all(a.value < b.value for a, b in pairwise(steps))
    # an unmeasured bundle: a fifth of the shortening, a tenth of the gain
    assert steps[3].sd / steps[3].value == pytest.approx(math.hypot(0.2 / 1.1, 0.1 / 1.1), rel=1e-3)


@pytest.mark.parametrize(
    ("per_in", "kind", "word"),
    [
        (0.0, "twisted", "apart"), (0.0, "endless", "good"), (0.149, "twisted", "loose"),
        (0.15, "twisted", "good"), (0.75, "twisted", "good"), (0.76, "endless", "spongy"),
        (1.0, "twisted", "spongy"), (1.01, "endless", "too_many"),
    ],
)  # fmt: skip
def test_turns_are_judged_per_inch(per_in: float, kind: str, word: str) -> None:
    assert turns_word(per_in, kind) == word  # type: ignore[arg-type]


def test_the_next_string_gives_the_brace_with_good_turns() -> None:
    now = Bundle(1500.0, Estimate(2.2, 0.1), 70.0, "twisted")
    gain = Estimate(1.1, 0.1)
    order = next_string(now, gain, 8.0)
    assert order.finished_mm == pytest.approx(1500 - 8 / 1.1)
    assert order.turns / (order.finished_mm / IN) == pytest.approx(0.4, abs=0.01)
    assert order.bare_mm - order.finished_mm == pytest.approx(
        shortening(order.finished_mm, 2.2, order.turns)
    )


def test_pairs_leave_out_changes_that_say_nothing() -> None:
    readings = (TurnedBrace(10, 190.0), TurnedBrace(10.5, 190.5), TurnedBrace(40, 199.0))
    [pair] = pairs_of(readings, 1500.0, 2.2)
    assert pair.gained_mm == 8.5
    assert pair.shortening_mm == pytest.approx(shortening(1500, 2.2, 40, 10.5))


# A3: strands


def tensions(family: Family, length: float, brace: float, weight: float, fibre: str, n: int
             ) -> s.Tensions:  # fmt: skip
    bow = shape(family, length, brace, 14 if family == "straight_longbow" else None)
    curve = draw_curve(bow)
    root = weight / curve.force.at(AT_28)
    thrust = typical_thrust(bow, AT_28, weight)
    return s.tensions_of(curve, root, AT_28, thrust, 9 * weight, s.FIBRES[fibre], n)  # type: ignore[index]


@pytest.mark.parametrize(
    ("fibre", "strands", "peak", "dry"),
    [
        ("polyester", 12, 2.67, 5.0), ("polyester", 16, 2.88, 5.7), ("polyester", 20, 3.09, 6.3),
        ("low_stretch", 12, 4.41, 9.9), ("low_stretch", 16, 4.98, 11.4),
        ("low_stretch", 20, 5.49, 12.7),
    ],
)  # fmt: skip
def test_the_peak_of_the_shot_is_that_of_the_reference(
    fibre: str, strands: int, peak: float, dry: float
) -> None:
    found = tensions("hunting_recurve", 60, 7.75, 45, fibre, strands)
    pull = 45 * NEWTONS_PER_LBF
    assert found.peak_n / pull == pytest.approx(peak, rel=0.03)
    assert found.dry_fire_n / pull == pytest.approx(dry, rel=0.02)
    assert found.brace_n / pull == pytest.approx(1.9, rel=0.03)


LEAST = {
    ("polyester", "straight_longbow", 68, 6.75): (8, 9, 10, 11, 12, 13, 15),
    ("polyester", "hunting_recurve", 60, 7.75): (8, 9, 10, 12, 13, 14, 16),
    ("polyester", "target_recurve", 68, 8.75): (8, 9, 11, 12, 13, 14, 16),
    ("polyester", "long_rigid_tip", 54, 6.5): (11, 12, 13, 14, 15, 16, 19),
    ("low_stretch", "straight_longbow", 68, 6.75): (9, 10, 11, 12, 13, 13, 15),
    ("low_stretch", "hunting_recurve", 60, 7.75): (10, 11, 12, 13, 13, 14, 15),
    ("low_stretch", "target_recurve", 68, 8.75): (8, 9, 10, 11, 12, 12, 14),
    ("low_stretch", "long_rigid_tip", 54, 6.5): (14, 15, 16, 17, 18, 19, 20),
}


@pytest.mark.parametrize("bow", LEAST, ids=lambda bow: f"{bow[0]}-{bow[1]}")
def test_the_least_strands_are_those_of_the_reference(bow: tuple[str, Family, int, float]) -> None:
    fibre, family, length, brace = bow
    for weight, expected in zip((25, 30, 35, 40, 45, 50, 60), LEAST[bow], strict=True):
        least = next(
            n for n in range(4, 41)
            if s.factor_of_safety(
                tensions(family, length, brace, weight, fibre, n), s.FIBRES[fibre], n  # type: ignore[index]
            ) >= s.FACTOR_OF_SAFETY
        )  # fmt: skip
        assert abs(least - expected) <= 1


def test_bundles_are_as_thick_as_the_reference_says() -> None:
    polyester = [s.bundle_diameter(s.FIBRES["polyester"], n) for n in (12, 14, 16, 18, 20)]
    assert polyester == pytest.approx([1.81, 1.96, 2.09, 2.22, 2.34], abs=0.01)
    low = [s.bundle_diameter(s.FIBRES["low_stretch"], n) for n in (14, 16, 18, 20)]
    assert low == pytest.approx([1.64, 1.76, 1.86, 1.96], abs=0.01)


@pytest.mark.parametrize("groove", [2.3, 2.5, 2.8, 3.1])
def test_the_advice_fits_the_nock_and_holds(groove: float) -> None:
    for fibre in s.FIBRES.values():
        advice = s.strand_advice(13, fibre, groove)
        assert advice.strands % 2 == 0
        assert 13 <= advice.strands <= 17
        others = [
            abs(s.served_diameter(s.bundle_diameter(fibre, n), thread) - groove)
            for n in (14, 16) for thread in s.THREADS_MM
        ]  # fmt: skip
        assert abs(advice.served_mm - groove) <= min(others) + s.SAME_FIT_MM + 1e-9


def test_a_measured_bundle_is_known_better_than_a_reckoned_one() -> None:
    assert s.diameter_of("linen", 16, None) is None
    measured, reckoned = s.diameter_of("linen", 16, 2.2), s.diameter_of("polyester", 16, None)
    assert measured is not None
    assert reckoned is not None
    assert measured.sd < reckoned.sd / 3


# A5


@pytest.mark.parametrize(
    ("family", "length", "riser", "brace", "weight", "expected"),
    [
        ("straight_longbow", 66, 14, 6.75, 47, (0.16, -0.39, -0.46, 4.9)),
        ("reflex_deflex_longbow", 60, 15, 7, 45, (0.12, -0.69, -1.08, 5.8)),
        ("hunting_recurve", 58, 15, 7.75, 45, (0.08, -0.94, -1.41, 6.0)),
        ("hunting_recurve", 62, 18, 7.75, 45, (0.04, -1.01, -1.49, 5.9)),
        ("target_recurve", 68, 27, 8.75, 40, (0.00, -0.94, -1.54, 5.7)),
        ("long_rigid_tip", 54, 6, 6.5, 45, (0.05, -0.70, -1.00, 3.6)),
    ],
)
def test_a_quarter_inch_of_brace_changes_little(
    family: Family, length: float, riser: float, brace: float, weight: float,
    expected: tuple[float, float, float, float],
) -> None:  # fmt: skip
    found = brace_change(shape(family, length, brace, riser), weight, AT_28, 9 * weight)
    assert found is not None
    pounds, joules, fps, string = expected
    assert found.weight_lbf == pytest.approx(pounds, abs=0.02)
    assert found.stored_j == pytest.approx(joules, abs=0.02)
    assert found.speed_mps / 0.3048 == pytest.approx(fps, abs=0.06)
    assert found.string_mm == pytest.approx(string, abs=0.1)


# A4: settling

SETTLING = [
    ((203.0, 200.2, 198.0, 196.5), 0.294, 2.80, 39),
    ((203.0, 201.0, 200.5, 200.4), 0.602, 1.70, 33),
    ((203.0, 199.0, 196.0, 193.0), 0.283, 2.91, 32),
]
"""Kept: two times and powers stand beside the stretched exponential, whose own were .361, .665,
.292; 2.57, 1.37, 2.92 mm; 32, 21, 21 h."""


@pytest.mark.parametrize(("braces", "settled", "mean", "hours"), SETTLING)
def test_settling_stays_what_it_was(
    braces: tuple[float, ...], settled: float, mean: float, hours: float
) -> None:
    readings = tuple(map(SettlingReading, (0.1, 1.0, 3.0, 6.0), braces))
    found = fit_settling(readings)
    assert found.now.settled == pytest.approx(settled, abs=0.01)
    assert found.now.mean_mm == pytest.approx(mean, abs=0.03)
    assert found.settled_at == pytest.approx(hours, abs=1)
    assert not found.is_settled


@pytest.mark.parametrize("world", WORLDS, ids=[world.name for world in WORLDS])
def test_a_string_is_hardly_ever_called_settled_early(world: World) -> None:
    """40 strings of each world; `make worlds` reads 300. At most 8 % in the long run."""
    found = [called(world, seed) for seed in range(40)]
    assert sum(one.early for one in found) <= 5
    assert sum(one.hours is not None for one in found) >= 36
    if world.law == "stretched" and not world.step_mm and not world.damp_mm:
        hours = [one.hours or 999.0 for one in found]
        assert np.median(hours) <= 30, "some half as long again as with its own law alone: 18 h"


@pytest.mark.parametrize("world", WORLDS[:4], ids=[world.name for world in WORLDS[:4]])
def test_when_it_settles_is_never_said_to_be_over(world: World) -> None:
    for seed in range(5):
        rng = np.random.default_rng(seed)
        readings = tuple(read(world, creep_by(world.law, rng), rng))
        for count in range(4, len(readings) + 1):
            found = fit_settling(readings[:count])
            if found.looks_still and not found.agree:
                assert found.settled_at is not None
                assert found.settled_at > found.hours


def test_two_sittings_twelve_hours_apart_must_agree() -> None:
    still = [(0.1, 203.0), (1, 200.4), (3, 200.1), (6, 200.0), (9, 200.1), (11, 200.0)]
    readings = tuple(SettlingReading(t, h) for t, h in still)
    found = fit_settling(readings, "low_stretch")
    assert found.looks_still
    assert not found.is_settled
    assert found.settled_at == 13.0, "12 h after the first that agrees with the newest: that of 1 h"
    later = (*readings, SettlingReading(24.0, 199.9))
    assert fit_settling(later, "low_stretch").is_settled
    moved = (*readings, SettlingReading(24.0, 200.1 - 2.2))
    assert not fit_settling(moved, "low_stretch").is_settled


def test_a_night_unstrung_opens_a_sitting() -> None:
    told = [
        SettlingReading(2.9, 200.0),
        SettlingReading(3.1, 200.8, since=0.1),
        SettlingReading(5.5, 199.9, since=2.5),
        SettlingReading(6.1, 200.5, since=0.1),
    ]
    assert sittings_of(told) == [0, 1, 1, 2]
    assert sittings_of([replace(one, since=None) for one in told]) == [0, 0, 0, 0]


@pytest.mark.parametrize(
    ("braces", "step"),
    [
        ((203.2, 201.6125, 200.025, 200.025), IN / 16),
        ((203.0, 202.0, 201.0), 1.0),
        ((203.5, 202.0, 201.5), 0.5),
        ((203.0, 203.0, 203.0), 1.0),
        ((203.13, 202.0, 201.45), 0.0),
        ((203.0, 201.0), 0.0),
    ],
)
def test_readings_are_no_better_than_the_rules_step(braces: tuple[float, ...], step: float) -> None:
    readings = [SettlingReading(n + 1.0, height) for n, height in enumerate(braces)]
    assert rule_step(readings) == pytest.approx(step)


def test_a_change_of_turns_opens_a_segment_and_the_creep_goes_on() -> None:
    plain = tuple(map(SettlingReading, (0.1, 1.0, 3.0, 6.0, 9.0), (203, 200.2, 198, 196.5, 195.6)))
    turned = tuple(
        replace(one, brace_mm=one.brace_mm + 6.0, segment=1) if one.hours > 2 else one
        for one in plain
    )
    assert fit_settling(turned).now.mean_mm == pytest.approx(
        fit_settling(plain).now.mean_mm, rel=0.35
    )
    hours = np.array([3.0, 9.0])
    first, _ = fit_settling(turned).curve(hours, 0)
    second, _ = fit_settling(turned).curve(hours, 1)
    assert second - first == pytest.approx([6.0, 6.0], abs=1.5)


def test_low_stretch_fibre_is_still_at_once_and_settled_the_next_day() -> None:
    readings = tuple(map(SettlingReading, (0.1, 1.0, 2.0, 3.0), (203.0, 202.7, 202.9, 202.6)))
    assert fit_settling(readings, "low_stretch").looks_still
    assert not fit_settling(readings, "low_stretch").is_settled
    assert not fit_settling(readings[:3], "low_stretch").looks_still
    assert not fit_settling(readings, "polyester").looks_still
    assert fit_settling((*readings, SettlingReading(15.0, 202.5)), "low_stretch").is_settled


# the sweep

SHOT = (
    Height(8.25 * IN, (6.0,), (5.0,), (3.1, 2.7, 3.4)),
    Height(7.875 * IN, (3.0,), (3.0,), (0.4, 0.9, 0.2)),
    Height(7.625 * IN, (4.0,), (3.0,), (0.8, 1.6, 1.1)),
    Height(8.0 * IN, (3.0,), (4.0,), (0.9, 0.6, 1.4)),
)


@pytest.mark.parametrize(
    ("count", "mean", "sd", "near", "left", "coming"),
    [
        (1, None, None, None, None, 7.917),
        (2, 7.613, 0.216, 0.718, 0.599, 7.5),
        (3, 7.625, 0.199, 0.507, 0.385, None),
        # 7 5/8 was rated worse than 7 7/8: nothing below it is proposed
        (4, 7.760, 0.165, 0.669, 0.252, 7.625),
    ],
)
def test_the_sweep_stays_what_it_was(
    count: int, mean: float | None, sd: float | None, near: float | None, left: float | None,
    coming: float | None,
) -> None:  # fmt: skip
    found = sweep(SHOT[:count], (7.5 * IN, 8.5 * IN))
    assert not found.enough
    if mean is not None:
        assert found.brace_mm / IN == pytest.approx(mean, abs=0.005)
        assert found.sd_mm / IN == pytest.approx(sd, abs=0.005)
        assert found.near == pytest.approx(near, abs=0.01)
        assert found.left_db == pytest.approx(left, abs=0.01)
    if coming is not None:
        assert found.next_mm is not None
        assert found.next_mm / IN == pytest.approx(coming, abs=0.001)


def test_the_sweep_stops_when_more_would_not_help() -> None:
    clear = tuple(
        Height(brace * IN, (round(3 + 12 * (brace - 7.75) ** 2 * 2),), (3.0,),
               tuple(12 * (brace - 7.75) ** 2 + d for d in (-0.1, 0, 0.1)))
        for brace in (7.25, 7.5, 7.75, 8.0, 8.25)
    )  # fmt: skip
    found = sweep(clear, (7.0 * IN, 8.5 * IN))
    assert found.enough
    assert found.next_mm is None
    assert found.brace_mm / IN == pytest.approx(7.75, abs=1 / 16)
    six = sweep((SHOT * 2)[:6], (7.5 * IN, 8.5 * IN))
    assert six.enough


def test_nothing_is_proposed_outside_the_makers_range() -> None:
    for low, high in ((7.5, 7.75), (6.9, 8.1), (7.03, 8.03)):
        for count in (1, 2, 3, 4):
            found = sweep(SHOT[:count], (low * IN, high * IN))
            assert found.next_mm is None or low - 1e-9 <= found.next_mm / IN <= high + 1e-9


def test_one_height_says_nothing_of_the_quiet_spot() -> None:
    one, none = (
        sweep(SHOT[:1], (7.5 * IN, 8.5 * IN)),
        sweep((Height(8 * IN),), (7.5 * IN, 8.5 * IN)),
    )
    assert one.sd_mm == pytest.approx(none.sd_mm)


def test_sixty_archers_find_their_quiet_spot_better_than_by_ear() -> None:
    """The bench runs 200; here 60, both limits a little looser for it."""
    both, near_both, told = within(60, 7, sound=True, way=by_the_model)
    rated, near_rated, _ = within(60, 7, sound=False, way=by_the_model)
    ear, _, _ = within(60, 7, sound=False, way=by_ear)
    assert both >= 0.72
    assert near_both >= 0.86
    assert rated >= 0.58
    assert near_rated >= 0.74, "four in five of many; that two dips may be costs a few"
    assert ear < rated
    assert abs(told - both) < 0.15


@pytest.mark.parametrize(("kind", "most"), [("one", 0.1), ("sloped", 0.1), ("outside", 0.1)])
def test_in_other_worlds_what_is_said_comes_true_as_often(kind: Kind, most: float) -> None:
    """80 archers whose evening drifts; `make worlds` sweeps with 300."""
    found = [swept(kind, seed) for seed in range(80)]
    said, came = (
        float(np.mean([getattr(one, name) for one in found])) for name in ("said", "came")
    )
    assert abs(said - came) <= most


@pytest.mark.parametrize("seed", range(6))
def test_the_height_just_shot_is_not_asked_for_again(seed: int) -> None:
    world = np.random.default_rng(seed)
    shot: tuple[Height, ...] = ()
    while len(shot) < 5:
        braces = world.choice(np.arange(7.0, 8.26, 1 / 8), 2, replace=False)
        shot = (*shot, *(Height(float(b) * IN, (float(world.integers(2, 7)),)) for b in braces))
        coming = sweep(shot, (7.0 * IN, 8.25 * IN)).next_mm
        assert coming is None or abs(coming - shot[-1].brace_mm) > 1.5


def loud_at(brace: float, db: float) -> Height:
    return Height(brace * IN, (), (), (db - 0.2, db, db + 0.2, db + 0.1, db - 0.1))


def test_two_dips_that_fit_as_well_are_both_said() -> None:
    shot = ((7.2, 0.0), (7.5, 3.0), (7.8, 0.1), (8.1, 3.2), (7.6, 3.0), (7.05, 2.0))
    found = sweep(tuple(loud_at(*one) for one in shot), (7.0 * IN, 8.25 * IN))
    assert [spot / IN for spot in found.spots_mm] == pytest.approx([7.2, 7.8], abs=1 / 16)
    assert found.near > 0.9, "one of the two"
    assert "Two quiet spots" in quiet_said(found).text()
    alone = sweep(tuple(loud_at(*one) for one in shot[:2]), (7.0 * IN, 8.25 * IN))
    assert alone.other_mm is None, "nothing is said before it is enough"


def test_a_flat_floor_says_its_width() -> None:
    shot = ((7.0, 3.0), (7.2, 0.5), (7.5, 0.0), (7.75, 0.1), (8.05, 0.5), (8.25, 3.0))
    found = sweep(tuple(loud_at(*one) for one in shot), (7.0 * IN, 8.25 * IN))
    assert found.floor_mm is not None
    low, high = (end / IN for end in found.floor_mm)
    assert 7.2 < low < 7.6 < 7.7 < high < 8.05
    assert "Flat from" in quiet_said(found).text()


def test_an_evening_that_drifts_is_part_of_the_doubt() -> None:
    """The same heights in order, or shot up and down: only the second tells drift from brace."""
    rising = [(7.2, 0.0), (7.45, 0.6), (7.7, 1.2), (7.95, 1.8)]
    in_order = sweep(tuple(loud_at(*one) for one in rising), (7.0 * IN, 8.25 * IN))
    mixed = [rising[n] for n in (1, 3, 0, 2)]
    by_turns = sweep(tuple(loud_at(*one) for one in mixed), (7.0 * IN, 8.25 * IN))
    assert in_order.sd_mm > by_turns.sd_mm


def test_simulated_archers_are_of_all_three_sorts() -> None:
    assert Counter(number % 3 for number in range(60)) == {0: 20, 1: 20, 2: 20}
