"""What is said of spine, clearance and the quiver, by table; the schools, ways and trials."""

import math
from dataclasses import replace

import pytest

from lyrandis.core.arrow.judge_spine import LIGHT_BOW_LBF
from lyrandis.core.arrow.matched import match_of
from lyrandis.core.arrow.practice import Practice
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.arrow.show import shot_drawing
from lyrandis.core.arrow.spine_board import spine_board, why_apart
from lyrandis.core.arrow.taper_plan import TaperAsked, plan_taper
from lyrandis.core.arrow.trial import Tried, trial
from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.computed import Computed, compute
from lyrandis.core.errors import DomainError
from lyrandis.core.judgement import Finding
from lyrandis.core.setup import fold
from tests.entries import entries

BOW = (
    "hand right", "hold split", "draw 28", "hook 1/2", "family straight longbow", "bow 68",
    "brace 7", "scale 42 @ 28 1/2", "window 4mm", "string 64 16 strands", "floor 8 gpp",
)  # fmt: skip
WOOD = (
    "material wood", "shaft 29 3/4 11gpi", "diameter 8.8mm", "point 125", "insert 0",
    "arrownock 8", "fletching 30", "wrap 0", "arrow 1 490gr",
)  # fmt: skip
RIG = (*BOW, *WOOD)


def computed(*said: str) -> Computed:
    return compute(fold(entries(*said)))


def judged(*said: str) -> Assessment:
    return assess(fold(entries(*said)))


def finding(assessment: Assessment, name: str) -> Finding | None:
    return next((f for f in assessment.findings if f.id == name), None)


@pytest.fixture(scope="module", name="matched")
def matched_spine() -> float:
    match = computed(*RIG).match
    assert match is not None
    assert match.matched is not None
    return match.matched


# from the rig to the shot


TYPICAL = {
    "recurve": (
        ("family target recurve", "bow 66", "brace 8 1/4", "scale 45 @ 28", "window 2mm past",
         "diameter 7mm", "material carbon", "shaft 29 8gpi", "point 100", "insert 15",
         "arrownock 9", "fletching 18"), 62.5),
    "longbow": (
        ("family straight longbow", "bow 68", "brace 7", "scale 44.5 @ 28", "window 4.1mm",
         "diameter 8.8mm", "material wood", "shaft 29 3/4 11gpi", "point 125", "insert 0",
         "arrownock 8", "fletching 30"), 48.9),
    "wood bow": (
        ("family selfbow", "bow 66", "brace 6 1/2", "scale 43 @ 28", "window 2.7mm",
         "diameter 8.6mm", "material wood", "shaft 28 1/2 9.7gpi", "point 100", "insert 0",
         "arrownock 8", "fletching 30"), 42.5),
}  # fmt: skip


@pytest.mark.parametrize(("said", "matched"), TYPICAL.values(), ids=TYPICAL)
def test_a_typical_computed_bow_wants_what_the_reference_rig_does(
    said: tuple[str, ...], matched: float
) -> None:
    """The calibration: the bow's own curve leads to the reference within a tenth."""
    found = computed("draw 28", "hook 0", "string 60 16 strands", *said).match
    assert found is not None
    assert found.shot.matched == pytest.approx(matched, rel=0.06)


def test_a_chronograph_that_shows_a_slower_bow_wants_a_weaker_shaft() -> None:
    plain = computed(*RIG)
    slow = computed(*RIG, "speed 140 fps 490gr")
    assert plain.match is not None
    assert slow.match is not None
    assert plain.bow.thrust is not None
    assert slow.bow.thrust is not None
    share = slow.bow.thrust.speed(490) / plain.bow.thrust.speed(490)
    assert share < 0.97
    assert slow.match.shot.exit_speed / plain.match.shot.exit_speed == pytest.approx(
        share, rel=0.003
    )
    assert slow.match.matched < plain.match.matched  # type: ignore[operator]


def test_the_drawing_and_the_sum_say_the_bows_own_speed() -> None:
    c = computed(*RIG, "spine 49 lb")
    assert c.arrow.shooting is not None
    assert c.bow.thrust is not None
    assert c.arrow.shooting.speed_mps == pytest.approx(c.bow.thrust.speed(c.arrow.sheet.mass_gr))
    assert trial(c, Tried()).now.speed_mps == pytest.approx(c.arrow.shooting.speed_mps)


