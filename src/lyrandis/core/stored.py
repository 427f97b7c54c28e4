"""Readings as they were stored: of an earlier shape, and believable by the limits of their day.

A kind whose fields change gets one more `upcast`: what turns its former shape into the next.
Limits are for what is written now; a limit that is narrowed takes nothing out of the record.
"""

from typing import Any

from lyrandis.core.entries import READINGS
from lyrandis.core.reading import BaseReading, revision_of

_KINDS: dict[str, type[BaseReading]] = {
    kind.model_fields["kind"].default: kind for kind in READINGS
}


def cast_up(stored: Any, revision: int) -> Any:
    """Return a stored reading in the shape of today, whatever else it is.

    Raises `ValueError` for a shape of a later Lyrandis than this one.

    >>> cast_up({"kind": "bow_length", "bow_length_mm": 1600.0}, 1)
    {'kind': 'bow_length', 'bow_length_mm': 1600.0}
    >>> cast_up({"kind": "bow_length", "bow_length_mm": 1600.0}, 2)
    Traceback (most recent call last):
    ...
    ValueError: bow_length is written in shape 2, this Lyrandis knows up to 1
    """
    kind = _KINDS.get(stored.get("kind", "")) if isinstance(stored, dict) else None
    if kind is None:
        return stored
    if revision > revision_of(kind):
        raise ValueError(
            f"{stored['kind']} is written in shape {revision}, "
            f"this Lyrandis knows up to {revision_of(kind)}"
        )
    for upcast in kind.upcasts[revision - 1 :]:
        stored = upcast(stored)
    return stored
