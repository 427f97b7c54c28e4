"""What is recorded becomes evidence: sides, sizes, trials, changes, tunings, and bad input."""

import math
import re
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core import entries as e
from lyrandis.core.assessment import judge
from lyrandis.core.bench_readings import PartFitted, Retraction
from lyrandis.core.computed import Computed, compute, with_curves
from lyrandis.core.errors import DomainError
from lyrandis.core.flight.board import board
from lyrandis.core.flight.evidence import (
    CurvesAsked,
    Hands,
    Reckoned,
    Saw,
    Shifted,
    Start,
    View,
    apart_of,
    believed,
    known,
    learned,
    point_shift,
    push_of,
    reckon,
    saw,
    sensitivity,
    upright_push,
)
from lyrandis.core.flight.history import MOVED_NOCK_MM
from lyrandis.core.flight.likely import NOISE, Push
from lyrandis.core.flight.plan import under_way
from lyrandis.core.flight.readings import (
    BareApart,
    ButtHits,
    Change,
    ColumnMark,
    FeathersSeen,
    FlightKit,
    Hit,
    PlateMarked,
    RigTuned,
    SlapHeard,
    TailSeen,
    TrialSet,
    WalkedBack,
)
from lyrandis.core.jot import Listener, parse
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.order.words import NODE_WORDS
from lyrandis.core.reading import BaseReading
from lyrandis.core.setup import fold
from tests.entries import draft, entries

RIG = (
    "hold split", "hand right", "draw 28", "hook 1/2", "family hunting recurve", "bow 62",
    "riser 17", "kit rest", "limit 31", "string 59 16 strands", "settled string", "brace 8 grip",
    "scale 45 @ 28", "material carbon", "shaft 29 1/2 8gpi", "point 110gr", "diameter 7mm",
    "window 2mm", "window plate", "arrow 1 400gr", "inspect all good", "arrow 1 sound",
    "lift 5mm",
)  # fmt: skip
STIFF, MATCHED = "spine 400", "spine 500"


def rig(*said: str | BaseReading | e.EntryDraft) -> Computed:
    return compute(fold(entries(*RIG, *said)))


@pytest.fixture(scope="module", name="reckoned")
def reckoned_of_a_rig() -> Reckoned:
    found = with_curves(rig(MATCHED)).flight.basis.reckoned
    assert found is not None
    return found


def view(reckoned: Reckoned, *, left: bool = True) -> View:
    return View(reckoned, Hands(left), 60.0, 750.0, 110.0)


# signs


@given(
    across=st.integers(-3, 3),
    up=st.integers(-3, 3),
    right_mm=st.floats(-800, 800),
)
@settings(max_examples=40)
def test_a_mirrored_hand_reads_the_mirrored_picture_alike(
    reckoned: Reckoned, across: int, up: int, right_mm: float
) -> None:
    one, other = view(reckoned), view(reckoned, left=False)
    tail = TailSeen(across=across, up=up, distance_m=2.3)
    mirrored = TailSeen(across=-across, up=up, distance_m=2.3)
    assert saw(one, tail) == saw(other, mirrored)
    bare = BareApart(right_mm=right_mm, distance_m=18)
    assert saw(one, bare) == saw(other, BareApart(right_mm=-right_mm, distance_m=18))


@pytest.mark.parametrize(
    ("hand", "hold", "weak"),
    [
        ("hand right", "hold split", "left"), ("hand left", "hold split", "right"),
        ("hand right", "hold thumb", "right"), ("hand left", "hold thumb", "left"),
    ],
)  # fmt: skip
def test_left_hand_and_thumb_are_mirrored_and_both_together_are_not(
    hand: str, hold: str, weak: str
) -> None:
    other = "left" if weak == "right" else "right"
    said = [hold, hand, MATCHED]
    weaker = board(rig(*said, f"tail {weak} 3 @ 2.3m")).causes
    stiffer = board(rig(*said, f"tail {other} 3 @ 2.3m")).causes
    chance = {"weak": {one.key: one.chance for one in weaker},
              "stiff": {one.key: one.chance for one in stiffer}}  # fmt: skip
    assert chance["weak"]["weak"] > chance["stiff"]["weak"]
    assert chance["stiff"]["stiff"] > chance["weak"]["stiff"]


def test_a_mirrored_rig_gives_the_very_same_belief() -> None:
    right = board(rig(MATCHED, "tail left 2 high 1 @ 2.3m", "bare 12cm left 4cm low @ 18m"))
    left = board(
        rig("hand left", MATCHED, "tail right 2 high 1 @ 2.3m", "bare 12cm right 4cm low @ 18m")
    )
    assert [one.chance for one in right.causes] == [one.chance for one in left.causes]
    assert [row.pulls for row in right.ledger] == [row.pulls for row in left.ledger]
    assert right.nock_causes == left.nock_causes


