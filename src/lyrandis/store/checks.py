"""What may be recorded: references that exist, nothing doubled, nothing written over unseen."""

from datetime import datetime

from sqlalchemy import Connection, or_, select

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import same_name
from lyrandis.core.errors import DomainError
from lyrandis.core.pile import in_force, retracted_ids
from lyrandis.core.record import fitted_at
from lyrandis.store.models import EntryRow
from lyrandis.store.rows import (
    COLUMNS,
    entries_where,
    entry_of,
    find_kind,
    kind_of,
    names_of,
    no_such_entry,
)


def already_recorded(connection: Connection, draft: e.EntryDraft) -> e.Entry | None:
    """Return the entry that already has the draft's id and content: a repeated send."""
    if draft.id is None:
        return None
    row = connection.execute(select(*COLUMNS).where(EntryRow.id == draft.id)).one_or_none()
    if row is None:
        return None
    entry = entry_of(row, kind_of(connection, row.subject_id))
    same_time = draft.happened_at in (None, entry.happened_at)
    same_source = draft.source in (None, entry.source)
    told = (entry.subject, entry.reading, entry.note)
    if told == (draft.subject, draft.reading, draft.note) and same_time and same_source:
        return entry
    raise DomainError(
        "id_taken",
        f"Entry {draft.id} is already recorded with other content.",
        "Send the reading with a new id, or with none.",
        "id",
    )


def check_references(connection: Connection, draft: e.EntryDraft) -> None:
    reading = draft.reading
    if (
        isinstance(reading, e.PartFitted)
        and reading.part_id is not None
        and find_kind(connection, reading.part_id) != reading.part
    ):
        raise DomainError(
            "no_such_part",
            f"There is no {reading.part.replace('_', ' ')} called “{reading.part_id}”.",
            "Choose one from the list, or make it first.",
            "part_id",
        )
    if isinstance(reading, e.Retraction):
        _check_retraction(connection, draft.subject, reading.entry_id)


def _check_retraction(connection: Connection, subject: e.Subject, entry_id: str) -> None:
    about_it = or_(EntryRow.id == entry_id, EntryRow.kind.in_(("named", "retraction")))
    found = entries_where(connection, subject, about_it)
    target = next((entry for entry in found if entry.id == entry_id), None)
    if target is None:
        raise no_such_entry(entry_id)
    if entry_id in retracted_ids(found):
        raise DomainError(
            "already_retracted",
            "This entry is already taken back.",
            "Nothing needs doing. To put it back, take back the retraction.",
            "entry_id",
        )
    names = [entry.id for entry in in_force(found) if isinstance(entry.reading, e.Named)]
    if names == [entry_id]:
        raise DomainError(
            "name_needed",
            "This is its only name.",
            "Give it another name instead of taking this one back.",
            "entry_id",
        )


def check_name(connection: Connection, draft: e.EntryDraft) -> None:
    """Question a name that another subject of the kind has, unless it is meant."""
    reading, subject = draft.reading, draft.subject
    if not isinstance(reading, e.Named) or reading.alike:
        return
    for other_id, name in names_of(connection, subject.kind).items():
        if other_id != subject.id and same_name(name, reading.name):
            noun = subject.kind.replace("_", " ")
            raise DomainError(
                "name_taken",
                f"There is {'an' if noun[0] in 'aeiou' else 'a'} {noun} called “{name}” already.",
                "Give this one a name that tells them apart, or name it so all the same.",
                "name",
            )


def check_unseen(connection: Connection, draft: e.EntryDraft, unseen: range | None) -> None:
    """Refuse to write over a newer entry on the same topic that the writer has not seen."""
    wanted = draft.reading.topics()
    if not unseen or not wanted:
        return
    newer = entries_where(
        connection, draft.subject, EntryRow.seq.between(unseen.start, unseen.stop - 1)
    )
    for entry in in_force(newer):
        if entry.reading.topics() & wanted:
            raise DomainError(
                "changed_meanwhile",
                "Somebody recorded this in another window since you last looked.",
                "Look at the newer value, then record yours again if it still holds.",
                next(iter(sorted(wanted))).split(":")[-1],
            )


def fitted_for(connection: Connection, draft: e.EntryDraft, now: datetime) -> e.Fitted | None:
    """Return the parts on the rig when the entry happened, for a rig's own entries."""
    if draft.subject.kind != "rig":
        return None
    given: e.Fitted | None = getattr(draft, "fitted", None)
    if given is not None:
        return given
    fitting = EntryRow.kind.in_(("part_fitted", "retraction"))
    own = in_force(entries_where(connection, draft.subject, fitting))
    return fitted_at(own, draft.subject.id, draft.happened_at or now)
