"""Rows and entries: turning one into the other, and asking for them."""

import re
import unicodedata
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import ColumnElement, Connection, select

from lyrandis.core import entries as e
from lyrandis.core.errors import DomainError
from lyrandis.core.pile import in_force
from lyrandis.store.models import EntryRow, SubjectRow


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
        "retracts": reading.entry_id if isinstance(reading, e.Retraction) else None,
    }


COLUMNS = tuple(EntryRow.__table__.c)


def entry_of(row: Any, kind: e.SubjectKind) -> e.Entry:
    """Return the entry that a row of `COLUMNS` holds."""
    return e.Entry.model_validate(
        {
            "subject": {"kind": kind, "id": row.subject_id},
            "reading": row.reading,
            "happened_at": row.happened_at,
            "recorded_at": row.recorded_at,
            "source": row.source,
            "note": row.note,
            "as_typed": row.as_typed,
            "id": row.id,
            "seq": row.seq,
            "fitted": row.fitted,
        }
    )


@dataclass(frozen=True, slots=True)
class Aside:
    """A row that cannot be read as an entry: kept as it is, and left out of everything."""

    seq: int
    id: str


def entry_or_aside(row: Any, kind: e.SubjectKind) -> e.Entry | Aside:
    """Return the entry that a row holds; one unreadable row does not take the others down."""
    try:
        return entry_of(row, kind)
    except ValueError:
        return Aside(row.seq, row.id)


def _readable(found: Iterable[e.Entry | Aside]) -> list[e.Entry]:
    return [entry for entry in found if isinstance(entry, e.Entry)]


def entries_where(
    connection: Connection, subject: e.Subject, *conditions: ColumnElement[bool]
) -> list[e.Entry]:
    """Return those entries of one subject that meet the conditions, by order of recording."""
    query = select(*COLUMNS).where(EntryRow.subject_id == subject.id, *conditions)
    rows: Any = connection.execute(query.order_by(EntryRow.seq))
    return _readable(entry_or_aside(row, subject.kind) for row in rows)


def standing_of_kinds(connection: Connection, *kinds: str) -> list[e.Entry]:
    """Return the standing entries of some kinds of reading, of all subjects."""
    query = select(*COLUMNS, SubjectRow.kind.label("subject_kind")).join(SubjectRow)
    rows: Any = connection.execute(query.where(EntryRow.kind.in_((*kinds, "retraction"))))
    return in_force(_readable(entry_or_aside(row, row.subject_kind) for row in rows))


def names_of(connection: Connection, kind: e.SubjectKind | None = None) -> dict[str, str]:
    """Return what every subject, or every one of a kind, is called now."""
    return {
        entry.subject.id: entry.reading.name
        for entry in standing_of_kinds(connection, "named")
        if isinstance(entry.reading, e.Named) and kind in (None, entry.subject.kind)
    }


def find_kind(connection: Connection, subject: str) -> e.SubjectKind | None:
    """Return what kind of subject something is; None when there is no such thing."""
    kind: Any = connection.scalar(select(SubjectRow.kind).where(SubjectRow.id == subject))
    return kind  # type: ignore[no-any-return]


def kind_of(connection: Connection, subject: str) -> e.SubjectKind:
    """The same, or raise `DomainError`."""
    kind = find_kind(connection, subject)
    if kind is None:
        raise DomainError(
            "no_such_subject",
            f"There is nothing called “{subject}” on this bench.",
            "Choose one from the list, or make it first.",
            "subject",
        )
    return kind


def no_such_subject(subject: e.Subject) -> DomainError:
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


def free_id(connection: Connection, name: str, kind: str, also_taken: Collection[str] = ()) -> str:
    """Return a readable id made of the name, numbered when it is taken."""
    flat = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    slug = re.sub(r"[^a-z0-9]+", "-", flat).strip("-")[:48].strip("-") or kind.replace("_", "-")
    taken = set(connection.scalars(select(SubjectRow.id).where(SubjectRow.id.startswith(slug))))
    candidate, number = slug, 1
    while candidate in taken or candidate in also_taken:
        number += 1
        candidate = f"{slug}-{number}"
    return candidate