def test_high_tails_and_low_bare_shafts_read_a_high_nock(reckoned: Reckoned) -> None:
    high = saw(view(reckoned), TailSeen(up=2, distance_m=2.3))
    low = saw(view(reckoned), BareApart(up_mm=-200, distance_m=18))
    assert isinstance(high, Saw)
    assert isinstance(low, Saw)
    assert (high.spine, high.upright) == (None, 1)
    assert (low.spine, low.upright) == (None, -0.2)
    seen = board(rig(MATCHED, "tail high 2 @ 2.3m", "bare 20cm low @ 18m"))
    assert seen.nock_causes is not None
    assert max(seen.nock_causes, key=lambda one: one.chance).name in ("too high", "low, bounces")


@pytest.mark.parametrize(
    ("off_mm", "reads"), [(0, 3), (12, 3), (14, 4), (32, 4), (33.5, 5), (65, 5), (66, 6), (-66, 0)]
)
def test_millimetres_fall_into_the_columns_of_the_dial(
    reckoned: Reckoned, off_mm: float, reads: float
) -> None:
    found = saw(view(reckoned), TailSeen(across_mm=off_mm, distance_m=2.3))
    assert isinstance(found, Saw)
    assert found.spine == reads


# what counts, and what does not


@pytest.mark.parametrize(
    ("reading", "why"),
    [
        (TailSeen(across=1, distance_m=6.0), None),
        (TailSeen(across=1, distance_m=6.1), "swings"),
        (TailSeen(across=1, distance_m=3.5, bare=True), None),
        (TailSeen(across=1, distance_m=3.6, bare=True), "bare_tail_far"),
        (BareApart(right_mm=10, distance_m=6.9), "too_near"),
        (BareApart(right_mm=10, distance_m=7.0), None),
        (BareApart(right_mm=10, distance_m=40.0), None),
        (BareApart(right_mm=10, distance_m=40.1), "too_far"),
        (ButtHits(hits=(Hit(right_mm=0, up_mm=0),) * 2, distance_m=18), "one_kind"),
        (ButtHits(hits=(Hit(right_mm=0, up_mm=0),) * 3, distance_m=18), None),
        (ButtHits(hits=(Hit(right_mm=0, up_mm=0),) * 3, distance_m=6.9), "too_near"),
        (ButtHits(hits=(Hit(right_mm=0, up_mm=0),) * 3, distance_m=40.1), "too_far"),
        (ButtHits(hits=(Hit(right_mm=0, up_mm=0, bare=True),) * 3, distance_m=18), "one_kind"),
        (FeathersSeen(rubbed=True), "feathers"),
        (
            WalkedBack(marks=(ColumnMark(distance_m=10, right_mm=0),
                                ColumnMark(distance_m=20, right_mm=20))),
            "walk_back",
        ),
        (PlateMarked(mark=True), None),
        (SlapHeard(heard=False), None),
    ],
)  # fmt: skip
def test_what_counts_and_why_not(reckoned: Reckoned, reading: e.Reading, why: str | None) -> None:
    found = saw(view(reckoned), reading)  # type: ignore[arg-type]
    assert (found if isinstance(found, str) else None) == why


def test_one_fletched_group_beside_its_aim_counts_a_little(reckoned: Reckoned) -> None:
    """Left for a right-hander is stiff; it moves the belief far less than a bare shaft does."""
    start = Start(reckoned.curves, NOISE["ordinary"], 0.0, 1.8, 0.1)

    def stiff(*steps: object) -> float:
        spine, _ = believed(start, tuple(steps))  # type: ignore[arg-type]
        return spine.chances()["stiff"]

    group = saw(view(reckoned), ButtHits(hits=(Hit(right_mm=-100, up_mm=0),) * 3, distance_m=18))
    bare = saw(view(reckoned), BareApart(right_mm=-500, distance_m=18))
    right = saw(view(reckoned), ButtHits(hits=(Hit(right_mm=100, up_mm=0),) * 3, distance_m=18))
    before = stiff()
    assert stiff(group) > before > stiff(right)
    assert 0.01 < stiff(group) - before < 0.12
    assert stiff(group) - before < (stiff(bare) - before) / 3


def test_a_step_to_other_shafts_wants_the_own_spine(reckoned: Reckoned) -> None:
    tail = TailSeen(across=1, distance_m=2.3, trial=Change(what="other_shafts", amount=50))
    assert saw(replace(view(reckoned), own_lbf=None), tail) == "no_spine"
    found = saw(view(reckoned), tail)
    assert isinstance(found, Saw)
    assert found.test.spine_push == Push(10 * math.log(50 / 60), exact=True)


def test_the_side_plate_tells_nothing_of_the_nock(reckoned: Reckoned) -> None:
    found = saw(view(reckoned), PlateMarked(mark=True))
    assert isinstance(found, Saw)
    assert found.upright is None


def test_unlike_numbers_of_arrows_count_as_their_harmonic_mean() -> None:
    hits = [Hit(right_mm=x, up_mm=0.0, bare=bare) for x, bare in
            ((0, False), (10, False), (5, False), (65, True))]  # fmt: skip
    found = apart_of(hits)
    assert found is not None
    assert (found.right_mm, found.arrows) == (60.0, 1.5)
    assert apart_of(hits[:3]) is None


