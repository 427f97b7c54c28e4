"""Choosing a bow: the schools' rules by table, and the board's judgement."""

import math
from itertools import pairwise

import pytest

from lyrandis.core.bow import schools
from lyrandis.core.bow.board import Asking, BoardRow, FamilyBoard, Wish
from lyrandis.core.bow.choosing import choosing_board, families_for, wish_of
from lyrandis.core.bow.likeness import likeness_of
from lyrandis.core.bow.schools import SchoolsAsked
from lyrandis.core.bow.weight import mark_to_ask_for
from lyrandis.core.computed import compute
from lyrandis.core.errors import DomainError
from lyrandis.core.estimate import Estimate
from lyrandis.core.setup import fold
from tests.entries import entries

IN = 25.4


def board(family: str, **wished: object) -> FamilyBoard:
    given = {"draw_mm": 28 * IN, "hook_mm": 14.0, "hold": "split", "purpose": "woods",
             "hold_lbf": 40.0} | wished  # fmt: skip
    return choosing_board(Wish(**given), (family,)).families[0]  # type: ignore[arg-type]


def row(found: FamilyBoard, length: float) -> BoardRow:
    return next(r for r in found.rows if math.isclose(r.bow_length_mm, length * IN))


@pytest.mark.parametrize(("draw", "low", "high"), [
    (24, 64, 64), (26, 66, 66), (28, 68, 68), (29.4, 70, 70), (30, 70, 70),
    (25, 64, 66), (27, 66, 68), (27.2, 66, 68), (27.3, 68, 68), (29, 68, 70), (31, 70, 72),
])  # fmt: skip
def test_the_ladder_climbs_two_inches_for_two_and_allows_both_at_its_edges(
    draw: float, low: float, high: float
) -> None:
    assert schools.ladder("target_recurve", draw) == SchoolsAsked(low, high)


@pytest.mark.parametrize(("draw", "limbs"), [
    (26, ("short",)), (26.5, ("short", "medium")), (28, ("medium",)), (29.5, ("medium",)),
    (30, ("medium", "long")), (31, ("long",)),
])  # fmt: skip
def test_limb_first_takes_limbs_by_draw(draw: float, limbs: tuple[str, ...]) -> None:
    assert schools.limbs_for(draw) == limbs


@pytest.mark.parametrize("family", ["hunting_recurve", "target_recurve", "straight_longbow"])
@pytest.mark.parametrize("purpose", ["hunting", "woods", "field", "indoor", None])
@pytest.mark.parametrize("draw", [26, 28, 30, 32])
def test_no_length_is_named_that_stacks_and_gives_up_lists_losses_only(
    family: str, purpose: str | None, draw: int
) -> None:
    found = board(family, purpose=purpose, draw_mm=draw * IN)
    if found.best_mm is not None:
        named = row(found, found.best_mm / IN)
        assert (named.margin_mm or 0.0) >= 0
        fits = [r for r in found.rows if r.verdicts["stack_margin"] == "fits"]
        meets = [sum(v == "fits" for v in r.verdicts.values()) for r in fits]
        if fits and purpose not in ("hunting", "woods"):
            assert sum(v == "fits" for v in named.verdicts.values()) == max(meets)
    for school in found.schools:
        said = school.gives_up.text() if school.gives_up else ""
        assert not any(word in said for word in ("faster", "wider", "more before", "as fast"))


def test_a_25_in_riser_makes_66_68_and_70() -> None:
    """Trade convention of target take-downs."""
    assert [25 + beyond for beyond in schools.LIMBS_OVER_RISER_IN.values()] == [66, 68, 70]


@pytest.mark.parametrize(("purpose", "end"), [
    ("hunting", SchoolsAsked(66, 68)), ("indoor", SchoolsAsked(68, 70)),
    ("backyard", SchoolsAsked(66, 70)),
    (None, SchoolsAsked(66, 70)),
])  # fmt: skip
def test_range_by_draw_takes_the_end_that_suits_the_purpose(
    purpose: str, end: SchoolsAsked
) -> None:
    assert schools.range_by_draw("straight_longbow", 28.0, purpose) == end  # type: ignore[arg-type]


