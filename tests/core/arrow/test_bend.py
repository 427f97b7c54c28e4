"""The flexing shot: against a second implementation, energy, convergence, reference values."""

from itertools import pairwise

import numpy as np
import pytest

from lyrandis.core.arrow import bend as bend_module
from lyrandis.core.arrow.after import bare_against_fletched
from lyrandis.core.arrow.beam import MODES, modes_of
from lyrandis.core.arrow.bend import (
    CHAIN_KG,
    NOMINAL,
    RELEASES,
    SERVING_KG,
    STRING_NODES,
    bend,
)
from lyrandis.core.arrow.closing import CHANGE_STEPS, changed, moves_of
from lyrandis.core.arrow.match import (
    ALL_SPINES,
    MATCH_DT,
    SCAN,
    first_root,
    match_spine,
    straight_spines,
)
from lyrandis.core.arrow.matched import match_of
from lyrandis.core.arrow.stroke import stroke_of
from lyrandis.core.arrow.taper import taper_profile
from lyrandis.core.bow.words import Family
from lyrandis.core.errors import DomainError
from tests.core.arrow.oracle import kick_of
from tests.core.arrow.shots import LONGBOW, RECURVE, REFERENCE, WOOD, Case, ei


def kick(case: Case, spine: float, **how: object) -> float:
    """Mean kick over nine releases [deg]."""
    return float(np.degrees(bend((case.shot,), ei(spine), **how).kick.mean()))  # type: ignore[arg-type]


def plain_kick(case: Case, spine: float, *, clean: bool = True) -> float:
    """The same with the one string of the reference text."""
    bent = bend((case.plain,), ei(spine), releases=case.plain_releases, clean=clean)
    return float(np.degrees(bent.kick.mean()))


def plain_match(case: Case, dt: float = MATCH_DT) -> float | None:
    """The match of the reference text: one string, root of the mean over nine releases."""
    bent = bend((case.plain,), ei(*SCAN), releases=case.plain_releases, dt=dt)
    return first_root(SCAN, np.degrees(bent.kick.reshape(len(SCAN), 9).mean(axis=1)))


# along the line


@pytest.mark.parametrize(
    ("name", "speed", "time_ms", "ky"),
    [("recurve", 57.6, 13.95, 886), ("longbow", 51.5, 16.20, 925), ("wood", 55.4, 15.67, 877)],
)
def test_speed_time_and_string_are_those_of_the_reference(
    name: str, speed: float, time_ms: float, ky: float
) -> None:
    shot = REFERENCE[name].plain
    stroke = stroke_of(shot.push, modes_of(shot.beam).mass, dt=20e-6)
    assert stroke.exit_speed == pytest.approx(speed, rel=0.002)
    assert 1000 * stroke.time_on_string == pytest.approx(time_ms, rel=0.002)
    assert stroke.ky[0] == pytest.approx(ky, rel=0.01)


@pytest.mark.parametrize(("name", "ky"), [("recurve", 2096), ("longbow", 1766), ("wood", 1839)])
def test_the_string_is_finite_at_brace(name: str, ky: float) -> None:
    shot = REFERENCE[name].plain
    stroke = stroke_of(shot.push, modes_of(shot.beam).mass, dt=20e-6)
    assert 2 * stroke.ky[stroke.exit] == pytest.approx(ky, rel=0.01)


def test_the_run_is_that_of_its_own_acceleration() -> None:
    shot = LONGBOW.shot
    stroke = stroke_of(shot.push, modes_of(shot.beam).mass, dt=5e-6)
    on = slice(0, stroke.exit + 1)
    speed = np.gradient(stroke.x[on], stroke.dt)
    gain = np.gradient(stroke.v[on], stroke.dt)
    assert np.abs(speed - stroke.v[on])[2:-2].max() < 0.01
    assert np.abs(gain - stroke.a[on])[2:-2].max() < 5.0


def test_all_the_energy_is_accounted_for_along_the_line() -> None:
    shot = RECURVE.shot
    mass = modes_of(shot.beam).mass
    stroke = stroke_of(shot.push, mass, dt=20e-6)
    force = np.array(shot.push.force)
    given = 0.97 * float(np.sum(force[1:] + force[:-1]) / 2) * shot.push.u0 / (len(force) - 1)
    moved = mass + shot.push.kept + shot.push.string / 3
    assert moved * stroke.exit_speed**2 / 2 == pytest.approx(given, rel=1e-6)


# across it


