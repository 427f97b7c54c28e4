"""Shafts that were tapped: from the ring to the spine, in a set, with and without a gauge."""

import math

import numpy as np
import pytest

from lyrandis.core.arrow.beam import Beam
from lyrandis.core.arrow.readings import NumberedArrow
from lyrandis.core.arrow.spine import stiffness
from lyrandis.core.by_ear import ByEar
from lyrandis.core.computed import Computed, compute
from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.brought import numbered
from lyrandis.core.listen.readings import ShaftTapped, TapHeard
from lyrandis.core.listen.rules import judge
from lyrandis.core.listen.shafts import (
    Spined,
    best_band,
    first_mode,
    per_root_ei,
    resting_nodes,
    ringing_as_tapped,
    ringing_of,
)
from lyrandis.core.listen.tap import tapped
from lyrandis.core.reading import BaseReading
from lyrandis.core.setup import fold
from tests.core.listen.tap_worlds import HOLLOW, TAP_WORLDS, TapWorld, tap_heard, thick_notes
from tests.core.listen.test_tap import rung
from tests.entries import entries

CARBON = ("draw 28", "material carbon", "shaft 29 1/2 8gpi", "point 110gr",
          "diameter 7mm")  # fmt: skip
WOOD = ("draw 28", "material wood", "shaft 29 1/2 9.7gpi", "point 100gr", "diameter 8mm")


def rig(*said: str | BaseReading) -> Computed:
    return compute(fold(entries(*said)))


def tap(number: int, *hz: float, quarters: int = 0, **more: object) -> ShaftTapped:
    taps = tuple(
        TapHeard(at_s=n, ring_hz=one, half_hz=0.3, lines=4, quarter=n >= len(hz) - quarters)
        for n, one in enumerate(hz)
    )
    return ShaftTapped(arrow_number=number, mark="0" * 16, taps=taps, **more)  # type: ignore[arg-type]


def ring_of(said: tuple[str, ...], spine: float, mass: float, state: str = "bare") -> float:
    """The lowest note a shaft of a spine would have."""
    ringing = ringing_as_tapped(rig(*said).arrow.sheet, state, mass)  # type: ignore[arg-type]
    return ringing.notes[0] * math.sqrt(stiffness(spine))


def test_a_bare_shaft_rings_as_a_free_beam() -> None:
    mass = 9.7 * 6.479891e-5 / 0.0254
    notes = per_root_ei(Beam(0.7239, mass, 0.0, 0.0))
    exact = 22.373 / (2 * math.pi) * math.sqrt(1 / (mass * 0.7239**4))
    assert notes[0] == pytest.approx(exact, rel=1e-4)
    assert [one / notes[0] for one in notes] == pytest.approx([1, 2.757, 5.404, 8.933], rel=1e-3)


def bars(beam: Beam, count: int = 400) -> np.ndarray:
    """Free notes of a beam as masses on a bar of hinges: nothing shared with the code."""
    dx = beam.length / count
    at = np.arange(count + 1) * dx
    ratio = beam.diameter_ratio(at)
    mass = beam.mass_per_length * ratio**2 * dx
    mass[[0, -1]] /= 2
    on = (at > beam.fletching_from) & (at < beam.fletching_from + beam.fletching_length)
    mass += on * beam.fletching / max(on.sum(), 1)
    mass[0] += beam.nock
    mass[-1] += beam.tip
    bend = np.zeros((count - 1, count + 1))
    for i in range(count - 1):
        bend[i, i : i + 3] = (1, -2, 1)
    stiff = bend.T @ np.diag(ratio[1:-1] ** 4) @ bend / dx**3
    root = 1 / np.sqrt(mass)
    found = np.linalg.eigvalsh(root[:, None] * stiff * root)
    return np.sqrt(np.maximum(found[2:6], 0)) / (2 * math.pi)


TAPERED = ((0.0, 0.8), (0.25, 1.0), (0.5, 1.0), (0.75, 0.85))


