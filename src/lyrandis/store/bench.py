"""The bench: everything stored, read as entries and written as entries."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from threading import Lock
from typing import Any, Literal
from uuid import uuid4

from sqlalchemy import Engine, func, select

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import Named, PartFitted, PutAway, Retraction
from lyrandis.core.clock import ClockCheck, check_clock
from lyrandis.core.effective import parts_fitted
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import NEW_PART, Fitted, PartKind, Subject, SubjectKind
from lyrandis.core.record import FUTURE_ALLOWED, check_instant, recorded
from lyrandis.store.checks import (
    already_recorded,
    check_name,
    check_references,
    check_unseen,
    fitted_for,
)
from lyrandis.store.log import Logs, RigLog
from lyrandis.store.logbooks import Plan, carry_out, plan_of
from lyrandis.store.models import ENTRY_TABLE, SUBJECT_TABLE
from lyrandis.store.rows import (
    entries_where,
    future_entries,
    no_such_entry,
    no_such_subject,
    standing_of_kinds,
)
from lyrandis.store.transaction import Transaction

SubjectOrigin = Literal["own", "demo"]

WAIT_S = 10.0
"""So long a write waits for another of this program."""


@dataclass(frozen=True)
class KnownSubject:
    """A subject and what it is called now."""

    id: str
    kind: SubjectKind
    name: str
    origin: str


_PART_NAMES: dict[SubjectKind, str] = {
    "archer": "Archer",
    "bow": "Bow",
    "string": "String",
    "arrow_set": "Arrows",
}
"""What a part is called that nobody named; numbered."""


@dataclass(frozen=True)
class NewPart:
    """A subject to be made, with its first readings (subject ids are filled in)."""

    kind: SubjectKind
    name: str
    drafts: tuple[Callable[[Subject], e.EntryDraft], ...] = ()
    alike: bool = False
    """Another of the kind may be called the same."""
    same_as: str | None = None
    """One there is: the readings are added to it, and it keeps its name."""


class Bench:
    """Stored subjects and entries. Every write is one transaction: all of it or nothing."""

    def __init__(self, engine: Engine, clock: Callable[[], datetime]) -> None:
        self._read = engine
        self._write = engine.execution_options(writing=True)
        self._writes = Lock()
        self._clock = clock
        self._logs = Logs()

    @contextmanager
    def _reading(self) -> Iterator[Transaction]:
        with self._read.connect() as connection:
            yield Transaction(connection)

    @contextmanager
    def _writing(self) -> Iterator[Transaction]:
        """Write, one after the other; what takes long says so instead of blaming a stranger."""
        if not self._writes.acquire(timeout=WAIT_S):
            raise DomainError(
                "busy",
                "Lyrandis is busy recording something large: nothing of this is recorded yet.",
                "Send it again in a moment.",
            )
        try:
            with self._write.begin() as connection:
                yield Transaction(connection)
        finally:
            self._writes.release()

    def is_empty(self) -> bool:
        with self._read.connect() as connection:
            return connection.scalar(select(SUBJECT_TABLE.c.id).limit(1)) is None

    def subjects(self, kind: SubjectKind | None = None) -> list[KnownSubject]:
        """Return subjects with their names, in the order they were made."""
        with self._reading() as transaction:
            query = select(SUBJECT_TABLE.c.id, SUBJECT_TABLE.c.kind, SUBJECT_TABLE.c.origin)
            query = query.order_by(SUBJECT_TABLE.c.created_at, SUBJECT_TABLE.c.id)
            if kind:
                query = query.where(SUBJECT_TABLE.c.kind == kind)
            rows = transaction.connection.execute(query).all()
            names = transaction.names()
            return [
                KnownSubject(row.id, row.kind, names.get(row.id, row.id), row.origin)
                for row in rows
            ]

    def rigs_as_fitted(self) -> list[tuple[KnownSubject, Fitted, bool]]:
        """Return every rig with its parts and whether it is put away."""
        with self._read.connect() as connection:
            standing = standing_of_kinds(connection, "part_fitted", "put_away")
        away = {s.subject.id: s.reading.away for s in standing if isinstance(s.reading, PutAway)}
        of_rig: dict[str, list[e.Entry]] = {}
        for entry in standing:
            of_rig.setdefault(entry.subject.id, []).append(entry)
        return [
            (rig, parts_fitted(of_rig.get(rig.id, []), rig.id), away.get(rig.id, False))
            for rig in self.subjects("rig")
        ]

    def newest(self) -> int:
        """Return the order number of the newest entry; 0 in an empty store."""
        with self._reading() as transaction:
            return transaction.newest()

    def check_rig(self, rig: str) -> None:
        """Raise `DomainError` when there is no such rig."""
        with self._reading() as transaction:
            transaction.check_rig(rig)

    def log_of_rig(self, rig: str) -> RigLog:
        """Return every entry of the rig and of each part it ever had, in order.

        The same value is returned as long as nothing was added.

        Raises `DomainError` when there is no such rig.
        """
        with self._reading() as transaction:
            return self._logs.of(
                transaction.connection,
                rig,
                transaction.newest(),
                lambda: transaction.check_rig(rig),
            )

    def entries_of_rig(self, rig: str) -> tuple[e.Entry, ...]:
        return self.log_of_rig(rig).entries

    def entries_of(self, subject: str) -> list[e.Entry]:
        with self._reading() as transaction:
            about = Subject(kind=transaction.kind_of(subject), id=subject)
            return entries_where(transaction.connection, about)

    def record(
        self, drafts: Sequence[e.EntryDraft], *, seen: int | None = None, rig: str | None = None
    ) -> list[e.Entry]:
        """Record drafts, all or none, and return the entries.

        A draft on `NEW_PART` makes a part of its kind and fits it on `rig`, in the same go, unless
        the rig has one by now.

        `seen` is the newest entry the writer had seen: something newer on the same topic raises
        `DomainError`. A draft whose id is already recorded with the same content is not doubled.
        """
        with self._writing() as transaction:
            unseen = None if seen is None else range(seen + 1, transaction.newest() + 1)
            if rig is not None and any(one.subject.id == NEW_PART for one in drafts):
                drafts = self._with_new_parts(transaction, drafts, rig)
            for draft in drafts:
                if already_recorded(transaction, draft) is None:
                    check_name(transaction, draft)
            return [self._add(transaction, draft, unseen) for draft in drafts]

    def _with_new_parts(
        self, transaction: Transaction, drafts: Sequence[e.EntryDraft], rig: str
    ) -> list[e.EntryDraft]:
        """Make and fit what the drafts need; return them on it, the fittings before them."""
        transaction.check_rig(rig)
        fitted = dict(transaction.fitted_at(rig, self._clock()))
        first = min((one.happened_at for one in drafts if one.happened_at), default=None)
        result: list[e.EntryDraft] = []
        for draft in drafts:
            kind = draft.subject.kind
            if draft.subject.id != NEW_PART or kind == "rig":
                result.append(draft)
                continue
            sent = transaction.entry(draft.id) if draft.id else None
            if isinstance(sent, e.Entry) and sent.reading == draft.reading:
                result.append(draft.model_copy(update={"subject": sent.subject}))
                continue
            if fitted[kind] is None:
                names = {name.casefold() for name in transaction.names(kind).values()}
                name = next(
                    name
                    for number in range(1, len(names) + 2)
                    if (name := f"{_PART_NAMES[kind]} {number}").casefold() not in names
                )
                part = self._make(transaction, NewPart(kind, name), "own")
                fitted[kind] = part
                result.append(
                    e.EntryDraft(
                        subject=Subject(kind="rig", id=rig),
                        reading=PartFitted(part=kind, part_id=part),
                        happened_at=first,
                    )
                )
            subject = Subject(kind=kind, id=fitted[kind] or "")
            result.append(draft.model_copy(update={"subject": subject}))
        return result

    def make(self, parts: Sequence[NewPart], *, origin: SubjectOrigin = "own") -> list[str]:
        """Make subjects with their names and first readings, all or none; return their ids."""
        with self._writing() as transaction:
            return [self._make(transaction, part, origin) for part in parts]

    def make_rig(
        self,
        name: str,
        parts: dict[PartKind, str | NewPart],
        request: str | None = None,
        *,
        alike: bool = False,
    ) -> str:
        """Make a rig, and those of its parts that are new, all or none; return its id.

        `request` becomes the id of its first entry: asked for again, the rig there is is returned.
        """
        with self._writing() as transaction:
            about = select(ENTRY_TABLE.c.subject_id).where(ENTRY_TABLE.c.id == request)
            made: str | None = transaction.connection.scalar(about) if request else None
            if made is not None and transaction.kind_of(made) == "rig":
                return made
            rig = self._make(transaction, NewPart("rig", name, alike=alike), "own", request)
            ids = {
                kind: part if isinstance(part, str) else self._make(transaction, part, "own")
                for kind, part in parts.items()
            }
            for kind, part_id in ids.items():
                draft = e.EntryDraft(
                    subject=Subject(kind="rig", id=rig),
                    reading=PartFitted(part=kind, part_id=part_id),
                )
                self._add(transaction, draft)
            return rig

    def retract(self, *takings: e.Taking) -> list[e.Entry]:
        """Record that entries are taken back, all or none; return the retractions.

        A taking whose id is already recorded for the same entry is not doubled.
        """
        with self._writing() as transaction:
            transaction.taken_back([taking.entry_id for taking in takings])
            return [self._retract(transaction, taking) for taking in takings]

    def load(self, drafts: Iterable[e.EntryDraft], *, origin: SubjectOrigin) -> None:
        """Record drafts of subjects that may not be there yet, in one transaction."""
        with self._writing() as transaction:
            for draft in drafts:
                if transaction.find_kind(draft.subject.id) is None:
                    transaction.add_subject(draft.subject, origin, self._clock())
                self._add(transaction, draft)

    def bring_in(self, entries: Sequence[e.PostedEntry], *, only_look: bool = False) -> Plan:
        """Record a saved logbook, all that is new of it or nothing; return what that is.

        With `only_look` nothing is recorded. It is planned before others are kept from writing;
        where somebody wrote meanwhile, once more.
        """
        with self._reading() as transaction:
            seen = transaction.newest()
            plan = plan_of(transaction, entries, self._clock())
        if only_look:
            return plan
        with self._writing() as transaction:
            if transaction.newest() != seen:
                plan = plan_of(transaction, entries, self._clock())
            carry_out(transaction, plan, self._clock)
        return plan

    def standing_of(self, *kinds: str) -> dict[str, list[e.Entry]]:
        """Return the standing entries of some kinds of reading, in order, by their subject."""
        found: dict[str, list[e.Entry]] = {}
        with self._read.connect() as connection:
            for entry in standing_of_kinds(connection, *kinds):
                found.setdefault(entry.subject.id, []).append(entry)
        return found

    def check_clock(self) -> ClockCheck:
        """Return what the clock is beside the record: entries in the future, and the newest.

        The demo's entries are as old as it was made.
        """
        now = self._clock()
        with self._reading() as transaction:
            connection = transaction.connection
            own = select(func.max(ENTRY_TABLE.c.recorded_at)).join(SUBJECT_TABLE)
            newest: Any = connection.scalar(own.where(SUBJECT_TABLE.c.origin == "own"))
            found = future_entries(connection, now + FUTURE_ALLOWED)
            gone = transaction.taken_back([entry.id for entry in found])
        standing = [entry for entry in found if entry.id not in gone]
        return check_clock(now, newest, standing, len(standing))

    def _retract(self, transaction: Transaction, taking: e.Taking) -> e.Entry:
        of = select(ENTRY_TABLE.c.subject_id).where(ENTRY_TABLE.c.id == taking.entry_id)
        about = transaction.connection.scalar(of)
        if about is None:
            raise no_such_entry(taking.entry_id)
        subject = Subject(kind=transaction.kind_of(about), id=about)
        reading = Retraction(entry_id=taking.entry_id)
        draft = e.EntryDraft(
            subject=subject, reading=reading, id=taking.id, happened_at=taking.happened_at
        )
        return self._add(transaction, draft)

    def _make(
        self,
        transaction: Transaction,
        part: NewPart,
        origin: SubjectOrigin,
        first: str | None = None,
    ) -> str:
        if part.same_as is not None:
            subject = Subject(kind=part.kind, id=part.same_as)
            drafts = [make(subject) for make in part.drafts]
        else:
            subject = Subject(kind=part.kind, id=transaction.free_id(part.name, part.kind))
            reading = Named(name=part.name, alike=part.alike)
            named = e.EntryDraft(subject=subject, reading=reading, id=first)
            if origin == "own":
                check_name(transaction, named)
            transaction.add_subject(subject, origin, self._clock())
            drafts = [named, *(make(subject) for make in part.drafts)]
        for draft in drafts:
            self._add(transaction, draft)
        return subject.id

    def _add(
        self, transaction: Transaction, draft: e.EntryDraft, unseen: range | None = None
    ) -> e.Entry:
        now = self._clock()
        if draft.happened_at is not None:
            check_instant(draft.happened_at, now)
        if transaction.kind_of(draft.subject.id) != draft.subject.kind:
            raise no_such_subject(draft.subject)
        same = already_recorded(transaction, draft)
        if same is not None:
            return same
        check_references(transaction, draft)
        check_unseen(transaction, draft, unseen)
        return transaction.add(
            recorded(
                draft,
                entry_id=draft.id or str(uuid4()),
                seq=0,
                now=now,
                fitted=fitted_for(transaction, draft, now),
            )
        )
