"""Reading numbers and units the way archers write them: `27 3/8`, `27⅜`, `27.375"`, `69.5cm`."""

import difflib
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import NamedTuple, TypeVar

from lyrandis.core.errors import Code, DomainError, Guess, Understood
from lyrandis.core.quantities import check, within
from lyrandis.core.units import (
    DISTANCE_UNITS_M,
    FORCE_UNITS_LBF,
    GPI_UNITS,
    GPP_UNITS,
    LENGTH_UNITS_MM,
    MASS_UNITS_GR,
    SPEED_UNITS_MPS,
    SPINE_UNITS,
    YARDS,
    UnitSet,
)

_VULGAR = {
    "½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
    "⅓": "1/3", "⅔": "2/3",
}  # fmt: skip
_SPOKEN = {
    "a half": "1/2", "half": "1/2", "a quarter": "1/4", "one quarter": "1/4",
    "three quarters": "3/4", "an eighth": "1/8", "one eighth": "1/8", "three eighths": "3/8",
    "five eighths": "5/8", "seven eighths": "7/8",
}  # fmt: skip
_FRACTION = rf"(?:\d+\s*[/⁄]\s*\d+|[{''.join(_VULGAR)}])"
_AND = rf"\d+\s+and\s+(?:{'|'.join(map(re.escape, _SPOKEN))})\b"
_MIXED = rf"\d+(?:[\s-]*(?=[{''.join(_VULGAR)}])|[\s-]+(?=\d+\s*[/⁄]))?{_FRACTION}"
_NUMBER = re.compile(
    rf"[-+−]?(?:{_AND}|{_MIXED}|{_FRACTION}|\d+(?:[.,]\d+)?|[.,]\d+)", re.IGNORECASE
)
_WRITTEN_FRACTION = re.compile(rf"[/⁄{''.join(_VULGAR)}]|\band\b", re.IGNORECASE)
LONGEST_LINE = 400
"""A longer line is no reading; checked before any pattern runs over it."""
_TOKEN = re.compile(
    rf"(?P<number>{_NUMBER.pattern})|(?P<at>@)|(?P<word>gr/in|gr/lb|ft/s|m/s|km/h|[^\W\d_]+|[\"″”'#]+)|(?P<other>\S)",
    re.IGNORECASE,
)
_UNITS: dict[str, dict[str, float]] = {
    "length": LENGTH_UNITS_MM,
    "force": FORCE_UNITS_LBF,
    "mass": MASS_UNITS_GR,
    "grains per pound": GPP_UNITS,
    "grains per inch": GPI_UNITS,
    "speed": SPEED_UNITS_MPS,
    "spine": SPINE_UNITS,
}
_EXAMPLES = {
    "length": '27 3/8, 27⅜, 27.375" or 69.5cm',
    "force": "36.2, 36.2 lb or 161 N",
    "mass": "431, 431gr or 27.9g",
    "grains per pound": "9 gpp",
    "grains per inch": "9.2 gpi",
    "speed": "168 fps or 51.2 m/s",
    "spine": "500 or 63 lb",
}
_METRIC_EXAMPLES = {
    **_EXAMPLES,
    "length": "69.5, 69.5cm or 695mm",
    "force": "36.2 lb, 161 N or 16.4 kg",
    "mass": "27.9, 27.9g or 431gr",
    "speed": "51.2 m/s",
}
_EXAMPLES_IN: dict[UnitSet, dict[str, str]] = {
    "inch": _EXAMPLES,
    "centimetre": {**_EXAMPLES, "length": _METRIC_EXAMPLES["length"]},
    "metric": _METRIC_EXAMPLES,
}
_BARE: dict[UnitSet, dict[str, str]] = {
    "inch": {"length": "in", "force": "lb", "mass": "gr"},
    "centimetre": {"length": "cm", "force": "lb", "mass": "gr"},
    "metric": {"length": "cm", "force": "n", "mass": "g"},
}
"""What a number without a unit is taken for: the unit the reader's fields show."""
POUNDS = (8.0, 120.0)
"""A bow's weight without a unit is pounds in every unit set where it lies between: marks and scales
say pounds, and no bow of so many newtons is shot."""
_FEET = frozenset({"ft", "foot", "feet", "'"})
_INCHES = frozenset({"in", "inch", "inches", '"', "″", "”", "''"})

T = TypeVar("T")