def test_the_arrow_lies_at_window_less_track_and_half_a_shaft() -> None:
    plain, tracked = computed(*RIG), computed(*RIG, "track 3mm")
    assert plain.arrow.shooting is not None
    assert tracked.arrow.shooting is not None
    assert plain.arrow.shooting.side.offset_mm == pytest.approx(4 + 4.4)
    assert tracked.arrow.shooting.side.offset_mm == pytest.approx(4 - 3 + 4.4)
    assert plain.match is not None
    assert tracked.match is not None
    assert tracked.match.matched > plain.match.matched  # type: ignore[operator]


def test_what_is_not_told_is_assumed_and_named() -> None:
    c = computed("draw 28", "mark 45")
    assert c.arrow.shooting is not None
    assert set(c.arrow.shooting.assumed) == {
        "length", "parts", "diameter", "string", "window", "brace",
    }  # fmt: skip
    full = computed(*RIG)
    assert full.arrow.shooting is not None
    assert full.arrow.shooting.assumed == ()


@pytest.mark.parametrize(
    ("hand", "hold", "left"),
    [("right", "split", True), ("left", "split", False), ("right", "thumb", False),
     ("left", "thumb", True)],
)  # fmt: skip
def test_the_arrow_lies_on_the_side_hand_and_hold_put_it(hand: str, hold: str, left: bool) -> None:
    setup = fold(entries(*RIG, f"hand {hand}", f"hold {hold}"))
    assert outward_is_left(setup.archer) is left


def test_no_shot_before_draw_and_weight_or_at_a_draw_past_nothing() -> None:
    assert computed("draw 28").arrow.shooting is None
    assert computed("mark 45").arrow.shooting is None
    assert computed("draw 12in", "mark 45 @ 28", "brace 9").arrow.shooting is None


def test_the_same_rig_gives_the_same_shot_and_far_readings_another() -> None:
    first, again = computed(*RIG), computed(*RIG, "note new tab")
    assert first.arrow.shooting is not None
    assert again.arrow.shooting is not None
    assert first.arrow.shooting.shot == again.arrow.shooting.shot
    other = computed(*RIG, "brace 7 1/2")
    assert other.arrow.shooting is not None
    assert other.arrow.shooting.shot != first.arrow.shooting.shot


# findings


@pytest.mark.parametrize(
    ("share", "severity", "words"),
    [
        (0.45, "stop", "can break on the string"),
        (0.60, "mend", "far too weak"),
        (0.72, "mend", "too weak"),
        (0.75, "watch", "too weak"),
        (0.86, "watch", "too weak"),
        (1.0, "good", "match"),
        (1.2, "watch", "too stiff"),
        (1.35, "watch", "too stiff"),
        (1.45, "mend", "too stiff"),
    ],
)
def test_spine_is_judged_by_its_share_of_the_match(
    matched: float, share: float, severity: str, words: str
) -> None:
    said = finding(judged(*RIG, f"spine {share * matched:.1f} lb"), "spine-match")
    assert said is not None
    assert said.severity == severity
    assert words in said.sentence.text()
    assert (said.action is None) == (severity == "good")
    if share < 0.62:
        assert "%" not in said.sentence.text()


def test_the_sum_of_the_match_has_its_figures(matched: float) -> None:
    said = finding(judged(*RIG, f"spine {1.3 * matched:.1f} lb"), "spine-match")
    assert said is not None
    text = " ".join(line.text() for line in said.sum)
    assert "Practice wants" in text
    assert "The mechanics want" in text
    assert "Index 10 ln(" in text
    assert "+2.6" in text
    assert "window 4.0 ± 1.0 mm" in text


def test_a_tail_that_slaps_is_said_with_its_falsehood(matched: float) -> None:
    said = finding(judged(*RIG, f"spine {2.3 * matched:.0f} lb"), "spine-clearance")
    assert said is not None
    assert said.severity == "mend"
    assert "false" in said.sentence.text()
    assert "fletching stands out further" in " ".join(line.text() for line in said.sum)
    clear = finding(judged(*RIG, f"spine {matched:.0f} lb"), "spine-clearance")
    assert clear is not None
    assert clear.severity == "good"


def test_light_and_weak_together_is_refused(matched: float) -> None:
    light = (*RIG, "floor 11.8 gpp")
    weak = judged(*light, f"spine {0.75 * matched:.1f} lb")
    stop = finding(weak, "spine-and-mass")
    assert stop is not None
    assert stop.severity == "stop"
    assert finding(judged(*light, f"spine {matched:.1f} lb"), "spine-and-mass") is None
    assert finding(judged(*RIG, f"spine {0.75 * matched:.1f} lb"), "spine-and-mass") is None