# pushes


def test_pushes_have_the_sign_of_practice_and_are_never_below_what_it_sees(
    reckoned: Reckoned,
) -> None:
    def by(what: str, amount: float) -> float:
        change = Change(what=what, amount=amount)  # type: ignore[arg-type]
        return push_of(reckoned, change, 60.0, 110.0).by

    assert by("draw_short", 25.4) == pytest.approx(0.5)
    assert by("draw_extra", 12.7) == pytest.approx(-0.3)
    assert by("silencers", 20) >= 0.15
    assert by("silencers", -20) <= -0.15
    assert by("plate", 2) >= 0.2
    assert by("plate", -2) <= -0.2
    assert by("point", 25) < 0 < by("point", -25)
    assert by("nock", 3) == 0
    assert upright_push(Change(what="nock", amount=2)).by == -1
    assert upright_push(Change(what="plate", amount=2)) == Push()


def test_a_change_moves_the_reading_as_the_computed_match_says(reckoned: Reckoned) -> None:
    matched = reckoned.asked.matched_lbf
    pounds = {one.change: one.pounds for one in reckoned.moves.sensitivities}
    assert pounds["length"] is not None
    want = -10 * math.log((matched + pounds["length"]) / matched)
    assert sensitivity(reckoned, "length", 0.0254) == pytest.approx(want)
    there = point_shift(reckoned, 100, 130)
    back = point_shift(reckoned, 130, 100)
    assert there is not None
    assert back == pytest.approx(-there)
    assert point_shift(reckoned, 100, 999) is None


@pytest.mark.parametrize(("what", "amount"), [("draw_short", 0), ("draw_short", -5),
                                              ("draw_extra", 60), ("plate", 40),
                                              ("other_shafts", 5)])  # fmt: skip
def test_an_impossible_trial_is_refused(what: str, amount: float) -> None:
    with pytest.raises(ValueError, match="no amount for a trial"):
        Change(what=what, amount=amount)  # type: ignore[arg-type]


# the fold


def test_the_order_of_two_readings_does_not_matter() -> None:
    one, two = "tail left 2 @ 2.3m", "bare 10cm right @ 18m"
    a, b = (board(rig(STIFF, *said)).causes for said in ((one, two), (two, one)))
    assert [x.chance for x in a] == pytest.approx([x.chance for x in b], abs=1e-9)


def test_taking_a_reading_back_is_exact() -> None:
    before = board(rig(STIFF, "tail left 2 @ 2.3m"))
    made = entries(*RIG, STIFF, "tail left 2 @ 2.3m", "wear plate")
    back = Retraction(entry_id=made[-1].id)
    taken = [*made, made[-1].model_copy(update={
        "id": "retraction-1", "seq": made[-1].seq + 1, "reading": back,
    })]  # fmt: skip
    after = board(compute(fold(taken)))
    assert [one.chance for one in after.causes] == [one.chance for one in before.causes]


def test_readings_of_another_set_do_not_count_and_come_back_with_it() -> None:
    seen = (*RIG, STIFF, "tail left 2 @ 2.3m")
    other = draft(PartFitted(part="arrow_set", part_id="set-b"), on="rig", days=90)
    c = compute(fold(entries(*seen, other)))
    assert c.flight.facts.seen == ()
    assert c.flight.facts.elsewhere == 1
    assert any(f.id == "flight-parts" for f in judge(c).findings)
    again = draft(PartFitted(part="arrow_set", part_id="set-a"), on="rig", days=91)
    assert len(compute(fold(entries(*seen, other, again))).flight.facts.seen) == 1


def test_a_moved_nock_shifts_the_belief_and_reading_it_again_does_not() -> None:
    seen = (MATCHED, "tail straight high 2 @ 2.3m", "bare 15cm low @ 18m")
    before = rig(*seen).flight
    again = rig(*seen, f"lift {5 - MOVED_NOCK_MM / 2}mm").flight
    moved = rig(*seen, "lift 2mm").flight
    assert before.belief.upright is not None
    assert again.belief.upright is not None
    assert moved.belief.upright is not None
    assert again.belief.upright.mean == before.belief.upright.mean
    assert moved.belief.upright.mean == pytest.approx(before.belief.upright.mean + 1.5, abs=0.2)
    assert isinstance(moved.belief.steps[-1], Shifted)


def test_another_point_shifts_the_belief_as_the_model_does_and_the_start_stays() -> None:
    seen = (MATCHED, "tail straight @ 2.3m")
    before, after = rig(*seen).flight, rig(*seen, "point 150gr").flight
    assert before.belief.start is not None
    assert after.belief.start is not None
    step = after.belief.steps[-1]
    assert isinstance(step, Shifted)
    assert step.by < 0
    # what the model says now is what it said before, and the change
    assert after.belief.start.centre == pytest.approx(before.belief.start.centre, abs=0.15)


