"""What the page says of its own judgement is what was shot, and as good as it has to be."""

from importlib.resources import files

import pytest
from tools.prove_flight import first_evenings

from lyrandis.core.flight.proved import Proved, WorldProved
from tests.core.flight.trials import trial


def test_what_the_page_says_of_its_own_judgement_is_what_is_shot() -> None:
    """The first rigs of the trials that are shown are shot again, and named alike."""
    written = files("lyrandis.core.flight").joinpath("proved.json").read_text(encoding="utf-8")
    proved = Proved.model_validate_json(written)
    assert proved.ways[0].rigs == 500
    assert tuple(trial(len(proved.first_verdicts)).best) == proved.first_verdicts
    assert first_evenings() == proved.first_evenings


PROVED = Proved.model_validate_json(
    files("lyrandis.core.flight").joinpath("proved.json").read_text(encoding="utf-8")
)
WAYS = {way.key: way for way in PROVED.ways}


def test_the_judgement_is_as_good_as_it_has_to_be() -> None:
    ours = WAYS["lyrandis"]
    assert ours.rigs >= 500
    assert ours.right >= 0.93
    assert ours.near >= 0.96
    assert (ours.found or 0) >= 0.90
    assert (ours.called_weak or 0) <= 0.01
    assert ours.tests <= 4
    assert (ours.said_right or 0) >= 0.96
    named = [one for one in PROVED.words if one.low > 0]
    times = sum(one.times for one in named)
    assert sum(one.times * one.came for one in named) / times >= 0.95, "strictly, not within 3 %"
    sure = next(one for one in PROVED.words if one.word == "nearly certain")
    assert 0.85 <= sure.came <= 0.97
    for other in ("first", "rule", "random", "fixed", "model"):
        assert WAYS[other].right < ours.right


@pytest.mark.parametrize("world", PROVED.worlds, ids=lambda one: one.name)
def test_a_wrong_world_is_never_worse_than_the_table(world: WorldProved) -> None:
    assert world.right >= world.least_right


EVENINGS = {one.key: one for one in PROVED.evenings}


@pytest.mark.parametrize("key", [key for key in EVENINGS if key != "habit"])
def test_evenings_flown_by_the_page_come_to_an_end_with_no_empty_step(key: str) -> None:
    found = EVENINGS[key]
    assert found.ended >= (0.95 if key == "bench" else 0.90)
    assert found.empty == 0
    assert found.within is not None
    assert found.within >= {"bench": 0.85, "population": 0.75}.get(key, 0.70)
    assert found.far_weak_tuned <= 0.01 * found.rigs


def test_far_too_weak_shafts_are_not_called_tuned() -> None:
    far = EVENINGS["far_weak"]
    assert far.rigs >= 300
    assert far.far_weak_tuned == 0


def test_about_four_in_five_is_no_more_than_came_true() -> None:
    """Pooled over all worlds it came true a little more often than it is said."""
    flown = [one for one in PROVED.evenings if one.key != "habit" and one.within is not None]
    times = sum(one.tuned * one.rigs for one in flown)
    came = sum(one.tuned * one.rigs * (one.within or 0.0) for one in flown) / times
    assert 0.75 <= came <= 0.87
    population = EVENINGS["population"]
    assert population.near_came == pytest.approx(population.near_said, abs=0.08)


def test_the_page_brings_more_rigs_home_than_habit() -> None:
    ours, habit = EVENINGS["population"], EVENINGS["habit"]
    assert ours.within_all >= habit.within_all + 0.2
    assert (EVENINGS["stiff"].named or 0) >= 0.95
    assert (EVENINGS["stiff"].false_weak_within or 0) >= 0.65
    assert EVENINGS["bench"].arrows <= 37
    assert ours.arrows <= 50
