"""Shooting off the hand: what the arrow lies on, the hand's clearance, quills that lift."""

from typing import Any

import pytest

from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.computed import compute
from lyrandis.core.nock.page import page
from lyrandis.core.setup import fold
from tests.entries import entries

THUMB = ("hand right", "hold thumb", "draw 28", "hook 7/8", "family short rigid tip", "bow 54",
         "kit plain", "scale 45 @ 28 7/8", "arrow 1 520gr", "arrow 2 520gr", "arrow 1 sound",
         "arrow 2 sound", "brace 6 3/4 grip", "inspect all good")  # fmt: skip
BOUND = ("arrow 1 quill bound", "arrow 2 quill bound")


def judged(*said: Any) -> Assessment:
    return assess(fold(entries(*THUMB, *said)))


def severity(found: Assessment, name: str) -> str | None:
    return next((one.severity for one in found.findings if one.id == name), None)


@pytest.mark.parametrize(
    ("said", "over", "plus_minus", "wanted"),
    [
        (("lift 0.5mm",), 0.5, 2.1, "good"),
        (("lift 0mm",), 0.0, 2.1, "good"),
        (("lift 1.5mm under",), -1.5, 2.1, "watch"),  # nobody watched the hand: never more
        (("lift 4mm under",), -4.0, 2.1, "watch"),
        (("lift 1mm", "handrise 1mm high"), 0.0, 1.0, "good"),
        (("lift 1mm", "handrise 1.2mm high"), -0.2, 1.0, "watch"),
        (("lift 1mm", "handrise 1.9mm"), -0.9, 1.0, "watch"),
        (("lift 1mm", "handrise 2.2mm high"), -1.2, 1.0, "mend"),
        (("lift 1mm", "handrise 2mm low"), 3.0, 1.0, "good"),
        (("lift 1mm", "handrise 2.2mm high", "gripmark 2mm"), 0.8, 1.0, "good"),
    ],
)
def test_lift_mark_and_hand_make_the_clearance(
    said: tuple[str, ...], over: float, plus_minus: float, wanted: str
) -> None:
    c = compute(fold(entries(*THUMB, "off the hand", *said)))
    clearance = c.nock.hand_clearance
    assert clearance is not None
    assert clearance.value == pytest.approx(over)
    assert clearance.plus_minus == pytest.approx(plus_minus, abs=0.06)
    assert severity(judged("off the hand", *said), "hand-clearance") == wanted
    assert page(c).side.hand_clearance_mm == pytest.approx(over)


@pytest.mark.parametrize("on", ["lieson shelf", "lieson rest"])
def test_no_hand_no_clearance(on: str) -> None:
    assert severity(judged(on, "lift 4mm under"), "hand-clearance") is None


@pytest.mark.parametrize(
    ("said", "wanted", "answer"),
    [
        (("off the hand",), "stop", "no"),
        ((), "watch", "not_yet"),  # a thumb archer's arrow likely lies on the hand: nobody said so
        (("lieson shelf",), "watch", "nothing_against"),
        (("lieson rest",), "watch", "nothing_against"),
    ],
)
def test_a_lifting_quill_refuses_its_arrow_where_it_lies_on_the_hand(
    said: tuple[str, ...], wanted: str, answer: str
) -> None:
    found = judged(*said, "arrow 1 quill bound", "arrow 2 quill lifts")
    assert severity(found, "arrow-quill") == wanted
    assert found.may_shoot.answer == answer
    sentence = next(one.sentence.text() for one in found.findings if one.id == "arrow-quill")
    assert sentence.startswith("Arrow 2 has a lifting quill")
    # bound and smooth again, it is as any other
    mended = judged(*said, *BOUND, "arrow 2 quill lifts", "arrow 2 quill bound")
    assert severity(mended, "arrow-quill") is None


def test_two_lifting_quills_are_named_together() -> None:
    found = judged("off the hand", "arrow 1 quill lifts", "arrow 2 quill lifts")
    sentence = next(one.sentence.text() for one in found.findings if one.id == "arrow-quill")
    assert sentence.startswith("Arrows 1 and 2 have lifting quills")
    # one that is retired is nobody's danger
    left = judged("off the hand", "arrow 1 quill bound", "arrow 2 quill lifts", "arrow 2 retired")
    assert severity(left, "arrow-quill") is None


@pytest.mark.parametrize(
    ("said", "answer", "named"),
    [
        (("off the hand",), "not_yet", "the quill ends are not looked at"),
        (
            ("off the hand", "arrow 1 quill bound"),
            "not_yet",
            "the quill ends of 1 arrow are not looked at",
        ),
        (("off the hand", *BOUND), "nothing_against", None),
        (("lieson shelf",), "nothing_against", None),
        ((), "nothing_against", "what the arrow lies on"),
    ],
)
def test_quills_are_looked_at_before_the_first_shot_off_the_hand(
    said: tuple[str, ...], answer: str, named: str | None
) -> None:
    may = judged(*said).may_shoot
    open_ = [one.text() for one in may.because] + [one.what.text() for one in may.unchecked]
    assert may.answer == answer
    assert (named in open_) if named else not any("quill" in one for one in open_)


def test_fingers_on_a_shelf_are_asked_nothing_of_a_hand() -> None:
    said = ("hold split", "family hunting recurve", "bow 60", "scale 45 @ 28 1/2")
    may = judged(*said).may_shoot
    assert "what the arrow lies on" not in [one.what.text() for one in may.unchecked]
