"""What a belief promises, and how well it finds the truth of virtual rigs."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.flight.belief import CONTACTS, Axis, new_axis
from lyrandis.core.flight.choose import (
    MOST_REPEATS,
    MOST_TESTS,
    PLAIN_TESTS,
    FlightTest,
    Sitting,
    after,
    bits,
    outcomes,
    pushed_test,
    ranked,
    seen,
    settled,
    surest,
    surprising,
    verdict,
)
from lyrandis.core.flight.curves import (
    NEVER,
    SPINE_EXAMPLE,
    USUAL_CURVES,
    Contact,
    Touch,
    UprightCurves,
    as_practice_has_it,
    contact,
)
from lyrandis.core.flight.likely import NOISE, Push, bare_null, rhos
from lyrandis.core.flight.settle import (
    Tuning,
    corrected,
    expected,
    nock_move_mm,
    rig_prior,
    tuned,
    tuning,
    wanted,
)
from lyrandis.core.flight.virtual import VirtualRig
from tests.core.flight import evenings as ev
from tests.core.flight.trials import mean, rule_of_thumb, trial

ORDINARY = NOISE["ordinary"]
PLAIN = {test.key: test for test in PLAIN_TESTS}
TESTS = (
    *PLAIN_TESTS,
    pushed_test("draw_short", Push(0.5)),
    pushed_test("other_shafts", Push(-2.0, exact=True)),
)
READINGS = st.one_of(
    st.tuples(st.just(PLAIN["tail"]), st.integers(0, 6)),
    st.tuples(st.just(PLAIN["tail_far"]), st.integers(0, 6)),
    st.tuples(st.just(PLAIN["bare"]), st.floats(-1.5, 1.5)),
    st.tuples(st.just(PLAIN["mark"]), st.integers(0, 1)),
    st.tuples(st.just(PLAIN["slap"]), st.integers(0, 1)),
)


def spine(centre: float = 0.0) -> Axis:
    return new_axis("spine", SPINE_EXAMPLE, centre)


@given(st.floats(-4, 9), st.lists(READINGS, max_size=5))
def test_chances_add_up_whatever_was_seen(
    centre: float, readings: list[tuple[FlightTest, float]]
) -> None:
    axis = spine(centre)
    for test, reading in readings:
        axis = seen(axis, test, reading, ORDINARY)
    assert sum(axis.chances().values()) == pytest.approx(1.0)
    assert (axis.p >= 0).all()
    assert 0 <= axis.off <= 1


@given(READINGS, READINGS)
def test_the_order_of_two_readings_does_not_count(
    one: tuple[FlightTest, float], two: tuple[FlightTest, float]
) -> None:
    there = seen(seen(spine(3.0), *one, ORDINARY), *two, ORDINARY)
    back = seen(seen(spine(3.0), *two, ORDINARY), *one, ORDINARY)
    assert np.allclose(there.p, back.p, atol=1e-12)


def test_a_reading_that_tells_nothing_changes_nothing() -> None:
    axis = spine(5.0)
    found = axis.seen(np.full(axis.p.shape, 0.3), 0.3)
    assert np.allclose(found.p, axis.p)
    assert found.off == pytest.approx(axis.off)


@pytest.mark.parametrize("test", TESTS, ids=lambda test: test.key)
def test_a_test_tells_nothing_once_all_is_known(test: FlightTest) -> None:
    axis = spine(5.0)
    only = np.zeros_like(axis.p)
    only[30, 3, 1, 1, 1, 1] = 1.0
    assert bits(axis, test, ORDINARY) > 0
    assert bits(replace(axis, p=only), test, ORDINARY) == pytest.approx(0.0, abs=1e-9)


@pytest.mark.parametrize("test", TESTS, ids=lambda test: test.key)
def test_outcomes_are_all_that_can_happen(test: FlightTest) -> None:
    for axis in (spine(2.0), new_axis("upright", UprightCurves())):
        table = outcomes(axis, test, ORDINARY)
        assert table.sum() == pytest.approx(1.0)
        assert table.sum(axis=0) == pytest.approx(list(axis.chances().values()))


def test_a_tail_that_never_strikes_is_never_false_weak() -> None:
    axis = spine(8.0)
    free = axis.p * (CONTACTS.way == Touch.NEVER)[None, :, None, None, None, None]
    assert replace(axis, p=free / free.sum()).chances()["false_weak"] == 0.0


@given(st.floats(-3, 3), st.sampled_from(["lever", "shafts", "nock"]))
def test_a_stiffening_correction_raises_the_mean(by: float, means: str) -> None:
    axis = spine(1.0)
    found = corrected(axis, by, means)  # type: ignore[arg-type]
    assert found.mean - axis.mean == pytest.approx(by, abs=0.35)
    assert found.sd >= axis.sd - 0.25
    assert found.p.sum() == pytest.approx(1.0)


def test_what_is_expected_follows_the_correction() -> None:
    stiff = seen(seen(spine(2.0), PLAIN["tail"], 5, ORDINARY), PLAIN["bare"], 0.25, ORDINARY)
    by = wanted(stiff)
    assert by is not None
    assert by == pytest.approx(-stiff.mean)
    before, then = expected(stiff, ORDINARY), expected(corrected(stiff, by, "shafts"), ORDINARY)
    assert before.likeliest == 5
    assert then.likeliest == 3
    assert abs(then.bare_m) < 0.05 < before.bare_m
    assert 0 in then.unexpected
    assert not tuned(stiff)


def test_a_nock_is_moved_by_two_millimetres_a_step() -> None:
    low = seen(new_axis("upright", UprightCurves()), PLAIN["bare"], 0.30, ORDINARY)
    by = wanted(low)
    assert by is not None
    assert nock_move_mm(by) == pytest.approx(2 * low.mean)
    assert nock_move_mm(by) > 0, "too low: up"
    assert wanted(corrected(low, by, "nock")) is None


def test_a_matched_rig_wants_nothing() -> None:
    near = seen(seen(spine(0.0), PLAIN["tail"], 3, ORDINARY), PLAIN["bare"], 0.0, ORDINARY)
    assert wanted(near) is None
    assert tuned(seen(near, PLAIN["bare_six"], 0.0, ORDINARY))


def test_a_tuning_moves_the_match_and_narrows_it() -> None:
    axis = seen(seen(spine(0.0), PLAIN["tail"], 4, ORDINARY), PLAIN["bare"], 0.15, ORDINARY)
    found = tuning(axis, 60.0, 60.0)
    assert found.matched == pytest.approx(60.0 * math.exp(-axis.mean / 10))
    assert found.matched < 60.0
    assert found.offset == pytest.approx(axis.mean)
    low, high = axis.within(0.95)
    assert found.band == pytest.approx((high - low) / 20)
    inside = axis.over_x[(axis.x > low) & (axis.x < high)].sum()
    assert inside == pytest.approx(0.95, abs=0.04)
    prior = rig_prior(1.0, [found, found])
    assert prior.centre > 1.0
    assert prior.sd < rig_prior(1.0, [found]).sd < 1.8
    with pytest.raises(ValueError, match="above nought"):
        tuning(axis, 0.0, 60.0)


def test_a_vague_tuning_moves_the_prior_less_than_a_sharp_one() -> None:
    sharp, vague = Tuning(50, 0.1, 2.0, 0.3), Tuning(50, 0.1, 2.0, 3.0)
    assert rig_prior(0.0, [sharp]).centre > 1.5 > 1.0 > rig_prior(0.0, [vague]).centre > 0


def test_readings_that_cannot_be_are_refused() -> None:
    for test, reading in ((PLAIN["tail"], 7), (PLAIN["mark"], 2), (PLAIN["tail"], 1.5)):
        with pytest.raises(ValueError, match="none of the"):
            seen(spine(), test, reading, ORDINARY)


def test_a_verdict_is_a_class_doubt_or_contradiction() -> None:
    assert verdict(spine(5.0)) == "unsure"
    weak = seen(seen(spine(-3.0), PLAIN["tail"], 0, ORDINARY), PLAIN["bare"], -0.3, ORDINARY)
    assert verdict(weak) == "weak"
    assert surest(weak)[1] >= 0.75
    against = seen(seen(spine(0.0), PLAIN["tail"], 6, ORDINARY), PLAIN["bare"], -0.45, ORDINARY)
    assert verdict(seen(against, PLAIN["tail"], 0, ORDINARY)) == "contradict"


def test_a_reading_unlike_what_is_believed_is_surprising() -> None:
    weak = seen(seen(spine(-3.0), PLAIN["tail"], 0, ORDINARY), PLAIN["bare"], -0.3, ORDINARY)
    assert not surprising(weak, PLAIN["bare"], -0.3, ORDINARY)
    assert surprising(weak, PLAIN["bare"], 0.8, ORDINARY)


def test_a_tail_seen_too_far_off_is_refused() -> None:
    near, far = (replace(PLAIN["tail"], distance_m=metres) for metres in (6.0, 6.1))
    assert seen(spine(), near, 5, ORDINARY).mean != spine().mean
    with pytest.raises(ValueError, match="beyond 6 m"):
        seen(spine(), far, 5, ORDINARY)


def test_the_swing_of_the_feathers_is_known_only_near() -> None:
    assert rhos(2.0) == rhos(3.5) == (1.0, 1.0, 1.0)
    low, _, high = rhos(5.3)
    assert low < 0 < high
    assert rhos(1.2)[0] == pytest.approx(0.6 + 2 / 5 * 0.2)
    assert bare_null(0.0, 9.0) == pytest.approx(2 * bare_null(0.0, 18.0))


def test_a_sitting_ends() -> None:
    """At the most tests; once each may have been shot often enough; when all is settled."""
    sitting = Sitting({"spine": spine(0.8)})
    many = replace(sitting, done=(PLAIN["tail"],) * MOST_TESTS)
    assert ranked(many, TESTS, ORDINARY) == []
    often = replace(sitting, done=(PLAIN["tail"],) * MOST_REPEATS)
    assert "tail" not in {one.test.key for one in ranked(often, TESTS, ORDINARY)}
    best = ranked(sitting, TESTS, ORDINARY)
    assert [one.per_minute for one in best] == sorted((o.per_minute for o in best), reverse=True)


def test_one_kind_of_evidence_is_not_enough() -> None:
    axis = spine(-6.0)
    sitting = Sitting({"spine": axis})
    for _ in range(2):
        sitting = after(sitting, PLAIN["tail"], {"spine": 0}, ORDINARY)
    assert settled(sitting.axes["spine"])
    left = ranked(sitting, TESTS, ORDINARY)
    assert left
    assert all(one.test.kind != ("tail", False) for one in left)
    both = after(sitting, PLAIN["bare"], {"spine": -0.3}, ORDINARY)
    assert ranked(both, TESTS, ORDINARY) == []


def test_the_truth_of_virtual_rigs_is_found() -> None:
    """48 rigs of four kinds, an ordinary archer whose noise is not the engine's."""
    found = trial(48)
    assert mean(found.right) >= 0.85
    assert mean(found.near) >= 0.93
    assert found.said_right() >= 0.94
    assert found.truth.count("false_weak") >= 6
    assert found.of_false_weak("false_weak") >= 0.88
    assert found.of_false_weak("weak") <= 0.05
    assert found.median_tests <= 4
    first = rule_of_thumb(48, PLAIN_TESTS[:1])
    assert mean(first.right) <= 0.75, "the first reading is right in about two of three"
    assert first.of_false_weak("weak") >= 0.6


