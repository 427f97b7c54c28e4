"""A typed line as words and numbers with their units, each with its place in the text."""

import re
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import NamedTuple

from lyrandis.core.hearing.writing import (
    FEET,
    INCHES,
    ONES,
    PARTS_OF_ONE,
    SAME,
    SHORT_FORM,
    SPOKEN_UNITS,
    TENS,
    TOKEN,
    VULGAR,
)

_MOST = 1e12
"""Nothing at a bench is so large: more figures than that are not counted on."""
UNSAYABLE = "\0"
"""What stands for a number that no phrase can hold."""
_NOT_UNITS_BEFORE = frozenset({"the", "it", "my", "all", "now"})
"""Behind a number, “in the string” is no inch."""
_YARDS_HOURS_INCHES = frozenset({"in", "y", "h"})
_NUMBERING = frozenset({"no", "nr", "#"})
_LONGEST_NUMBERING = 3


@dataclass(frozen=True, slots=True)
class Amount:
    """A number: its unit if one was said, its sign if one was written."""

    value: float
    unit: str | None
    sign: str
    fraction: bool
    text: str

    @property
    def signed(self) -> float:
        return -self.value if self.sign == "-" else self.value


@dataclass(frozen=True, slots=True)
class Item:
    """A word, or a number with its unit, and where it stands.

    `word` of a number is how a phrase would say it: “3”, “3 fingers”.
    """

    word: str
    amount: Amount | None
    start: int
    end: int


class _Token(NamedTuple):
    number: bool
    text: str
    start: int
    end: int


class _Value(NamedTuple):
    """A value that begins at a token, the token behind it, and whether it is a fraction."""

    value: float
    behind: int
    fraction: bool


def written_number(text: str) -> float:
    """Return the value of a number in figures.

    >>> written_number("27 3/8"), written_number("27-⅜"), written_number("27,5")
    (27.375, 27.375, 27.5)
    """
    for sign, plain in VULGAR.items():
        text = text.replace(sign, f" {plain}")
    total = 0.0
    for part in re.split(r"[ -]+", text.strip().replace("⁄", "/").replace(",", ".")):
        above, _, below = part.partition("/")
        total += float(above) / float(below) if below else float(above)
    return min(total, _MOST)


def _tokens(text: str) -> list[_Token]:
    result = []
    for match in TOKEN.finditer(text):
        said = match.group().lower()
        number = match["number"] is not None
        if not number:
            said = said.replace("’", "'")
            said = SAME.get(said, said)
            said = SHORT_FORM.sub("", said) if len(said) > 2 else said
        result.append(_Token(number, said, match.start(), match.end()))
    return result


def items_of(text: str) -> tuple[Item, ...]:
    """Split a line into words and numbers with their units.

    Number words, feet with inches and metres with centimetres are joined.

    >>> [(item.word, item.amount and item.amount.value) for item in items_of("hook: half an inch")]
    [('hook', None), (':', None), ('0.5 inch', 0.5)]
    >>> items_of("five foot ten")[0].amount.text, items_of("5'10\\"")[0].amount.value
    ('five foot ten', 70.0)
    """
    return _Reader(text).items()


