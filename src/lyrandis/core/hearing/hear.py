"""What a typed line says: taken, or asked back, or refused with what is left over.

Read the line with every row whose words are in it. Every word of the line must be accounted for;
the best row is taken if no other comes near it with another reading and it has nothing to ask.
"""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from itertools import product
from math import prod

from lyrandis.core.errors import Understood
from lyrandis.core.hearing.items import Item, items_of
from lyrandis.core.hearing.matching import Matching, RowFit, filled
from lyrandis.core.hearing.plain_words import FILLER, HEDGES
from lyrandis.core.hearing.table import BESIDE, NAME, Word
from lyrandis.core.hearing.writing import SPOKEN_UNITS
from lyrandis.core.lazy import lazy
from lyrandis.core.units import UnitSet

_NEAR = 6.0
"""A row within so many points of the best, with another reading, is a rival: it is asked."""
_MOST_WAYS = 8
"""A line that could be mended in more ways is not."""
_SHORTEST_MENDED = 4
"""Shorter words are not mended: too many are one letter apart."""


@dataclass(frozen=True)
class Table:
    """Every row, by the words and units that make it worth trying."""

    words: tuple[Word, ...]
    subjects: tuple[frozenset[str], ...]
    """By row: plain words of its stage that say nothing beside it."""
    by_word: Mapping[str, frozenset[int]] = field(init=False)
    by_dimension: Mapping[str, frozenset[int]] = field(init=False)
    vocabulary: frozenset[str] = field(init=False)
    """Words long enough to be mended when one letter is wrong."""
    needed: tuple[tuple[frozenset[str], ...], ...] = field(init=False)
    """By row: the first words of each choice it cannot do without."""
    weakly: Mapping[str, frozenset[int]] = field(init=False)
    """Rows by words that alone do not say enough of them."""
    nouns: frozenset[str] = field(init=False)
    """Words that alone name a row."""

    def __post_init__(self) -> None:
        by_word: dict[str, set[int]] = defaultdict(set)
        by_dimension: dict[str, set[int]] = defaultdict(set)
        weakly: dict[str, set[int]] = defaultdict(set)
        vocabulary: set[str] = set()
        nouns: set[str] = set()
        for number, word in enumerate(self.words):
            for dimension in word.self_telling:
                by_dimension[dimension].add(number)
            for spelling in word.spelled:
                if spelling.opens:
                    by_word[spelling.words[0]].add(number)
                elif spelling.stands_for in word.need and word.implied:
                    weakly[spelling.words[0]].add(number)
                if spelling.stands_for == NAME and len(spelling.words) == 1:
                    nouns.add(spelling.words[0])
                vocabulary.update(
                    one for one in spelling.words
                    if len(one) >= _SHORTEST_MENDED and one.isalpha()
                )  # fmt: skip
            for slot in word.slots:
                vocabulary |= {
                    one for one in (*slot.words_before, *slot.words_behind)
                    if len(one) >= _SHORTEST_MENDED
                }  # fmt: skip
        set_ = object.__setattr__
        set_(self, "by_word", {first: frozenset(rows) for first, rows in by_word.items()})
        set_(self, "by_dimension", {one: frozenset(rows) for one, rows in by_dimension.items()})
        set_(self, "needed", tuple(map(_needed, self.words)))
        set_(self, "weakly", {first: frozenset(rows) for first, rows in weakly.items()})
        set_(self, "vocabulary", frozenset(vocabulary))
        set_(self, "nouns", frozenset(nouns - FILLER))

    def __hash__(self) -> int:
        return id(self)

    def rows_in(self, items: Iterable[Item]) -> list[int]:
        """Return the rows whose words or telling units are in a line, in the table's order."""
        found: set[int] = set()
        for item in items:
            if item.amount is not None and item.amount.unit is not None:
                for dimension in SPOKEN_UNITS[item.amount.unit]:
                    found |= self.by_dimension.get(dimension, frozenset())
            found |= self.by_word.get(item.word, frozenset())
        return sorted(found)

    def worth_trying(self, items: Iterable[Item]) -> list[int]:
        """Return those of them whose needed choices may be in the line."""
        items = tuple(items)
        said = {item.word for item in items}
        return [
            number
            for number in self.rows_in(items)
            if not any(said.isdisjoint(firsts) for firsts in self.needed[number])
        ]

    def knows(self, word: str) -> bool:
        known = (self.vocabulary, self.by_word, FILLER, HEDGES, SPOKEN_UNITS)
        return any(word in group for group in known)

    @lazy
    def mended(self) -> "Mender":
        return Mender(self.vocabulary)


