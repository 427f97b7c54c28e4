"""What the flight's rows make of a line: which way and how far, and what was changed for it."""

from collections.abc import Sequence
from typing import Any, NamedTuple

from lyrandis.core.flight.words import Pushed
from lyrandis.core.hearing.distance import place_distance
from lyrandis.core.hearing.matching import A_NAME, A_UNIT, A_WAY, Matching, Question
from lyrandis.core.hearing.table import BESIDE, NAME, Dimension, Slot
from lyrandis.core.hearing.writing import FEET
from lyrandis.core.units import DISTANCE_UNITS_M

DISTANCE = Slot("distance_m", "distance", "shooting_distance", label="distance")
_OFF_TAIL = Slot("_off", "length", "tail_aside")
_OFF_BUTT = Slot("_off", "length", "hit_aside")
_WAYS: dict[str, tuple[str, int]] = {
    "l": ("across", -1), "left": ("across", -1), "r": ("across", 1), "right": ("across", 1),
    "h": ("up", 1), "high": ("up", 1), "up": ("up", 1), "low": ("up", -1), "down": ("up", -1),
}  # fmt: skip
_GRADES = {
    "slight": 1, "slightly": 1, "little": 1, "bit": 1, "clear": 2, "clearly": 2, "strong": 3,
    "strongly": 3,
}  # fmt: skip
_STRAIGHT = {"straight": "across", "centre": "across", "none": "across", "level": "up"}
_WAY = "_ways"
_FAR = frozenset(DISTANCE_UNITS_M) - FEET
"""Units of a distance, not of what is seen of it."""


class _Size(NamedTuple):
    at: int
    grade: int | None
    off_mm: float | None


def _directions(matching: Matching) -> list[tuple[int, str, int]]:
    """Return the words for a side that stand in the line: place, axis, sign."""
    return [
        (at, *_WAYS[item.word])
        for at, item in enumerate(matching.items)
        if item.amount is None and item.word in _WAYS and matching.used[at] in (None, NAME, BESIDE)
    ]


def _sizes(matching: Matching, slot: Slot, *, graded: bool) -> list[_Size] | None:
    """Return how far: grades and lengths; None where one has a unit and another none."""
    sizes = [
        _Size(at, _GRADES[item.word], None)
        for at, item in enumerate(matching.items)
        if graded and item.word in _GRADES and matching.used[at] is None
    ]
    bare: set[bool] = set()
    for at in matching.free():
        amount = matching.items[at].amount
        assert amount is not None
        plain = amount.unit is None and not amount.fraction
        if graded and plain and amount.value in (1, 2, 3):
            sizes.append(_Size(at, int(amount.value), None))
            continue
        what = matching.taken(slot, at)
        if what is None or amount.unit in _FAR:
            continue
        if what.otherwise:
            matching.questions.append(Question(_WAY, what.otherwise))
        sizes.append(_Size(at, None, what.value or 0.0))
        if amount.value:
            bare.add(plain)
    return None if len(bare) == 2 else sorted(sizes)


def _take_ways(
    matching: Matching, slot: Slot, *, graded: bool
) -> list[tuple[str, int, _Size | None]] | None:
    """Pair directions and sizes in order; None where they do not pair.

    A lone direction without a size is given with None: how far is then asked.
    """
    directions, sizes = _directions(matching), _sizes(matching, slot, graded=graded)
    if sizes is None:
        matching.lacks = matching.lacks or _WAY
        return None
    for at in sorted([at for at, *_ in directions] + [size.at for size in sizes]):
        matching.used[at] = _WAY
        matching.score += A_UNIT
    matching.texts[_WAY] = _said(matching)
    if len(directions) == 1 and not sizes:
        return [(directions[0][1], directions[0][2], None)]
    if len(directions) != len(sizes):
        matching.lacks = matching.lacks or _WAY
        return None
    return [(axis, sign, size) for (_, axis, sign), size in zip(directions, sizes, strict=True)]


def _said(matching: Matching) -> str:
    return " ".join(
        item.amount.text if item.amount else item.word
        for item, used in zip(matching.items, matching.used, strict=True)
        if used == _WAY
    )


