"""Making entries of drafts: defaults, instants, and the parts fitted at the time."""

from datetime import timedelta

import pytest

from lyrandis.core import entries as e
from lyrandis.core.archer.readings import DrawMarked, GripDepth
from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed
from lyrandis.core.bench_readings import Noted, PartFitted
from lyrandis.core.bow.readings import BowLength
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import BaseReading, Fitted, Subject
from lyrandis.core.record import Fittings, as_entries, check_instant, recorded
from tests.entries import NOW, draft, fitting


@pytest.mark.parametrize(
    ("said", "source"),
    [
        ("draw 28", "measured"),
        ("draw said 28", "told"),
        ("scale 40 @ 28", "weighed"),
        ("mark 40", "told"),
        ("arrow 400gr", "weighed"),
        ("arrow 400gr ?", "estimated"),
        ("brace 7", "measured"),
    ],
)
def test_a_reading_has_the_usual_source_of_its_kind(said: str, source: str) -> None:
    [entry] = as_entries([draft(said)], now=NOW)
    assert entry.source == source


def test_without_an_instant_it_happened_when_it_was_recorded() -> None:
    plain = e.EntryDraft(
        subject=Subject(kind="bow", id="yew"), reading=BowLength(bow_length_mm=1600.0)
    )
    entry = recorded(plain, entry_id="entry-one", seq=3, now=NOW)
    assert entry.happened_at == entry.recorded_at == NOW
    assert (entry.id, entry.seq) == ("entry-one", 3)


def test_what_a_file_says_of_an_entry_is_kept() -> None:
    posted = draft("brace 7", id="from-a-file", seq=9, fitted=Fitted(bow="yew"))
    [entry] = as_entries([posted], now=NOW + timedelta(days=9), after=100)
    assert (entry.id, entry.seq, entry.fitted) == ("from-a-file", 9, Fitted(bow="yew"))


def test_a_few_minutes_of_clock_difference_are_no_future() -> None:
    check_instant(NOW + timedelta(minutes=4), NOW)
    with pytest.raises(DomainError) as caught:
        check_instant(NOW + timedelta(minutes=6), NOW)
    assert caught.value.field == "happened_at"


def test_what_was_fitted_is_asked_of_an_instant() -> None:
    swap = draft(PartFitted(part="bow", part_id="ash"), on="rig", days=5)
    fittings = Fittings(as_entries([*fitting(), swap], now=NOW))
    assert fittings.at(NOW + timedelta(days=1)).bow == "yew"
    assert fittings.at(NOW + timedelta(days=6)).bow == "ash"
    assert fittings.at(NOW - timedelta(days=1)) == Fitted()


@pytest.mark.parametrize("order", [(0, 1, 2, 3), (3, 2, 1, 0), (2, 0, 3, 1)])
def test_a_fitting_written_up_late_counts_from_when_it_happened(order: tuple[int, ...]) -> None:
    drafts = [
        draft(PartFitted(part="bow", part_id=bow), on="rig", days=day)
        for day, bow in enumerate(["yew", "ash", None, "elm"])
    ]
    entries = as_entries(drafts, now=NOW)
    fittings = Fittings()
    for place in order:
        fittings.at(NOW + timedelta(days=9))
        fittings.add(entries[place])
    days = [fittings.at(NOW + timedelta(days=day, hours=1)).bow for day in range(4)]
    assert days == ["yew", "ash", None, "elm"]


@pytest.mark.parametrize(
    ("reading", "topics"),
    [
        (BowLength(bow_length_mm=1600.0), {"bow_length"}),
        (DrawMarked(draw_length_mm=700.0), set()),
        (Noted(text="x"), set()),
        (ArrowMassed(arrow_mass_gr=400.0), set()),
        (ArrowMassed(arrow_mass_gr=400.0, arrow_number=4), {"arrow_mass:4"}),
        (PartFitted(part="bow", part_id="yew"), {"part_fitted:bow"}),
        (GripDepth(to="back", depth_mm=44.0), {"grip_depth:back"}),
        (
            ArrowBuild(point_gr=125.0, insert_gr=0.0),
            {"arrow_build:point_gr", "arrow_build:insert_gr"},
        ),
    ],
)
def test_topics_say_what_a_reading_takes_the_place_of(
    reading: BaseReading, topics: set[str]
) -> None:
    assert reading.topics() == topics
