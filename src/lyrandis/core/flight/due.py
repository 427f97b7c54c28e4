"""What is due: the shift of shaft and nock to make now, or how near the match the rig stands."""

from dataclasses import dataclass

from lyrandis.core.flight.belief import Axis
from lyrandis.core.flight.choices import FlightTests
from lyrandis.core.flight.settle import Near, near_of, wanted
from lyrandis.core.flight.state import FlightBelief, FlightVerdict

NOCK_STEP = 0.75
"""A nock that is a millimetre and a half off is worth a step of its own; less is listed only."""
NEAR_ENOUGH = 1.5
"""Assumption: within 15 %, a class of spine as it is sold, nobody need go on another day."""
NOCK_LAST = 0.5
"""Once no test is left a nock is set to the middle of what is believed, from a millimetre on."""
NOCK_BITS = 0.1
"""What a test has to tell to be shot for the nock alone."""
NOCK_SURE = 0.6
"""Assumption: a nock moves exactly and for nothing, so it waits for less than the shaft does."""


@dataclass(frozen=True)
class FlightDue:
    """What is to be corrected; nothing while tests tell more than a correction would."""

    across: float | None = None
    """The shift of the shaft that is due [index, + stiffer]; None where none is."""
    up: float | None = None
    """The same of the nock [steps of 2 mm, + lower]."""
    nock_first: bool = False
    """True where the nock is worth a step, and goes before the shaft."""
    near: Near | None = None
    """How near the match it is, where no test is worth its trouble any more."""
    nock_open: bool = False
    """True where the shaft is tuned, and tests still tell of the nock."""
    rested: bool = False
    """True where the archer went on another day already, or it is near enough to keep at once."""


def flight_due(belief: FlightBelief, verdict: FlightVerdict, tests: FlightTests) -> FlightDue:
    """Return what is due after the readings.

    A side that is sure is corrected at once, whatever tests are left; where none is left, by the
    mean of what is believed, unless that is too little to act on.
    Assumption: the limits, tried in closed loops on virtual rigs.

    >>> from lyrandis.core.example import rig
    >>> flight_due(rig().flight.belief, rig().flight.verdict, rig().flight.tests).across is None
    True
    """
    if belief.axes is None or not belief.counted or verdict.contradicts:
        return FlightDue()
    spine, upright = belief.axes
    known = verdict.sure is not None or not tests.ranked
    across = wanted(spine) if known and not verdict.tuned else None
    up = wanted(upright) if belief.looked_up and not verdict.nock_tuned else None
    worth = up is not None and abs(up) >= (NOCK_STEP if tests.ranked else NOCK_LAST)
    nock_first = worth and (not tests.ranked or _nock_is_off(upright))
    near = None if tests.ranked or verdict.tuned else near_of(spine)
    rested = near is not None and (belief.rested or near.within <= NEAR_ENOUGH)
    telling = any(item.bits >= NOCK_BITS for item in tests.ranked)
    nock_open = verdict.tuned and belief.looked_up and not verdict.nock_tuned and telling
    return FlightDue(across, up, nock_first, near, nock_open, rested)


def _nock_is_off(upright: Axis) -> bool:
    return 1 - upright.chances()["tuned"] >= NOCK_SURE