def first_words(options: Mapping[str, T]) -> list[str]:
    """Return one spelling per choice: the first one listed.

    >>> first_words({"chin": 1, "under chin": 1, "corner": 2})
    ['chin', 'corner']
    """
    spelling: dict[T, str] = {}
    for word, choice in options.items():
        spelling.setdefault(choice, word)
    return list(spelling.values())


@dataclass(frozen=True)
class Token:
    """One word, number or sign of the line, and where it stands."""

    kind: str
    text: str
    start: int
    end: int


@dataclass(frozen=True)
class Measure:
    """A number with the unit typed behind it, if any."""

    number: float
    unit: str | None
    start: int
    end: int
    fraction: bool = False
    """True for a fraction without a unit: those are inches everywhere."""

    @property
    def kinds(self) -> tuple[str, ...]:
        """Kinds of quantity the typed unit belongs to; all of them when none was typed."""
        if self.unit is None:
            return tuple(_UNITS)
        return tuple(kind for kind, units in _UNITS.items() if self.unit in units)


def number_from(text: str) -> float:
    """Return the value of a number as written.

    Raises `DomainError` for a fraction over zero.

    >>> number_from("27 3/8"), number_from("27 ⅜"), number_from("-½"), number_from("27,5")
    (27.375, 27.375, -0.5, 27.5)
    >>> number_from("27 and a half")
    27.5
    """
    negative = text[0] in "-−"
    whole, _, spoken = text.lower().partition(" and ")
    if spoken:
        text = f"{whole} {_SPOKEN.get(' '.join(spoken.split()), spoken)}"
    for sign, written in _VULGAR.items():
        text = text.replace(sign, f" {written}")
    text = text.lstrip("+-−").replace("⁄", "/").replace(",", ".")
    text = re.sub(r"\s*/\s*", "/", text)
    try:
        total = sum((Fraction(part) for part in re.split(r"[\s-]+", text.strip())), Fraction(0))
        return -float(total) if negative else float(total)
    except (ZeroDivisionError, OverflowError):
        raise DomainError(
            "not_a_number", f"“{text.strip()}” is not a number.", "Type a plain number or fraction."
        ) from None


def tokens(text: str) -> list[Token]:
    """Split a line into words, numbers and signs with their places."""
    result = []
    for match in _TOKEN.finditer(text):
        kind = match.lastgroup or "other"
        result.append(Token(kind, match.group(), match.start(), match.end()))
    return result


class Distance(NamedTuple):
    """A distance that is shot, and whether it was said in yards."""

    metres: float
    in_yards: bool


_LENGTH = r"(\d+(?:[.,]\d+)?(?: \d+/\d+)?)(?![\d/.,])"
_LENGTH_SPAN = re.compile(
    rf"{_LENGTH}\s*(?:-|–|to|or)\s*{_LENGTH}(?:\s*(in|inch|inches|cm|mm|\"|″|”)(?!\w))?",
    re.IGNORECASE,
)
_SPAN = re.compile(r"(\d{2,3})\s*(?:[-–/]|to)\s*(\d{2,3})(?![\d.])")
"""Two whole numbers that name a group."""