@pytest.mark.parametrize(
    ("name", "spine", "clean"),
    [
        ("recurve", 62.0, False),
        ("recurve", 85.0, True),
        ("longbow", 40.0, True),
        ("longbow", 50.0, False),
        ("wood", 60.0, True),
    ],
)
def test_an_implicit_full_element_run_gives_the_same_kick(
    name: str, spine: float, clean: bool
) -> None:
    shot = REFERENCE[name].shot
    releases = (NOMINAL[0], RELEASES[4], RELEASES[2])
    mine = np.degrees(bend((shot,), ei(spine), releases=releases, clean=clean).kick[0])
    for one, kick in zip(releases, mine, strict=True):
        oracle = kick_of(shot, float(ei(spine)[0, 0]), release=one, clean=clean)
        assert kick == pytest.approx(oracle, abs=0.2)


@pytest.mark.parametrize("case", REFERENCE.values(), ids=REFERENCE)
@pytest.mark.parametrize("spine", [42.0, 55.0, 75.0])
def test_halving_the_step_or_doubling_the_elements_hardly_moves_the_reading(
    case: Case, spine: float, monkeypatch: pytest.MonkeyPatch
) -> None:
    usual = kick(case, spine)
    assert kick(case, spine, dt=10e-6) == pytest.approx(usual, abs=0.15)
    finer = lambda beam: modes_of(beam, elements=32)  # noqa: E731
    monkeypatch.setattr(bend_module, "modes_of", finer)
    assert kick(case, spine) == pytest.approx(usual, abs=0.15)


@pytest.mark.parametrize("case", REFERENCE.values(), ids=REFERENCE)
@pytest.mark.parametrize("spine", [45.0, 62.0, 90.0])
def test_energy_across_the_line_balances(case: Case, spine: float) -> None:
    """E - E0 = work of contacts and fingers - damping - 1/2 a_t q Kg q + 1/2 ky_t q Ks q."""
    shot = case.shot
    bent = bend((shot,), ei(spine), releases=NOMINAL, clean=False, dt=10e-6, record=True)
    stroke, modes, history = bent.strokes[0], bent.modes[0], bent.history
    assert history is not None
    size = MODES + STRING_NODES
    mass = np.eye(size)
    nock = np.zeros(size)
    nock[:MODES] = modes.shapes[0]
    mass += (CHAIN_KG / 12 + SERVING_KG) * np.outer(nock, nock)
    for node in range(STRING_NODES):
        mass[MODES + node, MODES + node] = CHAIN_KG / 6
    string = np.zeros((size, size))
    ends = [nock, *np.eye(size)[MODES:], np.zeros(size)]
    for a, b in pairwise(ends):
        string += 6 * np.outer(a - b, a - b)
    push = np.zeros((size, size))
    push[:MODES, :MODES] = modes.geometric
    w2 = float(ei(spine)[0, 0]) * modes.w2
    own = np.zeros((size, size))
    own[:MODES, :MODES] = np.diag(w2)
    loss = np.zeros((size, size))
    loss[:MODES, :MODES] = np.diag(2 * shot.damping * np.sqrt(w2))

    on = stroke.exit - 1
    q = history.state[: on + 1, 0, :size, 0]
    half = history.state[: on + 2, 0, size:, 0]
    rate = (half[1:] + half[:-1]) / 2
    a, ky = stroke.a[: on + 1], stroke.ky[: on + 1]
    of = lambda matrix, x: np.einsum("ti,ij,tj->t", x, matrix, x)  # noqa: E731
    energy = (of(mass, rate) + of(own, q) - a * of(push, q) + ky * of(string, q)) / 2
    station = shot.push.draw - stroke.x[: on + 1]
    shapes, slopes = modes.at(np.clip(station, 0.0, shot.beam.length))
    past = np.einsum("tm,tm->t", shapes, rate[:, :MODES])
    power = history.plate[: on + 1, 0, 0] * past
    power += history.guide[: on + 1, 0, 0] * (rate[:, :MODES] @ modes.shapes[0])
    power -= of(loss, rate)
    power += (
        -np.gradient(a, stroke.dt) * of(push, q) + np.gradient(ky, stroke.dt) * of(string, q)
    ) / 2
    work = np.concatenate([[0.0], np.cumsum((power[1:] + power[:-1]) / 2 * stroke.dt)])
    off = np.abs(energy - energy[0] - work).max() / np.abs(energy).max()
    assert slopes.shape == shapes.shape
    assert off < 0.005


def test_several_set_ups_in_one_batch_are_each_as_alone() -> None:
    cases = [RECURVE, LONGBOW, WOOD]
    together = bend(tuple(c.shot for c in cases), np.repeat(ei(45, 70), 3, axis=0))
    for i, case in enumerate(cases):
        alone = bend((case.shot,), ei(45, 70))
        assert np.degrees(together.kick[i]) == pytest.approx(np.degrees(alone.kick[0]), abs=0.12)


# what it says