@pytest.mark.parametrize("built", ["bare", "finished", "tapered", "finished and tapered"])
def test_a_shaft_as_built_rings_as_another_sum_has_it_and_is_heard(built: str) -> None:
    profile = TAPERED if "tapered" in built else ()
    lumps = (0.0081, 0.0006, 0.0015) if "finished" in built else (0.0, 0.0, 0.0)
    beam = Beam(0.75, 0.022, lumps[0], lumps[1], lumps[2], profile=profile)
    assert per_root_ei(beam) == pytest.approx(bars(beam), rel=0.006)
    world = np.random.default_rng(7)
    off = []
    for _ in range(12):
        ei = world.uniform(2.5, 8.0)
        heard = tapped(
            rung(ei, bars(beam).tolist(), world, over_db=20, bass_hz=world.uniform(30, 100)),
            0.1, per_root_ei(beam),
        )  # fmt: skip
        assert heard is not None
        off.append(abs(heard.ei.value / ei - 1))
    assert np.median(off) <= 0.01
    assert max(off) <= 0.03


def test_it_is_held_where_it_stands_still() -> None:
    low, high = resting_nodes(Beam(1.0, 0.03, 0.0, 0.0))
    assert (low, high) == pytest.approx((0.2242, 0.7758), abs=1e-3)
    heavy = resting_nodes(Beam(1.0, 0.03, 0.01, 0.0))
    assert heavy[1] > high, "a point draws the far node to itself"
    assert max(first_mode(Beam(1.0, 0.03, 0.0, 0.0))) == 1.0


@pytest.mark.parametrize(("said", "stiffer", "sd"), [(CARBON, 1.01, 0.005), (WOOD, 1.06, 0.02)])
def test_the_spine_comes_back_less_what_its_kind_rings_stiffer(
    said: tuple[str, ...], stiffer: float, sd: float
) -> None:
    ring = ring_of(said, 62.0 * stiffer, 240.0)
    found = rig(*said, tap(1, ring, ring, mass_gr=240.0)).listen.shafts
    assert found is not None
    assert found.shafts[0].spine is not None
    assert found.shafts[0].spine.value == pytest.approx(62.0, rel=1e-3)
    assert found.ratio == Estimate(stiffer, sd)
    assert found.shared > sd / stiffer


def test_a_shaft_on_a_gauge_calibrates_the_rest() -> None:
    ring = ring_of(WOOD, 62.0 * 1.10, 240.0)
    told = [tap(n, ring, ring, mass_gr=240.0) for n in (1, 2)]
    alone = rig(*WOOD, *told).listen.shafts
    gauged = rig(*WOOD, "arrow 1 spine 62lb", *told).listen.shafts
    assert alone is not None
    assert gauged is not None
    assert gauged.calibrated == (1,)
    assert abs(gauged.shafts[1].spine.value - 62) < abs(alone.shafts[1].spine.value - 62)  # type: ignore[union-attr]
    assert gauged.shared < alone.shared
    by_ear = NumberedArrow(arrow_number=1, spine_lbf=62.0, spine_ear=ByEar(mark="0" * 16, half=0.5))
    own = rig(*WOOD, by_ear, *told).listen.shafts
    assert own is not None
    assert own.calibrated == (), "what was heard calibrates nothing"


def test_without_a_mass_there_is_a_ring_and_no_spine() -> None:
    found = rig("draw 28", "material carbon", "shaft 29 1/2", tap(1, 90.0)).listen.shafts
    assert found is not None
    assert found.shafts[0].spine is None
    assert found.shafts[0].ring_hz == 90.0


def test_more_taps_make_it_surer_and_never_better_than_the_floor() -> None:
    ring = ring_of(CARBON, 62.0, 240.0)
    around = [ring * (1 + off) for off in (0.02, -0.02, 0.02, -0.02, 0.02, -0.02, 0.02, -0.02)]
    sds = [
        rig(*CARBON, tap(1, *around[:count], mass_gr=240.0)).listen.shafts.shafts[0].spine.sd  # type: ignore[union-attr]
        for count in (2, 4, 8)
    ]
    assert sds[0] > sds[1] > sds[2]
    for said, floor in ((CARBON, 0.01), (WOOD, 0.02)):
        own = ring_of(said, 62.0, 240.0)
        found = rig(*said, tap(1, *[own] * 12, mass_gr=240.0)).listen.shafts
        assert found is not None
        assert found.shafts[0].spine is not None
        assert found.shafts[0].spine.sd / found.shafts[0].spine.value >= floor


