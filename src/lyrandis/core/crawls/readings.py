"""What is recorded of crawls: marks as shot, and what they are counted and looked along with."""

from typing import Annotated, Literal

from pydantic import model_validator

from lyrandis.core import quantities as q
from lyrandis.core.archer.words import Anchor
from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.words import (
    DISTANCE_UNIT_WORDS,
    NOTATION_WORDS,
    STRUCK_WORDS,
    SURENESS_WORDS,
    DistanceUnit,
    Notation,
    Struck,
    Sureness,
)
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Figure, Phrase, gap, mm, phrase
from lyrandis.core.quantities import Quantity
from lyrandis.core.reading import BaseReading, EntryId, PartKind, require_something

_OF_TABLE: frozenset[PartKind] = frozenset({"archer", "bow", "arrow_set"})


MarkDistance = Annotated[float, Quantity("mark_distance")]
Fingers = Annotated[float, Quantity("fingers")]
"""Above the nock, for who hooks there, they are negative; so are stitches."""
Stitches = Annotated[float, Quantity("stitches")]


def said_distance(distance_m: float, unit: DistanceUnit) -> str:
    """Return a distance as it was typed.

    >>> said_distance(20.0, "m"), said_distance(18.288, "yd")
    ('20 m', '20 yd')
    """
    if unit == "yd":
        return f"{round(distance_m / M_PER_YD, 1):g} yd"
    return f"{round(distance_m, 1):g} m"


class CrawlMark(BaseReading):
    """A crawl that was shot at a distance: in mm, fingers or stitches, and where it struck.

    `high_mm` is where it struck from the aim, + high; `struck` says so without a figure. Without
    either the crawl was right.
    """

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = _OF_TABLE
    kind: Literal["crawl_mark"] = "crawl_mark"
    distance_m: MarkDistance
    unit: DistanceUnit = "m"
    """What the distance was typed in."""
    crawl_mm: q.Hook | None = None
    fingers: Fingers | None = None
    stitches: Stitches | None = None
    sure: Sureness = "ordinary"
    high_mm: q.HitAside | None = None
    struck: Struck | None = None
    arrows: Annotated[int, Quantity("arrows_of_mark")] = 3
    guessed: bool = False
    """True where the distance was guessed, as on an unmarked course."""

    @model_validator(mode="after")
    def _one_way(self) -> "CrawlMark":
        given = [item for item in (self.crawl_mm, self.fingers, self.stitches) if item is not None]
        if len(given) != 1:
            raise DomainError(
                "nothing_given" if not given else "twice",
                "The crawl is missing." if not given else "The crawl is given twice.",
                "Give it once: in mm, fingers or stitches.",
                "crawl_mm",
            )
        if self.struck is not None and self.high_mm is not None:
            raise DomainError(
                "twice",
                "Where it struck is given twice.",
                "Give it once: how many cm high or low, or only high, fine or low.",
                "struck",
            )
        return self

    def told_as(self) -> Phrase:
        """Return the crawl as it was told, with how sure it is and where it struck."""
        figures: dict[str, Figure] = {}
        if self.crawl_mm is not None:
            said = "{crawl}"
            figures["crawl"] = gap(self.crawl_mm)
        elif self.fingers is not None:
            said = f"{self.fingers:g} finger{'' if self.fingers == 1 else 's'}"
        else:
            said = f"{self.stitches:g} stitch{'' if self.stitches == 1 else 'es'}"
        if self.sure != "ordinary":
            said += f", {SURENESS_WORDS[self.sure]}"
        if self.high_mm:
            said += f": {{off}} {'high' if self.high_mm > 0 else 'low'}"
            figures["off"] = mm(abs(self.high_mm))
        if self.struck is not None:
            said += f", {STRUCK_WORDS[self.struck]}"
        return phrase(said, **figures)

    def say(self) -> Phrase:
        told = self.told_as()
        guessed = "a guessed " if self.guessed else ""
        where = said_distance(self.distance_m, self.unit)
        return phrase(f"At {guessed}{where} crawl {told.template}", **told.figures)


