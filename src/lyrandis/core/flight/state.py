"""What is believed of a rig's flight, what may be said of it, and the match that follows."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from lyrandis.core.arrow.matched import SpineMatch
from lyrandis.core.effective import At, when
from lyrandis.core.flight.basis import FlightBasis, Upstream
from lyrandis.core.flight.belief import SPINE_SD, WIDE_SHARE, Axis
from lyrandis.core.flight.choose import FlightTest, Sitting, surest, verdict
from lyrandis.core.flight.evidence import (
    GROUP,
    SITTING,
    Saw,
    Shifted,
    SittingStep,
    Start,
    believed,
    sitting_of,
    unexpected,
)
from lyrandis.core.flight.facts import FlightFacts
from lyrandis.core.flight.history import LogLine, rig_changes
from lyrandis.core.flight.settle import Tuning, rig_prior, tuned, tuning, wanted
from lyrandis.core.flight.words import Class, Doubtful

ASSUMED_SD = 2.5
"""Assumption: the match is good to 25 % where shaft, window or string are assumed."""
UNKNOWN_SD = 4.0
"""Assumption: of a shaft whose spine nobody told."""
TUNED_WIDE_SHARE = 0.05
MOVED_SHARE = 0.3
"""Assumption: of a computed shift, how much a tuning that was kept before it may not follow."""
KINDS_TO_TUNE = 2


@dataclass(frozen=True)
class FlightBelief:
    """What is believed of spine and nock; nothing while the curves are not there."""

    steps: tuple[SittingStep, ...] = ()
    tunings: tuple[Tuning, ...] = ()
    """What tunings with other arrows said of this bow and archer, the last of each set."""
    start: Start | None = None
    """Where the belief begins: the model's index before all that was changed since."""
    axes: tuple[Axis, Axis] | None = None
    counted: int = 0
    """How many readings count."""
    kinds: int = 0
    """How many kinds of evidence were seen, with a trial or without."""
    looked_up: bool = False
    """True when high or low was looked at: then the nock's height is asked too."""
    sitting: Sitting | None = None
    """The axes asked, and what was shot since the last change in one sitting."""

    @property
    def spine(self) -> Axis | None:
        return self.axes[0] if self.axes else None

    @property
    def upright(self) -> Axis | None:
        return self.axes[1] if self.axes else None

    def after(self, steps: int) -> tuple[Axis, Axis]:
        """Return what was believed after so many steps."""
        assert self.start is not None
        return believed(self.start, self.steps[:steps])


def flight_belief(
    facts: FlightFacts, upstream: Upstream, basis: FlightBasis, log: Sequence[LogLine]
) -> FlightBelief:
    """Return what is believed after all that was seen and changed."""
    steps = tuple(line.step for line in log if line.step is not None)
    seen = [step for step in steps if isinstance(step, Saw)]
    tunings = _tunings(facts, upstream, basis)
    start = _start(upstream, basis, steps, tunings)
    if start is None:
        return FlightBelief(tunings=tunings)
    axes = believed(start, steps)
    looked_up = any(step.upright is not None and step.test.sees != "slap" for step in seen)
    return FlightBelief(
        steps=steps,
        tunings=tunings,
        start=start,
        axes=axes,
        counted=sum(step.test.key != GROUP for step in seen),
        kinds=len({step.test.kind for step in seen if step.test.key != GROUP}),
        looked_up=looked_up,
        sitting=sitting_of(axes, _done(log), upright=looked_up),
    )


def _done(log: Sequence[LogLine]) -> list[FlightTest]:
    """Return the tests that were shot since the last change, in one sitting."""
    done: list[FlightTest] = []
    last: datetime | None = None
    for line in log:
        if isinstance(line.step, Shifted):
            done = []
        elif isinstance(line.step, Saw):
            if last is not None and line.at[0] - last > SITTING:
                done = []
            last = line.at[0]
            if line.step.test.key != GROUP:
                done.append(line.step.test)
    return done


def _start(
    upstream: Upstream,
    basis: FlightBasis,
    steps: Sequence[SittingStep],
    tunings: tuple[Tuning, ...],
) -> Start | None:
    if basis.reckoned is None:
        return None
    shifted = sum(step.by for step in steps if isinstance(step, Shifted) and step.axis == "spine")
    shooting = upstream.arrow.shooting
    rough = shooting is not None and bool(shooting.assumed)
    own_sd = UNKNOWN_SD if basis.own_lbf is None else ASSUMED_SD if rough else SPINE_SD
    prior = rig_prior(basis.index - shifted, tunings, own_sd)
    wide = TUNED_WIDE_SHARE if tunings else WIDE_SHARE
    curves = basis.reckoned.curves
    return Start(curves, basis.noise, round(prior.centre, 4), round(prior.sd, 4), wide)