def _needed(word: Word) -> tuple[frozenset[str], ...]:
    return tuple(
        frozenset(one.words[0] for one in word.spelled if one.stands_for == need)
        for need in word.need
    )


class Mender:
    """Finds the words of the trade that a typed one is one slip away from."""

    def __init__(self, vocabulary: frozenset[str]) -> None:
        self._by_length: dict[int, list[str]] = defaultdict(list)
        for word in sorted(vocabulary):
            self._by_length[len(word)].append(word)
        self._of = lru_cache(maxsize=2048)(self._find)

    def __call__(self, word: str) -> tuple[str, ...]:
        """Return the words that are one letter wrong, lacking, over or swapped away.

        >>> Mender(frozenset({"height", "serving"}))("hieght")
        ('height',)
        """
        return self._of(word)

    def _find(self, word: str) -> tuple[str, ...]:
        lengths = (len(word) - 1, len(word), len(word) + 1)
        near = (other for length in lengths for other in self._by_length.get(length, ()))
        return tuple(other for other in near if _one_slip(word, other))


def _one_slip(one: str, other: str) -> bool:
    if len(one) == len(other):
        off = [at for at in range(len(one)) if one[at] != other[at]]
        swapped = (
            len(off) == 2
            and off[1] == off[0] + 1
            and (one[off[0]], one[off[1]]) == (other[off[1]], other[off[0]])
        )
        return len(off) == 1 or swapped
    short, long = sorted((one, other), key=len)
    return any(long[:at] + long[at + 1 :] == short for at in range(len(long)))


@dataclass(frozen=True)
class Ear:
    """Who listens: the table, the reader's units, and what is known of the rig."""

    table: Table
    units: UnitSet = "inch"
    brace_datum: str | None = None

    def fits(self, items: Sequence[Item]) -> list[RowFit]:
        """Return the rows a line may mean, the best first."""
        return self._tried(self.table.worth_trying(items), items)

    def weakly(self, items: Sequence[Item]) -> list[RowFit]:
        """Return rows that fit a whole line by words that alone do not say enough of them."""
        rows = set().union(*(self.table.weakly.get(item.word, frozenset()) for item in items))
        return [fit for fit in self._tried(sorted(rows), items, weak=True) if fit.fits]

    def _tried(
        self, rows: Iterable[int], items: Sequence[Item], *, weak: bool = False
    ) -> list[RowFit]:
        found = []
        for number in rows:
            matching = Matching(self.table.words[number], items, self.units, self.brace_datum)
            fit = matching.fit(self.table.subjects[number], weak=weak)
            if fit is not None:
                found.append(fit)
        return sorted(found, key=lambda fit: -fit.score)

    def hear(self, text: str) -> "LineHearing":
        """Hear a line, mending single slips of the finger where that alone makes it whole."""
        items = items_of(text)
        found = self.fits(items)
        if any(fit.fits for fit in found):
            return LineHearing(self, text, items, tuple(found))
        return self._mended(text, items) or LineHearing(self, text, items, tuple(found))

    def _mended(self, text: str, items: tuple[Item, ...]) -> "LineHearing | None":
        """Hear a line with its slips mended, where just one way of it makes the line whole."""
        ways = [self._ways(item) for item in items]
        if prod(map(len, ways)) > _MOST_WAYS:
            return None
        heard = []
        for words in product(*ways):
            mended = tuple(replace(i, word=word) for i, word in zip(items, words, strict=True))
            found = self.fits(mended) if mended != items else []
            if any(fit.fits for fit in found):
                pairs = list(zip(items, mended, strict=True))
                slips = tuple(one for one, now in pairs if one != now)
                named = {one.word for one, now in pairs if one == now and one.amount is None}
                sure = bool(named & (self.table.by_word.keys() - {"at"}))
                heard.append(LineHearing(self, text, mended, tuple(found), slips, sure))
        return heard[0] if len(heard) == 1 else None

    def _ways(self, item: Item) -> tuple[str, ...]:
        """Return what a word may have been meant to be: itself, where the table knows it."""
        word = item.word
        if item.amount is not None or len(word) < _SHORTEST_MENDED or self.table.knows(word):
            return (word,)
        return self.table.mended(word) or (word,)

    def reads(self, line: str) -> bool:
        """Return whether a line is taken as it stands."""
        return self.hear(line).taken is not None


