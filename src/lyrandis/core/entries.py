"""Entries: a dated reading of a subject, and the one union of all that can be recorded.

Entries are never changed: undo is another entry.
"""

from typing import Annotated, get_args

from pydantic import (
    AwareDatetime,
    Field,
    StringConstraints,
    model_validator,
)

from lyrandis.core.archer.readings import (
    AnchorChosen,
    ArcherReading,
    ArmSpan,
    ArmTape,
    DrawMarked,
    DrawOnScale,
    DrawStated,
    GripDepth,
    HandChosen,
    HoldChosen,
    HookDepth,
    PurposeChosen,
    WeightWished,
)
from lyrandis.core.archer.words import (
    Anchor,
    Datum,
    Hand,
    Hold,
    Purpose,
)
from lyrandis.core.arrow.readings import (
    ArrowBuild,
    ArrowMassed,
    ArrowNumber,
    ArrowPass,
    ArrowReading,
    NumberedArrow,
    TaperShot,
)
from lyrandis.core.arrow.words import (
    ArrowState,
    Flight,
    LengthDatum,
    ShaftMaterial,
    SpineStandard,
)
from lyrandis.core.bench_readings import (
    BenchReading,
    Named,
    Noted,
    PartFitted,
    PutAway,
    Retraction,
)
from lyrandis.core.bow.readings import (
    ArrowMinimum,
    ArrowSpeed,
    BowFamily,
    BowLength,
    BowMadeAs,
    BowMark,
    BowReading,
    BowWeighed,
    BraceRange,
    DrawLimit,
    Inspected,
    LimbPair,
    PutTogether,
    RiserLength,
)
from lyrandis.core.bow.words import (
    AssemblyStep,
    BowMade,
    Family,
    InspectionItem,
    LimbsAre,
)
from lyrandis.core.by_ear import ByEar, SoundMark
from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.readings import (
    ArrowReach,
    CrawlCounted,
    CrawlHabit,
    CrawlMark,
    CrawlReading,
    CrawlUnits,
    EyeHeight,
    FingerWidth,
    TabStitches,
)
from lyrandis.core.crawls.words import DistanceUnit, Notation, Sureness
from lyrandis.core.errors import DomainError
from lyrandis.core.flight.readings import (
    BareApart,
    ButtHits,
    Change,
    ColumnMark,
    FeathersSeen,
    FlightKit,
    FlightReading,
    Hit,
    MatchSource,
    PlateMarked,
    RigTuned,
    ShotCare,
    SlapHeard,
    TailSeen,
    TrialSet,
    WalkedBack,
)
from lyrandis.core.flight.words import Care, MatchFrom, Pushed
from lyrandis.core.listen.readings import (
    ListenReading,
    MovedOnset,
    PartialHeard,
    ShaftTapped,
    SoundHeard,
    TakeHeard,
    TapHeard,
)
from lyrandis.core.listen.words import Brought, Fault, TappedState, Trouble, What
from lyrandis.core.nock.readings import (
    ArrowNock,
    BowKitTold,
    CentreShot,
    LimbBolts,
    LimbsInLine,
    NockHeight,
    NockLocked,
    NockReading,
    NockShot,
    RiserSide,
    RiserWeight,
    TillerGaps,
    UsualCrawl,
)
from lyrandis.core.nock.words import BowKit, LimbPlace, NockDatum, NockFlight
from lyrandis.core.order.readings import (
    OrderHabit,
    OrderReading,
    SettingChecked,
    SettingFound,
    SettingMoved,
)
from lyrandis.core.order.words import ByFlight, Habit, Node
from lyrandis.core.reading import (
    PARTS,
    BaseReading,
    EntryId,
    Frozen,
    Name,
    Note,
    PartKind,
    Source,
    SubjectId,
    SubjectKind,
    revision_of,
)
from lyrandis.core.string.readings import (
    BraceHeight,
    BraceTried,
    StringBuild,
    StringReading,
    StringSettled,
    StringStrung,
    StringTurns,
)
from lyrandis.core.string.words import BraceDatum, StringMaterial, StringType, Tail

