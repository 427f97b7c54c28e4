"""Runs migrations on the connection handed over by `store.database`."""

from alembic import context

from lyrandis.store.models import METADATA

connection = context.config.attributes["connection"]
context.configure(
    connection=connection,
    target_metadata=METADATA,
    transactional_ddl=True,
    render_as_batch=True,
)
with context.begin_transaction():
    context.run_migrations()