def test_a_trial_leaves_no_trace_in_the_order_of_work() -> None:
    seen = (MATCHED, "tail straight @ 2.3m")
    before = judge(rig(*seen))
    trial = (
        TrialSet(trial=Change(what="brace", amount=-6.35)),
        "tail straight @ 2.3m brace 6.35mm down",
        TrialSet(trial=Change(what="nock", amount=3)),
        "tail straight @ 2.3m nock 3mm up",
        "trial back",
    )
    after = judge(rig(*seen, *trial))
    marks = [[(s.key, s.mark) for s in one.stages if s.key != "flight"] for one in (before, after)]
    assert marks[0] == marks[1]
    assert rig(*seen, *trial).order.states == rig(*seen).order.states


def test_what_is_shot_stands_in_the_order_of_work() -> None:
    said = (MATCHED, "bare 2cm left @ 8m", "bare 14cm right 20cm low @ 18m",
            "walkback 10m 0, 20m 2cm left")  # fmt: skip
    states = rig("kit full", *said).order.states
    assert states["bare_rough"].value == "level"
    assert states["bare_final"].value == "right and low"
    assert states["walk_back"].value == pytest.approx(20), "+ is to the arrow's side"
    tried = rig("kit full", MATCHED, "bare 14cm right @ 18m plate 2mm out").order.states
    assert tried["bare_final"].mark == "unset"


def test_a_trial_that_is_on_is_asked_to_be_put_back() -> None:
    on = rig(MATCHED, "tail straight @ 2.3m", "trial draw short 1in")
    step = judge(on).next_step
    assert step.title.text() == "Shoot three drawn 1 in short"
    shot = rig(
        MATCHED, "tail straight @ 2.3m", "trial draw short 1in", "tail right 2 @ 2.3m short 1in"
    )
    assert judge(shot).next_step.title.text() == "Back to your anchor"
    assert any(f.id == "flight-trial" for f in judge(shot).findings)
    back = rig(MATCHED, "tail straight @ 2.3m", "trial draw short 1in", "trial back")
    assert back.flight.facts.trial is None


def test_a_sitting_ends_after_eight_tests_and_another_day_begins_anew() -> None:
    many = [draft("tail straight @ 2.3m", days=100 + i / 100) for i in range(9)]
    c = rig(MATCHED, *many)
    assert c.flight.belief.sitting is not None
    assert len(c.flight.belief.sitting.done) == 9
    assert c.flight.tests.ranked == ()
    later = rig(MATCHED, *many, draft("tail straight @ 2.3m", days=101))
    assert later.flight.belief.sitting is not None
    assert len(later.flight.belief.sitting.done) == 1


def test_only_the_newest_thirty_count() -> None:
    many = [draft("tail straight @ 2.3m", days=100 + i / 200) for i in range(33)]
    c = rig(MATCHED, *many)
    assert c.flight.belief.counted == 30
    assert [one.why_not for one in c.flight.log[:3]] == ["older"] * 3


# tests that are offered


def test_tests_this_rig_cannot_do_are_not_offered() -> None:
    keys = {test.key for test in rig(MATCHED, "tail straight @ 2.3m").flight.tests.offered}
    assert {"tail", "bare", "mark", "slap", "tail_draw_short", "tail_draw_extra",
            "tail_plate", "tail_silencers"} <= keys  # fmt: skip
    assert not keys & {"tail_other_shafts", "nock_moved", "tail_brace", "tail_point"}
    few = rig(MATCHED, "limit 28 3/4", "kit plain", "bareset none", "range 12m", "borrow 45lb",
              "tail straight level @ 2.3m")  # fmt: skip
    keys = {test.key for test in few.flight.tests.offered}
    assert not keys & {"bare", "bare_six", "bare_near", "tail_draw_extra", "tail_plate"}
    assert {"tail_other_shafts", "nock_moved"} <= keys


def test_a_draw_is_never_offered_past_the_bows_limit() -> None:
    """The string is drawn to 28 1/2 with the hook's depth in it; half an inch extra is 29."""
    for limit, may in (("29", True), ("28 15/16", False)):
        keys = {test.key for test in rig(MATCHED, f"limit {limit}", "tail straight @ 3m")
                .flight.tests.offered}  # fmt: skip
        assert ("tail_draw_extra" in keys) == may


# tuned, and what it does


HIGH = ("tail straight high 1 @ 2.3m 6 arrows", *["bare 18cm low @ 18m 6 arrows"] * 2)
TUNED = (
    MATCHED, "tail straight @ 2.3m 6 arrows", "bare level @ 18m 6 arrows",
    "bare level @ 18m 6 arrows", "tail straight @ 3m 6 arrows", "bare level @ 18m 6 arrows",
)  # fmt: skip


