"""A recording that was brought, to the drafts it would be: takes, shots at a butt, taps."""

import numpy as np
import pytest

from lyrandis.core.listen.brought import (
    Marks,
    Sounded,
    hearing,
    restruck,
    speed_hearing,
    tap_hearing,
)
from lyrandis.core.listen.hear import PLAIN_SERIES, StringVoice
from lyrandis.core.listen.shafts import Ringing
from lyrandis.core.listen.shot_time import Range
from lyrandis.instruments.microphone import Faults, PhonePlace, Sounding, as_pcm16, record
from tests.core.listen.signals import RATE, r1, r3

NAMED = Sounded("0123456789abcdef", "shots.wav", lossy=True)
VOICE = StringVoice(PLAIN_SERIES, 100.0)
NOTES = tuple(96.0 * n for n in range(1, 14))


def test_takes_become_a_reading_with_its_mark() -> None:
    told: list[float] = []
    found = hearing(r1(), RATE, "pluck", VOICE, NAMED, same_place=True, progress=told.append)
    draft = found.draft
    assert draft is not None
    assert (draft.mark, draft.lossy, draft.same_place) == ("0123456789abcdef", True, True)
    assert [round(one.at_s, 1) for one in draft.takes] == [0.6, 2.2, 3.8, 5.4]
    assert draft.note_hz == pytest.approx(96.0, abs=0.05)
    assert len(found.traces) == 4
    assert max(found.traces[0].high) == 100
    assert found.level_half_db is not None
    assert told == sorted(told), "progress only grows"
    assert told[-1] > 0.9


def test_a_take_struck_out_does_not_count_where_takes_are_pooled() -> None:
    spoilt = r1()
    spoilt[round(3.79 * RATE) :] = r3()[round(3.79 * RATE) :]
    whole = hearing(spoilt, RATE, "pluck", VOICE, NAMED).draft
    mended = hearing(spoilt, RATE, "pluck", VOICE, NAMED, struck=(3, 4)).draft
    assert whole is not None
    assert mended is not None
    assert whole.line_db > mended.line_db + 3
    assert mended.struck == (3, 4)
    assert len(mended.counting) == 2
    assert len(mended.takes) == 4, "and may be put back"
    assert restruck(mended, ()).counting == mended.takes


def test_an_onset_may_be_put_elsewhere() -> None:
    found = hearing(r1(), RATE, "pluck", VOICE, NAMED, moved={2: 2.25}).draft
    assert found is not None
    assert found.takes[1].at_s == 2.25
    assert found.moved[0].take == 2
    assert found.takes[1].level_db != found.takes[0].level_db


@pytest.mark.parametrize("samples", [np.zeros(32000), 1e-3 * r1()], ids=["silence", "too quiet"])
def test_what_may_not_be_said_has_no_draft(samples: np.ndarray) -> None:
    found = hearing(samples, RATE, "shot", VOICE, NAMED)
    assert found.draft is None
    assert found.troubles


def test_what_is_overloaded_has_no_level() -> None:
    found = hearing(np.clip(8 * r1(), -1, 1), RATE, "shot", VOICE, NAMED)
    assert found.draft is not None
    assert found.level_half_db is None


# speed by ear

RIG = Sounding(NOTES, speed_mps=52.0, drag=0.0018, arrow_m=0.75)
WHERE = Range(18.0, 0.75, 0.4, 15.0)


def shots(noise_db: float = 20.0, takes: int = 3, seed: int = 5) -> tuple[np.ndarray, int]:
    made = record("butt", RIG, seed=seed, takes=takes, place=PhonePlace(noise_db=noise_db))
    return made.samples, made.rate


def test_three_shots_make_one_speed() -> None:
    samples, rate = shots()
    found = speed_hearing(samples, float(rate), WHERE, 0.0018, NAMED, expected_mps=54.0)
    assert len(found.shots) == 3
    assert all(shot.counts for shot in found.shots)
    assert found.speed_mps == pytest.approx(52.0, abs=found.half_mps)
    assert found.speed_mps == pytest.approx(52.0, rel=0.015)
    assert found.agrees
    assert found.draft is not None
    assert found.draft.ear is not None
    assert found.draft.ear.half == pytest.approx(found.half_mps, abs=1e-3)
    assert found.draft.ear.mark == NAMED.mark
    one = speed_hearing(samples, float(rate), WHERE, 0.0018, NAMED, struck=(2, 3))
    assert [shot.counts for shot in one.shots] == [True, False, False]


