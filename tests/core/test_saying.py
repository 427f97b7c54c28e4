"""Saying readings back: every kind, in the trade's words, in every set of units."""

import re
from typing import Literal, get_args

import pytest

from lyrandis.core.archer import words as archer_words
from lyrandis.core.arrow import words as arrow_words
from lyrandis.core.bench_readings import Named, PartFitted, PutAway, Retraction
from lyrandis.core.bow import words as bow_words
from lyrandis.core.jot import parse
from lyrandis.core.phrase import Figure, lbf, mm, phrase, plain
from lyrandis.core.reading import BaseReading
from lyrandis.core.string import words as string_words
from lyrandis.core.string.readings import StringBuild


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("draw 27 3/8 pivot", "Draw 27 3/8 in to the pivot on a marked arrow"),
        ("draw hook 28 belly", "String at the hook 28 in to the belly, at full draw on a scale"),
        ("draw said 28", "Draw said to be 28 in"),
        ("tape 27", "Fingertip to shoulder 27 in"),
        ("span 70", "Arm span 70 in"),
        ("hook 1/2", "Hook 1/2 in behind the nock groove"),
        ("hold split", "Hold: one over, two under"),
        ("anchor corner", "Anchor: corner of the mouth"),
        ("hand left", "Draws with the left hand"),
        ("purpose course", "Purpose: 3-D course"),
        ("wish 38", "Wishes to hold 38.0 lb"),
        ("family long rigid tip", "Family: bow with long static tips"),
        ("bow 62", "Bow length 62 in"),
        ("riser 17", "Riser 17 in"),
        ("mark 45", "Marked 45.0 lb at 28 in"),
        ("scale 36.2 @ 27 groove", "Draw weight 36.2 lb with the nock groove at 27 in"),
        ("limit 30", "Maker's limit 30 in of draw"),
        ("speed 168 fps 431gr", "Chronograph 168 fps, an arrow of 431 gr"),
        ("speed 51.2", "Chronograph 168 fps"),
        ("limbs 38 40", "Limbs: upper 38.0 lb, lower 40.0 lb"),
        ("limbs two bottoms", "Limbs: two bottom limbs"),
        ("limbs 20 1/2 21 length", "Limbs: upper 20 1/2 in long, lower 21 in"),
        ("inspect all good", "Looked over: 9 good"),
        ("inspect bad crazing", "Looked over: the finish is crazed"),
        ("floor 9 gpp", "Bowyer's minimum arrow 9.0 gr/lb"),
        ("floor 430gr", "Bowyer's minimum arrow 430 gr"),
        ("bracerange 7 to 8", "Maker's brace 7 in to 8 in"),
        ("grip 2 back", "Pivot to back 2 in"),
        ("brace 9 1/4 back", "Brace height 9 1/4 in to the back"),
        ("string 59 16 strands", "String: 16 strands, 59 in long"),
        ("arrow 4 431gr", "Arrow 4: 431 gr finished"),
        ("arrow 431gr", "Arrow 431 gr finished"),
        ("shaft 29 1/2 9.2gpi", "Arrow parts: shaft 29 1/2 in, 9.2 gr/in"),
        ("material ash", "Arrow parts: wood"),
        ("note new tab", "Note: new tab"),
    ],
)
def test_describe_says_what_was_typed(typed: str, said: str) -> None:
    assert parse(typed).reading.say().text() == said


@pytest.mark.parametrize(
    ("reading", "said"),
    [
        (Named(name="Old {yew}"), "Named Old (yew)"),
        (PutAway(), "Put away"),
        (PutAway(away=False), "Taken out again"),
        (PartFitted(part="arrow_set", part_id="set-b"), "Fitted arrow set set-b"),
        (PartFitted(part="bow", part_id=None), "Took the bow off"),
        (Retraction(entry_id="some-entry"), "Took an entry back"),
        (
            StringBuild(material="low_stretch", string_mass_gr=110.0),
            "String: low-stretch fibre, 110 gr",
        ),
    ],
)
def test_describe_says_what_has_no_jot_word(reading: BaseReading, said: str) -> None:
    assert reading.say().text() == said


def test_describe_follows_the_units() -> None:
    said = parse("scale 36.2 @ 27").reading.say()
    assert said.text("metric") == "Draw weight 161 N (36.2 lb) with the hook at 68.6 cm"
    assert said.text("centimetre") == "Draw weight 36.2 lb with the hook at 68.6 cm"


def test_a_phrase_keeps_only_the_figures_it_names() -> None:
    assert phrase("Draw {draw}.", draw=mm(700.0), weight=lbf(40.0)).figures == {"draw": mm(700.0)}


def test_a_phrase_without_its_figure_is_still_a_sentence() -> None:
    assert phrase("Draw {draw}.").text() == "Draw {draw}."


def test_words_typed_by_the_archer_cannot_name_figures() -> None:
    said = phrase(f"Note: {plain('{weight}')} and {{weight}}", weight=Figure(value=1, unit="lbf"))
    assert said.text() == "Note: (weight) and 1.0 lb"


def _table(name: str) -> str:
    return re.sub(r"(?<=[a-z])(?=[A-Z])", "_", name).upper()


CHOICES = [
    (getattr(words, name), getattr(words, f"{_table(name)}_WORDS"))
    for words in (archer_words, bow_words, string_words, arrow_words)
    for name in vars(words)
    if name[0].isupper() and hasattr(words, f"{_table(name)}_WORDS")
]


def test_every_choice_has_words_in_its_order() -> None:
    assert len(CHOICES) >= 9
    for choices, words in CHOICES:
        assert tuple(words) == get_args(choices)


def test_a_kind_that_does_not_say_itself_cannot_be_made() -> None:
    class Silent(BaseReading):
        of = frozenset({"rig"})
        kind: Literal["silent"] = "silent"

    with pytest.raises(TypeError, match="say"):
        Silent()
