"""Findings on the bow: draw, stack, angle, length, condition, by table."""

import pytest

from lyrandis.core import entries as e
from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.bow.inspection import SEVERITY, looked_over
from lyrandis.core.bow.likeness import usual_shape
from lyrandis.core.bow.limbs import mismatch_of
from lyrandis.core.bow.readings import Inspected, LimbPair
from lyrandis.core.bow.two_limbs import drawn_off_middle
from lyrandis.core.bow.words import InspectionItem
from lyrandis.core.computed import compute
from lyrandis.core.errors import DomainError
from lyrandis.core.judgement import Finding
from lyrandis.core.reading import BaseReading
from lyrandis.core.setup import fold
from tests.entries import draft, drawn, entries

IN = 25.4
RECURVE = ("family hunting recurve", "bow 58", "riser 15", "brace 7 3/4", "mark 45", "hook 0")
"""Stacks from 28.95 in by the reference table."""


def judged(*said: str | BaseReading | e.EntryDraft) -> Assessment:
    return assess(fold(entries(*said)))


def finding(found: Assessment, wanted: str) -> Finding | None:
    return next((f for f in found.findings if f.id == wanted), None)


def severity(found: Assessment, wanted: str) -> str | None:
    one = finding(found, wanted)
    return one.severity if one else None


@pytest.mark.parametrize(("draw", "expected"), [
    ("draw 27", "good"), ("draw 28 3/4", "good"), ("draw 29 1/4", "watch"),
    ("draw 30", "mend"), ("draw 31 1/4", "stop"),
])  # fmt: skip
def test_stack_is_judged_by_how_far_past_its_onset(draw: str, expected: str) -> None:
    assert severity(judged(draw, *RECURVE, "purpose hunting"), "stack-margin") == expected


def test_a_field_bow_wants_more_in_hand_than_a_hunting_bow() -> None:
    near = ("draw 28 1/4", *RECURVE)
    assert severity(judged(*near, "purpose hunting"), "stack-margin") == "good"
    field = finding(judged(*near, "purpose field"), "stack-margin")
    assert field is not None
    assert field.severity == "watch"
    assert "1 1/2 in" in field.sentence.text()


def test_a_stop_for_stack_cannot_be_missed() -> None:
    found = judged("draw 31 1/2", *RECURVE)
    assert found.findings[0].severity == "stop"
    assert found.findings[0].title == "Drawn far into stack"
    assert found.next_step.title.text() == "Compare bow lengths"
    assert found.next_step.action.control == "board"


def test_a_draw_no_limb_survives_is_a_stop() -> None:
    said = ("family straight longbow", "bow 50", "mark 40", "hook 0", "draw 34")
    one = finding(judged(*said), "stack-margin")
    assert one is not None
    assert one.severity == "stop"


@pytest.mark.parametrize(("hold", "draw", "expected"), [
    ("hold three under", "draw 28", "good"), ("hold three under", "draw 29", "watch"),
    ("hold one over two under", "draw 29", "good"), ("hold thumb", "draw 31", "good"),
])  # fmt: skip
def test_a_sharp_string_pinches_three_under_first(hold: str, draw: str, expected: str) -> None:
    assert severity(judged(hold, draw, *RECURVE), "finger-angle") == expected


def test_a_bow_too_long_says_what_it_costs_and_gains() -> None:
    said = ("draw 24", "hook 0", "family straight longbow", "mark 40", "arrow 400gr")
    one = finding(judged(*said, "bow 74"), "bow-long")
    assert one is not None
    assert one.severity == "watch"
    text = one.sentence.text()
    assert "J more" in text
    assert "shoots as fast" in text
    assert "faster" not in text
    assert finding(judged("draw 27", *said[1:], "bow 66"), "bow-long") is None, "a joule is no cost"
    assert finding(judged("draw 28", *RECURVE), "bow-long") is None


