"""A worked rig for the examples in docstrings: jot lines in, setup and numbers out; and sounds."""

from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Any

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.computed import Computed, compute
from lyrandis.core.jot import parse
from lyrandis.core.listen.readings import SoundHeard, TakeHeard
from lyrandis.core.listen.words import What
from lyrandis.core.reading import PARTS, Subject
from lyrandis.core.record import as_entries
from lyrandis.core.setup import Setup, fold

RECURVE = (
    "draw 28", "hook 1/2", "hold split", "family hunting recurve", "bow 62", "riser 17", "brace 8",
    "string 59 16 strands", "scale 45 @ 28", "material carbon", "shaft 29 1/2 8gpi", "point 110gr",
    "spine 500", "diameter 7mm", "window 2mm", "arrow 1 400gr",
)  # fmt: skip
"""An ordinary take-down recurve, all that matters told."""
WALKED = (
    *RECURVE, "hold under", "anchor corner", "crawl 20m 34mm", "crawl 30m 20mm", "crawl 40m 2mm",
)  # fmt: skip
"""The same, its string walked: three crawls that struck."""
_WHEN = datetime(2026, 1, 10, tzinfo=UTC)
_ID = "example"


def log(said: Iterable[str] = RECURVE) -> list[e.Entry]:
    """Return the log of one rig, called `example`, from jot lines.

    >>> log(["bow 62"])[-1].reading.kind
    'bow_length'
    """
    parts = [("rig", PartFitted(part=part, part_id=_ID)) for part in PARTS]
    jotted = [(item.subject, item.reading) for item in map(parse, said)]
    drafts = [
        e.EntryDraft(subject=Subject(kind=kind, id=_ID), reading=reading, happened_at=_WHEN)
        for kind, reading in [*parts, *jotted]
    ]
    return as_entries(drafts, now=_WHEN)


def setup(said: Iterable[str] = RECURVE) -> Setup:
    """Return the setup of one rig from jot lines.

    >>> setup(["bow 62"]).bow.length.reading.bow_length_mm
    1574.8
    """
    return fold(log(said), rig=_ID)


def rig(said: Iterable[str] = RECURVE) -> Computed:
    """Return the numbers of one rig from jot lines.

    >>> round(rig().bow.weight.weight.value, 1)
    46.2
    """
    return compute(setup(said))


def take(level_db: float = -40.0, ring_s: float | None = 0.3, **more: Any) -> TakeHeard:
    """Return one take as numbers: a healthy shot, but for what is told.

    >>> take(-38.0).level_db
    -38.0
    """
    told: dict[str, Any] = {
        "at_s": 1.0, "level_db": level_db, "peak_db": level_db + 20, "snr_db": 25.0,
        "centroid_hz": 400.0, "ring_s": (ring_s,) * 6, "cells_db": (-60.0,) * 25, "rep": 0.0,
        "unrep": 0.0, "excess_db": 0.0, "bursts": 1, "spread_ms": 3.0, "crest_db": 10.0,
        "sync": 0.0, "slap": 0.0,
    }  # fmt: skip
    return TakeHeard(**{**told, **more})


def sound(
    number: int = 1,
    what: What = "shot",
    levels: Iterable[float] = (-40.0, -40.5, -39.5),
    **more: Any,
) -> SoundHeard:
    """Return a recording as numbers; those after the first share its phone, place and gain.

    >>> sound(2).mark, len(sound().takes)
    ('0000000000000002', 3)
    """
    takes = more.pop("takes", None) or tuple(take(level) for level in levels)
    told: dict[str, Any] = {
        "mark": f"{number:016x}", "name": "example.wav", "what": what, "seconds": 9.0,
        "rate_hz": 44100.0, "takes": takes, "same_place": number > 1,
    }  # fmt: skip
    return SoundHeard(**{**told, **more})
