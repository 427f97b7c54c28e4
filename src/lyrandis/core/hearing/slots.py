"""What a number is in a slot: its stored value, or the other ways it may have been meant."""

from dataclasses import dataclass, replace

from lyrandis.core.hearing.items import Amount
from lyrandis.core.hearing.table import Dimension, Slot
from lyrandis.core.hearing.writing import POUND_SIGNS, SPOKEN_UNITS
from lyrandis.core.quantities import Plausible
from lyrandis.core.units import POUNDS_TIMES_THOUSANDTHS, UnitSet

_BARE: dict[UnitSet, dict[Dimension, str]] = {
    "inch": {"length": "in", "force": "lb", "mass": "gr"},
    "centimetre": {"length": "cm", "force": "lb", "mass": "gr"},
    "metric": {"length": "cm", "force": "n", "mass": "g"},
}
"""What a number without a unit is taken for: the unit the reader's fields show."""
_OTHERWISE: dict[Dimension, tuple[str, ...]] = {
    "length": ("in", "cm", "mm"), "force": ("lb", "kg", "n"), "mass": ("gr", "g"),
}  # fmt: skip
POUNDS = (8.0, 120.0)
"""A bow's weight without a unit is pounds in every unit set where it lies between: marks and scales
say pounds, and no bow of so many newtons is shot."""
_FPS_FROM = 80.0
"""No arrow flies at so many metres a second from a bow like these: such a number is fps."""
_THOUSANDTHS = (200.0, 2100.0)
"""What a deflection in thousandths can be; a bare number in it is one."""
_PACED_TO_M = 12.0
_COUNTED = frozenset({"turn", "strand", "finger", "stitch", "degree", "hour"})


@dataclass(frozen=True, slots=True)
class InSlot:
    """A number in a slot.

    `value` is None where it is believable only another way; `otherwise` are the ways it may have
    been meant, with their unit: then it is asked.
    """

    value: float | None
    otherwise: tuple[str, ...] = ()
    taken_as: str = ""
    """What it was taken for where the reader may not expect it."""
    standard: str = ""
    """Of a spine: the standard it is said in."""


def taken(slot: Slot, amount: Amount, units: UnitSet, *, beside: bool = False) -> InSlot | None:
    """Return what a number is in a slot; None where it cannot be this slot at all.

    `beside` says that one of the slot's words stands beside the number.

    >>> from lyrandis.core.hearing.items import items_of
    >>> draw = Slot("draw_length_mm", "length", "draw_length")
    >>> taken(draw, items_of("27 3/8")[0].amount, "inch").value
    695.325
    >>> taken(draw, items_of("71")[0].amount, "inch")
    InSlot(value=None, otherwise=('71cm',), taken_as='', standard='')
    """
    if amount.sign and not slot.signed:
        return None
    if amount.sign == "-" and slot.range.low >= 0:  # a change has a size and a way
        size = taken(slot, replace(amount, sign=""), units, beside=beside)
        return size and replace(size, value=None if size.value is None else -size.value)
    if slot.by_name and amount.unit is None and not beside:
        return None
    if slot.dimension == "spine":
        return _spine(slot.range, amount)
    if slot.dimension in ("number", "whole"):
        return _plain(slot, amount)
    if amount.unit is not None:
        return _with_unit(slot, amount)
    if slot.dimension == "distance":
        return _distance(slot.range, amount, units)
    if slot.dimension in _COUNTED or slot.dimension.startswith("grains"):
        return _if_held(slot.range, amount.signed)
    if slot.dimension == "speed":
        in_feet = amount.value >= _FPS_FROM and units != "metric"
        return _if_held(
            slot.range, amount.value * (SPOKEN_UNITS["fps"]["speed"] if in_feet else 1.0)
        )
    return _bare(slot, amount, units)


def _if_held(limits: Plausible, value: float) -> InSlot | None:
    return InSlot(value) if limits.holds(value) else None


def _plain(slot: Slot, amount: Amount) -> InSlot | None:
    if amount.unit is not None or (slot.dimension == "whole" and amount.value % 1):
        return None
    return _if_held(slot.range, amount.signed)


def _with_unit(slot: Slot, amount: Amount) -> InSlot | None:
    factor = SPOKEN_UNITS[amount.unit or ""].get(slot.dimension)
    return None if factor is None else _if_held(slot.range, round(amount.signed * factor, 6))


def _spine(limits: Plausible, amount: Amount) -> InSlot | None:
    """Read pounds of the wood scale, or thousandths of an inch: 500, .500, 500 thou."""
    if amount.unit is not None and "spine" not in SPOKEN_UNITS[amount.unit]:
        return None
    value, in_pounds = amount.value, amount.unit in POUND_SIGNS
    thousandths = 1000 * value if amount.unit is None and 0.2 <= value <= 2.1 else value
    if not in_pounds and thousandths >= _THOUSANDTHS[0]:
        pounds = round(POUNDS_TIMES_THOUSANDTHS / thousandths, 4)
        held = _if_held(limits, pounds)
        return held and replace(held, standard="thousandths")
    if not limits.holds(value):
        return None
    return InSlot(value, () if in_pounds else (f"{value:g}lb",), standard="wood")


def _distance(limits: Plausible, amount: Amount, units: UnitSet) -> InSlot | None:
    """A bare distance is metres where the reader has metres, else it is asked."""
    if not limits.holds(amount.value):
        return None
    if units != "inch":
        return InSlot(amount.value)
    paced = (f"{amount.text} paces",) if amount.value <= _PACED_TO_M else ()
    return InSlot(amount.value, (f"{amount.text}m", f"{amount.text}yd", *paced))


def _bare(slot: Slot, amount: Amount, units: UnitSet) -> InSlot | None:
    """A number without a unit: the reader's, if it is usual so; else the ways it may be meant."""
    limits, dimension = slot.range, slot.dimension
    unit = _BARE[units][dimension]
    taken_as = ""
    if dimension == "length":
        in_inches = amount.fraction or (limits.small and amount.value < limits.inches_below)
        unit = "in" if in_inches else "mm" if limits.small else unit
    elif dimension == "force" and unit == "n" and POUNDS[0] <= amount.value <= POUNDS[1]:
        unit, taken_as = "lb", "pounds"
    value = round(amount.signed * SPOKEN_UNITS[unit][dimension], 6)
    in_inches_for_sure = dimension == "length" and amount.fraction and limits.holds(value)
    usual_size = limits.is_usual(value) or (slot.signed and limits.is_usual(abs(value)))
    on_the_way = slot.on_the_way and units == "inch" and limits.holds(value)
    if usual_size or in_inches_for_sure or on_the_way:
        return InSlot(value, taken_as=taken_as)
    usual = tuple(
        f"{amount.text}{other}"
        for other in _OTHERWISE[dimension]
        if other != unit and limits.is_usual(amount.value * SPOKEN_UNITS[other][dimension])
    )
    if limits.holds(value):
        return InSlot(value, (f"{amount.text}{unit}", *usual), taken_as)
    return InSlot(None, usual) if usual else None
