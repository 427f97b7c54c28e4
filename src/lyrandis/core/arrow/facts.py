"""What is in force of the arrows: masses, parts, numbered arrows, tapers and their pass."""

from dataclasses import dataclass
from typing import Any, NamedTuple

from lyrandis.core.arrow.readings import (
    ArrowBuild,
    ArrowMassed,
    ArrowPass,
    NumberedArrow,
    TaperShot,
)
from lyrandis.core.arrow.words import ShaftMaterial
from lyrandis.core.effective import EffectiveReadings, Recorded, newest, when
from lyrandis.core.lazy import lazy

OTHER_THAN_TOLD, OTHER_THAN_GAUGED = 0.06, 0.15
"""Assumption: shares of a spine from which on one told anew is of other shafts."""


class OtherShafts(NamedTuple):
    """Other shafts put into the set: their spine, and that of those before."""

    recorded: Recorded[Any]
    before_lbf: float
    after_lbf: float


@dataclass(frozen=True)
class ArrowFacts:
    name: str | None = None
    masses: tuple[Recorded[ArrowMassed], ...] = ()
    builds: tuple[Recorded[ArrowBuild], ...] = ()
    numbered: tuple[Recorded[NumberedArrow], ...] = ()
    tapers: tuple[Recorded[TaperShot], ...] = ()
    passes: tuple[Recorded[ArrowPass], ...] = ()

    @property
    def material(self) -> ShaftMaterial | None:
        """What the shafts are made of, as last said."""
        return next((b.reading.material for b in reversed(self.builds) if b.reading.material), None)

    def part(self, name: str) -> tuple[Any, Recorded[ArrowBuild] | None]:
        """Return the newest value given for one part of the arrow, and the entry that gave it."""
        return newest(self.builds, name)

    @property
    def spine_told(self) -> bool:
        """True when the set's spine, or that of one of its arrows, is known."""
        told, _ = self.part("spine_lbf")
        return told is not None or any(arrow.reading.spine_lbf for arrow in self.numbered)

    @lazy
    def other_shafts(self) -> tuple[OtherShafts, ...]:
        """When other shafts were put into the set: a spine told again that is no better reading.

        Within 6 % of what was told before it is a better reading; beside gauged shafts the label
        of the same ones may be 15 % off.
        Assumption: both shares.
        """
        told = [(when(build.entry), build, None, build.reading.spine_lbf) for build in self.builds]
        gauged = [
            (when(one.entry), one, one.reading.arrow_number, one.reading.spine_lbf)
            for one in self.numbered
        ]
        log = sorted((*told, *gauged), key=lambda row: row[0])
        numbered: dict[int, float] = {}
        label: float | None = None
        found = []
        for _, recorded, number, spine in log:
            if spine is None:
                continue
            if number is not None:
                numbered[number] = spine
                continue
            before = sum(numbered.values()) / len(numbered) if numbered else label
            least = OTHER_THAN_GAUGED if numbered else OTHER_THAN_TOLD
            if before is not None and abs(spine / before - 1) >= least:
                found.append(OtherShafts(recorded, before, spine))
                numbered = {}
            label = spine
        return tuple(found)

    @lazy
    def out_of_use(self) -> frozenset[int]:
        """Numbers of the arrows that are cracked or retired."""
        out: dict[int, dict[str, bool]] = {}
        for recorded in self.numbered:
            reading = recorded.reading
            told = out.setdefault(reading.arrow_number, {})
            if reading.state is not None:
                told["cracked"] = reading.state == "cracked"
            if reading.retired is not None:
                told["retired"] = reading.retired
        return frozenset(number for number, told in out.items() if any(told.values()))

    def passing(self, name: str) -> tuple[Any, Recorded[ArrowPass] | None]:
        """Return the newest value told of the arrow pass, and the reading that gave it."""
        return newest(self.passes, name)


def facts(readings: EffectiveReadings) -> ArrowFacts:
    """Return what is in force of the arrows on this rig: one mass a number, unnumbered ones all."""
    return ArrowFacts(
        name=readings.names.get("arrow_set"),
        masses=readings.keyed(ArrowMassed),
        builds=readings.all(ArrowBuild),
        numbered=readings.all(NumberedArrow),
        tapers=readings.all(TaperShot),
        passes=readings.all(ArrowPass),
    )
