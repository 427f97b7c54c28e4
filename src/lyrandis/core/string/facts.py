"""What is in force of the string: how it is made, since when it is on, and its brace."""

from dataclasses import dataclass
from datetime import datetime

from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.pile import Pile, Recorded, newest
from lyrandis.core.string.readings import BraceHeight, StringBuild


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
