"""Opening the database: pragmas, migrations with a copy kept, refusal of newer files."""

import os
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

from sqlalchemy import URL, Connection, Engine, create_engine, event
from sqlalchemy.exc import DBAPIError

from lyrandis.core.errors import DomainError
from lyrandis.store.trouble import trouble_of

APPLICATION_ID = 0x4C595241
"""Marks a database file as ours."""
LOCK_WAIT_S = 10
"""So long another program may hold the file."""
TABLES_VERSION = "0004"
"""What the migrations lead to: a database of this version is opened without looking at them."""
_OUR_TABLES = frozenset({"alembic_version", "subjects", "entries"})


def open_database(path: Path) -> Engine:
    """Open (or make) the database at `path`, brought up to this program's version.

    Before migrating an existing file a copy is kept beside it. Raises `DomainError` when the file
    is newer than the program or is no database.
    """
    _make_folder(path.parent)
    _look_at(path)
    _for_its_owner(path)
    # mode=rw: a file that is gone is not made anew, empty, by the next connection
    address = URL.create(
        "sqlite", database=path.absolute().as_uri(), query={"mode": "rw", "uri": "true"}
    )
    engine = create_engine(address, connect_args={"timeout": LOCK_WAIT_S})
    event.listen(engine, "connect", _on_connect)
    event.listen(engine, "begin", _on_begin)
    try:
        _migrate(engine, path)
        _watch(engine, path)
        with engine.connect() as connection:
            connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
    except (DBAPIError, sqlite3.Error) as error:
        engine.dispose()
        raise trouble_of(error, path) from error
    except Exception:
        engine.dispose()
        raise
    return engine


def _for_its_owner(path: Path) -> None:
    """Make the file, where it is not there, and let only its owner read and write it."""
    try:
        os.close(os.open(path, os.O_CREAT | os.O_RDWR, 0o600))
        path.chmod(0o600)
    except OSError as error:
        raise DomainError(
            "folder_closed",
            f"{path} cannot be written to: {error.strerror}.",
            "Allow writing to the folder and the files in it, or start with another --data folder.",
        ) from error


def _watch(engine: Engine, path: Path) -> None:
    """Look before each question and each commit whether the file is still the one opened.

    A file that was taken away can still be written to, and nobody would ever find it again.
    """
    opened = path.stat()

    def look(_connection: Connection) -> None:
        try:
            now = path.stat()
        except OSError:
            now = None
        if now is None or (now.st_dev, now.st_ino) != (opened.st_dev, opened.st_ino):
            raise DomainError(
                "file_gone",
                f"{path} was taken away or replaced while Lyrandis was running: nothing is "
                "recorded.",
                "Put the folder back where it was and send it again, or restart Lyrandis.",
            )

    event.listen(engine, "begin", look)
    event.listen(engine, "commit", look)


def _make_folder(folder: Path) -> None:
    """Make the folder of the data, for its owner alone."""
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    except OSError as error:
        raise DomainError(
            "folder_closed",
            f"The folder {folder} cannot be made: {error.strerror}.",
            "Choose another with --data, or allow writing there.",
        ) from error
    if not os.access(folder, os.W_OK | os.X_OK):
        raise DomainError(
            "folder_closed",
            f"The folder {folder} cannot be written to.",
            "Choose another with --data, or allow writing there.",
        )


def _look_at(path: Path) -> None:
    """Look whether a file is ours and whole, without writing to it."""
    if not path.exists() or path.stat().st_size == 0:
        return
    try:
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as raw:
            owner = raw.execute("PRAGMA application_id").fetchone()[0]
            named = {name for (name,) in raw.execute("SELECT name FROM sqlite_master")}
            faults = raw.execute("PRAGMA quick_check(1)").fetchone()[0]
    except sqlite3.Error as error:
        raise trouble_of(error, path) from error
    if owner not in (0, APPLICATION_ID) or (named and not named >= _OUR_TABLES):
        raise DomainError(
            "not_ours",
            f"{path} is another program's database.",
            "Start with another --data folder; this file is left as it is.",
        )
    if faults != "ok":
        raise DomainError(
            "damaged",
            f"{path} is damaged: {faults}",
            "Keep it as it is, copy it, and put back a copy that was kept beside it.",
        )


def _on_connect(connection: Any, _record: Any) -> None:
    connection.isolation_level = None  # BEGIN is ours, see _on_begin
    # a damaged byte is not to take the other rows down: what holds it cannot be an entry
    connection.text_factory = _text
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON"):
        connection.execute(f"PRAGMA {pragma}")


def _text(raw: bytes) -> str:
    return raw.decode(errors="surrogateescape")


def _on_begin(connection: Connection) -> None:
    """Take the write lock at once for writes: what is checked stays true until it is stored."""
    writing = connection.get_execution_options().get("writing", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")


def _migrate(engine: Engine, path: Path) -> None:
    with engine.connect() as connection:
        tables = connection.exec_driver_sql("SELECT name FROM sqlite_master").scalars()
        current = (
            connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar()
            if "alembic_version" in set(tables)
            else None
        )
    if current == TABLES_VERSION:
        return
    from lyrandis.store.migrate import migrate

    migrate(engine, path, current)