@pytest.mark.parametrize(("limit", "expected"), [
    ("limit 30", None), ("limit 28 1/4", "watch"), ("limit 27 15/16", "mend"),
    ("limit 26 1/2", "stop"),
])  # fmt: skip
def test_the_makers_limit_decides(limit: str, expected: str | None) -> None:
    assert severity(judged("draw 28", *RECURVE, limit), "past-draw-limit") == expected


@pytest.mark.parametrize(("said", "control"), [
    (("bow 58", "riser 29 1/2", "brace 7"), None),
    (("bow 36in", "riser 30"), "bow"),
    (("family straight longbow", "bow 40in", "riser 20", "brace 8 3/4"), "brace"),
    (("family large rigid tip", "bow 40in"), "bow"),
])  # fmt: skip
def test_an_impossible_shape_is_named_and_nothing_is_lost(
    said: tuple[str, ...], control: str | None
) -> None:
    found = judged("draw 28", "mark 40", "family hunting recurve", *said)
    one = finding(found, "bow-shape")
    assert found.stages[1].live.figure is not None
    if control is None:
        assert one is None
        return
    assert one is not None
    assert one.severity == "mend"
    assert one.action is not None
    assert one.action.control == control
    assert drawn("draw 28", "mark 40", "family hunting recurve", *said).bench.refused


def test_a_length_outside_the_family_is_said_to_be_indicative() -> None:
    one = finding(judged("draw 28", "family large rigid tip", "bow 64", "mark 40"), "bow-shape")
    assert one is not None
    assert one.severity == "watch"
    assert "indicative" in one.sentence.text()


def test_a_draw_that_hardly_leaves_brace_is_named() -> None:
    found = judged("draw 12in", "brace 9 1/2", "family hunting recurve", "bow 60", "mark 40")
    assert severity(found, "draw-at-rest") == "mend"
    assert found.stages[1].live.missing is not None


def test_weights_that_fall_with_draw_are_named() -> None:
    found = judged("draw 28", *RECURVE, "scale 44 @ 26", "scale 40 @ 28")
    one = finding(found, "weighed-point-off")
    assert one is not None
    assert one.action is not None
    assert one.action.control == "points"


def test_a_weighed_point_at_rest_is_named() -> None:
    said = ("draw 28", "family hunting recurve", "bow 58", "brace 9 1/2", "scale 3lb @ 12")
    assert severity(judged(*said, "scale 45 @ 28"), "weighed-at-rest") == "mend"


def test_a_lone_point_at_rest_is_named_and_the_mark_stands_in() -> None:
    said = ("draw 28", "family hunting recurve", "bow 58", "brace 9 1/2", "scale 3lb @ 12")
    alone, marked = judged(*said), judged(*said, "mark 45")
    assert severity(alone, "weighed-at-rest") == severity(marked, "weighed-at-rest") == "mend"
    assert alone.stages[1].live.figure is None
    assert marked.stages[1].live.figure is not None
    assert marked.stages[1].mark == "estimated"


def test_a_draw_beyond_what_is_computed_is_said_to_be() -> None:
    said = ("family reflex deflex", "bow 76", "mark 40", "hook 0", "draw 36in")
    one = finding(judged(*said), "stack-margin")
    assert one is not None
    assert one.severity == "watch"
    assert "beyond the 35 in" in one.sentence.text()


def test_weighing_at_the_groove_is_explained_with_its_pounds() -> None:
    said = ("draw 28", "hook 3/4", *RECURVE[:-1], "scale 45 @ 28 groove")
    one = finding(judged(*said), "groove-or-hook")
    assert one is not None
    assert "3/4" in one.sentence.text()
    light = one.sentence.figures["light"].value
    assert light == pytest.approx(0.75 * 2.5, abs=0.2)


def test_the_hook_follows_the_strings_angle_where_nobody_measured() -> None:
    """e tan(gamma): deeper on a short bow with a sharp string than on a long one."""
    hooks = []
    for bow in ("bow 52", "bow 64"):
        found = judged("draw 28", "hold three under", "family hunting recurve", bow, "mark 40")
        value = next(v for v in found.stages[0].values if v.key == "hook_depth")
        assert value.figure is not None
        hooks.append(value.figure.value)
    assert hooks[0] > 1.15 * hooks[1]
    assert 0.3 * IN < hooks[1] < 0.9 * IN


