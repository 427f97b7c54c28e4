"""The effective readings: the standing entries that speak of one rig as it is, by kind."""

from bisect import bisect_right
from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import datetime
from operator import attrgetter
from typing import TYPE_CHECKING, Any, Generic, NamedTuple, TypeVar, cast

from lyrandis.core.bench_readings import Changed, Named, PartFitted
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Phrase, phrase
from lyrandis.core.quantities import AS_STORED
from lyrandis.core.reading import PARTS, BaseReading, Fitted, Source, SubjectKind

if TYPE_CHECKING:
    from lyrandis.core.entries import Entry

R = TypeVar("R", bound=BaseReading)
R_co = TypeVar("R_co", bound=BaseReading, covariant=True)


class Recorded(NamedTuple, Generic[R_co]):
    """A reading in force, with where it came from."""

    reading: R_co
    entry: "Entry"

    @property
    def source(self) -> Source:
        return self.entry.source

    @property
    def on_rig(self) -> bool:
        """True when it was recorded on this rig rather than on the part in general."""
        return self.entry.subject.kind == "rig"


def newest(told: Sequence[Recorded[R]], name: str) -> tuple[Any, Recorded[R] | None]:
    """Return the newest value given for one field, and the reading that gave it."""
    for recorded in reversed(told):
        value = getattr(recorded.reading, name)
        if value is not None:
            return value, recorded
    return None, None


class Timeline(Generic[R]):
    """Readings of one kind over time, asked which was in force at an instant.

    Of those recorded on the rig and those of the part in general, the rig's own come first.
    """

    def __init__(self, told: Sequence[Recorded[R]]) -> None:
        own = [recorded for recorded in told if recorded.on_rig]
        general = [recorded for recorded in told if not recorded.on_rig]
        self._runs = [(run, [when(recorded.entry) for recorded in run]) for run in (own, general)]

    def at(self, at: "At") -> Recorded[R] | None:
        """Return what was told last until an instant; None where nothing was."""
        for run, instants in self._runs:
            count = bisect_right(instants, at)
            if count:
                return run[count - 1]
        return None


_ByKind = dict[type[BaseReading], list[Recorded[BaseReading]]]


