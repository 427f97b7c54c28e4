"""A change is recorded as a change, and counts as the whole after it where that is known."""

import pytest

from lyrandis.core.arrow.build import spine_of
from lyrandis.core.bench_readings import Changed, Retraction
from lyrandis.core.computed import compute
from lyrandis.core.errors import DomainError
from lyrandis.core.jot import Listener, parse
from lyrandis.core.setup import Setup, fold
from lyrandis.core.string.readings import BraceHeight
from tests.entries import entries

IN = 25.4
RIG = ("family hunting recurve", "bow 60", "draw 28", "mark 40")


def told(*said: str) -> Setup:
    return fold(entries(*RIG, *said))


def brace(setup: Setup) -> float | None:
    last = setup.effective.last(BraceHeight)
    return last.reading.brace_height_mm if last else None


@pytest.mark.parametrize(
    ("said", "whole"),
    [
        (("brace 7 1/2 grip", "brace 1/4 higher"), 7.75 * IN),
        (("brace 7 1/2 grip", "brace 1/4 higher", "brace 1/8 lower"), 7.625 * IN),
        (("brace 7 1/2 grip", "brace 1/4 higher", "brace 8 grip"), 8 * IN),
        (("brace 1/4 higher", "brace 7 1/2 grip"), 7.5 * IN),
        (("brace 1/4 higher",), None),
    ],
)
def test_a_brace_is_what_it_was_and_what_was_put_to_it(
    said: tuple[str, ...], whole: float | None
) -> None:
    found = brace(told(*said))
    assert found == (None if whole is None else pytest.approx(whole))


def test_every_whole_that_changes_can_be_of_is_summed() -> None:
    setup = told(
        "lift 6mm", "nock 1.5mm up", "point 125gr", "point 25gr lighter", "silencers 24gr",
        "silencers 6gr on", "bolts 3 2", "bolts 1/2 further out", "riserweight 100g 150mm down",
        "riser weight 50g added",
    )  # fmt: skip
    assert setup.nock.height.reading.height_mm == 7.5  # type: ignore[union-attr]
    assert setup.arrows.part("point_gr")[0] == 100
    assert setup.effective.newest(type(parse("silencers 24gr").reading), "silencers_gr")[0] == 30
    bolts = setup.nock.bolts.reading  # type: ignore[union-attr]
    assert (bolts.upper_turns, bolts.lower_turns) == (3.5, 2.5)
    [weight] = setup.nock.weights
    assert weight.reading.mass_g == pytest.approx(150, abs=0.01)


def test_of_two_riser_weights_none_is_meant_and_both_stand() -> None:
    setup = told(
        "riserweight 100g 150mm down lower insert", "riserweight 60g 100mm up upper insert",
        "riser weight 50g added",
    )  # fmt: skip
    assert sorted(item.reading.mass_g for item in setup.nock.weights) == [60.0, 100.0]
    assert [item.reading.setting for item in setup.order.moved] == ["riser_weights"]


@pytest.mark.parametrize(
    ("said", "node"),
    [("brace 1/4 higher", "brace"), ("nock 2mm down", "nock"), ("point 25gr heavier", "arrows"),
     ("silencers 10gr off", "silencers"), ("bolts 1 further in", "weight_rough")],
)  # fmt: skip
def test_where_the_whole_is_not_known_something_was_moved_and_not_measured(
    said: str, node: str
) -> None:
    assert [item.reading.setting for item in told(said).order.moved] == [node]


def test_a_whole_that_cannot_be_is_no_whole_any_more() -> None:
    setup = told("point 20gr", "point 60gr lighter")
    assert [item.reading.setting for item in setup.order.moved] == ["arrows"]
    assert setup.arrows.part("point_gr")[0] == 20, "what was told stands until it is told anew"


def test_a_change_taken_back_was_never_made() -> None:
    log = entries(*RIG, "brace 7 1/2 grip", "brace 1/4 higher")
    last = log[-1]
    back = last.model_copy(
        update={"reading": Retraction(entry_id=last.id), "id": "a" * 12, "seq": last.seq + 1}
    )
    assert brace(fold([*log, back])) == pytest.approx(7.5 * IN)


@pytest.mark.parametrize(
    ("said", "change", "wanted"),
    [
        (("turns 20",), "+4 turns", "20 + 4 = 24"),
        (("turns 20", "turns 4 more"), "turns 10 out", "24 - 10 = 14"),
        (("brace 7 1/2 grip",), "brace 1/4 higher", "7 1/2 in + 1/4 in = 7 3/4 in"),
        (("point 125gr",), "point 25gr lighter", "125 gr - 25 gr = 100 gr"),
        (("bolts 3 2",), "bolts 1 further in", "3 - 1 = 2"),
        ((), "+4 turns", None),
        (("turns 20",), "turns 24", None),
    ],
)
def test_the_sum_is_shown(said: tuple[str, ...], change: str, wanted: str | None) -> None:
    found = told(*said).effective.sum_with(parse(change, to=Listener()).reading)
    assert (found and found.text()) == wanted


def test_the_computed_rig_follows_a_change() -> None:
    """One fact, one number: the changed brace is the brace everywhere."""
    changed = compute(told("brace 7 1/2 grip", "brace 1/2 higher"))
    measured = compute(told("brace 7 1/2 grip", "brace 8 grip"))
    assert changed.bow.weight is not None
    assert measured.bow.weight is not None
    assert changed.bow.weight.weight.value == measured.bow.weight.weight.value


def test_a_change_of_nothing_or_of_too_much_is_refused() -> None:
    for amount in (0.0, 900.0):
        with pytest.raises((DomainError, ValueError)):
            Changed(what="brace", amount=amount)


def test_a_change_is_recorded_on_the_part_it_is_of() -> None:
    lines = ("point 25gr heavier", "bolts 1 further in", "silencers 6gr on", "nock 1mm up")
    subjects = {line: parse(line).subject for line in lines}
    assert list(subjects.values()) == ["arrow_set", "bow", "string", "rig"]
    assert all(kind in Changed.of for kind in subjects.values())


def test_a_tiller_told_as_one_number_is_the_tiller() -> None:
    setup = told("tiller 1/8 positive")
    assert compute(setup).nock.tiller.value == pytest.approx(3.175)  # type: ignore[union-attr]
    again = told("tiller 1/8 positive", "tiller 181mm 176mm fade")
    assert compute(again).nock.tiller.value == pytest.approx(5.0)  # type: ignore[union-attr]
    even = told("tiller 181mm 176mm fade", "tiller even")
    assert compute(even).nock.tiller.value == 0  # type: ignore[union-attr]


def test_a_group_of_spines_keeps_its_ends() -> None:
    reading = parse("spine 50-55").reading
    assert reading.say().text() == "Arrow parts: spine 53 ± 3 lb (600)"
    wide = spine_of(told("spine 40-55").arrows)
    narrow = spine_of(told("spine 47lb").arrows)
    assert wide is not None
    assert narrow is not None
    assert wide.value.plus_minus == pytest.approx(7.5)
    assert narrow.value.plus_minus < wide.value.plus_minus