def earlier(by: Contact) -> Contact:
    return Contact(by.way, by.shift - 2.0)


def test_a_world_that_is_not_the_engines_is_found_too() -> None:
    """Readings weaker by three tenths, contact two index earlier."""
    found = trial(24, world=lambda rig: replace(rig, gain=0.7 * rig.gain, by=earlier(rig.by)))
    assert mean(found.near) >= 0.83
    assert found.said_right() >= 0.85
    assert found.of_false_weak("false_weak") >= 0.75


def test_a_virtual_rig_that_never_strikes_reads_stiff() -> None:
    struck = VirtualRig(SPINE_EXAMPLE, ORDINARY, 8.0)
    free = replace(struck, by=NEVER)
    assert (struck.truth, free.truth) == ("false_weak", "stiff")
    rng = np.random.default_rng(3)
    tails = [one.shoot(PLAIN["tail"], Push(), rng) for one in (struck, free)]
    assert tails[0] < 3 < tails[1]
    assert sum(struck.shoot(PLAIN["mark"], Push(), rng) for _ in range(40)) > 20
    assert sum(free.shoot(PLAIN["mark"], Push(), rng) for _ in range(40)) < 10


def test_evenings_flown_by_the_page_come_to_an_end() -> None:
    """Four rigs of another world by the card alone: ended, no empty step, most near the match."""
    found = ev.flown(range(1004, 1008), ev.POPULATION, workers=1)
    assert all(one.end in ev.ENDED for one in found)
    assert not any(one.empty for one in found)
    assert mean([abs(one.index) <= 1.5 for one in found]) >= 0.75
    assert not any(one.far_weak_called_tuned for one in found)


