"""The quiver: what is known of each arrow, the best matched k, and tables in and out."""

import csv
from datetime import UTC, date, datetime
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core.arrow.quiver import (
    MASS_STEP_GR,
    SPINE_STEP_LBF,
    QuiverArrow,
    best_matched,
    quiver_of,
)
from lyrandis.core.arrow.quiver_table import (
    QuiverTable,
    read_quiver_table,
    write_quiver_table,
)
from lyrandis.core.arrow.readings import ArrowMassed, NumberedArrow
from lyrandis.core.arrow.table_columns import ColumnAs
from lyrandis.core.errors import DomainError
from lyrandis.core.setup import fold
from tests.entries import entries


def spread(arrows: tuple[QuiverArrow, ...]) -> float:
    masses = [a.mass_gr or 0.0 for a in arrows]
    spines = [a.spine_lbf or 0.0 for a in arrows]
    return (max(masses) - min(masses)) / MASS_STEP_GR + (max(spines) - min(spines)) / SPINE_STEP_LBF


@settings(deadline=None, max_examples=60)
@given(
    arrows=st.lists(st.tuples(st.integers(400, 480), st.integers(40, 70)), min_size=2, max_size=9),
    data=st.data(),
)
def test_the_best_matched_are_the_best_of_all_there_are(
    arrows: list[tuple[int, int]], data: st.DataObject
) -> None:
    quiver = tuple(QuiverArrow(i, float(m), float(s)) for i, (m, s) in enumerate(arrows, 1))
    count = data.draw(st.integers(2, len(quiver)))
    best = min(spread(group) for group in combinations(quiver, count))
    found = best_matched(quiver, count)
    assert len(found.chosen) == count
    assert spread(tuple(a for a in quiver if a.number in found.chosen)) == pytest.approx(best)
    assert {*found.chosen, *(out.number for out in found.out)} == {a.number for a in quiver}


def test_twelve_of_twenty_four_beat_every_swap_of_one() -> None:
    quiver = tuple(QuiverArrow(i, 440 + (i * 37) % 41, 48 + (i * 53) % 13) for i in range(1, 25))
    found = best_matched(quiver, 12)
    inside = [a for a in quiver if a.number in found.chosen]
    outside = [a for a in quiver if a.number not in found.chosen]
    least = spread(tuple(inside))
    for leaving in inside:
        for coming in outside:
            swapped = (*(a for a in inside if a is not leaving), coming)
            assert spread(swapped) >= least - 1e-9


def test_who_is_out_and_why() -> None:
    quiver = (
        QuiverArrow(1, 460, 52), QuiverArrow(2, 462, 53), QuiverArrow(3, 461, 52),
        QuiverArrow(4, 480, 52), QuiverArrow(5, 461, 60), QuiverArrow(6, 450, 52),
        QuiverArrow(7, 461, 44), QuiverArrow(8, 461, 52, safety="cracked"),
        QuiverArrow(9, 461, 52, retired=True), QuiverArrow(10, None, 52),
        QuiverArrow(11, 461, 52, straight_mm=1.4), QuiverArrow(12, 461, None),
    )  # fmt: skip
    found = best_matched(quiver, 3)
    assert found.chosen == (1, 2, 3)
    assert (found.mass_spread_gr, found.spine_spread_lbf) == (2.0, 1.0)
    why = {out.number: (out.because, out.by) for out in found.out}
    assert why == {
        4: ("too_heavy", 18.0), 5: ("too_stiff", 7.0), 6: ("too_light", 10.0),
        7: ("too_weak", 8.0), 8: ("cracked", 0.0), 9: ("retired", 0.0), 10: ("not_weighed", 0.0),
        11: ("crooked", 1.4), 12: ("no_spine", 0.0),
    }  # fmt: skip


