"""What the API's document shows: a body that is taken and an answer, for each address."""

import json
from pathlib import Path
from typing import Any

ANSWERS = Path(__file__).with_name("answers.json")
"""What the demo answers, cut short; written by tools/answers.py."""


def answers() -> dict[str, Any]:
    """Return an answer by the operation that gives it."""
    found: dict[str, Any] = json.loads(ANSWERS.read_text(encoding="utf-8"))
    return found


_BRACE = {
    "subject": {"kind": "rig", "id": "tideway-recurve"},
    "reading": {"kind": "brace_height", "brace_height_mm": 209.5},
}
_FIELD_TEXT = """\
Lyrandis field shots 2
of tideway-recurve with carbon-set-a held cheekbone three_under
2026-03-14T09:30:00Z 8f3c1a2b4d crawl 27m 34mm high 1 arrow ~4a73
end 1
"""


def _part(name: str, **reading: Any) -> dict[str, Any]:
    return {"name": name, "readings": [{"reading": reading}]}


EXAMPLES: dict[str, dict[str, Any]] = {
    "create_rig": {"name": "Winter rig", "archer": "bram", "bow": {"name": "Heron"}},
    "bring_logbook_in": {"entries": [{**_BRACE, "happened_at": "2026-03-14T09:30:00Z"}]},
    "parse_quiver_table": {"text": "arrow,mass gr,spine lb\n1,431.2,47.5\n2,430.6,48\n"},
    "create_entries": {"entries": [_BRACE], "rig": "tideway-recurve", "page": "string"},
    "retract_entries": {"entries": [{"entry_id": "{entry_id}"}], "rig": "tideway-recurve"},
    "retract_entry": {"rig": "tideway-recurve", "page": "string"},
    "judge_first_run": {"draw": "27 3/8", "family": "selfbow", "mark": "44 @ 28"},
    "judge_entries": {"entries": [_BRACE], "rig": "tideway-recurve"},
    "parse_reading": {"text": "brace 8 1/4", "rig": "tideway-recurve", "units": "inch"},
    "keep_refused_line": {"line": "fizzle 17"},
    "keep_refused_lines": {"keep": True},
    "teach_words": {
        "line": "fizzle 17",
        "row": "riser: riser {riser_length_mm}",
        "fields": {"riser_length_mm": "17"},
        "units": "inch",
        "rig": "tideway-recurve",
    },
    "create_archer": _part("Wren", kind="draw_marked", draw_length_mm=711.2),
    "create_bow": _part("Plover", kind="bow_length", bow_length_mm=1625.6),
    "create_string": _part(
        "Polyester, 14 strands", kind="string_build", material="polyester", strands=14
    ),
    "create_arrow_set": _part("Cane, set C", kind="arrow_mass", arrow_mass_gr=452.0),
    "bring_field_shots": {"text": _FIELD_TEXT, "record": False},
    "hear_sound": {"what": "pluck"},
    "time_sound": {"butt_m": 18.0},
    "tap_sound": {"state": "bare", "first": 1},
    "pretend_sound": {"what": "pluck", "takes": 3, "seed": 7},
}
"""Bodies by the operation that takes them; they speak of the demo's rigs. `{entry_id}` stands for
the id an entry was given, and a bare mark in an address for one that was kept."""
