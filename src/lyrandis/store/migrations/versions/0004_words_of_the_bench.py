"""Lines the bench refused, what it was taught by them, and the bench's own switches."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "refused_lines",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("line", sa.String, nullable=False, unique=True),
        sa.Column("times", sa.Integer, nullable=False),
        sa.Column("last_at", sa.String(32), nullable=False),
    )
    op.create_table(
        "taught_words",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("phrase", sa.String, nullable=False),
        sa.Column("row", sa.String, nullable=False),
        sa.Column("choice", sa.String),
        sa.Column("said", sa.String),
        sa.Column("line", sa.String, nullable=False),
        sa.Column("taught_at", sa.String(32), nullable=False),
    )
    op.create_table(
        "bench_settings",
        sa.Column("name", sa.String(64), primary_key=True),
        sa.Column("value", sa.String, nullable=False),
    )
