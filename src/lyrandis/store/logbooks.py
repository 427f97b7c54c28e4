"""Bringing a saved logbook in: what is new is recorded, what is here already is not doubled."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import Named, PartFitted, Retraction, same_name
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import PARTS, Fitted, Subject, SubjectKind
from lyrandis.core.record import check_instant, recorded
from lyrandis.store.checks import fitted_for
from lyrandis.store.rows import no_such_entry
from lyrandis.store.transaction import Transaction


@dataclass(frozen=True)
class BroughtPart:
    """A subject of the file: what it is called, and whether it was here."""

    kind: SubjectKind
    id: str
    name: str
    new: bool
    alike: bool
    """Another of the kind is called the same here."""


@dataclass
class Plan:
    """What a file would change."""

    ids: dict[str, str] = field(default_factory=dict)
    """Subjects of the file, and what they are called here."""
    parts: list[BroughtPart] = field(default_factory=list)
    fresh: list[e.PostedEntry] = field(default_factory=list)
    already: int = 0
    left_out: int = 0
    """Entries taken back here that the file takes back once more."""


def plan_of(transaction: Transaction, entries: Sequence[e.PostedEntry], now: datetime) -> Plan:
    """Return what bringing `entries` in would change, in their order.

    A subject is the one that is here when they have an entry in common; another one that has its
    id gets a new id. Raises `DomainError` when the file cannot be brought in as a whole.
    """
    here = transaction.look_up(str(entry.id) for entry in entries)
    plan = Plan()
    kinds = _kinds(entries)
    names = {s.subject.id: s.reading.name for s in entries if isinstance(s.reading, Named)}
    for entry in entries:
        known = here.get(str(entry.id))
        if isinstance(known, e.Entry):
            _check_same(entry, known)
            plan.ids[entry.subject.id] = known.subject.id
    spoken_for = {*kinds, *plan.ids.values()}
    for subject_id, kind in kinds.items():
        subject = Subject(kind=kind, id=subject_id)
        _place(transaction, plan, subject, names.get(subject_id), spoken_for)
        spoken_for.add(plan.ids[subject_id])
    out: set[str] = set()
    by_id = {str(entry.id): entry for entry in entries}
    taken = _taken_back_here(transaction, by_id)
    for entry in entries:
        if str(entry.id) in here:
            plan.already += 1
            continue
        for instant in filter(None, (entry.happened_at, entry.recorded_at)):
            check_instant(instant, now)
        if isinstance(entry.reading, Retraction):
            target = entry.reading.entry_id
            if target in out or target in taken:
                out.add(str(entry.id))
                plan.left_out += 1
                continue
            _check_target(transaction, plan, entry, target, by_id)
        plan.fresh.append(_mapped(entry, plan.ids))
    return plan


def carry_out(transaction: Transaction, plan: Plan, clock: Callable[[], datetime]) -> None:
    """Record what the plan has found."""
    now = clock()
    for part in plan.parts:
        if part.new:
            transaction.add_subject(Subject(kind=part.kind, id=part.id), "own", now)
    for draft in plan.fresh:
        fitted = draft.fitted or fitted_for(transaction, draft, now)
        transaction.add(recorded(draft, entry_id=str(draft.id), seq=0, now=now, fitted=fitted))


def _kinds(entries: Iterable[e.PostedEntry]) -> dict[str, SubjectKind]:
    """Return every subject the file speaks of, in order of mention."""
    kinds: dict[str, SubjectKind] = {}

    def speaks_of(subject_id: str | None, kind: SubjectKind) -> None:
        if subject_id is not None and kinds.setdefault(subject_id, kind) != kind:
            raise DomainError(
                "wrong_subject",
                f"The file calls “{subject_id}” {_noun(kinds[subject_id])} and {_noun(kind)}.",
                "Save the logbook again: this file was changed.",
                "entries",
            )

    for entry in entries:
        speaks_of(entry.subject.id, entry.subject.kind)
        if isinstance(entry.reading, PartFitted):
            speaks_of(entry.reading.part_id, entry.reading.part)
        for part in PARTS:
            speaks_of(getattr(entry.fitted, part, None), part)
    return kinds


def _noun(kind: str) -> str:
    return f"{'an' if kind[0] in 'aeiou' else 'a'} {kind.replace('_', ' ')}"


def _place(
    transaction: Transaction,
    plan: Plan,
    subject: Subject,
    name: str | None,
    spoken_for: set[str],
) -> None:
    """Say what a subject of the file is called here, and whether it has to be made.

    `spoken_for` are the ids that the file has itself, or is given.
    """
    alike = False
    known = plan.ids.get(subject.id)
    if known is None:
        others = transaction.names(subject.kind)
        alike = any(same_name(name or subject.id, other) for other in others.values())
        kind = transaction.find_kind(subject.id)
        here = name is None and kind == subject.kind
        made = subject.id
        if kind is not None:
            made = transaction.free_id(name or subject.id, subject.kind, spoken_for)
        plan.ids[subject.id] = subject.id if here else made
        new = not here
    else:
        new = False
        name = transaction.names(subject.kind).get(known, name)
    plan.parts.append(
        BroughtPart(subject.kind, plan.ids[subject.id], name or subject.id, new, alike and new)
    )


def _check_same(entry: e.PostedEntry, known: e.Entry) -> None:
    """Refuse a file that says something else under an id that is recorded here."""
    theirs, ours = entry.reading, known.reading
    fitting = isinstance(theirs, PartFitted) and isinstance(ours, PartFitted)
    same = theirs.part == ours.part if fitting else theirs == ours  # type: ignore[union-attr]
    same_day = entry.happened_at in (None, known.happened_at)
    if not same or not same_day or entry.note != known.note:
        raise DomainError(
            "id_taken",
            f"“{known.reading.say().text()}” is recorded here, and the file says "
            f"“{entry.reading.say().text()}” under the same id.",
            "Save the logbook again: this file was changed.",
            "entries",
        )


def _taken_back_here(transaction: Transaction, by_id: dict[str, e.PostedEntry]) -> frozenset[str]:
    """Return entries that are taken back here by something the file does not know."""
    targets = {
        entry.reading.entry_id for entry in by_id.values() if isinstance(entry.reading, Retraction)
    }
    return frozenset(
        target
        for target, takers in transaction.standing_takers(targets).items()
        if any(taker not in by_id for taker in takers)
    )


def _check_target(
    transaction: Transaction,
    plan: Plan,
    entry: e.PostedEntry,
    target: str,
    by_id: dict[str, e.PostedEntry],
) -> None:
    """Refuse to take back what neither the file nor the bench knows."""
    if target in by_id and by_id[target].subject == entry.subject:
        return
    here = transaction.entry(target)
    if not isinstance(here, e.Entry) or here.subject.id != plan.ids[entry.subject.id]:
        raise no_such_entry(target)


def _mapped(entry: e.PostedEntry, ids: dict[str, str]) -> e.PostedEntry:
    """Return the entry with its subjects called what they are called here."""
    changes: dict[str, Any] = {
        "subject": entry.subject.model_copy(update={"id": ids[entry.subject.id]})
    }
    if isinstance(entry.reading, PartFitted) and entry.reading.part_id is not None:
        changes["reading"] = entry.reading.model_copy(
            update={"part_id": ids[entry.reading.part_id]}
        )
    if entry.fitted is not None:
        parts = {part: id_ and ids[id_] for part, id_ in dict(entry.fitted).items()}
        changes["fitted"] = Fitted(**parts)
    return entry.model_copy(update=changes)
