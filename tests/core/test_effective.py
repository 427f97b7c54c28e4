"""The effective readings: what counts of a rig as it is now, and what a reading says of itself."""

from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core import entries as e
from lyrandis.core.archer.readings import GripDepth, HoldChosen
from lyrandis.core.arrow.readings import ArrowMassed, NumberedArrow
from lyrandis.core.bench_readings import Noted, PartFitted
from lyrandis.core.bow.readings import BowMark, BowWeighed, Inspected, LimbPair
from lyrandis.core.effective import (
    EffectiveReadings,
    in_force,
    in_order,
    newest,
    parts_fitted,
    retracted_ids,
)
from lyrandis.core.reading import PARTS, BaseReading, PartKind, SubjectKind
from lyrandis.core.record import as_entries
from lyrandis.core.string.readings import StringBuild
from tests.entries import IDS, NOW, any_entries, draft, entries, fitting


def pile_of(found: list[e.Entry], rig: str | None = IDS["rig"]) -> EffectiveReadings:
    standing = in_force(found)
    return EffectiveReadings(standing, rig, parts_fitted(standing, rig))


def test_an_empty_pile_has_nothing() -> None:
    readings = EffectiveReadings()
    assert readings.all(BowMark) == ()
    assert readings.last(BowMark) is None
    assert readings.merged(LimbPair) is None
    assert readings.newest(StringBuild, "strands") == (None, None)
    assert readings.names == {}


def test_last_is_the_newest_and_all_keeps_the_order() -> None:
    readings = pile_of(entries("mark 40", "mark 45", "scale 40 @ 27", "scale 42 @ 28"))
    mark = readings.last(BowMark)
    assert mark is not None
    assert mark.reading.draw_weight_lbf == 45
    assert [one.reading.draw_weight_lbf for one in readings.all(BowWeighed)] == [40, 42]


def test_a_rigs_own_reading_comes_before_the_archers() -> None:
    readings = pile_of(entries("hold thumb here", "hold split"))
    hold = readings.last(HoldChosen)
    assert hold is not None
    assert hold.on_rig
    assert hold.reading.hold == "thumb"
    assert [one.reading.hold for one in readings.all(HoldChosen)] == ["split", "thumb"]


def test_a_key_tells_which_of_several_is_meant() -> None:
    readings = pile_of(entries("grip 2 back", "grip 1/2 belly", "grip 1 3/4 back"))
    back, belly = readings.last(GripDepth, "back"), readings.last(GripDepth, "belly")
    assert back is not None
    assert belly is not None
    assert (back.reading.depth_mm, belly.reading.depth_mm) == pytest.approx((44.45, 12.7))


def test_keyed_keeps_one_of_each_number_and_all_without_one() -> None:
    readings = pile_of(entries("arrow 1 400gr", "arrow 410gr", "arrow 2 404gr", "arrow 1 402gr",
                           "arrow 412gr"))  # fmt: skip
    found = [(one.reading.arrow_number, one.reading.arrow_mass_gr)
             for one in readings.keyed(ArrowMassed)]  # fmt: skip
    assert found == [(1, 402), (None, 410), (2, 404), (None, 412)]


def test_merged_keeps_what_a_newer_one_leaves_out() -> None:
    readings = pile_of(entries("limbs 38 40", "limbs two bottoms", "limbs 39 40"))
    pair = readings.merged(LimbPair)
    assert pair is not None
    assert (pair.reading.pair, pair.reading.upper_lbf) == ("two_bottoms", 39)
    assert pair.entry.reading == LimbPair(upper_lbf=39, lower_lbf=40)


def test_newest_names_the_entry_that_gave_a_field() -> None:
    readings = pile_of(entries("string 59 16 strands", "string 60"))
    strands, told = readings.newest(StringBuild, "strands")
    assert strands == 16
    assert told is not None
    assert told.reading.string_length_mm == 59 * 25.4
    length, _ = newest(readings.all(StringBuild), "string_length_mm")
    assert length == 60 * 25.4


