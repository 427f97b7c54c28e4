"""A first run: answers as they are typed, and nothing that nobody said."""

import pytest

from lyrandis.core.errors import Guess
from lyrandis.core.first_run import FirstAnswers, GuessFor, first_run, guess_for, lines_of


def said(**answers: object) -> dict[str, str]:
    run, _ = first_run(FirstAnswers.model_validate(answers))
    return {question: one.says.text() for question, one in run.answered.items()}


def test_nothing_answered_records_nothing_and_says_nothing_of_any_bow() -> None:
    run, wrong = first_run(FirstAnswers())
    assert (run.answered, wrong, run.findings) == ({}, {}, ())
    assert next(row for row in run.numbers if row.key == "draw").assumed
    assert run.least_arrow_gr is None


@pytest.mark.parametrize(("to", "trade_in"), [
    ("trade", 26.0), ("pivot", 27.75), ("back", 26.0), ("unsure", 26.0),
])  # fmt: skip
def test_a_draw_is_brought_to_one_datum(to: str, trade_in: float) -> None:
    run, _ = first_run(FirstAnswers(draw="26", draw_to=to))  # type: ignore[arg-type]
    draw = next(row for row in run.numbers if row.key == "draw").figure
    assert draw is not None
    assert draw.value / 25.4 == pytest.approx(trade_in, abs=1e-6)


def test_not_sure_what_it_was_measured_to_is_less_sure() -> None:
    spread = {}
    for to in ("trade", "unsure"):
        run, _ = first_run(FirstAnswers(draw="27 3/8", draw_to=to, mark="44"))  # type: ignore[arg-type]
        draw = next(row for row in run.numbers if row.key == "draw").figure
        assert draw is not None
        spread[to] = draw.plus_minus or 0.0
    assert spread["unsure"] > 1.4 * spread["trade"]
    assert any(found.id == "datum-unknown" for found in run.findings)


def test_a_marked_draw_is_measured_and_a_told_one_is_not() -> None:
    assert said(draw="27 3/8", marked=True) == {"draw": "Draw 27 3/8 in on a marked arrow"}
    assert said(draw="27 3/8") == {"draw": "Draw said to be 27 3/8 in"}


@pytest.mark.parametrize(("field", "text"), [
    ("draw", "abc"), ("draw", "66"), ("length", "12"), ("mark", "x"), ("mass", "heavy"),
    ("spine", "-4"), ("span", "3"), ("tape", "99"),
])  # fmt: skip
def test_what_cannot_be_read_is_left_out_and_said(field: str, text: str) -> None:
    run, wrong = first_run(FirstAnswers.model_validate({field: text}))
    assert set(wrong) == {field}
    assert run.answered == {}


def test_a_mass_that_is_rather_a_spine_goes_to_its_own_field() -> None:
    _, wrong = first_run(FirstAnswers(mark="24", mass="700"))
    guesses = [guess_for(guess) for guess in wrong["mass"].guesses]
    assert GuessFor(question="spine", text="700") in guesses
    assert guess_for(Guess("note it", "?")) is None


def test_units_are_the_readers() -> None:
    run, wrong = first_run(FirstAnswers(draw="69.5", units="centimetre"))
    assert not wrong
    assert run.answered["draw"].says.text("metric") == "Draw said to be 69.5 cm"


def test_a_field_may_name_its_own_word() -> None:
    assert lines_of(FirstAnswers(spine="spine 500", mark="mark 40"))["spine"] == "spine 500"


def test_a_told_mass_is_told() -> None:
    run, _ = first_run(FirstAnswers(mass="430", mass_told=True, mark="44"))
    assert run.answered["mass"].source == "told"
    assert first_run(FirstAnswers(mass="430", mark="44"))[0].answered["mass"].source == "weighed"
