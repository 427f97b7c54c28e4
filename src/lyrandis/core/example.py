"""A worked rig for the examples in docstrings: jot lines in, setup and numbers out."""

from collections.abc import Iterable
from datetime import UTC, datetime

from lyrandis.core import entries as e
from lyrandis.core.computed import Computed, compute
from lyrandis.core.jot import parse
from lyrandis.core.record import as_entries
from lyrandis.core.setup import Setup, fold

RECURVE = (
    "draw 28", "hook 1/2", "hold split", "family hunting recurve", "bow 62", "riser 17", "brace 8",
    "string 59 16 strands", "scale 45 @ 28", "material carbon", "shaft 29 1/2 8gpi", "point 110gr",
    "spine 500", "diameter 7mm", "window 2mm", "arrow 1 400gr",
)  # fmt: skip
"""An ordinary take-down recurve, all that matters told."""
_WHEN = datetime(2026, 1, 10, tzinfo=UTC)
_ID = "example"


def setup(said: Iterable[str] = RECURVE) -> Setup:
    """Return the setup of one rig from jot lines.

    >>> setup(["bow 62"]).bow.length.reading.bow_length_mm
    1574.8
    """
    parts = [("rig", e.PartFitted(part=part, part_id=_ID)) for part in e.PARTS]
    jotted = [(one.subject, one.reading) for one in map(parse, said)]
    drafts = [
        e.EntryDraft(subject=e.Subject(kind=kind, id=_ID), reading=reading, happened_at=_WHEN)
        for kind, reading in [*parts, *jotted]
    ]
    return fold(as_entries(drafts, now=_WHEN), rig=_ID)


def rig(said: Iterable[str] = RECURVE) -> Computed:
    """Return the numbers of one rig from jot lines.

    >>> round(rig().bow.weight.weight.value, 1)
    46.2
    """
    return compute(setup(said))
