"""Sentences with figures in them, so that a page can say them in the archer's units."""

import math
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import lru_cache
from string import Formatter
from typing import Any

from lyrandis.core.constants import M_PER_FT, MM_PER_IN
from lyrandis.core.units import Unit, UnitSet, say


@dataclass(frozen=True, slots=True)
class Figure:
    """A number with its unit and, where it is uncertain, its ± (two standard deviations)."""

    value: float
    unit: Unit
    plus_minus: float | None = None

    def __post_init__(self) -> None:
        if not math.isfinite(self.value + (self.plus_minus or 0.0)):
            raise ValueError(f"{self.value} ± {self.plus_minus} {self.unit} is no figure")
        # ten digits: more is noise, and 695.3249999999999 is 695.325
        object.__setattr__(self, "value", float(f"{self.value:.10g}"))
        if self.plus_minus is not None:
            object.__setattr__(self, "plus_minus", float(f"{self.plus_minus:.6g}"))

    def text(self, units: UnitSet = "inch") -> str:
        return say(self.value, self.unit, self.plus_minus, units=units)


@dataclass(frozen=True, slots=True)
class Phrase:
    """A sentence whose `{names}` stand for figures."""

    template: str
    figures: dict[str, Figure] = field(default_factory=dict)

    def text(self, units: UnitSet = "inch") -> str:
        """Return the sentence with its figures in the given units.

        >>> phrase("Draw {draw}.", draw=mm(695.325, 3.2)).text()
        'Draw 27 3/8 ± 1/8 in.'
        """
        return _Plain().format(
            self.template, **{name: figure.text(units) for name, figure in self.figures.items()}
        )


class _Plain(Formatter):
    """A name without a figure is shown as it stands: a sentence is never lost to a slip."""

    def get_value(self, key: int | str, args: Any, kwargs: Any) -> Any:  # noqa: ARG002
        return kwargs.get(str(key), f"{{{key}}}")


def phrase(template: str, **figures: Figure) -> Phrase:
    """Make a phrase; figures that the sentence does not name are left out.

    A quantity of the trade may stand in the sentence itself, with its unit in braces: it is said
    in the reader's units like any other.

    >>> phrase("Measured to pivot + {1 3/4 in}.").text("metric")
    'Measured to pivot + 44 mm.'
    """
    template, of_trade = _of_trade(template)
    figures = {**of_trade, **figures}
    names = _names(template)
    named = {name: figure for name, figure in figures.items() if name in names}
    return Phrase(template=template, figures=named)


_QUANTITY = re.compile(r"\{(\d+(?:\.\d+)?)?(?: ?(\d+)/(\d+))? (in|lb|gr|fps|to the inch)\}")
_IN_WORDS = re.compile(
    r"(?<![\w.{/])(\d+(?:\.\d+)?(?: \d+/\d+)?|\d+/\d+) (in|lb|gr|fps|to the inch)\b(?!/|\w|-)"
)


@lru_cache(maxsize=2048)
def _of_trade(template: str) -> tuple[str, dict[str, Figure]]:
    """Return a sentence with its quantities of the trade made figures."""
    figures: dict[str, Figure] = {}

    def named(found: re.Match[str]) -> str:
        whole, over, under, unit = found.groups()
        value = float(whole or 0) + (int(over) / int(under) if over else 0.0)
        name = f"of_trade_{len(figures) + 1}"
        figures[name] = _QUANTITIES[unit](value)
        return f"{{{name}}}"

    return _QUANTITY.sub(named, template), figures


def as_written(text: str) -> Phrase:
    """Return a written sentence with every quantity in it made a figure.

    >>> as_written("Bow less 3 in, at 8 gr/lb.").text("metric")
    'Bow less 7.6 cm, at 8 gr/lb.'
    """
    return phrase(_IN_WORDS.sub(r"{\1 \2}", plain(text)))


@lru_cache(maxsize=2048)
def _names(template: str) -> frozenset[str]:
    """Return the names in braces: a sentence is made at every assessment, its words stay."""
    return frozenset(re.findall(r"\{(\w+)\}", template))


def plain(words: str) -> str:
    """Make words typed by the archer safe to put into a template.

    >>> phrase(f"On {plain('my {odd} bow')}.").text()
    'On my (odd) bow.'
    """
    return words.replace("{", "(").replace("}", ")")


def listed(names: Sequence[str]) -> str:
    """Return names in a row, the last behind an and.

    >>> listed(["brace", "nock", "crawls"]), listed(["brace"]), listed([])
    ('brace, nock and crawls', 'brace', '')
    """
    return " and ".join(filter(None, (", ".join(names[:-1]), *names[-1:])))


def counted(number: int, noun: str) -> str:
    """Return a number of things as it is said.

    >>> counted(1, "arrow"), counted(3, "arrow")
    ('1 arrow', '3 arrows')
    """
    return f"{number} {noun}{'' if number == 1 else 's'}"


def mm(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="mm", plus_minus=plus_minus)


def lbf(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="lbf", plus_minus=plus_minus)


def gr(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="gr", plus_minus=plus_minus)


def gpp(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="gr/lbf", plus_minus=plus_minus)


def lbf_per_in(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="lbf/in", plus_minus=plus_minus)


def gr_per_in(value: float) -> Figure:
    return Figure(value=value, unit="gr/in")


def mps(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="m/s", plus_minus=plus_minus)


def joules(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="J", plus_minus=plus_minus)


def degrees(radians: float) -> Figure:
    return Figure(value=math.degrees(radians), unit="deg")


def percent(share: float, plus_minus: float | None = None) -> Figure:
    spread = None if plus_minus is None else 100 * plus_minus
    return Figure(value=100 * share, unit="%", plus_minus=spread)


def spine(pounds: float, plus_minus: float | None = None) -> Figure:
    """A static spine in pounds of the wood scale; said with the thousandths beside it."""
    return Figure(value=pounds, unit="spine", plus_minus=plus_minus)


def gap(value_mm: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value_mm, unit="gap", plus_minus=plus_minus)


def hertz(value: float) -> Figure:
    return Figure(value=value, unit="Hz")


def decibels(value: float, plus_minus: float | None = None) -> Figure:
    return Figure(value=value, unit="dB", plus_minus=plus_minus)


def millis(value_s: float) -> Figure:
    return Figure(value=1000 * value_s, unit="ms")


def day(instant: datetime) -> Figure:
    """The day of an instant, said as the reader's day."""
    return Figure(value=instant.timestamp(), unit="day")


def count(value: float) -> Figure:
    return Figure(value=value, unit="count")


def per_length(per_inch: float) -> Figure:
    """How often something comes in a length, such as turns in a string; per inch."""
    return Figure(value=per_inch, unit="/in")


_QUANTITIES: dict[str, Callable[[float], Figure]] = {
    "in": lambda value: mm(value * MM_PER_IN),
    "lb": lbf,
    "gr": gr,
    "fps": lambda value: mps(value * M_PER_FT),
    "to the inch": per_length,
}


def ratio(value: float) -> Figure:
    return Figure(value=value, unit="ratio")
