"""Folding entries into the setup: what is known of a rig, each fact with its entry."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime
from operator import attrgetter
from typing import get_args

from lyrandis.core import entries as e
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.facts import facts as archer_facts
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.facts import facts as arrow_facts
from lyrandis.core.arrow.readings import ArrowReading
from lyrandis.core.bench_readings import Named, PartFitted, PutAway
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.facts import facts as bow_facts
from lyrandis.core.crawls.facts import CrawlFacts, OtherArrows
from lyrandis.core.crawls.facts import facts as crawl_facts
from lyrandis.core.crawls.readings import CrawlMark, CrawlReading
from lyrandis.core.effective import EffectiveReadings, in_force, parts_fitted
from lyrandis.core.flight.facts import FlightFacts
from lyrandis.core.flight.facts import facts as flight_facts
from lyrandis.core.listen.facts import ListenFacts
from lyrandis.core.listen.facts import facts as listen_facts
from lyrandis.core.nock.facts import NockFacts
from lyrandis.core.nock.facts import facts as nock_facts
from lyrandis.core.order.facts import OrderFacts
from lyrandis.core.order.facts import facts as order_facts
from lyrandis.core.reading import Fitted, SubjectKind
from lyrandis.core.string.facts import StringFacts
from lyrandis.core.string.facts import facts as string_facts

_SEQ = attrgetter("seq")
_OF_A_TABLE = frozenset((*get_args(ArrowReading), *get_args(CrawlReading), Named, PartFitted))


@dataclass(frozen=True)
class Setup:
    """The rig's header, and what each stage holds in force. Lengths in mm, forces in lbf."""

    rig: str | None = None
    name: str | None = None
    put_away: bool = False
    revision: int = 0
    """Order number of the newest entry that was folded in."""
    entry_count: int = 0
    fitted: Fitted = field(default_factory=Fitted)
    archer: ArcherFacts = field(default_factory=ArcherFacts)
    bow: BowFacts = field(default_factory=BowFacts)
    string: StringFacts = field(default_factory=StringFacts)
    arrows: ArrowFacts = field(default_factory=ArrowFacts)
    nock: NockFacts = field(default_factory=NockFacts)
    flight: FlightFacts = field(default_factory=FlightFacts)
    crawls: CrawlFacts = field(default_factory=CrawlFacts)
    other_arrows: tuple[OtherArrows, ...] = ()
    listen: ListenFacts = field(default_factory=ListenFacts)
    order: OrderFacts = field(default_factory=OrderFacts)
    effective: EffectiveReadings = field(
        default_factory=EffectiveReadings, compare=False, repr=False
    )
    """All that stands: a stage whose facts nobody else reads takes them from here."""

    def subject(self, kind: SubjectKind) -> tuple[str | None, str | None]:
        """Return the id and the name of the rig, or of the part of a kind that is on it."""
        match kind:
            case "rig":
                return self.rig, self.name
            case "archer":
                return self.fitted.archer, self.archer.name
            case "bow":
                return self.fitted.bow, self.bow.name
            case "string":
                return self.fitted.string, self.string.name
            case "arrow_set":
                return self.fitted.arrow_set, self.arrows.name


def fold(
    entries: Sequence[e.Entry],
    *,
    rig: str | None = None,
    as_of: datetime | None = None,
    ordered: bool = False,
) -> Setup:
    """Fold entries into the setup of one rig.

    `entries` may hold other rigs' and parts' entries and come in any order. `rig` defaults to the
    last rig spoken of; `as_of` leaves out what happened later; `ordered` says that the
    entries are in order already, as a log is. Never raises.
    """
    if as_of is not None:
        entries = [entry for entry in entries if entry.happened_at <= as_of]
    standing = in_force(entries, ordered=ordered)
    if rig is None:
        rig = next((s.subject.id for s in reversed(standing) if s.subject.kind == "rig"), None)
    fitted = parts_fitted(standing, rig)
    readings = EffectiveReadings(standing, rig, fitted)
    away = readings.last(PutAway)
    return Setup(
        rig=rig,
        name=readings.names.get("rig"),
        put_away=away is not None and away.reading.away,
        revision=max(map(_SEQ, entries), default=0),
        entry_count=len(entries),
        fitted=fitted,
        archer=archer_facts(readings),
        bow=bow_facts(readings),
        string=string_facts(readings),
        arrows=arrow_facts(readings),
        nock=nock_facts(readings),
        flight=flight_facts(readings),
        crawls=crawl_facts(readings),
        other_arrows=_other_arrows(standing, rig, readings, fitted),
        listen=listen_facts(readings),
        order=order_facts(readings),
        effective=readings,
    )


def _other_arrows(
    standing: Sequence[e.Entry], rig: str | None, readings: EffectiveReadings, fitted: Fitted
) -> tuple[OtherArrows, ...]:
    """Return the other sets that crawls were shot with, archer and bow being the same."""
    sets: dict[str, None] = {}
    for item in readings.others:
        then = readings.made_with[item.entry.id]
        same = (then.archer, then.bow) == (fitted.archer, fitted.bow)
        if isinstance(item.reading, CrawlMark) and same and then.arrow_set is not None:
            sets[then.arrow_set] = None
    if not sets:
        return ()
    # of the whole log only what such a table is made of
    of_table = [entry for entry in standing if type(entry.reading) in _OF_A_TABLE]
    result = []
    for arrow_set in sets:
        other = EffectiveReadings(of_table, rig, fitted.model_copy(update={"arrow_set": arrow_set}))
        result.append(OtherArrows(arrow_set, arrow_facts(other), crawl_facts(other)))
    return tuple(result)
