"""What is known of a rig now, what would make it surer, and the first evening."""

from typing import Any

import pytest

from lyrandis.core.assessment import judge
from lyrandis.core.computed import compute
from lyrandis.core.example import RECURVE, log
from lyrandis.core.known import KNOWN_WELL, Known, known_of
from lyrandis.core.setup import fold
from tests.core.population.rigs import rig_of

TOLD = ("draw said 27 3/8", "family reflex deflex longbow", "mark 44 @ 28", "bow 64", "arrow 431gr")


def known(*said: str) -> Known:
    return known_of(log(said), "example")


def number(found: Known, key: str) -> Any:
    return next(row for row in found.numbers if row.key == key)


def station(found: Known, key: str) -> Any:
    return next(step for step in found.evening if step.key == key)


@pytest.mark.parametrize("said", [(), ("mark 40",), TOLD, RECURVE, ("span 78",), ("arrow 400gr",)])
def test_there_are_six_numbers_and_each_is_known_or_says_what_it_wants(said: tuple[str]) -> None:
    found = known(*said)
    assert [row.key for row in found.numbers] == [
        "draw", "weight", "arrow", "gpp", "stack", "shaft",
    ]  # fmt: skip
    for row in found.numbers:
        assert (row.figure is None) != (row.missing is None), row.key


def test_a_draw_nobody_told_is_assumed_and_said_to_be() -> None:
    found = known("mark 40", "family hunting recurve")
    draw = number(found, "draw")
    assert draw.assumed
    assert draw.figure.text() == "28 ± 2 1/2 in"
    assert not number(known(*TOLD), "draw").assumed


def test_what_is_known_is_the_rigs_own_numbers() -> None:
    """One fact, one number: the rail and the page of numbers say the same."""
    c = compute(fold(log(TOLD), rig="example"))
    weight = next(v for v in judge(c).stages[1].values if v.key == "draw_weight")
    gpp = next(v for v in judge(c).stages[2].values if v.key == "gpp")
    found = known(*TOLD)
    assert number(found, "weight").figure == weight.figure
    assert number(found, "gpp").figure == gpp.figure


def test_a_measurement_does_what_it_said_it_would() -> None:
    found = known(*TOLD)
    assert [one.title.text() for one in found.measurements] == [
        "Mark an arrow at full draw",
        "Weigh the bow at 27 7/8 in",
    ]
    weight = number(found, "weight").figure.value
    done = known(*TOLD, "draw 27 3/8", f"scale {weight} @ 27 7/8")
    for key in ("draw", "weight"):
        said, came = number(found, key).after, number(done, key).figure.plus_minus
        assert said == pytest.approx(came, rel=0.1), key


def test_what_is_sharp_already_is_not_asked_to_be_measured() -> None:
    sharp = ("draw 28", "draw 28", "hook 1/2", "hold split", *RECURVE[3:],
             "scale 43 @ 27", "scale 45.2 @ 28", "scale 46 @ 28 1/2")  # fmt: skip
    found = known(*sharp)
    for key in ("draw", "weight"):
        figure = number(found, key).figure
        if figure.plus_minus <= KNOWN_WELL * figure.value:
            assert number(found, key).after is None or figure.plus_minus > number(found, key).after
    assert not any("Mark an arrow" in one.title.text() for one in found.measurements)


def test_the_limits_stand_on_their_dangerous_side() -> None:
    found = known(*RECURVE, "limit 30")
    limits = {row.key: row.limit for row in found.numbers if row.limit}
    assert limits["draw"].side == "above"
    assert limits["draw"].value == pytest.approx(30 * 25.4)
    assert (limits["gpp"].side, limits["stack"].side) == ("below", "below")
    assert number(found, "shaft").own == pytest.approx(63, abs=0.5)


def test_the_first_evening_goes_on_as_things_are_done() -> None:
    found = known(*TOLD)
    assert station(found, "answers").state == "done"
    assert station(found, "look").state == "next"
    assert found.minutes == sum(step.minutes for step in found.evening)
    further = known(*TOLD, "inspect all good", "draw 27 3/8", "scale 43 @ 27 7/8")
    assert [s.key for s in further.evening if s.state == "done"] == [
        "answers", "look", "mark", "weigh",
    ]  # fmt: skip
    assert further.minutes < found.minutes


def test_nothing_is_done_on_an_empty_rig() -> None:
    found = known()
    assert not [step.key for step in found.evening if step.state == "done"]
    assert [step.key for step in found.evening if step.state == "next"] == ["answers"]


@pytest.mark.parametrize("seed", range(0, 40, 2))
@pytest.mark.parametrize("how", ["lines", "newcomer"])
def test_on_any_rig_a_measurement_never_makes_a_number_vaguer(seed: int, how: str) -> None:
    """Told fully, and as a newcomer tells it."""
    found = known(*getattr(rig_of(seed), how)())
    for row in found.numbers:
        assert (row.figure is None) != (row.missing is None), row.key
        if row.after is not None:
            assert row.after < row.figure.plus_minus, row.key
