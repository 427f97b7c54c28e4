"""A saved logbook: entries in a file, as a rig's history gives them or written by hand."""

from collections import Counter
from hashlib import sha256
from typing import Annotated, Any

from pydantic import (
    BaseModel,
    ConfigDict,
    Field,
    ValidationError,
    ValidatorFunctionWrapHandler,
    WrapValidator,
)

from lyrandis.core import entries as e
from lyrandis.core.errors import DomainError
from lyrandis.core.quantities import AS_STORED
from lyrandis.core.reading import SubjectId
from lyrandis.core.stored import cast_up

MOST_ENTRIES = 20_000
"""More than a lifetime of shooting fills."""


def _as_saved(raw: Any, read: ValidatorFunctionWrapHandler) -> e.PostedEntry:
    """Read an entry that was recorded once as it is read from the store, others as a draft.

    Files saved before readings had a revision hold the first one.
    """
    if isinstance(raw, dict) and raw.get("recorded_at") is not None:
        try:
            reading = cast_up(raw.get("reading"), raw.get("revision") or 1)
            return e.PostedEntry.model_validate({**raw, "reading": reading}, context=AS_STORED)
        except (ValidationError, ValueError, TypeError):
            pass  # as a draft it is refused with the place of what is wrong
    entry: e.PostedEntry = read(raw)
    return entry


SavedEntry = Annotated[e.PostedEntry, WrapValidator(_as_saved)]
"""An entry of a file: recorded once, or written by hand."""


class LogbookFile(BaseModel):
    """A file of entries; what else a saved history holds is left out."""

    model_config = ConfigDict(extra="ignore")

    entries: Annotated[list[SavedEntry], Field(max_length=MOST_ENTRIES)]
    rig: SubjectId | None = None


def in_order_of_recording(entries: list[e.PostedEntry]) -> list[e.PostedEntry]:
    """Return the entries by their order numbers, those without one behind, each with an id.

    An entry written by hand gets an id that follows from what it says, so that the same file
    brought in twice is recorded once. Raises `DomainError` for two entries with one id.

    Assumption: two entries that say the same of the same day are two, in order.

    >>> from lyrandis.core.bench_readings import Noted
    >>> from lyrandis.core.reading import Subject
    >>> yew = Subject(kind="bow", id="yew")
    >>> said = e.PostedEntry(subject=yew, reading=Noted(text="creaks"))
    >>> one, two = in_order_of_recording([said, said])
    >>> one.id == two.id, one.id == in_order_of_recording([said])[0].id
    (False, True)
    """
    result: list[e.PostedEntry] = []
    seen: dict[str, e.PostedEntry] = {}
    alike: Counter[str] = Counter()
    for entry in sorted(entries, key=lambda entry: (entry.seq is None, entry.seq or 0)):
        given = entry
        if entry.id is None:
            says = entry.model_dump_json(exclude={"seq", "id"})
            alike[says] += 1
            digest = sha256(f"{says}{alike[says]}".encode()).hexdigest()
            given = entry.model_copy(update={"id": digest[:32]})
        id_ = str(given.id)
        if id_ not in seen:
            seen[id_] = given
            result.append(given)
        elif _content(seen[id_]) != _content(given):
            raise DomainError(
                "twice",
                f"The file has two different entries with the id {id_}.",
                "Save the logbook again, or give each entry an id of its own.",
                "entries",
            )
    return result


def _content(entry: e.PostedEntry) -> tuple[object, ...]:
    return entry.subject, entry.reading, entry.note, entry.happened_at


def rig_of(entries: list[e.PostedEntry], named: str | None) -> str | None:
    """Return the rig a file is about: the one it names, else the only one it speaks of.

    Raises `DomainError` when it names one it does not speak of.

    Assumption: a file about several rigs is about none in particular.

    >>> rig_of([], None) is None
    True
    """
    rigs = sorted({entry.subject.id for entry in entries if entry.subject.kind == "rig"})
    if named is None:
        return rigs[0] if len(rigs) == 1 else None
    if named not in rigs:
        raise DomainError(
            "no_such_subject",
            f"The file speaks of no rig called “{named}”.",
            f"Name one of: {', '.join(rigs) or 'none is in it'}.",
            "rig",
        )
    return named