def test_schools_are_silent_where_they_have_nothing_to_say() -> None:
    assert schools.ladder("selfbow", 28) is None
    assert schools.limb_first("straight_longbow", 28, "woods") is None
    found = board("selfbow")
    verdicts = row(found, 66).verdicts
    assert verdicts["ladder"] == verdicts["limb_first"] == "silent"
    assert any("Does not speak" in school.says.text() for school in found.schools)


def test_thirteen_lengths_are_judged() -> None:
    found = board("hunting_recurve")
    assert [round(r.bow_length_mm / IN) for r in found.rows] == list(range(48, 73, 2))


def test_margin_and_angle_grow_with_length_within_the_family() -> None:
    rows = [r for r in board("reflex_deflex_longbow").rows if not r.outside_family]
    assert all((b.margin_mm or 0) > (a.margin_mm or 0) for a, b in pairwise(rows))
    assert all((b.finger_angle_deg or 0) > (a.finger_angle_deg or 0) for a, b in pairwise(rows))


def test_the_preferred_length_is_the_shortest_with_margin_and_without_pinch() -> None:
    found = board("hunting_recurve", purpose="field")
    assert found.best_mm is not None
    best = row(found, found.best_mm / IN)
    shorter = row(found, found.best_mm / IN - 2)
    assert best.margin_mm is not None
    assert shorter.margin_mm is not None
    assert best.margin_mm >= 1.5 * IN
    if shorter.margin_mm >= 1.5 * IN and not shorter.pinches:
        agree, less = (
            sum(verdict == "fits" for verdict in one.verdicts.values()) for one in (best, shorter)
        )
        assert agree > less, "a longer one is named only where more schools meet"


def test_a_hunter_may_take_a_shorter_bow_than_a_field_archer() -> None:
    lengths = [board("hunting_recurve", purpose=p).best_mm or 0 for p in ("hunting", "field")]
    assert lengths[0] < lengths[1]


def test_three_under_wants_more_length_than_a_thumb_ring() -> None:
    lengths = [board("hunting_recurve", hold=h, purpose="hunting", draw_mm=29 * IN).best_mm or 0
               for h in ("thumb", "three_under")]  # fmt: skip
    assert lengths[0] < lengths[1]


def test_disagreement_says_what_each_school_would_cost() -> None:
    found = board("target_recurve", hold="three_under", purpose="field", draw_mm=30 * IN)
    assert not found.agree
    assert "disagree" in found.summary.text()
    told = [school.gives_up.text() for school in found.schools if school.gives_up]
    assert told
    assert all(text.startswith("At ") for text in told)


def test_agreement_is_said_plainly() -> None:
    found = board("reflex_deflex_longbow", hold="three_under")
    assert found.agree
    assert found.summary.text().startswith("All schools")


def test_a_draw_too_long_for_a_short_bow_says_why_nothing_is_computed() -> None:
    found = row(board("straight_longbow", draw_mm=33.5 * IN), 48)
    assert found.missing is not None
    assert found.speed_mps is None
    assert found.verdicts["stack_margin"] == "no"


def test_a_draw_beyond_what_is_computed_is_not_blamed_on_the_limbs() -> None:
    found = row(board("reflex_deflex_longbow", draw_mm=36 * IN), 72)
    assert found.missing is not None
    assert found.missing.text().startswith("This draw is beyond what bows are computed to.")


def test_a_length_the_family_is_not_made_in_is_marked() -> None:
    found = board("large_rigid_tip")
    assert row(found, 70).outside_family
    assert not row(found, 58).outside_family


def test_the_mark_to_ask_for_is_the_same_as_the_rules() -> None:
    """One law in two places: the board's figure against the inverse used by the finding."""
    said = ("family hunting recurve", "bow 60", "riser 17", "brace 7 3/4")
    expected = mark_to_ask_for(
        40.0, Estimate(28 * IN + 14.0, 0.0), likeness_of(fold(entries(*said)).bow, 7.75 * IN)
    )
    assert row(board("hunting_recurve"), 60).mark_lbf == pytest.approx(expected.value, rel=2e-3)


