"""Settings shared by all tests."""

from datetime import UTC, datetime
from pathlib import Path

import pytest
from hypothesis import settings

from lyrandis.core.computed import compute, with_curves
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import SUBJECTS, drafts
from lyrandis.store.bench import Bench
from lyrandis.store.database import open_database

settings.register_profile("bench", max_examples=40, deadline=None, derandomize=True, database=None)
settings.load_profile("bench")


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Begin with the one long test, so that it does not run alone at the end."""
    items.sort(key=lambda item: "test_toy_stage" not in item.nodeid)


@pytest.fixture(scope="session")
def reckoned_demo() -> None:
    """The curves of flight of the demo's rigs, worked out beforehand."""
    entries = as_entries(drafts(), now=datetime.now(UTC))
    for kind, rig, _ in SUBJECTS:
        if kind == "rig":
            assert with_curves(compute(fold(entries, rig=rig))).flight.basis.reckoned is not None


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo's database, made once a run (of each worker); tests work on copies of it."""
    path = tmp_path_factory.mktemp("demo-file") / "bench.sqlite3"
    engine = open_database(path)
    Bench(engine, lambda: datetime.now(UTC)).load(drafts(), origin="demo")
    engine.dispose()
    assert not path.with_name(f"{path.name}-wal").exists(), "closing wrote everything into the file"
    return path
