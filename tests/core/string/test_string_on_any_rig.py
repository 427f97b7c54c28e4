"""Silencers, turns told as a change, and the ends of the quiet brace."""

import math
from typing import Any

import pytest

from lyrandis.core.computed import Computed, compute
from lyrandis.core.estimate import Estimate
from lyrandis.core.order.page import work_order
from lyrandis.core.setup import fold
from lyrandis.core.string.advice import out_of_reach
from lyrandis.core.string.rules import judge
from lyrandis.core.string.silencers import moved_share
from lyrandis.core.string.sweep import Height, sweep
from lyrandis.core.string.turns import TurnedBy, inferred_turns, shortening
from tests.entries import entries

IN = 25.4
RIG = ("inspect all good", "hand right", "hold split", "draw 28", "hook 1/2",
       "family hunting recurve", "bow 60", "scale 45 @ 28 1/2", "fibre polyester",
       "string 56 16 strands", "settled string", "brace 7 3/4 grip", "lift 3mm", "spine 500",
       "point 125gr", "shaft 29 1/2 8gpi", "arrow 1 430gr", "arrow 1 sound",
       "window 2mm")  # fmt: skip


def computed(*said: Any) -> Computed:
    return compute(fold(entries(*RIG, *said)))


@pytest.mark.parametrize(
    ("place", "share"), [(0.0, 0.0), (14.0, 0.25), (28.0, 1.0), (None, 0.25), (7.0, 0.0625)]
)
def test_silencers_move_as_their_place_on_the_string_does(
    place: float | None, share: float
) -> None:
    assert moved_share(None if place is None else place * IN, 56 * IN) == pytest.approx(share)


def test_a_bare_strings_share_is_its_third() -> None:
    """The mean over the whole string is what strands count as."""
    count = 2000
    length = 56 * IN
    halves = [moved_share(length / 2 * (i + 0.5) / count, length) for i in range(count)]
    assert sum(halves) / count == pytest.approx(1 / 3, abs=1e-4)


def test_silencers_slow_the_arrow_and_make_it_read_stiffer() -> None:
    bare, near, far = (
        computed(*more) for more in ((), ("silencers 40gr @ 20",), ("silencers 40gr @ 8",))
    )
    speeds = [c.bow.thrust.speed(430.0) for c in (bare, far, near) if c.bow.thrust]
    assert speeds[0] > speeds[1] > speeds[2]
    assert speeds[0] / speeds[2] - 1 < 0.03
    matches = [c.match.matched for c in (bare, far, near) if c.match]
    assert matches[0] > matches[1] > matches[2]
    assert matches[0] - matches[2] < 4.0


@pytest.mark.parametrize(
    ("more", "doubted"),
    [
        (("silencers 24gr @ 12",), {"nock", "arrows"}),
        (("silencers 9gr @ 12",), set()),
        (("silencers 24gr @ 12", "silencers 33gr"), {"nock", "arrows"}),
    ],
)
def test_the_first_silencers_told_are_a_change_in_the_order_of_work(
    more: tuple[str, ...], doubted: set[str]
) -> None:
    order = computed(*more).order
    assert {node for node, state in order.states.items() if state.mark == "direct"} == doubted
    if doubted:
        assert "silencers" in order.sentence("nock").text()


def test_silencers_told_before_the_nock_was_set_put_nothing_in_doubt() -> None:
    first = RIG[:8]
    c = compute(fold(entries(*first, "silencers 24gr @ 12", *RIG[8:])))
    assert not [node for node, state in c.order.states.items() if state.mark == "direct"]


def test_a_string_without_silencers_has_no_empty_station() -> None:
    def nodes(c: Computed) -> list[str]:
        return [station.node for station in work_order(c).stations]

    assert "silencers" not in nodes(computed())
    assert "silencers" in nodes(computed("silencers 24gr @ 12"))


