"""The shapes a judgement is given in: values, findings, stages, the next step, rules."""

from typing import Annotated, Literal

from pydantic import AfterValidator

from lyrandis.core.drawn import Drawn
from lyrandis.core.entries import Reading
from lyrandis.core.phrase import Figure, Phrase
from lyrandis.core.reading import AsideStep, Source, StageKey, SubjectKind

Severity = Literal["stop", "mend", "watch", "good"]
Mark = Literal["unset", "estimated", "settled", "in_doubt", "rests", "waits"]
Origin = Literal["weighed", "measured", "told", "rule", "estimated", "simulated"]

SEVERITIES: tuple[Severity, ...] = ("stop", "mend", "watch", "good")
_WEAKEST_LAST: tuple[Origin, ...] = (
    "weighed",
    "measured",
    "told",
    "rule",
    "estimated",
    "simulated",
)


class Rule(Drawn):
    """A rule of the trade, as the rulebook states it."""

    id: str
    stage: StageKey
    title: str
    statement: str
    school: str
    """Who holds it: a law, a convention of the trade, a school, or Lyrandis itself."""
    source: str
    """What it rests on, in words."""
    also: tuple[StageKey, ...] = ()
    """Other stages whose pages its findings belong to as well."""


class Recordable(Drawn):
    """Something that is recorded in one go."""

    subject: SubjectKind
    reading: Reading
    says: Phrase
    """What is recorded, in words."""


def recordable(subject: SubjectKind, reading: Reading) -> Recordable:
    """Return a reading as it is recorded in one go, saying itself.

    >>> from lyrandis.core.bench_readings import Noted
    >>> recordable("rig", Noted(text="quiet")).says.text()
    'Note: quiet'
    """
    return Recordable(subject=subject, reading=reading, says=reading.say())


class Action(Drawn):
    """A way to do what a finding asks: a control to go to, and what it is for."""

    label: str
    stage: StageKey
    control: str
    """Id of the control on that stage's page."""
    records: tuple[Recordable, ...] = ()
    """What pressing it records before it leads there."""


MOST_IDS = 6
"""Entries a value names at the most, so that answers do not grow with the log, which has all."""


def _bounded(ids: tuple[str, ...]) -> tuple[str, ...]:
    return ids[-MOST_IDS:]


class Value(Drawn):
    """One number or choice with its unit, ±, origin and some of the entries it stands on."""

    key: str
    label: str
    figure: Figure | None = None
    text: str | None = None
    choice: str | None = None
    """The stored word behind `text`, for a control to preselect."""
    detail: Phrase | None = None
    """What belongs behind the figure, such as the draw a mark is written for."""
    origin: Origin | None = None
    entries: Annotated[tuple[str, ...], AfterValidator(_bounded)] = ()
    because: tuple[Phrase, ...] | None = None
    """Its sum, where the page writes it out beside the value; else the finding on it has it."""
    missing: str | None = None
    """Why there is no value, when there is none."""


class Finding(Drawn):
    """A judgement of one number."""

    id: str
    stage: StageKey
    severity: Severity
    sentence: Phrase
    sum: tuple[Phrase, ...]
    rule: str
    action: Action | None = None
    title: str | None = None
    """What it is called where its sentence stands elsewhere; else its rule's title."""
    before_shooting: bool = False
    """True where nobody shoots until it is put right or measured again, short of a Stop."""
    homes: tuple[StageKey, ...] = ()
    """The stages on whose pages it is shown open; elsewhere it is one line."""


class Caution(Drawn):
    """A standing warning that belongs on a stage."""

    id: str
    text: str


class Standing(Drawn):
    """How a stage stands: its live value, its mark, and all that is known there."""

    mark: Mark
    headline: str
    """Key of the value that stands in the rail."""
    detail: Phrase | None = None
    answer: Phrase | None = None
    """What the stage says, in one sentence: it stands over its pages."""
    moved: Phrase | None = None
    """What put it in doubt."""
    reason: Phrase | None = None
    """The same in at most 26 characters, for the rail."""
    values: tuple[Value, ...] = ()
    cautions: tuple[Caution, ...] = ()


class Stage(Standing):
    """One stage of the order of work."""

    key: StageKey
    number: int
    name: str
    stop: bool = False
    """True while a Stop of this stage stands."""

    @property
    def live(self) -> Value:
        """The value that stands in the rail."""
        return next(value for value in self.values if value.key == self.headline)


class NextStep(Drawn):
    """The one thing most worth doing now."""

    title: Phrase
    why: Phrase
    tells: Phrase
    minutes: int
    action: Action
    finding: str | None = None
    """The finding it comes from, whose sentence it says."""
    aside: AsideStep | None = None
    """What it is called where it may be set aside for now."""
    on_page: bool = False
    """True where it is done on the page its action leads to: no button is wanted there."""
    other: Action | None = None
    """What may be done instead."""


class Unchecked(Drawn):
    """Something that is not known of a rig, for the answer to: may I shoot this?"""

    what: Phrase
    before_shooting: bool = False
    """True when it is looked at before the first shot."""
    step: NextStep | None = None
    """How it is checked."""
    turn: int | None = None
    """When it is asked for: 0 before anything is measured, then in a coach's order; None where it
    is only said."""


class OpenCheck(Drawn):
    """Something nobody has checked yet, and where that is done."""

    what: Phrase
    action: Action | None = None


class MayShoot(Drawn):
    """The plain answer to: may I shoot this?"""

    answer: Literal["no", "not_yet", "nothing_against"]
    because: tuple[Phrase, ...]
    """What speaks against it: dangers, or what is looked at before."""
    unchecked: tuple[OpenCheck, ...]
    """What is not known beside."""
    to_mend: int = 0
    """Findings to put right that are no danger by themselves."""


def weakest(*origins: Origin | Source) -> Origin:
    """Return the least trustworthy of the origins: a chain is named by its weakest link.

    >>> weakest("weighed", "estimated", "told")
    'estimated'
    """
    return max(origins, key=_WEAKEST_LAST.index)


def found(
    stage: StageKey,
    finding: str,
    severity: Severity,
    sentence: Phrase,
    sum_: tuple[Phrase, ...],
    action: Action | None = None,
    title: str | None = None,
    *,
    rule: str | None = None,
    before_shooting: bool = False,
) -> Finding:
    """Return a finding; it goes by the name of its rule unless another rule is given.

    >>> found("string", "brace-quiet", "watch", Phrase("Try {it}."), ()).rule
    'brace-quiet'
    >>> found("bow", "speed-off", "watch", Phrase("Look."), (), rule="chronograph").rule
    'chronograph'
    """
    return Finding(
        id=finding,
        stage=stage,
        severity=severity,
        sentence=sentence,
        sum=sum_,
        rule=rule or finding,
        action=action,
        title=title,
        before_shooting=before_shooting,
    )


MOST_LINES = 6
"""Readings written out in a sum; a longer list says how many more there are."""


def shortened(lines: list[Phrase], count: int) -> tuple[Phrase, ...]:
    """Return the lines of a sum over `count` readings, saying how many are not written out.

    >>> [line.text() for line in shortened([Phrase(template="27 in.")], 3)]
    ['27 in.', 'And 2 more.']
    """
    more = count - len(lines)
    return (*lines, Phrase(template=f"And {more} more.")) if more else tuple(lines)
