"""A weighing far from all that is known of a bow is asked about, never believed or refused."""

import pytest

from lyrandis.core.bow.questioned import question_weight
from lyrandis.core.bow.readings import BowWeighed
from lyrandis.core.computed import compute
from lyrandis.core.errors import DomainError
from lyrandis.core.jot import parse
from lyrandis.core.setup import fold
from tests.entries import entries

IN = 25.4


@pytest.mark.parametrize(
    ("said", "draw", "meant"),
    [
        (40.0, 28, None), (20.2, 28, None), (63.8, 28, None), (19.8, 28, ["kg"]), (64.2, 28, []),
        (18.0, 28, ["kg"]), (178.0, 28, ["N"]), (30.0, 24, None), (5.0, 24, []), (11.0, 24, ["kg"]),
    ],
)  # fmt: skip
def test_a_weight_under_half_or_over_one_and_six_tenths_is_asked(
    said: float, draw: float, meant: list[str] | None
) -> None:
    known = compute(fold(entries("family hunting recurve", "bow 60", "mark 40 @ 28"))).bow.weight
    reading = BowWeighed(draw_weight_lbf=said, draw_length_mm=draw * IN)
    if meant is None:
        question_weight(reading, f"scale {said} @ {draw}", known)
        return
    with pytest.raises(DomainError) as caught:
        question_weight(reading, f"scale {said} @ {draw}", known)
    units = [guess.text.split()[2] for guess in caught.value.guesses]
    assert units == [*meant, "lb"], "as it stands is always one of the answers"
    for guess in caught.value.guesses:
        meant_as = parse(guess.text).reading
        assert isinstance(meant_as, BowWeighed)
        question_weight(meant_as, guess.text, known)


def test_where_no_weight_is_known_none_is_asked_about() -> None:
    question_weight(BowWeighed(draw_weight_lbf=90.0, draw_length_mm=28 * IN), "scale 90 @ 28", None)
