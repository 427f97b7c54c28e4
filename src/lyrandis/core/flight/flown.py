"""Nock heights that were shot in the flight: on the nock's own page they are heights shot."""

from collections.abc import Iterator, Sequence

from lyrandis.core.effective import Recorded, when
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.evidence import FURTHEST_BARE_M, NEAREST_BARE_M
from lyrandis.core.flight.facts import FlightFacts
from lyrandis.core.flight.readings import BareApart, ButtHits, apart_of
from lyrandis.core.nock.height import FlownHeight, lift_told_at
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.nock.words import NockFlight

HEIGHT_LEVEL_MM = 50.0
"""Assumption: within 5 cm at 18 m a bare shaft is level with the fletched."""
LEVEL_AT_M = 18.0


def heights_flown(
    facts: FlightFacts, heights: Sequence[Recorded[NockHeight]], nock: Estimate
) -> tuple[FlownHeight, ...]:
    """Return the lifts whose bare shafts were seen high, low or level, in order.

    Source: schools of the trade: a bare shaft high over the fletched means the nock is too low.

    >>> heights_flown(FlightFacts(), (), Estimate(8.0, 0.0))
    ()
    """
    return tuple(_flown(facts, heights, nock))


def _flown(
    facts: FlightFacts, heights: Sequence[Recorded[NockHeight]], nock: Estimate
) -> Iterator[FlownHeight]:
    for recorded in facts.seen:
        reading = recorded.reading
        if not isinstance(reading, BareApart | ButtHits):
            continue
        apart = apart_of(reading.hits) if isinstance(reading, ButtHits) else None
        up = apart.up_mm if apart else getattr(reading, "up_mm", None)
        far = reading.distance_m
        lift = lift_told_at(heights, nock, when(recorded.entry))
        if up is None or lift is None or not NEAREST_BARE_M <= far <= FURTHEST_BARE_M:
            continue
        moved = 0.0
        if reading.trial is not None and reading.trial.what == "nock":
            moved = reading.trial.amount
        level = HEIGHT_LEVEL_MM * (far / LEVEL_AT_M) ** 2
        flew: NockFlight = (
            "bare_level" if abs(up) <= level else "bare_high" if up > 0 else "bare_low"
        )
        yield FlownHeight(round(lift.value + moved, 2), flew, recorded.entry.id)
