"""Folding entries: what stands, what outranks, what is memo_by_equality."""

import random
from datetime import timedelta

from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core import entries as e
from lyrandis.core.assessment import assess
from lyrandis.core.bench_readings import PartFitted, Retraction
from lyrandis.core.effective import retracted_ids
from lyrandis.core.reading import Fitted
from lyrandis.core.record import as_entries
from lyrandis.core.setup import Setup, fold
from lyrandis.core.stages import STAGES
from tests.entries import NOW, any_entries, draft, entries, fitting


def without_count(setup: Setup) -> Setup:
    from dataclasses import replace

    return replace(setup, revision=0, entry_count=0)


def test_fold_of_nothing_is_an_empty_setup() -> None:
    assert fold([]) == Setup()


def test_fold_keeps_the_newest_by_when_it_happened() -> None:
    late = draft("bow 64", days=5)
    back_dated = draft("bow 62", days=2)
    setup = fold(entries(late, back_dated))
    assert setup.bow.length is not None
    assert setup.bow.length.reading.bow_length_mm == 64 * 25.4


def test_fold_adds_up_readings_that_do_not_settle_anything() -> None:
    setup = fold(entries("draw 27 3/8", "draw 27 1/2", "scale 40 @ 27", "scale 42 @ 28"))
    assert len(setup.archer.marked) == 2
    assert len(setup.bow.weighed) == 2


def test_fold_keeps_one_mass_per_arrow_number_and_all_without() -> None:
    setup = fold(entries("arrow 1 430gr", "arrow 1 431gr", "arrow 440gr", "arrow 441gr"))
    assert [m.reading.arrow_mass_gr for m in setup.arrows.masses] == [431.0, 440.0, 441.0]


def test_fold_takes_each_arrow_part_from_its_newest_entry() -> None:
    setup = fold(entries("shaft 30 9gpi", "point 100", "point 125"))
    assert setup.arrows.part("point_gr")[0] == 125.0
    assert setup.arrows.part("shaft_gr_per_in")[0] == 9.0


def test_swapping_a_part_changes_whose_readings_count_and_swapping_back_restores() -> None:
    first = [draft("arrow 1 430gr"), draft("arrow 1 500gr", subject="set-b", days=1)]
    drafts = [*fitting(), *first]
    swapped = [*drafts, draft(PartFitted(part="arrow_set", part_id="set-b"), on="rig", days=2)]
    back = [*swapped, draft(PartFitted(part="arrow_set", part_id="set-a"), on="rig", days=3)]
    masses = [
        fold(as_entries(list_, now=NOW), rig="rig-1").arrows.masses[0].reading.arrow_mass_gr
        for list_ in (drafts, swapped, back)
    ]
    assert masses == [430.0, 500.0, 430.0]


def test_a_shared_bow_shares_its_weighings_between_rigs() -> None:
    drafts = [
        *fitting(),
        draft(PartFitted(part="bow", part_id="yew"), on="rig", subject="rig-2"),
        draft("scale 40 @ 27", days=1),
    ]
    both = as_entries(drafts, now=NOW)
    assert fold(both, rig="rig-1").bow.weighed == fold(both, rig="rig-2").bow.weighed != ()


def test_a_brace_taken_with_another_bow_does_not_count() -> None:
    other_bow = draft(PartFitted(part="bow", part_id="ash"), on="rig", days=3)
    setup = fold(entries("brace 7 5/8", other_bow))
    assert setup.string.brace_height is None


def test_fitted_parts_written_on_an_entry_outrank_what_is_worked_out() -> None:
    taken_with_ash = draft("brace 7 5/8", days=4, fitted=Fitted(bow="ash", string="cord"))
    assert fold(entries(taken_with_ash)).string.brace_height is None


def test_hold_on_this_rig_outranks_the_archers_usual_one() -> None:
    setup = fold(entries("hold thumb here", "hold split"))
    assert setup.archer.hold is not None
    assert setup.archer.hold.reading.hold == "thumb"


def test_fold_as_of_a_day_leaves_out_what_came_later() -> None:
    both = entries("bow 62", "bow 64")
    then = fold(both, as_of=NOW + timedelta(days=1, hours=1))
    assert then.bow.length is not None
    assert then.bow.length.reading.bow_length_mm == 62 * 25.4


def test_taking_back_a_retraction_puts_the_entry_back() -> None:
    start = entries("bow 62")
    target = start[-1].id
    once = [*fitting(), draft("bow 62", days=1), draft(Retraction(entry_id=target), on="bow")]
    gone = as_entries(once, now=NOW)
    assert fold(gone).bow.length is None
    twice = as_entries([*once, draft(Retraction(entry_id=gone[-1].id), on="bow")], now=NOW)
    assert fold(twice).bow.length is not None


def test_retractions_that_point_at_each_other_end() -> None:
    loop = [
        draft(Retraction(entry_id="posted-2"), on="rig"),
        draft(Retraction(entry_id="posted-1"), on="rig"),
    ]
    assert retracted_ids(as_entries(loop, now=NOW)) == {"posted-1"}


@given(any_entries(), st.randoms(use_true_random=False))
def test_fold_does_not_depend_on_the_order_of_the_list(
    found: list[e.Entry], shuffler: random.Random
) -> None:
    shuffled = list(found)
    shuffler.shuffle(shuffled)
    assert fold(found) == fold(shuffled)


@given(any_entries().filter(bool), st.data())
def test_taking_back_the_newest_entry_restores_exactly(
    found: list[e.Entry], data: st.DataObject
) -> None:
    extra = data.draw(st.sampled_from(found))
    newest = max(entry.seq for entry in found)
    added = extra.model_copy(update={"id": "added-entry", "seq": newest + 1})
    taken_back = e.Entry(
        subject=added.subject,
        reading=Retraction(entry_id="added-entry"),
        happened_at=added.happened_at,
        recorded_at=NOW,
        source="told",
        id="the-retraction",
        seq=newest + 2,
    )
    before = fold(found, rig="rig-1")
    after = fold([*found, added, taken_back], rig="rig-1")
    if not isinstance(added.reading, Retraction):
        assert without_count(after) == without_count(before)


@given(any_entries())
@settings(max_examples=200)
def test_any_list_of_valid_entries_gives_an_assessment(found: list[e.Entry]) -> None:
    assessment = assess(fold(found))
    assert [stage.key for stage in assessment.stages] == [
        room.key for room in STAGES if room.applies(fold(found))
    ]
    assert len({finding.id for finding in assessment.findings}) == len(assessment.findings)
    text = assessment.model_dump_json()
    assert "NaN" not in text
    assert "Infinity" not in text


@given(any_entries())
def test_assess_is_deterministic(found: list[e.Entry]) -> None:
    assert assess(fold(found)) == assess(fold(list(found)))