def test_a_tuned_rig_moves_the_match_and_says_so() -> None:
    c = rig("shooting steady", *TUNED)
    assert c.flight.verdict.tuned
    assert c.match is not None
    assert c.arrow.model is not None
    assert c.match.matched != c.arrow.model.matched
    found = board(c).match
    assert found is not None
    assert found.in_force
    wanted = next(v for v in judge(c).stages[2].values if v.key == "matched_spine")
    assert wanted.detail is not None
    assert wanted.detail.text() == "from your own flight"
    spine = next(f for f in judge(c).findings if f.id == "spine-match")
    assert "your own flight says" in spine.sentence.text()
    assert spine.sum[0].text().startswith("Your flight:")
    assert ("narrower now" in found.says.text()) == found.narrower
    alone = rig("shooting steady", *TUNED, "matchfrom model")
    assert alone.match == alone.arrow.model


def test_a_kept_tuning_stands_for_other_arrows_and_not_twice_for_its_own() -> None:
    c = rig("shooting steady", *TUNED)
    found = c.flight.match.tuning
    assert found is not None
    assert c.arrow.model is not None
    kept = RigTuned(matched_lbf=found.matched, model_lbf=c.arrow.model.matched or 50.0,
                      offset=2.0, sd=0.6)  # fmt: skip
    own = rig("shooting steady", *TUNED, kept)
    assert own.flight.belief.tunings == ()
    assert own.flight.match.kept
    other = draft(PartFitted(part="arrow_set", part_id="set-b"), on="rig", days=200)
    build = [
        draft(line, days=201 + i, subject="set-b")
        for i, line in enumerate(("material carbon", "shaft 29 1/2 8gpi", "point 110gr",
                                  "diameter 7mm", "spine 400", "arrow 400gr"))
    ]  # fmt: skip
    new = compute(fold(entries(*RIG, "shooting steady", *TUNED, kept, other, *build)))
    assert len(new.flight.belief.tunings) == 1
    assert new.flight.belief.start is not None
    assert new.flight.belief.start.sd < 1.8
    assert new.match is not None
    assert new.arrow.model is not None
    assert new.match.matched == pytest.approx(
        (new.arrow.model.matched or 0) * math.exp(-new.flight.belief.start.centre / 10
                                                  + new.flight.basis.index / 10), rel=0.02
    )  # fmt: skip


@pytest.mark.parametrize(
    ("since", "wider"),
    [((), 1.0), (("brace 8 1/2 grip",), 1.001), (("window 6mm",), 1.02), (("spine 450",), 1.0)],
)
def test_a_kept_tuning_is_less_sure_once_brace_or_plate_moved(
    since: tuple[str, ...], wider: float
) -> None:
    kept = RigTuned(matched_lbf=50.0, model_lbf=60.0, offset=2.0, sd=0.6)
    other = draft(PartFitted(part="arrow_set", part_id="set-b"), on="rig", days=200)
    build = [
        draft(line, days=201 + i, subject="set-b")
        for i, line in enumerate(("material carbon", "shaft 29 1/2 8gpi", "point 110gr",
                                  "diameter 7mm", "spine 400", "arrow 400gr"))
    ]  # fmt: skip
    moved = [draft(line, days=250 + i) for i, line in enumerate(since) if "spine" not in line]
    moved += [draft(line, days=250, subject="set-b") for line in since if "spine" in line]
    c = compute(fold(entries(*RIG, MATCHED, kept, other, *build, *moved)))
    (tuning,) = c.flight.belief.tunings
    assert tuning.offset == 2.0
    if wider == 1.0:
        assert tuning.sd == pytest.approx(0.6)
    else:
        assert tuning.sd > 0.6 * wider


# contradictions, surprises, corrections


def test_readings_that_contradict_are_said_and_lose_nothing() -> None:
    said = ("tail right 3 @ 2.3m", "bare 45cm right @ 18m", "tail left 3 @ 2.3m",
            "bare 60cm left @ 18m")  # fmt: skip
    c = rig(MATCHED, *said, "lift 8mm", "tail right 3 @ 2.3m", "bare 60cm right @ 18m")
    found = board(c)
    assert c.flight.verdict.contradicts
    assert found.correction is None
    assert any("slipped" in one.why for one in found.suspects)
    assert c.flight.verdict.odd is None, "no one of them is to blame"
    assert judge(c).next_step.title.text() == "Begin anew"
    stage = judge(c).stages[5]
    assert stage.mark == "in_doubt"
    assert len(c.flight.facts.seen) == 6


def test_nothing_stiffer_and_no_cut_while_it_may_be_false_weak() -> None:
    c = rig(STIFF, "tail left 2 @ 2.3m")
    assert any(f.id == "flight-stiffer" for f in judge(c).findings)
    weak = rig("spine 700", "tail left 3 @ 2.3m 6 arrows", "bare 40cm right @ 18m 6 arrows",
               "bare 40cm right @ 18m 6 arrows", "wear none", "wear none")  # fmt: skip
    found = board(weak).correction
    assert found is not None
    levers = {one.key: one for one in found.levers}
    assert weak.flight.belief.spine is not None
    false = weak.flight.belief.spine.chances()["false_weak"]
    assert (levers["shafts"].refused is not None) == (false > 0.05)
    assert (levers["length"].refused is not None) == (
        false > 0.02 or "short" in (levers["length"].refused or "")
    )