@pytest.mark.parametrize(
    ("case", "matched"),
    [(RECURVE, 62.5), (RECURVE.but(plunger=True), 70), (LONGBOW, 48.9), (WOOD, 42.5)],
    ids=["recurve", "plunger", "longbow", "wood"],
)
def test_the_matched_spine_is_that_of_the_reference(case: Case, matched: float) -> None:
    found = match_spine(case.shot)
    assert found.matched == pytest.approx(matched, rel=0.05)


@pytest.mark.parametrize(
    ("case", "matched"),
    [(RECURVE, 62.9), (RECURVE.but(plunger=True), 69.6), (LONGBOW, 49.6), (WOOD, 43.8)],
    ids=["recurve", "plunger", "longbow", "wood"],
)
def test_the_matched_spine_is_that_of_the_second_implementation(case: Case, matched: float) -> None:
    assert plain_match(case, 20e-6) == pytest.approx(matched, rel=0.005)


@pytest.mark.parametrize(
    ("weight", "matched"),
    [(25, 34), (30, 41), (35, 48), (40, 55), (45, 62), (50, 70), (55, 77), (60, 84)],
)
def test_the_match_follows_the_draw_weight(weight: float, matched: float) -> None:
    found = match_spine(RECURVE.but(weight_lbf=weight).shot).matched
    assert found == pytest.approx(matched, rel=0.03)


@pytest.mark.parametrize(
    ("offset", "matched"),
    [(0, 58.9), (2, 55.8), (4, 53.1), (6, 50.9), (8, 49.3), (10, 47.8), (12, 46.5)],
)
def test_the_match_falls_as_the_plate_moves_out(offset: float, matched: float) -> None:
    assert plain_match(LONGBOW.but(offset_mm=offset)) == pytest.approx(matched, rel=0.03)
    found = match_spine(LONGBOW.but(offset_mm=offset).shot).matched
    assert found == pytest.approx(matched, rel=0.07)


@pytest.mark.parametrize(
    ("spine", "clean", "full"),
    [
        (40, -6, -16),
        (50, 1, 0),
        (60, 8, 8),
        (70, 15, 14),
        (80, 20, 18),
        (100, 26, 15),
        (120, 30, -1),
    ],
)
def test_far_too_stiff_reads_falsely_weak_when_the_tail_slaps(
    spine: float, clean: float, full: float
) -> None:
    assert plain_kick(LONGBOW, spine) == pytest.approx(clean, abs=1.5)
    assert plain_kick(LONGBOW, spine, clean=False) == pytest.approx(full, abs=1.5)


FAMILY: dict[str, Family] = {
    "recurve": "target_recurve", "longbow": "straight_longbow", "wood": "selfbow",
}  # fmt: skip


@pytest.mark.parametrize("name", REFERENCE)
def test_sensitivities_lie_in_their_bands(name: str) -> None:
    """Of the match, which practice and mechanics make together."""
    case, family = REFERENCE[name], FAMILY[name]
    found = moves_of(case.shot, case.habit(family), case.weight_lbf).sensitivities
    moves = {one.change: one.pounds for one in found}
    bands = {
        "length": (2.4, 5.0), "point": (0.4, 3.8), "weight": (0.6, 1.4), "window": (-1.6, 0.0),
        "brace": (0.1, 0.9), "string": (-2.6, -0.3),
    }  # fmt: skip
    for change, (low, high) in bands.items():
        assert low <= moves[change] <= high, (change, moves[change])  # type: ignore[index]


@pytest.mark.parametrize("case", REFERENCE.values(), ids=REFERENCE)
def test_the_match_rises_gently_with_the_point(case: Case) -> None:
    """No single string decides: where one jumps by 8 lb for 25 gr, the nine together do not."""
    tips = range(80, 176, 5)
    matched = [match_spine(case.but(tip_gr=tip).shot).matched or 0.0 for tip in tips]
    for five, low in enumerate(matched):
        later = matched[five : five + 6]
        assert max(later) - low <= 3.0
        assert low - min(later) <= 1.0


@pytest.mark.parametrize(
    ("case", "tips", "matched"),
    [
        (RECURVE, (80, 115, 150, 175, 200), (63.9, 63.8, 63.2, 62.6, 62.9)),
        (LONGBOW, (80, 100, 125, 150, 175, 200), (47.8, 49.0, 50.5, 51.9, 54.1, 54.7)),
        (WOOD, (60, 80, 100, 125, 150, 175), (41.3, 42.1, 43.6, 44.8, 45.8, 47.4)),
    ],
    ids=REFERENCE,
)
def test_nine_releases_come_near_the_median_over_all_strings(
    case: Case, tips: tuple[int, ...], matched: tuple[float, ...]
) -> None:
    found = [match_spine(case.but(tip_gr=tip).shot).matched for tip in tips]
    assert found == pytest.approx(matched, rel=0.03)