__all__ = [
    "M_PER_YD",
    "PARTS",
    "READINGS",
    "Anchor",
    "AnchorChosen",
    "ArmSpan",
    "ArmTape",
    "ArrowBuild",
    "ArrowMassed",
    "ArrowMinimum",
    "ArrowNock",
    "ArrowNumber",
    "ArrowPass",
    "ArrowReach",
    "ArrowSpeed",
    "ArrowState",
    "AssemblyStep",
    "BareApart",
    "BaseReading",
    "BowFamily",
    "BowKit",
    "BowKitTold",
    "BowLength",
    "BowMade",
    "BowMadeAs",
    "BowMark",
    "BowWeighed",
    "BraceDatum",
    "BraceHeight",
    "BraceRange",
    "BraceTried",
    "Brought",
    "ButtHits",
    "ByEar",
    "ByFlight",
    "Care",
    "CentreShot",
    "Change",
    "ColumnMark",
    "CrawlCounted",
    "CrawlHabit",
    "CrawlMark",
    "CrawlUnits",
    "Datum",
    "DistanceUnit",
    "DrawLimit",
    "DrawMarked",
    "DrawOnScale",
    "DrawStated",
    "Entry",
    "EntryDraft",
    "EntryId",
    "EyeHeight",
    "Family",
    "Fault",
    "FeathersSeen",
    "FingerWidth",
    "Fitted",
    "Flight",
    "FlightKit",
    "Frozen",
    "GripDepth",
    "Habit",
    "Hand",
    "HandChosen",
    "Hit",
    "Hold",
    "HoldChosen",
    "HookDepth",
    "Inspected",
    "InspectionItem",
    "LengthDatum",
    "LimbBolts",
    "LimbPair",
    "LimbPlace",
    "LimbsAre",
    "LimbsInLine",
    "MatchFrom",
    "MatchSource",
    "MovedOnset",
    "Name",
    "Named",
    "NockDatum",
    "NockFlight",
    "NockHeight",
    "NockLocked",
    "NockShot",
    "Node",
    "Notation",
    "Note",
    "Noted",
    "NumberedArrow",
    "OrderHabit",
    "PartFitted",
    "PartKind",
    "PartialHeard",
    "PlateMarked",
    "PostedEntry",
    "Purpose",
    "PurposeChosen",
    "Pushed",
    "PutAway",
    "PutTogether",
    "Reading",
    "Retraction",
    "RigTuned",
    "RiserLength",
    "RiserSide",
    "RiserWeight",
    "SettingChecked",
    "SettingFound",
    "SettingMoved",
    "ShaftMaterial",
    "ShaftTapped",
    "ShotCare",
    "SlapHeard",
    "SoundHeard",
    "SoundMark",
    "Source",
    "SpineStandard",
    "StringBuild",
    "StringMaterial",
    "StringSettled",
    "StringStrung",
    "StringTurns",
    "StringType",
    "Subject",
    "SubjectId",
    "SubjectKind",
    "Sureness",
    "TabStitches",
    "Tail",
    "TailSeen",
    "TakeHeard",
    "Taking",
    "TapHeard",
    "TaperShot",
    "TappedState",
    "TillerGaps",
    "TrialSet",
    "Trouble",
    "UsualCrawl",
    "WalkedBack",
    "WeightWished",
    "What",
]

Reading = Annotated[
    BenchReading
    | ArcherReading
    | BowReading
    | StringReading
    | ArrowReading
    | NockReading
    | FlightReading
    | CrawlReading
    | ListenReading
    | OrderReading,
    Field(discriminator="kind"),
]
READINGS: tuple[type[BaseReading], ...] = get_args(get_args(Reading)[0])


class Subject(Frozen):
    """Whom or what an entry speaks of."""

    kind: SubjectKind
    id: SubjectId


class EntryDraft(Frozen):
    """An entry as it is offered for recording."""

    subject: Subject
    reading: Reading
    happened_at: AwareDatetime | None = None
    source: Source | None = None
    note: Note | None = None
    as_typed: Annotated[str, StringConstraints(max_length=400)] | None = None
    id: EntryId | None = None

    @model_validator(mode="after")
    def _subject_fits(self) -> "EntryDraft":
        if self.subject.kind not in self.reading.of:
            wanted = " or ".join(sorted(self.reading.of)).replace("_", " ")
            raise DomainError(
                "wrong_subject",
                f"“{self.reading.kind}” cannot be recorded on {_a(self.subject.kind)}.",
                f"Record it on {_a(wanted)}.",
                "subject",
            )
        return self


def _a(noun: str) -> str:
    noun = noun.replace("_", " ")
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


class Fitted(Frozen):
    """The parts that were on the rig when one of its entries was made."""

    archer: SubjectId | None = None
    bow: SubjectId | None = None
    string: SubjectId | None = None
    arrow_set: SubjectId | None = None


class Entry(EntryDraft):
    """An entry as recorded: when it happened, when it was written down, in what order."""

    id: EntryId
    seq: int
    happened_at: AwareDatetime
    recorded_at: AwareDatetime
    source: Source
    fitted: Fitted | None = None

    revision: Annotated[int, Field(ge=1)] = Field(
        default_factory=lambda told: revision_of(told["reading"])
    )
    """Which shape the reading is written in: a saved file says it."""


class Taking(Frozen):
    """An entry to take back, and the id of the retraction: a repeated send is recorded once."""

    entry_id: EntryId
    id: EntryId | None = None
    happened_at: AwareDatetime | None = None
    """When it was taken back; now, where it is not said."""


class PostedEntry(EntryDraft):
    """A draft or a recorded entry, as a file or a what-if may hold."""

    seq: int | None = None
    recorded_at: AwareDatetime | None = None
    fitted: Fitted | None = None
    revision: Annotated[int, Field(ge=1)] | None = None
