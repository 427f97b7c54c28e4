"""Settings shared by all tests."""

from datetime import UTC, datetime
from pathlib import Path

import pytest
from hypothesis import settings

from lyrandis.demo.scenario import drafts
from lyrandis.store.bench import Bench
from lyrandis.store.database import open_database

settings.register_profile("bench", max_examples=40, deadline=None, derandomize=True, database=None)
settings.load_profile("bench")


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo's database, made once a run (of each worker); tests work on copies of it."""
    path = tmp_path_factory.mktemp("demo-file") / "bench.sqlite3"
    engine = open_database(path)
    Bench(engine, lambda: datetime.now(UTC)).load(drafts(), origin="demo")
    engine.dispose()
    assert not path.with_name(f"{path.name}-wal").exists(), "closing wrote everything into the file"
    return path
