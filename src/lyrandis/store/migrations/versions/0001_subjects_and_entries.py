"""Subjects and their entries."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "subjects",
        sa.Column("id", sa.String(64), primary_key=True),
        sa.Column("kind", sa.String(16), nullable=False),
        sa.Column("origin", sa.String(8), nullable=False),
        sa.Column("created_at", sa.String(32), nullable=False),
    )
    op.create_table(
        "entries",
        sa.Column("seq", sa.Integer, primary_key=True),
        sa.Column("id", sa.String(64), nullable=False, unique=True),
        sa.Column("subject_id", sa.String(64), sa.ForeignKey("subjects.id"), nullable=False),
        sa.Column("kind", sa.String(32), nullable=False),
        sa.Column("happened_at", sa.String(32), nullable=False),
        sa.Column("recorded_at", sa.String(32), nullable=False),
        sa.Column("source", sa.String(16), nullable=False),
        sa.Column("note", sa.String),
        sa.Column("as_typed", sa.String),
        sa.Column("fitted", sa.JSON),
        sa.Column("reading", sa.JSON, nullable=False),
        sa.Column("retracts", sa.String(64), sa.ForeignKey("entries.id")),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_entries_subject_id_seq", "entries", ["subject_id", "seq"])
