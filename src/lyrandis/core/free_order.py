"""Hearing a line said in any order: names, numbers with units and choices, filler left out.

Each kind of reading says in a small table how it is recognised. What is recognised is put together
as the jot line it stands for, which the kind's own grammar then reads.
"""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from itertools import pairwise, permutations
from typing import Literal

from lyrandis.core.errors import Understood
from lyrandis.core.spoken import LONGEST_LINE, Line, Measure, Token

SlotKind = Literal["length", "force", "mass", "speed", "per inch", "whole", "any"]
_MEASURED: dict[SlotKind, str] = {
    "length": "length", "force": "force", "mass": "mass", "speed": "speed",
    "per inch": "grains per inch",
}  # fmt: skip

_FILLER = """
my mine our your his her the a an is are was were be am it its this that these those i im ive
of on in at to for with from by and then now
has have had got get gets gives give made makes measures measured measure measuring reads read
says say please today new set put use used using shoot shooting shot am do
does up out there here each all per which where when as so just exactly real full currently me
we he she they than comes came come shows show number nr inch m s
club own usually called still went
: = # , . ; - – — @ ! ( ) ' + → *
"""
FILLER = frozenset(_FILLER.split())
"""Words and signs that say nothing of a reading. Nothing that could turn it round is among them."""
NEGATIONS = frozenset(
    ("not", "no", "never", "don", "dont", "isn", "isnt", "aren", "arent", "wasn", "without", "nor",
     "cannot", "neither", "nothing", "none", "hardly"),
)  # fmt: skip
"""Words that turn a line round: such a line is never heard as what it denies."""
HEDGES = frozenset(
    ("about", "circa", "ca", "~", "maybe", "perhaps", "probably", "roughly", "around",
     "approximately", "approx", "nearly", "think", "guess", "reckon", "ish"),
)  # fmt: skip
"""Words that make a reading an estimate."""


@dataclass(frozen=True, slots=True)
class Slot:
    """A number that a kind of reading takes."""

    name: str
    kind: SlotKind
    needed: bool = True
    after: tuple[str, ...] = ()
    """Words it stands behind when it is said without its unit."""


@dataclass(frozen=True, slots=True)
class Choice:
    """One of several words; each spelling stands for how the kind's own grammar calls it."""

    name: str
    spellings: Mapping[str, str]
    needed: bool = False


@dataclass(frozen=True, slots=True)
class Hears:
    """How a kind of reading is recognised anywhere in a line."""

    line: str
    """The jot line it stands for: `{names}` stand for slots and choices."""
    names: tuple[str, ...] = ()
    """What it is called; several words may make one name."""
    slots: tuple[Slot, ...] = ()
    choices: tuple[Choice, ...] = ()
    beside: tuple[str, ...] = ()
    """Words of the trade that may stand beside it and say nothing more."""
    implied: bool = False
    """True when its units or its choice alone say what is meant; one bare number never does."""


@dataclass(frozen=True)
class HeardFreely:
    """One way to understand a line."""

    word: str
    line: str
    understood: tuple[Understood, ...]
    left: tuple[tuple[int, int], ...]
    """What could not be placed, as spans of the text."""
    named: bool
    swapped: tuple[str, ...] = ()
    """The same with its bare numbers the other way round."""
    name_words: int = 0
    hedged: bool = False
    """True when it is said as a guess."""
    denied: Token | None = None
    """The word that turns it round."""

    @property
    def rank(self) -> tuple[int, int]:
        return len(self.left), 0 if self.named else 1


@dataclass
class _Item:
    """A word or a number with its unit, and whether it is spoken for."""

    token: Token
    end: int
    measure: Measure | None = None
    taken: str | None = None
    said: str = ""

    def __post_init__(self) -> None:
        self.said = self.said or self.token.text.lower()


def items_of(text: str) -> list[_Item]:
    """Split a line into words and numbers with their units."""
    result: list[_Item] = []
    line = Line(text)
    while (token := line.peek()) is not None:
        if token.kind != "number":
            result.append(_Item(line.take(), token.end))
            continue
        try:
            measure = line.measure("length")
        except ValueError:
            result.append(_Item(token, token.end))
            continue
        result.append(_Item(token, measure.end, measure))
    return result


def hear_freely(text: str, tables: Mapping[str, Sequence[Hears]]) -> list[HeardFreely]:
    """Return every way to understand a line, the best first; `tables` are by jot word.

    >>> slots = (Slot("length", "length"),)
    >>> table = Hears("brace {length}", ("brace", "brace height"), slots)
    >>> [heard.line for heard in hear_freely("my brace height is 7 5/8", {"brace": [table]})]
    ['brace 7 5/8']
    """
    if len(text) > LONGEST_LINE:
        return []
    items = items_of(text)
    result = [
        heard
        for word, hears in tables.items()
        for one in hears
        if (heard := _match(text, [replace(item) for item in items], word, one)) is not None
    ]
    return sorted(result, key=lambda heard: (*heard.rank, -heard.name_words))


@dataclass
class _Matching:
    """A line on its way to being understood."""

    items: list[_Item]
    filled: dict[str, str] = field(default_factory=dict)
    understood: list[Understood] = field(default_factory=list)

    def phrase(self, spellings: Iterable[str], taken_for: str) -> str | None:
        """Take the longest of several spellings that stands in the line."""
        free = {item.said for item in self.items if item.taken is None}
        for spelling, words in _longest_first(tuple(spellings)):
            if not free.issuperset(words):
                continue
            for start in range(len(self.items) - len(words) + 1):
                run = self.items[start : start + len(words)]
                if all(_is(item, word) for item, word in zip(run, words, strict=True)):
                    for item in run:
                        item.taken = taken_for
                    self.understood.append(Understood(run[0].token.start, run[-1].end, taken_for))
                    return spelling
        return None


