"""The tests a rig can be shot with, and which are worth it now."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import NamedTuple

from lyrandis.core.flight.basis import FlightBasis, Upstream
from lyrandis.core.flight.choose import PLAIN_TESTS, FlightTest, Worth, bits, pushed_test, ranked
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
from lyrandis.core.flight.state import FlightBelief, FlightVerdict
from lyrandis.core.flight.words import Sees
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
    facts: FlightFacts,
    upstream: Upstream,
    basis: FlightBasis,
    belief: FlightBelief,
    verdict: FlightVerdict,
) -> FlightTests:
    """Return the tests this rig can do, and those worth shooting now."""
    trials = _trials(facts, upstream, basis, belief)
    offered = _offered(facts, upstream, basis, belief, trials)
    worth: tuple[Worth, ...] = ()
    if belief.sitting is not None and belief.start is not None:
        sitting = belief.sitting
        worth = _ranked(
            belief.start, belief.steps, _Shot(sitting.done, sitting.before, sitting.confirms),
            belief.looked_up, offered,
        )  # fmt: skip
        if verdict.unproved:
            worth = _proving(belief, offered)
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
    facts: FlightFacts,
    upstream: Upstream,
    basis: FlightBasis,
    belief: FlightBelief,
    trials: tuple[Change, ...],
) -> tuple[FlightTest, ...]:
    kit = facts.kit
    bare = kit is None or kit.bare_shafts is not False
    felt = kit is None or kit.felt is not False
    longest = kit.longest_m if kit and kit.longest_m else FURTHEST_M
    plain = [
        test for test in PLAIN_TESTS
        if test.distance_m <= longest
        and (bare or test.sees != "bare")
        and (felt or test.sees != "mark")
    ]  # fmt: skip
    if basis.reckoned is None:
        return tuple(plain)
    pushes = [
        pushed_test(
            trial.what,
            push_of(
                basis.reckoned,
                trial,
                basis.own_lbf,
                basis.tip_gr,
                upstream.string.silencers_share,
            ),
        )
        for trial in trials
        if trial.what != "nock"
    ]
    if not basis.reckoned.understood:
        plain, pushes = _decisive(plain, pushes)
    nock = [Change(what="nock", amount=3.0)] if belief.looked_up else []
    return (*plain, *pushes, *(pushed_test("nock", upright_push(item)) for item in nock))


def _decisive(
    plain: list[FlightTest], pushes: list[FlightTest]
) -> tuple[list[FlightTest], list[FlightTest]]:
    """Return what decides where a bow's contact is not understood: bare shafts, other shafts.

    All of them where there are neither.
    """
    bare = [test for test in plain if test.sees == "bare"]
    other = [test for test in pushes if test.pushed == "other_shafts"]
    return (bare, other) if bare or other else (plain, pushes)


def _proving(belief: FlightBelief, offered: tuple[FlightTest, ...]) -> tuple[Worth, ...]:
    """Return weaker shafts on trial: what parts a tuned shaft from a far too stiff one."""
    assert belief.spine is not None
    assert belief.start is not None
    noise = belief.start.noise
    return tuple(
        Worth(test, bits(belief.spine, test, noise))
        for test in offered
        if test.pushed == "other_shafts"
    )


class _Shot(NamedTuple):
    """What was shot in a sitting, and before it."""

    done: tuple[FlightTest, ...]
    before: frozenset[tuple[Sees, bool]]
    confirms: int


@lru_cache(maxsize=64)
def _ranked(
    start: Start,
    steps: tuple[SittingStep, ...],
    shot: _Shot,
    upright: bool,
    offered: tuple[FlightTest, ...],
) -> tuple[Worth, ...]:
    sitting = sitting_of(believed(start, steps), shot.done, upright=upright)
    sitting = replace(sitting, before=shot.before, confirms=shot.confirms)
    return tuple(ranked(sitting, offered, start.noise))