def test_levers_are_this_rigs_own_in_real_units_easiest_to_undo_first() -> None:
    c = rig(STIFF, "fibre polyester", "turns 20", "tail right 3 @ 2.3m 6 arrows",
            *["bare 40cm left @ 18m 6 arrows"] * 2, "wear none")  # fmt: skip
    found = board(c).correction
    assert found is not None
    levers = {one.key: one for one in found.levers}
    assert levers["plate"].what.text() == "Plate 3 mm further in"
    assert levers["point"].what.text() == "Point 160 gr for 110 gr"
    both = levers["together"]
    assert both.what.text() == "Plate 3 mm further in and point 160 gr for 110 gr"
    assert both.share == pytest.approx(
        (levers["plate"].share or 0) + (levers["point"].share or 0), abs=1e-6
    )
    assert both.share < 0.6, "together they do less than they must"
    assert not both.reaches
    assert [one.reading.kind for one in both.records] == ["arrow_pass", "arrow_build"]
    assert re.search(r", \d+ turns in$", levers["brace"].what.text())
    assert "length" not in levers, "a stiff shaft is not cut"
    assert "silencers" not in levers, "there are none to take off"
    assert levers["shafts"].first
    assert levers["shafts"].trial is not None
    assert levers["shafts"].trial.amount < (found.own_lbf or 0)


def test_what_is_at_the_bench_goes_before_money() -> None:
    """A little too stiff: plate and point reach it, and the other shafts wait."""
    c = rig("spine 460", "tail right 2 @ 2.3m 6 arrows", *["bare 25cm left @ 18m 6 arrows"] * 3,
            "wear none")  # fmt: skip
    found = board(c).correction
    assert found is not None
    first = next(one for one in found.levers if one.first)
    assert first.key in ("plate", "point", "together")
    assert 0.6 <= (first.share or 0) <= 1.35
    assert next(one for one in found.levers if one.key == "shafts").reaches


@pytest.mark.parametrize("said", [("spine 250",), ("spine 1300",)])
def test_a_correction_always_exists(said: tuple[str]) -> None:
    """Shafts are a step of four tenths, however far it has to go."""
    weak = said == ("spine 1300",)
    tail, bare = ("left 3", "60cm right") if weak else ("right 3", "60cm left")
    c = rig(*said, f"tail {tail} @ 2.3m 6 arrows", *[f"bare {bare} @ 18m 6 arrows"] * 2)
    step = under_way(c)
    assert step is not None
    assert step.title.text().startswith("Shoot three shafts of")
    trial = step.action.records[0].reading
    assert isinstance(trial, TrialSet)
    assert trial.trial is not None
    moved = abs(10 * math.log(trial.trial.amount / (c.flight.basis.own_lbf or 1)))
    assert moved == pytest.approx(4.0, abs=0.1)


@pytest.mark.parametrize(("floor", "refused"), [("floor 8 gpp", False), ("floor 8.6 gpp", True)])
def test_no_point_puts_the_arrow_under_its_floor(floor: str, *, refused: bool) -> None:
    """400 gr on 46 lb is 8.7 grains a pound, with 25 gr less 8.1."""
    weak = rig("spine 650", floor, "tail left 3 @ 2.3m 6 arrows", "bare 40cm right @ 18m 6 arrows",
               "bare 40cm right @ 18m 6 arrows", "wear none", "wear none")  # fmt: skip
    found = board(weak).correction
    assert found is not None
    point = next(one for one in found.levers if one.key == "point")
    assert ("floor" in (point.refused or "")) == refused
    if not refused:
        assert point.what.text() == "Point 85 gr for 110 gr", "50 gr less never keeps the floor"


def test_a_correction_records_the_change_itself() -> None:
    c = rig(MATCHED, "tail straight high 1 @ 2.3m 6 arrows", "bare 18cm low @ 18m 6 arrows",
            "bare 18cm low @ 18m 6 arrows")  # fmt: skip
    found = board(c).correction
    assert found is not None
    nock = next(one for one in found.levers if one.key == "nock")
    assert nock.first
    moved = nock.records[0].reading
    assert isinstance(moved, NockHeight)
    assert moved.height_mm < 5
    # done, it moves the belief, and what rests on the nock is in doubt
    done = compute(fold(entries(*RIG, MATCHED, *HIGH,
                                moved)))  # fmt: skip
    assert isinstance(done.flight.belief.steps[-1], Shifted)
    assert board(done).expected_now is not None