def test_take_downs_come_with_risers_and_limbs() -> None:
    found = board("hunting_recurve")
    made = {(round(c.riser_mm / IN), c.limbs): round(c.bow_length_mm / IN) for c in
            found.combinations}  # fmt: skip
    assert made[17, "short"] == 58
    assert made[17, "medium"] == 60
    assert made[19, "long"] == 64
    assert [c.limbs for c in found.combinations if c.asked] == ["medium"] * 3
    assert board("selfbow").combinations == ()


def test_the_archers_own_riser_and_brace_go_into_bows_of_its_kind() -> None:
    said = ("draw 28", "hook 1/2", "family hunting recurve", "bow 62", "riser 19", "brace 8 1/2")
    found = compute(fold(entries(*said, "mark 40")))
    wish = wish_of(found, asked=Asking())
    own = row(choosing_board(wish, ("hunting_recurve",)).families[0], 62)
    assert own.margin_mm == pytest.approx(found.bow.stack_margin_mm.value, abs=1.0)  # type: ignore[union-attr]


def test_what_is_asked_goes_before_what_is_recorded() -> None:
    found = compute(fold(entries("draw 28", "hold three under", "purpose field", "wish 38")))
    as_recorded = wish_of(found, asked=Asking())
    assert (as_recorded.hold, as_recorded.purpose, as_recorded.hold_lbf) == (
        "three_under", "field", 38.0,
    )  # fmt: skip
    tried = wish_of(found, asked=Asking(draw_mm=30 * IN, hold="thumb", hold_lbf=50.0))
    assert (tried.draw_mm, tried.hold, tried.hold_lbf) == (762.0, "thumb", 50.0)
    assert tried.hook_mm > as_recorded.hook_mm


def test_without_a_draw_the_board_asks_for_one() -> None:
    with pytest.raises(DomainError, match="No draw length"):
        wish_of(compute(fold(entries("bow 62"))), asked=Asking())


@pytest.mark.parametrize(("said", "first"), [
    ((), "straight_longbow"), (("family selfbow",), "selfbow"),
    (("hold thumb",), "short_rigid_tip"),
])  # fmt: skip
def test_the_archers_own_kind_is_compared_first(said: tuple[str, ...], first: str) -> None:
    families = families_for(compute(fold(entries(*said))))
    assert families[0] == first
    assert len(set(families)) == 4


SIXTEENTH = IN / 16
OWN = {
    "hunting": ("family hunting recurve", "bow 60", "riser 17", "brace 8"),
    "target": ("family target recurve", "bow 68", "riser 25", "brace 8 3/4"),
    "target with fades": ("family target recurve", "bow 68", "riser 27", "brace 9"),
    "longbow": ("family straight longbow", "bow 68", "brace 6 1/2"),
    "one piece": ("family reflex deflex", "bow 62"),
}
SHOWN = {
    "nothing shown": ("mark 40",),
    "felt": ("mark 40", "stack 28 1/2"),
    "weighed": (
        "scale 22 @ 22",
        "scale 27 @ 24",
        "scale 33 @ 26",
        "scale 40 @ 28",
        "scale 50 @ 29",
    ),
}


@pytest.mark.parametrize("own", OWN)
@pytest.mark.parametrize("shown", SHOWN)
def test_bench_row_and_combination_say_one_margin(own: str, shown: str) -> None:
    c = compute(fold(entries("draw 27", "hold split", "hook 1/2", *OWN[own], *SHOWN[shown])))
    margin = c.bow.stack_margin_mm
    assert margin is not None
    family = c.bow.likeness.shape.family
    found = choosing_board(wish_of(c, asked=Asking()), (family,)).families[0]
    mine = row(found, c.bow.likeness.shape.bow_length_mm / IN)
    assert mine.margin_mm == pytest.approx(margin.value, abs=SIXTEENTH)
    told = [
        one for one in found.combinations
        if abs(one.bow_length_mm - mine.bow_length_mm) < 0.1
        and abs(one.riser_mm - c.bow.likeness.shape.riser_length_mm) <= 2 * IN + 0.1
        and one.riser_mm <= c.bow.likeness.shape.riser_length_mm + 0.1
        and "riser" not in c.bow.likeness.assumed
    ]  # fmt: skip
    if own in ("hunting", "target", "target with fades"):
        assert any(one.margin_mm == pytest.approx(margin.value, abs=SIXTEENTH) for one in told), [
            (one.riser_mm / IN, one.margin_mm) for one in told
        ]