class Line:
    """A jot line read from left to right; every error points at its word."""

    def __init__(
        self,
        text: str,
        units: UnitSet = "inch",
        parts: Sequence[tuple[str, str, str]] = (),
        brace_datum: str | None = None,
    ) -> None:
        """`units` are the reader's: they say what a number without a unit is.

        `parts` are kind, id and name of what could be fitted; `brace_datum` is where this rig's
        brace was read to last.
        """
        if len(text) > LONGEST_LINE:
            raise DomainError(
                "too_much", "That is too long for one reading.", "Put the rest in a note."
            )
        self.text = text
        self.units: UnitSet = units
        self.parts = parts
        self.brace_datum = brace_datum
        self.understood: list[Understood] = []
        """What was taken for something its reader may not expect."""
        self._tokens = tokens(text)
        self._next = 0

    @property
    def done(self) -> bool:
        return self._next >= len(self._tokens)

    def peek(self) -> Token | None:
        return None if self.done else self._tokens[self._next]

    def take(self) -> Token:
        token = self._tokens[self._next]
        self._next += 1
        return token

    def take_span(self) -> tuple[float, float] | None:
        """Take a group of two whole numbers a few apart, 50-55, 50/55 or 50 to 55, else nothing."""
        rest = self._tokens[self._next :]
        if not rest:
            return None
        found = _SPAN.match(self.text, rest[0].start)
        if found is None:
            return None
        while not self.done and self._tokens[self._next].start < found.end():
            self._next += 1
        return float(found[1]), float(found[2])

    def length_span(self, key: str) -> tuple[float, float] | None:
        """Take two lengths with the unit behind the second, `27 to 28`, `70-72cm`, else nothing.

        >>> Line("27 1/2 to 28").length_span("draw_length")
        (698.5, 711.2)
        """
        token = self.peek()
        found = token and _LENGTH_SPAN.match(self.text, token.start)
        if not found:
            return None
        unit = found[3] or ""
        ends = [Line(f"{found[end]} {unit}", self.units).length(key) for end in (1, 2)]
        while not self.done and self._tokens[self._next].start < found.end():
            self._next += 1
        return min(ends), max(ends)

    def take_word(self, *wanted: str) -> bool:
        """Step over the next token if it is one of the wanted words."""
        token = self.peek()
        if token is None or token.text.lower() not in wanted:
            return False
        self._next += 1
        return True

    def after_next(self) -> Token | None:
        """Return the token behind the next one."""
        behind = self._tokens[self._next + 1 : self._next + 2]
        return behind[0] if behind else None

    def rest(self) -> str:
        """Take everything that is left, as written."""
        token = self.peek()
        self._next = len(self._tokens)
        return "" if token is None else self.text[token.start :].strip()

    def measure(self, kind: str) -> Measure:
        """Take a number and the unit behind it."""
        token = self.peek()
        if token is None:
            raise self.error(
                "missing_number",
                "A number is missing here.",
                f"Type {_EXAMPLES_IN[self.units][kind]}.",
            )
        if token.kind != "number":
            raise self.error(
                "not_a_number",
                f"“{token.text}” is not a number.",
                f"Type {_EXAMPLES_IN[self.units][kind]}.",
            )
        self.take()
        try:
            number = number_from(token.text)
        except DomainError as error:
            error.span = (token.start, token.end)
            raise
        unit, end = self._unit(token.end)
        if unit in _FEET and kind == "length":
            inches, end = self._inches(end)
            number += inches / 12
        fraction = unit is None and bool(_WRITTEN_FRACTION.search(token.text))
        return Measure(number, unit, token.start, end, fraction)

    def _inches(self, end: int) -> tuple[float, int]:
        """Take the inches behind a number of feet: `5 ft 4`, `5'4"`."""
        token = self.peek()
        if token is None or token.kind != "number" or not 0 <= number_from(token.text) < 12:
            return 0.0, end
        self.take()
        behind = self.peek()
        if behind is not None and behind.text.lower() in _INCHES:
            self.take()
            return number_from(token.text), behind.end
        return number_from(token.text), token.end

    def _unit(self, end: int) -> tuple[str | None, int]:
        token = self.peek()
        if token is None or token.kind != "word":
            return None, end
        unit = token.text.lower()
        if any(unit in units for units in _UNITS.values()):
            self.take()
            return unit, token.end
        return None, end

    def length(self, key: str) -> float:
        """Take a length and return mm; bare numbers are in the reader's unit, fractions inches."""
        return self._quantity("length", _BARE[self.units]["length"], key)

    def distance(self, example: str = "20m or 20yd") -> Distance:
        """Take a distance; a bare number is metres where the reader has metres, else it is asked.

        >>> Line("3 paces").distance(), Line("20yd").distance()
        (Distance(metres=2.28, in_yards=False), Distance(metres=18.288, in_yards=True))
        """
        token = self.peek()
        if token is None or token.kind != "number":
            raise self.error(
                "missing_number", "The distance is missing.", f"Add it, e.g. {example}."
            )
        self.take()
        number = number_from(token.text)
        unit = self.peek()
        word = unit.text.lower() if unit else ""
        if word in DISTANCE_UNITS_M:
            self.take()
            return Distance(round(number * DISTANCE_UNITS_M[word], 4), word in YARDS)
        if self.units != "inch":
            return Distance(number, in_yards=False)
        head, rest = self.text[: token.end], self.text[token.end :]
        raise DomainError(
            "wrong_unit",
            f"{token.text} metres, yards or paces?",
            "Add the unit of the distance.",
            guesses=tuple(
                Guess(f"{head}{short}{rest}", f"{token.text} {word}?")
                for short, word in (("m", "metres"), ("yd", "yards"), (" paces", "paces"))
            ),
            span=(token.start, token.end),
        )

    def weight(self, key: str = "draw_weight") -> float:
        """Take a force and return lbf; a bare number that can be so many pounds is."""
        return self._quantity("force", _BARE[self.units]["force"], key)

    def mass(self, key: str = "arrow_mass") -> float:
        """Take a mass and return grains; bare numbers are in the reader's unit."""
        return self._quantity("mass", _BARE[self.units]["mass"], key)

    def small(self, key: str, *, inches_below: float = 0.0) -> float:
        """Take a small length and return mm; bare numbers are mm, or inches if so small.

        Fractions are inches.
        """
        token = self.peek()
        inches = (
            token is not None and token.kind == "number" and number_from(token.text) < inches_below
        )
        return self._quantity("length", "in" if inches else "mm", key)

    def degrees(self, key: str) -> float:
        """Take an angle in degrees."""
        token = self.peek()
        if token is None or token.kind != "number":
            raise self.error("not_a_number", "An angle is missing here.", "Type degrees, e.g. 180.")
        self.take()
        self.take_word("deg", "degrees", "°")
        try:
            return check(key, number_from(token.text))
        except DomainError as error:
            error.span = (token.start, token.end)
            raise

    def per_inch(self) -> float:
        """Take a shaft mass per inch and return grains per inch."""
        return self._quantity("grains per inch", "gpi", "shaft_grains_per_inch")

    def speed(self) -> float:
        """Take a speed and return m/s; a bare number of 80 or more is feet per second."""
        token = self.peek()
        feet = token is not None and token.kind == "number" and number_from(token.text) >= 80
        feet = feet and self.units != "metric"
        return self._quantity("speed", "fps" if feet else "m/s", "arrow_speed")

    def _quantity(self, kind: str, bare: str, key: str) -> float:
        measure = self.measure(kind)
        if measure.fraction and kind == "length":
            bare = "in"
        if measure.unit is None and bare == "n" and within(measure.number, *POUNDS):
            bare = "lb"
            self.understood.append(Understood(measure.start, measure.end, "pounds"))
        factor = _UNITS[kind].get(measure.unit or bare)
        if factor is None:
            raise DomainError(
                "wrong_unit",
                f"“{measure.unit}” is not a unit of {kind}.",
                f"Type {_EXAMPLES_IN[self.units][kind]}.",
                span=(measure.start, measure.end),
            )
        try:
            return check(key, round(measure.number * factor, 6))
        except DomainError as error:
            error.span = (measure.start, measure.end)
            raise

    def whole(self, name: str, low: int, high: int) -> int:
        """Take a whole number between `low` and `high`."""
        token = self.peek()
        if token is None or not token.text.isdecimal() or not low <= int(token.text) <= high:
            raise self.error(
                "out_of_range",
                f"The {name} is missing or wrong.",
                f"Type a whole number, {low} to {high}.",
            )
        self.take()
        return int(token.text)

    def choice(self, options: Mapping[str, T]) -> T:
        """Take the rest as one of several spellings, or raise with the nearest ones."""
        start = self.peek()
        said = self.rest().lower().replace("-", " ").replace("_", " ")
        if said in options:
            return options[said]
        near = difflib.get_close_matches(said, options, n=2, cutoff=0.5)
        head = self.text[: start.start] if start else self.text.rstrip() + " "
        raise DomainError(
            "unknown_choice" if said else "missing_choice",
            f"“{said}” is not one of the choices." if said else "The choice is missing.",
            "Type one of: " + ", ".join(first_words(options)) + ".",
            guesses=tuple(Guess(head + word, f"Did you mean “{word}”?") for word in near),
            span=(start.start if start else len(self.text), len(self.text)),
        )

    def end(self) -> None:
        """Raise unless everything has been read."""
        token = self.peek()
        if token is not None:
            raise self.error(
                "too_much",
                f"“{self.text[token.start :].strip()}” is left over.",
                "Take it out, or put it in a note.",
            )

    def error(self, code: Code, reason: str, instruction: str) -> DomainError:
        """Make an error that points at the next token, or behind the last one."""
        token = self.peek()
        place = (token.start, token.end) if token else (len(self.text), len(self.text))
        return DomainError(code, reason, instruction, span=place)