def test_a_correction_puts_in_doubt_what_it_is_said_to_disturb() -> None:
    said = ("spine 400", "walkback 10m 0, 20m 2cm left", "tail right 3 @ 2.3m 6 arrows",
            *["bare 40cm left @ 18m 6 arrows"] * 2, "wear none", "wear none")  # fmt: skip
    before = rig(*said)
    found = board(before).correction
    assert found is not None
    done = [one for one in found.levers if len(one.records) == 1 and one.refused is None]
    assert {"plate", "point"} <= {one.key for one in done}
    known = {NODE_WORDS[node]: node for node, s in before.order.states.items() if s.at}
    for lever in done:
        after = rig(*said, lever.records[0].reading).order.states
        for name in set(lever.disturbs) & set(known):
            assert after[known[name]].mark in ("direct", "rests"), (lever.key, name)
        untouched = set(known) - set(lever.disturbs)
        for name in untouched:
            assert after[known[name]].mark != "direct", (lever.key, name)


SHAFT = (MATCHED, "tail straight @ 2.3m 6 arrows", "wear none",
         *["bare 0cm left @ 18m 6 arrows"] * 2)  # fmt: skip
LEVEL = (*["tail straight high 0 @ 2.3m 6 arrows", "bare 0cm left 0cm high @ 18m 6 arrows"] * 5,)


@pytest.mark.parametrize(
    ("said", "word", "beside"),
    [
        (SHAFT, "shaft tuned", "High and low were not looked at"),
        ((*SHAFT, "bare 0cm left 9cm high @ 18m 6 arrows"), "shaft tuned", "not sure enough"),
        ((*SHAFT, *LEVEL), "tuned", "the nock within 2 mm"),
    ],
)
def test_tuned_is_said_of_the_whole_only_where_the_nock_is_right_too(
    said: tuple[str, ...], word: str, beside: str
) -> None:
    c = rig(*said)
    assert c.flight.verdict.tuned
    found = board(c)
    assert found.under is not None
    assert beside in found.under.text()
    assert found.sentence.text().startswith("Tuned" if word == "tuned" else "The shaft is tuned")
    stage = next(one for one in judge(c).stages if one.key == "flight")
    assert stage.live.text == word


def test_what_is_expected_is_compared_with_what_came() -> None:
    said = (MATCHED, "tail straight high 3 @ 2.3m 6 arrows", "bare 40cm low @ 18m 6 arrows",
            "lift 1mm")  # fmt: skip
    fine = board(rig(*said, "tail straight high 0 @ 2.3m")).proofs
    odd = board(rig(*said, "tail straight low 3 @ 2.3m 6 arrows")).proofs
    across = board(rig(*said, "tail right 3 @ 2.3m 6 arrows")).proofs
    assert across == (), "what was changed is the nock: a tail across says nothing of it"
    assert [one.as_expected for one in fine] == [True]
    assert [one.as_expected for one in odd] == [False]


# the archer's own scatter


def test_own_groups_outrank_what_is_assumed_and_one_hit_tells_nothing() -> None:
    tight = ButtHits(hits=tuple(Hit(right_mm=x, up_mm=x / 2) for x in (0, 10, -10, 5, -5, 8)),
                       distance_m=18)  # fmt: skip
    one, many = learned(NOISE["ordinary"], [tight]), learned(NOISE["ordinary"], [tight] * 6)
    assert many[0].scatter_m < one[0].scatter_m < NOISE["ordinary"].scatter_m
    lone = ButtHits(hits=(Hit(right_mm=300, up_mm=0),), distance_m=18)
    assert learned(NOISE["ordinary"], [lone]) == (NOISE["ordinary"], 0)


# jots


@pytest.mark.parametrize(
    ("line", "reading"),
    [
        ("tail left 2 @ 7 paces", TailSeen(across=-2, distance_m=5.32)),
        ("tail clear right high 1 @ 2.5m", TailSeen(across=2, up=1, distance_m=2.5)),
        ("tail right 44mm @2.5m short 1in",
         TailSeen(across_mm=44, distance_m=2.5, trial=Change(what="draw_short", amount=25.4))),
        ("tail straight @ 3 yd 6 arrows", TailSeen(across=0, distance_m=2.7432, arrows=6)),
        ("tail left 2 @ 2.3m bare", TailSeen(across=-2, distance_m=2.3, bare=True)),
        ("bare 3cm left 1cm high @18m", BareApart(right_mm=-30, up_mm=10, distance_m=18)),
        ("bare level @ 18m 6 arrows",
         BareApart(right_mm=0, up_mm=0, distance_m=18, bare=6, fletched=6)),
        ("wear plate", PlateMarked(mark=True)),
        ("wear none", PlateMarked(mark=False)),
        ("slap none", SlapHeard(heard=False)),
        ("walkback 10m 0, 20m 2cm left",
         WalkedBack(marks=(ColumnMark(distance_m=10, right_mm=0),
                             ColumnMark(distance_m=20, right_mm=-20)))),
        ("trial plate 2mm in", TrialSet(trial=Change(what="plate", amount=-2))),
        ("trial shafts 57lb", TrialSet(trial=Change(what="other_shafts", amount=57))),
        ("trial back", TrialSet(trial=None)),
        ("range 30m", FlightKit(longest_m=30)),
    ],
)  # fmt: skip
def test_the_jot_line_takes_what_is_seen(line: str, reading: e.Reading) -> None:
    assert parse(line).reading == reading


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("tail left 2", "The distance is missing"),
        ("tail left @ 2.3m", "How far the tail points aside is missing"),
        ("tail right 2 high @ 2.3m", "Which way the tail points is missing"),
        ("tail left 2 @ 0m", "no distance"),
        ("tail left 2 @ 500m", "no distance"),
        ("tail left 900mm @ 2.3m", "900mm.*left over"),
        ("tail @ 2.3m", "Which way the tail points is missing"),
        ("bare 3cm @ 18m", "Which side"),
        ("bare 3cm left", "The distance is missing"),
        ("walkback 10m 0", "Two distances at least"),
        ("walkback 10m 0, 10m 2cm left", "All at one distance"),
        ("walkback 10m 0, 20m 2cm", "Say the side too"),
        ("trial teapot", "What is changed"),
        ("trial draw short 40in", "What is changed, and by how much"),
    ],
)
def test_a_bad_line_says_what_to_do(line: str, says: str) -> None:
    with pytest.raises(DomainError) as refused:
        parse(line)

    assert re.search(says, f"{refused.value.reason} {refused.value.instruction}")