def _tunings(facts: FlightFacts, upstream: Upstream, basis: FlightBasis) -> tuple[Tuning, ...]:
    """Return the tunings of other sets; what was moved since makes each of them less sure."""
    result = []
    for of_set, recorded in dict(facts.tunings).items():
        if of_set == upstream.own_set:
            continue
        kept = recorded.reading
        moves = _moves_since(upstream, basis, when(recorded.entry))
        sd = math.hypot(kept.sd, *(MOVED_SHARE * by for by in moves))
        result.append(Tuning(kept.matched_lbf, 2 * sd / 10, kept.offset, sd))
    return tuple(result)


def _moves_since(upstream: Upstream, basis: FlightBasis, since: At) -> list[float]:
    """Return how far brace, silencers and plate have each moved the match since [index]."""
    if basis.reckoned is None:
        return []
    return [
        sum(getattr(line.step, "by", 0.0) for line in moves)
        for moves in rig_changes(upstream, basis.reckoned, since)
    ]


@dataclass(frozen=True)
class FlightVerdict:
    """What may be said of shaft and nock, and what is due."""

    shaft: Class | Doubtful | None = None
    """None before the first reading counts."""
    nock: Class | Doubtful | None = None
    contradicts: bool = False
    surprising: LogLine | None = None
    """The last reading, where it is so unlike what was believed that it is shot once more."""
    tuned: bool = False
    """True when the shaft may be called tuned by two kinds of evidence that agree."""
    nock_tuned: bool = False
    across: float | None = None
    """The shift of the shaft that is due, None where none is."""
    up: float | None = None
    """The same of the nock."""

    def best(self, belief: FlightBelief) -> Mapping[str, tuple[Class, float]]:
        """Return the likeliest class of each axis and its chance."""
        return {axis.name: surest(axis) for axis in belief.axes or ()}


def flight_verdict(
    facts: FlightFacts, belief: FlightBelief, log: Sequence[LogLine]
) -> FlightVerdict:
    """Return what may be said after the readings, and what is due."""
    if belief.axes is None:
        return FlightVerdict()
    spine, upright = belief.axes
    shaft = verdict(spine) if facts.seen and belief.counted else None
    nock = verdict(upright) if belief.looked_up else None
    contradicts = "contradict" in (shaft, nock)
    is_tuned = (
        shaft is not None and belief.kinds >= KINDS_TO_TUNE and not contradicts and tuned(spine)
    )
    nock_tuned = belief.looked_up and tuned(upright)
    across = up = None
    if belief.counted and not contradicts:
        known = shaft not in ("unsure", "contradict", None)
        across = wanted(spine) if known and not is_tuned else None
        up = wanted(upright) if belief.looked_up and not nock_tuned else None
    surprising = _surprising(belief, log)
    return FlightVerdict(shaft, nock, contradicts, surprising, is_tuned, nock_tuned, across, up)


def _surprising(belief: FlightBelief, log: Sequence[LogLine]) -> LogLine | None:
    seen = [line for line in log if isinstance(line.step, Saw)]
    if len(seen) < 2 or belief.start is None:
        return None
    last = seen[-1]
    if belief.steps[-1] is not last.step:
        return None
    return last if unexpected(belief.start, belief.steps) else None


@dataclass(frozen=True)
class FlightMatch:
    """The rig's match as its flight has it."""

    tuning: Tuning | None
    """What this rig's own flight says of its match; None without the shafts' spine."""
    kept: bool
    """True where what is believed of these arrows is in the log already."""
    by_flight: bool
    """True unless the archer said to use the computed match alone."""
    match: SpineMatch | None
    """The rig's match: where its flight put it, once that may be said, else the computed."""


def flight_match(
    facts: FlightFacts,
    upstream: Upstream,
    basis: FlightBasis,
    belief: FlightBelief,
    verdict: FlightVerdict,
    log: Sequence[LogLine],
) -> FlightMatch:
    """Return the match that is in force, and what the flight says of it."""
    model = upstream.arrow.model
    by_flight = facts.source is None or facts.source.reading.source == "flight"
    own = [recorded for of_set, recorded in facts.tunings if of_set == upstream.own_set]
    kept = bool(own) and all(when(own[-1].entry) > line.at for line in log)
    result = None
    if belief.spine is not None and basis.own_lbf is not None and model:
        result = tuning(belief.spine, basis.own_lbf, model.matched)
    in_force = model
    if model is not None and by_flight:
        if verdict.tuned and result is not None:
            in_force = _matched_at(model, result.matched, result.band)
        elif belief.tunings:
            prior = rig_prior(0.0, belief.tunings)
            matched = model.matched * math.exp(-prior.centre / 10)
            in_force = _matched_at(model, matched, 2 * prior.sd / 10)
    return FlightMatch(result, kept, by_flight, in_force)


def _matched_at(model: SpineMatch, matched: float, band: float) -> SpineMatch:
    low, high = matched * math.exp(-band), matched * math.exp(band)
    return replace(model, matched=matched, low=low, high=high, sd=band / 2)