def test_a_mark_put_by_hand_is_taken_at_its_word() -> None:
    samples, rate = shots()
    heard = speed_hearing(samples, float(rate), WHERE, 0.0018, NAMED).shots[0]
    assert heard.strike_s is not None
    later = Marks(release_s=heard.release_s, strike_s=heard.strike_s + 0.01)
    moved = speed_hearing(samples, float(rate), WHERE, 0.0018, NAMED, marks={1: later}).shots[0]
    assert moved.moved
    assert moved.speed_mps is not None
    assert heard.speed_mps is not None
    assert moved.speed_mps < 0.99 * heard.speed_mps
    early = Marks(release_s=heard.release_s, strike_s=heard.release_s + 0.02)
    refused = speed_hearing(samples, float(rate), WHERE, 0.0018, NAMED, marks={1: early}).shots[0]
    assert not refused.counts
    assert refused.why_not is not None


def test_beside_the_butt_the_sounds_go_the_other_way() -> None:
    made = np.array([0.0, 0.4])
    bow = Range(18.0, 0.75, 0.4)
    butt = Range(18.0, 0.75, 0.4, at_butt=True)
    from lyrandis.core.listen.shot_time import flight_s

    assert flight_s(*made, bow) < 0.4 < flight_s(*made, butt)  # type: ignore[misc]
    assert flight_s(*made, butt) + flight_s(*made, bow) == pytest.approx(0.8)  # type: ignore[misc]


def test_no_shot_makes_no_speed() -> None:
    found = speed_hearing(1e-4 * np.ones(40000), RATE, WHERE, 0.0018, NAMED)
    assert (found.shots, found.speed_mps, found.draft) == ((), None, None)


# taps


def test_a_dozen_taps_are_numbered_and_heard() -> None:
    notes = (44.0, 121.3, 237.8, 393.2)
    rings = [tuple(note * 2.05 * (1 + 0.01 * n) for note in notes) for n in range(4)]
    comb = Ringing(notes, (0.0,) * 4, 0.01)
    made = record(
        "taps", Sounding(NOTES, taps_hz=tuple(rings)), seed=3, place=PhonePlace(noise_db=25)
    )
    found = tap_hearing(made.samples, float(made.rate), comb, NAMED, first=5, again=(2,),
                        quarter=(2,))  # fmt: skip
    assert [one.number for one in found.taps] == [5, 5, 6, 7]
    assert [one.arrow_number for one in found.drafts] == [5, 6, 7]
    assert [one.quarter for one in found.drafts[0].taps] == [False, True]
    for number, ring in enumerate(rings):
        assert found.taps[number].ring_hz == pytest.approx(ring[0], rel=0.006)
    struck = tap_hearing(made.samples, float(made.rate), comb, NAMED, struck=(1,))
    assert [one.number for one in struck.taps] == [1, 1, 2, 3]
    assert struck.taps[0].why_not is not None
    assert len(struck.drafts[0].taps) == 1


# the simulated microphone


def test_the_same_seed_makes_the_same_sound() -> None:
    one = record("shot", RIG, seed=4, take_seed=9, takes=2)
    assert (one.samples == record("shot", RIG, seed=4, take_seed=9, takes=2).samples).all()
    other = record("shot", RIG, seed=4, take_seed=10, takes=2)
    assert one.samples.shape != other.samples.shape or (one.samples != other.samples).any()


@pytest.mark.parametrize("kind", ["pluck", "shot", "butt", "reference"])
def test_it_keeps_inside_full_scale_and_is_heard(kind: str) -> None:
    made = record(kind, RIG, seed=2, takes=3)  # type: ignore[arg-type]
    assert np.abs(made.samples).max() <= 1.0
    assert len(made.onsets_s) == 3
    assert len(as_pcm16(made.samples)) == 2 * len(made.samples)


