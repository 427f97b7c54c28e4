"""The jot line: what is understood, what is refused, and what is offered back."""

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.archer.readings import (
    AnchorChosen,
    ArmSpan,
    ArmTape,
    DrawMarked,
    DrawOnScale,
    DrawStated,
    GripDepth,
    HoldChosen,
    HookDepth,
    WeightWished,
)
from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed
from lyrandis.core.bench_readings import Noted
from lyrandis.core.bow.readings import (
    ArrowMinimum,
    BowFamily,
    BowLength,
    BowMark,
    BowWeighed,
    BraceRange,
)
from lyrandis.core.errors import DomainError
from lyrandis.core.hearing.items import written_number
from lyrandis.core.jot import ROWS, Listener, parse
from lyrandis.core.reading import BaseReading
from lyrandis.core.string.readings import BraceHeight


@pytest.mark.parametrize(
    ("text", "reading"),
    [
        ("draw 27 3/8", DrawMarked(draw_length_mm=695.325)),
        ("draw 27⅜", DrawMarked(draw_length_mm=695.325)),
        ("draw 27-3/8", DrawMarked(draw_length_mm=695.325)),
        ('DRAW 27.375"', DrawMarked(draw_length_mm=695.325)),
        ("draw 27,375 in", DrawMarked(draw_length_mm=695.325)),
        ("draw 695.325mm", DrawMarked(draw_length_mm=695.325)),
        ("draw 26 1/4 pivot", DrawMarked(draw_length_mm=666.75, datum="pivot")),
        ("draw 28 to back", DrawMarked(draw_length_mm=711.2, datum="back")),
        ("draw 28 at hook", DrawOnScale(hook_position_mm=711.2)),
        ("draw hook 28", DrawOnScale(hook_position_mm=711.2)),
        ("draw said 28", DrawStated(draw_length_mm=711.2)),
        ("tape 27", ArmTape(arm_length_mm=685.8)),
        ("span 70", ArmSpan(arm_span_mm=1778.0)),
        ("hook ½", HookDepth(hook_depth_mm=12.7)),
        ("hold Three-Under", HoldChosen(hold="three_under")),
        ("anchor under chin", AnchorChosen(anchor="under_chin")),
        ("wish 38#", WeightWished(draw_weight_lbf=38.0)),
        ("family reflex deflex longbow", BowFamily(family="reflex_deflex_longbow")),
        ("bow 5 1/2ft", BowLength(bow_length_mm=1676.4)),
        ("mark 45", BowMark(draw_weight_lbf=45.0)),
        ("mark 45lb @ 26", BowMark(draw_weight_lbf=45.0, draw_length_mm=660.4)),
        ("scale 36.2 @ 27", BowWeighed(draw_weight_lbf=36.2, draw_length_mm=685.8)),
        ("scale 36.2@27", BowWeighed(draw_weight_lbf=36.2, draw_length_mm=685.8)),
        (
            "scale 36.2 @ 27 groove",
            BowWeighed(draw_weight_lbf=36.2, draw_length_mm=685.8, string_at="groove"),
        ),
        ("floor 9 gpp", ArrowMinimum(grains_per_pound=9.0)),
        ("floor 430gr", ArrowMinimum(arrow_mass_gr=430.0)),
        ("floor 430", ArrowMinimum(arrow_mass_gr=430.0)),
        ("brace 7 5/8", BraceHeight(brace_height_mm=193.675)),
        ("bracerange 7 to 8", BraceRange(low_mm=177.8, high_mm=203.2)),
        ("grip 1 3/4 back", GripDepth(to="back", depth_mm=44.45)),
        ("arrow 4 431gr", ArrowMassed(arrow_mass_gr=431.0, arrow_number=4)),
        ("arrow 431", ArrowMassed(arrow_mass_gr=431.0)),
        ("shaft 29 1/2 9.2gpi", ArrowBuild(shaft_length_mm=749.3, shaft_gr_per_in=9.2)),
        ("point 125", ArrowBuild(point_gr=125.0)),
        ("note arm felt {tired}", Noted(text="arm felt {tired}")),
    ],
)
def test_parse_understands_what_archers_type(text: str, reading: BaseReading) -> None:
    assert parse(text).reading == reading


@pytest.mark.parametrize(
    ("text", "stage", "first"),
    [("27⅜", "archer", "draw 27⅜"), ("62", "bow", "bow 62"), ("29 1/2", "arrow", "shaft 29 1/2"),
     ("69.5cm", None, "draw 69.5cm"), ("431gr", None, "arrow 431gr"), ("7 1/2", "string", None)],
)  # fmt: skip
def test_a_bare_number_is_asked_and_the_stages_own_word_comes_first(
    text: str, stage: str | None, first: str | None
) -> None:
    with pytest.raises(DomainError) as caught:
        parse(text, to=Listener(stage))
    assert caught.value.code == "which_quantity"
    lines = [guess.text for guess in caught.value.guesses]
    assert lines[:1] == [first] * (first is not None)
    for line in lines:
        parse(line)


