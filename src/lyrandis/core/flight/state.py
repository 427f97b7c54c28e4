"""What is believed of a rig's flight, what may be said of it, and the match that follows."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

from lyrandis.core.arrow.matched import SpineMatch
from lyrandis.core.effective import At, when
from lyrandis.core.flight.basis import FlightBasis, Upstream
from lyrandis.core.flight.belief import SPINE_SD, WIDE_SHARE, Axis
from lyrandis.core.flight.changes import changes_of
from lyrandis.core.flight.choose import (
    KINDS,
    OFF_FROM,
    SAID_FROM,
    FlightTest,
    Sitting,
    verdict,
)
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
from lyrandis.core.flight.history import LogLine, shift_of
from lyrandis.core.flight.keep import differs, settings_of
from lyrandis.core.flight.readings import RigTuned
from lyrandis.core.flight.settle import Tuning, rig_prior, shown, tuned, tuning
from lyrandis.core.flight.words import Class, Doubtful
from lyrandis.core.phrase import Phrase

ASSUMED_SD = 2.5
"""Assumption: the match is good to 25 % where shaft, window or string are assumed."""
UNKNOWN_SD = 4.0
"""Assumption: of a shaft whose spine nobody told."""
TUNED_WIDE_SHARE = 0.05
WEAKER = 0.95
"""Of the own spine: below this other shafts are weaker, not alike."""
OF_THE_RIG = ("window", "string", "brace")
"""Changes of the rig, not of its arrows."""
MOVED_SHARE = 0.3
"""Assumption: of a computed shift, how much a tuning that was kept before it may not follow."""
CONFIRMS = 2
"""Readings after the last change of the shaft before it may be called tuned."""
SURE_FROM = 0.85
"""Chance of a side from which it is corrected at once. Tried in closed loops on virtual rigs."""
FAR_STIFF, FAR_STIFF_CHANCE = 3.0, 0.02
"""A struck tail stands near nought once more about six tenths too stiff: where more than this
speaks for far too stiff, weaker shafts are tried before tuned is said."""
HEIGHTS = ("height", "height_bare")
"""Tests of the nock's own page."""
ErrsTo = Literal["weak", "stiff"]


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
    confirms: int = 0
    """Readings still wanted since the shaft was changed before it may be called tuned."""
    flown: tuple[float, ...] = ()
    """Shifts of the index of other shafts flown on trial since the shaft was changed, in order."""
    rested: bool = False
    """True where the archer went on another day since the shaft was changed."""
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
    start = _start(upstream, basis, tunings)
    if start is None:
        return FlightBelief(tunings=tunings)
    axes = believed(start, steps)
    looked_up = any(step.upright is not None and step.test.sees != "slap" for step in seen)
    since = _since_shaft(steps)
    changed = len(since) < len(steps)
    of_shaft = [step for step in seen if step.spine is not None and step.test.key != GROUP]
    kinds = frozenset(step.test.kind for step in of_shaft)
    confirms = max(CONFIRMS - len(since), 0) if changed else 0
    sitting = sitting_of(axes, _done(facts, log), upright=looked_up)
    return FlightBelief(
        steps=steps,
        tunings=tunings,
        start=start,
        axes=axes,
        counted=len(of_shaft),
        kinds=len(kinds),
        confirms=confirms,
        flown=tuple(one.test.spine_push.by for one in since if one.test.pushed == "other_shafts"),
        rested=_rested(facts, log),
        looked_up=looked_up,
        sitting=replace(sitting, before=kinds, confirms=confirms),
    )


def _since_shaft(steps: Sequence[SittingStep]) -> list[Saw]:
    """Return the readings of the shaft since it was last changed."""
    since: list[Saw] = []
    for step in steps:
        if isinstance(step, Saw):
            if step.spine is not None and step.test.key != GROUP:
                since.append(step)
        elif step.axis == "spine":
            since = []
    return since


def _done(facts: FlightFacts, log: Sequence[LogLine]) -> list[FlightTest]:
    """Return the tests that were shot since the last change, in one sitting."""
    done: list[FlightTest] = []
    last: At | None = None
    for line in log:
        if isinstance(line.step, Shifted):
            done = []
        elif isinstance(line.step, Saw):
            if last is not None and _another_sitting(facts, last, line.at):
                done = []
            last = line.at
            if line.step.test.key not in (GROUP, *HEIGHTS):
                done.append(line.step.test)
    if last is not None and any(ended > last for ended in facts.sittings_ended):
        return []
    return done


