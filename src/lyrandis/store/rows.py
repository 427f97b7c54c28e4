"""Rows and entries: turning one into the other, and asking for them."""

from typing import Any

from sqlalchemy import ColumnElement, select
from sqlalchemy.orm import Session

from lyrandis.core import entries as e
from lyrandis.core.errors import DomainError
from lyrandis.core.pile import in_force
from lyrandis.store.models import EntryRow, SubjectRow


def row_of(entry: e.Entry) -> EntryRow:
    reading = entry.reading
    return EntryRow(
        id=entry.id,
        subject_id=entry.subject.id,
        kind=reading.kind,
        happened_at=entry.happened_at,
        recorded_at=entry.recorded_at,
        source=entry.source,
        note=entry.note,
        as_typed=entry.as_typed,
        fitted=entry.fitted.model_dump(mode="json") if entry.fitted else None,
        reading=reading.model_dump(mode="json"),
        retracts=reading.entry_id if isinstance(reading, e.Retraction) else None,
    )


COLUMNS = tuple(EntryRow.__table__.c)


def entry_of(row: Any, kind: e.SubjectKind) -> e.Entry:
    """Return the entry that a row of `COLUMNS`, or a stored object, holds."""
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


def entries_where(
    session: Session, subject: e.Subject, *conditions: ColumnElement[bool]
) -> list[e.Entry]:
    """Return those entries of one subject that meet the conditions, by order of recording."""
    query = select(*COLUMNS).where(EntryRow.subject_id == subject.id, *conditions)
    rows: Any = session.execute(query.order_by(EntryRow.seq))
    return [entry_of(row, subject.kind) for row in rows]


def standing_of_kinds(session: Session, *kinds: str) -> list[e.Entry]:
    """Return the standing entries of some kinds of reading, of all subjects."""
    query = select(EntryRow, SubjectRow.kind).join(SubjectRow)
    rows: Any = session.execute(query.where(EntryRow.kind.in_((*kinds, "retraction"))))
    return in_force([entry_of(row, kind) for row, kind in rows])


def kind_of(session: Session, subject: str) -> e.SubjectKind:
    row = session.get(SubjectRow, subject)
    if row is None:
        raise DomainError(
            "no_such_subject",
            f"There is nothing called “{subject}” on this bench.",
            "Choose one from the list, or make it first.",
            "subject",
        )
    return row.kind  # type: ignore[return-value]


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