def test_a_shaft_without_a_point_is_a_practice_and_no_error(matched: float) -> None:
    said = judged(*RIG, "point 0", "arrow 1 365gr", f"spine {1.8 * matched:.0f} lb")
    assert finding(said, "spine-match") is None
    practice = finding(said, "spine-practice")
    assert practice is not None
    assert practice.severity == "watch"
    assert "clear backstop" in practice.sentence.text()


def test_a_far_stiffer_shaft_is_fine_where_the_string_tracks_its_side(matched: float) -> None:
    said = f"spine {1.25 * matched:.1f} lb"
    plain = finding(judged(*RIG, said), "spine-match")
    tracked = finding(judged(*RIG, said, "track 10mm"), "spine-match")
    assert plain is not None
    assert tracked is not None
    assert (plain.severity, tracked.severity) == ("watch", "good")


@pytest.mark.parametrize(
    ("track", "severity", "words"),
    [
        ("0.5mm", None, ""),
        ("3mm", "good", "it passes the plate 1.0 mm off it, not 4.0 mm"),
        ("2mm away", "watch", "turn the bow over if it is symmetrical"),
    ],
)
def test_a_string_that_runs_to_one_side_is_said(
    track: str, severity: str | None, words: str
) -> None:
    found = finding(judged(*RIG, f"track {track}"), "spine-track")
    if severity is None:
        assert found is None
    else:
        assert found is not None
        assert found.severity == severity
        assert words in found.sentence.text()


def test_parts_and_scale_that_cannot_be_one_arrow_are_questioned() -> None:
    said = finding(judged(*RIG, "arrow 1 1100gr"), "arrow-parts")
    assert said is not None
    assert said.severity == "mend"
    assert "cannot be the same arrow" in said.sentence.text()


def test_a_cracked_arrow_stops_until_it_is_retired() -> None:
    assessment = judged(*RIG, "arrow 2 488gr", "arrow 2 cracked")
    stop = finding(assessment, "arrow-cracked")
    assert stop is not None
    assert stop.severity == "stop"
    assert "Break it in two" in stop.sentence.text()
    assert stop.title == "A cracked arrow"
    assert assessment.next_step.finding == stop.id
    assert assessment.next_step.action.control == "quiver"
    assert finding(judged(*RIG, "arrow 2 cracked", "arrow 2 retired"), "arrow-cracked") is None


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ((), "Arrow 1 is not flexed"),
        (("arrow 2 480gr",), "None of the 2 numbered arrows is"),
        (("arrow 2 480gr", "arrow 1 sound"), "Arrow 2 is not"),
        (("arrow 1 sound",), None),
    ],
)
def test_arrows_nobody_looked_at_are_watched(said: tuple[str, ...], words: str | None) -> None:
    found = finding(judged(*RIG, *said), "arrow-not-looked")
    if words is None:
        assert found is None
    else:
        assert found is not None
        assert words in found.sentence.text()


@pytest.mark.parametrize(
    ("spines", "severity"), [((50, 51), "good"), ((50, 54), "watch"), ((45, 54), "mend")]
)
def test_a_set_of_one_spine(spines: tuple[int, int], severity: str) -> None:
    said = (f"arrow 1 spine {spines[0]}lb", f"arrow 2 spine {spines[1]}lb")
    found = finding(judged(*RIG, *said), "spine-spread")
    assert found is not None
    assert found.severity == severity


def test_a_crooked_arrow_is_watched() -> None:
    found = finding(judged(*RIG, "arrow 1 straight 1.2mm"), "arrow-straight")
    assert found is not None
    assert "Arrow 1 is crooked" in found.sentence.text()


def test_the_next_step_asks_for_spine_and_window() -> None:
    untold = [said for said in RIG if not said.startswith("window")]
    untold += ["arrow 1 sound", "lift 10mm"]
    asked = judged(*untold, "inspect all good", "limit 31", "scale 36 @ 25", "scale 30 @ 22")
    assert asked.next_step.action.control == "spine"
    told = judged(
        *untold, "inspect all good", "limit 31", "scale 36 @ 25", "scale 30 @ 22", "spine 49lb",
        "window 4mm",
    )  # fmt: skip
    assert told.next_step.action.control not in ("spine", "window")


