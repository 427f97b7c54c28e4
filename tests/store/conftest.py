"""A bench on a database of its own, with a clock that is set by hand."""

from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from lyrandis.core import entries as e
from lyrandis.core.reading import BaseReading, PartKind, Subject, SubjectKind
from lyrandis.store.bench import Bench, NewPart
from lyrandis.store.database import open_database


class Clock:
    """A clock that moves a second each time it is read."""

    def __init__(self) -> None:
        self.now = datetime(2026, 3, 1, 12, 0, tzinfo=UTC)

    def __call__(self) -> datetime:
        self.now += timedelta(seconds=1)
        return self.now


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def database(tmp_path: Path) -> Path:
    return tmp_path / "bench.sqlite3"


@pytest.fixture
def bench(database: Path, clock: Clock):  # type: ignore[no-untyped-def]
    engine = open_database(database)
    yield Bench(engine, clock)
    engine.dispose()


def on(kind: SubjectKind, subject: str, reading: BaseReading, **more) -> e.EntryDraft:  # type: ignore[no-untyped-def]
    return e.EntryDraft(subject=Subject(kind=kind, id=subject), reading=reading, **more)  # type: ignore[arg-type]


@pytest.fixture
def rig(bench: Bench) -> str:
    parts: dict[PartKind, str | NewPart] = {
        "archer": NewPart("archer", "Ann"),
        "bow": NewPart("bow", "Yew bow"),
        "arrow_set": NewPart("arrow_set", "Set A"),
    }
    return bench.make_rig("Ann's rig", parts)
