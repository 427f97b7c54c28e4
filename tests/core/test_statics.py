"""The bow as a spring: against theory, against the reference table, and at its edges."""

import math
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.likeness import usual_shape
from lyrandis.core.bow.stack import stack_of, typical_stack
from lyrandis.core.bow.statics import (
    BowShape,
    Chain,
    DrawCurve,
    draw_chain,
    draw_curve,
    force_of,
    leaving_point,
    limb_at,
    pass_down,
    solve_curve,
)
from lyrandis.core.constants import JOULES_PER_LBF_MM
from lyrandis.core.errors import DomainError

IN = 25.4

# Reference table of the design: family, length, riser, brace, weight at 28 in (trade); then force
# [lb], slope [lb/in] and finger angle [deg] at standard draws, energy [J], stack onset [in].
REFERENCE = [
    ("straight_longbow", 66, 14, 6.75, 47, {
        20: (28.0, 2.06, 148), 24: (36.8, 2.33, 138), 26: (41.6, 2.55, 133), 28: (47.0, 2.83, 128),
        30: (53.0, 3.19, 123), 32: (59.8, 3.65, 118)}, 53.9, 28.9, 30.0),
    ("reflex_deflex_longbow", 60, 15, 7, 45, {
        20: (28.4, 1.80, 144), 24: (35.9, 2.02, 133), 26: (40.2, 2.25, 127), 28: (45.0, 2.57, 121),
        30: (50.6, 3.03, 115), 32: (57.2, 3.67, 109)}, 54.0, 28.6, 29.4),
    ("hunting_recurve", 58, 15, 7.75, 45, {
        20: (29.1, 1.70, 145), 24: (36.3, 1.93, 134), 26: (40.4, 2.17, 128), 28: (45.0, 2.49, 122),
        30: (50.4, 2.96, 116), 32: (57.0, 3.62, 109)}, 54.5, 28.2, 28.9),
    ("hunting_recurve", 62, 18, 7.75, 45, {
        20: (29.8, 1.67, 147), 24: (36.8, 1.86, 137), 26: (40.7, 2.05, 131), 28: (45.0, 2.32, 126),
        30: (50.0, 2.68, 120), 32: (55.8, 3.19, 114)}, 55.5, 29.0, 29.9),
    ("target_recurve", 68, 27, 8.75, 40, {
        20: (26.5, 1.49, 152), 24: (32.8, 1.65, 143), 26: (36.2, 1.80, 138), 28: (40.0, 2.00, 133),
        30: (44.3, 2.27, 128), 32: (49.2, 2.64, 123)}, 47.3, 29.6, 30.5),
    ("long_rigid_tip", 54, 6, 6.5, 45, {
        20: (29.5, 1.65, 141), 24: (36.5, 1.88, 129), 26: (40.5, 2.11, 123), 28: (45.0, 2.42, 117),
        30: (50.3, 2.86, 110), 32: (56.6, 3.48, 104)}, 57.3, 28.2, 29.0),
]  # fmt: skip


def shape(family: str, length: float, riser: float, brace: float) -> BowShape:
    return BowShape(family, length * IN, riser * IN, brace * IN)  # type: ignore[arg-type]


def pivot(trade_in: float) -> float:
    return (trade_in - 1.75) * IN


@pytest.mark.parametrize("row", REFERENCE, ids=lambda row: f"{row[0]} {row[1]}")
def test_the_reference_table_is_reproduced(row: tuple) -> None:  # type: ignore[type-arg]
    """Validation against an independent prototype: 0.5 % on force, 1 degree on angles."""
    family, length, riser, brace, weight, table, energy, felt, onset = row
    curve = draw_curve(shape(family, length, riser, brace))
    scale = weight / curve.force.at(pivot(28))
    for draw, (force, slope, angle) in table.items():
        at = pivot(draw)
        assert scale * curve.force.at(at) == pytest.approx(force, rel=0.005)
        assert scale * curve.force.slope(at) * IN == pytest.approx(slope, rel=0.01)
        assert math.degrees(curve.finger_angle(at)) == pytest.approx(angle, abs=1.0)
    assert scale * curve.energy.at(pivot(28)) * JOULES_PER_LBF_MM == pytest.approx(energy, abs=0.1)
    stack = stack_of(curve)
    assert stack.felt_mm == pytest.approx(pivot(felt), abs=0.15 * IN)
    assert stack.onset_mm == pytest.approx(pivot(onset), abs=0.15 * IN)


