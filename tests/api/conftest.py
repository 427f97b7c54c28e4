"""The app over a database of its own, asked as the page asks it."""

import shutil
import socket
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
import uvicorn
from fastapi.testclient import TestClient

from lyrandis.api.app import Settings, create_app

HOST = "http://127.0.0.1:8080"


class Patient(TestClient):
    """A client that asks as the page does: again while an answer is not there yet."""

    def request(self, *args: Any, **more: Any) -> Any:
        for _ in range(400):
            answer = super().request(*args, **more)
            if answer.status_code != 202:
                return answer
        raise AssertionError(f"it does not come: {answer.text}")


class Api:
    """A client that speaks JSON and hands back status and body."""

    def __init__(self, client: TestClient) -> None:
        self.client = client

    def get(self, path: str, status: int = 200, **more: Any) -> Any:
        answer = self.client.get(f"/api{path}", **more)
        assert answer.status_code == status, answer.text
        return answer.json()

    def settled(self, rig: str) -> Any:
        """Return a rig's assessment once nothing of it is being worked out any more."""
        for _ in range(200):
            assessment = self.get(f"/rigs/{rig}")
            if not assessment.get("reckoning"):
                return assessment
            time.sleep(0.05)
        raise AssertionError(f"{rig} is still being reckoned")

    def post(self, path: str, body: Any = None, status: int = 201, **more: Any) -> Any:
        answer = self.client.post(f"/api{path}", json=body, **more)
        assert answer.status_code == status, answer.text
        return answer.json()

    def problem(self, path: str, body: Any, status: int, **more: Any) -> Any:
        answer = self.client.post(f"/api{path}", json=body, **more)
        assert answer.status_code == status, answer.text
        assert answer.headers["content-type"] == "application/problem+json"
        problem = answer.json()
        assert problem["reason"]
        assert problem["instruction"]
        assert problem["status"] == status
        return problem


def open_api(folder: Path, copied: Path | None = None) -> TestClient:
    """Serve a bench from a folder: an empty one, or a copy of a database."""
    if copied is not None:
        shutil.copy(copied, folder / "bench.sqlite3")
    settings = Settings(database=folder / "bench.sqlite3", static=folder / "static")
    return Patient(create_app(settings), base_url=HOST, raise_server_exceptions=False)


@pytest.fixture(scope="session", autouse=True)
def _warm(reckoned_demo: None) -> None:
    """No answer waits for the demo's curves of flight."""


@pytest.fixture
def api(tmp_path: Path) -> Iterator[Api]:
    with open_api(tmp_path) as client:
        yield Api(client)


@pytest.fixture
def demo(tmp_path: Path, demo_file: Path) -> Iterator[Api]:
    with open_api(tmp_path, demo_file) as client:
        yield Api(client)


@pytest.fixture
def own_server(tmp_path: Path) -> Iterator[tuple[str, Path]]:
    """Serve an empty bench on a real socket; return its address and folder."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    app = create_app(Settings(database=tmp_path / "bench.sqlite3", static=tmp_path / "static"))
    server = uvicorn.Server(uvicorn.Config(app, host="127.0.0.1", port=port, log_level="error"))
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        time.sleep(0.01)
    yield f"http://127.0.0.1:{port}", tmp_path
    server.should_exit = True
    thread.join()