@pytest.mark.parametrize(
    ("said", "part", "counts"),
    [
        ("draw 28 here", "bow", False),
        ("draw 28 here", "archer", False),
        ("draw 28 here", "string", True),
        ("hold split here", "archer", False),
        ("hold split here", "bow", True),
        ("purpose woods here", "archer", True),
        ("brace 7 1/2", "string", False),
        ("brace 7 1/2", "bow", False),
        ("brace 7 1/2", "arrow_set", True),
        ("speed 170 fps", "arrow_set", False),
        ("speed 170 fps 420gr", "arrow_set", True),
        ("speed 170 fps 420gr", "bow", False),
        ("note windy", "bow", True),
    ],
)
def test_a_rigs_reading_needs_the_parts_it_was_made_with(
    said: str, part: PartKind, counts: bool
) -> None:
    made = draft(said, on="rig", days=1)
    changed = draft(
        PartFitted(part=part, part_id=f"{IDS[part]}-2"), on="rig", subject=IDS["rig"], days=2
    )
    back = draft(PartFitted(part=part, part_id=IDS[part]), on="rig", days=3)
    before = as_entries([*fitting(), made], now=NOW)
    after = as_entries([*fitting(), made, changed], now=NOW)
    again = as_entries([*fitting(), made, changed, back], now=NOW)
    kind = type(made.reading)
    assert pile_of(before).last(kind) is not None
    assert (pile_of(after).last(kind) is not None) is counts
    assert pile_of(again).last(kind) is not None


@pytest.mark.parametrize(
    ("reading", "topics"),
    [
        (BowMark(draw_weight_lbf=40), {"bow_mark"}),
        (BowWeighed(draw_weight_lbf=40, draw_length_mm=700), set()),
        (GripDepth(to="back", depth_mm=40), {"grip_depth:back"}),
        (PartFitted(part="bow", part_id="yew"), {"part_fitted:bow"}),
        (ArrowMassed(arrow_mass_gr=400), set()),
        (ArrowMassed(arrow_mass_gr=400, arrow_number=4), {"arrow_mass:4"}),
        (StringBuild(strands=16, material="linen"),
         {"string_build:strands", "string_build:material"}),
        (NumberedArrow(arrow_number=3, retired=True), {"numbered_arrow:3:retired"}),
        (Inspected(good=("limbs",), failing=("tips",)), {"inspected:limbs", "inspected:tips"}),
        (Noted(text="x"), set()),
    ],
)  # fmt: skip
def test_a_reading_says_what_it_settles(reading: BaseReading, topics: set[str]) -> None:
    assert reading.topics() == topics


def test_told_leaves_out_kind_key_and_what_is_not_given() -> None:
    arrow = NumberedArrow(arrow_number=3, straight_mm=0.2)
    assert arrow.told() == {"straight_mm": 0.2}
    assert arrow.key() == (3,)
    assert ArrowMassed(arrow_mass_gr=400).key() is None


def test_every_kind_says_what_it_needs_of_parts_there_are() -> None:
    for kind in e.READINGS:
        assert kind.needs <= set(PARTS)
        assert kind.of <= set(get_args(SubjectKind))
        assert not kind.needs or "rig" in kind.of, f"{kind.__name__} can never need a part"
        assert set(kind.keyed_by) <= set(kind.model_fields)


@given(any_entries(), st.randoms())
def test_order_of_reading_does_not_matter(found: list[e.Entry], dice: st.DataObject) -> None:
    mixed = list(found)
    dice.shuffle(mixed)  # type: ignore[attr-defined]
    assert in_order(mixed) == in_order(found)
    assert retracted_ids(mixed) == retracted_ids(found)
    assert [one.id for one in in_force(mixed)] == [one.id for one in in_force(found)]
    ordered = in_order(found)
    assert in_force(ordered, ordered=True) == in_force(found)


@given(any_entries())
def test_everything_piled_is_of_the_rig_or_its_parts_now(found: list[e.Entry]) -> None:
    standing = in_force(found)
    fitted = parts_fitted(standing, IDS["rig"])
    readings = EffectiveReadings(standing, IDS["rig"], fitted)
    now = {"rig": IDS["rig"], **fitted.model_dump()}
    for kind in e.READINGS:
        for recorded in readings.all(kind):
            assert now[recorded.entry.subject.kind] == recorded.entry.subject.id
            assert recorded.reading is recorded.entry.reading
