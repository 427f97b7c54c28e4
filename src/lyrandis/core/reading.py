"""What every reading is: a frozen value that says of itself what it may be recorded on.

The kinds themselves stand in each stage's `readings.py`.
"""

import unicodedata
from abc import ABC, abstractmethod
from collections.abc import Callable
from typing import Annotated, Any, ClassVar, Literal, TypeVar, get_args

from pydantic import AfterValidator, BaseModel, ConfigDict, StringConstraints

from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Figure, Phrase

SubjectKind = Literal["archer", "bow", "string", "arrow_set", "rig"]
PartKind = Literal["archer", "bow", "string", "arrow_set"]
Source = Literal["weighed", "measured", "estimated", "told", "simulated"]
AsideStep = Literal["draw", "hook", "shaft", "arrow_mass", "brace", "nock", "scale", "window"]
"""Steps of work that may be set aside for now; what is looked at before shooting may not."""
StageKey = Literal["archer", "bow", "arrow", "string", "nock", "flight", "crawls", "listen"]

SubjectId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$")]
NEW_PART = "new-part"
"""Stands for a part the rig has not got yet: recorded on it, a reading makes and fits one."""
ENTRY_ID = r"^[A-Za-z0-9][A-Za-z0-9-]{7,63}$"
EntryId = Annotated[str, StringConstraints(pattern=ENTRY_ID)]


_UNSEEN = frozenset({"Cc", "Cf", "Cs", "Co", "Cn", "Zl", "Zp"})


def plain_text(said: str) -> str:
    """Return a text without control, direction and other unseen characters.

    Raises `DomainError` when nothing is left of it.

    >>> plain_text("my\u202e bow" + chr(27) + "[31m")
    'my bow[31m'
    """
    spaced = (" " if character in "\n\r\t" else character for character in said)
    seen = "".join(item for item in spaced if unicodedata.category(item) not in _UNSEEN).strip()
    if not seen:
        raise DomainError("empty", "Nothing is written here.", "Write a word or two.")
    return seen


Name = Annotated[
    str,
    StringConstraints(strip_whitespace=True, min_length=1, max_length=60),
    AfterValidator(plain_text),
]
Note = Annotated[
    str,
    StringConstraints(strip_whitespace=True, min_length=1, max_length=2000),
    AfterValidator(plain_text),
]

PARTS: tuple[PartKind, ...] = get_args(PartKind)
ANY_SUBJECT: frozenset[SubjectKind] = frozenset(get_args(SubjectKind))


class Frozen(BaseModel):
    """A value that never changes and takes nothing it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class Subject(Frozen):
    """Whom or what an entry speaks of."""

    kind: SubjectKind
    id: SubjectId


class Fitted(Frozen):
    """The parts that were on the rig when one of its entries was made."""

    archer: SubjectId | None = None
    bow: SubjectId | None = None
    string: SubjectId | None = None
    arrow_set: SubjectId | None = None


class BaseReading(Frozen, ABC):
    """One thing that can be recorded. A kind that does not say itself cannot be made."""

    of: ClassVar[frozenset[SubjectKind]]
    """Kinds of subject it can be recorded on."""
    by: ClassVar[Source] = "told"
    """Source assumed when none is given."""
    settles: ClassVar[bool] = True
    """True when a newer one takes the place of an older one; False when they add up."""
    merges: ClassVar[bool] = False
    """True when each field is a topic of its own: what is left out stays as it was."""
    keyed_by: ClassVar[tuple[str, ...]] = ()
    """Fields that say which one of several is meant; left out, the reading adds up."""
    needs: ClassVar[frozenset[PartKind]] = frozenset()
    """Recorded on a rig, it counts only while these parts are the ones it was made with."""

    upcasts: ClassVar[tuple[Callable[[dict[str, Any]], dict[str, Any]], ...]] = ()
    """What turns each former shape of the fields into the next; see `core/stored.py`."""

    kind: str

    @abstractmethod
    def say(self) -> Phrase:
        """Return one short sentence that says what the reading records."""

    def needed(self) -> frozenset[PartKind]:
        """Return the parts that must still be on the rig for this reading to count."""
        return self.needs

    def total_of(self) -> str | None:
        """Return what it is the whole of, where changes of that are recorded too: turns, brace."""
        return None

    def total(self) -> Figure:
        """Return that whole as a figure."""
        raise NotImplementedError(self.kind)

    def changed_by(self, amount: float) -> "BaseReading":
        """Return the whole after a change of it. Raises where that cannot be."""
        raise NotImplementedError(self.kind)

    def changes(self) -> tuple[str, float] | None:
        """Return what it is a change of, and by how much."""
        return None

    def key(self) -> tuple[Any, ...] | None:
        """Return which one of several is meant; None when it is not said."""
        key = tuple([getattr(self, name) for name in self.keyed_by])
        return None if None in key else key

    def told(self) -> dict[str, Any]:
        """Return the fields that are given, without the kind and the key."""
        beside = ("kind", *self.keyed_by)
        return {name: value for name, value in self if value is not None and name not in beside}

    def topics(self) -> frozenset[str]:
        """Return what the reading settles; two of one topic take each other's place.

        Empty for readings that add up.
        """
        key = self.key()
        if not self.settles or key is None:
            return frozenset()
        stem = ":".join((self.kind, *map(str, key)))
        return (
            frozenset(f"{stem}:{name}" for name in self.told())
            if self.merges
            else frozenset({stem})
        )


_Build = TypeVar("_Build", bound=BaseReading)


def require_something(build: _Build, field: str) -> _Build:
    """Return a reading of parts, or raise `DomainError` when none of them is given."""
    if not build.told():
        raise DomainError("nothing_given", "No part is named.", "Give at least one part.", field)
    return build


def revision_of(reading: BaseReading | type[BaseReading]) -> int:
    """Return the number of the shape that a kind of reading has now.

    >>> from lyrandis.core.bow.readings import BowLength
    >>> revision_of(BowLength)
    1
    """
    return len(reading.upcasts) + 1
