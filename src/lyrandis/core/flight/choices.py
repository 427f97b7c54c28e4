"""The tests a rig can be shot with, and which are worth it now."""

import math
from dataclasses import dataclass
from functools import lru_cache

from lyrandis.core.flight.basis import FlightBasis, Upstream
from lyrandis.core.flight.choose import PLAIN_TESTS, FlightTest, Worth, pushed_test, ranked
from lyrandis.core.flight.evidence import (
    SittingStep,
    Start,
    believed,
    push_of,
    sitting_of,
    upright_push,
)
from lyrandis.core.flight.facts import FlightFacts
from lyrandis.core.flight.readings import Change
from lyrandis.core.flight.state import FlightBelief
from lyrandis.core.quantities import within

FURTHEST_M = 100.0


@dataclass(frozen=True)
class FlightTests:
    """What can be shot and changed for a trial on this rig."""

    trials: tuple[Change, ...]
    """What can be changed for a trial, never past the bow's limit."""
    offered: tuple[FlightTest, ...]
    """The tests this rig can do."""
    ranked: tuple[Worth, ...]
    """The tests worth shooting, the best first."""


def flight_tests(
    facts: FlightFacts, upstream: Upstream, basis: FlightBasis, belief: FlightBelief
) -> FlightTests:
    """Return the tests this rig can do, and those worth shooting now."""
    trials = _trials(facts, upstream, basis, belief)
    offered = _offered(facts, basis, belief, trials)
    worth: tuple[Worth, ...] = ()
    if belief.sitting is not None and belief.start is not None:
        done = belief.sitting.done
        worth = _ranked(belief.start, belief.steps, done, belief.looked_up, offered)
    return FlightTests(trials, offered, worth)


def _trials(
    facts: FlightFacts, upstream: Upstream, basis: FlightBasis, belief: FlightBelief
) -> tuple[Change, ...]:
    result = [Change(what="draw_short", amount=25.4)]
    limit, drawn = upstream.bow.draw_limit, upstream.drawn_mm
    if limit and drawn is not None and within(drawn + 12.7, 0.0, limit.reading.draw_length_mm):
        result.append(Change(what="draw_extra", amount=12.7))
    silencers = upstream.string.part("silencers_gr") or 0.0
    result.append(Change(what="silencers", amount=-silencers if silencers else 20.0))
    if upstream.nock.kit != "plain":
        result.append(Change(what="plate", amount=2.0))
    other = facts.kit.other_shafts_lbf if facts.kit else None
    if other and basis.own_lbf and abs(math.log(other / basis.own_lbf)) > 0.05:
        result.append(Change(what="other_shafts", amount=other))
    if belief.looked_up:
        result.append(Change(what="nock", amount=3.0))
    return tuple(result)


def _offered(
    facts: FlightFacts, basis: FlightBasis, belief: FlightBelief, trials: tuple[Change, ...]
) -> tuple[FlightTest, ...]:
    kit = facts.kit
    bare = kit is None or kit.bare_shafts is not False
    longest = kit.longest_m if kit and kit.longest_m else FURTHEST_M
    plain = [
        test for test in PLAIN_TESTS
        if test.distance_m <= longest and (bare or test.sees != "bare")
    ]  # fmt: skip
    if basis.reckoned is None:
        return tuple(plain)
    pushes = [
        pushed_test(trial.what, push_of(basis.reckoned, trial, basis.own_lbf, basis.tip_gr))
        for trial in trials
        if trial.what != "nock"
    ]
    nock = [Change(what="nock", amount=3.0)] if belief.looked_up else []
    return (*plain, *pushes, *(pushed_test("nock", upright_push(item)) for item in nock))


@lru_cache(maxsize=64)
def _ranked(
    start: Start,
    steps: tuple[SittingStep, ...],
    done: tuple[FlightTest, ...],
    upright: bool,
    offered: tuple[FlightTest, ...],
) -> tuple[Worth, ...]:
    sitting = sitting_of(believed(start, steps), done, upright=upright)
    return tuple(ranked(sitting, offered, start.noise))
