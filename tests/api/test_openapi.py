"""The API against its own document, and the generated client types against it."""

import json
from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings

from lyrandis.api.app import Settings, create_app, openapi_document

WRITTEN = Path(__file__).parents[2] / "web" / "src" / "lib" / "api.gen.ts"


def test_every_route_is_documented() -> None:
    for path, verbs in openapi_document()["paths"].items():
        for verb, operation in verbs.items():
            assert operation["description"], f"{verb} {path}"
            assert "422" in operation["responses"]
            assert {"200", "201", "204"} & operation["responses"].keys()


def test_generated_types_know_every_route_and_kind_of_reading() -> None:
    types = WRITTEN.read_text(encoding="utf-8")
    document = openapi_document()
    for path in document["paths"]:
        assert f'"{path}"' in types
    for schema in document["components"]["schemas"].values():
        kind = schema.get("properties", {}).get("kind", {}).get("const")
        if kind:
            assert json.dumps(kind) in types


@pytest.fixture
def api_schema(tmp_path: Path):  # type: ignore[no-untyped-def]
    app = create_app(Settings(database=tmp_path / "b.sqlite3", demo=True, static=tmp_path))

    async def under_own_name(scope, receive, send):  # type: ignore[no-untyped-def]
        headers = [pair for pair in scope.get("headers", []) if pair[0] != b"host"]
        own = {**scope, "headers": [*headers, (b"host", b"127.0.0.1:8080")]}
        await app(own if scope["type"] == "http" else scope, receive, send)

    return schemathesis.openapi.from_asgi("/api/openapi.json", under_own_name)


def test_no_request_the_document_allows_breaks_the_server(api_schema) -> None:  # type: ignore[no-untyped-def]
    for found in api_schema.get_all_operations():
        operation = found.ok()

        @given(operation.as_strategy())
        @settings(max_examples=7, suppress_health_check=list(HealthCheck))
        def answers(case) -> None:  # type: ignore[no-untyped-def]
            answer = case.call()
            assert answer.status_code < 500, case.as_curl_command()
            if answer.status_code >= 400:
                assert answer.headers["content-type"] == ["application/problem+json"]

        answers()