class CrawlUnits(BaseReading):
    """What the distances of all marks until now were meant in."""

    of = frozenset({"rig"})
    settles = False
    needs = _OF_TABLE
    kind: Literal["crawl_units"] = "crawl_units"
    unit: DistanceUnit

    def say(self) -> Phrase:
        return phrase(f"Distances of the crawls until now are {DISTANCE_UNIT_WORDS[self.unit]}")


class CrawlCounted(BaseReading):
    """Whether a mark counts that does not fit the others."""

    of = frozenset({"rig"})
    keyed_by = ("mark",)
    needs = _OF_TABLE
    kind: Literal["crawl_counted"] = "crawl_counted"
    mark: EntryId
    counted: bool

    def say(self) -> Phrase:
        return phrase("A crawl counts" if self.counted else "A crawl is left out")


class FingerWidth(BaseReading):
    """One finger's width across the tab: a third of three, closed."""

    of = frozenset({"archer"})
    by = "measured"
    kind: Literal["finger_width"] = "finger_width"
    width_mm: q.FingerWidthMm

    def say(self) -> Phrase:
        return phrase("Finger {width} wide", width=gap(self.width_mm))


class TabStitches(BaseReading):
    """How far apart the tab's stitches are, over ten of them."""

    of = frozenset({"archer"})
    by = "measured"
    kind: Literal["tab_stitches"] = "tab_stitches"
    ten_mm: q.TenStitches

    def say(self) -> Phrase:
        return phrase("Ten stitches {ten}", ten=gap(self.ten_mm))


class EyeHeight(BaseReading):
    """Eye over the arrow's nock at full draw without a crawl, from a mirror or a photograph."""

    of = frozenset({"archer", "rig"})
    by = "measured"
    keyed_by = ("anchor",)
    needs = frozenset({"archer"})
    kind: Literal["eye_height"] = "eye_height"
    eye_mm: q.EyeHeightMm
    anchor: Anchor | None = None
    """The anchor it was measured at, where another is meant than the present one."""

    def say(self) -> Phrase:
        return phrase("Eye {eye} over the nock", eye=gap(self.eye_mm))


class ArrowReach(BaseReading):
    """Nock groove to the point's very end."""

    of = frozenset({"arrow_set"})
    by = "measured"
    kind: Literal["arrow_reach"] = "arrow_reach"
    reach_mm: q.ArrowReachMm

    def say(self) -> Phrase:
        return phrase("Nock groove to the point's end {reach}", reach=mm(self.reach_mm))


class CrawlHabit(BaseReading):
    """How the archer counts crawls, how well they repeat, and the table that is wanted."""

    of = frozenset({"archer"})
    merges = True
    kind: Literal["crawl_habit"] = "crawl_habit"
    notation: Notation | None = None
    repeat_mm: Annotated[float, Quantity("repeatability")] | None = None
    """One standard deviation of a crawl read off the tab."""
    unit: DistanceUnit | None = None
    from_m: MarkDistance | None = None
    to_m: MarkDistance | None = None
    step_m: Annotated[float, Quantity("table_step")] | None = None

    @model_validator(mode="after")
    def _something(self) -> "CrawlHabit":
        return require_something(self, "notation")

    def say(self) -> Phrase:
        parts: list[str] = []
        figures: dict[str, Figure] = {}
        if self.notation:
            parts.append(f"crawls in {NOTATION_WORDS[self.notation]}")
        if self.repeat_mm is not None:
            parts.append("a crawl repeats within {repeat}")
            figures["repeat"] = gap(2 * self.repeat_mm)
        if self.unit:
            parts.append(f"distances in {DISTANCE_UNIT_WORDS[self.unit]}")
        unit = self.unit or "m"
        for name, words in (("from_m", "from"), ("to_m", "to"), ("step_m", "every")):
            value = getattr(self, name)
            if value is not None:
                parts.append(f"{words} {said_distance(value, unit)}")
        said = ", ".join(parts)
        return phrase(f"{said[0].upper()}{said[1:]}", **figures)


CrawlReading = (
    CrawlMark
    | CrawlUnits
    | CrawlCounted
    | FingerWidth
    | TabStitches
    | EyeHeight
    | ArrowReach
    | CrawlHabit
)
