"""What the flight of a rig is read with: shaft, archer's noise, curves, and what can be changed."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.arrow.closing import MatchChange, changed
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.matched import match_of
from lyrandis.core.arrow.numbers import ArrowNumbers
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.effective import At, Recorded
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.changes import RigChange, changes_of, other_shafts_of, spine_at
from lyrandis.core.flight.evidence import (
    ANY_NOCK,
    CurvesAsked,
    Hands,
    NockPrior,
    Reckoned,
    View,
    learned,
)
from lyrandis.core.flight.facts import FlightFacts, first_that_counts
from lyrandis.core.flight.likely import NOISE, Noise
from lyrandis.core.flight.readings import ButtHits
from lyrandis.core.flight.settle import NOCK_MM_PER_INDEX
from lyrandis.core.flight.words import Care
from lyrandis.core.nock.height import lift_told_at
from lyrandis.core.nock.numbers import NockNumbers
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.reading import AsideStep
from lyrandis.core.string.facts import StringFacts

SCHOOL_NOCK_SD, MOST_NOCK_OFF = 1.5, 5.0
"""Assumption: in steps of 2 mm."""
FlightNeed = Literal["hand", "length", "spine", "window", "shot"]
"""Which side is which; the arrow; where the plate stands; all else that the shot needs."""


@dataclass(frozen=True)
class Upstream:
    """What the flight stands on: facts and numbers of the stages before it."""

    archer: ArcherFacts
    bow: BowFacts
    string: StringFacts
    arrows: ArrowFacts
    arrow: ArrowNumbers
    nock: NockNumbers
    heights: tuple[Recorded[NockHeight], ...]
    """Every nock height that was read, in order."""
    drawn_mm: float | None
    """The archer's draw, pivot + 1 3/4 in."""
    own_set: str | None
    aside: frozenset[AsideStep] = frozenset()
    """What the archer said not to tell for now."""

    def lift_at(self, at: At) -> Estimate | None:
        """Return the lift that was told last at an instant, else the first told after it."""
        return lift_told_at(self.heights, self.nock.arrow_nock, at)


@dataclass(frozen=True)
class FlightBasis:
    """What readings of the flight are read with."""

    asked: CurvesAsked | None
    """What the curves are reckoned from; None while the shot is not known."""
    reckoned: Reckoned | None
    """The rig's own curves; None while they are not there."""
    waiting: bool
    """True where something was seen, and the curves to read it with are still reckoned."""
    hands: Hands
    """Which side is which for this archer."""
    care: Care
    noise: Noise
    """The archer's own scatter, as far as their groups tell it."""
    freedom: int
    """Degrees of freedom of the archer's own groups in the noise."""
    own_lbf: float | None
    tip_gr: float
    """Point and insert."""
    index: float
    """The shaft's index before any flight, as the rig stood when something was first seen."""
    view: View | None
    nock_prior: NockPrior = ANY_NOCK
    """Where the nock stands by its school, before any flight."""
    needs: tuple[FlightNeed, ...] = ()
    """What has to be told before a reading is weighed: until then it is kept, and waits."""


def asked_of(arrow: ArrowNumbers, changes: Sequence[RigChange] = ()) -> CurvesAsked | None:
    """Return what a rig's curves are reckoned from; None where the shot is not known.

    What was changed since the first reading is undone: so readings keep the curves they were made
    with, and a change moves the index along them by what it is computed to do.

    >>> from lyrandis.core.example import rig
    >>> asked_of(rig().arrow).matched_lbf == rig().arrow.model.matched
    True
    """
    shooting, match = arrow.shooting, arrow.model
    if shooting is None or match is None or shooting.sheet.pointless:
        return None
    weight = round(shooting.weight_lbf, 1)
    shot = shooting.shot
    amounts: dict[MatchChange, float] = {}
    for change in changes:
        amounts[change.what] = amounts.get(change.what, 0.0) + change.amount
    for what, amount in amounts.items():
        shot = changed(shot, weight, what, -round(amount, 7))
    if amounts:
        match = match_of(shot, shooting.habit, shooting.own_lbf)
    return CurvesAsked(
        shot,
        shooting.habit,
        weight,
        match.matched,
        match.shot.matched or match.matched,
        round(shooting.sheet.diameter_mm / 1000, 5),
    )