def _take_arrows(matching: Matching) -> int | None:
    """Take how many arrows it is of."""
    for at in matching.free():
        amount = matching.items[at].amount
        if amount is not None and amount.unit in ("arrow", "arrows"):
            matching.used[at] = "arrows"
            matching.texts["_arrows"] = amount.text
            return int(amount.value)
    return None


def tail_seen(matching: Matching) -> bool:
    """Which way the nocks point: straight, or sides with grades or millimetres."""
    there = place_distance(matching, DISTANCE)
    arrows = _take_arrows(matching)
    if arrows is not None:
        matching.values["arrows"] = arrows
    take_change(matching)
    for at, item in enumerate(matching.items):
        if matching.used[at] in (None, NAME, BESIDE) and item.word in _STRAIGHT:
            matching.values[_STRAIGHT[item.word]] = 0
            matching.used[at] = _WAY
            matching.score += A_WAY
    ways = _take_ways(matching, _OFF_TAIL, graded=True)
    if ways is None:
        return False
    if not ways:
        if not {"across", "up"} & matching.values.keys():
            matching.lacks = matching.lacks or _WAY
            return False
        return there
    for axis, sign, size in ways:
        if size is None:
            matching.values[axis] = sign
            side = matching.texts[_WAY]
            graded = tuple(f"{grade} {side}" for grade in ("slightly", "clearly", "strongly"))
            matching.questions.append(Question(_WAY, graded))
        elif size.grade is not None:
            matching.values[axis] = sign * size.grade
        else:
            matching.values[f"{axis}_mm"] = sign * (size.off_mm or 0.0)
    return there


def bare_apart(matching: Matching) -> bool:
    """Where bare shafts struck beside fletched ones: level with them, or sides with lengths."""
    there = place_distance(matching, DISTANCE)
    arrows = _take_arrows(matching)
    if arrows is not None:
        matching.values |= {"bare": arrows, "fletched": arrows}
    take_change(matching)
    together = matching.says("level", "group", "grouped", "together") and not _directions(matching)
    if together:
        for at, item in enumerate(matching.items):
            if item.word in ("level", "together", "group", "grouped", "fletched"):
                matching.use(at, _WAY)
        matching.values |= {"right_mm": 0.0, "up_mm": 0.0}
        matching.texts[_WAY] = "level"
        matching.score += A_NAME
        return there
    ways = _take_ways(matching, _OFF_BUTT, graded=False)
    if not ways or any(size is None for *_, size in ways):
        matching.lacks = matching.lacks or _WAY
        return False
    for axis, sign, size in ways:
        assert size is not None
        name = "right_mm" if axis == "across" else "up_mm"
        matching.values[name] = sign * (size.off_mm or 0.0)
    return there


def walked_back(matching: Matching) -> bool:
    """Distances, each with where it struck: 10 m centre, 20 m 2 cm left."""
    marks: list[dict[str, Any]] = []
    sided: list[bool] = []
    distance: float | None = None
    for at, item in enumerate(matching.items):
        if matching.used[at] is not None:
            continue
        if item.amount is not None and distance is None:
            distance = _mark_distance(matching, at)
            if distance is None:
                return False
        elif item.amount is not None:
            what = matching.taken(_OFF_BUTT, at)
            if what is None or what.value is None:
                return _lacks_marks(matching)
            marks.append({"distance_m": distance, "right_mm": what.value})
            sided.append(item.amount.value == 0)
            distance = None
        elif item.word in ("centre", "straight", "dead", "zero", "spot", "middle") and distance:
            marks.append({"distance_m": distance, "right_mm": 0.0})
            sided.append(True)
            distance = None
        elif item.word in ("left", "right") and marks and distance is None:
            marks[-1]["right_mm"] *= 1 if item.word == "right" else -1
            sided[-1] = True
        elif not (
            item.word in ("on", "centre") and at and matching.items[at - 1].word in ("dead", "spot")
        ):
            continue
        matching.used[at] = "_marks"
    if len(marks) < 2 or distance is not None or not all(sided):
        return _lacks_marks(matching)
    matching.texts["_marks"] = " ".join(
        item.amount.text if item.amount else item.word
        for item, used in zip(matching.items, matching.used, strict=True)
        if used == "_marks"
    )
    matching.values["marks"] = tuple(marks)
    matching.score += A_NAME
    return True


