"""One row laid over a line: which words it takes, what its numbers are, what is left over."""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from pydantic import ValidationError

from lyrandis.core.errors import DomainError
from lyrandis.core.hearing.items import Item
from lyrandis.core.hearing.plain_words import DENIALS, FILLER, HEDGES, IDIOMS
from lyrandis.core.hearing.slots import InSlot, taken
from lyrandis.core.hearing.table import BESIDE, NAME, Slot, Spelling, Word
from lyrandis.core.hearing.writing import SPOKEN_UNITS
from lyrandis.core.reading import BaseReading
from lyrandis.core.refusals import refusal_of
from lyrandis.core.units import UnitSet

A_NAME, A_WAY, A_UNIT, PLACED, IN_ORDER, BESIDE_IT = 10.0, 8.0, 4.0, 3.0, 1.0, 3.0
"""What a word of a name or choice, a direction, a self-telling unit, a number placed by its unit or
its neighbour, a number in order, and a word that may stand beside are worth."""
PER_QUESTION, ONLY_OTHERWISE = -4.0, -10.0
_NEIGHBOURS = 4
"""So many words beside a number are looked at."""
_WEAK_NAMES = frozenset({"at"})
"""Names that hardly tell."""


@dataclass(frozen=True, slots=True)
class Question:
    """What a row has to ask: a field, and the ways it may have been meant."""

    field: str
    ways: tuple[str, ...]


@dataclass(frozen=True)
class RowFit:
    """A row that a line may mean."""

    word: Word
    values: Mapping[str, Any]
    """What each field is; those with _ before them are the row's own."""
    texts: Mapping[str, str]
    score: float
    left: tuple[int, ...]
    """Items that nothing accounts for."""
    questions: tuple[Question, ...]
    taken_for: tuple[str | None, ...]
    """What each item was taken for."""
    whole: bool
    lacks: str = ""
    """The first field it needs and has not."""
    reading: BaseReading | None = None
    wrong: DomainError | None = None
    """Why its values make no reading."""
    assumed: Mapping[str, str] = field(default_factory=dict)
    """What a number was taken as, by field, where the reader may not expect it."""

    @property
    def fits(self) -> bool:
        return self.whole and not self.left

    def sentence(self, **instead: str) -> str:
        """Return the row's sentence in typed order, with what was said in it."""
        return filled(self.word.say, {**self.texts, **instead})


_PIECE = re.compile(r"\[([^\]]*)\]|\{(\w+)\}")
_FIELD = re.compile(r"\{(\w+)\}")


def filled(say: str, texts: Mapping[str, str]) -> str:
    """Return a sentence with its fields filled in; what stands in [] goes where it is not told.

    >>> filled("mark {weight} [at {draw}]", {"weight": "45lb"})
    'mark 45lb'
    """

    def piece(match: re.Match[str]) -> str:
        group = match[1]
        if group is None:
            return texts.get(match[2], "")
        told = all(texts.get(name) for name in _FIELD.findall(group))
        return _FIELD.sub(lambda one: texts[one[1]], group) if told else ""

    return " ".join(_PIECE.sub(piece, say).split())