class _Reader:
    """Reads the tokens of a line from left to right."""

    def __init__(self, text: str) -> None:
        self._text = text
        self._tokens = _tokens(text)
        self._items: list[Item] = []

    def items(self) -> tuple[Item, ...]:
        at = 0
        while at < len(self._tokens):
            behind = self._take_amount(at)
            at = self._take_word(at) if behind is None else behind
        self._carry_units_back()
        return tuple(self._items)

    def _word(self, at: int) -> str:
        """Return the word at a place, or nothing where a number stands or the line ends."""
        if 0 <= at < len(self._tokens) and not self._tokens[at].number:
            return self._tokens[at].text
        return ""

    def _is_number(self, at: int) -> bool:
        return 0 <= at < len(self._tokens) and self._tokens[at].number

    # words

    def _take_word(self, at: int) -> int:
        token = self._tokens[at]
        if token.text == "-":
            if self._is_number(at - 1) and self._is_number(at + 1):
                self._items.append(Item("to", None, token.start, token.end))
            return at + 1
        word = "number" if self._numbers(at) else token.text
        self._items.append(Item(word, None, token.start, token.end))
        return at + 1

    def _numbers(self, at: int) -> bool:
        """Return whether “no”, “nr” or “#” stands for “number”: before a short whole number."""
        said = self._word(at)
        if said == "no" and self._word(at + 1) == "." and self._is_number(at + 2):
            return True
        if said not in _NUMBERING or not self._is_number(at + 1):
            return False
        number = self._tokens[at + 1].text
        unit = self._word(at + 2)
        short = number.isdigit() and len(number) <= _LONGEST_NUMBERING
        return short and (unit not in SPOKEN_UNITS or unit == "#")

    # numbers

    def _take_amount(self, at: int) -> int | None:
        """Take a number with its unit; return the token behind it, or None where there is none."""
        start, sign = at, self._sign(at)
        if sign:
            at += 1
        found = self._value(at)
        if found is None:
            return None
        value, behind, fraction = found
        if not fraction:
            value, behind, fraction = self._and_a_part(value, behind, fraction)
        value, unit, behind, fraction = self._unit(value, behind, fraction)
        first, last = self._tokens[start], self._tokens[behind - 1]
        text = self._text[first.start : last.end]
        amount = Amount(value, unit, sign, fraction, text)
        self._items.append(Item(_sayable(amount), amount, first.start, last.end))
        return behind

    def _sign(self, at: int) -> str:
        """Return a + or - glued to the number behind it; - only after a blank."""
        said = self._word(at)
        if said not in ("+", "-") or not self._is_number(at + 1):
            return ""
        token = self._tokens[at]
        glued = self._tokens[at + 1].start == token.end
        free = said == "+" or token.start == 0 or self._text[token.start - 1].isspace()
        return said if glued and free else ""

    def _value(self, at: int) -> _Value | None:
        if self._is_number(at):
            text = self._tokens[at].text
            fraction = "/" in text or "⁄" in text or any(sign in text for sign in VULGAR)
            return _Value(written_number(text), at + 1, fraction)
        spoken = self._spoken(at)
        if spoken is not None:
            return spoken
        said = self._word(at)
        if said in PARTS_OF_ONE or (said in ("a", "an") and self._word(at + 1) in PARTS_OF_ONE):
            part = self._part(at)
            return part and part._replace(fraction=part.value < 1)
        if said in ("a", "an") and self._word(at + 1) in _ONE_OF:
            return _Value(1.0, at + 1, False)
        return None

    def _spoken(self, at: int) -> _Value | None:
        """Read number words: “one twenty five”, “four hundred and thirty”, “three quarters”."""
        total, start = 0.0, at
        while True:
            said = self._word(at)
            size = ONES.get(said, TENS.get(said))
            if size is not None:
                joined = _joined(total, size, said, at > start)
                if joined is None:
                    break
                total, at = joined, at + 1
                if self._word(at) == "-" and self._word(at + 1) in ONES:
                    at += 1
            elif said in ("dozen", "hundred") and at > start:
                total, at = total * (12 if said == "dozen" else 100), at + 1
                if self._word(at) == "and" and self._word(at + 1) in {**ONES, **TENS}:
                    at += 1
            else:
                break
        if at == start:
            return None
        part = self._word(at)
        if part in PARTS_OF_ONE and part != "half":
            return _Value(total * PARTS_OF_ONE[part], at + 1, True)
        return _Value(total, at, False)

    def _part(self, at: int) -> _Value | None:
        """Read a part of one: “a half”, “three quarters”; or half a dozen."""
        if self._word(at) in ("a", "an", "one"):
            at += 1
        article = self._word(at + 1) == "a"
        if self._word(at) == "half" and self._word(at + 1 + article) == "dozen":
            return _Value(6.0, at + 2 + article, False)
        said = self._word(at)
        if said in PARTS_OF_ONE and self._word(at + 1) not in ("round", "out", "way"):
            return _Value(PARTS_OF_ONE[said], at + 1, True)
        spoken = self._spoken(at)
        return spoken if spoken is not None and spoken.fraction else None

    def _and_a_part(self, value: float, behind: int, fraction: bool) -> _Value:
        if self._word(behind) == "and":
            part = self._part(behind + 1)
            if part is not None and part.fraction:
                return _Value(value + part.value, part.behind, True)
        return _Value(value, behind, fraction)

    # units

    def _unit(
        self, value: float, behind: int, fraction: bool
    ) -> tuple[float, str | None, int, bool]:
        """Take the unit behind a number, and what of it is said behind the unit."""
        at = behind
        if self._word(at) == "-" and self._word(at + 1) in SPOKEN_UNITS:
            at += 1  # 28-inch
        if fraction and self._word(at) in ("a", "an") and self._word(at + 1) in SPOKEN_UNITS:
            at += 1  # half an inch
        unit = self._word(at)
        if unit not in SPOKEN_UNITS or self._belongs_to_what_follows(unit, at):
            return value, None, behind, fraction
        behind = at + 1
        if unit in ("gr", "grain", "grains") and self._word(behind) == "per":
            per_inch = self._word(behind + 1) in ("inch", "in")
            if per_inch or self._word(behind + 1) in ("pound", "lb"):
                return value, "gpi" if per_inch else "gpp", behind + 2, fraction
        if unit in FEET:
            return self._feet(value, unit, behind, fraction)
        if unit == "m" and self._is_centimetres(behind):
            return value + float(self._tokens[behind].text) / 100, unit, behind + 1, fraction
        if not fraction:
            value, behind, fraction = self._and_a_part(value, behind, fraction)
        return value, unit, behind, fraction

    def _belongs_to_what_follows(self, unit: str, at: int) -> bool:
        """Return whether a unit is none here: in the string; shock 3 4 3 turns 34."""
        if unit in _YARDS_HOURS_INCHES and self._word(at + 1) in _NOT_UNITS_BEFORE:
            return True
        if unit in ("arrow", "arrows"):
            return self._is_number(at + 1)  # turned 180 arrow 4
        counts = unit in ("turns", "twists") and self._is_number(at + 1)
        return counts and bool(self._items) and self._items[-1].amount is not None

    def _is_centimetres(self, at: int) -> bool:
        """Return whether two figures stand glued behind the m: 1m78."""
        if not self._is_number(at):
            return False
        token = self._tokens[at]
        glued = token.start == self._tokens[at - 1].end
        return glued and token.text.isdigit() and len(token.text) == 2

    def _feet(
        self, feet: float, unit: str, behind: int, fraction: bool
    ) -> tuple[float, str | None, int, bool]:
        """Take the inches behind feet, “five foot ten”; or feet per second."""
        if self._word(behind) == "per":
            return feet, "fps", behind + 2, fraction
        inches = (
            _Value(written_number(self._tokens[behind].text), behind + 1, False)
            if self._is_number(behind)
            else self._spoken(behind)
        )
        if inches is None or inches.value >= 12:
            return feet, unit, behind, fraction
        named = self._word(inches.behind)
        if named in SPOKEN_UNITS and named not in INCHES:
            return feet, unit, behind, fraction
        return feet * 12 + inches.value, "in", inches.behind + (named in INCHES), fraction

    def _carry_units_back(self) -> None:
        """Give the unit behind a range or a pair to both: 7 to 8 inches, 38/40 lb."""
        for at in range(2, len(self._items)):
            first, sign, last = self._items[at - 2 : at + 1]
            if first.amount is None or last.amount is None or first.amount.unit is not None:
                continue
            if last.amount.unit is not None and sign.word in ("to", "/"):
                unit = last.amount.unit
                amount = replace(first.amount, unit=unit, text=f"{first.amount.text} {unit}")
                self._items[at - 2] = replace(first, word=_sayable(amount), amount=amount)


_ONE_OF = frozenset({"inch", "foot", "yard", "finger", "turn", "twist", "pace"})
"""What there is one of behind “a”."""


def _joined(total: float, size: int, said: str, begun: bool) -> float | None:
    """Return a number with one more word of it; None where the word begins another number."""
    if not begun:
        return float(size)
    if said in TENS and 0 < total < 10:
        return total * 100 + size  # one twenty five
    if total and (total % 100 == 0 or (total % 10 == 0 and size < 10)):
        return total + size
    return None


def _sayable(amount: Amount) -> str:
    if amount.unit is not None:
        return f"{amount.value:g} {amount.unit}"
    whole = amount.value == int(amount.value) and not amount.sign
    return str(int(amount.value)) if whole else UNSAYABLE


@lru_cache(maxsize=8192)
def words_of(phrase: str) -> tuple[str, ...]:
    """Return the words of a phrase of the table, as a line would hold them.

    >>> words_of("one over two under")
    ('1', 'over', '2', 'under')
    """
    return tuple(item.word for item in items_of(phrase))