# schools


def practice(*said: str) -> Practice:
    match = computed(*RIG, *said).match
    assert match is not None
    return match.practice


@pytest.mark.parametrize(
    ("said", "factor"),
    [
        (("shaft 30 3/4 11gpi",), math.exp(0.06)),
        (("point 150",), 1.06),
        (("fibre low stretch",), math.exp(0.07)),
        (("brace 8",), math.exp(0.04)),
        (("window 1mm",), math.exp(0.06)),
        (("window 0mm",), math.exp(0.06)),
        (("window 3mm past",), math.exp(0.06 + 0.09)),
        (("hold thumb",), math.exp(-0.10)),
    ],
)
def test_practice_by_table(said: tuple[str, ...], factor: float) -> None:
    """Each factor by itself, against the rig as it stands."""
    assert practice(*said).wants / practice().wants == pytest.approx(factor, rel=0.01)


def weighing(weight: int) -> Practice:
    rig = [f"scale {weight} @ 28 1/2" if one.startswith("scale") else one for one in RIG]
    match = computed(*rig).match
    assert match is not None
    return match.practice


def test_practice_grows_with_the_weight_to_the_two_thirds() -> None:
    assert weighing(63).wants / weighing(42).wants == pytest.approx(1.5 ** (2 / 3), rel=0.005)


@pytest.mark.parametrize(("weight", "wider"), [(20, 0.05), (26, 0.0), (69, 0.0), (80, 0.10)])
def test_practice_is_vaguer_beyond_the_weights_it_was_fitted_on(weight: int, wider: float) -> None:
    assert weighing(weight).sd == pytest.approx(math.hypot(0.15, wider), abs=0.004)


def test_the_terms_of_practice_add_up() -> None:
    found = practice()
    assert sum(term.pounds for term in found.terms) == pytest.approx(found.wants)
    assert math.prod(term.factor for term in found.terms) * found.terms[0].pounds == (
        pytest.approx(found.wants)
    )


@pytest.mark.parametrize(
    ("said", "sd"),
    [
        ((), 0.15), (("hold thumb",), 0.25), (("point 300",), math.hypot(0.15, 0.10)),
    ],
)  # fmt: skip
def test_practice_is_vaguer_where_fewer_shoot(said: tuple[str, ...], sd: float) -> None:
    assert practice(*said).sd == pytest.approx(sd, abs=0.004)


def test_the_board_shows_both_schools_and_all_that_moves_the_match() -> None:
    board = spine_board(computed(*RIG, "spine 60 lb"))
    assert board.mechanics is not None
    for school in (board.mechanics, board.practice):
        assert school.low_lbf < school.wants_lbf < school.high_lbf
    assert board.practice.wants_lbf == pytest.approx(sum(t.pounds for t in board.practice_terms))
    assert board.why_apart.text()
    assert {move.change for move in board.moves} == {
        "length", "point", "weight", "window", "brace", "string",
    }  # fmt: skip
    assert len(board.points) == 7


@pytest.mark.parametrize(
    ("said", "root", "words"),
    [
        ((), 48.0, "agree within a tenth"),
        (("point 225",), 40.0, "it counts every 25 gr of point as 6 %"),
        (("window 9mm",), 60.0, "it knows the window by its distance alone"),
        (("shaft 33 11gpi",), 40.0, "6 % for 1 in from 28 in on"),
        (("hold thumb",), 60.0, "a tenth off for a thumb"),
        ((), None, "By the mechanics alone no shaft leaves straight"),
    ],
)
def test_the_schools_differ_for_a_reason_that_is_said(
    said: tuple[str, ...], root: float | None, words: str
) -> None:
    match = computed(*RIG, *said).match
    assert match is not None
    assert words in why_apart(replace(match, shot=replace(match.shot, matched=root))).text()


@pytest.mark.parametrize(
    ("said", "reason", "instruction"),
    [
        ((), "The shot needs your draw and the bow's weight.",
         "Enter the draw, and the bow's weight or its mark."),
        (("draw 28",), "The shot needs the bow's weight.", "Enter the bow's weight or its mark."),
        (("mark 40",), "The shot needs your draw.", "Enter the draw."),
        (("draw 12in", "mark 40", "brace 9"),
         "At this draw the string hardly travels past its brace height.",
         "Look at the draw and the brace height: one of them is not right."),
    ],
)  # fmt: skip
def test_the_board_says_what_it_needs(said: tuple[str, ...], reason: str, instruction: str) -> None:
    with pytest.raises(DomainError) as caught:
        spine_board(computed(*said))
    assert caught.value.code == "nothing_to_shoot"
    assert (caught.value.reason, caught.value.instruction) == (reason, instruction)