def test_one_step_of_each_is_one_step() -> None:
    shot = LONGBOW.shot
    assert changed(shot, 44.5, "length", CHANGE_STEPS["length"]).beam.length == pytest.approx(
        0.78105
    )
    assert changed(shot, 44.5, "window", CHANGE_STEPS["window"]).side.offset == pytest.approx(
        0.0095
    )
    heavier = changed(shot, 44.5, "weight", 1.0).push.force[-1] / shot.push.force[-1]
    assert heavier == pytest.approx(45.5 / 44.5, rel=1e-4)


@pytest.mark.parametrize("case", REFERENCE.values(), ids=REFERENCE)
def test_bends_on_the_string_are_near_one_when_matched(case: Case) -> None:
    match = match_of(case.shot, case.habit("straight_longbow"))
    assert 0.87 <= match.bends_on_string <= 1.06


@pytest.mark.parametrize("case", REFERENCE.values(), ids=REFERENCE)
def test_a_stiff_shaft_strikes_outward_bare_and_a_weak_one_inward(case: Case) -> None:
    matched = match_spine(case.shot).matched or 0.0
    across = case.diameter_mm / 1000
    strikes = [
        bare_against_fletched(case.shot, share * matched, across).outward_m
        for share in (0.75, 1.0, 1.35)
    ]
    assert strikes == sorted(strikes)
    assert strikes[0] < -0.1
    assert strikes[2] > 0.1
    assert strikes[2] - strikes[0] > 0.4


def test_a_far_too_stiff_tail_that_slaps_throws_the_bare_shaft_the_false_way() -> None:
    across = LONGBOW.diameter_mm / 1000
    clean = bare_against_fletched(LONGBOW.shot, 140.0, across).outward_m
    slapped = bare_against_fletched(LONGBOW.shot, 140.0, across, clean=False).outward_m
    assert clean > 0 > slapped


def test_a_bare_shaft_without_a_point_is_not_flown() -> None:
    with pytest.raises(DomainError) as caught:
        bare_against_fletched(LONGBOW.but(tip_gr=0).shot, 70.0, 0.0088)
    assert caught.value.code == "tumbles"


def test_without_a_point_many_spines_leave_straight() -> None:
    plateau = straight_spines(LONGBOW.but(tip_gr=0).shot)
    assert plateau is not None
    low, high = plateau
    assert low <= 66
    assert high >= 90
    assert straight_spines(LONGBOW.shot) is None


@pytest.mark.parametrize("ends", [0.6, 0.7, 0.8])
def test_barrelling_a_stiff_shaft_brings_the_kick_down_step_by_step(ends: float) -> None:
    kicks = []
    for inches in (0, 3, 6, 9, 12):
        length = 1000 * LONGBOW.shot.beam.length
        end = (25.4 * inches, 8.8 * ends)
        profile = taper_profile(length, 8.8, tail=end, head=end) if inches else ()
        shot = LONGBOW.shot
        beam = type(shot.beam)(**{**shot.beam.__dict__, "profile": profile})
        one = type(shot)(shot.push, beam, shot.side, shot.damping)
        kicks.append(float(np.degrees(bend((one,), ei(60.0)).kick.mean())))
    assert kicks == sorted(kicks, reverse=True)
    assert kicks[0] - kicks[-1] > 8


def test_the_mechanics_alone_may_find_no_shaft() -> None:
    assert match_spine(RECURVE.but(weight_lbf=110).shot).matched is None
    assert match_spine(RECURVE.but(weight_lbf=7).shot).matched is None


@pytest.mark.parametrize(("weight", "low", "high"), [(14, 18, 21), (20, 25, 29), (26, 32, 37)])
def test_a_light_bow_has_a_match_below_the_first_scan(
    weight: float, low: float, high: float
) -> None:
    """Both sides of 26 lb: the scan in steps of two goes on where the other ends."""
    match = match_spine(RECURVE.but(weight_lbf=weight).shot)
    assert match.matched is not None
    assert low < match.matched < high


def test_lower_roots_are_false() -> None:
    spines = np.array([60.0, 56.0, 52.0, 48.0, 44.0, 40.0])
    assert first_root(spines, np.array([9.0, 5.0, 1.0, -3.0, 2.0, -2.0])) == pytest.approx(
        51, abs=0.5
    )
    assert first_root(spines, np.array([9.0, 5.0, 4.0, 3.0, 2.0, 1.0])) is None


def test_more_push_of_the_fingers_changes_the_kick_but_little_of_the_match() -> None:
    found = match_spine(RECURVE.shot)
    assert found.matched is not None
    roots = [
        first_root(ALL_SPINES, np.array(found.kicks)[:, release])
        for release in range(len(RELEASES))
    ]
    assert all(root is not None for root in roots)
    near = [root for root in roots if root is not None and abs(root / found.matched - 1) < 0.3]
    assert len(near) >= 7
    assert max(near) - min(near) < 0.25 * found.matched
    assert len(RELEASES) == 9
