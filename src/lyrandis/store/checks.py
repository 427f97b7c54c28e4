"""What may be recorded: references that exist, nothing doubled, nothing written over unseen."""

from datetime import datetime

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import Named, PartFitted, Retraction, same_name
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import Fitted, Subject
from lyrandis.store.rows import UnreadableRow, no_such_entry
from lyrandis.store.transaction import Transaction


def already_recorded(transaction: Transaction, draft: e.EntryDraft) -> e.Entry | None:
    """Return the entry that already has the draft's id and content: a repeated send."""
    if draft.id is None:
        return None
    entry = transaction.entry(draft.id)
    if entry is None:
        return None
    if isinstance(entry, UnreadableRow):
        raise unreadable(draft.id)
    same_time = draft.happened_at in (None, entry.happened_at)
    same_source = draft.source in (None, entry.source)
    recorded = (entry.subject, entry.reading, entry.note)
    if recorded == (draft.subject, draft.reading, draft.note) and same_time and same_source:
        return entry
    raise DomainError(
        "id_taken",
        f"Entry {draft.id} is already recorded with other content.",
        "Send the reading with a new id, or with none.",
        "id",
    )


def unreadable(entry_id: str) -> DomainError:
    return DomainError(
        "id_taken",
        f"Entry {entry_id} is recorded here, and its row is damaged: it cannot be read.",
        "Look whether what it said still counts, and record it anew.",
        "id",
    )


def check_references(transaction: Transaction, draft: e.EntryDraft) -> None:
    reading = draft.reading
    if (
        isinstance(reading, PartFitted)
        and reading.part_id is not None
        and transaction.find_kind(reading.part_id) != reading.part
    ):
        raise DomainError(
            "no_such_part",
            f"There is no {reading.part.replace('_', ' ')} called “{reading.part_id}”.",
            "Choose one from the list, or make it first.",
            "part_id",
        )
    if isinstance(reading, Retraction):
        _check_retraction(transaction, draft.subject, reading.entry_id)


def _check_retraction(transaction: Transaction, subject: Subject, entry_id: str) -> None:
    target = transaction.entry(entry_id)
    if not isinstance(target, e.Entry) or target.subject != subject:
        raise no_such_entry(entry_id)
    if transaction.is_taken_back(entry_id):
        raise DomainError(
            "already_retracted",
            "This entry is already taken back.",
            "Nothing needs doing. To put it back, take back the retraction.",
            "entry_id",
        )
    if isinstance(target.reading, Named):
        standing = [naming[1] for naming in transaction.namings(subject.id)]
        if standing == [entry_id]:
            raise DomainError(
                "name_needed",
                "This is its only name.",
                "Give it another name instead of taking this one back.",
                "entry_id",
            )


def check_name(transaction: Transaction, draft: e.EntryDraft) -> None:
    """Question a name that another subject of the kind has, unless it is meant."""
    reading, subject = draft.reading, draft.subject
    if not isinstance(reading, Named) or reading.alike:
        return
    for other_id, name in transaction.names(subject.kind).items():
        if other_id != subject.id and same_name(name, reading.name):
            noun = subject.kind.replace("_", " ")
            raise DomainError(
                "name_taken",
                f"There is {'an' if noun[0] in 'aeiou' else 'a'} {noun} called “{name}” already.",
                "Give this one a name that tells them apart, or name it so all the same.",
                "name",
            )


def check_unseen(transaction: Transaction, draft: e.EntryDraft, unseen: range | None) -> None:
    """Refuse to write over a newer entry on the same topic that the writer has not seen."""
    wanted = draft.reading.topics()
    if not unseen or not wanted:
        return
    for entry in transaction.unseen(draft.subject, unseen):
        if entry.reading.topics() & wanted:
            raise DomainError(
                "changed_meanwhile",
                "Somebody recorded this in another window since you last looked.",
                "Look at the newer value, then record yours again if it still holds.",
                next(iter(sorted(wanted))).split(":")[-1],
            )


def fitted_for(transaction: Transaction, draft: e.EntryDraft, now: datetime) -> Fitted | None:
    """Return the parts on the rig when the entry happened, for a rig's own entries."""
    if draft.subject.kind != "rig":
        return None
    given: Fitted | None = getattr(draft, "fitted", None)
    if given is not None:
        return given
    return transaction.fitted_at(draft.subject.id, draft.happened_at or now)