@pytest.mark.parametrize(
    ("said", "turns", "unknown"),
    [
        (("turns 20", "turns 10 more"), 30.0, 0),
        (("turns 20", "turns 5 out"), 15.0, 0),
        (("turns 20", "turns +2.5", "turns -1"), 21.5, 0),
        (("turns 10 more",), None, 1),
        (("turns 10 more", "turns 24"), 24.0, 1),
        (("turns 4", "turns 10 out"), None, 1),  # more came out than were in: nobody knows
    ],
)
def test_a_change_is_added_to_a_count_and_stays_a_change_without_one(
    said: tuple[str, ...], turns: float | None, unknown: int
) -> None:
    facts = computed(*said).setup.string
    assert (facts.turns[-1].reading.turns if facts.turns else None) == turns
    assert len(facts.turned) == unknown


@pytest.mark.parametrize(("before", "by"), [(10.0, 10.0), (24.0, 8.0), (30.0, -6.0), (16.0, 20.0)])
def test_two_braces_and_a_change_say_how_many_turns_there_are(before: float, by: float) -> None:
    gain, diameter, length = Estimate(2.2, 0.2), Estimate(2.1, 0.05), 1422.0
    rise = gain.value * shortening(length, diameter.value, before + by, before)
    found = inferred_turns((TurnedBy(by, rise),), length, diameter, gain)
    assert found is not None
    assert found.value == pytest.approx(before + by, abs=0.01)
    # a brace read half a millimetre wrong moves it, and stays inside its ±
    off = inferred_turns((TurnedBy(by, rise + math.copysign(0.5, by)),), length, diameter, gain)
    assert off is not None
    assert 0 < abs(off.value - found.value) < found.plus_minus


def test_turns_are_inferred_on_the_rig_and_never_outrank_a_count() -> None:
    change = ("turns 10 more", "brace 8 1/8 grip")
    c = computed(*change)
    assert c.string.inferred_turns is not None
    assert c.string.bundle is not None
    assert c.string.bundle.turns == c.string.inferred_turns.value
    assert 10 < c.string.bundle.turns < 80
    counted = computed(*change, "turns 26")
    assert counted.string.inferred_turns is None
    assert counted.string.bundle is not None
    assert counted.string.bundle.turns == 26
    assert c.setup.string.turns == (), "nothing is judged from what was only inferred"


LIMITS = (7.0 * IN, 8.5 * IN)


def rated_at(inches: float, points: float) -> Height:
    return Height(inches * IN, (points, points, points), (points, points, points))


def test_nothing_is_proposed_beyond_a_height_that_was_worse_in_that_direction() -> None:
    for worse, better in ((7.25, 7.75), (8.0, 7.5)):
        found = sweep((rated_at(worse, 5.0), rated_at(better, 3.0)), LIMITS)
        assert found.next_mm is not None
        inches = found.next_mm / IN
        assert inches >= worse if worse < better else inches <= worse
    between = sweep((rated_at(7.25, 5.0), rated_at(7.75, 2.0), rated_at(8.0, 4.0)), LIMITS)
    assert between.next_mm is not None
    assert 7.25 - 1e-9 <= between.next_mm / IN <= 8.0 + 1e-9


def test_at_the_ranges_end_it_says_to_stay_there() -> None:
    told = ("bracerange 7 to 8 1/2", "turns 20")
    points = {"8 1/4": 8, "7 3/4": 5, "7 1/4": 3, "7": 1, "7 1/2": 4, "7 1/8": 2}
    tries = [
        f"tried {brace} grip sound {p} {p} {p} shock {p} {p} {p}" for brace, p in points.items()
    ]
    c = computed(*told, *tries)
    assert c.string.quiet is not None
    assert c.string.quiet.at_end == "low"
    sentence = next(f.sentence.text() for f in judge(c) if f.id == "brace-quiet")
    assert "lies at or past the maker's least: stay at 7 in" in sentence


def test_a_brace_turns_do_not_reach_is_said_with_the_string_that_would() -> None:
    c = computed("turns 12")
    brace = c.string.brace
    assert brace is not None
    assert out_of_reach(c, brace.value) is None
    low = out_of_reach(c, brace.value - 25.0)
    assert low is not None
    assert "Turns alone do not bring this string to" in low.text()
    assert out_of_reach(computed(), brace.value - 25.0) is None, "turns nobody knows say nothing"
