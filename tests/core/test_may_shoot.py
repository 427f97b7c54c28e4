"""May I shoot this? A plain answer, and what it stands on."""

import pytest

from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.computed import compute
from lyrandis.core.order.readings import StepSetAside
from lyrandis.core.reading import BaseReading
from lyrandis.core.setup import fold
from tests.entries import entries

WHOLE = (
    "inspect all good", "hand right", "draw 28", "scale 40 @ 28", "limit 30",
    "family hunting recurve", "shaft 29", "arrow 1 420gr", "arrow 1 sound", "brace 7 3/4",
    "lift 9mm",
)  # fmt: skip


def judged(*said: str | BaseReading) -> Assessment:
    return assess(fold(entries(*said)))


def said(found: Assessment) -> tuple[str, str, str]:
    may = found.may_shoot
    because = "; ".join(one.text() for one in may.because)
    unchecked = "; ".join(one.what.text() for one in may.unchecked)
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
        ("hand right", "nothing_against", "", "which hand draws"),
        ("shaft 29", "nothing_against", "", "whether the arrows are long enough"),
        ("brace 7 3/4", "nothing_against", "", "the brace height"),
        ("lift 9mm", "nothing_against", "", "the nock height"),
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
    assert step.title.text() != found.findings[0].title


def test_part_of_a_look_over_is_no_look_over() -> None:
    rest = [one for one in WHOLE if one != "inspect all good"]
    answer, because, _ = said(judged(*rest, "inspect good tips"))
    assert answer == "not_yet"
    assert "the look-over is not whole (limbs, finish, laminations" in because


def test_the_look_over_comes_before_anything_is_measured() -> None:
    assert judged("mark 24", "arrow 300gr").next_step.action.control == "inspection"
    assert judged().next_step.action.control != "inspection"  # nothing is known of any bow yet


@pytest.mark.parametrize(
    ("more", "answer", "because"),
    [
        ("limit 27 15/16", "not_yet", "Measure it again before shooting"),
        ("brace 3 1/2", "not_yet", "the string is of the wrong length"),
        ("shaft 26 5/8", "no", "It can fall behind the rest"),
        ("string 57 6 strands", "not_yet", "6 strands hold no bow that is shot"),
    ],
)
def test_a_finding_that_forbids_shooting_never_stands_under_nothing_known_against_it(
    more: str, answer: str, because: str
) -> None:
    found = said(judged(*WHOLE, more))
    assert found[0] == answer
    assert because in found[1]


def test_a_shaft_that_may_be_too_short_waits_for_the_draw() -> None:
    rest = [one for one in WHOLE if not one.startswith(("draw", "shaft"))]
    answer, because, _ = said(judged(*rest, "span 70", "shaft 26 1/2"))
    assert answer == "not_yet"
    assert "may fall behind the rest" in because


def test_mends_of_the_ordinary_sort_are_counted() -> None:
    found = judged(*WHOLE, "bracerange 8 to 9", "arrow 2 480gr", "arrow 2 sound").may_shoot
    assert (found.answer, found.to_mend) == ("nothing_against", 2)


COACH = (
    ("inspect all good", "family hunting recurve", "bow 60", "span 70", "mark 40", "arrow 400gr"),
    (
        ("Mark an arrow at full draw", "draw 28"),
        ("Measure the shafts", "shaft 29"),
        ("Flex and look at every arrow", "arrow 1 sound"),
        ("Read the brace height", "brace 7 3/4"),
        ("Tie on a starting nock", "lift 9mm"),
        ("Weigh the bow at", "scale 38 @ 28 1/2"),
    ),
)


def test_what_is_not_known_is_asked_for_in_a_coachs_order() -> None:
    known, steps = COACH
    for title, telling in steps:
        step = judged(*known).next_step
        assert step.title.text().startswith(title)
        known = (*known, telling)


def test_every_thing_not_checked_leads_to_where_it_is() -> None:
    found = judged("inspect all good", "family hunting recurve", "bow 60", "draw 28", "mark 40",
                   "arrow 1 sound", "shaft 29")  # fmt: skip
    steps = {open_.what.text(): open_.action for open_ in found.may_shoot.unchecked}
    assert all(steps.values()) or steps["the nock height"] is None
    assert {action.control for action in steps.values() if action} >= {"brace", "scale", "limit"}


def test_a_quiet_brace_is_never_sought_before_a_nock_is_tied_on() -> None:
    for said_ in (COACH[0], (*COACH[0], "draw 28"), (*COACH[0], "draw 28", "brace 7 3/4")):
        assert "quiet" not in judged(*said_).next_step.title.text()


def test_a_step_set_aside_is_not_asked_for_again_until_it_is_taken_up() -> None:
    """ "I have no scale": the next thing is asked instead, and it stays under not checked."""
    ready = ("inspect all good", "hand right", "hold split", "family hunting recurve", "bow 60",
             "draw 28", "hook 1/2", "mark 40", "shaft 29", "arrow 1 420gr", "arrow 1 sound",
             "brace 7 3/4", "lift 9mm")  # fmt: skip
    asked = judged(*ready).next_step
    assert asked.aside == "scale"
    after = judged(*ready, "aside scale")
    assert after.next_step.aside != "scale"
    assert "weigh the bow" not in after.next_step.title.text().lower()
    assert "the bow's weight" in [one.what.text() for one in after.may_shoot.unchecked]
    again = StepSetAside(step="scale", aside=False)
    assert judged(*ready, "aside scale", again).next_step.aside == "scale"


def test_what_is_looked_at_before_shooting_cannot_be_set_aside() -> None:
    assert judged("mark 24", "family selfbow").next_step.aside is None
    flex = judged(*(one for one in WHOLE if one != "arrow 1 sound")).next_step
    assert flex.title.text().startswith("Flex")
    assert flex.aside is None


def test_a_step_set_aside_is_passed_over_by_the_order_of_work_too() -> None:
    """One source: the card, the order's own next, and the rail."""
    full = ("inspect all good", "hand right", "hold split", "family target recurve", "bow 68",
            "draw 28", "mark 38", "kit full", "fibre polyester", "string 64 16 strands",
            "settled string")  # fmt: skip
    c = compute(fold(entries(*full)))
    assert c.order.coming is not None
    assert c.order.coming.node == "weight_rough"
    after = compute(fold(entries(*full, "aside scale")))
    assert after.order.coming is not None
    assert after.order.coming.node == "tiller_rough"
