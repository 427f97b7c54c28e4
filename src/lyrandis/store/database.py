"""Opening the database: pragmas, migrations with a copy kept, refusal of newer files."""

import sqlite3
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event

from lyrandis.core.errors import DomainError

_MIGRATIONS = Path(__file__).with_name("migrations")


def open_database(path: Path) -> Engine:
    """Open (or make) the database at `path`, brought up to this program's version.

    Before migrating an existing file a copy is kept beside it. Raises `DomainError` when the file
    is newer than the program or is no database.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 10})
    event.listen(engine, "connect", _on_connect)
    event.listen(engine, "begin", _on_begin)
    try:
        _migrate(engine, path)
    except Exception as error:
        engine.dispose()
        if isinstance(error.__cause__ or error, sqlite3.DatabaseError):
            raise DomainError(
                "not_a_database",
                f"{path} cannot be read as a Lyrandis database.",
                "Move it aside and start again, or put back a copy kept beside it.",
            ) from error
        raise
    return engine


def _on_connect(connection: Any, _record: Any) -> None:
    connection.isolation_level = None  # BEGIN is ours, see _on_begin
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON"):
        connection.execute(f"PRAGMA {pragma}")


def _on_begin(connection: Connection) -> None:
    """Take the write lock at once for writes: what is checked stays true until it is stored."""
    writing = connection.get_execution_options().get("writing", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(_MIGRATIONS))
    config.set_main_option("path_separator", "os")
    return config


def _migrate(engine: Engine, path: Path) -> None:
    config = _config()
    script = ScriptDirectory.from_config(config)
    head = script.get_current_head()
    with engine.connect() as connection:
        current = MigrationContext.configure(connection).get_current_revision()
    if current == head:
        return
    if current is not None:
        known = {revision.revision for revision in script.walk_revisions()}
        if current not in known:
            raise DomainError(
                "database_newer",
                f"{path} was written by a newer Lyrandis (version {current} of the tables; this "
                f"program knows up to {head}).",
                "Update Lyrandis, or start it with another data folder.",
            )
        _keep_copy(path, current)
    with engine.connect().execution_options(writing=True) as connection, connection.begin():
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def _keep_copy(path: Path, revision: str) -> Path:
    copy = path.with_name(f"{path.stem}-before-{revision}-migrated{path.suffix}")
    number = 1
    while copy.exists():
        number += 1
        copy = path.with_name(f"{path.stem}-before-{revision}-migrated-{number}{path.suffix}")
    source, target = sqlite3.connect(path), sqlite3.connect(copy)
    with source, target:
        source.backup(target)
    source.close()
    target.close()
    return copy