def elastica_length(t: float, p: float, root: float) -> float:
    """Length of a uniform rod under end tension t, from its tip angle p to its root angle.

    Euler's elastica: phi'^2/2 = t (cos phi - cos p); with sin(phi/2) = k sin psi, k = sin(p/2),
    l sqrt(t) = integral of dpsi/sqrt(1 - k^2 sin^2 psi) from psi_root to pi/2 (Simpson).
    """
    k = math.sin(p / 2)
    low = math.asin(math.sin(root / 2) / k)
    n = 400
    h = (math.pi / 2 - low) / n
    values = [1 / math.sqrt(1 - (k * math.sin(low + i * h)) ** 2) for i in range(n + 1)]
    total = values[0] + values[-1] + 4 * sum(values[1:-1:2]) + 2 * sum(values[2:-1:2])
    return total * h / 3 / math.sqrt(t)


def uniform_rod(segments: int, length: float = 700.0) -> Chain:
    piece = length / segments
    compliances = [piece / 2] + [piece] * (segments - 1)
    pieces = tuple((piece, c, 0.0) for c in reversed(compliances))
    return Chain(pieces=pieces, root_x=0.0, root_y=100.0, root_lean=0.0, length=length)


@pytest.mark.parametrize("p", [0.3, 0.8, 1.3])
def test_a_uniform_rod_follows_the_elastica(p: float) -> None:
    """Validation against elliptic integrals: second order in the number of pieces."""
    t = 2.2 / 700.0**2
    errors = []
    for segments in (20, 40, 80):
        root = pass_down(uniform_rod(segments), t, p).gamma
        errors.append(abs(elastica_length(t, p, root) / 700.0 - 1))
    assert errors[1] < 1.5e-3
    assert errors[0] / errors[1] == pytest.approx(4.0, rel=0.15)
    assert errors[1] / errors[2] == pytest.approx(4.0, rel=0.15)


@pytest.mark.parametrize("family", FAMILIES)
def test_work_done_equals_energy_bent_into_the_limbs(family: str) -> None:
    """Conservation: the area under the force curve is the limbs' own energy."""
    curve = draw_curve(usual_shape(family))  # type: ignore[arg-type]
    for state in (5, 15, len(curve.states) - 1):
        work = curve.energy.at(curve.states[state].draw)
        assert work == pytest.approx(curve.limb_energy(state), rel=1e-3)


def test_a_tapered_straight_bow_has_the_published_static_quality() -> None:
    """E/(F draw) = 0.407: half length 36 in, of it 4 in grip, stiffness falling to nothing at the
    tip, braced 6 in, drawn 28 in true (a value of the literature on bow mechanics)."""
    pieces, grip, lf = 320, 4 * IN, 32 * IN
    d = lf / pieces
    compliances = [d / 2 / (1 - 1 / (4 * pieces))]
    compliances += [d / (1 - i / pieces) for i in range(1, pieces)]
    chain = Chain(tuple((d, c, 0.0) for c in reversed(compliances)), 0.0, grip, 0.0, lf)
    states, ends = draw_chain(chain, 6 * IN, 28 * IN)
    force = force_of(states)
    assert ends == "asked"
    quality = force.integral().at(28 * IN) / (force.at(28 * IN) * 28 * IN)
    assert quality == pytest.approx(0.407, abs=0.002)


