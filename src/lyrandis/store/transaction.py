"""One transaction's view of the store: what its checks have read, kept while it lasts.

Recording five hundred entries asks the same names, fittings and retractions five hundred times:
each is read once, and what the transaction adds is added to what it knows.
"""

from collections.abc import Collection, Iterable
from datetime import datetime
from typing import Any

from sqlalchemy import Connection, insert, select

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import Named, PartFitted, Retraction
from lyrandis.core.effective import At, when
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import NEW_PART, Fitted, Subject, SubjectKind
from lyrandis.core.record import Fittings
from lyrandis.store.models import ENTRY_TABLE, SUBJECT_TABLE
from lyrandis.store.rows import (
    WITH_KIND,
    UnreadableRow,
    entries_where,
    entry_or_unreadable,
    no_such_subject,
    readable,
    slug_of,
    values_of,
)

_INSERT_ENTRY = insert(ENTRY_TABLE)
_AT_ONCE = 400
"""Ids that one question names."""

_Name = tuple[At, str, str]
"""Where a naming stands in the order, its entry's id, and the name."""


class Transaction:
    """What is asked of the store within one connection, each thing read once."""

    def __init__(self, connection: Connection) -> None:
        self.connection = connection
        self._kinds: dict[str, SubjectKind | None] = {}
        self._entries: dict[str, e.Entry | UnreadableRow | None] = {}
        self._taken_back: dict[str, bool] = {}
        self._takers: dict[str, list[str]] = {}
        """What takes an entry back, standing or not, of every entry in `_taken_back`."""
        self._namings: dict[str, list[_Name]] | None = None
        self._fittings: dict[str, Fittings] = {}
        self._unseen: dict[tuple[str, int, int], list[e.Entry]] = {}
        self._taken_slugs: dict[str, set[str]] = {}

    def newest(self) -> int:
        """Return the order number of the newest entry; 0 in an empty store."""
        # every question asks this first: plain text is not compiled anew
        return self.connection.exec_driver_sql("SELECT max(seq) FROM entries").scalar() or 0

    # subjects

    def find_kind(self, subject: str) -> SubjectKind | None:
        """Return what kind of subject something is; None when there is no such thing."""
        if subject not in self._kinds:
            query = select(SUBJECT_TABLE.c.kind).where(SUBJECT_TABLE.c.id == subject)
            kind: Any = self.connection.scalar(query)
            self._kinds[subject] = kind
        return self._kinds[subject]

    def kind_of(self, subject: str) -> SubjectKind:
        """The same, or raise `DomainError`."""
        kind = self.find_kind(subject)
        if kind is None:
            raise DomainError(
                "no_such_subject",
                f"There is nothing called “{subject}” on this bench.",
                "Choose one from the list, or make it first.",
                "subject",
            )
        return kind

    def check_rig(self, rig: str) -> None:
        """Raise `DomainError` when there is no such rig."""
        if self.kind_of(rig) != "rig":
            raise no_such_subject(Subject(kind="rig", id=rig))

    def add_subject(self, subject: Subject, origin: str, now: datetime) -> None:
        values = {"id": subject.id, "kind": subject.kind, "origin": origin, "created_at": now}
        self.connection.execute(insert(SUBJECT_TABLE).values(**values))
        self._kinds[subject.id] = subject.kind
        for slug, taken in self._taken_slugs.items():
            if subject.id.startswith(slug):
                taken.add(subject.id)

    def free_id(self, name: str, kind: str, also_taken: Collection[str] = ()) -> str:
        """Return a readable id made of the name, numbered when it is taken."""
        slug = slug_of(name, kind)
        taken = self._taken_slugs.get(slug)
        if taken is None:
            query = select(SUBJECT_TABLE.c.id).where(
                SUBJECT_TABLE.c.id.startswith(slug, autoescape=True)
            )
            taken = self._taken_slugs[slug] = set(self.connection.scalars(query))
        candidate, number = slug, 1
        also_taken = {*also_taken, NEW_PART}
        while candidate in taken or candidate in also_taken:
            number += 1
            candidate = f"{slug}-{number}"
        return candidate

    # entries

    def look_up(self, ids: Iterable[str]) -> dict[str, e.Entry | UnreadableRow]:
        """Return those of some entries that are recorded, by their ids."""
        wanted = list(ids)
        fresh = [entry_id for entry_id in wanted if entry_id not in self._entries]
        query = WITH_KIND
        for first in range(0, len(fresh), _AT_ONCE):
            some = fresh[first : first + _AT_ONCE]
            self._entries.update(dict.fromkeys(some))
            rows: Any = self.connection.execute(query.where(ENTRY_TABLE.c.id.in_(some)))
            for row in rows:
                self._entries[row.id] = entry_or_unreadable(row, row.subject_kind)
        known = {entry_id: self._entries[entry_id] for entry_id in wanted}
        return {entry_id: entry for entry_id, entry in known.items() if entry is not None}

    def entry(self, entry_id: str) -> e.Entry | UnreadableRow | None:
        """Return a recorded entry; None where there is none of that id."""
        return self.look_up([entry_id]).get(entry_id)

    def is_taken_back(self, entry_id: str) -> bool:
        """Return whether something takes an entry back that is not taken back itself."""
        return bool(self.taken_back([entry_id]))

    def taken_back(self, ids: Collection[str]) -> set[str]:
        """Return those of some entries that are taken back.

        An entry is taken back when one of its takers stands; the takers' own takers are read
        until there are none.
        """
        takers = self._takers
        order: list[str] = []
        wanted = list(dict.fromkeys(one for one in ids if one not in self._taken_back))
        while wanted:
            order += wanted
            takers.update((entry_id, []) for entry_id in wanted)
            found: list[str] = []
            for first in range(0, len(wanted), _AT_ONCE):
                query = select(ENTRY_TABLE.c.id, ENTRY_TABLE.c.retracts).where(
                    ENTRY_TABLE.c.retracts.in_(wanted[first : first + _AT_ONCE])
                )
                for row in self.connection.execute(query):
                    takers[row.retracts].append(row.id)
                    found.append(row.id)
            wanted = [taker for taker in found if taker not in takers]
        for entry_id in reversed(order):
            stands = (not self._taken_back[taker] for taker in takers[entry_id])
            self._taken_back[entry_id] = any(stands)
        return {entry_id for entry_id in ids if self._taken_back[entry_id]}

    def standing_takers(self, ids: Collection[str]) -> dict[str, list[str]]:
        """Return what takes each of some entries back and is not taken back itself."""
        gone = self.taken_back(ids)
        return {
            entry_id: [taker for taker in self._takers[entry_id] if not self._taken_back[taker]]
            for entry_id in gone
        }

    def add(self, entry: e.Entry) -> e.Entry:
        """Insert an entry and return it with its order number."""
        stored = self.connection.execute(_INSERT_ENTRY, values_of(entry))
        entry = entry.model_copy(update={"seq": stored.lastrowid})
        self._entries[entry.id] = entry
        self._taken_back[entry.id], self._takers[entry.id] = False, []
        reading = entry.reading
        if isinstance(reading, Retraction):
            self._forget_state_of(reading.entry_id)
        if isinstance(reading, Named) and self._namings is not None:
            namings = self._namings.setdefault(entry.subject.id, [])
            namings.append((when(entry), entry.id, reading.name))
            namings.sort()
        if isinstance(reading, PartFitted):
            fittings = self._fittings.get(entry.subject.id)
            if fittings is not None:
                fittings.add(entry)
        return entry

    def _forget_state_of(self, entry_id: str) -> None:
        """Read anew whether an entry stands, and what it took back itself."""
        while True:
            self._taken_back.pop(entry_id, None)
            self._takers.pop(entry_id, None)
            target = self.entry(entry_id)
            if not isinstance(target, e.Entry):
                return
            if isinstance(target.reading, PartFitted):
                self._fittings.pop(target.subject.id, None)
            if not isinstance(target.reading, Retraction):
                return
            entry_id = target.reading.entry_id

    # names

    def names(self, kind: SubjectKind | None = None) -> dict[str, str]:
        """Return what every subject, or every one of a kind, is called now."""
        names = {}
        for subject in self._all_namings():
            if kind is None or self.find_kind(subject) == kind:
                standing = self.namings(subject)
                if standing:
                    names[subject] = standing[-1][2]
        return names

    def namings(self, subject: str) -> list[_Name]:
        """Return the namings of a subject that stand, in order."""
        namings = self._all_namings().get(subject, [])
        gone = self.taken_back([entry_id for _, entry_id, _ in namings])
        return [naming for naming in namings if naming[1] not in gone]

    def _all_namings(self) -> dict[str, list[_Name]]:
        if self._namings is None:
            self._namings = {}
            rows: Any = self.connection.execute(WITH_KIND.where(ENTRY_TABLE.c.kind == "named"))
            for entry in readable(entry_or_unreadable(row, row.subject_kind) for row in rows):
                if isinstance(entry.reading, Named):
                    self._kinds[entry.subject.id] = entry.subject.kind
                    naming = (when(entry), entry.id, entry.reading.name)
                    self._namings.setdefault(entry.subject.id, []).append(naming)
            self.taken_back([naming[1] for some in self._namings.values() for naming in some])
            for namings in self._namings.values():
                namings.sort()
        return self._namings

    # fittings

    def fitted_at(self, rig: str, at: datetime) -> Fitted:
        """Return the parts on a rig at an instant."""
        fittings = self._fittings.get(rig)
        if fittings is None:
            subject = Subject(kind="rig", id=rig)
            told = entries_where(self.connection, subject, ENTRY_TABLE.c.kind == "part_fitted")
            gone = self.taken_back([entry.id for entry in told])
            fittings = Fittings(entry for entry in told if entry.id not in gone)
            self._fittings[rig] = fittings
        return fittings.at(at)

    # what the writer has not seen

    def unseen(self, subject: Subject, unseen: range) -> list[e.Entry]:
        """Return what stands of a subject among the entries of some order numbers."""
        key = (subject.id, unseen.start, unseen.stop)
        if key not in self._unseen:
            newer = entries_where(
                self.connection, subject, ENTRY_TABLE.c.seq.between(unseen.start, unseen.stop - 1)
            )
            gone = self.taken_back([entry.id for entry in newer])
            self._unseen[key] = [
                entry
                for entry in newer
                if entry.id not in gone and not isinstance(entry.reading, Retraction)
            ]
        return self._unseen[key]