def test_without_spines_mass_alone_decides() -> None:
    quiver = tuple(QuiverArrow(i, m) for i, m in enumerate((450.0, 470.0, 452.0, 455.0), 1))
    found = best_matched(quiver, 3)
    assert found.chosen == (1, 3, 4)
    assert not found.by_spine
    assert found.spine_spread_lbf is None


def test_those_without_a_spine_are_matched_beside_by_mass_alone() -> None:
    quiver = (
        QuiverArrow(1, 450, 50), QuiverArrow(2, 456, 50), QuiverArrow(3, 462, 50),
        QuiverArrow(4, 451, None), QuiverArrow(5, 452, None),
        QuiverArrow(6, 450, 50, quill="lifts"),
    )  # fmt: skip
    found = best_matched(quiver, 3)
    assert found.by_spine
    assert found.chosen == (1, 2, 3)
    assert found.by_mass_alone is not None
    assert found.by_mass_alone.chosen == (1, 4, 5)
    assert found.by_mass_alone.mass_spread_gr == 2.0
    assert {out.number: out.because for out in found.out}[6] == "quill_lifts"
    # nothing stands beside where it would be the same set, or where every spine is known
    assert best_matched(quiver[:3], 3).by_mass_alone is None
    heavy = (*quiver[:3], QuiverArrow(4, 490, None))
    assert best_matched(heavy, 3).by_mass_alone is None


@pytest.mark.parametrize("count", [0, 1, 5])
def test_more_than_there_are_cannot_be_chosen(count: int) -> None:
    with pytest.raises(DomainError) as caught:
        best_matched(tuple(QuiverArrow(i, 450.0) for i in range(1, 5)), count)
    assert caught.value.code == "too_few"


def test_each_arrow_is_what_was_said_of_it_last() -> None:
    quiver = quiver_of(
        fold(
            entries(
                "arrow 4 431gr", "arrow 4 433gr", "arrow 4 spine 52lb", "arrow 4 straight 0.2mm",
                "arrow 4 turned 180", "arrow 4 sound", "arrow 4 remark dark grain",
                "arrow 2 cracked", "arrow 431gr",
            )
        ).arrows
    )  # fmt: skip
    assert [one.number for one in quiver] == [2, 4]
    two, four = quiver
    assert two.out_of_use
    assert two.safety == "cracked"
    assert (four.mass_gr, four.spine_lbf, four.straight_mm, four.nock_turn_deg) == (
        433,
        52,
        0.2,
        180,
    )
    assert (four.safety, four.remark) == ("sound", "dark grain")
    assert four.looked_at is not None
    assert four.looked_at.date() == date(2026, 3, 7)
    assert len(four.entries) == 6


# tables


def test_a_headed_table_is_read_with_its_units() -> None:
    table = read_quiver_table("No;Mass g;Spine;Note\n1;30,2;52lb;dark\n2;30.4;600;\n")
    assert table.bad == ()
    assert table.arrows == (1, 2)
    masses = [r.arrow_mass_gr for r in table.readings if isinstance(r, ArrowMassed)]
    assert masses == pytest.approx([466.06, 469.14], abs=0.01)
    spines = [r.spine_lbf for r in table.readings if isinstance(r, NumberedArrow) and r.spine_lbf]
    assert spines == pytest.approx([52, 52.5], abs=0.01)


def test_quill_ends_go_out_and_come_back() -> None:
    quiver = (QuiverArrow(1, 450, quill="bound"), QuiverArrow(2, 451, quill="lifts"))
    table = read_quiver_table(write_quiver_table(quiver))
    assert table.bad == ()
    told = {r.arrow_number: r.quill for r in table.readings if getattr(r, "quill", None)}
    assert told == {1: "bound", 2: "lifts"}


def test_a_bare_table_is_read_in_our_order() -> None:
    table = read_quiver_table("1\t467\t52lb\t0.2\t0\tsound\tfirst\n\n2\t470gr\n")
    assert table.arrows == (1, 2)
    assert len(table.readings) == 7