def test_parse_marks_estimates_and_rig_readings() -> None:
    jotted = parse("draw 28 here ?")
    assert (jotted.subject, jotted.source) == ("rig", "estimated")


@pytest.mark.parametrize(
    ("text", "code", "at"),
    [
        ("", "empty", None),
        ("xyzzy", "unknown_word", "xyzzy"),
        ("drow 27", "unknown_word", "drow"),
        ("draw", "missing_slot", ""),
        ("draw long", "not_a_number", "long"),
        ("draw nan", "not_a_number", "nan"),
        ("draw 1/0", "out_of_range", "1"),
        ("draw -27", "out_of_range", "-27"),
        ("draw 0", "out_of_range", "0"),
        ("draw 66", "out_of_range", "66"),
        ("bow 27", "out_of_range", "27"),
        ("mark 900 lb", "out_of_range", "900 lb"),
        ("draw 27 gr", "wrong_unit", "27 gr"),
        ("arrow 431 lb", "wrong_unit", "431 lb"),
        ("scale 36.2 @", "missing_slot", ""),
        ("draw 27 3/8 in extra", "too_much", "extra"),
        ("hold loosely", "unknown_choice", "loosely"),
        ("speed 900 fps", "out_of_range", "900 fps"),
        ("speed 168 gr", "missing_slot", ""),
        ("limbs 38", "missing_slot", ""),
        ("limbs three bottoms", "too_much", "three"),
        ("inspect bad luck", "unknown_choice", "luck"),
        ("bracerange 8 to 7", "wrong_order", None),
        ("bow 62 here", "wrong_subject", " here"),
        ("draw " + "9" * 300, "out_of_range", "9" * 300),
    ],
)
def test_parse_refuses_and_points_at_the_word(text: str, code: str, at: str | None) -> None:
    with pytest.raises(DomainError) as caught:
        parse(text)
    assert caught.value.code == code
    assert caught.value.instruction
    if at is not None:
        assert caught.value.span is not None
        start, end = caught.value.span
        assert text[start:end] == at


@pytest.mark.parametrize(
    ("text", "offered"),
    [
        ("draw 66", {"bow 66 in", "draw 66cm"}),
        ("bow 27", {"draw 27 in"}),
        ("drow 27", {"draw 27"}),
        ("scal 36.2 @ 27", {"scale 36.2 at 27"}),
        ("hold tree under", {"hold three under"}),
        ("arrow 28", {"arrow 28g", "shaft 28in"}),
        ("speed 168 m/s", {"speed 168 fps"}),
        ("45lb", {"mark 45lb", "wish 45lb"}),
    ],
)
def test_parse_offers_the_nearest_forms_and_they_work(text: str, offered: set[str]) -> None:
    with pytest.raises(DomainError) as caught:
        parse(text)
    guesses = {guess.text for guess in caught.value.guesses}
    assert offered <= guesses
    for guess in guesses:
        parse(guess)


@pytest.mark.parametrize("word", [row for row in ROWS if row.example], ids=lambda word: word.word)
def test_every_word_reads_its_own_example_and_says_it_back(word) -> None:  # type: ignore[no-untyped-def]
    jotted = parse(word.example)
    assert jotted.word == word.word
    assert jotted.subject == word.subject
    assert "{" not in jotted.reading.say().text()


@given(st.text(max_size=40))
def test_parse_never_fails_other_than_with_a_domain_error(text: str) -> None:
    for stage in (None, "archer", "bow", "arrow"):
        with suppress(DomainError):
            parse(text, stage=stage)


@given(st.integers(0, 99), st.integers(1, 15))
def test_written_number_reads_mixed_fractions_exactly(whole: int, sixteenth: int) -> None:
    assert written_number(f"{whole} {sixteenth}/16") == whole + sixteenth / 16


@pytest.mark.parametrize(
    ("typed", "pounds", "taken"),
    [("scale 38 @ 71", 38.0, True), ("mark 8 @ 71", 8.0, True), ("mark 120 @ 71", 120.0, True),
     ("mark 121 @ 71", 121 / 4.4482216152605, False),
     ("mark 170 N @ 71", 170 / 4.4482216152605, False),
     ("scale 17 kg @ 71", 17 / 0.45359237, False), ("weighed 38 at 71", 38.0, True)],
)  # fmt: skip
def test_a_bare_weight_is_pounds_in_metric_too_and_says_so(
    typed: str, pounds: float, taken: bool
) -> None:
    jotted = parse(typed, to=Listener(units="metric"))
    assert jotted.reading.draw_weight_lbf == pytest.approx(pounds, abs=1e-4)  # type: ignore[union-attr]
    assert ("pounds" in [part.taken_for for part in jotted.understood]) is taken


@pytest.mark.parametrize("said", ["50@28", "47# @ 28", "36.2 @ 27", "200N @ 28"])
def test_a_bare_weight_at_a_draw_is_asked_mark_or_scale(said: str) -> None:
    with pytest.raises(DomainError) as caught:
        parse(said)
    assert caught.value.code == "which_quantity"
    lines = [guess.text for guess in caught.value.guesses]
    assert [line.split()[0] for line in lines] == ["mark", "scale"]
    for line in lines:
        parse(line)