@pytest.mark.parametrize(("pair", "share", "expected"), [
    (LimbPair(upper_lbf=40, lower_lbf=41), 0.025, "good"),
    (LimbPair(upper_lbf=38, lower_lbf=40), 0.051, "watch"),
    (LimbPair(pair="two_bottoms"), 0.05, "watch"),
    (LimbPair(upper_lbf=38, lower_lbf=42), 0.10, "mend"),
    (LimbPair(pair="two_bottoms", upper_lbf=38, lower_lbf=42), 0.15, "mend"),
    (LimbPair(upper_length_mm=508, lower_length_mm=533.4), 0.146, "mend"),
    (LimbPair(upper_lbf=30, lower_lbf=40), 0.286, "stop"),
])  # fmt: skip
def test_limbs_are_judged_by_how_far_apart_they_are(
    pair: LimbPair, share: float, expected: str
) -> None:
    assert abs(mismatch_of(pair).share) == pytest.approx(share, abs=0.002)
    assert severity(judged("draw 28", draft(pair)), "limb-pair") == expected


def test_a_shorter_limb_of_the_same_mark_is_the_stiffer() -> None:
    found = mismatch_of(LimbPair(upper_length_mm=500, lower_length_mm=520))
    assert found.stiffer == "upper"
    assert mismatch_of(LimbPair(upper_lbf=38, lower_lbf=42)).stiffer == "lower"


@pytest.mark.parametrize(
    ("marks", "way", "nock"),
    [((38, 42), "up", "a lower nock"), ((42, 38), "down", "a higher nock")],
)
def test_the_nock_travels_toward_the_weaker_limb(
    marks: tuple[int, int], way: str, nock: str
) -> None:
    """As two elastic limbs on one string have it: drawn, the hook stands by the stiffer limb."""
    upper, lower = marks
    assert mismatch_of(LimbPair(upper_lbf=upper, lower_lbf=lower)).nock_travels == way
    shape = usual_shape("hunting_recurve", 60 * 25.4)
    places = [
        drawn_off_middle(shape, draw, 0.0, ratio=lower / upper)
        for draw in (shape.brace_height_mm + 10, 26.25 * 25.4)
    ]
    rest, drawn = (place.hook[1] for place in places if place is not None)
    assert ("up" if rest > drawn else "down") == way
    found = next(
        f for f in judged("draw 28", f"limbs {upper - 1} {lower - 1}").findings
        if f.id == "limb-pair"
    )  # fmt: skip
    assert f"the nock travels {way}" in found.sentence.text()
    lines = [line.text() for line in found.sum]
    assert any("hold about 39" in line and "2.0 lb less" in line for line in lines)
    assert "Swapped end for end, the nock travels the other way by as much." in lines
    near = judged("draw 28", "limbs 39 41" if way == "up" else "limbs 41 39")
    assert nock in next(f.sentence.text() for f in near.findings if f.id == "limb-pair")


def test_of_two_of_a_kind_nobody_knows_which_way() -> None:
    assert mismatch_of(LimbPair(pair="two_bottoms")).nock_travels is None


def test_what_is_told_of_the_limbs_adds_up() -> None:
    """Marks, lengths and kind each stay until they are told anew."""
    setup = fold(entries("limbs 38 42", "limbs two bottoms", "limbs 20 20 length", "limbs 38 40"))
    assert setup.bow.limb_pair is not None
    told = setup.bow.limb_pair.reading
    assert (told.pair, told.upper_lbf, told.lower_lbf) == ("two_bottoms", 38.0, 40.0)
    assert told.upper_length_mm == pytest.approx(508.0)
    assert LimbPair(pair="matched").topics() == {"limb_pair:pair"}


def test_half_a_pair_is_refused() -> None:
    with pytest.raises(ValueError, match="Only one limb"):
        LimbPair(upper_lbf=40)


