"""The request guard: own host only, no cross-site writes, strict headers; and the page's files."""

import asyncio
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from starlette.types import Message

from lyrandis.api import request_guard
from tests.api.conftest import Api, open_api

BODY = {"name": "Ann"}


@pytest.mark.parametrize("host", ["127.0.0.1:8080", "localhost:8080", "localhost", "[::1]:8080"])
def test_own_hosts_are_served(api: Api, host: str) -> None:
    assert api.get("/archers", headers={"host": host}) == []


@pytest.mark.parametrize("host", ["rebound.example:8080", "192.168.1.5:8080", "", "127.0.0.1.a.b"])
def test_other_hosts_names_are_refused(api: Api, host: str) -> None:
    assert api.get("/archers", 403, headers={"host": host})["code"] == "foreign_host"


@pytest.mark.parametrize(
    "headers",
    [
        {"origin": "http://elsewhere.example"},
        {"origin": "http://127.0.0.1:9999"},
        {"origin": "null"},
        {"sec-fetch-site": "cross-site"},
        {"sec-fetch-site": "same-site"},
    ],
)
def test_cross_site_writes_are_refused(api: Api, headers: dict[str, str]) -> None:
    assert api.problem("/archers", BODY, 403, headers=headers)["code"] == "foreign_site"
    assert api.get("/archers") == []


def test_own_page_may_write(api: Api) -> None:
    headers = {"origin": "http://127.0.0.1:8080", "sec-fetch-site": "same-origin"}
    api.post("/archers", BODY, headers=headers)


@pytest.mark.parametrize("kind", ["text/plain", "application/x-www-form-urlencoded", ""])
def test_bodies_that_a_form_could_send_are_refused(api: Api, kind: str) -> None:
    answer = api.client.post("/api/archers", content='{"name":"x"}', headers={"content-type": kind})
    assert answer.status_code == 415


def test_headers_are_strict_on_pages_and_problems(api: Api) -> None:
    for path in ("/api/rigs", "/api/nothing", "/nothing"):
        headers = api.client.get(path).headers
        policy = headers["content-security-policy"]
        assert "default-src 'none'" in policy
        assert "unsafe" not in policy
        assert headers["x-content-type-options"] == "nosniff"


@pytest.fixture
def page(tmp_path: Path) -> TestClient:
    static = tmp_path / "static"
    (static / "assets").mkdir(parents=True)
    (static / "index.html").write_text("<title>the page</title>")
    (static / "mark.svg").write_text("<svg/>")
    (static / "assets" / "app-1a2b.js").write_text("1")
    (tmp_path / "secret.txt").write_text("secret")
    return open_api(tmp_path)


def test_deep_links_get_the_page(page: TestClient) -> None:
    for path in ("/", "/rigs/marram-longbow/bow", "/rules"):
        answer = page.get(path)
        assert "the page" in answer.text
        assert answer.headers["cache-control"] == "no-cache"


def test_assets_are_kept_for_good_and_missing_ones_are_not_the_page(page: TestClient) -> None:
    assert "immutable" in page.get("/assets/app-1a2b.js").headers["cache-control"]
    assert page.get("/assets/gone.js").status_code == 404
    assert page.get("/mark.svg").text == "<svg/>"
    assert page.get("/api").status_code == 404


@pytest.mark.parametrize("path", ["/../secret.txt", "/%2e%2e/secret.txt", "/..%2fsecret.txt"])
def test_files_outside_the_page_are_not_served(page: TestClient, path: str) -> None:
    assert "secret" not in page.get(path).text


def test_a_body_that_never_comes_whole_is_not_waited_for(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(request_guard, "BODY_SECONDS", 0.05)
    sent: list[Message] = []

    async def half_of_it() -> Message:
        if sent_half:
            await asyncio.sleep(60)
        sent_half.append(True)
        return {"type": "http.request", "body": b'{"name": ', "more_body": True}

    async def send(message: Message) -> None:
        sent.append(message)

    async def never(*_: object) -> None:
        raise AssertionError("the app is not asked")

    sent_half: list[bool] = []
    headers = [(b"host", b"127.0.0.1"), (b"content-type", b"application/json")]
    headers.append((b"transfer-encoding", b"chunked"))
    scope = {"type": "http", "method": "POST", "path": "/api/archers", "headers": headers}
    # A browser test on the same worker leaves its own loop running, so this one has its thread.
    with ThreadPoolExecutor(1) as alone:
        alone.submit(
            lambda: asyncio.run(request_guard.RequestGuard(never)(scope, half_of_it, send))
        ).result()
    assert sent[0]["status"] == 408
    assert b"did not arrive whole" in sent[1]["body"]
