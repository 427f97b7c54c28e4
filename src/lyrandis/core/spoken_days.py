"""Days the way they are said: yesterday, on 20 nov, last sunday."""

import re
from datetime import date, timedelta
from typing import NamedTuple

_MONTHS = (
    "january", "february", "march", "april", "may", "june", "july", "august", "september",
    "october", "november", "december",
)  # fmt: skip
_WEEKDAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
_MONTH = rf"(?:{'|'.join(_MONTHS)}|{'|'.join(month[:3] for month in _MONTHS)}|sept)\b\.?"
_DAY = r"\d{1,2}(?:st|nd|rd|th)?"
_SAID = re.compile(
    rf"""\b(?:on\s+|from\s+)?(?:
        (?P<near>today|the\ day\ before\ yesterday|day\ before\ yesterday|yesterday)
      | (?P<ago>\d{{1,2}})\s+days?\s+ago
      | (?:last\s+)?(?P<weekday>{"|".join(_WEEKDAYS)})
      | (?P<iso>\d{{4}}-\d\d-\d\d)
      | (?:the\s+)?(?P<day>{_DAY})\s+(?:of\s+)?(?P<month>{_MONTH})(?:\s+(?P<year>\d{{4}}))?
      | (?P<month2>{_MONTH})\s+(?P<day2>{_DAY})(?:,?\s+(?P<year2>\d{{4}}))?
    )(?=\s|$|[,;:?])""",
    re.IGNORECASE | re.VERBOSE,
)
_NEAR = {"today": 0, "yesterday": 1, "the day before yesterday": 2, "day before yesterday": 2}


class SaidDay(NamedTuple):
    """A day that stands in a line, and where."""

    day: date
    start: int
    end: int


def day_in(text: str, today: date) -> SaidDay | None:
    """Return the first day that is said in a line; one without a year is the last such day.

    >>> day_in("brace 7 1/2 on 20 nov", date(2026, 11, 25))
    SaidDay(day=datetime.date(2026, 11, 20), start=12, end=21)
    >>> day_in("yesterday draw 27", date(2026, 3, 1)).day
    datetime.date(2026, 2, 28)
    """
    for match in _SAID.finditer(text):
        day = _day(match, today)
        if day is not None:
            return SaidDay(day, match.start(), match.end())
    return None


def _day(match: re.Match[str], today: date) -> date | None:
    said = match.groupdict()
    if said["near"]:
        return today - timedelta(days=_NEAR[said["near"].lower()])
    if said["ago"]:
        return today - timedelta(days=int(said["ago"]))
    if said["weekday"]:
        back = (today.weekday() - _WEEKDAYS.index(said["weekday"].lower())) % 7
        return today - timedelta(days=back or 7)
    try:
        if said["iso"]:
            return date.fromisoformat(said["iso"])
        return _of_month(
            said["day"] or said["day2"],
            said["month"] or said["month2"],
            said["year"] or said["year2"],
            today,
        )
    except ValueError:
        return None


def _of_month(day: str, month: str, year: str | None, today: date) -> date:
    number = next(i for i, name in enumerate(_MONTHS, 1) if name[:3] == month[:3].lower())
    in_month = int(re.sub(r"\D", "", day))
    if year:
        return date(int(year), number, in_month)
    this_year = date(today.year, number, in_month)
    return this_year if this_year <= today else date(today.year - 1, number, in_month)
