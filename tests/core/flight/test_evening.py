"""One plan for an evening: what is asked first, what is due now, what is kept, and what ends it."""

import math

import pytest

from lyrandis.core import entries as e
from lyrandis.core.arrow.spine_board import spine_board
from lyrandis.core.assessment import assess
from lyrandis.core.computed import Computed, compute
from lyrandis.core.flight.board import board
from lyrandis.core.flight.curves import USUAL_CURVES
from lyrandis.core.flight.evidence import Saw, Shifted
from lyrandis.core.flight.keep import differs, settings_of
from lyrandis.core.flight.plan import left_changed, test_asked, under_way
from lyrandis.core.flight.readings import (
    ButtHits,
    Change,
    Hit,
    KeptSettings,
    RigTuned,
    SittingEnded,
    TailSeen,
    TrialSet,
)
from lyrandis.core.judgement import NextStep
from lyrandis.core.nock.page import page as nock_page
from lyrandis.core.order.page import work_order
from lyrandis.core.reading import BaseReading
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from tests.core.flight.test_evidence import MATCHED, RIG, STIFF
from tests.core.population.rigs import rig_of
from tests.entries import NOW, draft, entries, fitting

Said = str | BaseReading | e.EntryDraft
TUNED = (MATCHED, "tail straight @ 2.3m 6 arrows", "wear none",
         *["bare 0cm left @ 18m 6 arrows"] * 2)  # fmt: skip
test_asked.__test__ = False  # type: ignore[attr-defined]


def rig(*said: Said, without: tuple[str, ...] = ()) -> Computed:
    told = [line for line in RIG if not line.startswith(without)] if without else RIG
    return compute(fold(entries(*told, *said)))


def step_of(c: Computed) -> NextStep:
    step = under_way(c)
    assert step is not None
    return step


# first questions first


@pytest.mark.parametrize(
    ("without", "title", "control"),
    [
        ("hand", "Say which hand draws", "hand"),
        ("shaft", "Tell how long the shafts are", "shaft"),
        ("spine", "Tell the shafts' spine", "spine"),
        ("window 2mm", "Tell where the plate stands", "window"),
    ],
)
def test_a_reading_waits_for_what_it_needs_and_says_what(
    without: str, title: str, control: str
) -> None:
    said = () if without == "spine" else (MATCHED,)
    c = rig(*said, "tail left 2 @ 2.3m", without=(without,))
    step = step_of(c)
    assert (step.title.text(), step.action.control) == (title, control)
    assert c.flight.belief.counted == 0, "kept, not judged"
    finding = next(f for f in assess(c.setup).findings if f.id == "flight-waits")
    assert "waits" in finding.sentence.text()
    told = rig(MATCHED, "tail left 2 @ 2.3m")
    assert told.flight.belief.counted == 1


def test_where_the_plate_stands_may_be_left_open() -> None:
    waits = rig(MATCHED, "tail left 2 @ 2.3m", without=("window 2mm",))
    assert step_of(waits).aside == "window"
    aside = rig(MATCHED, "tail left 2 @ 2.3m", "aside window", without=("window 2mm",))
    assert aside.flight.belief.counted == 1


# what is sure is corrected at once, and there is always something to do


def test_what_is_sure_is_corrected_at_once_with_one_kind_of_evidence() -> None:
    c = rig(STIFF, *["tail right 3 @ 2.3m 6 arrows"] * 2)
    assert c.flight.verdict.sure == "stiff"
    assert c.flight.tests.ranked, "there are tests left, and it does not wait for them"
    step = step_of(c)
    assert "because it is surely too stiff" in step.why.text()
    assert step.action.records


def test_the_nock_that_is_off_goes_before_the_shaft() -> None:
    c = rig(STIFF, *["tail right 3 high 3 @ 2.3m 6 arrows"] * 3, "bare 40cm left 40cm low @ 18m")
    assert step_of(c).why.text().startswith("Now the nock, because")
    first = [one for one in (board(c).correction or pytest.fail("none")).levers if one.first]
    assert [one.axis for one in first] == ["upright"]


def test_a_trial_begins_from_the_card_and_is_put_back_from_it() -> None:
    c = rig(STIFF, *["tail right 3 @ 2.3m 6 arrows"] * 2)
    begin = step_of(c).action.records[0].reading
    assert isinstance(begin, TrialSet)
    assert begin.trial is not None
    said = (STIFF, *["tail right 3 @ 2.3m 6 arrows"] * 2, begin)
    on = left_changed(rig(*said))
    assert on is not None
    assert on.title.text().startswith("Shoot three with shafts of")
    shot = TailSeen(across=0, distance_m=2.3, trial=begin.trial)
    back = left_changed(rig(*said, shot))
    assert back is not None
    assert back.title.text() == "Your own shafts again"
    assert back.action.records[0].reading == TrialSet()