@pytest.mark.parametrize("way", list(Touch))
def test_a_matched_shaft_reads_straight_whatever_the_contact(way: Touch) -> None:
    """Of contact as computed alone, which is there whatever the match, that is not said."""
    at = np.array(0.0)
    if way != Touch.ALWAYS:
        assert float(USUAL_CURVES.tail(at, contact(way))) == 0.0
        assert float(USUAL_CURVES.bare(at, contact(way), 18.0)) == 0.0
    stiff = np.array(9.0)
    assert (float(USUAL_CURVES.tail(stiff, contact(way))) > 0) == (way == Touch.NEVER)
    assert (float(USUAL_CURVES.bare(stiff, contact(way), 18.0)) > 0) == (
        way in (Touch.NEVER, Touch.FLETCHED)
    )


def test_a_bow_whose_contact_begins_at_the_match_is_read_as_practice_has_it() -> None:
    struck = tuple(
        v - 5.0 * (x > 0) for x, v in zip(USUAL_CURVES.index, USUAL_CURVES.tail_struck, strict=True)
    )
    near = replace(USUAL_CURVES, tail_struck=struck)
    assert not near.understood
    read = as_practice_has_it(near)
    assert read.understood
    assert read.tail_clean == near.tail_clean, "its flexing stays its own"
    upside_down = replace(near, tail_clean=tuple(-v for v in near.tail_clean))
    assert as_practice_has_it(upside_down) == USUAL_CURVES