class EffectiveReadings:
    """Standing entries of one rig and its parts, in order; the rig's own come behind the part's.

    A rig's own reading counts only with the parts it was made with; one made before a part was
    fitted at all belongs to the first that was.
    """

    def __init__(
        self,
        standing: "Iterable[Entry]" = (),
        rig: str | None = None,
        fitted: Fitted = Fitted(),  # noqa: B008  a frozen value
    ) -> None:
        self.names: dict[SubjectKind, str] = {}
        """What each subject is called now."""
        self.others: list[Recorded[BaseReading]] = []
        """The rig's readings made with parts that are no longer on it."""
        self.made_with: dict[str, Fitted] = {}
        """The parts those were made with, by the entry's id."""
        self._general: _ByKind = {}
        self._on_rig: _ByKind = {}
        wanted: dict[str, str | None] = {"rig": rig, **dict(fitted)}
        so_far = Fitted()
        entries = list(standing)
        first = _first_fitted(entries, rig)
        new_record = tuple.__new__
        other_parts: dict[int, frozenset[str]] = {}
        ever: set[str] = set()
        totals = Totals() if any(type(one.reading) is Changed for one in entries) else None
        # a plain loop over everything a rig ever recorded: it runs at every assessment
        for entry in entries:
            subject, reading = entry.subject, entry.reading
            subject_kind = subject.kind
            if wanted[subject_kind] != subject.id:
                continue
            kind: type[BaseReading] = type(reading)
            by_kind = self._general
            if subject_kind == "rig":
                by_kind = self._on_rig
                if kind is PartFitted:
                    so_far = _with_part(so_far, reading)
                    ever.add(reading.part)  # type: ignore[union-attr]
                else:
                    then = entry.fitted or so_far
                    # by identity: what was fitted stays the same value for many entries
                    others = other_parts.get(id(then))
                    if others is None:
                        unfitted = [part for part in first if getattr(so_far, part) is None]
                        meant = then.model_copy(
                            update={
                                part: first[part]
                                for part in unfitted
                                if getattr(then, part) is None and part not in ever
                            }
                        )
                        others = other_parts[id(then)] = _differing(meant, fitted)
                    if others and not others.isdisjoint(reading.needed()):
                        self.others.append(Recorded(reading, entry))
                        self.made_with[entry.id] = then
                        continue
            counts: BaseReading = reading
            if totals is not None:
                counts = totals.after(reading)
                kind = type(counts)
            of_kind = by_kind.get(kind)
            if of_kind is None:
                of_kind = by_kind[kind] = []
            # Recorded(reading, entry), without the call in between
            of_kind.append(new_record(Recorded, (counts, entry)))
            if kind is Named:
                self.names[subject_kind] = reading.name  # type: ignore[union-attr]

    def sum_with(self, reading: BaseReading) -> Phrase | None:
        """Return what a change makes of the whole: 20 + 4 = 24; None where that is not known."""
        if reading.changes() is None:
            return None
        totals = Totals()
        by_kind = (*self._general.values(), *self._on_rig.values())
        told = (recorded for of_kind in by_kind for recorded in of_kind)
        for recorded in sorted(told, key=lambda item: when(item.entry)):
            totals.after(recorded.reading)
        return totals.sum_with(reading)

    def all(self, kind: type[R]) -> tuple[Recorded[R], ...]:
        """Return every reading of a kind."""
        by_kind = (*self._general.get(kind, ()), *self._on_rig.get(kind, ()))
        return cast(tuple[Recorded[R], ...], by_kind)

    def last(self, kind: type[R], *key: Any) -> Recorded[R] | None:
        """Return the newest reading of a kind (and key); one made on the rig comes first."""
        for by_kind in (self._on_rig, self._general):
            for recorded in reversed(by_kind.get(kind, ())):
                if not key or recorded.reading.key() == key:
                    return cast(Recorded[R], recorded)
        return None

    def count(self, *but: str) -> int:
        """Return how many readings stand that are not of the given kinds."""
        by_kind = (*self._general.items(), *self._on_rig.items())
        return sum(
            len(told) for kind, told in by_kind if kind.model_fields["kind"].default not in but
        )

    def topics_told(self) -> frozenset[str]:
        """Return every topic that is told, and the kinds of what adds up."""
        topics: set[str] = set()
        for of_kind in (*self._general.values(), *self._on_rig.values()):
            for recorded in of_kind:
                topics |= recorded.reading.topics() or {recorded.reading.kind}
        return frozenset(topics)

    def keyed(self, kind: type[R]) -> tuple[Recorded[R], ...]:
        """Return the newest reading of each key; those without a key add up."""
        result: dict[object, Recorded[R]] = {}
        for recorded in self.all(kind):
            key = recorded.reading.key()
            result[recorded.entry.id if key is None else key] = recorded
        return tuple(result.values())

    def between(self, first: datetime, last: datetime) -> tuple[Recorded[BaseReading], ...]:
        """Return all that was recorded from one instant to another, in order."""
        result = [
            recorded
            for by_kind in (self._general, self._on_rig)
            for of_kind in by_kind.values()
            for recorded in of_kind
            if first <= recorded.entry.happened_at <= last
        ]
        return tuple(sorted(result, key=lambda item: when(item.entry)))

    def merged(self, kind: type[R]) -> Recorded[R] | None:
        """Return all that is told in a kind that merges, with the entry that was last told."""
        told = self.all(kind)
        if not told:
            return None
        given: dict[str, Any] = {}
        for recorded in told:
            given |= recorded.reading.told()
        return Recorded(kind.model_validate(given, context=AS_STORED), told[-1].entry)

    def newest(self, kind: type[R], name: str) -> tuple[Any, Recorded[R] | None]:
        """Return the newest value given for one field of a kind, and the reading that gave it."""
        return newest(self.all(kind), name)