def test_a_hidden_fault_is_heard() -> None:
    loose = record("pluck", RIG, seed=2, takes=3, faults=Faults(rattle=0.6))
    whole = record("pluck", RIG, seed=2, takes=3)
    sides = [hearing(one.samples, float(one.rate), "pluck", VOICE, NAMED).draft
             for one in (loose, whole)]  # fmt: skip
    assert sides[0] is not None
    assert sides[1] is not None
    assert np.median([one.unrep for one in sides[0].takes]) > np.median(
        [one.unrep for one in sides[1].takes]
    )


def test_a_gain_that_rides_levels_pluck_and_shot() -> None:
    rides = PhonePlace(gain_rides=True)
    made = [record(kind, RIG, seed=2, takes=4, place=rides) for kind in ("pluck", "shot")]  # type: ignore[arg-type]
    steady = [record(kind, RIG, seed=2, takes=4) for kind in ("pluck", "shot")]  # type: ignore[arg-type]
    apart = [
        np.subtract(*(
            np.median([take.level_db for take in hearing(
                one.samples, float(one.rate), "shot", VOICE, NAMED).draft.takes])  # type: ignore[union-attr]
            for one in pair
        ))
        for pair in (made, steady)
    ]  # fmt: skip
    assert abs(apart[0]) < abs(apart[1])


def test_a_phone_that_cuts_its_pauses_to_nothing_is_heard() -> None:
    gated = r1()
    for start in (0.0, 1.7, 3.3, 4.9, 6.5):
        gated[round(start * RATE) : round((start + 0.45) * RATE)] = 0.0
    found = hearing(gated, RATE, "shot", VOICE, NAMED)
    assert found.draft is not None
    assert len(found.draft.takes) == 4


def test_a_shot_that_was_missed_is_put_in_among_the_others() -> None:
    samples, rate = shots()
    heard = speed_hearing(samples, float(rate), WHERE, 0.0018, NAMED)
    places = heard.whole.at_s
    faint = samples.copy()
    first, last = (round((places[1] + off) * rate) for off in (-0.3, 1.2))
    faint[first:last] *= 0.03
    alone = speed_hearing(faint, float(rate), WHERE, 0.0018, NAMED)
    assert alone.whole.at_s == pytest.approx((places[0], places[2]), abs=0.005)
    mended = speed_hearing(faint, float(rate), WHERE, 0.0018, NAMED, added=(places[1] + 0.02,))
    assert mended.whole.at_s == pytest.approx(places, abs=0.01)
    assert mended.shots[1].speed_mps == pytest.approx(heard.shots[1].speed_mps, rel=0.02)
    assert len(mended.whole.overview) == 480


def test_a_tap_that_was_missed_keeps_the_order_of_the_shafts() -> None:
    notes = (44.0, 121.3, 237.8, 393.2)
    rings = [tuple(note * 2.05 * (1 + 0.01 * n) for note in notes) for n in range(3)]
    made = record(
        "taps", Sounding(NOTES, taps_hz=tuple(rings)), seed=3, place=PhonePlace(noise_db=35)
    )
    comb, rate = Ringing(notes, (0.0,) * 4, 0.01), float(made.rate)
    places = tap_hearing(made.samples, rate, comb, NAMED).whole.at_s
    faint = made.samples.copy()
    first, last = (round((places[1] + off) * rate) for off in (-0.1, 1.0))
    faint[first:last] *= 0.1
    assert len(tap_hearing(faint, rate, comb, NAMED).taps) == 2
    mended = tap_hearing(faint, rate, comb, NAMED, added=(places[1] + 0.02,))
    assert [tap.number for tap in mended.taps] == [1, 2, 3]
    assert mended.taps[1].at_s == pytest.approx(places[1], abs=0.02)


def test_a_shot_struck_out_is_no_measure_for_the_others() -> None:
    samples, rate = shots()
    spoilt = samples.copy()
    heard = speed_hearing(samples, float(rate), WHERE, 0.0018, NAMED)
    start = round((heard.shots[2].release_s + 0.15) * rate)
    spoilt[start : start + rate // 50] += 0.5 * np.abs(samples).max()
    left = [speed_hearing(one, float(rate), WHERE, 0.0018, NAMED, struck=(3,)).shots[:2]
            for one in (samples, spoilt)]  # fmt: skip
    for one, other in zip(*left, strict=True):
        assert one.strike_s == pytest.approx(other.strike_s, abs=1e-6)
