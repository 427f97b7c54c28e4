"""May I shoot this? A plain answer, and what it stands on."""

import pytest

from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.setup import fold
from tests.entries import entries

WHOLE = (
    "inspect all good", "draw 28", "scale 40 @ 28", "limit 30", "family hunting recurve",
    "arrow 1 420gr", "arrow 1 sound",
)  # fmt: skip


def judged(*said: str) -> Assessment:
    return assess(fold(entries(*said)))


def said(found: Assessment) -> tuple[str, str, str]:
    may = found.may_shoot
    because, unchecked = (
        "; ".join(one.text() for one in some) for some in (may.because, may.unchecked)
    )
    return may.answer, because, unchecked


def test_a_rig_that_is_looked_over_has_nothing_known_against_it() -> None:
    assert said(judged(*WHOLE)) == ("nothing_against", "", "")


@pytest.mark.parametrize(
    ("left_out", "answer", "because", "unchecked"),
    [
        ("inspect all good", "not_yet", "the bow is not looked over", ""),
        ("arrow 1 sound", "not_yet", "the arrows are not flexed and looked at", ""),
        ("draw 28", "nothing_against", "", "your draw"),
        ("scale 40 @ 28", "nothing_against", "", "the bow's weight"),
        ("limit 30", "nothing_against", "", "the maker's longest draw"),
        ("arrow 1 420gr", "nothing_against", "", "the arrows' mass"),
    ],
)
def test_what_is_not_checked_is_said(
    left_out: str, answer: str, because: str, unchecked: str
) -> None:
    found = said(judged(*(one for one in WHOLE if one != left_out)))
    assert found == (answer, because, unchecked)


def test_a_stop_says_no_and_shows_in_its_stage() -> None:
    found = judged(*WHOLE, "inspect bad tips")
    assert found.may_shoot.answer == "no"
    assert "Do not string or draw" in found.may_shoot.because[0].text()
    assert [stage.stop for stage in found.stages] == [False, True, *[False] * 5]
    # each is said once: the answer says what, the step what to do of it
    step = found.next_step
    assert step.finding == "inspection"
    assert step.why.text() not in found.may_shoot.because[0].text()
    assert step.title.text() != step.action.label


def test_part_of_a_look_over_is_no_look_over() -> None:
    rest = [one for one in WHOLE if one != "inspect all good"]
    answer, because, _ = said(judged(*rest, "inspect good tips"))
    assert answer == "not_yet"
    assert "the look-over is not whole (limbs, finish, laminations" in because


def test_the_look_over_comes_before_anything_is_measured() -> None:
    assert judged("mark 24", "arrow 300gr").next_step.action.control == "inspection"
    assert judged().next_step.action.control != "inspection"  # nothing is known of any bow yet
