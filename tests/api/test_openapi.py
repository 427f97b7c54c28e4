"""The API against its own document, and the generated client types against it."""

import json
import re
from pathlib import Path

import jsonschema_rs
import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from tools.answers import answers_of

from lyrandis.api.app import Settings, create_app, openapi_document
from lyrandis.api.examples import EXAMPLES
from tests.api.conftest import Api, open_api

WRITTEN = Path(__file__).parents[2] / "web" / "src" / "lib" / "api.gen.ts"


def test_every_route_is_documented() -> None:
    for path, verbs in openapi_document()["paths"].items():
        for verb, operation in verbs.items():
            assert operation["description"], f"{verb} {path}"
            assert "422" in operation["responses"]
            assert {"200", "201", "204"} & operation["responses"].keys()


def test_a_problem_is_written_once_and_referred_to() -> None:
    document = openapi_document()
    for verbs in document["paths"].values():
        for operation in verbs.values():
            for status, answer in operation["responses"].items():
                assert status < "400" or list(answer) == ["$ref"]


def test_every_body_has_an_example_and_it_is_taken(demo: Api) -> None:
    """Each example is sent to the demo as it stands in the document."""
    document = openapi_document()
    kept = demo.post("/rigs/tideway-recurve/instruments/microphone", {"what": "pluck", "seed": 1})
    butt = demo.post("/rigs/tideway-recurve/instruments/microphone", {"what": "butt", "seed": 2})
    taps = demo.post(
        "/rigs/tideway-recurve/instruments/microphone", {"what": "taps", "state": "bare", "seed": 3}
    )
    marks = {"hear_sound": kept, "time_sound": butt, "tap_sound": taps}
    tried = set()
    for path, verbs in document["paths"].items():
        for verb, operation in verbs.items():
            name = operation["operationId"]
            for media, body in operation.get("requestBody", {}).get("content", {}).items():
                if media != "application/json":
                    continue
                tried.add(name)
                entry = demo.post("/entries", EXAMPLES["create_entries"])["entries"][0]["id"]
                said = json.loads(json.dumps(body["example"]).replace("{entry_id}", entry))
                url = path.removeprefix("/api").format(
                    rig="tideway-recurve", entry_id=entry, mark=marks.get(name, kept)["mark"]
                )
                answer = demo.client.request(verb, f"/api{url}", json=said)
                assert answer.status_code in (200, 201), (name, answer.text)
                if name == "bring_field_shots":
                    assert not answer.json()["more"]
                    assert [one["state"] for one in answer.json()["lines"]] == ["new"]
    assert tried == set(EXAMPLES)


def test_every_answer_has_an_example_of_its_own_kind() -> None:
    document = openapi_document()
    components = document["components"]
    for verbs in document["paths"].values():
        for operation in verbs.values():
            for status, answer in operation["responses"].items():
                content = answer.get("content", {}).get("application/json")
                if content is None or status not in ("200", "201"):
                    continue
                schema = {**content["schema"], "components": components}
                jsonschema_rs.validate(schema, content["example"])


def test_the_examples_of_answers_are_those_of_today(demo: Api, tmp_path: Path) -> None:
    """Else: python -m tools.answers."""
    document = openapi_document()
    with open_api(tmp_path / "empty") as empty:
        today = answers_of(demo.client, empty, document)
    for verbs in document["paths"].values():
        for operation in verbs.values():
            name = operation["operationId"]
            if name in today:
                status = next(iter({"200", "201"} & operation["responses"].keys()))
                content = operation["responses"][status]["content"]["application/json"]
                assert _shape(content["example"]) == _shape(today[name]), name


def _shape(value: object) -> object:
    if isinstance(value, dict):
        return {re.sub(".*-.*", "id", key): _shape(each) for key, each in value.items()}
    return [_shape(each) for each in value] if isinstance(value, list) else None


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
