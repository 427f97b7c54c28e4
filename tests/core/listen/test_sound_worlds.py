"""Clubs, phones that ride their gain, sounds cut off and resampled: small samples of each."""

import json
import math

import pytest
from tools.try_worlds import BOOK, OUT, told_in

from lyrandis.core.listen.hear import StringVoice, hear
from lyrandis.core.tried import share_of, times_of, tried
from tests.core.listen.club import NEAR_S, club_heard
from tests.core.listen.sound_worlds import cannot_be_told, known_as_cut_off
from tests.core.listen.third_bow import RATE, ThirdBow


def test_in_a_quiet_room_every_take_is_found_and_none_is_anothers() -> None:
    found = [club_heard(seed, others=0) for seed in range(6)]
    assert all(one.right for one in found)


def test_in_a_club_most_neighbours_are_flagged_and_own_takes_are_not() -> None:
    found = [club_heard(seed) for seed in range(8)]
    taken = sum(one.others_taken for one in found)
    assert taken > 0
    assert sum(one.others_flagged for one in found) >= 0.6 * taken
    assert sum(one.own_flagged for one in found) <= 2
    assert sum(one.own_found for one in found) / len(found) >= 0.75


@pytest.mark.parametrize(("times", "cut"), [(4.0, True), (8.0, True), (0.0, False)])
def test_what_was_cut_off_and_resampled_is_known(times: float, cut: bool) -> None:
    assert [known_as_cut_off(seed, times) for seed in range(6)] == [cut] * 6


def test_under_a_gain_that_rides_nothing_is_called_nothing_found() -> None:
    assert all(cannot_be_told(seed) for seed in range(5))


@pytest.mark.parametrize("what", ["shot", "pluck"])
@pytest.mark.parametrize("rides", [True, False])
def test_a_gain_that_rides_is_heard_in_the_room_behind_the_takes(what: str, rides: bool) -> None:
    for seed in range(4):
        for coded in (False, True):
            samples = ThirdBow(seed, coded=coded, rides=rides).bow_alone(what, 4)  # type: ignore[arg-type]
            found = hear(samples, float(RATE), what, StringVoice())  # type: ignore[arg-type]
            assert ("gain_rides" in found.quality.troubles) == rides


def test_of_two_beginnings_within_a_second_the_louder_is_the_take() -> None:
    bow = ThirdBow(4)
    samples = bow.bow_alone("shot", 3)
    onsets = [one.onset_s for one in hear(samples, float(RATE), "shot", StringVoice()).takes]
    spoilt = samples.copy()
    for onset in onsets:  # somebody's tab falls half a second before
        first = round((onset - 0.5) * RATE)
        count = round(0.03 * RATE)
        start = round(onset * RATE)
        spoilt[first : first + count] += 0.25 * samples[start : start + count]
    again = [one.onset_s for one in hear(spoilt, float(RATE), "shot", StringVoice()).takes]
    assert len(again) == len(onsets)
    assert all(abs(a - b) < NEAR_S for a, b in zip(again, onsets, strict=True))


def test_the_table_of_worlds_holds_what_the_rules_promise() -> None:
    written = json.loads(OUT.read_text(encoding="utf-8"))
    assert {row["subject"] for row in written["rows"]} == {
        "settling", "sweep", "speed", "tap", "takes", "naming", "recording",
    }  # fmt: skip
    assert times_of("settling") >= 200
    # at most 8 % in the long run, of 300 strings each: within two standard errors of it
    early = [row.figures["early"] for row in tried().of("settling")]
    assert max(early) <= 0.08 + 2 * math.sqrt(0.08 * 0.92 / times_of("settling"))
    assert sum(early) / len(early) <= 0.05
    assert all(row.figures["inside"] >= 0.9 for row in tried().of("speed"))
    own = next(row for row in tried().of("settling") if row.world == "stretched, its own law")
    assert own.figures["hours"] <= 30
    assert share_of("recording", "called", among="sound") == "0 %"


def test_the_book_tells_the_table() -> None:
    text = BOOK.read_text(encoding="utf-8")
    assert told_in(text, tried()) == text
