"""Bringing the tables of a database up to this program's version, a copy of the file kept before.

Alembic is imported here alone, and this where tables are older: most starts do without.
"""

import sqlite3
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import Engine

from lyrandis.core.errors import DomainError

_MIGRATIONS = Path(__file__).with_name("migrations")


def _config() -> Config:
    config = Config()
    # Alembic reads % as a reference to another option
    config.set_main_option("script_location", str(_MIGRATIONS).replace("%", "%%"))
    config.set_main_option("path_separator", "os")
    return config


def newest_version() -> str | None:
    """Return the version of the tables that the migrations lead to."""
    return ScriptDirectory.from_config(_config()).get_current_head()


def migrate(engine: Engine, path: Path, current: str | None) -> None:
    """Bring tables of the version `current` up to date, or make them where there are none.

    Raises `DomainError` where a newer program wrote them.
    """
    config = _config()
    script = ScriptDirectory.from_config(config)
    if current is not None:
        known = {revision.revision for revision in script.walk_revisions()}
        if current not in known:
            raise DomainError(
                "database_newer",
                f"{path} was written by a newer Lyrandis (version {current} of the tables; this "
                f"program knows up to {script.get_current_head()}).",
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