@pytest.mark.parametrize(
    ("row", "column", "reason"),
    [
        ("3,44", "mass", "outside"),
        ("3,430,500 lb", "spine", "No shaft is 500 lb"),
        ("3,heavy", "mass", "not a number"),
        ("x,430", "number", "no arrow's number"),
        ("0,430", "number", "no arrow's number"),
        ("3", None, "Nothing is said"),
        ("1,430", "number", "stands in two rows"),
        ("3,430,,9cm", "straight", "outside"),
        ("3,430,,,400", "turn", "outside"),
        ("3,430,,,,bent", "state", "is no state"),
    ],
)
def test_a_bad_row_is_named_and_the_others_stand(row: str, column: str | None, reason: str) -> None:
    table = read_quiver_table(f"1,467\n2,470\n{row}\n")
    assert table.arrows == (1, 2)
    (bad,) = table.bad
    assert (bad.row, bad.column) == (3, column)
    assert reason in bad.reason
    assert bad.instruction


@pytest.mark.parametrize(
    ("text", "code"),
    [("", "empty"), ("\n \n", "empty"), ("1," + "9" * 12_000, "too_much"),
     ("\n".join(f"{i},430" for i in range(1, 300)), "too_long")],
)  # fmt: skip
def test_a_text_that_is_no_table_is_refused(text: str, code: str) -> None:
    with pytest.raises(DomainError) as caught:
        read_quiver_table(text)
    assert caught.value.code == code


def masses(table: QuiverTable) -> list[float]:
    return [round(r.arrow_mass_gr, 1) for r in table.readings if isinstance(r, ArrowMassed)]


@pytest.mark.parametrize(
    "text",
    [
        "sep=;\nNo;Mass g\n1;30,2\n2;30,4\n",
        "\ufeffNo;Mass (g)\r\n1;30,2\r\n2;30,4\r\n",
        "\n\nNo\tMass [g]\n1\t30.2\n2\t30.4",
        "Loan bows, winter\nchecked in November\n\nNo.;Mass g;Owner\n1;30,2;club\n2;30,4;club",
        'No,Mass g\n1,"30,2"\n2,"30,4"',
    ],
)
def test_tables_as_spreadsheets_write_them_are_read(text: str) -> None:
    table = read_quiver_table(text)
    assert (table.arrows, table.bad, table.unanswered) == ((1, 2), (), None)
    assert masses(table) == [466.1, 469.1]


def test_what_is_left_aside_is_said() -> None:
    table = read_quiver_table("Winter list\nNo,Mass gr,Owner\n1,430,club\n2,431,\n")
    assert table.titles == ("Winter list",)
    assert [(column.head, column.name) for column in table.columns] == [
        ("No", "number"), ("Mass gr", "mass"), ("Owner", None),
    ]  # fmt: skip
    assert table.columns[2].cells == ("club",)
    assert table.arrows == (1, 2)


def test_headings_of_ones_own_are_mapped_by_the_archer() -> None:
    text = "Pfeil;Gewicht;Eigner\n1;30,2;club\n2;30,4;club"
    table = read_quiver_table(text)
    assert table.readings == ()
    assert "which column holds the arrows' numbers" in (table.unanswered or "")
    mapped = [ColumnAs(name="number"), ColumnAs(name="mass", unit="g"), ColumnAs(name="remark")]
    table = read_quiver_table(text, mapped)
    assert table.unanswered is None
    assert masses(table) == [466.1, 469.1]
    assert "club" in [r.remark for r in table.readings if isinstance(r, NumberedArrow)]