@pytest.mark.parametrize("item", SEVERITY)
def test_a_failing_item_is_judged_until_it_is_cleared(item: InspectionItem) -> None:
    failing = draft(Inspected(failing=(item,)), days=1)
    cleared = draft(Inspected(good=(item,)), days=2)
    assert severity(judged(failing), "inspection") == SEVERITY[item]
    assert severity(judged(failing, cleared), "inspection") == "good"
    assert (
        severity(judged(cleared, draft(Inspected(failing=(item,)), days=3)), "inspection")
        == (SEVERITY[item])
    )


def test_another_items_look_over_does_not_clear_a_failing_one() -> None:
    found = judged("inspect bad crazing", "inspect good string")
    assert severity(found, "inspection") == "stop"
    assert found.next_step.finding == "inspection"
    assert "crazed" in found.may_shoot.because[0].text()


def test_the_last_look_at_each_item_stands() -> None:
    setup = fold(entries("inspect all good", "inspect bad tips"))
    found = looked_over(setup.bow.inspections)
    assert len(found) == len(SEVERITY)
    assert [item for item, looked in found.items() if not looked.good] == ["tips"]


@pytest.mark.parametrize(("good", "failing"), [((), ()), (("tips",), ("tips",))])
def test_an_empty_or_contradicting_look_over_is_refused(
    good: tuple[InspectionItem, ...], failing: tuple[InspectionItem, ...]
) -> None:
    with pytest.raises((DomainError, ValueError)):
        Inspected(good=good, failing=failing)


def test_two_look_overs_settle_only_their_own_items() -> None:
    one, other = Inspected(good=("tips",)), Inspected(failing=("string",))
    assert one.topics() == {"inspected:tips"}
    assert not one.topics() & other.topics()


def test_a_speed_that_breaks_energy_is_named_and_explained() -> None:
    said = ("draw 28", *RECURVE, "arrow 1 420gr", "speed 300fps")
    one = finding(judged(*said), "speed-impossible")
    assert one is not None
    assert one.severity == "mend"
    assert "stores" in one.sentence.text()


def test_a_believable_speed_is_told_before_and_after() -> None:
    one = finding(judged("draw 28", *RECURVE, "arrow 1 420gr", "speed 180fps"), "chronograph")
    assert one is not None
    assert {"before", "after"} <= set(one.sentence.figures)
    before, after = one.sentence.figures["before"], one.sentence.figures["after"]
    assert (after.plus_minus or 0) < (before.plus_minus or 0)


@pytest.mark.parametrize(("said", "floor"), [
    (("family selfbow", "bow 66"), 9.0),
    (("family straight longbow", "bow 66"), 9.5),
    (("family target recurve", "bow 62"), 6.5),
    (("family target recurve", "bow 68"), 6.8),
    (("family long rigid tip", "bow 54"), 11.3),
    (("family hunting recurve", "bow 60", "floor 8 gpp"), 8.0),
])  # fmt: skip
def test_the_floor_is_computed_inside_the_trades_band(said: tuple[str, ...], floor: float) -> None:
    rig = ("draw 28", "hook 0", "scale 45 @ 28", *said)
    found = drawn(*rig, "arrow 500gr").floor
    assert found.floor == pytest.approx(floor, abs=0.1)
    bowyer = found.floor_basis == "bowyer"
    steps = [(found.floor + 0.05, "good"), (found.floor - 0.15, "mend" if bowyer else "watch"),
             (found.floor - 0.65, "stop" if bowyer else "watch"),
             (found.stop_below - 0.25, "stop")]  # fmt: skip
    for gpp, expected in steps:
        mass = gpp * (found.weight_lbf or 0)
        assert severity(judged(*rig, f"arrow {mass:.2f}gr"), "arrow-floor") == expected


def test_under_six_grains_nothing_is_good_whoever_allows_it() -> None:
    rig = ("draw 28", "hook 0", "scale 40 @ 28", "family target recurve", "bow 68", "floor 5 gpp")
    for mass, expected in (("236gr", "watch"), ("244gr", "good"), ("196gr", "mend")):
        assert severity(judged(*rig, f"arrow {mass}"), "arrow-floor") == expected


