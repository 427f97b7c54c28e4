"""Tables: subjects, and the append-only entries that speak of them."""

import json
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import ForeignKey, Index, Integer, String
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column
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


class Base(DeclarativeBase):
    pass


class SubjectRow(Base):
    __tablename__ = "subjects"

    id: Mapped[str] = mapped_column(String(64), primary_key=True)
    kind: Mapped[str] = mapped_column(String(16))
    origin: Mapped[str] = mapped_column(String(8))
    created_at: Mapped[datetime] = mapped_column(Instant)


class EntryRow(Base):
    __tablename__ = "entries"
    __table_args__ = (
        Index("ix_entries_subject_id_seq", "subject_id", "seq"),
        Index("ix_entries_kind", "kind"),
        Index("ix_entries_retracts", "retracts"),
        Index("ix_entries_happened_at", "happened_at"),
        {"sqlite_autoincrement": True},
    )

    seq: Mapped[int] = mapped_column(Integer, primary_key=True)
    id: Mapped[str] = mapped_column(String(64), unique=True)
    subject_id: Mapped[str] = mapped_column(ForeignKey("subjects.id"))
    kind: Mapped[str] = mapped_column(String(32))
    happened_at: Mapped[datetime] = mapped_column(Instant)
    recorded_at: Mapped[datetime] = mapped_column(Instant)
    source: Mapped[str] = mapped_column(String(16))
    note: Mapped[str | None]
    as_typed: Mapped[str | None]
    fitted: Mapped[Any] = mapped_column(JsonText, nullable=True)
    reading: Mapped[Any] = mapped_column(JsonText)
    retracts: Mapped[str | None] = mapped_column(ForeignKey("entries.id"))
    revision: Mapped[int] = mapped_column(Integer, server_default="1")
    """Of the shape the reading was written in."""
