"""The log of each rig in memory: what was read once is not read again, for entries never change."""

from bisect import insort
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Lock
from typing import Any

from sqlalchemy import Connection, select

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.effective import when
from lyrandis.core.reading import SubjectKind
from lyrandis.store.models import ENTRY_TABLE
from lyrandis.store.rows import COLUMNS, UnreadableRow, entry_or_unreadable

_MOST_KEPT = 20_000
"""Entries kept in memory over all rigs, some 40 MB."""
_RIGS_KEPT = 4
"""The rigs asked for last are kept however long they are: else two long ones would oust each other
at every question."""


@dataclass(frozen=True, slots=True, eq=False)
class RigLog:
    """Entries of one rig and of every part it ever had, in order, as they stood at one moment."""

    entries: tuple[e.Entry, ...]
    revision: int
    """Order number of the newest of them."""
    aside: tuple[UnreadableRow, ...] = ()
    """Rows that cannot be read: kept, and left out."""


@dataclass
class _Log:
    """What is known of one rig so far."""

    head: int = 0
    """Newest order number in the store when this was read."""
    subjects: dict[str, SubjectKind] = field(default_factory=dict)
    entries: list[e.Entry] = field(default_factory=list)
    aside: list[UnreadableRow] = field(default_factory=list)
    shown: RigLog | None = None
    """The same value as long as nothing is added."""


class Logs:
    """Logs of the rigs last asked for; each reads only what is new since."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._logs: OrderedDict[str, _Log] = OrderedDict()

    def of(self, connection: Connection, rig: str, head: int, check: Callable[[], None]) -> RigLog:
        """Return a rig's log up to `head`; `check` raises when there is no such rig."""
        with self._lock:
            log = self._logs.get(rig)
            if log is None:
                check()
                log = self._logs[rig] = _Log(subjects={rig: "rig"})
            self._logs.move_to_end(rig)
            if log.head < head:
                self._read_on(connection, rig, log, head)
            while len(self._logs) > _RIGS_KEPT and self._count() > _MOST_KEPT:
                self._logs.popitem(last=False)
            if log.shown is None:
                newest = max((entry.seq for entry in log.entries), default=0)
                log.shown = RigLog(tuple(log.entries), newest, tuple(log.aside))
            return log.shown

    def _count(self) -> int:
        return sum(len(log.entries) for log in self._logs.values())

    def _read_on(self, connection: Connection, rig: str, log: _Log, head: int) -> None:
        """Read what is new of the subjects known, and all of a part that came onto the rig."""
        fresh, aside = _read(connection, log.subjects, log.head, head)
        new_parts: dict[str, SubjectKind] = {
            entry.reading.part_id: entry.reading.part
            for entry in fresh
            if entry.subject.id == rig
            and isinstance(entry.reading, PartFitted)
            and entry.reading.part_id
            and entry.reading.part_id not in log.subjects
        }
        if new_parts:
            of_parts, aside_of_parts = _read(connection, new_parts, 0, head)
            fresh, aside = fresh + of_parts, aside + aside_of_parts
            log.subjects |= new_parts
        log.head = head
        if not fresh and not aside:
            return
        log.aside += aside
        log.shown = None
        if len(fresh) > len(log.entries) // 8:
            log.entries = sorted([*log.entries, *fresh], key=when)
        else:
            for entry in fresh:
                insort(log.entries, entry, key=when)


def _read(
    connection: Connection, subjects: dict[str, SubjectKind], after: int, head: int
) -> tuple[list[e.Entry], list[UnreadableRow]]:
    query = (
        select(*COLUMNS)
        .where(
            ENTRY_TABLE.c.subject_id.in_(subjects),
            ENTRY_TABLE.c.seq > after,
            ENTRY_TABLE.c.seq <= head,
        )
        .order_by(ENTRY_TABLE.c.seq)
    )
    rows: Any = connection.execute(query)
    found = [entry_or_unreadable(row, subjects[row.subject_id]) for row in rows]
    entries = [entry for entry in found if isinstance(entry, e.Entry)]
    return entries, [row for row in found if isinstance(row, UnreadableRow)]
