"""What the page says of its own judgement is what was shot, and as good as it has to be."""

from importlib.resources import files

import pytest

from lyrandis.core.flight.proved import Proved, WorldProved
from tests.core.flight.trials import trial


def test_what_the_page_says_of_its_own_judgement_is_what_is_shot() -> None:
    """The first rigs of the trials that are shown are shot again, and named alike."""
    written = files("lyrandis.core.flight").joinpath("proved.json").read_text(encoding="utf-8")
    proved = Proved.model_validate_json(written)
    assert proved.ways[0].rigs == 500
    assert tuple(trial(len(proved.first_verdicts)).best) == proved.first_verdicts


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
    assert sum(one.times * one.came for one in named) / times >= 0.96, "strictly, not within 3 %"
    sure = next(one for one in PROVED.words if one.word == "nearly certain")
    assert 0.85 <= sure.came <= 0.97
    for other in ("first", "rule", "random", "fixed", "model"):
        assert WAYS[other].right < ours.right


@pytest.mark.parametrize("world", PROVED.worlds, ids=lambda one: one.name)
def test_a_wrong_world_is_never_worse_than_the_table(world: WorldProved) -> None:
    assert world.right >= world.least_right