def test_shafts_that_flew_are_got_and_what_was_seen_goes_with_them() -> None:
    trial = Change(what="other_shafts", amount=54.0)
    said = (STIFF, *["tail right 3 @ 2.3m 6 arrows"] * 2, "bare 40cm left @ 18m 6 arrows",
            *[TailSeen(across=0, distance_m=2.3, arrows=6, trial=trial)] * 3)  # fmt: skip
    before = rig(*said)
    step = step_of(before)
    assert step.title.text().startswith("Get shafts of")
    assert (step.action.stage, step.action.control) == ("arrow", "spine")
    spine = before.flight.belief.spine
    assert spine is not None
    here = rig(*said, "spine 54 lb")
    moved = here.flight.belief.steps[-1]
    assert isinstance(moved, Shifted)
    own = before.flight.basis.own_lbf or 0.0
    assert moved.by == pytest.approx(10 * math.log(54 / own), abs=0.02)
    after = here.flight.belief.spine
    assert after is not None
    assert after.mean == pytest.approx(spine.mean + moved.by, abs=0.3)
    assert here.flight.belief.confirms == 2


def test_a_spine_read_better_is_no_change() -> None:
    c = rig(MATCHED, "tail right 1 @ 2.3m", "spine 490")
    assert not any(isinstance(step, Shifted) for step in c.flight.belief.steps)


def test_tuned_needs_two_readings_after_the_last_change() -> None:
    c = rig(*TUNED)
    assert c.flight.verdict.tuned
    moved = rig(*TUNED, "point 125gr")
    assert moved.flight.belief.confirms == 2
    assert not moved.flight.verdict.tuned
    again = rig(*TUNED, "point 125gr", "bare 0cm left @ 18m 6 arrows", "bare 0cm left @ 18m")
    assert again.flight.belief.confirms == 0


# never an empty step, and an end


def flown_to_the_end(start: tuple[Said, ...], across: tuple[int, ...]) -> list[Said]:
    """Do what the card says until it says to keep; tails read these in turn."""
    said: list[Said] = [*start, TailSeen(across=across[0], distance_m=2.3)]
    for i in range(1, 80):
        c = rig(*said)
        step = left_changed(c) or step_of(c)
        buttons = [one for one in (step.action, step.other) if one]
        if any(isinstance(made.reading, RigTuned) for one in buttons for made in one.records):
            return said
        if step.action.records:
            said += [made.reading for made in step.action.records]
            continue
        test, trial = test_asked(c), c.flight.facts.trial
        if trial is None and test is not None and test.sees == "slap":
            said.append("slap none")
        else:
            far = 2.3 if trial or test is None else test.distance_m
            said.append(TailSeen(across=across[i % len(across)], distance_m=far, trial=trial))
    raise AssertionError("it never ends")


def test_where_no_test_tells_enough_it_says_how_near_and_ends() -> None:
    said = flown_to_the_end((MATCHED, "bareset none", "feltset none"), (1, 1, 0))
    c = rig(*said)
    step = step_of(c)
    assert step.title.text() == "As near as this bow can be told"
    assert board(c).near is not None
    buttons = [one.records[0].reading for one in (step.action, step.other) if one]
    kept = next(one for one in buttons if isinstance(one, RigTuned))
    another = next(one for one in buttons if isinstance(one, SittingEnded))
    assert not kept.tuned
    assert under_way(rig(*said, kept)) is None, "kept, it is at its end"
    assert assess(rig(*said, kept).setup).stages[5].live.text == "near enough"
    fresh = rig(*said, another)
    assert fresh.flight.belief.sitting is not None
    assert fresh.flight.belief.sitting.done == ()
    assert fresh.flight.belief.counted == c.flight.belief.counted, "what was seen counts still"


def test_begun_anew_what_was_seen_before_counts_no_more() -> None:
    said = (MATCHED, "tail right 3 @ 2.3m", "bare 45cm right @ 18m", SittingEnded(anew=True))
    c = rig(*said, "tail straight @ 2.3m")
    assert c.flight.belief.counted == 1
    assert len(board(c).ledger) == 4, "what does not count is shown nevertheless"


def test_the_odd_reading_is_named_and_taken_back_from_the_card() -> None:
    said = (MATCHED, *["tail straight @ 2.3m 6 arrows", "bare 0cm left @ 18m 6 arrows"] * 2,
            "bare 150cm left @ 18m 6 arrows", "tail straight @ 2.3m 6 arrows")  # fmt: skip
    c = rig(*said)
    if not c.flight.verdict.contradicted:
        pytest.skip("these agree well enough")
    step = step_of(c)
    assert step.title.text() == "Take back the odd one out"
    assert "59" in step.why.text()


