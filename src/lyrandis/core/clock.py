"""What a computer's clock says beside the record: a wrong hour puts entries out of order."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from pydantic import AwareDatetime

from lyrandis.core import entries as e
from lyrandis.core.drawn import Drawn
from lyrandis.core.phrase import Phrase
from lyrandis.core.reading import Subject
from lyrandis.core.record import FUTURE_ALLOWED

MOST_FUTURE_NAMED = 5
LONG_AGO = timedelta(days=1)


class FutureEntry(Drawn):
    """An entry that has not happened yet by this computer's clock."""

    id: str
    subject: Subject
    says: Phrase
    happened_at: AwareDatetime


class ClockCheck(Drawn):
    """The clock beside the newest entry, looked at before something is recorded."""

    now: AwareDatetime
    newest: AwareDatetime | None
    """When the last entry was recorded; None on an empty bench."""
    behind: bool
    """The clock stands before it."""
    long_ago: bool
    """The clock stands more than a day behind it: right after a rest, wrong after a slip."""
    future_count: int
    future: tuple[FutureEntry, ...]
    """The first of those that lie in the future."""


def check_clock(
    now: datetime, newest: datetime | None, future: Sequence[e.Entry], future_count: int
) -> ClockCheck:
    """Return what the clock is beside the record.

    Assumption: clocks differ by five minutes at the most; more is said.

    >>> from datetime import UTC
    >>> noon = datetime(2026, 3, 1, 12, tzinfo=UTC)
    >>> found = check_clock(noon, noon + timedelta(hours=1), (), 0)
    >>> found.behind, found.long_ago
    (True, False)
    """
    return ClockCheck(
        now=now,
        newest=newest,
        behind=newest is not None and now + FUTURE_ALLOWED < newest,
        long_ago=newest is not None and now > newest + LONG_AGO,
        future_count=future_count,
        future=tuple(
            FutureEntry(
                id=entry.id,
                subject=entry.subject,
                says=entry.reading.say(),
                happened_at=entry.happened_at,
            )
            for entry in future[:MOST_FUTURE_NAMED]
        ),
    )
