"""What every reading is: a frozen value that says of itself what it may be recorded on.

The kinds themselves stand in each stage's `readings.py`.
"""

from abc import ABC, abstractmethod
from typing import Annotated, ClassVar, Literal, TypeVar, get_args

from pydantic import BaseModel, ConfigDict, StringConstraints

from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Phrase

SubjectKind = Literal["archer", "bow", "string", "arrow_set", "rig"]
PartKind = Literal["archer", "bow", "string", "arrow_set"]
Source = Literal["weighed", "measured", "estimated", "told", "simulated"]
StageKey = Literal["archer", "bow", "arrow"]

SubjectId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$")]
EntryId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9-]{7,63}$")]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
Note = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=2000)]

ANY_SUBJECT: frozenset[SubjectKind] = frozenset(get_args(SubjectKind))


class Frozen(BaseModel):
    """A value that never changes and takes nothing it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class BaseReading(Frozen, ABC):
    """One thing that can be recorded. A kind that does not say itself cannot be made."""

    of: ClassVar[frozenset[SubjectKind]]
    """Kinds of subject it can be recorded on."""
    by: ClassVar[Source] = "told"
    """Source assumed when none is given."""
    settles: ClassVar[bool] = True
    """True when a newer one takes the place of an older one; False when they add up."""

    @abstractmethod
    def say(self) -> Phrase:
        """Return one short sentence that says what the reading records."""


_Build = TypeVar("_Build", bound=BaseReading)


def require_something(build: _Build, field: str) -> _Build:
    """Return a reading of parts, or raise `DomainError` when none of them is given."""
    if all(value is None for name, value in build if name != "kind"):
        raise DomainError("nothing_given", "No part is named.", "Give at least one part.", field)
    return build
