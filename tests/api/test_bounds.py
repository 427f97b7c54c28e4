"""A few bytes do not become gigabytes: bodies are bounded by count while they are read."""

import json

import pytest

from lyrandis.core.errors import DomainError
from lyrandis.core.json_bounds import MOST_KEYS, MOST_KEYS_OF_ONE, MOST_OBJECTS, load_json
from tests.api.conftest import Api


@pytest.mark.parametrize(
    "raw",
    [
        "[" + ",".join(["{}"] * (MOST_OBJECTS + 1)) + "]",
        json.dumps({f"k{number}": 1 for number in range(MOST_KEYS_OF_ONE + 1)}),
        '{"entries": [{' + ",".join(['"a":1'] * (MOST_KEYS + 1)) + "}]}",
    ],
    ids=["objects", "keys of one", "keys in all"],
)
def test_too_much_is_refused_while_it_is_read(raw: str) -> None:
    for written in (raw, raw.encode()):
        with pytest.raises(DomainError, match="more than this bench takes") as refused:
            load_json(written)
        assert refused.value.code == "body_too_large"


def test_as_much_as_is_allowed_is_read() -> None:
    most = {f"k{number}": 1 for number in range(MOST_KEYS_OF_ONE)}
    assert load_json(json.dumps([most])) == [most]
    assert len(load_json(b"[" + b",".join([b"{}"] * MOST_OBJECTS) + b"]")) == MOST_OBJECTS


@pytest.mark.parametrize("raw", ["", "{", "[" * 100_000, "nul", '{"a":}'])
def test_what_is_no_json_is_said(raw: str) -> None:
    with pytest.raises(DomainError, match="cannot be read as JSON"):
        load_json(raw)


def test_an_entry_of_many_unknown_keys_is_refused_before_it_is_looked_at(demo: Api) -> None:
    keys = ",".join(f'"k{number}":1' for number in range(60_000))
    for path in ("/entries", "/logbooks", "/assessments"):
        answer = demo.client.post(
            f"/api{path}", content=f'{{"entries":[{{{keys}}}]}}',
            headers={"content-type": "application/json"},
        )  # fmt: skip
        assert answer.status_code == 413, answer.text
        assert answer.json()["code"] == "body_too_large"


def test_a_body_in_many_pieces_is_one(demo: Api) -> None:
    note = {"subject": {"kind": "rig", "id": "marram-longbow"},
            "reading": {"kind": "noted", "text": "in pieces"}}  # fmt: skip
    raw = json.dumps({"entries": [note]}).encode()

    def pieces():  # type: ignore[no-untyped-def]
        for byte in raw:
            yield bytes([byte])

    answer = demo.client.post(
        "/api/entries", content=pieces(), headers={"content-type": "application/json"}
    )
    assert answer.status_code == 201
