"""The jot line's words for shafts, spine, arrow pass and numbered arrows, said and said back."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed, ArrowPass, NumberedArrow
from lyrandis.core.arrow.spine import pounds_from_thousandths
from lyrandis.core.errors import DomainError
from lyrandis.core.jot import parse
from lyrandis.core.reading import BaseReading
from lyrandis.core.units import say

FIVE_HUNDRED = round(pounds_from_thousandths(500), 4)


@pytest.mark.parametrize(
    ("text", "reading", "says"),
    [
        ("spine 500", ArrowBuild(spine_lbf=FIVE_HUNDRED, spine_standard="thousandths"),
         "Arrow parts: spine 63 lb (500)"),
        ("spine 52lb", ArrowBuild(spine_lbf=52.0, spine_standard="wood"),
         "Arrow parts: spine 52 lb (605)"),
        ("spine 52 #", ArrowBuild(spine_lbf=52.0, spine_standard="wood"), None),
        ("spine 500 thou",
         ArrowBuild(spine_lbf=FIVE_HUNDRED, spine_standard="thousandths"), None),
        ("deflection 1/2", ArrowBuild(spine_lbf=52.0, spine_standard="wood"), None),
        ("deflection 1/2in @ 26in 2lb", ArrowBuild(spine_lbf=52.0, spine_standard="wood"), None),
        ("shaft 29 1/2 9.2gpi", ArrowBuild(shaft_length_mm=749.3, shaft_gr_per_in=9.2), None),
        ("shaft 29 1/2 tip",
         ArrowBuild(shaft_length_mm=749.3, length_datum="groove_to_tip"),
         "Arrow parts: shaft 29 1/2 in, length: nock groove to the tip"),
        ("shaft 30 9.7gpi bare",
         ArrowBuild(shaft_length_mm=762.0, shaft_gr_per_in=9.7, length_datum="shaft_only"), None),
        ("bareshaft 310gr", ArrowBuild(shaft_gr=310.0), "Arrow parts: bare shaft 310 gr"),
        ("diameter 8.7mm", ArrowBuild(shaft_diameter_mm=8.7), "Arrow parts: diameter 8.7 mm"),
        ("diameter 11/32", ArrowBuild(shaft_diameter_mm=8.73125), None),
        ("fletching 24gr 4in", ArrowBuild(fletching_gr=24.0, fletching_length_mm=101.6),
         "Arrow parts: fletching 24 gr, fletching 4 in long"),
        ("fletching 24", ArrowBuild(fletching_gr=24.0), None),
        ("taper tail 9in 5/16", ArrowBuild(tail_taper_mm=228.6, tail_diameter_mm=7.9375),
         "Arrow parts: tail taper 9 in long, 7.9 mm at the tail"),
        ("taper head 100mm 7mm", ArrowBuild(head_taper_mm=100.0, head_diameter_mm=7.0), None),
        ("taper none", ArrowBuild(tail_taper_mm=0.0, head_taper_mm=0.0), None),
        ("window 3mm", ArrowPass(window_mm=3.0), "Arrow pass: 3.0 mm short of centre"),
        ("window 1/8 in", ArrowPass(window_mm=3.175), None),
        ("window 2mm past", ArrowPass(window_mm=-2.0), "Arrow pass: 2.0 mm past centre"),
        ("window centre", ArrowPass(window_mm=0.0), "Arrow pass: cut to centre"),
        ("window plunger", ArrowPass(plunger=True), "Arrow pass: plunger"),
        ("window plate", ArrowPass(plunger=False), "Arrow pass: hard side plate"),
        ("track 2mm", ArrowPass(track_mm=2.0),
         "Arrow pass: string tracks 2.0 mm to the arrow's side"),
        ("track 2mm away", ArrowPass(track_mm=-2.0),
         "Arrow pass: string tracks 2.0 mm away from the arrow"),
        ("arrow 4 spine 52lb",
         NumberedArrow(arrow_number=4, spine_lbf=52.0, spine_standard="wood"),
         "Arrow 4: spine 52 lb (605)"),
        ("arrow 4 straight 0.2mm", NumberedArrow(arrow_number=4, straight_mm=0.2),
         "Arrow 4: run-out 0.2 mm"),
        ("arrow 4 turned 180", NumberedArrow(arrow_number=4, nock_turn_deg=180.0),
         "Arrow 4: nock turned 180°"),
        ("arrow 4 sound", NumberedArrow(arrow_number=4, state="sound"),
         "Arrow 4: flexed and looked at, sound"),
        ("arrow 4 cracked", NumberedArrow(arrow_number=4, state="cracked"),
         "Arrow 4: cracked, out of the set"),
        ("arrow 4 retired", NumberedArrow(arrow_number=4, retired=True), "Arrow 4: retired"),
        ("arrow 4 back", NumberedArrow(arrow_number=4, retired=False),
         "Arrow 4: back in the set"),
        ("arrow 4 remark dark {grain}", NumberedArrow(arrow_number=4, remark="dark {grain}"),
         "Arrow 4: dark (grain)"),
        ("arrow 4 431gr", ArrowMassed(arrow_mass_gr=431.0, arrow_number=4), None),
        ("arrow 431 gr", ArrowMassed(arrow_mass_gr=431.0), None),
    ],
)  # fmt: skip
def test_words_of_the_arrow_are_read_and_said_back(
    text: str, reading: BaseReading, says: str | None
) -> None:
    jotted = parse(text)
    assert jotted.reading == reading
    if says is not None:
        assert reading.say().text() == says


@pytest.mark.parametrize(
    ("text", "code", "at"),
    [
        ("spine", "missing_slot", ""),
        ("spine stiff", "not_a_number", "stiff"),
        ("spine 500 lb", "wrong_standard", "500 lb"),
        ("spine 50", "which_unit", "50"),
        ("spine 63 in", "wrong_unit", "63 in"),
        ("spine 12 lb", "out_of_range", "12 lb"),
        ("spine 5000", "out_of_range", "5000"),
        ("deflection 0", "not_bent", None),
        ("deflection 3in", "out_of_range", "3in"),
        ("diameter 40mm", "out_of_range", "40mm"),
        ("taper 9in", "missing_choice", None),
        ("taper tail 60in", "out_of_range", "60in"),
        ("window 60mm", "out_of_range", "60mm"),
        ("window wide", "not_a_number", "wide"),
        ("track 40mm", "out_of_range", "40mm"),
        ("arrow 4 straight", "missing_slot", ""),
        ("arrow 4 turned", "missing_slot", ""),
        ("arrow 4 turned 720", "out_of_range", "720"),
        ("arrow 4000 cracked", "out_of_range", "4000"),
        ("arrow 4 431gr heavy", "too_much", "heavy"),
        ("bareshaft 5", "out_of_range", "5"),
        ("fletching 24gr 40in", "out_of_range", "40in"),
    ],
)
def test_what_cannot_be_is_refused_at_its_word(text: str, code: str, at: str | None) -> None:
    with pytest.raises(DomainError) as caught:
        parse(text)
    assert caught.value.code == code
    assert caught.value.reason
    assert caught.value.instruction
    if at is not None:
        assert caught.value.span is not None
        start, end = caught.value.span
        assert text[start:end] == at


@given(st.floats(16, 157))
def test_a_spine_is_the_same_shaft_in_either_standard(pounds: float) -> None:
    thousandths = round(31500.274 / pounds)
    read = parse(f"spine {thousandths}").reading
    assert isinstance(read, ArrowBuild)
    assert read.spine_lbf == pytest.approx(pounds, rel=0.5 / thousandths + 1e-3)


@pytest.mark.parametrize(
    ("value", "said"), [(63.0, "63 lb (500)"), (45.0, "45 lb (700)"), (92.65, "93 lb (340)")]
)
def test_a_spine_is_said_in_both_standards(value: float, said: str) -> None:
    assert say(value, "spine") == said
    assert say(value, "spine", units="metric") == said


@pytest.mark.parametrize(
    ("first", "second", "clash"),
    [
        ("arrow 4 spine 52lb", "arrow 4 spine 54lb", True),
        ("arrow 4 spine 52lb", "arrow 4 straight 0.2mm", False),
        ("arrow 4 cracked", "arrow 5 cracked", False),
        ("window 3mm", "window 4mm", True),
        ("window 3mm", "window plunger", False),
        ("spine 500", "point 125", False),
    ],
)
def test_only_what_speaks_of_the_same_thing_clashes(first: str, second: str, clash: bool) -> None:
    one, two = (parse(text).reading.topics() for text in (first, second))
    shared = {topic for topic in one & two if "standard" not in topic}
    assert bool(shared) is clash


@pytest.mark.parametrize("said", ["50-55", "50/55", "50–55 lb", "50 to 55 #", "55-50 lb"])
def test_wooden_shafts_are_sold_in_groups(said: str) -> None:
    reading = parse(f"spine {said}").reading
    assert isinstance(reading, ArrowBuild)
    assert (reading.spine_lbf, reading.spine_standard) == (52.5, "wood")