# changes are evidence; a kept tuning keeps its settings


def test_a_changed_point_keeps_the_curves_the_readings_were_made_with() -> None:
    before, after = rig(MATCHED, "tail right 1 @ 2.3m"), rig(
        MATCHED, "tail right 1 @ 2.3m", "point 135gr"
    )  # fmt: skip
    then, now = before.flight.basis.asked, after.flight.basis.asked
    assert then is not None
    assert now is not None
    assert now.shot.beam.tip == pytest.approx(then.shot.beam.tip)
    assert now.matched_lbf == pytest.approx(then.matched_lbf, abs=0.3)
    was, spine = before.flight.belief.spine, after.flight.belief.spine
    shift = after.flight.belief.steps[-1]
    assert isinstance(shift, Shifted)
    assert was is not None
    assert spine is not None
    assert spine.mean == pytest.approx(was.mean + shift.by, abs=0.25)


@pytest.mark.parametrize(
    ("change", "said"),
    [("brace 7 3/4 grip", "brace −1/4 in"), ("point 135gr", "point +25 gr"),
     ("lift 8mm", "nock +3"), ("silencers 20gr", "silencers +20 gr")],
)  # fmt: skip
def test_what_differs_from_a_kept_tuning_puts_tuned_in_doubt_everywhere(
    change: str, said: str
) -> None:
    kept = step_of(rig(*TUNED)).action.records[0].reading
    assert isinstance(kept, RigTuned)
    assert kept.settings == settings_of(rig(*TUNED).flight.upstream)
    c = rig(*TUNED, kept, change)
    found = assess(c.setup)
    stage = next(one for one in found.stages if one.key == "flight")
    assert (stage.mark, stage.live.text) == ("in_doubt", "tuned, in doubt")
    doubted = work_order(c).tuning_doubted
    assert doubted is not None
    for says in (stage.moved, board(c).differs, doubted):
        assert says is not None
        assert said in says.text()
    put_back = rig(*TUNED, kept)
    assert work_order(put_back).tuning_doubted is None


def test_an_old_tuning_without_settings_doubts_nothing() -> None:
    old = RigTuned(matched_lbf=54, model_lbf=60, offset=1, sd=0.5)
    assert differs(old, KeptSettings(brace_mm=190)) == ()


# the nock's own page and the flight agree


def test_a_high_lift_is_high_before_anything_was_seen() -> None:
    high, usual = rig(MATCHED, "lift 12mm"), rig(MATCHED, "lift 3mm")
    assert high.flight.basis.nock_prior.centre == pytest.approx(-4.5)
    assert usual.flight.basis.nock_prior.centre == 0.0
    one = rig(MATCHED, "lift 12mm", "tail straight high 1 @ 2.3m")
    assert one.flight.verdict.nock == "weak", "too high"


def test_heights_shot_in_flight_are_heights_shot_and_the_other_way() -> None:
    c = rig(MATCHED, "tail straight @ 2.3m", "bare 0cm left 20cm low @ 18m")
    shown = [(shot.lift_mm, shot.flew, shot.in_flight) for shot in nock_page(c).side.shots]
    assert shown == [(5.0, "bare_low", True)]
    level = rig(MATCHED, "tail straight @ 2.3m", "bare 0cm left 20cm low @ 18m", "lift 3mm",
                "bare 0cm left 0cm high @ 18m")  # fmt: skip
    assert level.nock.schools.bare == (3.0, 3.0)
    told = rig(MATCHED, "tail straight @ 2.3m", "nockshot 5mm bare low")
    assert told.flight.belief.looked_up
    step = told.flight.belief.steps[-1]
    assert isinstance(step, Saw)
    assert step.upright == pytest.approx(-0.12)
    assert told.flight.belief.counted == 1, "of the shaft it says nothing"


# one verdict, in one place


def test_before_any_shot_the_flight_repeats_the_matchs_word() -> None:
    c = rig("spine 300")
    found = board(c)
    assert found.under is not None
    word = {"stiff": "too stiff", "far": "far too stiff", "little_stiff": "a little stiff"}
    assert c.match is not None
    assert word[c.match.word(c.flight.basis.own_lbf or 0)] in found.under.text()


