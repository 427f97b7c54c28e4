"""Ask the demo at every address and write its answers, cut short, for the API's document.

Run it where an answer's shape changed: tests/api/test_openapi.py says so.
"""

import json
import re
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from lyrandis.api.app import Settings, create_app, openapi_document
from lyrandis.api.examples import ANSWERS, EXAMPLES

FEW = 25
"""Figures that are written whole: a grid of the sound has so many."""
HOST = "http://127.0.0.1:8080"
RIG = "tideway-recurve"
_MICROPHONE = f"/api/rigs/{RIG}/instruments/microphone"
_HEARD = {"hear_sound": "pluck", "time_sound": "butt", "tap_sound": "taps"}


def answers_of(client: TestClient, empty: TestClient, document: dict[str, Any]) -> dict[str, Any]:
    """Return what every operation answers, by its name; those that answer no JSON are left out.

    `empty` is a bench without the demo, for the one that brings it there.
    """
    while any(one["reckoning"] for one in client.get("/api/rigs").json()):
        # what is said once a rig's flight is reckoned differs from what is said before
        time.sleep(0.1)
    marks = {
        name: client.post(_MICROPHONE, json={"what": what, "seed": seed, "state": "bare"})
        for seed, (name, what) in enumerate(_HEARD.items(), start=1)
    }
    mark = {name: answer.json()["mark"] for name, answer in marks.items()}
    of_log = client.get(f"/api/rigs/{RIG}", params={"page": "listen"}).json()["page"]["recordings"]
    query: dict[str, dict[str, Any]] = {
        "list_examples": {"rig": RIG, "stage": "bow"},
        "read_matched_set": {"count": 3},
        "read_traces": {"at": 1.0},
        "read_spectrogram": {"at_s": 1.0},
        "read_pair": {"before": of_log[0]["mark"], "after": of_log[2]["mark"]},
    }
    asked = [
        (path, verb, operation)
        for path, verbs in document["paths"].items()
        for verb, operation in verbs.items()
    ]
    found = {}
    for path, verb, operation in asked:
        name = operation["operationId"]
        if not _media(operation):
            continue
        kept = client.post("/api/entries", json=EXAMPLES["create_entries"]).json()
        entry = kept["entries"][0]["id"]
        url = path.format(
            rig=RIG, entry_id=entry, kind="bow_scale", mark=mark.get(name, mark["hear_sound"])
        )
        body = json.loads(json.dumps(EXAMPLES.get(name)).replace("{entry_id}", entry))
        while True:
            if name == "keep_sound":
                file = client.get(f"{url}/{mark['hear_sound']}").content
                answer = client.post(url, content=file, headers={"content-type": "audio/wav"})
            else:
                on = empty if name == "load_demo" else client
                answer = on.request(verb, url, json=body, params=query.get(name))
            if answer.status_code != 202:
                break
        assert answer.status_code in (200, 201), (name, answer.text)
        found[name] = cut(answer.json())
    return found


def _media(operation: dict[str, Any]) -> bool:
    return any(
        "application/json" in answer.get("content", {})
        for status, answer in operation["responses"].items()
        if status in ("200", "201")
    )


def cut(value: Any) -> Any:
    """Return an answer cut short: of each list one item or a few figures, each to four places.

    >>> cut({"rows": [{"mm": 1.23456}, {"mm": 2.0}], "id": None})
    {'rows': [{'mm': 1.235}], 'id': None}
    """
    if isinstance(value, dict):
        by_id = any(not re.fullmatch("[a-z][a-z0-9_]*", key) for key in value)
        return {key: cut(each) for key, each in list(value.items())[: 1 if by_id else None]}
    if isinstance(value, list):
        figures = len(value) <= FEW and not any(isinstance(each, (dict, list)) for each in value)
        return [cut(each) for each in (value if figures else value[:1])]
    return float(f"{value:.4g}") if isinstance(value, float) else value


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        benches = [
            create_app(
                Settings(database=Path(folder) / name / "bench.sqlite3", demo=name == "demo")
            )
            for name in ("demo", "empty")
        ]
        demo, empty = (TestClient(bench, base_url=HOST) for bench in benches)
        with demo, empty:
            found = answers_of(demo, empty, openapi_document())
    text = json.dumps(found, ensure_ascii=False, indent=1, sort_keys=True) + "\n"
    ANSWERS.write_text(text, encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
