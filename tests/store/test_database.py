"""The database file: migrations, refusal of newer ones, append-only, and a killed process."""

import os
import shutil
import signal
import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest
from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine

from lyrandis.api.problems import CODES
from lyrandis.core import entries as e
from lyrandis.core.bow.readings import BowLength
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import Subject
from lyrandis.store import database as database_module
from lyrandis.store.bench import Bench
from lyrandis.store.database import TABLES_VERSION, open_database
from lyrandis.store.migrate import newest_version
from lyrandis.store.trouble import trouble_of
from tests.store.conftest import Clock

OLD = """
INSERT INTO subjects VALUES ('old-bow', 'bow', 'own', '2026-01-01T10:00:00.000000+00:00');
INSERT INTO entries (seq, id, subject_id, kind, happened_at, recorded_at, source, reading)
VALUES (1, 'old-entry-1', 'old-bow', 'named', '2026-01-01T10:00:00.000000+00:00',
        '2026-01-01T10:00:00.000000+00:00', 'told', '{"kind": "named", "name": "Old bow"}');
"""


def migrated_to(path: Path, revision: str) -> None:
    """A database file as a version left it."""
    engine = create_engine(f"sqlite:///{path}")
    config = Config()
    config.set_main_option(
        "script_location", str(Path(database_module.__file__).with_name("migrations"))
    )
    config.set_main_option("path_separator", "os")
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
    engine.dispose()


def make_old(path: Path) -> None:
    """A database file as version 0001 left it, with a bow in it."""
    migrated_to(path, "0001")
    raw = sqlite3.connect(path)
    raw.executescript(OLD)
    raw.close()


def test_an_old_file_is_migrated_kept_beside_and_used(database: Path, clock: Clock) -> None:
    make_old(database)
    engine = open_database(database)
    bench = Bench(engine, clock)
    assert [bow.name for bow in bench.subjects("bow")] == ["Old bow"]
    draft = e.EntryDraft(
        subject=Subject(kind="bow", id="old-bow"), reading=BowLength(bow_length_mm=1600.0)
    )
    assert bench.record([draft])[0].seq == 2
    engine.dispose()
    copy = sqlite3.connect(database.with_name("bench-before-0001-migrated.sqlite3"))
    assert copy.execute("SELECT version_num FROM alembic_version").fetchone() == ("0001",)
    assert copy.execute("SELECT count(*) FROM entries").fetchone() == (1,)
    copy.close()


def test_tables_of_today_are_opened_without_looking_at_migrations(database: Path) -> None:
    assert newest_version() == TABLES_VERSION
    open_database(database).dispose()
    opens = (
        "import sys; from pathlib import Path; from lyrandis.store.database import open_database; "
        f"open_database(Path({str(database)!r})).dispose(); print('alembic' in sys.modules)"
    )
    told = subprocess.run([sys.executable, "-c", opens], capture_output=True, text=True, check=True)
    assert told.stdout == "False\n"


def test_a_second_copy_does_not_write_over_the_first(database: Path) -> None:
    make_old(database)
    shutil.copy(database, database.with_suffix(".kept"))
    open_database(database).dispose()
    for suffix in ("", "-wal", "-shm"):
        database.with_name(database.name + suffix).unlink(missing_ok=True)
    shutil.copy(database.with_suffix(".kept"), database)
    open_database(database).dispose()
    copies = sorted(path.name for path in database.parent.glob("*migrated*.sqlite3"))
    assert copies == [
        "bench-before-0001-migrated-2.sqlite3",
        "bench-before-0001-migrated.sqlite3",
    ]


def test_opening_again_changes_nothing_and_keeps_no_copy(database: Path) -> None:
    open_database(database).dispose()
    open_database(database).dispose()
    assert list(database.parent.glob("*migrated*")) == []


def test_a_newer_file_is_refused_and_left_alone(database: Path) -> None:
    open_database(database).dispose()
    raw = sqlite3.connect(database)
    raw.execute("UPDATE alembic_version SET version_num = '9999'")
    raw.commit()
    raw.close()
    with pytest.raises(DomainError) as caught:
        open_database(database)
    assert caught.value.code == "database_newer"
    assert "9999" in caught.value.reason


def test_a_file_that_is_no_database_is_refused(database: Path) -> None:
    database.write_text("these are not the entries you are looking for" * 40)
    with pytest.raises(DomainError) as caught:
        open_database(database)
    assert caught.value.code == "not_a_database"


@pytest.mark.parametrize("statement", ["UPDATE entries SET note = 'x'", "DELETE FROM entries"])
def test_entries_are_append_only_in_the_file_itself(database: Path, statement: str) -> None:
    make_old(database)
    open_database(database).dispose()
    raw = sqlite3.connect(database)
    with pytest.raises(sqlite3.IntegrityError, match="append-only"):
        raw.execute(statement)
    raw.close()