def _rested(facts: FlightFacts, log: Sequence[LogLine]) -> bool:
    changed = [
        line.at for line in log if isinstance(line.step, Shifted) and line.step.axis == "spine"
    ]
    ends = facts.sittings_ended
    return bool(ends) and (not changed or ends[-1] > changed[-1])


def _another_sitting(facts: FlightFacts, before: At, now: At) -> bool:
    ended = any(before < ended < now for ended in facts.sittings_ended)
    return ended or now[0] - before[0] > SITTING


def _start(upstream: Upstream, basis: FlightBasis, tunings: tuple[Tuning, ...]) -> Start | None:
    if basis.reckoned is None:
        return None
    shooting = upstream.arrow.shooting
    rough = shooting is not None and bool(shooting.assumed)
    own_sd = UNKNOWN_SD if basis.own_lbf is None else ASSUMED_SD if rough else SPINE_SD
    prior = rig_prior(basis.index, tunings, own_sd)
    wide = TUNED_WIDE_SHARE if tunings else WIDE_SHARE
    curves = basis.reckoned.curves
    return Start(
        curves, basis.noise, round(prior.centre, 4), round(prior.sd, 4), wide, basis.nock_prior
    )


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
    moves: dict[str, float] = {}
    for change in changes_of(upstream.arrows, upstream.string, since):
        if change.what in OF_THE_RIG:
            by = shift_of(basis.reckoned, change)
            moves[change.what] = moves.get(change.what, 0.0) + by
    return list(moves.values())


class Said(NamedTuple):
    """What is said of the shaft, with its one chance: title, bars, rail and finding take it."""

    cause: Class
    chance: float
    strikes: float | None = None
    """Chance that its tail strikes, where only too stiff is sure and both ways of it are likely."""


@dataclass(frozen=True)
class FlightVerdict:
    """What may be said of shaft and nock."""

    shaft: Class | Doubtful | None = None
    """None before the first reading counts."""
    nock: Class | Doubtful | None = None
    said: Said | None = None
    """None before the first reading counts, and where the readings contradict each other."""
    contradicts: bool = False
    contradicted: bool = False
    """True where they did before the last reading too: then one of them is odd."""
    odd: LogLine | None = None
    """Where they contradict each other still: the reading without which all others agree; None
    where no one reading is to blame."""
    surprising: LogLine | None = None
    """The last reading, where it is so unlike what was believed that it is shot once more."""
    sure: ErrsTo | None = None
    """The side the shaft surely errs to: it is corrected at once."""
    unproved: bool = False
    """True where it may be called tuned once weaker shafts have flown."""
    tuned: bool = False
    """True when the shaft may be called tuned by two kinds of evidence that agree."""
    nock_tuned: bool = False


def flight_verdict(
    facts: FlightFacts, basis: FlightBasis, belief: FlightBelief, log: Sequence[LogLine]
) -> FlightVerdict:
    """Return what may be said after the readings."""
    if belief.axes is None:
        return FlightVerdict()
    spine, upright = belief.axes
    some = bool(facts.seen) and belief.counted > 0
    shaft = verdict(spine) if some else None
    nock = verdict(upright) if belief.looked_up else None
    contradicts = "contradict" in (shaft, nock)
    said = said_of_shaft(spine) if some and not contradicts else None
    far_stiff = spine.chance_between(FAR_STIFF, math.inf) > FAR_STIFF_CHANCE
    weaker_flew = any(by < 0 for by in belief.flown)
    weaker = facts.kit.other_shafts_lbf if facts.kit else None
    can_prove = bool(weaker and basis.own_lbf and weaker < WEAKER * basis.own_lbf)
    well = (
        some and not contradicts and belief.kinds >= KINDS and not belief.confirms and tuned(spine)
    )
    unproved = well and far_stiff and can_prove and not weaker_flew
    before = belief.after(len(belief.steps) - 1) if belief.steps else belief.axes
    contradicted = contradicts and any(verdict(axis) == "contradict" for axis in before)
    return FlightVerdict(
        shaft=shaft,
        nock=nock,
        said=said,
        contradicts=contradicts,
        contradicted=contradicted,
        odd=_odd(belief, log) if contradicted else None,
        surprising=_surprising(belief, log),
        sure=_sure(spine) if some and not contradicts else None,
        unproved=unproved,
        tuned=well and not unproved,
        nock_tuned=belief.looked_up and tuned(upright),
    )


