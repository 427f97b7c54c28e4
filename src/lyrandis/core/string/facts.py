"""What is in force of the string: how it is made, since when it is on, and its brace."""

from dataclasses import dataclass
from datetime import datetime

from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.pile import Pile, Recorded, newest
from lyrandis.core.string.readings import BraceHeight, StringBuild

STRING_GR_PER_STRAND = 6.5


@dataclass(frozen=True)
class StringFacts:
    name: str | None = None
    builds: tuple[Recorded[StringBuild], ...] = ()
    fitted_at: datetime | None = None
    """When this string came onto the rig."""
    brace_height: Recorded[BraceHeight] | None = None

    @property
    def mass_gr(self) -> float | None:
        """Its mass, as last weighed."""
        mass: float | None = newest(self.builds, "string_mass_gr")[0]
        return mass

    @property
    def told_mass_gr(self) -> float | None:
        """Its mass where it is told, or follows from its strands; for every use of it.

        Assumption: 6.5 gr a strand, of 60 in with its share of the serving, where nobody weighed.

        >>> from lyrandis.core.example import setup
        >>> setup(["string 59 16 strands"]).string.told_mass_gr
        104.0
        """
        if self.mass_gr is not None:
            return self.mass_gr
        return None if self.strands is None else STRING_GR_PER_STRAND * self.strands

    @property
    def strands(self) -> int | None:
        """Number of its strands, as last told."""
        strands: int | None = newest(self.builds, "strands")[0]
        return strands


def facts(pile: Pile) -> StringFacts:
    """Return what is in force of the string on this rig."""
    fitted = pile.last(PartFitted, "string")
    return StringFacts(
        name=pile.names.get("string"),
        builds=pile.all(StringBuild),
        fitted_at=fitted.entry.happened_at if fitted else None,
        brace_height=pile.last(BraceHeight),
    )