@pytest.mark.parametrize(
    ("text", "asked", "unit", "read"),
    [
        ("no,mass\n1,30.2\n2,30.4", "unit the mass is: 30.2, 30.4", "g", 466.1),
        ("no,mass\n1,80\n2,85", None, None, 80.0),
        ("no,mass\n1,79\n2,79", "unit the mass is", "gr", None),
        ("1,467,52\n2,470,53", "unit the spine is: 52, 53", None, None),
    ],
)
def test_a_unit_that_could_be_several_is_asked_once(
    text: str, asked: str | None, unit: str | None, read: float | None
) -> None:
    table = read_quiver_table(text)
    assert (asked or "") in (table.unanswered or "")
    assert (table.unanswered is None) == (asked is None)
    answered = read_quiver_table(text, [ColumnAs(name="number"), ColumnAs(name="mass", unit=unit)])
    if read is not None and unit:
        assert masses(answered)[0] == read


def test_a_cracked_and_retired_arrow_keeps_both() -> None:
    lost = QuiverArrow(
        number=3, mass_gr=430.0, safety="cracked", looked_at=datetime(2026, 1, 1, tzinfo=UTC)
    )
    lost.retired = True
    table = read_quiver_table(write_quiver_table([lost]))
    told = [r for r in table.readings if isinstance(r, NumberedArrow)]
    assert {r.state for r in told} == {"cracked", None}
    assert True in {r.retired for r in told}


@pytest.mark.parametrize("remark", ["=1+2", "+x", "-x", "@x", "'=x", "''-x", "'x", "= "])
def test_a_remark_is_never_a_formula_and_comes_back_as_it_was(remark: str) -> None:
    written = write_quiver_table([QuiverArrow(number=1, remark=remark.strip())])
    cell = next(csv.DictReader(written.splitlines()))["remark"]
    assert cell[:1] not in "=+-@"
    (reading,) = read_quiver_table(written).readings
    assert isinstance(reading, NumberedArrow)
    assert reading.remark == remark.strip()


@given(
    st.lists(
        st.builds(
            QuiverArrow,
            number=st.integers(1, 999),
            mass_gr=st.floats(200, 900).map(lambda x: round(x, 1)),
            spine_lbf=st.none() | st.floats(20, 150).map(lambda x: round(x, 1)),
            straight_mm=st.none() | st.floats(0, 5).map(lambda x: round(x, 2)),
            nock_turn_deg=st.none() | st.integers(0, 360).map(float),
            quill=st.sampled_from((None, "bound", "lifts")),
            remark=st.none() | st.text("abc=+-@ ,;\"'", min_size=1, max_size=12).filter(str.strip),
        ),
        min_size=1,
        max_size=20,
        unique_by=lambda one: one.number,
    )
)  # fmt: skip
def test_what_is_written_is_read_back(quiver: list[QuiverArrow]) -> None:
    table = read_quiver_table(write_quiver_table(quiver))
    assert table.bad == ()
    assert list(table.arrows) == [one.number for one in quiver]
    for one in quiver:
        said = [r for r in table.readings if r.arrow_number == one.number]
        mass = next(r for r in said if isinstance(r, ArrowMassed))
        assert mass.arrow_mass_gr == pytest.approx(one.mass_gr, abs=0.06)
        spine = next((r.spine_lbf for r in said if getattr(r, "spine_lbf", None)), None)
        assert (spine is None) == (one.spine_lbf is None)
        if spine is not None:
            assert spine == pytest.approx(one.spine_lbf, abs=0.06)


def test_a_mark_of_a_remark_is_no_mark_between_cells() -> None:
    quiver = [
        QuiverArrow(number=number, mass_gr=200.0, spine_lbf=None, straight_mm=None,
                    nock_turn_deg=None, remark="; dark")
        for number in (1, 2)
    ]  # fmt: skip
    assert read_quiver_table(write_quiver_table(quiver)).arrows == (1, 2)


@given(st.text(max_size=300))
def test_any_text_is_read_or_refused_with_a_reason(text: str) -> None:
    try:
        table = read_quiver_table(text)
    except DomainError as error:
        refused = error
    else:
        assert len(table.arrows) == len(set(table.arrows))
        return
    assert refused.reason
    assert refused.instruction
