"""Shapes of the board of evidence."""

from datetime import datetime
from typing import Literal

from lyrandis.core.drawn import Drawn
from lyrandis.core.flight.readings import Change
from lyrandis.core.flight.schools import SchoolLine
from lyrandis.core.flight.words import CAUSE_WORDS, HEIGHT_WORDS, AxisName, Class
from lyrandis.core.judgement import Recordable
from lyrandis.core.phrase import Phrase

CauseOrder = tuple[Class, ...]
SHAFT_ORDER: CauseOrder = tuple(CAUSE_WORDS)
NOCK_ORDER: CauseOrder = tuple(HEIGHT_WORDS)


class Cause(Drawn):
    """One cause as a bar."""

    key: Class
    name: str
    chance: float
    before: float | None
    """Where it stood before the last reading."""
    word: str
    leads: bool


class LedgerRow(Drawn):
    """What one reading did to every cause of the shaft, and of the nock."""

    entry_id: str | None
    at: datetime | None
    says: Phrase
    beside: str
    pulls: tuple[float, ...]
    """ln of how much likelier each cause became, in the order of the bars; + speaks for it."""
    nock_pulls: tuple[float, ...] | None
    counted: bool
    odd: bool
    changed: bool
    """True for a change on the rig between readings."""


class Outcome(Drawn):
    """One thing the next test may show, and what it would mean."""

    what: Phrase
    chance: float
    cause: str
    sure: float
    enough: bool


class TestLine(Drawn):
    """One test that could be shot."""

    __test__ = False
    key: str
    title: Phrase
    how: Phrase
    minutes: int
    bits: float
    trial: Change | None
    back: str | None
    sees: Literal["tail", "bare", "mark", "slap"]
    distance_m: float
    arrows: float


class LeverLine(Drawn):
    """One way to put it right."""

    key: str
    axis: AxisName
    what: Phrase
    reads_lbf: float | None
    """What the shaft would read like on the scale of this rig's match."""
    share: float | None
    """How much of what is due it gives."""
    minutes: int
    undo: str
    records: tuple[Recordable, ...]
    trial: Change | None
    get: bool
    refused: str | None
    reaches: bool
    first: bool
    disturbs: tuple[str, ...]


class ExpectedReading(Drawn):
    """What the next tail and bare shafts should be, in the plane that was changed."""

    axis: AxisName
    tail: tuple[float, ...]
    """Chance of each class as it is seen, strong left to strong right; strong high to strong low
    of the nock."""
    likeliest: str
    unexpected: tuple[str, ...]
    bare: Phrase | None
    """None where they may strike anywhere on the butt."""


class Proof(Drawn):
    """A reading after a change, beside what was said beforehand."""

    says: Phrase
    expected: Phrase
    chance: float
    as_expected: bool


class Correction(Drawn):
    """What is due, and every way to it."""

    sentence: Phrase
    wants_lbf: float | None
    wants_low_lbf: float | None
    wants_high_lbf: float | None
    own_lbf: float | None
    levers: tuple[LeverLine, ...]
    expected: ExpectedReading | None


class TunedMatch(Drawn):
    """What the flight says of the rig's match, beside the mechanics."""

    matched_lbf: float
    low_lbf: float
    high_lbf: float
    model_lbf: float
    model_low_lbf: float
    model_high_lbf: float
    own_lbf: float
    offset: float
    sd: float
    in_force: bool
    kept: bool
    narrower: bool
    says: Phrase
    keeps: Recordable
    """What keeping it records: the match, and every setting."""


class Suspect(Drawn):
    """Something that was done between readings that contradict each other."""

    says: Phrase
    why: str


class FlightBoard(Drawn):
    """All that the evidence says."""

    sentence: Phrase
    under: Phrase | None
    verdict: str
    nock: str
    causes: tuple[Cause, ...]
    nock_causes: tuple[Cause, ...] | None
    ledger: tuple[LedgerRow, ...]
    off: float | None
    off_says: Phrase | None
    said_from: float
    counted: int
    next: TestLine | None
    outcomes: tuple[Outcome, ...]
    others: tuple[TestLine, ...]
    enough: bool
    correction: Correction | None
    proofs: tuple[Proof, ...]
    expected_now: ExpectedReading | None
    tuned: bool
    nock_tuned: bool
    near: Phrase | None
    """How near the match it is, where no test is worth its trouble any more."""
    differs: Phrase | None
    """What is set otherwise since it was kept."""
    match: TunedMatch | None
    suspects: tuple[Suspect, ...]
    schools: tuple[SchoolLine, ...]