def test_what_the_scale_shows_of_stack_moves_every_row_of_the_kind() -> None:
    said = ("draw 27", "hold split", "hook 1/2", *OWN["hunting"])
    plain, felt = (
        choosing_board(
            wish_of(compute(fold(entries(*said, *more))), asked=Asking()),
            ("hunting_recurve", "straight_longbow"),
        ).families
        for more in (("mark 40",), ("mark 40", "stack 28 1/2"))
    )
    moved = {
        round((b.margin_mm or 0) - (a.margin_mm or 0), 1)
        for a, b in zip(plain[0].rows, felt[0].rows, strict=True)
        if a.margin_mm is not None and not a.margin_is_least
    }
    assert len(moved) == 1
    assert moved != {0.0}
    assert [r.margin_mm for r in plain[1].rows] == [r.margin_mm for r in felt[1].rows]


def test_rows_and_risers_reach_what_people_ask_for() -> None:
    """Traditional bows to 72 in; target risers of 23, 25 and 27 in."""
    for family in ("straight_longbow", "reflex_deflex_longbow", "hunting_recurve"):
        assert not row(board(family), 72).outside_family
    risers = {round(one.riser_mm / IN) for one in board("target_recurve").combinations}
    assert {23, 25, 27} <= risers


@pytest.mark.parametrize(
    ("said", "long", "left"),
    [
        ("draw 27 to 28", 28.66, True),
        ("draw said 27 1/2", 28.5, True),
        ("draw 27 1/2", 27.5, False),
    ],
)
def test_a_draw_told_as_a_span_is_judged_at_its_long_end_too(
    said: str, long: float, left: bool
) -> None:
    c = compute(fold(entries(said, "hold split", "purpose field")))
    wish = wish_of(c, asked=Asking())
    found = choosing_board(wish, ("target_recurve",)).families[0]
    assert ("the long end" in found.summary.text()) == left
    if left:
        assert (wish.draw_mm + wish.draw_plus_minus_mm) / IN == pytest.approx(long, abs=0.02)
    # a draw that is typed to be tried is taken as it stands
    tried = wish_of(c, asked=Asking(draw_mm=28 * IN))
    assert tried.draw_plus_minus_mm == 0


@pytest.mark.parametrize(("purpose", "least"), [("course", 1.5), ("woods", 0.0), ("field", 1.5)])
def test_a_course_wants_an_inch_and_a_half_in_hand(purpose: str, least: float) -> None:
    found = board("hunting_recurve", purpose=purpose)
    fits = [r for r in found.rows if r.verdicts["stack_margin"] == "fits"]
    assert fits
    assert all((r.margin_mm or 0) / IN >= least for r in fits)


def test_shorter_is_faster_is_shown_as_a_disagreement() -> None:
    said = board("hunting_recurve").speed_says
    assert said is not None
    assert said.text().startswith("The trade says shorter is faster. Computed at one weight held,")
    speeds = [r.speed_mps or 0.0 for r in board("hunting_recurve").rows if (r.margin_mm or -1) >= 0]
    apart = (max(speeds) - min(speeds)) / 0.3048
    assert apart < 0.05 * max(speeds) / 0.3048, "within its own ±"
    assert f"equal within {apart:.0f} fps" in said.text()
    assert board("hunting_recurve", draw_mm=38 * IN).speed_says is None


@pytest.mark.parametrize("family", ["hunting_recurve", "target_recurve", "selfbow"])
def test_what_has_no_room_is_said_of_lengths_that_were_computed(family: str) -> None:
    for draw in (34, 36, 38):
        found = board(family, draw_mm=draw * IN, purpose="indoor")
        if found.best_mm is not None:
            continue
        computed = [r.bow_length_mm / IN for r in found.rows if r.margin_mm is not None]
        text = found.summary.text()
        if computed:
            assert f"from {computed[0]:.0f} in to {computed[-1]:.0f} in" in text
        else:
            assert "can be computed" in text