class Totals:
    """The wholes that changes are of, as they stand after some readings in order."""

    def __init__(self) -> None:
        self._by_key: dict[str, dict[Any, BaseReading]] = {}

    def _whole(self, what: str) -> BaseReading | None:
        """Return the one whole of a name; of two riser weights none is meant."""
        known = list(self._by_key.get(what, {}).values())
        return known[0] if len(known) == 1 else None

    def after(self, reading: BaseReading) -> BaseReading:
        """Return a reading as it counts: a change of a known whole is that whole after it."""
        change = reading.changes()
        if change is None:
            what = reading.total_of()
            if what is not None:
                self._by_key.setdefault(what, {})[reading.key()] = reading
            return reading
        summed = self._summed(*change)
        if summed is None:
            self._by_key.pop(change[0], None)
            return reading
        self._by_key[change[0]] = {summed.key(): summed}
        return summed if type(reading) is Changed else reading

    def _summed(self, what: str, amount: float) -> BaseReading | None:
        whole = self._whole(what)
        try:
            return None if whole is None else whole.changed_by(amount)
        except (DomainError, ValueError):
            return None  # no such whole: what is there now, nobody knows

    def sum_with(self, reading: BaseReading) -> Phrase | None:
        """Return a change as a sum, e.g. 20 + 4 = 24."""
        what, amount = reading.changes() or ("", 0.0)
        whole, summed = self._whole(what), self._summed(what, amount)
        if whole is None or summed is None:
            return None
        before, after = whole.total(), summed.total()
        by = replace(after, value=abs(after.value - before.value))
        sign = "+" if amount > 0 else "-"
        return phrase(f"{{before}} {sign} {{by}} = {{after}}", before=before, by=by, after=after)


def _first_fitted(entries: "Iterable[Entry]", rig: str | None) -> dict[str, str]:
    """Return the first part of each kind that was fitted to a rig."""
    first: dict[str, str] = {}
    for entry in entries:
        reading = entry.reading
        if type(reading) is PartFitted and reading.part_id and entry.subject.id == rig:
            first.setdefault(reading.part, reading.part_id)
    return first


def _with_part(fitted: Fitted, reading: BaseReading) -> Fitted:
    assert isinstance(reading, PartFitted)
    return fitted.model_copy(update={reading.part: reading.part_id})


def _differing(then: Fitted, now: Fitted) -> frozenset[str]:
    """Return the parts that are others than they were."""
    return frozenset(part for part in PARTS if getattr(then, part) != getattr(now, part))


At = tuple[datetime, int, str]
"""Where an entry stands in the order of what happened."""
when = attrgetter("happened_at", "seq", "id")
"""The order of entries: when it happened, then the order of recording."""


def in_order(entries: "Iterable[Entry]") -> "list[Entry]":
    """Sort by when it happened, then by the order of recording."""
    return sorted(entries, key=when)


def retracted_ids(entries: "Sequence[Entry]") -> frozenset[str]:
    """Return the ids of entries that are taken back.

    A retraction counts against earlier entries only, and not when it is itself taken back.
    """
    retractions = [
        (entry.seq, entry.id, entry.reading.entry_id)
        for entry in entries
        if entry.reading.kind == "retraction"
    ]
    if not retractions:
        return frozenset()
    order = {entry.id: entry.seq for entry in entries}
    taken_back: set[str] = set()
    for seq, entry_id, target in sorted(retractions, reverse=True):
        if entry_id not in taken_back and order.get(target, seq) < seq:
            taken_back.add(target)
    return frozenset(taken_back)


def in_force(entries: "Sequence[Entry]", *, ordered: bool = False) -> "list[Entry]":
    """Return the entries that stand, in order, retractions themselves left out.

    `ordered` says that they are in order already.
    """
    standing = list(entries)
    if any(entry.reading.kind == "retraction" for entry in entries):
        gone = retracted_ids(entries)
        standing = [
            entry
            for entry in entries
            if entry.id not in gone and entry.reading.kind != "retraction"
        ]
    return standing if ordered else in_order(standing)


def overruling(entry: "Entry", standing: "Iterable[Entry]") -> "Entry | None":
    """Return the newest standing entry that settles the same as an entry that happened before it.

    A reading written up late does not take the place of what was measured since. None for readings
    that add up, and for the newest of its topic.
    """
    topics = entry.reading.topics()
    later = [
        other
        for other in standing
        if topics
        and other.subject == entry.subject
        and when(other) > when(entry)
        and other.reading.topics() & topics
    ]
    return max(later, key=when, default=None)


def parts_fitted(entries: "Iterable[Entry]", rig: str | None) -> Fitted:
    """Return the parts on the rig after these ordered entries.

    Without a rig the last subject of each kind stands for the fitted part, so that a bare list of
    readings can be judged.
    """
    if rig is None:
        last = {entry.subject.kind: entry.subject.id for entry in entries}
        return Fitted(**{part: last[part] for part in PARTS if part in last})
    fitted = [entry for entry in entries if entry.reading.kind == "part_fitted"]
    return Fitted(
        **{
            entry.reading.part: entry.reading.part_id
            for entry in fitted
            if entry.subject.id == rig and entry.reading.kind == "part_fitted"
        }
    )