def said_of_shaft(spine: Axis) -> Said:
    """Return what is said of a shaft: its likeliest cause, stiff and false weak as one side.

    Source: `Axis.chances`; the chance of tuned is held at what came true (docs/MECHANICS.md).

    >>> from lyrandis.core.flight.belief import new_axis
    >>> from lyrandis.core.flight.curves import SPINE_EXAMPLE
    >>> said_of_shaft(new_axis("spine", SPINE_EXAMPLE, 0.0)).cause
    'tuned'
    """
    chances = {name: shown(name, chance) for name, chance in spine.chances().items()}
    best = max(chances, key=lambda name: chances[name])
    side = chances["stiff"] + chances["false_weak"]
    if chances[best] < SAID_FROM <= side:
        return Said("stiff", side, chances["false_weak"])
    if best == "tuned" and side > chances[best]:
        return Said("stiff", side, chances["false_weak"])
    return Said(best, chances[best])


def _sure(spine: Axis) -> ErrsTo | None:
    chances = spine.chances()
    if chances["weak"] >= SURE_FROM:
        return "weak"
    return "stiff" if chances["stiff"] + chances["false_weak"] >= SURE_FROM else None


def _odd(belief: FlightBelief, log: Sequence[LogLine]) -> LogLine | None:
    """Return the reading without which the readings contradict each other least."""
    assert belief.start is not None
    counted = [line for line in log if line.step is not None]
    best: tuple[float, LogLine] | None = None
    for i, line in enumerate(counted):
        if line.seen is None:
            continue
        without = believed(belief.start, belief.steps[:i] + belief.steps[i + 1 :])
        off = max(axis.off for axis in without)
        if best is None or off < best[0]:
            best = off, line
    return best[1] if best and best[0] <= OFF_FROM else None


def _surprising(belief: FlightBelief, log: Sequence[LogLine]) -> LogLine | None:
    seen = [(line, line.step) for line in log if isinstance(line.step, Saw)]
    if len(seen) < 2 or belief.start is None:
        return None
    (_, before), (last, step) = seen[-2:]
    if belief.steps[-1] is not step or step.test.key == before.test.key:
        # the same seen twice running counts, however odd it is
        return None
    return last if unexpected(belief.start, belief.steps) else None


@dataclass(frozen=True)
class FlightMatch:
    """The rig's match as its flight has it."""

    tuning: Tuning | None
    """What this rig's own flight says of its match; None without the shafts' spine."""
    kept: bool
    """True where what is believed of these arrows is in the log already."""
    last: RigTuned | None
    """What was kept of these arrows last."""
    differs: tuple[Phrase, ...]
    """What is set otherwise since: it puts that tuning in doubt."""
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
    near_kept = kept and not own[-1].reading.tuned
    result = None
    if belief.spine is not None and basis.own_lbf is not None and model:
        result = tuning(belief.spine, basis.own_lbf, model.matched)
    in_force = model
    if model is not None and by_flight:
        if (verdict.tuned or near_kept) and result is not None:
            in_force = _matched_at(model, result.matched, result.band)
        elif belief.tunings:
            prior = rig_prior(0.0, belief.tunings)
            matched = model.matched * math.exp(-prior.centre / 10)
            in_force = _matched_at(model, matched, 2 * prior.sd / 10)
    last = own[-1].reading if own else None
    apart = differs(last, settings_of(upstream))
    return FlightMatch(result, kept, last, apart, by_flight, in_force)


def _matched_at(model: SpineMatch, matched: float, band: float) -> SpineMatch:
    low, high = matched * math.exp(-band), matched * math.exp(band)
    return replace(model, matched=matched, low=low, high=high, sd=band / 2)
