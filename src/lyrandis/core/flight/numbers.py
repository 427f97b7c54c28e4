"""The numbers of the flight, worked out in order: basis, log, belief, verdict, match, tests,
what is due.

The rig's own curves are data: they are there, or not yet. Without them nothing is believed.
"""

from dataclasses import dataclass

from lyrandis.core.flight.basis import FlightBasis, Upstream, changes_since_seen, flight_basis
from lyrandis.core.flight.choices import FlightTests, flight_tests
from lyrandis.core.flight.due import FlightDue, flight_due
from lyrandis.core.flight.evidence import Reckoned
from lyrandis.core.flight.facts import FlightFacts
from lyrandis.core.flight.history import LogLine, flight_log
from lyrandis.core.flight.settle import expected
from lyrandis.core.flight.state import (
    FlightBelief,
    FlightMatch,
    FlightVerdict,
    flight_belief,
    flight_match,
    flight_verdict,
)
from lyrandis.core.phrase import Phrase, phrase


@dataclass(frozen=True)
class FlightNumbers:
    """What follows from what was seen of the flight."""

    facts: FlightFacts
    upstream: Upstream
    basis: FlightBasis
    log: tuple[LogLine, ...]
    """All that was seen and changed, in order; empty while the curves are not there."""
    belief: FlightBelief
    verdict: FlightVerdict
    match: FlightMatch
    tests: FlightTests
    due: FlightDue

    @property
    def differs(self) -> Phrase | None:
        """What is set otherwise since the tuning was kept; None where nothing is."""
        apart = self.match.differs
        if not apart:
            return None
        figures = {f"by{i}": one.figures["by"] for i, one in enumerate(apart)}
        said = [one.template.replace("{by}", f"{{by{i}}}") for i, one in enumerate(apart)]
        return phrase(", ".join(said) + " since", **figures)

    @property
    def bare_right_m(self) -> float | None:
        """Where bare shafts strike beside fletched ones at 18 m by what was seen, + right."""
        spine = self.belief.spine
        if spine is None or not self.belief.counted or self.verdict.contradicts:
            return None
        outward = expected(spine, self.basis.noise).bare_m
        return -outward if self.basis.hands.outward_is_left else outward


def numbers(facts: FlightFacts, *, upstream: Upstream, reckoned: Reckoned | None) -> FlightNumbers:
    """Return the numbers of the flight; `reckoned` are the rig's own curves."""
    changes = changes_since_seen(facts, upstream)
    basis = flight_basis(facts, upstream, changes, reckoned)
    log = flight_log(facts, upstream, basis.view, changes, waits=bool(basis.needs))
    belief = flight_belief(facts, upstream, basis, log)
    verdict = flight_verdict(facts, basis, belief, log)
    match = flight_match(facts, upstream, basis, belief, verdict, log)
    tests = flight_tests(facts, upstream, basis, belief, verdict)
    due = flight_due(belief, verdict, tests)
    return FlightNumbers(facts, upstream, basis, log, belief, verdict, match, tests, due)