def test_a_distance_without_unit_is_asked_for_where_inches_are_read() -> None:
    with pytest.raises(DomainError) as refused:
        parse("tail left 2 @ 18")
    assert [guess.text for guess in refused.value.guesses] == [
        "tail left 2 at 18m", "tail left 2 at 18yd",
    ]  # fmt: skip
    with pytest.raises(DomainError) as near:
        parse("tail left 2 @ 4")
    assert near.value.guesses[2].text == "tail left 2 at 4 paces"
    metric = parse("tail left 2 @ 18", to=Listener(units="metric", brace_datum="pivot"))
    assert metric.reading == TailSeen(across=-2, distance_m=18)


def test_how_far_a_tail_points_is_asked_and_never_guessed() -> None:
    with pytest.raises(DomainError) as refused:
        parse("tail left @ 2.3m")
    assert [parse(guess.text).reading for guess in refused.value.guesses] == [
        TailSeen(across=-grade, distance_m=2.3) for grade in (1, 2, 3)
    ]


def test_a_walk_back_drifts_by_least_squares() -> None:
    marks = [ColumnMark(distance_m=d, right_mm=-2.0 * (d - 10)) for d in (10, 15, 20, 30)]
    assert WalkedBack(marks=tuple(marks)).drift_mm == pytest.approx(-20)


def test_every_reading_says_itself_with_its_trial() -> None:
    tail = parse("tail right 44mm high 2mm @2.5m short 1in").reading
    assert (
        tail.say().text() == "Tail 44 mm right and 2 mm high: 3 arrows at 2.5 m; drawn 1 in short"
    )


def test_the_same_rig_is_reckoned_once() -> None:
    asked = rig(MATCHED).flight.basis.asked
    assert isinstance(asked, CurvesAsked)
    found = reckon(asked)
    assert reckon(asked) is found is known(asked)
    assert rig(MATCHED, "tail straight @ 2.3m").flight.basis.reckoned is found


def test_nothing_is_reckoned_of_a_rig_whose_flight_nobody_saw() -> None:
    asked: list[CurvesAsked] = []

    def never(one: CurvesAsked) -> None:
        asked.append(one)

    for said in ((), ("trial draw short 1in",), ("shooting steady",)):
        judge(compute(fold(entries(*RIG, MATCHED, *said)), never))
    assert asked == []
    judge(compute(fold(entries(*RIG, MATCHED, "slap none")), never))
    assert asked


def test_while_curves_are_reckoned_nothing_is_said_and_nothing_is_lost() -> None:
    found = entries(*RIG, MATCHED, "tail left 2 @ 2.3m", "wear plate")
    waiting = compute(fold(found), lambda _: None)
    assert waiting.flight.basis.waiting
    assessment = judge(waiting)
    assert assessment.reckoning
    assert assessment.stages[5].live.text == "not said yet"
    assert waiting.match == waiting.arrow.model
    assert judge(compute(fold(found))).stages[5].detail != assessment.stages[5].detail


def test_the_first_silencers_told_are_a_change_when_something_was_seen_before() -> None:
    """Nobody told of any: there were none. Told before the first shot they are how the rig is."""
    seen = (MATCHED, "tail straight @ 2.3m")
    after = rig(*seen, "silencers 30gr")
    moved = [line for line in after.flight.log if isinstance(line.step, Shifted)]
    assert len(moved) == 1
    assert moved[0].step is not None
    before = rig(MATCHED, "silencers 30gr", "tail straight @ 2.3m")
    assert not [line for line in before.flight.log if isinstance(line.step, Shifted)]
