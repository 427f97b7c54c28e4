"""The distance of a line: by its unit, else the bare number behind at, from or for."""

from lyrandis.core.hearing.matching import PLACED, Matching
from lyrandis.core.hearing.table import Slot
from lyrandis.core.hearing.writing import FEET, SPOKEN_UNITS

_BEFORE = ("at", "from", "for")
_YARDS = frozenset({"yd", "yds", "y", "yard", "yards"})


def place_distance(matching: Matching, slot: Slot, *, anywhere: bool = False) -> bool:
    """Place the distance in its slot; `anywhere` takes the first bare number as well.

    >>> from lyrandis.core.jot import parse
    >>> parse("bare 3cm left from 20yd").reading.distance_m
    18.288
    """
    free = matching.free()
    found = next((at for at in free if _is_distance(matching, at)), None)
    if found is None:
        behind = [at for at in free if _is_bare(matching, at) and _behind(matching, at)]
        bare = [at for at in free if anywhere and _is_bare(matching, at)]
        in_feet = [at for at in free if anywhere and _in_feet(matching, at)]
        found = next(iter([*in_feet, *behind, *bare]), None)
    what = None if found is None else matching.taken(slot, found)
    if found is None or what is None:
        matching.lacks = matching.lacks or slot.field
        return False
    matching.put(slot, found, what)
    matching.score += PLACED
    return True


def in_yards(matching: Matching) -> bool:
    """Return whether the line speaks of yards."""
    return any(item.amount is not None and item.amount.unit in _YARDS for item in matching.items)


def _is_bare(matching: Matching, at: int) -> bool:
    amount = matching.items[at].amount
    return amount is not None and amount.unit is None


def _behind(matching: Matching, at: int) -> bool:
    return at > 0 and matching.items[at - 1].word in _BEFORE


def _in_feet(matching: Matching, at: int) -> bool:
    amount = matching.items[at].amount
    return amount is not None and amount.unit in FEET


def _is_distance(matching: Matching, at: int) -> bool:
    """Return whether a number's unit is of a distance; feet are, only behind at or from."""
    amount = matching.items[at].amount
    unit = "" if amount is None else amount.unit or ""
    if "distance" not in SPOKEN_UNITS.get(unit, ()):
        return False
    return unit not in FEET or _behind(matching, at)
