"""Rows and entries: turning one into the other, and asking for them."""

import json
import re
import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from typing import Any

from sqlalchemy import ColumnElement, Connection, select

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import Retraction
from lyrandis.core.effective import in_force
from lyrandis.core.errors import DomainError
from lyrandis.core.quantities import AS_STORED
from lyrandis.core.reading import Fitted, Subject, SubjectKind, revision_of
from lyrandis.core.stored import cast_up
from lyrandis.store.models import ENTRY_TABLE, SUBJECT_TABLE


def values_of(entry: e.Entry) -> dict[str, Any]:
    """Return what is stored of an entry; the store gives its order number."""
    reading = entry.reading
    return {
        "id": entry.id,
        "subject_id": entry.subject.id,
        "kind": reading.kind,
        "happened_at": entry.happened_at,
        "recorded_at": entry.recorded_at,
        "source": entry.source,
        "note": entry.note,
        "as_typed": entry.as_typed,
        "fitted": entry.fitted.model_dump(mode="json") if entry.fitted else None,
        "reading": reading.model_dump(mode="json"),
        "revision": revision_of(reading),
        "retracts": reading.entry_id if isinstance(reading, Retraction) else None,
    }


_MOST_FUTURE = 200
COLUMNS = tuple(ENTRY_TABLE.c)


def entry_of(row: Any, kind: SubjectKind) -> e.Entry:
    """Return the entry that a row of `COLUMNS` holds, its reading cast up to today's shape.

    What was believable when it was written is not questioned when it is read. Raises `ValueError`
    where the row holds no entry.
    """
    return e.Entry.model_validate(
        {
            "subject": {"kind": kind, "id": row.subject_id},
            "reading": cast_up(json.loads(row.reading), row.revision),
            "happened_at": row.happened_at,
            "recorded_at": row.recorded_at,
            "source": row.source,
            "note": row.note,
            "as_typed": row.as_typed,
            "id": row.id,
            "seq": row.seq,
            "fitted": None if row.fitted is None else _fitted(row.fitted),
        },
        context=AS_STORED,
    )


@lru_cache(maxsize=256)
def _fitted(told: str) -> Fitted | None:
    """Return the parts that were fitted: one value for all entries made with the same."""
    found = json.loads(told)
    return None if found is None else Fitted.model_validate(found)


@dataclass(frozen=True, slots=True)
class UnreadableRow:
    """A row that cannot be read as an entry: kept as it is, and left out of everything."""

    seq: int
    id: str


def entry_or_unreadable(row: Any, kind: SubjectKind) -> e.Entry | UnreadableRow:
    """Return the entry that a row holds; one unreadable row does not take the others down."""
    try:
        return entry_of(row, kind)
    except (ValueError, TypeError, RecursionError):
        # an id that was damaged itself is said as far as it can be
        return UnreadableRow(row.seq, row.id.encode(errors="replace").decode())


def readable(found: Iterable[e.Entry | UnreadableRow]) -> list[e.Entry]:
    return [entry for entry in found if isinstance(entry, e.Entry)]


def entries_where(
    connection: Connection, subject: Subject, *conditions: ColumnElement[bool]
) -> list[e.Entry]:
    """Return those entries of one subject that meet the conditions, by order of recording."""
    query = select(*COLUMNS).where(ENTRY_TABLE.c.subject_id == subject.id, *conditions)
    rows: Any = connection.execute(query.order_by(ENTRY_TABLE.c.seq))
    return readable(entry_or_unreadable(row, subject.kind) for row in rows)


def standing_of_kinds(connection: Connection, *kinds: str) -> list[e.Entry]:
    """Return the standing entries of some kinds of reading, of all subjects."""
    query = select(*COLUMNS, SUBJECT_TABLE.c.kind.label("subject_kind")).join(SUBJECT_TABLE)
    rows: Any = connection.execute(query.where(ENTRY_TABLE.c.kind.in_((*kinds, "retraction"))))
    return in_force(readable(entry_or_unreadable(row, row.subject_kind) for row in rows))


def future_entries(connection: Connection, after: datetime) -> list[e.Entry]:
    """Return the entries that happened after an instant, in order; some hundred at the most."""
    query = select(*COLUMNS, SUBJECT_TABLE.c.kind.label("subject_kind")).join(SUBJECT_TABLE)
    query = query.where(ENTRY_TABLE.c.happened_at > after, ENTRY_TABLE.c.kind != "retraction")
    rows: Any = connection.execute(query.order_by(ENTRY_TABLE.c.happened_at).limit(_MOST_FUTURE))
    return readable(entry_or_unreadable(row, row.subject_kind) for row in rows)


def no_such_subject(subject: Subject) -> DomainError:
    return DomainError(
        "no_such_subject",
        f"There is no {subject.kind.replace('_', ' ')} called “{subject.id}”.",
        "Choose one from the list, or make it first.",
        "subject",
    )


def no_such_entry(entry_id: str) -> DomainError:
    return DomainError(
        "no_such_entry",
        f"There is no entry {entry_id}.",
        "Look at the history for what can be taken back.",
        "entry_id",
    )


def slug_of(name: str, kind: str) -> str:
    """Return a name as an id: small letters, digits and hyphens; the kind where none is left."""
    flat = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", flat).strip("-")[:48].strip("-") or kind.replace("_", "-")
