"""The bench: everything stored, read as entries and written as entries."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal
from uuid import uuid4

from sqlalchemy import Connection, Engine, func, insert, select

from lyrandis.core import entries as e
from lyrandis.core.pile import parts_fitted
from lyrandis.core.record import check_instant, recorded
from lyrandis.store.checks import (
    already_recorded,
    check_name,
    check_references,
    check_unseen,
    fitted_for,
)
from lyrandis.store.log import Logs, RigLog
from lyrandis.store.logbooks import Plan, carry_out, plan_of
from lyrandis.store.models import EntryRow, SubjectRow
from lyrandis.store.rows import (
    entries_where,
    find_kind,
    free_id,
    kind_of,
    names_of,
    no_such_entry,
    no_such_subject,
    standing_of_kinds,
    values_of,
)

Origin = Literal["own", "demo"]

_HEAD = select(func.max(EntryRow.seq))
_INSERT_ENTRY = insert(EntryRow)


@dataclass(frozen=True)
class KnownSubject:
    """A subject and what it is called now."""

    id: str
    kind: e.SubjectKind
    name: str
    origin: str


@dataclass(frozen=True)
class NewPart:
    """A subject to be made, with its first readings (subject ids are filled in)."""

    kind: e.SubjectKind
    name: str
    drafts: tuple[Callable[[e.Subject], e.EntryDraft], ...] = ()
    alike: bool = False
    """Another of the kind may be called the same."""
    same_as: str | None = None
    """One there is: the readings are added to it, and it keeps its name."""


class Bench:
    """Stored subjects and entries. Every write is one transaction: all of it or nothing."""

    def __init__(self, engine: Engine, clock: Callable[[], datetime]) -> None:
        self._read = engine
        self._write = engine.execution_options(writing=True)
        self._clock = clock
        self._logs = Logs()

    def is_empty(self) -> bool:
        with self._read.connect() as connection:
            return connection.scalar(select(SubjectRow.id).limit(1)) is None

    def subjects(self, kind: e.SubjectKind | None = None) -> list[KnownSubject]:
        """Return subjects with their names, in the order they were made."""
        with self._read.connect() as connection:
            query = select(SubjectRow.id, SubjectRow.kind, SubjectRow.origin)
            query = query.order_by(SubjectRow.created_at, SubjectRow.id)
            rows = connection.execute(query.where(SubjectRow.kind == kind) if kind else query).all()
            names = names_of(connection)
            return [
                KnownSubject(row.id, row.kind, names.get(row.id, row.id), row.origin)
                for row in rows
            ]

    def rigs_as_fitted(self) -> list[tuple[KnownSubject, e.Fitted, bool]]:
        """Return every rig with its parts and whether it is put away."""
        with self._read.connect() as connection:
            standing = standing_of_kinds(connection, "part_fitted", "put_away")
        away = {s.subject.id: s.reading.away for s in standing if isinstance(s.reading, e.PutAway)}
        return [
            (rig, parts_fitted(standing, rig.id), away.get(rig.id, False))
            for rig in self.subjects("rig")
        ]

    def check_rig(self, rig: str) -> None:
        """Raise `DomainError` when there is no such rig."""
        with self._read.connect() as connection:
            _check_rig(connection, rig)

    def log_of_rig(self, rig: str) -> RigLog:
        """Return every entry of the rig and of each part it ever had, in order.

        The same value is returned as long as nothing was added.

        Raises `DomainError` when there is no such rig.
        """
        with self._read.connect() as connection:
            head = connection.scalar(_HEAD) or 0
            return self._logs.of(connection, rig, head, lambda: _check_rig(connection, rig))

    def entries_of_rig(self, rig: str) -> tuple[e.Entry, ...]:
        return self.log_of_rig(rig).entries

    def entries_of(self, subject: str) -> list[e.Entry]:
        with self._read.connect() as connection:
            return entries_where(
                connection, e.Subject(kind=kind_of(connection, subject), id=subject)
            )

    def record(self, drafts: Sequence[e.EntryDraft], *, seen: int | None = None) -> list[e.Entry]:
        """Record drafts, all or none, and return the entries.

        `seen` is the newest entry the writer had seen: something newer on the same topic raises
        `DomainError`. A draft whose id is already recorded with the same content is not doubled.
        """
        with self._write.begin() as connection:
            newest = connection.scalar(_HEAD) or 0
            unseen = None if seen is None else range(seen + 1, newest + 1)
            for draft in drafts:
                if already_recorded(connection, draft) is None:
                    check_name(connection, draft)
            return [self._add(connection, draft, unseen) for draft in drafts]

    def make(self, parts: Sequence[NewPart], *, origin: Origin = "own") -> list[str]:
        """Make subjects with their names and first readings, all or none; return their ids."""
        with self._write.begin() as connection:
            return [self._make(connection, part, origin) for part in parts]

    def make_rig(
        self,
        name: str,
        parts: dict[e.PartKind, str | NewPart],
        request: str | None = None,
        *,
        alike: bool = False,
    ) -> str:
        """Make a rig, and those of its parts that are new, all or none; return its id.

        `request` becomes the id of its first entry: asked for again, the rig there is is returned.
        """
        with self._write.begin() as connection:
            about = select(EntryRow.subject_id).where(EntryRow.id == request)
            made = connection.scalar(about) if request else None
            if made is not None and kind_of(connection, made) == "rig":
                return made
            rig = self._make(connection, NewPart("rig", name, alike=alike), "own", request)
            ids = {
                kind: part if isinstance(part, str) else self._make(connection, part, "own")
                for kind, part in parts.items()
            }
            for kind, part_id in ids.items():
                draft = e.EntryDraft(
                    subject=e.Subject(kind="rig", id=rig),
                    reading=e.PartFitted(part=kind, part_id=part_id),
                )
                self._add(connection, draft)
            return rig

    def retract(self, *takings: e.Taking) -> list[e.Entry]:
        """Record that entries are taken back, all or none; return the retractions.

        A taking whose id is already recorded for the same entry is not doubled.
        """
        with self._write.begin() as connection:
            return [self._retract(connection, taking) for taking in takings]

    def load(self, drafts: Iterable[e.EntryDraft], *, origin: Origin) -> None:
        """Record drafts of subjects that may not be there yet, in one transaction."""
        with self._write.begin() as connection:
            for draft in drafts:
                if find_kind(connection, draft.subject.id) is None:
                    self._insert_subject(connection, draft.subject, origin)
                self._add(connection, draft)

    def bring_in(self, entries: Sequence[e.PostedEntry], *, only_look: bool = False) -> Plan:
        """Record a saved logbook, all that is new of it or nothing; return what that is.

        With `only_look` nothing is recorded.
        """
        with self._read.connect() if only_look else self._write.begin() as connection:
            plan = plan_of(connection, entries, self._clock())
            if not only_look:
                carry_out(connection, plan, self._clock)
            return plan

    def standing_of(self, *kinds: str) -> dict[str, list[e.Entry]]:
        """Return the standing entries of some kinds of reading, in order, by their subject."""
        found: dict[str, list[e.Entry]] = {}
        with self._read.connect() as connection:
            for entry in standing_of_kinds(connection, *kinds):
                found.setdefault(entry.subject.id, []).append(entry)
        return found

    def _retract(self, connection: Connection, taking: e.Taking) -> e.Entry:
        of = select(EntryRow.subject_id).where(EntryRow.id == taking.entry_id)
        about = connection.scalar(of)
        if about is None:
            raise no_such_entry(taking.entry_id)
        subject = e.Subject(kind=kind_of(connection, about), id=about)
        reading = e.Retraction(entry_id=taking.entry_id)
        return self._add(connection, e.EntryDraft(subject=subject, reading=reading, id=taking.id))

    def _make(
        self, connection: Connection, part: NewPart, origin: Origin, first: str | None = None
    ) -> str:
        if part.same_as is not None:
            subject = e.Subject(kind=part.kind, id=part.same_as)
            drafts = [make(subject) for make in part.drafts]
        else:
            subject = e.Subject(kind=part.kind, id=free_id(connection, part.name, part.kind))
            reading = e.Named(name=part.name, alike=part.alike)
            named = e.EntryDraft(subject=subject, reading=reading, id=first)
            if origin == "own":
                check_name(connection, named)
            self._insert_subject(connection, subject, origin)
            drafts = [named, *(make(subject) for make in part.drafts)]
        for draft in drafts:
            self._add(connection, draft)
        return subject.id

    def _insert_subject(self, connection: Connection, subject: e.Subject, origin: Origin) -> None:
        values = {"id": subject.id, "kind": subject.kind, "origin": origin}
        connection.execute(insert(SubjectRow).values(**values, created_at=self._clock()))

    def _add(
        self, connection: Connection, draft: e.EntryDraft, unseen: range | None = None
    ) -> e.Entry:
        now = self._clock()
        if draft.happened_at is not None:
            check_instant(draft.happened_at, now)
        kind = kind_of(connection, draft.subject.id)
        if kind != draft.subject.kind:
            raise no_such_subject(draft.subject)
        same = already_recorded(connection, draft)
        if same is not None:
            return same
        check_references(connection, draft)
        check_unseen(connection, draft, unseen)
        entry = recorded(
            draft,
            entry_id=draft.id or str(uuid4()),
            seq=0,
            now=now,
            fitted=fitted_for(connection, draft, now),
        )
        stored = connection.execute(_INSERT_ENTRY, values_of(entry))
        return entry.model_copy(update={"seq": stored.lastrowid})


def _check_rig(connection: Connection, rig: str) -> None:
    if kind_of(connection, rig) != "rig":
        raise no_such_subject(e.Subject(kind="rig", id=rig))