@pytest.mark.parametrize(
    "said",
    [
        (STIFF, *["tail right 3 @ 2.3m 6 arrows"] * 2),
        ("spine 700", "tail left 3 @ 2.3m 6 arrows", "bare 40cm right @ 18m 6 arrows"),
        TUNED,
        ("spine 350", "tail left 2 @ 2.3m", "wear plate"),
    ],
)
def test_a_cause_is_said_with_one_chance_wherever_it_is_said(said: tuple[Said, ...]) -> None:
    c = rig(*said)
    told = c.flight.verdict.said
    assert told is not None
    stage = next(one for one in assess(c.setup).stages if one.key == "flight")
    likeliest = next(one for one in stage.values if one.key == "likeliest")
    assert likeliest.figure is not None
    assert likeliest.figure.value == pytest.approx(100 * told.chance)
    bars = {bar.key: bar.chance for bar in board(c).causes}
    of_side = bars["stiff"] + bars["false_weak"] if told.strikes is not None else bars[told.cause]
    assert of_side == pytest.approx(told.chance)
    assert bars["tuned"] <= 0.8, "more than four in five never came true"
    finding = [f for f in assess(c.setup).findings if f.id == "flight-cause"]
    for one in finding:
        figure = one.sentence.figures.get("chance")
        assert figure is None or figure.value == pytest.approx(100 * told.chance)


def test_hits_say_what_they_read() -> None:
    hits = (Hit(right_mm=0, up_mm=0), Hit(right_mm=203.2, up_mm=2, bare=True))
    says = ButtHits(hits=hits, distance_m=18).say().text()
    assert says == "1 bare and 1 fletched at 18 m: bare 8 in right"


def test_the_match_follows_the_flight_once_there_is_one() -> None:
    stiff_by_model = spine_board(rig("spine 350")).bare
    assert stiff_by_model is not None
    assert stiff_by_model.side == "left"
    seen = spine_board(rig("spine 350", *["bare 40cm right @ 18m 6 arrows"] * 4,
                           *["tail left 3 @ 2.3m 6 arrows"] * 3)).bare  # fmt: skip
    assert seen is not None
    assert seen.side == "right"


def test_a_bow_whose_contact_is_not_understood_goes_by_bare_and_other_shafts() -> None:
    """A light bow far past centre, for which no computed shaft leaves straight."""
    told = (*rig_of(2).lines(), "lift 3mm", "tail left 1 @ 2.3m")
    c = compute(fold(entries(*told)))
    assert c.flight.basis.reckoned is not None
    assert not c.flight.basis.reckoned.understood
    assert c.flight.basis.reckoned.curves.impulse == USUAL_CURVES.impulse
    assert {test.sees for test in c.flight.tests.offered} <= {"bare", "tail"}
    assert all(
        test.sees == "bare" or test.pushed == "other_shafts" for test in c.flight.tests.offered
    )
    finding = next(f for f in assess(c.setup).findings if f.id == "flight-contact")
    assert "bare shafts and other shafts decide" in finding.sentence.text()
    without = compute(fold(entries(*told, "bareset none")))
    assert {test.sees for test in without.flight.tests.offered} >= {"tail", "slap"}, (
        "where there are neither, the tail is all there is"
    )


def test_a_nock_told_before_a_string_was_fitted_is_where_it_stood() -> None:
    before = [line for line in RIG if not line.startswith("lift")]
    parts = {"archer": "ann", "bow": "yew", "arrow_set": "set-a"}
    told = [
        *fitting(**parts), draft("lift 5mm", days=0.1), *fitting(string="cord"),
        *(draft(line, days=day) for day, line in enumerate((*before, MATCHED), start=1)),
        draft("tail straight high 1 @ 2.3m", days=60), draft("lift 3mm", days=61),
    ]  # fmt: skip
    c = compute(fold(as_entries(told, now=NOW)))
    moved = c.flight.belief.steps[-1]
    assert isinstance(moved, Shifted)
    assert (moved.axis, moved.by) == ("upright", 1.0)


def test_other_shafts_take_the_place_of_numbered_ones() -> None:
    """Gauged one by one, then others told as a set: the step moves the belief, and goes on."""
    gauged = ("arrow 1 spine 85 lb", "arrow 2 spine 84 lb")
    c = rig(*gauged, *["tail right 3 @ 2.3m 6 arrows"] * 2)
    assert c.flight.basis.own_lbf == pytest.approx(84.5)
    label = rig(*gauged, *["tail right 3 @ 2.3m 6 arrows"] * 2, "spine 78 lb")
    assert label.flight.basis.own_lbf == pytest.approx(84.5), "a label of the same ones"
    others = rig(*gauged, *["tail right 3 @ 2.3m 6 arrows"] * 2, "spine 60 lb")
    assert others.flight.basis.own_lbf == pytest.approx(60.0)
    moved = others.flight.belief.steps[-1]
    assert isinstance(moved, Shifted)
    assert moved.by == pytest.approx(10 * math.log(60 / 84.5), abs=0.01)
