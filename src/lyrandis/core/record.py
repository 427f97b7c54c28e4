"""Turning offered entries into recorded ones, purely: the clock and the order are given."""

from bisect import bisect_right
from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.effective import in_order, when
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import Fitted

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
    fitted: Fitted | None = None,
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


class Fittings:
    """The parts on a rig as they changed, asked what was on it at an instant.

    Holds the standing `part_fitted` entries of one rig.
    """

    def __init__(self, entries: Iterable[e.Entry] = ()) -> None:
        self._entries = in_order(entries)
        self._after: list[Fitted] = [Fitted()]
        """What was on the rig after so many of them, as far as it was asked for."""

    def add(self, entry: e.Entry) -> None:
        """Take in one more fitting, wherever it stands in the order."""
        place = bisect_right(self._entries, when(entry), key=when)
        self._entries.insert(place, entry)
        del self._after[place + 1 :]

    def at(self, instant: datetime) -> Fitted:
        """Return the parts on the rig at an instant."""
        count = bisect_right(self._entries, instant, key=lambda entry: entry.happened_at)
        for entry in self._entries[len(self._after) - 1 : count]:
            fitted, reading = self._after[-1], entry.reading
            if isinstance(reading, PartFitted):
                fitted = fitted.model_copy(update={reading.part: reading.part_id})
            self._after.append(fitted)
        return self._after[count]