def test_under_a_computed_floor_the_bowyer_is_asked_first() -> None:
    said = ("draw 28", "hook 0", "scale 45 @ 28", "family straight longbow", "bow 66",
            "arrow 400gr")  # fmt: skip
    one = finding(judged(*said), "arrow-floor")
    assert one is not None
    assert one.severity == "watch"
    assert "the bow keeps" in one.sentence.text()
    assert one.action is not None
    assert one.action.control == "floor"


@pytest.mark.parametrize("said", ["stack 27 1/2", "wall 27 1/2", "it stacks at 27 1/2"])
def test_a_felt_wall_goes_before_every_curve(said: str) -> None:
    told = ("family hunting recurve", "bow 62", "draw 28", "hook 0", "scale 45 @ 28", said)
    c = compute(fold(entries(*told)))
    assert c.bow.stack.felt
    assert c.bow.stack_margin_mm is not None
    assert c.bow.stack_margin_mm.value == pytest.approx(-0.5 * 25.4, abs=0.1)
    finding = next(f for f in assess(fold(entries(*told))).findings if f.id == "stack-margin")
    assert finding.severity == "watch"
    assert "feel" in finding.sum[0].text()


def test_four_weighings_before_the_hook_show_where_it_stacks() -> None:
    told = ["family hunting recurve", "bow 62", "draw 28", "hook 0"]
    points = ["scale 34 @ 24", "scale 37 @ 25", "scale 40 @ 26", "scale 43 @ 27", "scale 49 @ 28"]
    few, many = (compute(fold(entries(*told, *said))) for said in (points[-3:], points))
    assert not few.bow.stack.read
    assert many.bow.stack.read
    assert many.bow.stack.onset_mm is not None
    assert few.bow.stack.onset_mm is not None
    assert many.bow.stack.onset_mm < few.bow.stack.onset_mm


@pytest.mark.parametrize("brace", [6.0, 6.5, 7.0, 8.0, 9.0])
def test_the_brace_read_today_does_not_move_the_limbs_stack(brace: float) -> None:
    """Any-rig 2: a hunting recurve 60 drawn 28 in has 1.07 in to spare at every brace."""
    told = ("family hunting recurve", "bow 60", "riser 17", "draw 28", "hook 0", f"brace {brace}")
    margin = compute(fold(entries(*told))).bow.stack_margin_mm
    assert margin is not None
    assert margin.value / 25.4 == pytest.approx(1.07, abs=0.35)
    usual = compute(fold(entries(*told[:-1]))).bow.stack_margin_mm
    assert usual is not None
    assert margin.value == pytest.approx(usual.value, abs=1e-6)


def test_a_kind_nobody_told_never_stops() -> None:
    far = ("bow 56", "draw 32", "hook 1")
    severity = {f.severity for f in assess(fold(entries(*far))).findings if f.id == "stack-margin"}
    assert severity == {"mend"}


@pytest.mark.parametrize("wrong", ["speed 135fps", "speed 205fps"])
def test_a_chronograph_far_off_on_either_side_waits_until_a_second_agrees(wrong: str) -> None:
    said = ("draw 28", *RECURVE, "scale 40 @ 28 1/2", "arrow 1 420gr")
    plain, one, two = (
        compute(fold(entries(*said, *more))) for more in ((), (wrong,), (wrong, wrong))
    )
    for c, used in ((one, 0), (two, 2)):
        assert c.bow.calibration is not None
        assert len(c.bow.calibration.used) == used
    assert one.bow.thrust is not None
    assert plain.bow.thrust is not None
    assert two.bow.thrust is not None
    assert one.bow.thrust.speed(420) == pytest.approx(plain.bow.thrust.speed(420))
    assert two.bow.thrust.speed(420) != pytest.approx(plain.bow.thrust.speed(420), rel=0.01)
    asked = finding(judged(*said, wrong), "speed-off")
    assert asked is not None
    assert "waits until a second agrees" in asked.sentence.text()
