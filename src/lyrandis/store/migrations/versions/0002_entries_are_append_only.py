"""Hold in the database itself that entries are never changed or deleted."""

from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    for action in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER entries_no_{action.lower()} BEFORE {action} ON entries "
            "BEGIN SELECT RAISE(ABORT, 'entries are append-only'); END"
        )