class Matching:
    """A row on its way over a line. A row's builder fills its slots with what stands here."""

    def __init__(
        self, word: Word, items: Sequence[Item], units: UnitSet, brace_datum: str | None = None
    ) -> None:
        self.word = word
        self.items = items
        self.units: UnitSet = units
        self.brace_datum = brace_datum
        self.used: list[str | None] = [None] * len(items)
        self.chosen: dict[str, Any] = {}
        self.values: dict[str, Any] = {}
        self.texts: dict[str, str] = {}
        self.assumed: dict[str, str] = {}
        self.questions: list[Question] = []
        self.score = 0.0
        self.opened = False
        self.clashes = False
        self.lacks = ""
        """The first field that is needed and not there."""
        self.wrong: DomainError | None = None
        """Why what is there cannot be, where a builder knows it."""
        self._take_phrases()

    # phrases

    def _take_phrases(self) -> None:
        by_first, at = self.word.by_first, 0
        if self.word.self_telling:
            self._open_by_units()
        while at < len(self.items):
            spellings = by_first.get(self.items[at].word)
            at += 1 if spellings is None else self._take_longest(spellings, at)

    def _open_by_units(self) -> None:
        telling = set(self.word.self_telling)
        for item in self.items:
            unit = None if item.amount is None else item.amount.unit
            if unit is not None and SPOKEN_UNITS[unit].keys() & telling:
                self.opened = True
                self.score += A_UNIT

    def _take_longest(self, spellings: Sequence[Spelling], at: int) -> int:
        """Take the longest phrase that begins here for all it stands for; return its length."""
        longest, worth = 0, 0.0
        for spelling in spellings:
            length = len(spelling.words)
            if length < longest:
                break
            if length > 1 and not self._stands(spelling, at):
                continue
            longest = length
            self._note(spelling, at)
            mine = BESIDE_IT if spelling.stands_for == BESIDE else A_NAME
            worth = max(worth, 1.0 if self.items[at].word in _WEAK_NAMES else mine)
        self.score += worth * longest
        return longest or 1

    def _stands(self, spelling: Spelling, at: int) -> bool:
        behind = at + len(spelling.words)
        return behind <= len(self.items) and all(
            self.items[at + step].word == word for step, word in enumerate(spelling.words)
        )

    def _note(self, spelling: Spelling, at: int) -> None:
        for place in range(at, at + len(spelling.words)):
            if not (spelling.stands_for == BESIDE and self.used[place] == NAME):
                self.used[place] = spelling.stands_for
        if spelling.stands_for not in (NAME, BESIDE):
            before = self.chosen.setdefault(spelling.stands_for, spelling.value)
            self.clashes = self.clashes or before != spelling.value
        self.opened = self.opened or spelling.opens

    # what a builder works with

    def free(self) -> list[int]:
        """Return the numbers that are not placed yet."""
        return [at for at, item in enumerate(self.items) if item.amount and self.used[at] is None]

    def says(self, *words: str) -> bool:
        return any(item.word in words for item in self.items)

    def use(self, at: int, stands_for: str, worth: float = 0.0) -> None:
        self.used[at] = self.used[at] or stands_for
        self.score += worth

    def taken(self, slot: Slot, at: int, *, beside: bool = False) -> InSlot | None:
        amount = self.items[at].amount
        return None if amount is None else taken(slot, amount, self.units, beside=beside)

    def put(self, slot: Slot, at: int, what: InSlot) -> None:
        """Place a number in a slot."""
        amount = self.items[at].amount
        assert amount is not None
        self.used[at] = slot.field
        value = what.value
        if value is None:
            value, self.score = amount.value, self.score + ONLY_OTHERWISE
        self.values[slot.field] = int(value) if slot.dimension in ("whole", "strand") else value
        self.texts[slot.field] = amount.text
        reading = self.word.reading
        if what.standard and reading is not None and "spine_standard" in reading.model_fields:
            self.values["spine_standard"] = what.standard
        if what.taken_as:
            self.assumed[slot.field] = what.taken_as
        if what.otherwise:
            self.questions.append(Question(slot.field, what.otherwise))
        if slot.many:
            self._put_row(slot, at)

    def _put_row(self, slot: Slot, at: int) -> None:
        """Take the bare numbers that follow into the same slot: 3 4 3."""
        row = [self.values[slot.field]]
        for place in range(at + 1, len(self.items)):
            amount = self.items[place].amount
            if amount is None or amount.unit is not None or self.used[place] is not None:
                break
            self.used[place] = slot.field
            row.append(amount.value)
        self.values[slot.field] = tuple(row)
        self.texts[slot.field] = " ".join(f"{value:g}" for value in row)

    def near(self, at: int, step: int) -> Iterator[int]:
        """Yield the words on one side of a number, up to the next number."""
        place = at + step
        for _ in range(_NEIGHBOURS):
            if not 0 <= place < len(self.items):
                return
            if self.items[place].amount is not None and self.used[place] not in (NAME, BESIDE):
                return
            yield place
            place += step

    def fill(self, slots: Sequence[Slot] | None = None) -> bool:
        """Place the numbers in slots: by label, neighbour, likeness, unit, then in order."""
        slots = self.word.slots if slots is None else slots
        self._fill_pairs(slots)
        for slot in slots:
            self._fill_by_neighbour(slot)
        self._fill_alike(slots)
        for with_unit in (True, False):
            for slot in slots:
                self._fill_in_order(slot, with_unit=with_unit)
        lacks = [slot.field for slot in slots if slot.needed and slot.field not in self.texts]
        self.lacks = self.lacks or (lacks[0] if lacks else "")
        return not lacks

    def _fill_pairs(self, slots: Sequence[Slot]) -> None:
        """Top 7 1/8 bottom 7, or 7 1/8 top, 7 bottom: labels and numbers pair in order."""
        labelled = [
            slot for item in self.items for slot in slots
            if slot.pairs and item.word in slot.words_before
        ]  # fmt: skip
        free = self.free()
        if not (len(labelled) == len(free) == 2 and labelled[0] is not labelled[1]):
            return
        for slot, at in zip(labelled, free, strict=True):
            what = self.taken(slot, at)
            if what is not None:
                self.put(slot, at, what)
                self.score += PLACED
        for at, item in enumerate(self.items):
            if self.used[at] is None and any(item.word in slot.words_before for slot in labelled):
                self.used[at] = BESIDE

    def _fill_by_neighbour(self, slot: Slot) -> None:
        sides = [(1, slot.words_behind), (-1, slot.words_before)]
        if slot.pairs:
            sides = [(-1, slot.words_before), (1, slot.words_before)]
        for step, words in sides:
            if not words or slot.field in self.texts:
                continue
            for at in self.free():
                place = next((p for p in self.near(at, step) if self.items[p].word in words), None)
                what = None if place is None else self.taken(slot, at, beside=True)
                if place is not None and what is not None:
                    self.use(place, BESIDE)
                    self.put(slot, at, what)
                    self.score += PLACED
                    break

    def _fill_alike(self, slots: Sequence[Slot]) -> None:
        """38 40 lb: alike slots keep the order of the line; the last unit is meant for all."""
        for key in dict.fromkeys((slot.dimension, slot.key) for slot in slots if not slot.many):
            alike = [
                slot for slot in slots
                if (slot.dimension, slot.key) == key and slot.field not in self.texts
            ]  # fmt: skip
            if len(alike) < 2:
                continue
            mine = [at for at in self.free() if self.taken(alike[0], at) is not None]
            if len(mine) == len(alike):
                self._put_alike(alike, mine)

    def _put_alike(self, slots: Sequence[Slot], places: Sequence[int]) -> None:
        amounts = [amount for at in places if (amount := self.items[at].amount) is not None]
        unit = next((one.unit for one in reversed(amounts) if one.unit is not None), None)
        for slot, at, amount in zip(slots, places, amounts, strict=True):
            as_meant = amount if amount.unit is not None else replace(amount, unit=unit)
            what = taken(slot, as_meant, self.units)
            if what is not None:
                self.put(slot, at, what)
                self.score += 2 * IN_ORDER

    def _fill_in_order(self, slot: Slot, *, with_unit: bool) -> None:
        if slot.field in self.texts:
            return
        for at in self.free():
            amount = self.items[at].amount
            if amount is None or (amount.unit is not None) != with_unit:
                continue
            what = self.taken(slot, at)
            if what is not None:
                self.put(slot, at, what)
                self.score += PLACED if with_unit else IN_ORDER
                return

    def _flip(self) -> None:
        for slot in self.word.slots:
            if slot.flipped_by and slot.field in self.texts:
                self.values[slot.field] *= self.chosen.get(slot.flipped_by, 1)

    # the outcome

    def fit(self, subjects: frozenset[str], *, weak: bool = False) -> RowFit | None:
        """Return what the row makes of the line; None where it says nothing of it.

        `weak` tries a row that only a word names which alone does not say enough.
        """
        word = self.word
        lacking = [need for need in word.need if need not in self.chosen]
        if not (self.opened or weak) or self.clashes or lacking or not word.needs(self):
            return None
        self.values.update(word.fixed)
        self.values.update(self.chosen)
        for choice, value in self.chosen.items():
            self.texts[choice] = word.own_words[choice][value]
        whole = self.fill() if word.build is None else word.build(self)
        if whole:
            self._flip()
        self._ask(whole)
        left = self._left(subjects)
        if word.free:
            left = self._take_name(left)
        values = {name: value for name, value in self.values.items() if name[0] != "_"}
        reading, wrong = (
            self._reading(values) if whole and not left and not self.questions else (None, None)
        )
        return RowFit(
            word, self.values, self.texts, self.score + PER_QUESTION * len(self.questions),
            tuple(left), tuple(self.questions), tuple(self.used), whole and wrong is None,
            self.lacks, reading, wrong or self.wrong, self.assumed,
        )  # fmt: skip

    def _ask(self, whole: bool) -> None:
        asked = self.word.asks
        if not whole or not asked or asked in self.values or self._is_none(asked):
            return
        if asked == "datum" and self.brace_datum is not None:
            self.values["datum"] = self.brace_datum
        else:
            self.questions.append(Question(asked, tuple(self.word.own_words[asked].values())))

    def _is_none(self, way: str) -> bool:
        """Return whether the choice only says which way nothing goes: 0 mm out."""
        flipped = [slot for slot in self.word.slots if slot.flipped_by == way]
        return any(self.values.get(slot.field) == 0 for slot in flipped)

    def _left(self, subjects: frozenset[str]) -> list[int]:
        """Return the items that neither the row nor filler accounts for."""
        left = []
        for at, item in enumerate(self.items):
            if self.used[at] is not None:
                continue
            if item.amount is None and self._says_nothing(at, item.word, subjects):
                continue
            left.append(at)
        return left

    def _says_nothing(self, at: int, word: str, subjects: frozenset[str]) -> bool:
        if word in FILLER or word in HEDGES or word in subjects:
            return True
        before = self.items[at - 1] if at else None
        behind = self.items[at + 1] if at + 1 < len(self.items) else None
        if before is not None and (before.word, word) in IDIOMS:
            return True
        if behind is not None and (word, behind.word) in IDIOMS:
            return True
        numbers = (before is not None and before.amount, behind is not None and behind.amount)
        if word == "to":
            return bool(numbers[1]) and not numbers[0]
        return word == "/" and all(numbers)

    def _take_name(self, left: list[int]) -> list[int]:
        """Take the words left at the end as a name, where they are one."""
        if not left or left[0] == 0 or left[-1] != len(self.items) - 1:
            return left
        run = left[-1] - left[0] == len(left) - 1
        words = [self.items[at].word for at in left]
        if not run or DENIALS & set(words) or any(self.items[at].amount for at in left):
            return left
        self.values[self.word.free] = self.texts[self.word.free] = " ".join(words)
        for at in left:
            self.used[at] = self.word.free
        return []

    def _reading(self, values: Mapping[str, Any]) -> tuple[BaseReading | None, DomainError | None]:
        """Make the reading; a row that only asks makes none."""
        if self.word.reading is None:
            return None, None
        try:
            return self.word.reading.model_validate(dict(values)), None
        except ValidationError as error:
            return None, refusal_of(error.errors()).error


Builder = Callable[[Matching], bool]