_WORDS = re.compile(r"[^\W_]+|[^\w\s]")


@lru_cache(maxsize=512)
def _longest_first(spellings: tuple[str, ...]) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """Return spellings with their words; there are as many of them as the tables have."""
    ordered = sorted(spellings, key=len, reverse=True)
    return tuple((item, tuple(_WORDS.findall(item.lower()))) for item in ordered)


def _is(item: _Item, word: str) -> bool:
    return item.taken is None and item.said == word and item.end == item.token.end


def _match(text: str, items: list[_Item], word: str, hears: Hears) -> HeardFreely | None:
    now = _Matching(items)
    for choice in hears.choices:
        said = now.phrase(choice.spellings, choice.name)
        if said is None and choice.needed:
            return None
        now.filled[choice.name] = choice.spellings[said] if said else ""
    name = now.phrase((word, *hears.names), word)
    if name is None and not hears.implied:
        return None
    numbers = [item for item in now.items if item.measure and item.taken is None]
    placed = _placed(numbers, hears.slots, now.items)
    if placed is None or (name is None and len(numbers) == 1 and _bare(numbers[0])):
        return None
    _take_numbering(now.items)
    for slot, item in placed:
        item.taken = slot.name
        now.filled[slot.name] = _written(text, item)
        now.understood.append(Understood(item.token.start, item.end, slot.name))
    for slot in hears.slots:
        now.filled.setdefault(slot.name, "")
    said_nothing = FILLER | HEDGES | {*hears.beside}
    left = [item for item in now.items if item.taken is None and item.said not in said_nothing]
    return HeardFreely(
        word=word,
        line=_composed(hears.line, now.filled),
        understood=tuple(sorted(now.understood, key=lambda part: part.start)),
        left=tuple((item.token.start, item.end) for item in left),
        named=name is not None,
        swapped=_swapped(text, hears, now.filled, placed),
        name_words=0 if name is None else len(name.split()),
        hedged=any(item.said in HEDGES for item in now.items if item.taken is None),
        denied=next((item.token for item in left if item.said in NEGATIONS), None),
    )


def _take_numbering(items: Sequence[_Item]) -> None:
    """Take “no” for “number” where a number follows."""
    for item, behind in pairwise(items):
        if item.said == "no" and behind.measure and item.taken is None:
            item.taken = "number"


def _bare(item: _Item) -> bool:
    return item.measure is not None and item.measure.unit is None


def _composed(line: str, filled: Mapping[str, str]) -> str:
    return " ".join(line.format_map(filled).split())


def _placed(
    numbers: list[_Item], slots: Sequence[Slot], items: Sequence[_Item]
) -> list[tuple[Slot, _Item]] | None:
    """Give each number a slot: by its unit, by the word before it, else in order; None if over."""
    free = list(slots)
    placed: list[tuple[Slot, _Item]] = []
    for wanted in (_by_unit, _by_word, _in_order):
        for item in [number for number in numbers if all(number is not it for _, it in placed)]:
            slot = next((slot for slot in free if wanted(slot, item, items)), None)
            if slot is not None:
                free.remove(slot)
                placed.append((slot, item))
    if len(placed) < len(numbers) or any(slot.needed for slot in free):
        return None
    return placed


def _by_unit(slot: Slot, item: _Item, _items: Sequence[_Item]) -> bool:
    measure = item.measure
    return measure is not None and measure.unit is not None and _takes(slot, measure)


def _by_word(slot: Slot, item: _Item, items: Sequence[_Item]) -> bool:
    at = next(index for index, one in enumerate(items) if one is item)
    before = items[at - 1].said if at else ""
    return before in slot.after and item.measure is not None and _takes(slot, item.measure)


def _in_order(slot: Slot, item: _Item, _items: Sequence[_Item]) -> bool:
    measure = item.measure
    return measure is not None and measure.unit is None and _takes(slot, measure)


def _takes(slot: Slot, measure: Measure) -> bool:
    if slot.kind == "any":
        return True
    if slot.kind == "whole":
        return measure.unit in (None, "#") and measure.number == int(measure.number)
    return _MEASURED[slot.kind] in measure.kinds


def _written(text: str, item: _Item) -> str:
    return text[item.token.start : item.end]


def _swapped(
    text: str, hears: Hears, filled: Mapping[str, str], placed: Sequence[tuple[Slot, _Item]]
) -> tuple[str, ...]:
    bare = [(slot, item) for slot, item in placed if _bare(item)]
    if not 2 <= len(bare) <= 3 or len({slot.kind for slot, _ in bare}) == 1:
        return ()
    slots = [slot.name for slot, _ in bare]
    orders = list(permutations([_written(text, item) for _, item in bare]))[1:]
    return tuple(
        _composed(hears.line, {**filled, **dict(zip(slots, order, strict=True))})
        for order in orders
    )


def told_of(heard: HeardFreely) -> tuple[Understood, ...]:
    """Return word by word what a line was taken for; what is left over stands as `left over`."""
    left = tuple(Understood(start, end, "left over") for start, end in heard.left)
    return tuple(sorted((*heard.understood, *left), key=lambda part: part.start))
