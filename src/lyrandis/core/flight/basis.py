"""What the flight of a rig is read with: shaft, archer's noise, curves, and what can be changed."""

import math
from dataclasses import dataclass
from typing import Any

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.numbers import ArrowNumbers
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.effective import Recorded
from lyrandis.core.flight.evidence import CurvesAsked, Hands, Reckoned, View, learned
from lyrandis.core.flight.facts import FlightFacts
from lyrandis.core.flight.likely import NOISE, Noise
from lyrandis.core.flight.readings import ButtHits
from lyrandis.core.flight.words import Care
from lyrandis.core.nock.numbers import NockNumbers
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.string.facts import StringFacts


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

    def told_of_rig(self) -> tuple[tuple[tuple[Recorded[Any], ...], str], ...]:
        """Return what is told of the rig, not of its arrows, that moves its match."""
        return (
            (self.arrows.passes, "window_mm"),
            (self.string.builds, "silencers_gr"),
            (self.string.braces, "brace_height_mm"),
        )


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
    """The shaft's index before any flight, as the rig stands now."""
    view: View | None


def asked_of(arrow: ArrowNumbers) -> CurvesAsked | None:
    """Return what a rig's curves are reckoned from; None where the shot is not known.

    >>> from lyrandis.core.example import rig
    >>> asked_of(rig().arrow).matched_lbf == rig().arrow.model.matched
    True
    """
    shooting, match = arrow.shooting, arrow.model
    if shooting is None or match is None or shooting.sheet.pointless:
        return None
    return CurvesAsked(
        shooting.shot,
        shooting.habit,
        round(shooting.weight_lbf, 1),
        match.matched,
        match.shot.matched or match.matched,
        round(shooting.sheet.diameter_mm / 1000, 5),
    )


def wants_curves(facts: FlightFacts) -> bool:
    """Return whether curves are needed: to read what was seen, or to widen what was kept."""
    return bool(facts.seen or facts.tunings)


def flight_basis(
    facts: FlightFacts, upstream: Upstream, asked: CurvesAsked | None, reckoned: Reckoned | None
) -> FlightBasis:
    """Return what the readings of a rig's flight are read with."""
    arrow = upstream.arrow
    shooting, match = arrow.shooting, arrow.model
    own = shooting.own_lbf if shooting else None
    tip_gr = shooting.shot.beam.tip / KG_PER_GRAIN if shooting else 0.0
    ends = [sighting.reading for sighting in facts.seen if isinstance(sighting.reading, ButtHits)]
    care = facts.care.reading.care if facts.care else "ordinary"
    noise, freedom = learned(NOISE[care], ends)
    index = 0.0
    if match is not None and own is not None:
        # index = 10 ln(own / match)
        index = 10 * math.log(own / match.matched)
    hands = Hands(outward_is_left(upstream.archer))
    view = None
    if reckoned is not None:
        view = View(reckoned, hands, own, arrow.sheet.length_mm, tip_gr)
    waiting = bool(facts.seen) and asked is not None and reckoned is None
    return FlightBasis(
        asked, reckoned, waiting, hands, care, noise, freedom, own, tip_gr, index, view
    )