@pytest.mark.parametrize(("times", "asked"), [(0.62, True), (0.81, False), (1.19, False),
                                              (1.21, True)])  # fmt: skip
def test_far_off_the_told_spine_it_asks_for_the_point(times: float, asked: bool) -> None:
    ring = ring_of(CARBON, 62.0 * times * 1.01, 240.0)
    c = rig(*CARBON, "spine 62lb", tap(1, ring, mass_gr=240.0))
    assert (c.listen.shafts.shafts[0].apart is not None) == asked  # type: ignore[union-attr]
    said = [finding for finding in judge(c) if finding.rule == "tap-point"]
    assert bool(said) == asked


def test_shear_takes_more_off_the_upper_lines() -> None:
    """Against a row of pieces that bend and shear, which shares nothing with the code."""
    length, line, thick = 0.75, 0.022, 0.0085
    beam = Beam(length, line, 0.0, 0.0)
    for material, shear in (("carbon", 30.0), ("aluminium", 5.2), ("wood", 19.0)):
        hollow = {"carbon": 0.8}.get(material, HOLLOW[material])
        radius2 = thick**2 * (1 + hollow**2) / 16
        exact = thick_notes(length, line, 0.0, radius2, shear)
        said = ringing_of(beam, material, 1000 * thick)
        assert said.notes == pytest.approx(exact, rel=0.0025)
        plain = per_root_ei(beam)
        less = [1 - a / b for a, b in zip(said.notes, plain, strict=True)]
        assert less == sorted(less)
        assert said.doubts == tuple(sorted(said.doubts))


@pytest.mark.parametrize("world", TAP_WORLDS, ids=[world.name for world in TAP_WORLDS])
def test_in_another_world_the_stiffness_lies_inside_what_is_said(world: TapWorld) -> None:
    """Six shafts of each; `make bench` taps forty."""
    found = [tap_heard(world, seed) for seed in range(6)]
    said = [one for one in found if one.off is not None]
    if world.told_as == "wrong" or world.over_db < 10:
        assert not said, "asked, or refused"
        return
    assert len(said) >= 5
    assert sum(one.inside for one in said) >= len(said) - 1


@pytest.mark.parametrize(("share", "uneven"), [(0.015, False), (0.025, True)])
def test_a_stiff_side_is_named_from_two_per_cent_on(share: float, uneven: bool) -> None:
    ring = ring_of(WOOD, 62.0, 240.0)
    turned = ring * math.sqrt(1 + share)
    c = rig(*WOOD, tap(3, ring, turned, quarters=1, mass_gr=240.0))
    assert (c.listen.shafts.shafts[0].uneven is not None) == uneven  # type: ignore[union-attr]


def shaft(number: int, spine: float) -> Spined:
    return Spined(number, "", "bare", 240.0, True, 90.0, 2, Estimate(spine, 0.2), None)


def test_the_band_lies_where_most_shafts_are() -> None:
    shafts = [shaft(1, 60.0), shaft(2, 61.0), shaft(3, 64.0), shaft(4, 61.4), shaft(5, 64.2)]
    band = best_band(shafts, 1.5)
    assert band is not None
    assert band.numbers == (1, 2, 4)
    assert band.high - band.low == pytest.approx(1.5)
    assert band.low <= 60.0
    assert band.high >= 61.4
    assert best_band([], 1.5) is None
    assert best_band(shafts, 5.0).numbers == (1, 2, 3, 4, 5)  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("count", "first", "again", "struck", "shafts"),
    [
        (3, 1, (), (), (1, 2, 3)),
        (4, 1, (2, 4), (), (1, 1, 2, 2)),
        (4, 7, (2, 3), (), (7, 7, 7, 8)),
        (3, 1, (1,), (), (1, 2, 3)),
        (4, 1, (), (2,), (1, 1, 2, 3)),
        (3, 1, (), (1,), (1, 1, 2)),
        (0, 1, (), (), ()),
    ],
)
def test_taps_are_numbered_one_after_another(
    count: int, first: int, again: tuple[int, ...], struck: tuple[int, ...],
    shafts: tuple[int, ...],
) -> None:  # fmt: skip
    assert numbered(count, first, again, struck) == shafts