def test_foreign_keys_and_wal_are_on(database: Path) -> None:
    engine = open_database(database)
    with engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
        assert connection.exec_driver_sql("PRAGMA synchronous").scalar() == 2
    engine.dispose()


WRITER = """
import sys
from datetime import UTC, datetime
from pathlib import Path
from lyrandis.core import entries as e
from lyrandis.core.arrow.readings import ArrowMassed
from lyrandis.store.bench import Bench, NewPart
from lyrandis.store.database import TABLES_VERSION, open_database
from lyrandis.store.migrate import newest_version
from lyrandis.store.trouble import trouble_of
bench = Bench(open_database(Path(sys.argv[1])), lambda: datetime.now(UTC))
bench.make([NewPart("arrow_set", "Set")])
subject = e.Subject(kind="arrow_set", id="set")
number = 0
while True:
    number += 1
    reading = ArrowMassed(arrow_mass_gr=400.0, arrow_number=number % 900 + 1)
    bench.record([e.EntryDraft(subject=subject, reading=reading)] * 3)
    print(number, flush=True)
"""


def test_nothing_said_to_be_recorded_is_lost_when_the_process_is_killed(
    database: Path, clock: Clock
) -> None:
    writer = subprocess.Popen(
        [sys.executable, "-c", WRITER, str(database)], stdout=subprocess.PIPE, text=True
    )
    assert writer.stdout is not None
    confirmed = 0
    for line in writer.stdout:
        confirmed = int(line)
        if confirmed == 25:
            os.kill(writer.pid, signal.SIGKILL)
            break
    writer.wait()
    writer.stdout.close()
    engine = open_database(database)
    masses = [s for s in Bench(engine, clock).entries_of("set") if s.reading.kind == "arrow_mass"]
    engine.dispose()
    assert len(masses) >= 3 * confirmed
    assert len(masses) % 3 == 0


# true words about the file


def refusal(path: Path) -> DomainError:
    with pytest.raises(DomainError) as caught:
        open_database(path)
    assert "Move it aside" not in caught.value.instruction
    return caught.value


def test_another_programs_file_is_left_as_it_is(tmp_path: Path) -> None:
    path = tmp_path / "bench.sqlite3"
    raw = sqlite3.connect(path)
    raw.executescript("CREATE TABLE photos (id); PRAGMA application_id = 7;")
    raw.close()
    before = path.read_bytes()
    assert refusal(path).code == "not_ours"
    assert path.read_bytes() == before


def test_a_file_that_is_no_database_is_said(tmp_path: Path) -> None:
    path = tmp_path / "bench.sqlite3"
    path.write_text("a shopping list " * 200)
    assert refusal(path).code == "not_a_database"


def test_a_damaged_file_is_found_at_the_start(tmp_path: Path, demo_file: Path) -> None:
    path = tmp_path / "bench.sqlite3"
    raw = bytearray(demo_file.read_bytes())
    for at in range(8192, len(raw) - 4096, 4096):
        raw[at : at + 200] = b"\xee" * 200
    path.write_bytes(raw)
    assert refusal(path).code == "damaged"


def test_a_file_held_by_another_program_is_said(tmp_path: Path) -> None:
    path = tmp_path / "bench.sqlite3"
    open_database(path).dispose()
    holding = sqlite3.connect(path, isolation_level=None)
    holding.execute("PRAGMA locking_mode = EXCLUSIVE")
    holding.execute("BEGIN EXCLUSIVE")
    try:
        assert refusal(path).code == "locked"
    finally:
        holding.close()


@pytest.mark.parametrize(
    ("name", "code", "status"),
    [
        ("SQLITE_BUSY", "locked", 503),
        ("SQLITE_BUSY_SNAPSHOT", "locked", 503),
        ("SQLITE_FULL", "disk_full", 507),
        ("SQLITE_READONLY_DBMOVED", "folder_closed", 503),
        ("SQLITE_CANTOPEN", "folder_closed", 503),
        ("SQLITE_CORRUPT", "damaged", 500),
        ("SQLITE_NOTADB", "not_a_database", 422),
    ],
)
def test_each_trouble_of_the_file_has_its_own_words(name: str, code: str, status: int) -> None:
    error = sqlite3.OperationalError("x")
    error.sqlite_errorname = name
    found = trouble_of(error)
    assert found.code == code
    assert CODES[found.code][0] == status


def test_the_folder_is_the_owners_alone(tmp_path: Path) -> None:
    open_database(tmp_path / "new" / "bench.sqlite3").dispose()
    assert (tmp_path / "new").stat().st_mode & 0o777 == 0o700
