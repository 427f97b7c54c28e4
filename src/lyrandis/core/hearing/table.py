"""A row of the table of what archers say: one way to say one kind of reading.

The same row feeds the typed order, any order, the example, the sentence a guess offers and the
fields of the word's form.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any, Literal

from lyrandis.core.hearing.items import words_of
from lyrandis.core.lazy import lazy
from lyrandis.core.quantities import PLAUSIBLE, Plausible
from lyrandis.core.reading import BaseReading, SubjectKind

if TYPE_CHECKING:
    from lyrandis.core.hearing.matching import Matching

Dimension = Literal[
    "length", "distance", "force", "mass", "speed", "grains per pound", "grains per inch", "spine",
    "turn", "strand", "finger", "stitch", "degree", "hour", "number", "whole",
]  # fmt: skip
"""What a slot holds. `number` and `whole` have no unit; the nouns are counted."""
Parts = Sequence[tuple[str, str, str]]
"""Kind, id and name of what could be fitted."""
Values = Mapping[Any, str]
"""A choice's values with how they are said, `;` between; the first is how we say it."""


def spellings_of(spellings: str) -> tuple[str, ...]:
    """Return the spellings of a row's text.

    >>> spellings_of("draw length; dl")
    ('draw length', 'dl')
    """
    return tuple(stripped for part in spellings.split(";") if (stripped := part.strip()))


@dataclass(frozen=True)
class Slot:
    """A number that a row takes."""

    field: str
    """The reading's field it fills; with _ before it, only the row itself uses it."""
    dimension: Dimension
    key: str
    """Its believable and usual range, in `quantities`."""
    needed: bool = True
    before: str = ""
    """Words it stands behind, `;` between."""
    behind: str = ""
    """Words that stand behind it."""
    pairs: bool = False
    """True where its word may stand on either side, one of two: top 7 bottom 7, 7 top 7 bottom."""
    signed: bool = False
    """True where a + or - before it is part of it."""
    by_name: bool = False
    """True where it has to have its unit, or one of its words beside it."""
    on_the_way: bool = False
    """True of a draw that is measured before full draw too: in inches any is usual."""
    many: bool = False
    """True where it takes every bare number that follows."""
    flipped_by: str = ""
    """The choice whose value, 1 or -1, is its sign."""
    label: str = ""
    """What its field of a form is called."""

    @lazy
    def words_before(self) -> frozenset[str]:
        return frozenset(spellings_of(self.before))

    @lazy
    def words_behind(self) -> frozenset[str]:
        return frozenset(spellings_of(self.behind))

    @property
    def range(self) -> Plausible:
        return PLAUSIBLE[self.key]

    @property
    def name(self) -> str:
        return self.label or self.range.name


@dataclass(frozen=True, slots=True)
class Spelling:
    """A phrase of a row: what it stands for, and whether it makes the row worth trying."""

    words: tuple[str, ...]
    stands_for: str
    """`name`, `beside`, or the choice it is a value of."""
    value: Any = None
    opens: bool = False


def _holds(phrase: tuple[str, ...], name: tuple[str, ...]) -> bool:
    """Return whether a name stands in a phrase: slap in no slap."""
    last = len(phrase) - len(name)
    return any(phrase[at : at + len(name)] == name for at in range(last + 1))


NAME, BESIDE = "name", "beside"


@dataclass(frozen=True)
class Word:
    """One row: how one kind of reading is said, asked back, shown as a form, and made."""

    word: str
    """The word of the jot line it belongs to."""
    subject: SubjectKind
    reading: type[BaseReading] | None
    """The kind it records; None for a row that only asks which of several is meant."""
    say: str = ""
    """The sentence in typed order: {fields} stand for slots and choices."""
    records: str = ""
    """What it records, for the list of words; empty where a row is only heard."""
    example: str = ""
    names: str = ""
    """What it is called beside its word, `;` between."""
    slots: tuple[Slot, ...] = ()
    choices: Mapping[str, Values] = field(default_factory=dict)
    """By field; with _ before it, only the row itself uses it."""
    beside: str = ""
    """Words of the trade that may stand beside it and say nothing more."""
    fixed: Mapping[str, Any] = field(default_factory=dict)
    """Fields that are always so."""
    need: tuple[str, ...] = ()
    """Choices it cannot do without."""
    wanted: tuple[str, ...] = ()
    """Choices its form cannot do without, though a sign may say them in a line."""
    asks: str = ""
    """A choice that is asked for where it lacks."""
    asks_which: tuple[str, ...] = ()
    """Sentences it is asked between, where no reading is certain."""
    question: str = ""
    """What is asked then."""
    implied: bool = False
    """True where its choices alone say what is meant."""
    self_telling: tuple[Dimension, ...] = ()
    """Dimensions whose unit alone says what is meant."""
    weak: str = ""
    """Spellings of choices that alone do not, `;` between."""
    build: Callable[["Matching"], bool] | None = None
    """Fills the slots where the row's own order does not do."""
    needs: Callable[["Matching"], bool] = lambda _: True
    """What of the line it needs beside its words."""
    free: str = ""
    """The field that the words left at the end are the name of."""
    unnamed: bool = False
    """True where its word itself is no name of it."""
    reads: Callable[[str, "Parts"], BaseReading | None] | None = None
    """Reads a line whose words are kept as they are said; None where it is no such line."""
    text: str = ""
    """The field of such words."""
    labels: Mapping[str, str] = field(default_factory=dict)
    """What its choices and free pieces are called in its form, where the field's name is not it."""
    lacks: Mapping[str, tuple[str, str]] = field(default_factory=dict)
    """What is said where a part of it lacks, and what to do: by field."""

    @property
    def key(self) -> str:
        """What it is known by: its word and its sentence."""
        return f"{self.word}: {self.say}"

    @lazy
    def spelled(self) -> tuple[Spelling, ...]:
        """Every phrase of the row, in the order of the table."""
        own_name = () if self.unnamed else (self.word,)
        names = [words_of(name) for name in (*own_name, *spellings_of(self.names))]
        result = [Spelling(words, NAME, opens=True) for words in names]
        result += [Spelling(words_of(one), BESIDE) for one in spellings_of(self.beside)]
        weak = {words_of(one) for one in spellings_of(self.weak)}
        for choice, values in self.choices.items():
            for value, spellings in values.items():
                for words in map(words_of, spellings_of(spellings)):
                    named = any(_holds(words, name) for name in names)
                    opens = named or (self.implied and words not in weak)
                    result.append(Spelling(words, choice, value, opens))
        return tuple(result)

    @lazy
    def by_first(self) -> Mapping[str, tuple[Spelling, ...]]:
        """Phrases by their first word, the longest first."""
        index: dict[str, list[Spelling]] = {}
        for spelling in self.spelled:
            index.setdefault(spelling.words[0], []).append(spelling)
        return {
            first: tuple(sorted(group, key=lambda one: -len(one.words)))
            for first, group in index.items()
        }

    @lazy
    def own_words(self) -> Mapping[str, Mapping[Any, str]]:
        """How each value of a choice is said by us: its first spelling."""
        return {
            choice: {value: spellings_of(spellings)[0] for value, spellings in values.items()}
            for choice, values in self.choices.items()
        }

    def ways(self, choice: str) -> tuple[str, ...]:
        """Return the words to choose a value by, as we say them."""
        return tuple(self.own_words[choice].values())

    @property
    def kind(self) -> str:
        return "" if self.reading is None else str(self.reading.model_fields["kind"].default)
