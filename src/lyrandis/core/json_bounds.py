"""Reading JSON that is bounded by count while it is read: a few bytes must not become gigabytes.

A body of `{},{},...` or of a million keys nobody knows is small on the way and huge in memory.
"""

import json
from typing import Any

from lyrandis.core.errors import DomainError

MOST_KEYS = 600_000
"""Of 20,000 entries of a logbook at thirty keys each."""
MOST_OBJECTS = 250_000
MOST_KEYS_OF_ONE = 100
"""No reading has half as many fields."""


def load_json(raw: bytes | str) -> Any:
    """Return what some JSON says; raise `DomainError` for too much of it, or for no JSON.

    >>> load_json('{"entries": []}')
    {'entries': []}
    >>> load_json("[" + "{}," * 250_001 + "{}]")
    Traceback (most recent call last):
    ...
    lyrandis.core.errors.DomainError: That holds more than this bench takes at once.
    """
    keys = raw.count(b'":') if isinstance(raw, bytes) else raw.count('":')
    if keys > MOST_KEYS:
        raise _too_much()
    count = 0

    def counted(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
        nonlocal count
        count += 1
        if count > MOST_OBJECTS or len(pairs) > MOST_KEYS_OF_ONE:
            raise _too_much()
        return dict(pairs)

    try:
        return json.loads(raw, object_pairs_hook=counted)
    except (json.JSONDecodeError, UnicodeDecodeError, RecursionError):
        raise DomainError("bad_json", "This cannot be read as JSON.", "Send valid JSON.") from None


def _too_much() -> DomainError:
    return DomainError(
        "body_too_large",
        "That holds more than this bench takes at once.",
        "Send what belongs to one rig, as it was saved from its logbook.",
    )
