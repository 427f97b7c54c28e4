"""Requests nobody would send: made from the API's own document, the same for the same seed."""

import json
import random
import string
from collections import Counter
from typing import Any

from fastapi.testclient import TestClient

from lyrandis.api.app import openapi_document

_ODD: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 10**30, -(10**30), 1e308, -1e-308, 0.1, "", " ", "\x00", "a" * 500,
    "\u202e", "½", "9" * 400, "1/0", "-", [], {}, [[]], {"a": {"b": []}}, "2026-13-45", "∞", "NaN",
)  # fmt: skip
_LINES = (
    "draw 27", "deflection 999999", "deflection 0 @ 0in 0lb", "spine 0", "scale 1/0 @ 28", "@",
    "taper tail 0 0", "arrow 4 4", "window 1/4 past", "inspect", "fit", "note",
    "speed 0 0", "#", "'",
)  # fmt: skip
_PATHS = (
    "/%00", "/" + "a" * 300, "/api/%00", "/api/rigs/%2e%2e", "/..%2f..%2fetc", "/api/" + "b/" * 99,
)  # fmt: skip
_ORIGINS = ("http://[", "null", "http://127.0.0.1:8080", "http://evil", "", "::", "http://[::1")


class Fuzz:
    """A seeded source of requests, valid in part and odd in part."""

    def __init__(self, seed: int, known: dict[str, list[str]]) -> None:
        self._random = random.Random(seed)
        self._document = openapi_document()
        self._known = known
        self._calls = [
            (path, verb, operation)
            for path, operations in self._document["paths"].items()
            for verb, operation in operations.items()
        ]

    def send(self, client: TestClient) -> tuple[str, int, str]:
        """Send one request; return what it was, its status and its body."""
        if self._random.random() < 0.03:
            path = self._random.choice(_PATHS)
            answer = client.get(path)
            return f"GET {path}", answer.status_code, answer.text
        path, verb, operation = self._random.choice(self._calls)
        query = {}
        for parameter in operation.get("parameters", ()):
            if parameter["in"] == "path":
                path = path.replace(f"{{{parameter['name']}}}", self._name(parameter["name"]))
            elif parameter["in"] == "query" and self._random.random() < 0.6:
                query[parameter["name"]] = str(self._value(parameter["schema"], 0))
        headers = {"content-type": "application/json"}
        if self._random.random() < 0.1:
            headers["origin"] = self._random.choice(_ORIGINS)
        body = None
        if "requestBody" in operation:
            content = operation["requestBody"]["content"]
            if "application/json" in content:
                schema = content["application/json"]["schema"]
                body = json.dumps(self._value(schema, 0)).encode(errors="replace")
            else:
                headers["content-type"] = self._random.choice(sorted(content))
                body = self._random.choice((b"RIFF", b"fLaC", b"")) + self._random.randbytes(300)
            if self._random.random() < 0.05:
                body = body[: self._random.randrange(len(body) + 1)] + bytes([200, 0, 34])
        answer = client.request(verb, path, params=query, content=body, headers=headers)
        return f"{verb.upper()} {path} {query} {body!r}", answer.status_code, answer.text

    def _name(self, what: str) -> str:
        known = self._known.get(what, [])
        if known and self._random.random() < 0.85:
            return self._random.choice(known)
        return self._random.choice(("x", "%00", "a" * 300, "%C3%28", "-", "no-such", "a b"))

    def _value(self, schema: dict[str, Any], depth: int) -> Any:
        if self._random.random() < 0.06 or depth > 7:
            return self._random.choice(_ODD)
        if "$ref" in schema:
            name = schema["$ref"].rsplit("/", 1)[1]
            return self._value(self._document["components"]["schemas"][name], depth + 1)
        for union in ("anyOf", "oneOf", "allOf"):
            if union in schema:
                return self._value(self._random.choice(schema[union]), depth + 1)
        if "const" in schema:
            return schema["const"]
        if "enum" in schema:
            return self._random.choice(schema["enum"])
        return self._plain(schema, depth)

    def _plain(self, schema: dict[str, Any], depth: int) -> Any:
        match schema.get("type"):
            case "object":
                needed = schema.get("required", ())
                return {
                    name: self._value(part, depth + 1)
                    for name, part in schema.get("properties", {}).items()
                    if name in needed or self._random.random() < 0.5
                }
            case "array":
                many = range(self._random.randrange(4))
                return [self._value(schema.get("items", {}), depth + 1) for _ in many]
            case "integer":
                return self._random.choice((0, 1, 2, 3, 5, 9, 200, 201, -1, 2**53, 2**63, 10**30))
            case "number":
                return self._random.choice((0, 1, 7.5, 40, 180, 400, 711.2, 1600, -3, 1e9, 1e300))
            case "boolean":
                return self._random.random() < 0.5
            case "string":
                return self._text(schema)
        return self._random.choice(_ODD)

    def _text(self, schema: dict[str, Any]) -> str:
        if schema.get("format") == "date-time":
            return self._random.choice(
                ("2026-01-10T10:00:00Z", "0001-01-01T00:00:00Z", "yesterday")
            )
        known = [one for names in self._known.values() for one in names]
        letters = "".join(self._random.choices(string.printable + "½é∞", k=9))
        return self._random.choice((*_LINES, *known, letters, "2026-01-10", "a1b2c3d4e5"))


def fuzz(client: TestClient, count: int, seed: int) -> Counter[int]:
    """Send `count` requests; return how many of each status. A 500 is an AssertionError."""
    rigs = [rig["id"] for rig in client.get("/api/rigs").json()]
    entries = client.get(f"/api/rigs/{rigs[0]}/entries").json()["entries"]
    source = Fuzz(seed, {"rig": rigs, "entry_id": [entry["id"] for entry in entries[:20]]})
    found: Counter[int] = Counter()
    for _ in range(count):
        said, status, text = source.send(client)
        assert status < 500, (said[:2000], text[:500])
        if status >= 400 and not said.startswith("GET /"):
            assert json.loads(text)["instruction"], said
        found[status] += 1
    return found