@dataclass(frozen=True)
class LineHearing:
    """A line with every row that fits it."""

    ear: Ear
    text: str
    items: tuple[Item, ...]
    found: tuple[RowFit, ...]
    slips: tuple[Item, ...] = ()
    """Words of the line that were mended."""
    surely_mended: bool = True
    """False where the mended word was the line's only name: then it is asked."""

    @lazy
    def rivals(self) -> tuple[RowFit, ...]:
        """The rows that fit the whole line, the best and those near it that read otherwise."""
        whole = [fit for fit in self.found if fit.fits]
        rivals: list[RowFit] = whole[:1]
        for fit in whole[1:]:
            near = fit.score > rivals[0].score - _NEAR
            if near and not any(_same(fit, other) for other in rivals):
                rivals.append(fit)
        return tuple(rivals)

    @property
    def taken(self) -> RowFit | None:
        """The one row the line surely means, else None."""
        if len(self.rivals) != 1 or not self.surely_mended:
            return None
        [best] = self.rivals
        return None if best.questions or best.word.reading is None else best

    @property
    def hedged(self) -> bool:
        """Whether the line says itself that it is a guess."""
        return any(item.word in HEDGES and item.amount is None for item in self.items)

    @property
    def offered(self) -> list[str]:
        """The sentences that would settle what is asked; each of them is taken as it stands."""
        lines = [line for fit in self.rivals for line in sentences(fit)]
        return [line for line in dict.fromkeys(lines) if self.ear.reads(line)]

    def understood(self, fit: RowFit) -> tuple[Understood, ...]:
        """Return part by part what the line was taken for."""
        parts: list[Understood] = []
        for item, stands_for in zip(self.items, fit.taken_for, strict=True):
            if stands_for is None or stands_for == BESIDE:
                continue
            name = fit.assumed.get(stands_for) or _called(fit.word, stands_for)
            before = parts[-1] if parts else None
            touches = before is not None and not self.text[before.end : item.start].strip()
            if before is not None and before.taken_for == name and touches:
                parts[-1] = Understood(before.start, item.end, name)
            else:
                parts.append(Understood(item.start, item.end, name))
        return tuple(parts)


def _same(one: RowFit, other: RowFit) -> bool:
    if one.reading is not None and one.reading == other.reading and not one.questions:
        return True
    return set(sentences(one)) == set(sentences(other))


def _called(word: Word, stands_for: str) -> str:
    if stands_for == NAME:
        return word.word
    slot = next((slot for slot in word.slots if slot.field == stands_for), None)
    return slot.name if slot is not None else stands_for.strip("_").replace("_", " ")


def sentences(fit: RowFit) -> list[str]:
    """Return the sentences in typed order that a fit may mean: one for each answer.

    >>> from lyrandis.core.jot import EAR
    >>> [line for fit in EAR.hear("brace 7 1/2").rivals for line in sentences(fit)]
    ['brace 7 1/2 grip', 'brace 7 1/2 back', 'brace 7 1/2 plunger']
    """
    says = fit.word.asks_which or (fit.word.say,)
    fields = [question.field for question in fit.questions]
    lines = []
    for answers in product(*(question.ways for question in fit.questions)):
        for say in says:
            answered = dict(zip(fields, answers, strict=True))
            lines.append(filled(say, {**fit.texts, **answered}))
    return list(dict.fromkeys(lines))