@pytest.mark.parametrize("family", FAMILIES)
@pytest.mark.parametrize("pieces", [24, 40])
def test_the_curve_hardly_depends_on_the_number_of_pieces(family: str, pieces: int) -> None:
    """Against 640 pieces: force at 31 in within 0.01 %, energy within 0.06 % (the design's)."""
    coarse, fine = (
        draw_curve(usual_shape(family), segments=n)  # type: ignore[arg-type]
        for n in (pieces, 640)
    )
    ratios = [c.force.at(pivot(31)) / c.force.at(pivot(28)) for c in (coarse, fine)]
    energies = [c.energy.at(pivot(31)) / c.force.at(pivot(28)) for c in (coarse, fine)]
    assert ratios[0] == pytest.approx(ratios[1], rel=1e-4)
    assert energies[0] == pytest.approx(energies[1], rel=6e-4)


def solved(bow: BowShape) -> DrawCurve | DomainError:
    try:
        return draw_curve(bow)
    except DomainError as refused:
        return refused


@given(
    family=st.sampled_from(sorted(FAMILIES)),
    length=st.floats(48, 72),
    brace=st.floats(5, 9.5),
)
@settings(max_examples=60, deadline=None)
def test_every_family_solves_or_says_why_not(family: str, length: float, brace: float) -> None:
    """48 to 72 in, brace 5 to 9 1/2 in, to 34 in: rising force and energy, falling angle."""
    riser = FAMILIES[family].riser_in  # type: ignore[index]
    curve = solved(shape(family, length, riser, brace))
    if isinstance(curve, DomainError):
        assert curve.code in ("limb_too_short", "brace_unreachable", "shape_does_not_hold")
        assert curve.instruction
        return
    assert all(map(math.isfinite, (*curve.force.y, *curve.force.dy, *curve.gamma.y)))
    assert all(b > a for a, b in pairwise(curve.force.y))
    assert all(b > a for a, b in pairwise(curve.energy.y))
    assert all(b > a for a, b in pairwise(curve.gamma.y))
    if curve.ends == "asked":
        assert curve.last_mm >= pivot(34)


@pytest.mark.parametrize(("bow", "code"), [
    (("hunting_recurve", 58, 60, 7.75), "riser_longer_than_bow"),
    (("hunting_recurve", 40, 26, 7.75), "limb_too_short"),
    (("large_rigid_tip", 40, 7, 7), "limb_too_short"),
    (("target_recurve", 48, 27, 12), "brace_unreachable"),
    (("large_rigid_tip", 72, 7, 5), "shape_does_not_hold"),
])  # fmt: skip
def test_an_impossible_bow_is_refused_with_a_reason(bow: tuple, code: str) -> None:  # type: ignore[type-arg]
    with pytest.raises(DomainError) as refused:
        draw_curve(shape(*bow))
    assert refused.value.code == code
    assert refused.value.instruction
    assert refused.value.field


def test_a_refusal_is_kept_like_a_curve() -> None:
    impossible = shape("target_recurve", 48, 27, 12)
    before = solve_curve.cache_info().hits
    for _ in range(3):
        with pytest.raises(DomainError):
            draw_curve(impossible)
    assert solve_curve.cache_info().hits >= before + 2


def test_a_short_bow_is_not_drawn_past_what_a_limb_survives() -> None:
    curve = draw_curve(shape("straight_longbow", 48, 14, 6.75))
    assert curve.ends in ("tip_angle", "string_angle")
    assert curve.last_mm < pivot(35)


@pytest.fixture(scope="module", name="recurve")
def recurve_curve() -> DrawCurve:
    return draw_curve(shape("target_recurve", 68, 27, 8.75))


def test_a_limb_keeps_its_length_however_far_it_is_drawn(recurve: DrawCurve) -> None:
    for draw in (None, recurve.first_mm, pivot(20), pivot(30)):
        points = limb_at(recurve, draw)
        run = sum(math.dist(a, b) for a, b in pairwise(points))
        assert run == pytest.approx(recurve.chain.length)