# light bows

LIGHT = (
    "hand right", "hold split", "draw 27", "hook 1/2", "family hunting recurve", "bow 62",
    "brace 7 1/2", "window 2mm", "string 58 14 strands", "material carbon", "shaft 29 5gpi",
    "diameter 6mm", "point 80", "insert 12", "arrownock 8", "fletching 20", "wrap 0",
)  # fmt: skip


@pytest.mark.parametrize("weight", [16, 18, 20, 22, 24])
@pytest.mark.parametrize("shafts", [700, 1000])
def test_a_beginners_bow_gets_a_useful_answer(weight: int, shafts: int) -> None:
    said = (*LIGHT, f"scale {weight} @ 27", f"spine {shafts}")
    board = spine_board(computed(*said))
    assert board.moves
    found = [f for f in judged(*said).findings if f.id.startswith("spine-")]
    assert not [f for f in found if f.severity in ("stop", "mend")]
    if (board.own_lbf or 0) > board.high_lbf:
        assert {way.key for way in board.ways} >= {"point", "longer", "shafts"}


def test_stiff_first_arrows_are_said_as_what_they_are() -> None:
    match = finding(judged(*LIGHT, "scale 18 @ 27", "spine 700"), "spine-match")
    assert match is not None
    said = match.sentence.text()
    assert said.startswith("Your shafts, 45 lb (700), are stiffer than a bow this light wants, ")
    assert said.endswith("It costs accuracy only: they strike left.")
    left = finding(judged(*LIGHT, "scale 18 @ 27", "spine 700", "hand left"), "spine-match")
    assert left is not None
    assert left.sentence.text().endswith("they strike right.")


def test_a_matched_shaft_on_a_light_bow_is_not_called_stiff() -> None:
    said = (*LIGHT, "scale 22 @ 27")
    match = computed(*said).match
    assert match is not None
    inside = (match.matched + match.high) / 2
    found = finding(judged(*said, f"spine {inside:.1f} lb"), "spine-match")
    assert found is not None
    assert found.severity == "good"
    assert "match what this rig wants" in found.sentence.text()


@pytest.mark.parametrize(("weight", "severity"), [(25.2, "watch"), (26.6, "mend")])
def test_a_light_bow_ends_at_twenty_six_pounds(weight: float, severity: str) -> None:
    c = computed(*LIGHT, f"scale {weight} @ 27", "spine 400")
    assert c.arrow.shooting is not None
    assert (c.arrow.shooting.weight_lbf < LIGHT_BOW_LBF) == (severity == "watch")
    match = finding(judged(*LIGHT, f"scale {weight} @ 27", "spine 400"), "spine-match")
    assert match is not None
    assert match.severity == severity


@pytest.mark.parametrize("weight", [9, 12, 120])
def test_no_shaft_is_asked_for_that_nobody_sells(weight: int) -> None:
    board = spine_board(computed(*LIGHT, "draw 24", f"scale {weight} @ 24", "spine 700"))
    asked = next(way.what for way in board.ways if way.key == "shafts")
    ends = [figure.value for figure in asked.figures.values()]
    assert min(ends) >= 15
    assert max(ends) <= 130


# ways


def test_ways_are_sorted_by_how_hard_they_are_to_undo(matched: float) -> None:
    board = spine_board(computed(*RIG, f"spine {0.82 * matched:.1f} lb", "shaft 31 11gpi",
                                 "arrow 1 504gr"))  # fmt: skip
    order = ["easy", "new", "never"]
    undo = [order.index(way.undo) for way in board.ways]
    assert undo == sorted(undo)
    keys = [way.key for way in board.ways]
    assert keys[-1] == "length"
    assert "1/4 in at a time" in board.ways[-1].what.text()
    assert "shafts" in keys
    assert board.bare is not None
    assert board.bare.side == "right"


def test_every_way_brings_the_index_nearer_and_is_a_computed_shot(matched: float) -> None:
    own = 1.35 * matched
    c = computed(*RIG, f"spine {own:.1f} lb")
    board = spine_board(c)
    before = 10 * math.log(1.35)
    for way in board.ways:
        if way.key != "shafts":
            assert abs(way.index) < before
    point = next(way for way in board.ways if way.key == "point")
    assert "heavier" in point.what.text()
    assert c.arrow.shooting is not None
    assert point.mass_gr > c.arrow.shooting.sheet.mass_gr


