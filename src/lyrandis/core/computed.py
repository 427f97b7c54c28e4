"""What follows from a setup before anything is judged: the numbers the rules look at."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.archer.numbers import numbers as archer_numbers
from lyrandis.core.archer.words import Anchor, Hold
from lyrandis.core.arrow.mass import ArrowMass, arrow_mass_of
from lyrandis.core.arrow.matched import SpineMatch
from lyrandis.core.arrow.numbers import ArrowNumbers
from lyrandis.core.arrow.numbers import numbers as arrow_numbers
from lyrandis.core.bow.likeness import brace_far_off, brace_to_pivot, likeness_of
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.bow.numbers import numbers as bow_numbers
from lyrandis.core.crawls.marks import Holding
from lyrandis.core.crawls.numbers import CrawlNumbers, held_as
from lyrandis.core.crawls.numbers import numbers as crawl_numbers
from lyrandis.core.flight.basis import Upstream, asked_of, changes_since_seen, wants_curves
from lyrandis.core.flight.evidence import CurvesAsked, Reckoned, reckon
from lyrandis.core.flight.flown import heights_flown
from lyrandis.core.flight.numbers import FlightNumbers
from lyrandis.core.flight.numbers import numbers as flight_numbers
from lyrandis.core.listen.numbers import ListenNumbers
from lyrandis.core.listen.numbers import numbers as listen_numbers
from lyrandis.core.nock.numbers import NockNumbers
from lyrandis.core.nock.numbers import numbers as nock_numbers
from lyrandis.core.order.numbers import OrderNumbers
from lyrandis.core.order.numbers import numbers as order_numbers
from lyrandis.core.setup import Setup
from lyrandis.core.string.numbers import StringNumbers
from lyrandis.core.string.numbers import numbers as string_numbers

Reckoner = Callable[[CurvesAsked], Reckoned | None]
"""What gives a rig's curves of flight, or None while they are not there yet."""


@dataclass(frozen=True, slots=True)
class Computed:
    """A setup and the numbers of each stage."""

    setup: Setup
    archer: ArcherNumbers
    bow: BowNumbers
    arrow: ArrowNumbers
    string: StringNumbers
    nock: NockNumbers
    flight: FlightNumbers
    crawls: CrawlNumbers
    listen: ListenNumbers
    order: OrderNumbers

    @property
    def match(self) -> SpineMatch | None:
        """The shaft this rig wants: as its flight has it, else as computed."""
        return self.flight.match.match


def compute(setup: Setup, reckoner: Reckoner = reckon) -> Computed:
    """Return the numbers that follow from a setup; None where something is missing.

    `reckoner` gives a rig's curves of flight, or None while they are not there yet.

    Explicit on purpose, for mechanics do not run in the order of work: the bow's likeness comes
    before the archer's hook, and the arrow's mass before what a chronograph says of the bow.
    """
    brace_mm = brace_to_pivot(setup.string, setup.archer)
    doubted = brace_mm is not None and brace_far_off(setup.bow, brace_mm)
    if doubted:
        brace_mm = None
    likeness = likeness_of(setup.bow, brace_mm)
    archer = archer_numbers(setup.archer, likeness=likeness)
    finished = arrow_mass_of(setup.arrows, archer.draw_mm)
    hold = setup.archer.hold.reading.hold if setup.archer.hold else None
    bow = bow_numbers(
        setup.bow,
        archer_facts=setup.archer,
        likeness=likeness,
        archer=archer,
        string_gr=setup.string.told_mass_gr,
        silencers_gr=setup.string.silencers_moving_gr,
        hold=hold,
        arrow_gr=finished.mass.value if finished else None,
    )
    arrow = arrow_numbers(
        setup.arrows,
        finished=finished,
        archer=archer,
        bow=bow,
        bow_facts=setup.bow,
        string=setup.string,
        brace_mm=brace_mm,
        thumb=hold == "thumb",
    )
    string = string_numbers(
        setup.string,
        archer_facts=setup.archer,
        bow_facts=setup.bow,
        likeness=likeness,
        brace_doubted=doubted,
    )
    nock = nock_numbers(
        setup.nock,
        archer_facts=setup.archer,
        bow_facts=setup.bow,
        arrow_facts=setup.arrows,
        bow=bow,
    )
    flown = heights_flown(setup.flight, setup.order.heights, nock.arrow_nock)
    nock = replace(nock, flown=flown)
    upstream = Upstream(
        archer=setup.archer,
        bow=setup.bow,
        string=setup.string,
        arrows=setup.arrows,
        arrow=arrow,
        nock=nock,
        heights=setup.order.heights,
        drawn_mm=archer.drawn_to.value if archer.draw else None,
        own_set=setup.fitted.arrow_set,
        aside=setup.order.aside,
    )
    asked = asked_of(arrow, changes_since_seen(setup.flight, upstream))
    curves = reckoner(asked) if asked and wants_curves(setup.flight) else None
    flight = flight_numbers(setup.flight, upstream=upstream, reckoned=curves)
    order = order_numbers(
        setup.order, setup=setup, archer=archer, bow=bow, string=string, nock=nock
    )
    crawls = _crawls(setup, setup.archer, archer, bow, arrow.finished)
    listen = listen_numbers(
        setup.listen, setup=setup, archer=archer, bow=bow, string=string, arrow=arrow
    )
    return Computed(setup, archer, bow, arrow, string, nock, flight, crawls, listen, order)


def with_curves(c: Computed, reckoner: Reckoner = reckon) -> Computed:
    """Return the same with the rig's own curves of flight, whether something was seen or not.

    >>> from lyrandis.core.example import rig
    >>> with_curves(rig()).flight.basis.reckoned is None
    False
    """
    asked = c.flight.basis.asked
    if c.flight.basis.reckoned is not None or asked is None:
        return c
    flight = flight_numbers(c.setup.flight, upstream=c.flight.upstream, reckoned=reckoner(asked))
    return replace(c, flight=flight)


def crawls_held(c: Computed, anchor: Anchor, hold: Hold) -> CrawlNumbers:
    """Return the numbers of the crawls with another anchor and hold in force.

    >>> from lyrandis.core.example import rig
    >>> crawls_held(rig(), "cheekbone", "split").basis.facts.marks
    ()
    """
    holding = Holding(c.setup.order.anchors, c.setup.order.holds)
    facts = held_as(c.setup.archer, holding, anchor, hold)
    return _crawls(c.setup, facts, c.archer, c.bow, c.arrow.finished)


def _crawls(
    setup: Setup,
    archer_facts: ArcherFacts,
    archer: ArcherNumbers,
    bow: BowNumbers,
    finished: ArrowMass | None,
) -> CrawlNumbers:
    return crawl_numbers(
        setup.crawls,
        archer_facts=archer_facts,
        arrow_facts=setup.arrows,
        holding=Holding(setup.order.anchors, setup.order.holds),
        usual_mm=setup.nock.crawl_mm,
        arrow_set=setup.fitted.arrow_set,
        other_arrows=setup.other_arrows,
        archer=archer,
        bow=bow,
        finished=finished,
    )
