"""One fact, one number: every figure that stands on two pages, collected from all of them."""

import math
from collections import defaultdict
from collections.abc import Iterator
from functools import lru_cache

import pytest

from lyrandis.core.arrow import spine_board as board_of_spine
from lyrandis.core.arrow.judge_mass import lightest_gpp
from lyrandis.core.arrow.page import page as arrow_page
from lyrandis.core.arrow.show import shot_drawing
from lyrandis.core.arrow.spine_board import spine_board
from lyrandis.core.arrow.trial import Tried, trial
from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.bow.drawing import knee_drawing
from lyrandis.core.computed import Computed, compute
from lyrandis.core.listen.page import page as listen_page
from lyrandis.core.setup import fold
from lyrandis.core.string.advice import advice_of, strength_of
from lyrandis.core.string.page import page as string_page
from tests.core.population.rigs import TOLD, rig_of
from tests.entries import entries

RIGS = 60


@lru_cache(maxsize=128)
def told(seed: int) -> tuple[Computed, Assessment]:
    setup = fold(entries(*rig_of(seed).told(TOLD[seed % 3], seed)))
    return compute(setup), assess(setup)


def figures(c: Computed, a: Assessment) -> Iterator[tuple[str, str, float | None]]:
    """Every fact that is shown in more than one place: its name, where, and the number there."""
    values = {v.key: v.figure for stage in a.stages for v in stage.values if v.figure}

    def stage(fact: str, key: str) -> tuple[str, str, float | None]:
        return fact, f"stage value {key}", values[key].value if key in values else None

    arrow = arrow_page(c)
    yield stage("speed of this arrow", "speed")
    yield stage("what the rig wants", "matched_spine")
    yield stage("mass of this arrow", "arrow_mass")
    yield stage("grains per pound", "gpp")
    yield stage("floor", "floor")
    yield stage("stiffness of the shafts", "spine")
    yield stage("draw weight", "draw_weight")
    yield "grains per pound", "floor drawing", arrow.floor.grains_per_pound
    yield "floor", "floor drawing", arrow.floor.floor
    yield "draw weight", "floor drawing", arrow.floor.weight_lbf
    yield "mass of this arrow", "arrow drawing", arrow.arrow.weighed_gr
    knee = knee_drawing(c)
    if knee is not None:
        yield "mass of this arrow", "energy page", knee.arrow_gr
        if c.bow.weight_is_own:
            yield "draw weight", "energy page", knee.weight_lbf
    heard = listen_page(c)
    yield "speed of this arrow", "listening", heard.expected_mps
    yield "mass of this arrow", "listening", heard.arrow_mass_gr
    if c.crawls.basis.speed is not None:
        yield "speed of this arrow", "crawls", c.crawls.basis.speed.value
    yield from shot_figures(c)


def shot_figures(c: Computed) -> Iterator[tuple[str, str, float | None]]:
    """The same of the pages that need a shot."""
    shooting = c.arrow.shooting
    if shooting is None or c.match is None:
        return
    board, tried = spine_board(c), trial(c, Tried())
    shown = shot_drawing(shooting, lift_mm=3.0, lift_read=False, outward_is_left=True)
    drawn = {one.which: one.spine_lbf for one in shown.arrows}
    yield "what the rig wants", "spine board", board.matched_lbf
    yield "what the rig wants", "trial", tried.now.matched_lbf
    yield "what the rig wants", "tried as it is", tried.tried.matched_lbf
    yield "weakest that matches", "spine board", board.low_lbf
    yield "weakest that matches", "trial", tried.now.low_lbf
    yield "weakest that matches", "judgement", c.match.low
    yield "what the rig wants, drawn", "shot", drawn["matched"]
    yield "what the rig wants, drawn", "spine board", round(board.matched_lbf, 1)
    yield "floor", "trial", tried.floor_gpp
    if c.arrow.finished is not None:
        yield "speed of this arrow", "shot", shooting.speed_mps
        yield "speed of this arrow", "trial", tried.now.speed_mps
        yield "mass of this arrow", "trial", tried.now.mass_gr
        yield "mass of this arrow", "build sheet", c.arrow.sheet.mass_gr
        yield "grains per pound", "trial", tried.now.grains_per_pound


@pytest.fixture
def _without_flights(monkeypatch: pytest.MonkeyPatch) -> None:
    """Leave out of the board what takes long and shows none of the figures compared."""
    monkeypatch.setattr(board_of_spine, "_ways", lambda *_: ())
    monkeypatch.setattr(board_of_spine, "_bare", lambda *_: None)


@pytest.mark.usefixtures("_without_flights")
@pytest.mark.parametrize("seed", range(RIGS))
def test_one_fact_is_one_number_on_every_page(seed: int) -> None:
    found: defaultdict[str, dict[str, float]] = defaultdict(dict)
    for fact, where, value in figures(*told(seed)):
        if value is not None:
            found[fact][where] = value
    assert len(found) >= 1
    for fact, places in found.items():
        first = next(iter(places.values()))
        for where, value in places.items():
            assert math.isclose(value, first, rel_tol=2e-4, abs_tol=1e-9), (fact, where, places)


def test_the_strands_of_finding_and_sheet_are_one() -> None:
    for seed in range(0, RIGS, 3):
        c, a = told(seed)
        strength = strength_of(c)
        finding = next((f for f in a.findings if f.id == "string-strands"), None)
        if strength is None or finding is None:
            continue
        advised = advice_of(c, strength.material)
        assert advised is not None
        sheet = {one.material: one.strands for one in string_page(c).sheet.advised}
        assert sheet[strength.material] == advised.strands
        if "least" in finding.sentence.figures:
            assert finding.sentence.figures["least"].value == advised.strands


def test_the_lightest_arrow_is_the_one_that_is_judged() -> None:
    c, a = told(0)
    finding = next(f for f in a.findings if f.id == "arrow-floor")
    assert c.arrow.finished is not None
    assert c.bow.own_weight is not None
    light = lightest_gpp(c.arrow.finished, c.bow.own_weight)
    assert finding.sentence.figures["gpp"].value == pytest.approx(light.value)