def test_a_lighter_point_that_goes_under_the_floor_says_so(matched: float) -> None:
    board = spine_board(computed(*RIG, "floor 11.5 gpp", f"spine {0.8 * matched:.1f} lb"))
    point = next(way for way in board.ways if way.key == "point")
    assert point.under_floor


def test_brace_stays_within_the_makers_range(matched: float) -> None:
    said = ("draw 28", "hook 0", *TYPICAL["wood bow"][0], f"spine {1.2 * matched:.1f} lb")
    free = {way.key for way in spine_board(computed(*said)).ways}
    held = {way.key for way in spine_board(computed(*said, "bracerange 6 1/4 to 6 1/2")).ways}
    assert "brace" in free
    assert "brace" not in held


def test_nothing_to_close_when_matched(matched: float) -> None:
    assert spine_board(computed(*RIG, f"spine {matched:.1f} lb")).ways == ()


@pytest.mark.parametrize(
    ("hand", "share", "side"),
    [
        ("right", 1.4, "left"),
        ("left", 1.4, "right"),
        ("right", 0.7, "right"),
        ("left", 0.7, "left"),
    ],
)
def test_bare_shafts_strike_as_the_archer_sees_it(
    matched: float, hand: str, share: float, side: str
) -> None:
    board = spine_board(computed(*RIG, f"hand {hand}", f"spine {share * matched:.1f} lb"))
    assert board.bare is not None
    assert board.bare.side == side
    assert board.bare.size in ("small", "medium", "large")


# trying


def test_a_trial_of_nothing_is_the_rig_as_it_is() -> None:
    c = computed(*RIG, "spine 49 lb")
    answer = trial(c, Tried())
    assert answer.tried == answer.now
    assert c.arrow.gpp is not None
    assert answer.now.grains_per_pound == pytest.approx(c.arrow.gpp.value, rel=1e-3)
    assert answer.now.matched_lbf == c.match.matched  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("tried", "weaker"),
    [
        ({"shaft_length_mm": 30.75 * 25.4}, True),
        ({"point_gr": 175.0}, True),
        ({"draw_weight_lbf": 46.0}, True),
        ({"brace_height_mm": 7.5 * 25.4}, True),
        ({"window_mm": 1.0}, True),
        ({"window_mm": 9.0}, False),
        ({"string_added_gr": 30.0}, False),
        ({"shaft_length_mm": 29.0 * 25.4}, False),
    ],
)
def test_a_trial_moves_the_index_the_way_the_trade_says(
    tried: dict[str, float], weaker: bool
) -> None:
    answer = trial(computed(*RIG, "spine 49 lb"), Tried(**tried))
    assert answer.tried.index is not None
    assert answer.now.index is not None
    assert (answer.tried.index < answer.now.index) is weaker


def test_a_heavier_point_is_slower_heavier_and_further_forward() -> None:
    answer = trial(computed(*RIG, "spine 49 lb"), Tried(point_gr=175.0))
    assert answer.tried.mass_gr == pytest.approx(answer.now.mass_gr + 50, abs=0.1)
    assert answer.tried.speed_mps < answer.now.speed_mps
    assert answer.tried.forward > answer.now.forward


@pytest.mark.parametrize(("inches", "word"), [(29.75, None), (26.8, "mend"), (26.0, "stop")])
def test_a_shaft_tried_too_short_is_stopped(inches: float, word: str | None) -> None:
    answer = trial(computed(*RIG), Tried(shaft_length_mm=inches * 25.4))
    assert answer.tried.too_short == word


def test_sliders_stand_on_a_step_of_their_range() -> None:
    answer = trial(computed(*RIG), Tried())
    for name in ("shaft_length_mm", "point_gr", "draw_weight_lbf", "brace_height_mm", "window_mm",
                 "string_added_gr"):  # fmt: skip
        knob = getattr(answer, name)
        assert knob.low <= knob.now <= knob.high
        steps = (knob.now - knob.low) / knob.step
        assert steps == pytest.approx(round(steps), abs=1e-6)


# tapers


