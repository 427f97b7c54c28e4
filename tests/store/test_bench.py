"""Recording and reading back: all or nothing, nothing written over, nothing doubled."""

from datetime import timedelta

import pytest

from lyrandis.core import entries as e
from lyrandis.core.archer.readings import DrawMarked
from lyrandis.core.bench_readings import Named, PartFitted, Retraction
from lyrandis.core.bow.readings import BowLength, BowWeighed, RiserLength
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import Fitted
from lyrandis.core.setup import fold
from lyrandis.core.string.readings import BraceHeight
from lyrandis.demo.scenario import drafts as demo_drafts
from lyrandis.store.bench import Bench, NewPart
from tests.store.conftest import Clock, on


def code_of(caught: pytest.ExceptionInfo[DomainError]) -> str:
    return caught.value.code


def take_back(bench: Bench, entry_id: str) -> e.Entry:
    [taken] = bench.retract(e.Taking(entry_id=entry_id))
    return taken


def test_make_rig_fits_its_parts_and_names_them_readably(bench: Bench, rig: str) -> None:
    assert rig == "ann-s-rig"
    setup = fold(bench.entries_of_rig(rig), rig=rig)
    assert setup.fitted == Fitted(archer="ann", bow="yew-bow", arrow_set="set-a")
    assert setup.bow.name == "Yew bow"


def test_ids_of_the_same_name_are_numbered(bench: Bench, rig: str) -> None:
    alike = NewPart("bow", "Yew bow", alike=True)
    assert bench.make([alike, alike]) == ["yew-bow-2", "yew-bow-3"]
    assert bench.make([NewPart("bow", "弓")]) == ["bow"]


def test_recorded_entries_come_back_as_they_were(bench: Bench, rig: str, clock: Clock) -> None:
    happened = clock.now - timedelta(days=3)
    draft = on(
        "archer",
        "ann",
        DrawMarked(draw_length_mm=695.325, datum="back"),
        happened_at=happened,
        note="cold hands",
        as_typed="draw 27 3/8 back",
    )
    [entry] = bench.record([draft])
    [found] = [s for s in bench.entries_of_rig(rig) if s.id == entry.id]
    assert found == entry
    assert found.happened_at == happened
    assert found.recorded_at > happened
    assert (found.source, found.note, found.as_typed) == (
        "measured",
        "cold hands",
        "draw 27 3/8 back",
    )


def test_a_batch_is_recorded_whole_or_not_at_all(bench: Bench, rig: str) -> None:
    before = bench.entries_of_rig(rig)
    good = on("bow", "yew-bow", BowLength(bow_length_mm=1600.0))
    missing = on("bow", "no-such-bow", BowLength(bow_length_mm=1600.0))
    with pytest.raises(DomainError) as caught:
        bench.record([good, missing])
    assert code_of(caught) == "no_such_subject"
    assert bench.entries_of_rig(rig) == before


def test_a_rigs_own_entry_remembers_the_parts_that_were_on_it(bench: Bench, rig: str) -> None:
    [brace] = bench.record([on("rig", rig, BraceHeight(brace_height_mm=190.0))])
    assert brace.fitted == Fitted(archer="ann", bow="yew-bow", arrow_set="set-a")
    bench.make([NewPart("bow", "Ash bow")])
    bench.record([on("rig", rig, PartFitted(part="bow", part_id="ash-bow"))])
    [later] = bench.record([on("rig", rig, BraceHeight(brace_height_mm=180.0))])
    assert later.fitted is not None
    assert later.fitted.bow == "ash-bow"
    earlier = next(s for s in bench.entries_of_rig(rig) if s.id == brace.id)
    assert earlier.fitted == brace.fitted


def test_retraction_is_an_entry_and_undoing_it_restores(bench: Bench, rig: str) -> None:
    [length] = bench.record([on("bow", "yew-bow", BowLength(bow_length_mm=1600.0))])
    before = fold(bench.entries_of_rig(rig), rig=rig).bow
    retraction = take_back(bench, length.id)
    assert fold(bench.entries_of_rig(rig), rig=rig).bow.length is None
    assert length in bench.entries_of_rig(rig)
    take_back(bench, retraction.id)
    assert fold(bench.entries_of_rig(rig), rig=rig).bow == before


def test_an_entry_cannot_be_taken_back_twice(bench: Bench, rig: str) -> None:
    [length] = bench.record([on("bow", "yew-bow", BowLength(bow_length_mm=1600.0))])
    first = take_back(bench, length.id)
    with pytest.raises(DomainError) as caught:
        take_back(bench, length.id)
    assert code_of(caught) == "already_retracted"
    take_back(bench, first.id)
    take_back(bench, length.id)


