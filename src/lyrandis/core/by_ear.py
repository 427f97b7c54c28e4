"""What a reading carries that was taken by ear: the recording it came from, and its own doubt."""

from typing import Annotated

from pydantic import Field, StringConstraints

from lyrandis.core.quantities import Quantity
from lyrandis.core.reading import Frozen

SoundMark = Annotated[
    str,
    StringConstraints(pattern=r"^[0-9a-f]{16}$"),
    Field(description="mark of a recording: the beginning of its SHA-256"),
]


class ByEar(Frozen):
    """A recording's mark, and how sure the reading is: 95 in a hundred lie within `half`."""

    mark: SoundMark
    half: Annotated[float, Quantity("half_interval")]
    """In the reading's own unit."""
    same_place: bool = False
    """Phone, place and gain as at the recording before."""
