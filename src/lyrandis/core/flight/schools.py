"""The schools of reading flight, side by side: what each can and cannot tell on this rig."""

from typing import Literal

from lyrandis.core.computed import Computed, with_curves
from lyrandis.core.drawn import Drawn
from lyrandis.core.flight.choose import FlightTest, bits
from lyrandis.core.flight.readings import (
    BareApart,
    ButtHits,
    PlateMarked,
    TailSeen,
    WalkedBack,
)

SchoolKey = Literal["tail", "bare", "marks", "walk_back", "no_bare_wood"]


class SchoolLine(Drawn):
    """One school: what it holds, what it can and cannot tell, and what it said here."""

    key: SchoolKey
    name: str
    holds: str
    can: str
    cannot: str
    readings: int
    bits: float | None
    """What its best test would tell now; None where it tells the belief nothing."""
    ours: bool
    """True for what Lyrandis prefers here."""


def schools(c: Computed) -> tuple[SchoolLine, ...]:
    """Return the schools, with what each would tell of this rig's shaft now.

    Source: fieldcraft of the trade; bits are the mutual information of its best test.

    >>> from lyrandis.core.example import rig
    >>> [one.key for one in schools(rig())]
    ['tail', 'bare', 'marks', 'walk_back', 'no_bare_wood']
    """
    flight = with_curves(c).flight
    seen = [sighting.reading for sighting in flight.facts.seen]
    wood = c.setup.arrows.material == "wood"

    def best(test: FlightTest) -> float | None:
        spine = flight.belief.spine
        return None if spine is None else round(bits(spine, test, flight.basis.noise), 2)

    tail, bare = best(FlightTest("t", "tail", 3)), best(FlightTest("b", "bare", 6, 3, 18.0))
    mark = best(FlightTest("m", "mark", 4, 6))
    thumb = c.setup.archer.hold is not None and c.setup.archer.hold.reading.hold == "thumb"
    kit = flight.facts.kit
    has_bare = kit is None or kit.bare_shafts is not False
    prefers_bare = has_bare and bare is not None and tail is not None and bare > tail
    return (
        SchoolLine(
            key="tail",
            name="Close range, by the tail",
            holds="Shoot into a chest-high butt from three paces: the nock points to the cause.",
            can="It is quick, wants no bare shafts, and from 2 to 3.5 m it shows most."
            + (" On a thumb bow it shows a third of that." if thumb else ""),
            cannot="Seven paces tell nothing: a healthy tail swings through there and beyond. A "
            "stiff shaft that strikes reads weak.",
            readings=sum(isinstance(sighting, TailSeen) for sighting in seen),
            bits=tail,
            ours=not prefers_bare,
        ),
        SchoolLine(
            key="bare",
            name="Bare shafts",
            holds="Where unfletched shafts land beside fletched ones tells spine and nock height.",
            can="It sums the whole shot over 18 m, and shows high and low as well as sides.",
            cannot="One bare shaft is one arrow's scatter. It needs distance, a clear backstop and "
            "shafts to spare.",
            readings=sum(
                isinstance(sighting, BareApart)
                or (isinstance(sighting, ButtHits) and any(hit.bare for hit in sighting.hits))
                for sighting in seen
            ),
            bits=bare if has_bare else None,
            ours=prefers_bare,
        ),
        SchoolLine(
            key="marks",
            name="Wear and felt",
            holds="Put felt on the plate: a shaft that strikes leaves its mark.",
            can="It parts stiff from false weak, which no picture of the tail can.",
            cannot="Some strikes leave none, and a brushing feather marks too.",
            readings=sum(isinstance(sighting, PlateMarked) for sighting in seen),
            bits=mark,
            ours=False,
        ),
        SchoolLine(
            key="walk_back",
            name="Walk-back",
            holds="Same aim from growing distances: the column's drift tells centre shot and "
            "spine.",
            can="It is kept, with its drift, as the setting it is in the order of work.",
            cannot="The mechanics compute no absolute left or right, so it does not count here: it "
            "confirms at the end.",
            readings=sum(isinstance(sighting, WalkedBack) for sighting in seen),
            bits=None,
            ours=False,
        ),
        SchoolLine(
            key="no_bare_wood",
            name="Do not bare-shaft wood",
            holds="Wood differs from shaft to shaft and breaks easily: read the tail and the felt.",
            can="It keeps shafts whole, and hands whole."
            if wood
            else "It speaks of wooden shafts.",
            cannot="It gives up what tells most at distance. Say “no bare shafts”, and none is "
            "asked for.",
            readings=0,
            bits=None,
            ours=False,
        ),
    )
