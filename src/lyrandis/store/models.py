"""Tables: subjects, and the append-only entries that speak of them."""

import json
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Column, ForeignKey, Index, Integer, MetaData, String, Table
from sqlalchemy.engine import Dialect
from sqlalchemy.types import TypeDecorator


class Instant(TypeDecorator[datetime]):
    """A moment kept as ISO text in UTC, so that it sorts and reads as it is."""

    impl = String(32)
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> str | None:  # noqa: ARG002
        return None if value is None else value.astimezone(UTC).isoformat(timespec="microseconds")

    def process_result_value(self, value: str | None, dialect: Dialect) -> Any:  # noqa: ARG002
        try:
            return None if value is None else datetime.fromisoformat(value)
        except ValueError:
            return value  # a damaged row: what reads the row says so, others are not taken down


class JsonText(TypeDecorator[Any]):
    """A value kept as JSON; it comes back as text: a damaged one is then told apart."""

    impl = String
    cache_ok = True

    def process_bind_param(self, value: Any, dialect: Dialect) -> str | None:  # noqa: ARG002
        return None if value is None else json.dumps(value, ensure_ascii=False)

    def process_result_value(self, value: str | None, dialect: Dialect) -> str | None:  # noqa: ARG002
        return value


METADATA = MetaData()

REFUSED_TABLE = Table(
    "refused_lines",
    METADATA,
    Column("id", Integer, primary_key=True),
    Column("line", String, nullable=False, unique=True),
    Column("times", Integer, nullable=False),
    Column("last_at", Instant, nullable=False),
)
TAUGHT_TABLE = Table(
    "taught_words",
    METADATA,
    Column("id", Integer, primary_key=True),
    Column("phrase", String, nullable=False),
    # the row it is another way to say, by its key; the choice it stands for a value of
    Column("row", String, nullable=False),
    Column("choice", String),
    Column("said", String),
    Column("line", String, nullable=False),
    Column("taught_at", Instant, nullable=False),
)
SETTING_TABLE = Table(
    "bench_settings",
    METADATA,
    Column("name", String(64), primary_key=True),
    Column("value", String, nullable=False),
)
"""What is not of a rig: lines the bench could not read, what it was taught by them, switches."""

SUBJECT_TABLE = Table(
    "subjects",
    METADATA,
    Column("id", String(64), primary_key=True),
    Column("kind", String(16), nullable=False),
    Column("origin", String(8), nullable=False),
    Column("created_at", Instant, nullable=False),
)

ENTRY_TABLE = Table(
    "entries",
    METADATA,
    Column("seq", Integer, primary_key=True),
    Column("id", String(64), unique=True, nullable=False),
    Column("subject_id", ForeignKey("subjects.id"), nullable=False),
    Column("kind", String(32), nullable=False),
    Column("happened_at", Instant, nullable=False),
    Column("recorded_at", Instant, nullable=False),
    Column("source", String(16), nullable=False),
    Column("note", String),
    Column("as_typed", String),
    Column("fitted", JsonText),
    Column("reading", JsonText, nullable=False),
    Column("retracts", ForeignKey("entries.id")),
    # of the shape the reading was written in
    Column("revision", Integer, nullable=False, server_default="1"),
    Index("ix_entries_subject_id_seq", "subject_id", "seq"),
    Index("ix_entries_kind", "kind"),
    Index("ix_entries_retracts", "retracts"),
    Index("ix_entries_happened_at", "happened_at"),
    sqlite_autoincrement=True,
)
