"""A revision on each reading, and indexes on what is asked for at every write."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.add_column("entries", sa.Column("revision", sa.Integer, nullable=False, server_default="1"))
    for column in ("kind", "retracts", "happened_at"):
        op.create_index(f"ix_entries_{column}", "entries", [column])
