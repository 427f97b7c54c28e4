"""What went wrong with the file, in words that are true of it."""

import sqlite3
from pathlib import Path

from sqlalchemy.exc import DBAPIError

from lyrandis.core.errors import DomainError

StoreError = DBAPIError
"""What the store raises when the file does not do as it should."""


def trouble_of(error: BaseException, path: Path | None = None) -> DomainError:
    """Return a trouble with the database file as an error with its own words."""
    cause = error.orig if isinstance(error, DBAPIError) else error
    name = getattr(cause, "sqlite_errorname", "") or ""
    what = f"{path}" if path else "The bench's file"
    if name.startswith(("SQLITE_BUSY", "SQLITE_LOCKED")):
        return DomainError(
            "locked",
            f"{what} is held by another program.",
            "Close what else has it open, such as a copying or a database program, and try again.",
        )
    if name.startswith("SQLITE_FULL"):
        return DomainError(
            "disk_full", "The disk is full: nothing was recorded.", "Make room, then send it again."
        )
    if name.startswith(("SQLITE_READONLY", "SQLITE_CANTOPEN", "SQLITE_PERM", "SQLITE_AUTH")):
        return DomainError(
            "folder_closed",
            f"{what} cannot be written to: nothing was recorded.",
            "Allow writing to the folder and the files in it, or start with another --data folder.",
        )
    if name.startswith("SQLITE_NOTADB"):
        return DomainError(
            "not_a_database",
            f"{what} is no Lyrandis database.",
            "Start with another --data folder, or put back a copy of your own file.",
        )
    if name.startswith(("SQLITE_CORRUPT", "SQLITE_IOERR")) or isinstance(
        cause, sqlite3.DatabaseError
    ):
        return DomainError(
            "damaged",
            f"{what} is damaged or cannot be read through.",
            "Keep it as it is, copy it, and put back a copy that was kept beside it.",
        )
    raise error
