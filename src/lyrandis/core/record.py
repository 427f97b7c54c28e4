"""Turning offered entries into recorded ones, purely: the clock and the order are given."""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta

from lyrandis.core import entries as e
from lyrandis.core.errors import DomainError
from lyrandis.core.pile import in_order, parts_fitted

FUTURE_ALLOWED = timedelta(minutes=5)
"""Clocks differ a little; anything later has not happened yet."""


EARLIEST_YEAR = 1900


def check_instant(happened_at: datetime, now: datetime) -> None:
    """Raise `DomainError` for an entry that has not happened yet, or never can have."""
    if happened_at.year < EARLIEST_YEAR:
        raise DomainError(
            "too_long_ago",
            f"The year {happened_at.year} is before anybody here drew a bow.",
            "Check the year.",
            "happened_at",
        )
    if happened_at > now + FUTURE_ALLOWED:
        raise DomainError(
            "in_the_future",
            f"{happened_at:%d %B %Y %H:%M} has not happened yet.",
            "Give the day it was measured, today at the latest.",
            "happened_at",
        )


def recorded(
    draft: e.EntryDraft,
    *,
    entry_id: str,
    seq: int,
    now: datetime,
    fitted: e.Fitted | None = None,
) -> e.Entry:
    """Return the draft as an entry: unnamed source and time take their defaults."""
    recorded_at = getattr(draft, "recorded_at", None) or now
    return e.Entry(
        subject=draft.subject,
        reading=draft.reading,
        note=draft.note,
        as_typed=draft.as_typed,
        id=entry_id,
        seq=seq,
        source=draft.source or draft.reading.by,
        happened_at=draft.happened_at or recorded_at,
        recorded_at=recorded_at,
        fitted=fitted or getattr(draft, "fitted", None),
    )


def as_entries(drafts: Sequence[e.EntryDraft], *, now: datetime, after: int = 0) -> list[e.Entry]:
    """Return a posted list as entries, ordered behind `after`, without storing anything."""
    return [
        recorded(
            draft,
            entry_id=draft.id or f"posted-{after + index}",
            seq=getattr(draft, "seq", None) or after + index,
            now=now,
        )
        for index, draft in enumerate(drafts, start=1)
    ]


def fitted_at(entries: Iterable[e.Entry], rig: str, at: datetime) -> e.Fitted:
    """Return the parts on the rig at an instant, from its standing entries."""
    return parts_fitted(in_order(entry for entry in entries if entry.happened_at <= at), rig)