def wants_curves(facts: FlightFacts) -> bool:
    """Return whether curves are needed: to read what was seen, or to widen what was kept."""
    return bool(facts.seen or facts.tunings)


def flight_basis(
    facts: FlightFacts,
    upstream: Upstream,
    changes: Sequence[RigChange],
    reckoned: Reckoned | None,
) -> FlightBasis:
    """Return what the readings of a rig's flight are read with."""
    arrow = upstream.arrow
    asked = asked_of(arrow, changes)
    shooting = arrow.shooting
    own = shooting.own_lbf if shooting else None
    tip_gr = shooting.shot.beam.tip / KG_PER_GRAIN if shooting else 0.0
    ends = [sighting.reading for sighting in facts.seen if isinstance(sighting.reading, ButtHits)]
    care = facts.care.reading.care if facts.care else "ordinary"
    noise, freedom = learned(NOISE[care], ends)
    index = 0.0
    if asked is not None and own is not None:
        # index = 10 ln(own / match)
        index = 10 * math.log(_first_spine(facts, upstream, own) / asked.matched_lbf)
    hands = Hands(outward_is_left(upstream.archer))
    view = None
    needs = needs_of(upstream, asked)
    if reckoned is not None and not needs:
        view = View(
            reckoned,
            hands,
            own,
            arrow.sheet.length_mm,
            tip_gr,
            upstream.string.silencers_share,
        )
    waiting = bool(facts.seen) and asked is not None and reckoned is None
    return FlightBasis(
        asked, reckoned, waiting, hands, care, noise, freedom, own, tip_gr, index, view,
        nock_prior_of(facts, upstream), needs,
    )  # fmt: skip


def nock_prior_of(facts: FlightFacts, upstream: Upstream) -> NockPrior:
    """Return where the nock is looked for: by the lift it stood at when it was seen first.

    Its school begins the search at a height for the hold: what stands above it is likely high.
    Assumption: the school's start is good to 3 mm.

    >>> from lyrandis.core.example import rig
    >>> c = rig(["lift 12mm"])
    >>> round(nock_prior_of(c.flight.facts, c.flight.upstream).centre, 2)
    -4.5
    """
    first = first_that_counts(facts)
    lift = upstream.lift_at(first) if first else upstream.nock.lift
    if lift is None:
        return ANY_NOCK
    off = (upstream.nock.start.lift_mm - lift.value) / NOCK_MM_PER_INDEX
    centre = max(-MOST_NOCK_OFF, min(MOST_NOCK_OFF, off))
    return NockPrior(round(centre, 3), SCHOOL_NOCK_SD)


def changes_since_seen(facts: FlightFacts, upstream: Upstream) -> tuple[RigChange, ...]:
    """Return what was changed on the rig since something of its flight was seen first.

    Source: `changes_of`.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> changes_since_seen(c.flight.facts, c.flight.upstream)
    ()
    """
    first = first_that_counts(facts)
    return changes_of(upstream.arrows, upstream.string, first) if first else ()


def _first_spine(facts: FlightFacts, upstream: Upstream, own_lbf: float) -> float:
    """Return the spine of the shafts that were seen first."""
    first = first_that_counts(facts)
    if first is None:
        return own_lbf
    return spine_at(own_lbf, other_shafts_of(upstream.arrows, first), first)


def needs_of(upstream: Upstream, asked: CurvesAsked | None) -> tuple[FlightNeed, ...]:
    """Return what has to be told before any reading of the flight is weighed, first things first.

    The window may be set aside: then that of the kind of bow stands in, and is doubted.
    Source: sides, sizes and the match all turn on these.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> needs_of(c.flight.upstream, c.flight.basis.asked)
    ('hand',)
    """
    arrows = upstream.arrows
    told: dict[FlightNeed, bool] = {
        "hand": upstream.archer.hand is not None,
        "length": arrows.part("shaft_length_mm")[0] is not None,
        "spine": arrows.spine_told,
        "window": arrows.passing("window_mm")[0] is not None or "window" in upstream.aside,
        "shot": asked is not None,
    }
    return tuple(need for need, there in told.items() if not there)