def test_a_taper_plan_shows_the_way_and_what_was_shot() -> None:
    c = computed(*RIG, "spine 62 lb")
    asked = TaperAsked(
        tail_taper_mm=280, tail_diameter_mm=6.2, head_taper_mm=280, head_diameter_mm=6.2
    )
    plan = plan_taper(c.arrow.sheet, c.arrow.shooting, asked)
    assert plan.kind == "barrelled"
    assert plan.planned.mass_gr < plan.parallel.mass_gr
    assert plan.planned.static_spine_lbf < plan.parallel.static_spine_lbf  # type: ignore[operator]
    assert plan.parallel.static_spine_lbf == pytest.approx(62.0)
    assert plan.planned.kick_deg < plan.parallel.kick_deg  # type: ignore[operator]
    assert plan.clean_at is not None
    assert plan.steps[0].tail_taper_mm == 0


def test_a_taper_plan_without_a_rig_still_gives_gauge_mass_and_balance() -> None:
    c = computed("material wood", "shaft 30 11gpi", "spine 62 lb", "diameter 8.8mm")
    plan = plan_taper(
        c.arrow.sheet, c.arrow.shooting, TaperAsked(tail_taper_mm=250, tail_diameter_mm=7)
    )
    assert plan.kind == "tail"
    assert plan.planned.kick_deg is None
    assert plan.planned.static_spine_lbf is not None
    assert plan.planned.balance_mm > plan.parallel.balance_mm


@pytest.mark.parametrize(
    ("asked", "code", "field"),
    [
        (TaperAsked(tail_taper_mm=900, tail_diameter_mm=7), "taper_too_long", "tail_taper_mm"),
        (TaperAsked(head_taper_mm=-5, head_diameter_mm=7), "taper_too_long", "head_taper_mm"),
        (TaperAsked(tail_taper_mm=200), "missing_diameter", "tail_diameter_mm"),
        (TaperAsked(tail_taper_mm=200, tail_diameter_mm=9.5), "not_a_taper", "tail_diameter_mm"),
        (TaperAsked(head_taper_mm=200, head_diameter_mm=2), "not_a_taper", "head_diameter_mm"),
    ],
)
def test_a_taper_that_cannot_be_is_refused(asked: TaperAsked, code: str, field: str) -> None:
    c = computed(*RIG)
    with pytest.raises(DomainError) as caught:
        plan_taper(c.arrow.sheet, c.arrow.shooting, asked)
    assert (caught.value.code, caught.value.field) == (code, field)


# the drawing


def test_the_drawing_runs_from_release_to_clear_of_the_bow(matched: float) -> None:
    c = computed(*RIG, f"spine {1.2 * matched:.1f} lb")
    assert c.arrow.shooting is not None
    drawing = shot_drawing(c.arrow.shooting, lift_mm=3.0, lift_read=True, outward_is_left=True)
    assert drawing is not None
    assert [arrow.which for arrow in drawing.arrows] == ["own", "matched", "weak", "stiff"]
    assert drawing.nock_mm[0] == pytest.approx(-drawing.draw_mm, abs=0.1)
    assert 0 < drawing.exit_frame < drawing.pass_frame < len(drawing.times_ms)
    assert drawing.nock_mm[drawing.pass_frame] >= 0
    own = drawing.arrows[0]
    assert len(own.aside) == len(drawing.times_ms) == len(own.plate_n)
    assert all(len(row) == len(drawing.stations_mm) for row in own.aside)
    touching = drawing.face_mm + drawing.diameter_mm / 2
    station = drawing.draw_mm / drawing.stations_mm[-1] * (len(drawing.stations_mm) - 1)
    assert own.aside[0][round(station)] / 10 == pytest.approx(touching, abs=0.5)
    assert drawing.arrows[1].word == "matched"


def test_the_side_view_starts_at_the_nocks_height_on_the_rest() -> None:
    c = computed(*RIG)
    assert c.arrow.shooting is not None
    drawing = shot_drawing(c.arrow.shooting, lift_mm=3.0, lift_read=False, outward_is_left=False)
    assert drawing is not None
    assert drawing.side.nock_height_mm == 3.0
    assert drawing.side.aside[0][0] == 30
    assert min(min(row) for row in drawing.side.aside[: drawing.exit_frame]) > -60


def test_a_known_match_is_kept() -> None:
    c = computed(*RIG)
    assert c.arrow.shooting is not None
    before = match_of.cache_info().hits
    computed(*RIG, "note again")
    assert match_of.cache_info().hits > before