def test_the_string_keeps_its_length_and_meets_the_hook(recurve: DrawCurve) -> None:
    """Free string from the hook to where it leaves, and the rest along the limb to the tip."""
    for draw in (recurve.first_mm, pivot(18), pivot(28)):
        leaves, limb = leaving_point(recurve, draw), limb_at(recurve, draw)
        free = math.hypot(draw - leaves.x, leaves.y)
        nearest = min(range(len(limb)), key=lambda i: math.dist(limb[i], leaves))
        wrapped = sum(math.dist(a, b) for a, b in pairwise(limb[nearest:]))
        assert free + wrapped == pytest.approx(recurve.string_length_mm / 2, rel=2e-3)


def test_a_recurves_string_lies_on_the_limb_at_brace_and_lifts(recurve: DrawCurve) -> None:
    assert recurve.tip.at(recurve.first_mm) < 0
    assert recurve.tip.at(pivot(30)) > 0


def test_force_scales_with_stiffness_exactly() -> None:
    """Compliances halved and tension doubled: the same shape, twice the force."""
    chain = draw_curve(usual_shape("selfbow")).chain
    stiff = Chain(
        tuple((length, c / 2, kink) for length, c, kink in chain.pieces),
        chain.root_x, chain.root_y, chain.root_lean, chain.length,
    )  # fmt: skip
    soft_pass, stiff_pass = pass_down(chain, 1e-5, 0.6), pass_down(stiff, 2e-5, 0.6)
    assert stiff_pass.gamma == pytest.approx(soft_pass.gamma)
    assert stiff_pass.half_string == pytest.approx(soft_pass.half_string)
    assert stiff_pass.energy == pytest.approx(2 * soft_pass.energy)


@pytest.mark.parametrize("t", [1e-6, 1e-5])
@pytest.mark.parametrize("p", [-0.4, 0.2, 1.0])
def test_the_pass_knows_its_own_derivatives(t: float, p: float) -> None:
    chain = draw_curve(usual_shape("hunting_recurve")).chain
    here, h = pass_down(chain, t, p), 1e-6
    by_t, by_p = pass_down(chain, t * (1 + h), p), pass_down(chain, t, p + h)
    for name in ("gamma", "half", "draw"):
        value = "half_string" if name == "half" else name
        slope_t = (getattr(by_t, value) - getattr(here, value)) / (t * h)
        slope_p = (getattr(by_p, value) - getattr(here, value)) / h
        assert getattr(here, f"{name}_t") == pytest.approx(slope_t, rel=1e-3, abs=1e-3)
        assert getattr(here, f"{name}_p") == pytest.approx(slope_p, rel=1e-3, abs=1e-3)


@pytest.mark.parametrize("family", FAMILIES)
def test_the_one_line_rule_meets_the_computed_onset(family: str) -> None:
    """onset = 1 3/4 in + brace + c l, within an inch of the computed one for the usual bow."""
    usual = usual_shape(family)  # type: ignore[arg-type]
    onset = typical_stack(usual).onset_mm
    assert onset is not None
    rule = usual.brace_height_mm + FAMILIES[usual.family].onset_share * usual.limb_mm
    assert onset == pytest.approx(rule, abs=1.3 * IN)


def test_longer_bows_stack_later() -> None:
    usual = usual_shape("reflex_deflex_longbow")
    onsets = [
        typical_stack(usual._replace(bow_length_mm=length * IN)).onset_mm or 0.0
        for length in (54, 58, 62, 66)
    ]
    assert all(b > a for a, b in pairwise(onsets))


def test_higher_brace_stores_less() -> None:
    """Per inch of brace: 3 % less energy for straight limbs to 8 % for target recurves."""
    for family, low, high in (("straight_longbow", 0.01, 0.05), ("target_recurve", 0.04, 0.11)):
        usual = usual_shape(family)  # type: ignore[arg-type]
        higher = usual._replace(brace_height_mm=usual.brace_height_mm + IN)
        energies = [
            draw_curve(s).energy.at(pivot(28)) / draw_curve(s).force.at(pivot(28)) * weight
            for s, weight in ((usual, 1.0), (higher, 1.0))
        ]
        assert low < 1 - energies[1] / energies[0] < high