def test_what_proves_contact_is_no_contradiction() -> None:
    """Tail weak while bare or weaker shafts read stiff: too stiff, and it is never "look"."""
    weaker = pushed_test("other_shafts", Push(-2.0, exact=True))
    for proof, reading in ((PLAIN["bare"], 0.25), (weaker, 5)):
        axis = seen(seen(spine(4.0), PLAIN["tail"], 1, ORDINARY), proof, reading, ORDINARY)
        chances = axis.chances()
        assert axis.off < 0.5
        assert chances["stiff"] + chances["false_weak"] >= 0.85
        assert chances["false_weak"] > spine(4.0).chances()["false_weak"]


def test_a_short_draw_the_wrong_way_and_a_mark_are_decisive_together() -> None:
    short = pushed_test("draw_short", Push(0.5))
    for centre in (3.0, 5.0):
        axis = spine(centre)
        for test, reading in ((PLAIN["tail"], 2), (short, 1), (PLAIN["mark"], 1)):
            axis = seen(axis, test, reading, ORDINARY)
        chances = axis.chances()
        assert chances["stiff"] + chances["false_weak"] >= 0.85
        assert surest(axis)[0] == "false_weak"


def test_nothing_is_tried_further_to_the_side_it_errs_to() -> None:
    stiff = Sitting({"spine": spine(5.0)})
    offered = {one.test.key for one in ranked(stiff, TESTS, ORDINARY)}
    assert "tail_draw_short" not in offered
    assert "tail_other_shafts" in offered


def test_a_third_time_has_to_tell_more() -> None:
    axis = spine(0.0)
    for _ in range(2):
        axis = seen(axis, PLAIN["bare_six"], 0.0, ORDINARY)
    sitting = Sitting({"spine": axis}, (PLAIN["slap"],) * 2)
    assert "slap" not in {one.test.key for one in ranked(sitting, TESTS, ORDINARY)}