def _begins_spot_on(matching: Matching, at: int) -> bool:
    return matching.items[at].word in ("dead", "spot")


def _mark_distance(matching: Matching, at: int) -> float | None:
    """Return a distance of a walk-back; a bare one needs a unit somewhere in the line."""
    what = matching.taken(DISTANCE, at)
    named = any(
        amount is not None and amount.unit in DISTANCE_UNITS_M and matching.used[place] is None
        for place, amount in enumerate(item.amount for item in matching.items)
    )
    if what is None or what.value is None or (what.otherwise and not named):
        matching.lacks = "distance_m"
        return None
    return what.value


def _lacks_marks(matching: Matching) -> bool:
    matching.lacks = "_marks"
    return False


class _Pushing(NamedTuple):
    """How a change for a trial is said: its nouns, and a word for each way."""

    what: Pushed
    nouns: tuple[str, ...]
    dimension: Dimension
    key: str
    more: tuple[str, ...]
    less: tuple[str, ...] = ()
    usual: float | None = None
    """Its amount where none is said."""


_DRAWN = ("draw", "drawn", "drawing", "")
_CHANGES: tuple[_Pushing, ...] = (
    _Pushing("draw_short", _DRAWN, "length", "draw_short_by", ("short",), (), 25.4),
    _Pushing(
        "draw_extra", _DRAWN, "length", "draw_extra_by", ("extra", "long", "longer"), (), 12.7
    ),
    _Pushing("silencers", ("silencers",), "mass", "silencers_by", ("on",), ("off",)),
    _Pushing(
        "point", ("point", "points"), "mass", "point_by", ("heavier", "more"), ("lighter", "less")
    ),
    _Pushing("brace", ("brace",), "length", "brace_by", ("up", "higher"), ("down", "lower")),
    _Pushing("plate", ("plate",), "length", "plate_by", ("out",), ("in",)),
    _Pushing("nock", ("nock",), "length", "nock_by", ("up", "higher"), ("down", "lower")),
    _Pushing("other_shafts", ("shafts",), "spine", "other_shafts_by", ("shafts",)),
)


def take_change(matching: Matching) -> bool:
    """Take what is changed for a trial, if it is said: point 25 gr heavier; draw short."""
    words = [item.word for item in matching.items]
    for change in _CHANGES:
        ways = [word for word in words if word in (*change.more, *change.less)]
        noun = next((one for one in change.nouns if not one or one in words), None)
        if noun is None or not ways:
            continue
        found = _amount(matching, change, words.index(ways[0]))
        if found is None:
            continue
        at, amount = found
        sign = -1 if ways[0] in change.less else 1
        for place, word in enumerate(words):
            if word in (noun, ways[0]) or place == at:
                matching.used[place] = "trial"
        matching.texts["_change"] = _change_said(matching)
        matching.values["trial"] = {"what": change.what, "amount": round(sign * amount, 4)}
        matching.score += A_NAME
        return True
    return False


def _amount(matching: Matching, change: _Pushing, way_at: int) -> tuple[int, float] | None:
    """Return the place and value of a change's amount, the one nearest to the word for its way.

    Where none is said it is the usual one.
    """
    slot = Slot("_by", change.dimension, change.key, by_name=change.what == "other_shafts")
    free = matching.free()
    for at in sorted(free, key=lambda place: abs(place - way_at)):
        what = matching.taken(slot, at)
        if what is not None and what.value is not None and not what.otherwise:
            return at, what.value
    return (-1, change.usual) if change.usual is not None and not free else None


def _change_said(matching: Matching) -> str:
    return " ".join(
        item.amount.text if item.amount else item.word
        for item, used in zip(matching.items, matching.used, strict=True)
        if used == "trial"
    )


def trial_set(matching: Matching) -> bool:
    """What is changed for a trial; or that everything is put back."""
    if take_change(matching):
        return True
    over: Sequence[str] = ("back", "over", "off", "end", "none")
    if matching.free() or not matching.says(*over):
        matching.lacks = "_change"
        return False
    for at, item in enumerate(matching.items):
        if item.word in (*over, "everything", "put"):
            matching.use(at, "trial")
    matching.values["trial"] = None
    matching.texts["_change"] = "back"
    matching.score += A_NAME
    return True
