"""Entries: a dated reading of a subject, and the one union of all that can be recorded.

Entries are never changed: undo is another entry.
"""

from typing import Annotated, get_args

from pydantic import AwareDatetime, Field, StringConstraints, model_validator

from lyrandis.core.archer.readings import ArcherReading
from lyrandis.core.arrow.readings import ArrowReading
from lyrandis.core.bench_readings import BenchReading
from lyrandis.core.bow.readings import BowReading
from lyrandis.core.crawls.readings import CrawlReading
from lyrandis.core.errors import DomainError
from lyrandis.core.flight.readings import FlightReading
from lyrandis.core.listen.readings import ListenReading
from lyrandis.core.nock.readings import NockReading
from lyrandis.core.order.readings import OrderReading
from lyrandis.core.reading import (
    BaseReading,
    EntryId,
    Fitted,
    Frozen,
    Note,
    Source,
    Subject,
    revision_of,
)
from lyrandis.core.string.readings import StringReading

Reading = Annotated[
    BenchReading
    | ArcherReading
    | BowReading
    | StringReading
    | ArrowReading
    | NockReading
    | FlightReading
    | CrawlReading
    | ListenReading
    | OrderReading,
    Field(discriminator="kind"),
]
READINGS: tuple[type[BaseReading], ...] = get_args(get_args(Reading)[0])


class EntryDraft(Frozen):
    """An entry as it is offered for recording."""

    subject: Subject
    reading: Reading
    happened_at: AwareDatetime | None = None
    source: Source | None = None
    note: Note | None = None
    as_typed: Annotated[str, StringConstraints(max_length=400)] | None = None
    id: EntryId | None = None

    @model_validator(mode="after")
    def _subject_fits(self) -> "EntryDraft":
        if self.subject.kind not in self.reading.of:
            wanted = " or ".join(sorted(self.reading.of)).replace("_", " ")
            raise DomainError(
                "wrong_subject",
                f"“{self.reading.kind}” cannot be recorded on {_a(self.subject.kind)}.",
                f"Record it on {_a(wanted)}.",
                "subject",
            )
        return self


def _a(noun: str) -> str:
    noun = noun.replace("_", " ")
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


class Entry(EntryDraft):
    """An entry as recorded: when it happened, when it was written down, in what order."""

    id: EntryId
    seq: int
    happened_at: AwareDatetime
    recorded_at: AwareDatetime
    source: Source
    fitted: Fitted | None = None

    revision: Annotated[int, Field(ge=1)] = Field(
        default_factory=lambda told: revision_of(told["reading"])
    )
    """Which shape the reading is written in: a saved file says it."""


class Taking(Frozen):
    """An entry to take back, and the id of the retraction: a repeated send is recorded once."""

    entry_id: EntryId
    id: EntryId | None = None
    happened_at: AwareDatetime | None = None
    """When it was taken back; now, where it is not said."""


class PostedEntry(EntryDraft):
    """A draft or a recorded entry, as a file or a what-if may hold."""

    seq: int | None = None
    recorded_at: AwareDatetime | None = None
    fitted: Fitted | None = None
    revision: Annotated[int, Field(ge=1)] | None = None
