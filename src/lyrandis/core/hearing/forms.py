"""A row of the table as a form: its fields in typed order, and the line they make."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from lyrandis.core.constants import GRAINS_PER_GRAM, NEWTONS_PER_LBF
from lyrandis.core.hearing.matching import RowFit, filled
from lyrandis.core.hearing.table import Slot, Word
from lyrandis.core.units import UnitSet

_LABELS = {
    "_way": "which way", "_side": "which side", "_dir": "above or below the grip",
    "datum": "measured to", "_arrows": "how many arrows, e.g. 3 arrows",
    "_change": "changed for it", "_each": "of each", "_item": "what", "_step": "step",
}  # fmt: skip
"""What pieces are called that are the same in many rows."""
_FIELD = re.compile(r"\{(\w+)\}")
_OPTIONAL = re.compile(r"\[[^\]]*\]")


@dataclass(frozen=True, slots=True)
class FormField:
    """One field of a row's form: a number, one of several words, or words of one's own."""

    name: str
    label: str
    takes: Literal["number", "choice", "text"]
    needed: bool
    dimension: str | None = None
    """What a number is of, e.g. length."""
    options: tuple[str, ...] = ()
    """The words to choose from, as the line says them."""


def form_of(row: Word) -> tuple[FormField, ...]:
    """Return the fields of a row's form, in the order its sentence names them.

    >>> from lyrandis.core.jot import ROWS
    >>> [field.label for field in form_of(next(row for row in ROWS if row.word == "scale"))]
    ['draw weight', 'draw length', 'measured to', 'string at']
    """
    optional = {name for group in _OPTIONAL.findall(row.say) for name in _FIELD.findall(group)}
    return tuple(_field(row, name, name in optional) for name in _FIELD.findall(row.say))


def _field(row: Word, name: str, optional: bool) -> FormField:
    label = row.labels.get(name) or _LABELS.get(name) or name.strip("_").replace("_", " ")
    slot = next((slot for slot in row.slots if slot.field == name), None)
    if slot is not None:
        needed = slot.needed and not optional
        return FormField(name, slot.name, "number", needed, slot.dimension)
    if name in row.choices:
        needed = name in (*row.need, *row.wanted, row.asks)
        return FormField(name, label, "choice", needed, options=row.ways(name))
    needed = not optional and (name in row.lacks or name == row.text)
    return FormField(name, label, "text", needed)


def example_in(fit: RowFit, units: UnitSet) -> str:
    """Return a row's example as somebody with other units would type it.

    >>> from lyrandis.core.jot import EAR
    >>> example_in(EAR.hear("scale 36.2 @ 27").taken, "metric")
    'scale 161N at 68.5cm'
    """
    if units == "inch":
        return fit.sentence()
    instead = {
        slot.field: _in_units(slot, fit.values[slot.field], units)
        for slot in fit.word.slots
        if isinstance(fit.values.get(slot.field), float) and slot.field in fit.texts
    }
    return fit.sentence(**{field: text for field, text in instead.items() if text})


def _in_units(slot: Slot, value: float, units: UnitSet) -> str:
    """Return a stored value as it is typed; nothing where all type it alike."""
    if slot.dimension == "length" and slot.range.small:
        return f"{round(abs(value), 1):g}mm"
    if slot.dimension == "length":
        return f"{round(abs(value) / 5) / 2:g}cm"
    if slot.dimension == "mass" and units == "metric":
        return f"{abs(value) / GRAINS_PER_GRAM:.3g}g"
    if slot.dimension == "force" and units == "metric":
        return f"{value * NEWTONS_PER_LBF:.0f}N"
    if slot.dimension == "speed":
        return f"{value:.1f} m/s"
    return ""


def line_from_form(row: Word, told: Mapping[str, str]) -> str:
    """Return the line that a filled form makes: the row's sentence in typed order.

    >>> from lyrandis.core.jot import ROWS
    >>> mark = next(row for row in ROWS if row.word == "mark")
    >>> line_from_form(mark, {"draw_weight_lbf": "45lb", "draw_length_mm": ""})
    'mark 45lb'
    """
    return filled(row.say, {name: text.strip() for name, text in told.items()})