def test_a_batch_is_taken_back_whole_or_not_at_all(bench: Bench, rig: str) -> None:
    readings = [BowLength(bow_length_mm=1600.0), RiserLength(riser_length_mm=400.0)]
    one, two = bench.record([on("bow", "yew-bow", reading) for reading in readings])
    with pytest.raises(DomainError) as caught:
        bench.retract(e.Taking(entry_id=one.id), e.Taking(entry_id="no-such-entry"))
    assert code_of(caught) == "no_such_entry"
    assert fold(bench.entries_of_rig(rig), rig=rig).bow.length is not None
    takings = [e.Taking(entry_id=s.id, id=f"{s.id[:30]}-back") for s in (one, two)]
    taken = bench.retract(*takings)
    assert bench.retract(*takings) == taken  # the answer was lost: sent again, recorded once
    assert fold(bench.entries_of_rig(rig), rig=rig).bow.length is None


def test_the_only_name_cannot_be_taken_back(bench: Bench, rig: str) -> None:
    name = next(s for s in bench.entries_of("yew-bow") if isinstance(s.reading, Named))
    with pytest.raises(DomainError) as caught:
        take_back(bench, name.id)
    assert code_of(caught) == "name_needed"
    bench.record([on("bow", "yew-bow", Named(name="Old yew"))])
    take_back(bench, name.id)
    assert [s.name for s in bench.subjects("bow")] == ["Old yew"]


@pytest.mark.parametrize(
    ("draft", "code"),
    [
        (on("bow", "ann", BowLength(bow_length_mm=1600.0)), "no_such_subject"),
        (on("rig", "ann-s-rig", PartFitted(part="bow", part_id="ann")), "no_such_part"),
        (on("rig", "ann-s-rig", PartFitted(part="bow", part_id="none")), "no_such_part"),
        (on("bow", "yew-bow", Retraction(entry_id="no-such-entry")), "no_such_entry"),
    ],
)
def test_entries_on_what_is_not_there_are_refused(
    bench: Bench, rig: str, draft: e.EntryDraft, code: str
) -> None:
    with pytest.raises(DomainError) as caught:
        bench.record([draft])
    assert code_of(caught) == code


def test_a_future_date_is_refused(bench: Bench, rig: str, clock: Clock) -> None:
    reading = BowLength(bow_length_mm=1600.0)
    tomorrow = clock.now + timedelta(days=1)
    with pytest.raises(DomainError) as caught:
        bench.record([on("bow", "yew-bow", reading, happened_at=tomorrow)])
    assert code_of(caught) == "in_the_future"


def test_the_same_entry_sent_twice_is_recorded_once(bench: Bench, rig: str) -> None:
    draft = on("bow", "yew-bow", BowLength(bow_length_mm=1600.0), id="sent-twice-1")
    assert bench.record([draft]) == bench.record([draft])
    other = on("bow", "yew-bow", BowLength(bow_length_mm=1700.0), id="sent-twice-1")
    with pytest.raises(DomainError) as caught:
        bench.record([other])
    assert code_of(caught) == "id_taken"


def test_writing_over_something_newer_and_unseen_is_refused(bench: Bench, rig: str) -> None:
    seen = max(entry.seq for entry in bench.entries_of_rig(rig))
    bench.record([on("bow", "yew-bow", BowLength(bow_length_mm=1600.0))], seen=seen)
    with pytest.raises(DomainError) as caught:
        bench.record([on("bow", "yew-bow", BowLength(bow_length_mm=1700.0))], seen=seen)
    assert code_of(caught) == "changed_meanwhile"
    # readings that add up, and other topics, do not clash
    weighed = BowWeighed(draw_weight_lbf=40.0, draw_length_mm=700.0)
    bench.record([on("bow", "yew-bow", weighed), on("bow", "yew-bow", weighed)], seen=seen)
    bench.record([on("bow", "yew-bow", RiserLength(riser_length_mm=400.0))], seen=seen)


def test_the_demo_loads_whole_and_once(bench: Bench) -> None:
    assert bench.is_empty()
    bench.load(demo_drafts(), origin="demo")
    assert [rig.name for rig, _, _ in bench.rigs_as_fitted()] == [
        "Marram longbow",
        "Tideway recurve",
        "Sandpiper thumb bow",
    ]
    assert {subject.origin for subject in bench.subjects()} == {"demo"}
